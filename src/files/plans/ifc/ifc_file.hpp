#pragma once

#include <map>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/geometry/vec.hpp"
#include "core/plans/models/model.hpp"
#include "files/plans/step/step_file.hpp"

namespace glow::files::ifc {

using step::Record;
using step::Value;

/// A record with its values at hand; attributes count from 0, as the schema lists them.
struct Item {
  const Record* record = nullptr;
  const std::string* type = nullptr;
  std::vector<Value> values;

  explicit operator bool() const { return record != nullptr; }
  bool is(const char* name) const { return record && *type == name; }
  const Value& at(std::size_t k) const;
  std::string text(std::size_t k) const;              ///< decoded; empty where none is
  std::string word(std::size_t k) const;              ///< of a value such as .LENGTHUNIT.
  std::optional<double> number(std::size_t k) const;  ///< a typed one as well
  std::uint64_t reference(std::size_t k) const;       ///< 0: none
  std::vector<std::uint64_t> references(std::size_t k) const;
};

/// The number of a value, bare or in a type: 2., IFCLENGTHMEASURE(2.).
std::optional<double> number_of(const Value& value);

/// An IFC file with what its readers share: units, and what is to be told.
class IfcFile {
 public:
  IfcFile(const step::StepFile& file, const std::string& name, Problems& problems)
      : step(file), name_(name), problems_(problems) {}

  /// The record of a number, or an empty item, told once, where it is not there or has too few values.
  Item item(std::uint64_t number);
  Item item(const Record& record);
  Item item(const Item& of, std::size_t attribute) { return item(of.reference(attribute)); }

  void error(const char* code, const Record& record, std::string text);
  /// A doubt about one record, told once for each code and record.
  void doubt(const char* code, const Record& record, std::string text);
  bool has_failed() const { return problems_.has_errors(); }

  plans::Entity entity(const Item& product, std::string name) const;

  const step::StepFile& step;
  double metre = 1;   ///< of a unit of length
  double radian = 1;  ///< of a unit of angle
  std::vector<plans::Doubt> doubts;

 private:
  const std::string& name_;
  Problems& problems_;
  std::set<std::pair<std::string, std::uint64_t>> told_;
};

/// "#57".
std::string number_word(const Record& record);

/// Units of the project. `stated`: metres of one unit, instead of the file's own. False and an error where
/// neither says it.
bool read_units(IfcFile& file, std::optional<double> stated);

/// A compound angle, "(53, 24, 45, 0)", in degrees.
std::optional<double> degrees_of(const Value& value);

}  // namespace glow::files::ifc
