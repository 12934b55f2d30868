#include "files/text/csv_cell.hpp"

namespace glow::files {

std::string csv_cell(const std::string& words) {
  if (words.find_first_of(",\"\n\r") == std::string::npos) return words;
  std::string quoted = "\"";
  for (const char c : words) quoted += c == '"' ? std::string("\"\"") : std::string(1, c);
  return quoted + "\"";
}

}  // namespace glow::files
