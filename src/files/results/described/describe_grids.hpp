#pragma once

#include <limits>

#include "core/assess/assessment.hpp"
#include "files/results/described/archive.hpp"
#include "files/results/described/describe_colour.hpp"

// How grids and points stand in results.json. Included by record_json.cpp only.
namespace glow::files {

inline constexpr int kMostAlong = 300000;
inline constexpr double kMostCells = 4e6;
inline constexpr const char* kSportsRule = "EN 12193: p = 0.2 * 5^(lg d), nearest odd number";
inline constexpr double kUnitLength = 1e-6;  // how far a direction's length may be from 1

inline void check_direction(const Vec3& way) {
  if (std::abs(way.norm() - 1) > kUnitLength) throw std::runtime_error("a direction is not of unit length");
}

inline void check_light(const std::vector<double>& lux, std::size_t count) {
  if (lux.size() != count) throw std::runtime_error("a list has another length than its grid");
  for (const double value : lux)
    if (value < 0) throw std::runtime_error("a light level is below zero");
}

inline readings::Kernel kernel_of(const std::string& kind) {
  using readings::Kernel;
  if (kind == "cylindrical") return Kernel::cylinder;
  if (kind == "semi-cylindrical") return Kernel::semicylinder;
  if (kind == "hemispherical") return Kernel::hemisphere;
  if (kind == "spherical") return Kernel::sphere;
  return Kernel::plane;
}

inline space::GridRole role_of(const std::string& words) {
  const auto role = space::grid_role(words);
  if (!role) throw std::runtime_error("a grid has a role that is not known");
  return *role;
}

}  // namespace glow::files

namespace glow::readings {

using files::Described;

template <class A>
void describe(A& a, Described<A, Statistics>& s) {
  a("mean_lx", s.mean_lx);
  a("min_lx", s.min_lx);
  a("max_lx", s.max_lx);
  a("uniformity", s.u0);
  a("min_over_max", s.min_over_max);
}
template <class A>
void describe(A& a, Described<A, Uncertainty>& u) {
  a("mean_lx", u.mean_lx);
  a("min_lx", u.min_lx);
  a("uniformity", u.u0);
}

/// Where a grid lies, and which of its cells it holds.
template <class A>
void describe_place(A& a, Described<A, PlaneGrid>& grid) {
  a("origin_m", grid.plane.origin);
  a("u", grid.plane.u);
  a("v", grid.plane.v);
  a("normal", grid.plane.normal);
  a("outline_m", grid.outline);
  a("holes_m", grid.holes);
  a("low_m", grid.low);
  if constexpr (A::kReads)
    for (const Vec3& way : {grid.plane.u, grid.plane.v, grid.plane.normal}) files::check_direction(way);
}

/// Points follow from cells, in the plane; those of sloped ceilings are listed.
inline void read_points(const files::Reader& a, PlaneGrid& grid) {
  for (const files::json& cell : a.at("cells")) {
    const std::array<int, 2> at = {files::whole_number_of<int>(cell.at(0)),
                                   files::whole_number_of<int>(cell.at(1))};
    if (at[0] < 0 || at[1] < 0 || at[0] >= grid.count.nx || at[1] >= grid.count.ny)
      throw std::runtime_error("a cell lies outside its grid");
    grid.cells.push_back(at);
    grid.points.push_back(grid.plane.at(grid.middle_of(at)));
  }
  if (!a.has("points_m")) return;
  files::Reader::read(a.at("points_m"), grid.points);
  files::Reader::read(a.at("normals"), grid.normals);
  for (const Vec3& way : grid.normals) files::check_direction(way);
  if (grid.points.size() != grid.cells.size() || grid.normals.size() != grid.cells.size())
    throw std::runtime_error("a list has another length than its grid");
}

inline void write_points(files::Writer& a, const PlaneGrid& grid) {
  a.derived("cells", [&] {
    files::json cells = files::json::array();
    for (const auto& cell : grid.cells) cells.push_back({cell[0], cell[1]});
    return cells;
  });
  if (grid.normals.empty()) return;
  a("points_m", grid.points);
  a("normals", grid.normals);
}

inline void check_counts(const PlaneGrid& grid) {
  const GridCount& count = grid.count;
  if (count.nx < 1 || count.ny < 1 || count.nx > files::kMostAlong || count.ny > files::kMostAlong ||
      double(count.nx) * count.ny > files::kMostCells)
    throw std::runtime_error("a grid has an impossible number of cells");
  if (grid.cell.minCoeff() <= 0) throw std::runtime_error("a grid has cells without size");
}

}  // namespace glow::readings

