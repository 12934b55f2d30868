#pragma once

#include <toml++/toml.h>

#include <map>
#include <set>
#include <string>
#include <vector>

namespace glow::files {

/// A TOML text that is changed in places, while the rest stays byte for byte.
class TomlText {
 public:
  /// `text` was read before: it can be parsed.
  explicit TomlText(const std::string& text);

  const toml::table& document() const { return document_; }
  /// Line of a table's header, from 1; 0: it is written within a line.
  static std::size_t header_of(const toml::node* table);
  /// One past the last line of the table, tables within it included; blank lines and comments that lead to
  /// the next table are not its own.
  std::size_t end_of(const toml::node& table) const;

  /// Puts other words in the place of a value.
  void replace(const toml::node& value, const std::string& words);
  /// Takes a table out, with those within it and, if asked for, the blank line that led to it.
  void take_out(const toml::node& table, bool with_blank_line);
  /// Puts tables in before a line; further ones for the same line follow.
  void insert(std::size_t line, const std::string& tables) { inserted_[line] += tables; }

  std::string result() const;

 private:
  std::size_t offset_of(const toml::source_position& at) const;

  toml::table document_;
  std::vector<std::string> lines_;  ///< each with its line break
  std::vector<std::size_t> begins_;
  std::set<std::size_t> headers_, gone_;  ///< lines
  std::map<std::size_t, std::string> inserted_;
  std::map<std::size_t, std::pair<std::size_t, std::string>> replaced_;  ///< by first byte: one past the last
};

}  // namespace glow::files
