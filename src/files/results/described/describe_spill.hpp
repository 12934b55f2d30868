#pragma once

#include "files/results/described/describe_glare.hpp"

// How light that goes astray outdoors stands in results.json. Included by record_json.cpp only.
namespace glow::assess {

template <class A>
void describe(A& a, Described<A, SpillSource>& v) {
  a("source", v.source);
  a("intensity_cd", v.intensity_cd);
  a("projected_area_m2", v.projected_area_m2);
  a("distance_m", v.distance_m);
  a("c_deg", v.c_deg);
  a("gamma_deg", v.gamma_deg);
  a("solid_angle_sr", v.solid_angle_sr);
  a("luminance_cd_m2", v.luminance_cd_m2);
  a("seen_share", v.seen_share);
  a("k", v.k);
  a("outside_range", v.outside_range);
}
template <class A>
void describe(A& a, Described<A, NeighbourReading>& v) {
  a("grid", v.grid);
  a("facing", v.facing);
  a("at_m", v.at);
  a("background_cd_m2", v.background_cd_m2);
  a("background_computed", v.finds_background);
  a("k_relative_uncertainty", v.relative_doubt);
  a.derived("k", [&] { return files::number(v.k()); });
  a("luminaires", v.sources);
  a.brief_list("k_by_point", v.k_by_point);
}
template <class A>
void describe(A& a, Described<A, RoadUserReading>& v) {
  a("name", v.name);
  a("eye_m", v.eye);
  a("looking", v.sight);
  a("road_cd_m2", v.road_cd_m2);
  a("veil_cd_m2", v.veil_cd_m2);
  a("increment_percent", v.increment_percent);
  a("worst_source", v.worst_source);
}
template <class A>
void describe(A& a, Described<A, SpillReading>& v) {
  a("sources", v.sources);
  a("neighbours", v.neighbours);
  a("road_users", v.road_users);
  a("all_lm", v.all_lm);
  a("upward_lm", v.upward_lm);
  a.derived("upward_percent", [&] { return files::number(v.upward_percent()); });
  a("upward_flux_ratio", v.flux_ratio);
  a("small_angles", v.small_angles);
  a("told", v.told);
}

}  // namespace glow::assess
