#include "files/plans/ifc/relations.hpp"

namespace glow::files::ifc {
namespace {

/// Relations of a type that name one thing at `one` and several at `several`.
template <class Take>
void each(IfcFile& file, const char* type, std::size_t one, std::size_t several, const Take& take) {
  for (const Record* record : file.step.of_type(type)) {
    const Item item = file.item(*record);
    if (!item) continue;
    const std::uint64_t single = item.reference(one);
    if (item.at(several).kind == Value::Kind::reference) take(single, item.reference(several));
    for (const std::uint64_t number : item.references(several)) take(single, number);
  }
}

std::string name_of_material(IfcFile& file, const Item& item, int depth) {
  if (!item || depth > 6) return {};
  if (item.is("IFCMATERIAL")) return item.text(0);
  if (item.is("IFCMATERIALLAYERSETUSAGE") || item.is("IFCMATERIALPROFILESETUSAGE"))
    return name_of_material(file, file.item(item, 0), depth + 1);
  if (item.is("IFCMATERIALLAYERSET") || item.is("IFCMATERIALLIST")) {
    std::string name;
    double thickest = -1;
    for (const std::uint64_t number : item.references(0)) {
      const Item part = file.item(number);
      const double thickness = part.is("IFCMATERIALLAYER") ? part.number(1).value_or(0) : 0;
      if (!part || thickness <= thickest) continue;
      thickest = thickness;
      name = name_of_material(file, part.is("IFCMATERIALLAYER") ? file.item(part, 0) : part, depth + 1);
    }
    return name;
  }
  if (item.is("IFCMATERIALCONSTITUENTSET") && !item.references(2).empty()) {
    const Item first = file.item(item.references(2).front());
    return name_of_material(file, first ? file.item(first, 2) : Item(), depth + 1);
  }
  return {};
}

}  // namespace

int Relations::storey_of(std::uint64_t number, const std::map<std::uint64_t, int>& storeys) const {
  constexpr int kMostSteps = 50;  // rings end here
  for (int step = 0; step < kMostSteps && number != 0; ++step) {
    if (const auto found = storeys.find(number); found != storeys.end()) return found->second;
    const auto place = place_of.find(number), whole = whole_of.find(number), wall = voided_by.find(number);
    number = place != place_of.end()   ? place->second
             : whole != whole_of.end() ? whole->second
             : wall != voided_by.end() ? wall->second
                                       : 0;
  }
  return -1;
}

Relations read_relations(IfcFile& file) {
  Relations all;
  each(file, "IFCRELAGGREGATES", 4, 5, [&](auto whole, auto part) { all.whole_of[part] = whole; });
  each(file, "IFCRELDECOMPOSES", 4, 5, [&](auto whole, auto part) { all.whole_of[part] = whole; });
  each(file, "IFCRELNESTS", 4, 5, [&](auto whole, auto part) { all.whole_of.emplace(part, whole); });
  each(file, "IFCRELCONTAINEDINSPATIALSTRUCTURE", 5, 4,
       [&](auto place, auto thing) { all.place_of[thing] = place; });
  each(file, "IFCRELVOIDSELEMENT", 5, 4, [&](auto opening, auto wall) { all.voided_by[opening] = wall; });
  each(file, "IFCRELFILLSELEMENT", 4, 5, [&](auto opening, auto filling) {
    all.filled_by[opening] = filling;
    all.fillings.insert(filling);
  });
  each(file, "IFCRELDEFINESBYTYPE", 5, 4, [&](auto type, auto thing) { all.type_of[thing] = type; });
  each(file, "IFCRELASSOCIATESMATERIAL", 5, 4,
       [&](auto material, auto thing) { all.material_of[thing] = material; });
  each(file, "IFCRELDEFINESBYPROPERTIES", 5, 4,
       [&](auto set, auto thing) { all.properties_of[thing].push_back(set); });
  return all;
}

std::string material_name(IfcFile& file, const Relations& relations, std::uint64_t product) {
  auto found = relations.material_of.find(product);
  const auto type = relations.type_of.find(product);
  if (found == relations.material_of.end() && type != relations.type_of.end())
    found = relations.material_of.find(type->second);
  return found == relations.material_of.end() ? std::string()
                                              : name_of_material(file, file.item(found->second), 0);
}

std::optional<double> property(IfcFile& file, const Relations& relations, std::uint64_t product,
                               const char* name) {
  std::vector<std::uint64_t> sets;
  if (const auto own = relations.properties_of.find(product); own != relations.properties_of.end())
    sets = own->second;
  if (const auto type = relations.type_of.find(product); type != relations.type_of.end()) {
    const Item object = file.item(type->second);
    if (object)
      for (const std::uint64_t set : object.references(5)) sets.push_back(set);
  }
  for (const std::uint64_t number : sets) {
    const Item set = file.item(number);
    if (!set.is("IFCPROPERTYSET")) continue;
    for (const std::uint64_t each : set.references(4)) {
      const Item value = file.item(each);
      if (value.is("IFCPROPERTYSINGLEVALUE") && value.text(0) == name) return value.number(2);
    }
  }
  return std::nullopt;
}

}  // namespace glow::files::ifc
