#pragma once

#include <initializer_list>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/geometry/vec.hpp"
#include "core/problems/problems.hpp"
#include "core/units/quantity.hpp"
#include "core/units/shown_units.hpp"
#include "files/text/asked_keys.hpp"

namespace toml {
inline namespace v3 {
class array;
class table;
class key;
class node;
}  // namespace v3
}  // namespace toml

namespace glow::files {

enum class Need { optional, required };

/// Allowed values, both ends included unless `above_low`.
struct Range {
  double low = 0, high = 1;
  bool above_low = false;  ///< the low end itself is not allowed
};

/// One table of a TOML file while it is read: hands out typed values, notes every fault with its place, and
/// at the end names the keys that nobody asked for. The document must outlive it.
class TomlTable {
 public:
  TomlTable(const toml::table& table, std::string name, std::string file, Problems& problems);

  std::optional<std::string> text(const std::string& key, Need need = Need::optional);
  /// Text of several lines and paragraphs, for documents; at most 20 000 bytes.
  std::optional<std::string> paragraphs(const std::string& key);
  /// A list of texts, each with its place; empty when there is none.
  std::vector<std::pair<std::string, Place>> texts(const std::string& key);
  /// A number in base units, or a string with a unit.
  std::optional<double> quantity(const std::string& key, units::Dimension dimension, Range range,
                                 Need need = Need::optional);
  std::optional<int> count(const std::string& key, int low, int high, Need need = Need::optional);
  /// [x, y]; each a number or a string with a unit.
  std::optional<Vec2> point(const std::string& key, Need need = Need::optional);
  /// [x, y, z].
  std::optional<Vec3> position(const std::string& key, Need need = Need::optional);
  /// [x, y] or [x, y, z]; z is NaN in the shorter form. Required.
  std::optional<Vec3> place_in_room(const std::string& key);
  /// All keys of the table, in alphabetical order, where they are names of people's own.
  std::vector<std::string> keys() const;
  /// `count` numbers from low to high.
  std::optional<std::vector<double>> numbers(const std::string& key, std::size_t count, double low,
                                             double high);
  /// The same of `least` to `most` numbers.
  std::optional<std::vector<double>> numbers(const std::string& key, std::size_t least, std::size_t most,
                                             double low, double high);
  /// [[x, y, z], ...], 3 to 2000 of them.
  std::optional<std::vector<Vec3>> positions(const std::string& key);
  /// What stands there as one line of words: text, a number, true or false, or a list of them with commas
  /// between.
  std::optional<std::string> words(const std::string& key);
  std::optional<bool> flag(const std::string& key);
  /// [[x, y], [x, y], ...].
  std::optional<std::vector<Vec2>> points(const std::string& key, Need need = Need::optional);
  /// [[a, b], ...] of plain numbers; faults are noted.
  std::vector<Vec2> pairs(const std::string& key);
  /// True when the key holds this very text ("auto"); consumes the key then.
  bool is_text(const std::string& key) const;
  bool is_word(const std::string& key, const std::string& word);
  /// Whether the key holds a list, or a table; the key is not consumed.
  bool is_list(const std::string& key) const;
  bool is_table(const std::string& key) const;
  /// The same for "false" where something else usually stands.
  bool is_false(const std::string& key);
  std::optional<TomlTable> table(const std::string& key);
  /// [[key]] tables, in the order of the file.
  std::vector<TomlTable> tables(const std::string& key);
  /// One table { ... }, or a list of them.
  std::vector<TomlTable> one_or_more(const std::string& key);
  /// All sub-tables, by name, in the order of the file: [key.NAME].
  std::vector<std::pair<std::string, TomlTable>> named_tables(const std::string& key);

  /// Keys that are missing here are looked for in the other table, before earlier ones; it must outlive this.
  void fall_back_on(const TomlTable& other) { others_.push_back(other.table_); }
  /// Knows all keys that the other table was asked for.
  void know_what(const TomlTable& other);
  /// The text of a key, without reading it.
  std::string peek(const std::string& key) const;

  /// Knows the key without reading it, when something about it was reported already.
  void skip(const std::string& key) { known_.push_back(key); }
  bool has(const std::string& key) const;
  /// Where the key's value stands; the table's own place when it is missing.
  Place place_of(const std::string& key) const;
  Place place() const;
  Problems& problems() { return *problems_; }
  /// Bare lengths and light levels are in these units from now on, also in tables taken from this one.
  void set_units(const units::ShownUnits& units) { units_ = units; }
  const units::ShownUnits& units() const { return units_; }
  /// All that is asked of this table, and of those taken from it, is noted there; it must outlive them.
  void note_in(AskedKeys* asked) { asked_ = asked; }
  /// Whether exactly one of these is there. Where none is but a misspelt one, that is told of and counts.
  bool has_one_of(std::initializer_list<const char*> keys);
  /// Names the keys that were never asked for, with the nearest one that could have been meant.
  void finish();

 private:
  std::optional<std::string> text_of(const std::string& key, const toml::node* node, std::size_t most);
  bool check_characters(const std::string& text, const Place& place);
  const toml::node* take(const std::string& key, Form form, Need need = Need::optional);
  /// Tells that `key` is missing and which other one may mean it, which is then told of no more; false: none.
  bool tell_misspelt(const std::string& key);
  void tell_missing(const std::string& key);
  void note(const std::string& key, Form form, const std::string& allowed = {}) const;
  Place place_of(const toml::node& node) const;
  Place place_of(const toml::key& key) const;
  void wrong_type(const std::string& key, const toml::node& node, const std::string& expected);
  std::optional<double> to_quantity(const std::string& key, const toml::node& node,
                                    units::Dimension dimension);
  std::optional<std::vector<double>> to_lengths(const std::string& key, const toml::node& node,
                                                std::size_t count, const char* expected);
  TomlTable inner(const toml::table& table, const std::string& key, const std::string& name = {}) const;
  const toml::array* take_corners(const std::string& key, Form form, const char* expected,
                                  const toml::node*& node);
  std::optional<Vec2> to_point(const std::string& key, const toml::node& node);

  /// Here, or in what it falls back on; null: nowhere.
  const toml::node* find(const std::string& key) const;

  const toml::table* table_;
  std::vector<const toml::table*> others_;
  std::string name_;
  std::string file_;
  Problems* problems_;
  units::ShownUnits units_;
  std::vector<std::string> known_;
  std::vector<std::string> told_;  ///< unknown keys that were named already
  AskedKeys* asked_ = nullptr;
};

}  // namespace glow::files
