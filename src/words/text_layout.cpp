#include "words/text_layout.hpp"

#include <algorithm>

namespace glow::words {

void wrap(std::string& text, const std::string& lead, const std::string& words, std::size_t indent) {
  std::string current = lead;
  bool fresh = true;  // nothing but the lead on this line yet
  for (std::size_t start = 0; start < words.size();) {
    const std::size_t end = std::min(words.find(' ', start), words.size());
    const std::string word = words.substr(start, end - start);
    if (!fresh && current.size() + word.size() + 1 > kTerminalWidth) {
      text += current + "\n";
      current = std::string(indent, ' ');
      fresh = true;
    }
    current += (fresh ? "" : " ") + word;
    fresh = false;
    start = end + 1;
  }
  text += current + "\n";
}

}  // namespace glow::words
