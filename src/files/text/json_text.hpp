#pragma once

#include <nlohmann/json_fwd.hpp>
#include <string>

namespace glow::files {

/// The document as text that people can read and compare: one key a line, lists of numbers together on lines
/// of about a hundred characters.
std::string json_text(const nlohmann::ordered_json& document);

}  // namespace glow::files
