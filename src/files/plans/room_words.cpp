#include "files/plans/room_words.hpp"

#include "files/output/embedded_files.hpp"
#include "files/plans/dxf/drawn_text.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::files {
namespace {

struct Proposal {
  std::string task;
  std::vector<std::string> words;
};

const std::vector<Proposal>& proposals() {
  static const std::vector<Proposal> list = [] {
    std::vector<Proposal> read;
    const EmbeddedFile* file = embedded_table("room-words.txt");
    if (!file) return read;
    for (const std::string_view line : split_lines(file->bytes)) {
      if (line.empty() || line.front() == '#') continue;
      const std::size_t comma = line.find(',');
      if (comma != std::string_view::npos) {
        Proposal proposal{std::string(line.substr(0, comma)), {}};
        for (const std::string& word : parts_of(line.substr(comma + 1), '|'))
          proposal.words.push_back(dxf::folded(word));
        read.push_back(std::move(proposal));
      }
    }
    return read;
  }();
  return list;
}

/// The name with a _ at both ends of each of its words.
std::string with_ends(const std::string& name) {
  std::string out = "_";
  for (const char c : dxf::folded(name)) {
    const bool parts = c == ' ' || c == '-' || c == '/' || c == ',' || c == '.' || c == '(' || c == ')';
    if (!parts)
      out += c;
    else if (out.back() != ' ')
      out += "_ ";
  }
  return out + "_";
}

/// Ends are marks of their own only where the word asks for them.
bool holds(const std::string& name, const std::string& marked, const std::string& word) {
  if (word.empty()) return false;
  if (word.front() != '_' && word.back() != '_') return name.find(word) != std::string::npos;
  return marked.find(word) != std::string::npos;
}

}  // namespace

std::string task_by_name(const std::string& name) {
  const std::string folded = dxf::folded(name);
  std::string marked = with_ends(name);
  // "_ " stands between words; a word's own first mark is the last one's end as well.
  for (std::size_t at = marked.find("_ "); at != std::string::npos; at = marked.find("_ ", at + 2))
    marked.replace(at, 2, "_ _");
  for (const Proposal& proposal : proposals())
    for (const std::string& word : proposal.words)
      if (holds(folded, marked, word)) return proposal.task;
  return {};
}

}  // namespace glow::files
