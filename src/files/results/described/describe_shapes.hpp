#pragma once

#include "core/space/space.hpp"
#include "files/results/described/archive.hpp"
#include "files/text/json_number.hpp"

// How what stands in a room, its openings and finishes stand in results.json. Included by record_json.cpp
// only.
namespace glow::space {

using files::Described;

template <class A>
void describe(A& a, Described<A, PlanShape>& shape) {
  a("name", shape.name);
  a("outline_m", shape.extent.plan);
  a("bottom_m", shape.extent.bottom_m);
  a("top_m", shape.extent.top_m);
  a("solid", shape.solid);
  if (shape.extent.plan.size() < 2) throw std::runtime_error("a shape has too few corners");
}

template <class A>
void describe(A& a, Described<A, Opening>& opening) {
  a("name", opening.name);
  a.derived("outline_m", [&] { return A::json_if_writer(opening.plan()); });
  a.derived("bottom_m", [&] { return files::number(opening.bottom_m()); });
  a.derived("top_m", [&] { return files::number(opening.top_m()); });
  a.derived("solid", [] { return false; });
  a("in_roof", opening.in_roof);
  a("wall", opening.wall);
  a("corners_m", opening.corners);
  a("outwards", opening.outwards);
  if (opening.corners.size() != 4) throw std::runtime_error("an opening does not have four corners");
}

template <class A>
void describe(A& a, Described<A, SurfaceFinish>& surface) {
  auto& m = surface.finish.material;
  a("surface", surface.surface);
  if constexpr (A::kReads) {
    if (!a.at("material").is_null()) a("material", surface.finish.name);
  } else {
    a.derived("material", [&] {
      return surface.finish.name.empty() ? files::json(nullptr) : files::json(surface.finish.name);
    });
  }
  a("reflectance", m.diffuse);
  a("mirror", m.mirror);
  a("transmittance", m.clear);
  a("scattering", m.scattering);
  a("colour", surface.finish.colour);
}

}  // namespace glow::space
