#pragma once

#include <map>
#include <string>

#include "core/geometry/vec.hpp"

namespace glow::files {

inline constexpr int kMostShelves = 40;

/// Furniture by its plain name: typical sizes in m, every one of which a project can change.
struct TypicalFurniture {
  Vec3 size;  ///< along, deep, high; a height of 0 reaches the ceiling
  double thickness = 0, leg = 0, bottom = 0;
  int shelves = 0;
  std::string finish;
};

/// data/furniture.toml, by name.
const std::map<std::string, TypicalFurniture>& typical_furniture();

}  // namespace glow::files
