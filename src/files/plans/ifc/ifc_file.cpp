#include "files/plans/ifc/ifc_file.hpp"

#include <fmt/format.h>

#include <cmath>

namespace glow::files::ifc {
namespace {

const Value kUnset;

/// How many values records of a type have at least, and at most where both schemas agree.
struct Count {
  std::size_t least, most;
};
const std::map<std::string, Count>& counts() {
  static const std::map<std::string, Count> table = {
      {"IFCSPACE", {11, 11}},
      {"IFCSITE", {14, 14}},
      {"IFCBUILDINGSTOREY", {10, 10}},
      {"IFCLOCALPLACEMENT", {2, 2}},
      {"IFCAXIS2PLACEMENT3D", {3, 3}},
      {"IFCAXIS2PLACEMENT2D", {2, 2}},
      {"IFCCARTESIANPOINT", {1, 1}},
      {"IFCDIRECTION", {1, 1}},
      {"IFCEXTRUDEDAREASOLID", {4, 4}},
      {"IFCSHAPEREPRESENTATION", {4, 4}},
      {"IFCPRODUCTDEFINITIONSHAPE", {3, 3}},
      {"IFCARBITRARYCLOSEDPROFILEDEF", {3, 3}},
      {"IFCARBITRARYPROFILEDEFWITHVOIDS", {4, 4}},
      {"IFCRECTANGLEPROFILEDEF", {5, 5}},
      {"IFCCIRCLEPROFILEDEF", {4, 4}},
      {"IFCPOLYLINE", {1, 1}},
      {"IFCFACETEDBREP", {1, 1}},
      {"IFCFACE", {1, 1}},
      {"IFCPOLYLOOP", {1, 1}},
      {"IFCMAPPEDITEM", {2, 2}},
      {"IFCREPRESENTATIONMAP", {2, 2}},
      {"IFCOPENINGELEMENT", {8, 9}},
      {"IFCDOOR", {10, 13}},
      {"IFCWINDOW", {10, 13}},
      {"IFCRELVOIDSELEMENT", {6, 6}},
      {"IFCRELFILLSELEMENT", {6, 6}},
      {"IFCRELAGGREGATES", {6, 6}},
      {"IFCRELCONTAINEDINSPATIALSTRUCTURE", {6, 6}},
      {"IFCPROJECT", {9, 9}},
  };
  return table;
}

double prefix_of(const std::string& word) {
  static const std::map<std::string, double> prefixes = {{"KILO", 1e3},   {"HECTO", 1e2},  {"DECA", 10},
                                                         {"DECI", 0.1},   {"CENTI", 0.01}, {"MILLI", 1e-3},
                                                         {"MICRO", 1e-6}, {"NANO", 1e-9},  {"MEGA", 1e6}};
  const auto found = prefixes.find(word);
  return found == prefixes.end() ? 1 : found->second;
}

/// A unit in the SI's own; nothing: it cannot be told.
std::optional<double> factor_of(IfcFile& file, const Item& unit, int depth) {
  constexpr int kMostSteps = 8;
  if (!unit || depth > kMostSteps) return std::nullopt;
  if (unit.is("IFCSIUNIT")) return prefix_of(unit.word(2));
  if (!unit.is("IFCCONVERSIONBASEDUNIT") && !unit.is("IFCCONVERSIONBASEDUNITWITHOFFSET")) return std::nullopt;
  const Item measure = file.item(unit, 3);
  if (!measure.is("IFCMEASUREWITHUNIT")) return std::nullopt;
  const auto value = measure.number(0);
  const auto base = factor_of(file, file.item(measure, 1), depth + 1);
  if (!value || !base) return std::nullopt;
  return *value * *base;
}

}  // namespace

const Value& Item::at(std::size_t k) const {
  return k < values.size() ? values[k] : kUnset;
}

std::string Item::text(std::size_t k) const {
  const Value& value = at(k);
  if (value.kind == Value::Kind::typed && value.items.size() == 1 &&
      value.items.front().kind == Value::Kind::text)
    return step::decoded(value.items.front().raw);
  return value.kind == Value::Kind::text ? step::decoded(value.raw) : std::string();
}

std::string Item::word(std::size_t k) const {
  return at(k).kind == Value::Kind::word ? std::string(at(k).raw) : std::string();
}

std::optional<double> number_of(const Value& value) {
  if (value.kind == Value::Kind::number && std::isfinite(value.number)) return value.number;
  if (value.kind == Value::Kind::typed && value.items.size() == 1) return number_of(value.items.front());
  return std::nullopt;
}

std::optional<double> Item::number(std::size_t k) const {
  return number_of(at(k));
}

std::uint64_t Item::reference(std::size_t k) const {
  return at(k).kind == Value::Kind::reference ? at(k).reference : 0;
}

std::vector<std::uint64_t> Item::references(std::size_t k) const {
  std::vector<std::uint64_t> all;
  for (const Value& value : at(k).items)
    if (value.kind == Value::Kind::reference) all.push_back(value.reference);
  return all;
}

std::string number_word(const Record& record) {
  return fmt::format(FMT_STRING("#{}"), record.number);
}

Item IfcFile::item(std::uint64_t number) {
  if (number == 0) return {};
  const Record* record = step.find(number);
  if (record) return item(*record);
  const Record nowhere{number, 0, 0, 0};
  doubt(
      "missing-record", nowhere,
      fmt::format(FMT_STRING("#{} is referred to and not in the file; what needs it was left out"), number));
  return {};
}

Item IfcFile::item(const Record& record) {
  Item found{&record, &step.type_of(record), step.values(record)};
  const auto count = counts().find(*found.type);
  if (count == counts().end()) return found;
  const auto [least, most] = count->second;
  if (found.values.size() >= least && found.values.size() <= most) return found;
  error("attribute-count", record,
        fmt::format(FMT_STRING("{} is an {} of {} values; expected {}. The file is damaged: have it exported "
                               "again"),
                    number_word(record), *found.type, found.values.size(), least));
  return {};
}

void IfcFile::error(const char* code, const Record& record, std::string text) {
  if (told_.emplace(code, record.number).second)
    problems_.error(code, {name_, int(record.line), 0}, std::move(text));
}

void IfcFile::doubt(const char* code, const Record& record, std::string text) {
  constexpr std::size_t kMostOfACode = 40;
  if (!told_.emplace(code, record.number).second) return;
  std::size_t of_code = 0;
  for (const plans::Doubt& known : doubts) of_code += known.code == code;
  if (of_code < kMostOfACode) doubts.push_back({code, std::move(text), Vec2::Zero(), false, {}, record.line});
}

plans::Entity IfcFile::entity(const Item& product, std::string name) const {
  return {product.text(0), std::move(name), number_word(*product.record), product.record->line};
}

bool read_units(IfcFile& file, std::optional<double> stated) {
  std::optional<double> metre;
  const Record* assignment = nullptr;
  for (const Record* project : file.step.of_type("IFCPROJECT")) {
    const Item units = file.item(file.item(*project), 8);
    if (!units.is("IFCUNITASSIGNMENT")) continue;
    assignment = units.record;
    for (const std::uint64_t number : units.references(0)) {
      const Item unit = file.item(number);
      const std::string kind = unit ? unit.word(1) : "";
      if (kind == "LENGTHUNIT") metre = factor_of(file, unit, 0);
      if (kind == "PLANEANGLEUNIT") file.radian = factor_of(file, unit, 0).value_or(1);
    }
  }
  if (stated) metre = stated;
  const Record first{0, 0, 1, 0};
  if (!metre || !(*metre > 1e-9) || !(*metre < 1e6))
    file.error(
        "unit-unknown", assignment ? *assignment : first,
        "the model does not say in what unit its lengths are; say it with --unit mm (or m, cm, ft, in)");
  else
    file.metre = *metre;
  return !file.has_failed();
}

std::optional<double> degrees_of(const Value& value) {
  constexpr double kParts[] = {1, 1 / 60.0, 1 / 3600.0, 1 / 3.6e9};
  if (!value.is_list() || value.items.empty() || value.items.size() > 4) return std::nullopt;
  double sum = 0;
  for (std::size_t k = 0; k < value.items.size(); ++k) {
    const auto part = number_of(value.items[k]);
    if (!part) return std::nullopt;
    sum += *part * kParts[k];
  }
  return sum;
}

}  // namespace glow::files::ifc
