#include "files/text/csv_cell.hpp"

#include "files/text/text_scanner.hpp"

namespace glow::files {

std::string csv_cell(const std::string& bytes) {
  const std::string words = utf8_of(bytes);
  if (words.find_first_of(",\"\n\r") == std::string::npos) return words;
  std::string quoted = "\"";
  for (const char c : words) quoted += c == '"' ? std::string("\"\"") : std::string(1, c);
  return quoted + "\"";
}

}  // namespace glow::files
