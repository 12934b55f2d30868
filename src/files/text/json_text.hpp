#pragma once

#include <nlohmann/json_fwd.hpp>
#include <string>
#include <string_view>

namespace glow::files {

/// The document as text that people can read and compare: one key a line, lists of numbers together on lines
/// of about a hundred characters. Here as below, what is no UTF-8 is replaced by U+FFFD: names of files may
/// be any bytes.
std::string json_text(const nlohmann::ordered_json& document);

/// One value of a document as it stands `depth` levels deep in it: no indent before, no line break after.
std::string json_piece(const nlohmann::ordered_json& value, int depth);

/// The value on one line, without spaces, for programs.
std::string json_line(const nlohmann::ordered_json& value);

/// What a text says as JSON; `is_discarded()`, and none of the kinds of values, where it is not.
nlohmann::ordered_json parsed_json(std::string_view text);

}  // namespace glow::files
