#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "core/problems/problems.hpp"

namespace glow::files::step {

/// A value of a record's list.
struct Value {
  enum class Kind { unset, derived, number, text, word, reference, list, typed };
  Kind kind = Kind::unset;
  double number = 0;
  std::uint64_t reference = 0;
  std::string_view raw;      ///< a text between its quotes, a word between its dots, a type's name
  std::vector<Value> items;  ///< of a list; of a typed value the one within
  bool is_list() const { return kind == Kind::list; }
};

/// A record of the data section: "#12=IFCWALL(...);".
struct Record {
  std::uint64_t number = 0;
  std::size_t begin = 0;  ///< of its list, in the file
  std::uint32_t line = 0, type = 0;
};

/// A STEP file (ISO 10303-21, clear text): an index of its records, whose values are taken apart when they
/// are asked for, so that memory stays within that of the file and its index.
class StepFile {
 public:
  /// Nothing and one error, with its line, for what is no such file, cut off, or not well formed.
  static std::optional<StepFile> read(std::string bytes, const std::string& name, Problems& problems);

  const std::string& schema() const { return schema_; }  ///< in capitals: "IFC4"
  std::size_t size() const { return records_.size(); }
  /// Null: there is none of that number.
  const Record* find(std::uint64_t number) const;
  /// Its values; of a record that cannot be taken apart none.
  std::vector<Value> values(const Record& record) const;
  const std::string& type_of(const Record& record) const { return types_[record.type]; }
  /// In the order of the file; `type` in capitals.
  std::vector<const Record*> of_type(const std::string& type) const;
  /// Names of all types, each with how many records have it.
  std::vector<std::pair<std::string, std::size_t>> types() const;

 private:
  friend class Indexer;
  std::string bytes_, schema_;
  std::vector<Record> records_;  ///< by number
  std::vector<std::string> types_;
  std::vector<std::vector<std::uint32_t>> by_type_;  ///< places in `records_`, by line
};

/// A text as UTF-8: '' and \\ as one, \X\, \X2\, \X4\ and \S\ as the letters they stand for.
std::string decoded(std::string_view raw);

}  // namespace glow::files::step
