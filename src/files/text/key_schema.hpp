#pragma once

#include <string>

#include "files/text/asked_keys.hpp"

namespace glow::files {

/// A JSON schema (draft 7) of what was asked, for editors: keys, how their values are written, what is
/// allowed in words. Keys that nobody asked for are errors in it as they are to the reader; which are needed
/// only the reader tells.
std::string key_schema(const AskedKeys& asked, const std::string& title);

}  // namespace glow::files