namespace glow::assess {

using files::Described;

template <class A>
void describe(A& a, Described<A, MisplacedPoint>& point) {
  a("at_m", point.position);
  a("inside", point.inside);
}

template <class A>
void describe_kind(A& a, Described<A, GridReading>& g) {
  if constexpr (A::kReads) {
    g.role = files::role_of(a.at("role").template get<std::string>());
    g.kernel = files::kernel_of(a.at("kind").template get<std::string>());
    if (!a.at("facing").is_null()) a("facing", g.facing);
    if (!a.at("task").is_null()) a("task", g.task);
    files::check_direction(g.facing);
  } else {
    a("role", to_string(g.role));
    a("kind", g.kind());
    a.derived("facing", [&] {
      return g.kernel == readings::Kernel::semicylinder ? A::json_of(g.facing) : files::json(nullptr);
    });
    a.derived("task", [&] { return g.task.empty() ? files::json(nullptr) : files::json(g.task); });
  }
}

template <class A>
void describe_counts(A& a, Described<A, readings::PlaneGrid>& grid) {
  a.derived("points", [&] { return grid.points.size(); });
  if constexpr (A::kReads) {
    grid.count.nx = files::whole_number_of<int>(a.at("counts").at(0));
    grid.count.ny = files::whole_number_of<int>(a.at("counts").at(1));
    const std::string rule = a.at("spacing_rule").template get<std::string>();
    grid.by_rule = rule != "given";
    if (rule == files::kSportsRule) grid.rule = readings::CountRule::nearest_odd;
  } else {
    a.derived("counts", [&] { return files::json{grid.count.nx, grid.count.ny}; });
  }
  a("spacing_m", grid.cell);
  a.derived("spacing_rule", [&] {
    if (!grid.by_rule) return "given";
    return grid.rule == readings::CountRule::nearest_odd
               ? files::kSportsRule
               : "EN 12464-1: p = 0.2 * 5^(lg d), nearest whole number";
  });
  a("largest_pitch_m", grid.count.p_m);
  a.derived("height_m", [&] {
    return grid.plane.is_level() ? files::number(grid.plane.origin.z()) : files::json(nullptr);
  });
  a("inset_m", grid.inset_m);
  if constexpr (A::kReads) readings::check_counts(grid);
}

/// What the values come to: of grids that hold a readable point.
template <class A>
void describe_values(A& a, Described<A, GridReading>& g) {
  describe(a, g.statistics);
  a("min_at_m", g.lowest_at);
  a("direct_mean_lx", g.direct_mean_lx);
  a("interreflected_mean_lx", g.interreflected_mean_lx);
  a("initial", g.initial);
  a.object("uncertainty", [&](auto& own) {
    describe(own, g.uncertainty);
    own.derived("meaning", [] { return "half width of the 95 % interval: sample sets and size of patches"; });
  });
}

template <class A>
void describe(A& a, Described<A, Reached>& v) {
  a("half_lx", v.half_lx);
  a("half_doubt_lx", v.half_doubt_lx);
  a("most_lx", v.most_lx);
  a("most_doubt_lx", v.most_doubt_lx);
}

template <class A>
void describe_judged(A& a, Described<A, GridReading>& g) {
  a.object("judged", [&](auto& own) {
    describe(own, g.judged.statistics);
    own("points", g.judged.points);
    own("border_m", g.judged.border_m);
    own("uncertainty", g.judged.uncertainty);
    own("reached", g.judged.reached);
  });
}

inline std::size_t nearest_point(const std::vector<Vec3>& points, const Vec3& to) {
  std::size_t nearest = 0;
  for (std::size_t i = 1; i < points.size(); ++i)
    if ((points[i] - to).squaredNorm() < (points[nearest] - to).squaredNorm()) nearest = i;
  return nearest;
}

template <class A>
void describe(A& a, Described<A, LightBetween>& between, std::size_t points) {
  constexpr int kMostParts = 101;
  a("parts", between.parts);
  a.brief_list("direct_lx", between.direct_lx);
  if constexpr (A::kReads) {
    if (between.parts < 1 || between.parts > kMostParts || between.parts % 2 == 0)
      throw std::runtime_error("a grid is divided in a way that is not known");
    files::check_light(between.direct_lx, points * std::size_t(between.parts) * std::size_t(between.parts));
  }
}

template <class A>
void describe(A& a, Described<A, DayOnGrid>& day, std::size_t points) {
  a("open_lx", day.open_lx);
  a("has_factor", day.has_factor);
  a("within_lx", day.within_lx);
  a("share_within", day.share_within);
  a.derived("share_with_sky", [&] { return files::number(day.share_with_sky()); });
  a("sky_parts", day.sky_parts);
  a("sky_seen", day.sky_seen);
  a.brief_list("sun_lx", day.sun_lx);
  a.brief_list("sky_lx", day.sky_lx);
  a.brief_list("outside_lx", day.outside_lx);
  a.brief_list("day_lx", day.day_lx);
  if constexpr (A::kReads) {
    const bool fits = day.sky_parts >= 1 && day.sky_parts <= 101 &&
                      day.sky_seen.size() == points * std::size_t(day.sky_parts) * std::size_t(day.sky_parts);
    if (!day.sky_seen.empty() && !fits) throw std::runtime_error("a no-sky line does not fit its grid");
    for (const std::vector<double>* values : {&day.sun_lx, &day.sky_lx, &day.outside_lx, &day.day_lx}) {
      files::check_light(*values, points);
      if (values->size() != points) throw std::runtime_error("daylight does not fit its grid");
    }
  }
}

template <class A>
void describe(A& a, Described<A, DayAtPoint>& day) {
  a("sun_lx", day.sun_lx);
  a("sky_lx", day.sky_lx);
  a("outside_lx", day.outside_lx);
  a("day_lx", day.day_lx);
  a("open_lx", day.open_lx);
  a("has_factor", day.has_factor);
  a.present("glare_probability", day.glare);
}

/// An object that is left out where there is nothing.
template <class A, class T, class... More>
void describe_present(A& a, const char* name, T& value, const More&... more) {
  if constexpr (A::kReads) {
    if (a.has(name)) a.object(name, [&](auto& own) { describe(own, value.emplace(), more...); });
  } else {
    if (value) a.object(name, [&](auto& own) { describe(own, *value, more...); });
  }
}

template <class A>
void describe(A& a, Described<A, GridReading>& g, const std::string& csv) {
  a("name", g.name);
  describe_kind(a, g);
  describe_counts(a, g.grid);
  a("left_out", g.left_out);
  if constexpr (A::kReads) {
    if (a.has("mean_lx")) describe_values(a, g);
    if (a.has("judged")) describe_judged(a, g);
  } else {
    if (!g.total_lx.empty()) describe_values(a, g);
    if (g.judged.points > 0) describe_judged(a, g);
  }
  a.derived("csv", [&] { return csv; });
  a.object("place", [&](auto& own) { describe_place(own, g.grid); });
  if constexpr (A::kReads)
    readings::read_points(a, g.grid);
  else
    readings::write_points(a, g.grid);
  a.brief_list("direct_lx", g.direct_lx);
  a.brief_list("interreflected_lx", g.interreflected_lx);
  describe_present(a, "colour", g.colour, g.grid.points.size());
  describe_present(a, "day", g.day, g.grid.points.size());
  if constexpr (A::kReads) {
    if (a.has("between"))
      a.object("between", [&](auto& own) { describe(own, g.between, g.grid.points.size()); });
  } else {
    if (g.between.parts > 1)
      a.object("between", [&](auto& own) { describe(own, g.between, g.grid.points.size()); });
  }
  if constexpr (A::kReads) {
    if (g.grid.outline.size() < 3) throw std::runtime_error("a grid has no outline");
    files::check_light(g.direct_lx, g.grid.points.size());
    files::check_light(g.interreflected_lx, g.grid.points.size());
    for (std::size_t i = 0; i < g.direct_lx.size(); ++i)
      g.total_lx.push_back(g.direct_lx[i] + g.interreflected_lx[i]);
    if (!g.total_lx.empty() && !a.has("mean_lx")) throw std::runtime_error("a grid lacks its statistics");
    if (!g.grid.points.empty()) g.statistics.min_at = nearest_point(g.grid.points, g.lowest_at);
  }
}

template <class A>
void describe(A& a, Described<A, PointReading>& point) {
  a("name", point.name);
  a("at_m", point.receiver.position);
  a("facing", point.receiver.normal);
  if constexpr (A::kReads) {
    point.receiver.kernel = files::kernel_of(a.at("kind").template get<std::string>());
    if (a.has("inside")) {
      point.misplaced = MisplacedPoint{point.receiver.position, {}};
      a("inside", point.misplaced->inside);
      return;
    }
  } else {
    a.derived("kind", [&] { return kind_words(point.receiver.kernel); });
    if (point.misplaced) {
      a("inside", point.misplaced->inside);
      return;
    }
  }
  a("direct_lx", point.direct_lx);
  a("interreflected_lx", point.interreflected_lx);
  a.derived("total_lx", [&] { return files::number(point.total_lx()); });
  a("uncertainty_lx", point.uncertainty_lx);
  describe_present(a, "colour", point.colour);
  describe_present(a, "day", point.day);
}

}  // namespace glow::assess
