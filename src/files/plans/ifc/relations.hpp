#pragma once

#include <map>
#include <set>
#include <vector>

#include "files/plans/ifc/ifc_file.hpp"

namespace glow::files::ifc {

/// What belongs to what, by numbers of records.
struct Relations {
  std::map<std::uint64_t, std::uint64_t> whole_of;  ///< of a part, what it is a part of
  std::map<std::uint64_t, std::uint64_t> place_of;  ///< of a product, the storey, space or site that it is in
  std::map<std::uint64_t, std::uint64_t> voided_by;    ///< of an opening, the wall that it is in
  std::map<std::uint64_t, std::uint64_t> filled_by;    ///< of an opening, its door or window
  std::map<std::uint64_t, std::uint64_t> type_of;      ///< of a product, its type object
  std::map<std::uint64_t, std::uint64_t> material_of;  ///< of a product or type, what it is made of
  std::map<std::uint64_t, std::vector<std::uint64_t>> properties_of;
  std::set<std::uint64_t> fillings;

  /// What `storeys` has by the number of the storey that a product is in, by way of what it is part of; -1:
  /// it is in none.
  int storey_of(std::uint64_t number, const std::map<std::uint64_t, int>& storeys) const;
};
Relations read_relations(IfcFile& file);

/// The name of what a product is made of: of a material, of the thickest layer, of the first of a list.
/// Empty: not said.
std::string material_name(IfcFile& file, const Relations& relations, std::uint64_t product);

/// A property's number, by its name, of a product or its type.
std::optional<double> property(IfcFile& file, const Relations& relations, std::uint64_t product,
                               const char* name);

}  // namespace glow::files::ifc
