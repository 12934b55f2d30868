#pragma once

#include <nlohmann/json_fwd.hpp>
#include <string>

namespace glow::files {

/// The document as text that people can read and compare: one key a line, lists of numbers together on lines
/// of about a hundred characters.
std::string json_text(const nlohmann::ordered_json& document);

/// One value of a document as it stands `depth` levels deep in it: no indent before, no line break after.
std::string json_piece(const nlohmann::ordered_json& value, int depth);

}  // namespace glow::files
