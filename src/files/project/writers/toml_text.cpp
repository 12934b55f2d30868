#include "files/project/writers/toml_text.hpp"

#include <algorithm>

namespace glow::files {
namespace {

/// Lines that headers of tables stand in.
void headers_in(const toml::node& node, std::set<std::size_t>& headers) {
  if (const toml::table* table = node.as_table()) {
    if (table->is_inline()) return;
    if (table->source().begin.line > 0) headers.insert(table->source().begin.line);
    for (const auto& [key, value] : *table) headers_in(value, headers);
  } else if (const toml::array* array = node.as_array()) {
    for (const toml::node& each : *array) headers_in(each, headers);
  }
}

bool is_blank_or_comment(const std::string& line) {
  const std::size_t first = line.find_first_not_of(" \t\r\n");
  return first == std::string::npos || line[first] == '#';
}

bool is_blank(const std::string& line) {
  return line.find_first_not_of(" \t\r\n") == std::string::npos;
}

}  // namespace

TomlText::TomlText(const std::string& text) : document_(toml::parse(text)) {
  for (std::size_t begin = 0; begin < text.size();) {
    const std::size_t end = std::min(text.find('\n', begin), text.size() - 1) + 1;
    begins_.push_back(begin);
    lines_.push_back(text.substr(begin, end - begin));
    begin = end;
  }
  for (const auto& [key, value] : document_) headers_in(value, headers_);
}

std::size_t TomlText::header_of(const toml::node* node) {
  const toml::table* table = node ? node->as_table() : nullptr;
  return table && !table->is_inline() ? table->source().begin.line : 0;
}

std::size_t TomlText::end_of(const toml::node& table) const {
  std::set<std::size_t> own;
  headers_in(table, own);
  if (own.empty()) return 0;
  const auto next = headers_.upper_bound(*own.rbegin());
  std::size_t end = next == headers_.end() ? lines_.size() + 1 : *next;
  while (end > *own.rbegin() + 1 && is_blank_or_comment(lines_[end - 2])) --end;
  return end;
}

/// Columns count letters, not bytes.
std::size_t TomlText::offset_of(const toml::source_position& at) const {
  if (at.line == 0 || at.line > lines_.size())
    return begins_.empty() ? 0 : begins_.back() + lines_.back().size();
  const std::string& line = lines_[at.line - 1];
  std::size_t byte = 0;
  for (std::size_t letter = 1; letter < at.column && byte < line.size(); ++letter) {
    ++byte;
    while (byte < line.size() && (line[byte] & 0xc0) == 0x80) ++byte;
  }
  return begins_[at.line - 1] + byte;
}

void TomlText::replace(const toml::node& value, const std::string& words) {
  replaced_[offset_of(value.source().begin)] = {offset_of(value.source().end), words};
}

void TomlText::take_out(const toml::node& table, bool with_blank_line) {
  const std::size_t header = header_of(&table), end = end_of(table);
  if (header == 0) return;
  for (std::size_t line = header; line < end; ++line) gone_.insert(line);
  if (with_blank_line && header > 1 && is_blank(lines_[header - 2])) gone_.insert(header - 1);
}

std::string TomlText::result() const {
  std::string out;
  std::size_t skip_to = 0;  // byte: a value that spans lines was replaced
  for (std::size_t number = 1; number <= lines_.size() + 1; ++number) {
    if (const auto fresh = inserted_.find(number); fresh != inserted_.end()) {
      if (!out.empty() && out.back() != '\n') out += '\n';
      out += fresh->second;
    }
    if (number > lines_.size() || gone_.count(number)) continue;
    const std::string& line = lines_[number - 1];
    const std::size_t begin = begins_[number - 1], end = begin + line.size();
    std::size_t at = std::max(begin, skip_to);
    for (auto edit = replaced_.lower_bound(begin); edit != replaced_.end() && edit->first < end; ++edit) {
      if (edit->first < at) continue;
      out.append(line, at - begin, edit->first - at);
      out += edit->second.second;
      skip_to = edit->second.first;
      at = std::min(skip_to, end);
    }
    if (at < end && at >= begin) out.append(line, at - begin, end - at);
  }
  return out;
}

}  // namespace glow::files
