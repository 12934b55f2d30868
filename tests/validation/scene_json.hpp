#pragma once

#include <nlohmann/json.hpp>

#include "core/geometry/geometry.hpp"

namespace glow::validation {

inline Vec3 vec3(const nlohmann::json& j) {
  return {j[0].get<double>(), j[1].get<double>(), j[2].get<double>()};
}

inline geometry::Material diffuse(const nlohmann::json& reflectance) {
  geometry::Material material;
  material.diffuse = reflectance;
  return material;
}

/// The boxes that a scene lists under `key`, if it has any.
inline void add_boxes(const nlohmann::json& scene, const char* key, geometry::Geometry& geometry) {
  if (!scene.contains(key)) return;
  for (const nlohmann::json& box : scene.at(key))
    geometry.add_box(box.at("name"), vec3(box.at("min")), vec3(box.at("max")),
                     diffuse(box.at("reflectance")));
}

}  // namespace glow::validation
