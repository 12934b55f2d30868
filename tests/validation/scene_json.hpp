#pragma once

#include <nlohmann/json.hpp>

#include <cmath>

#include "core/geometry/geometry.hpp"
#include "validation/reference_cases.hpp"

namespace glow::validation {

inline Vec3 vec3(const nlohmann::json& j) {
  return {j[0].get<double>(), j[1].get<double>(), j[2].get<double>()};
}

inline geometry::Material diffuse(const nlohmann::json& reflectance) {
  geometry::Material material;
  material.diffuse = reflectance;
  return material;
}

/// What a reference of a case says, as far as the engine has no part in it.
inline Row row_of(const std::string& id, const nlohmann::json& reference) {
  return {id,
          reference.at("receiver"),
          reference.at("component"),
          reference.at("unit"),
          reference.at("method"),
          reference.at("value"),
          0,
          0};
}
inline double allowed_of(const nlohmann::json& reference, double value) {
  return reference.at("rel_tol").get<double>() * std::abs(value) + reference.value("abs_tol", 0.0) +
         3 * reference.value("se", 0.0);
}

/// The boxes that a scene lists under `key`, if it has any.
inline void add_boxes(const nlohmann::json& scene, const char* key, geometry::Geometry& geometry) {
  if (!scene.contains(key)) return;
  for (const nlohmann::json& box : scene.at(key))
    geometry.add_box(box.at("name"), vec3(box.at("min")), vec3(box.at("max")),
                     diffuse(box.at("reflectance")));
}

}  // namespace glow::validation
