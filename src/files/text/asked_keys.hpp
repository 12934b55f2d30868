#pragma once

#include <map>
#include <memory>
#include <set>
#include <string>

namespace glow::files {

/// How a value is written.
enum class Form {
  text,
  quantity,  ///< a number, or text with a unit
  count,
  flag,
  point,     ///< quantities, two of them
  position,  ///< three
  place,     ///< two or three
  points,    ///< lists of them
  positions,
  numbers,
  pairs,
  texts,
  words,  ///< text, number, flag, or a list of them
  table,
  tables,
  named_tables,
  anything
};

/// What a reader asked of a table: the keys it takes and how their values are written. Files that are read
/// with one fill it; the more they say, the more is asked. The schema for editors is made of it.
class AskedKeys {
 public:
  /// The forms that were asked for, each with what is allowed ("0 to 1"); empty: nothing to say.
  std::map<Form, std::string> forms;
  /// Words that may stand there too, such as "auto" or false.
  std::set<std::string> words;
  bool may_be_false = false;
  bool any_key = false;  ///< the keys of this table are names of people's own, all with values of one kind

  /// What is asked of a key of this table; of all sub-tables of `named_tables`: of the key "*".
  AskedKeys& key(const std::string& name);
  const std::map<std::string, std::unique_ptr<AskedKeys>>& keys() const { return keys_; }
  /// Takes over all that the other was asked.
  void add(const AskedKeys& other);

 private:
  std::map<std::string, std::unique_ptr<AskedKeys>> keys_;
};

}  // namespace glow::files
