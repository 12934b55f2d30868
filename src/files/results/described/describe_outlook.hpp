#pragma once

#include "core/assess/daylight/day_series.hpp"
#include "core/units/clock.hpp"
#include "files/results/described/archive.hpp"

// How sun, view and the course of a day stand in results.json. Included by record_json.cpp only.
namespace glow::daylight {

template <class A>
void describe(A& a, files::Described<A, SunDay>& v) {
  a("year", v.year);
  a("month", v.month);
  a("day", v.day);
  a("latitude_deg", v.latitude_deg);
  a("longitude_deg", v.longitude_deg);
  a("time_zone_h", v.time_zone_h);
  a("north_deg", v.north_deg);
  a("least_altitude_deg", v.least_altitude_deg);
  if constexpr (A::kReads)
    if (v.year < 1 || v.month < 1 || v.month > 12 || v.day < 1 || v.day > 31)
      throw std::runtime_error("a day is none of the calendar");
}
template <class A>
void describe(A& a, files::Described<A, Interval>& v) {
  a("from_h", v.from_h);
  a("to_h", v.to_h);
}

}  // namespace glow::daylight

namespace glow::assess {

using files::Described;

template <class A>
void describe(A& a, Described<A, SunOnOpening>& v) {
  a("opening", v.opening);
  a("at_m", v.point);
  a("intervals", v.intervals);
  a("outwards", v.outwards);
  a("sky", v.sky);
  if constexpr (A::kReads)
    if (v.sky.size() != std::size_t(SunOnOpening::kRings * SunOnOpening::kSectors))
      throw std::runtime_error("the sky over an opening is not as it is written");
}
template <class A>
void describe(A& a, Described<A, DistanceOutside>& v) {
  a("opening", v.opening);
  a("distance_m", v.distance_m);
}
template <class A>
void describe(A& a, Described<A, ViewOut>& v) {
  a("angle_deg", v.angle_deg);
  a("layers", v.layers);
  a("sky_share", v.sky);
  a("landscape_share", v.landscape);
  a("ground_share", v.ground);
  a("distances", v.distances);
}
template <class A>
void describe(A& a, Described<A, Outlook>& v) {
  a("sun", v.sun);
  a("day", v.day);
  a("sun_at_all", v.sun_at_all);
  a.derived("sun_hours", [&] { return files::number(v.sun_hours()); });
  a.present("view", v.view);
}
template <class A>
void describe(A& a, Described<A, DaySeries::Step>& v) {
  a("time_h", v.time_h);
  a.derived("time", [&] { return units::clock_words(v.time_h); });
  a("solar_time", v.solar_time);
  a("sun_altitude_deg", v.altitude_deg);
  a("sun_azimuth_deg", v.azimuth_deg);
  a("open_lx", v.open_lx);
}
template <class A>
void describe(A& a, Described<A, DaySeries::Line>& v) {
  a("name", v.name);
  a("is_point", v.is_point);
  a.brief_list("lux", v.lux);
}
template <class A>
void describe(A& a, Described<A, DaySeries>& v) {
  a("steps", v.steps);
  a("lines", v.lines);
  if constexpr (A::kReads)
    for (const DaySeries::Line& line : v.lines)
      if (line.lux.size() != v.steps.size())
        throw std::runtime_error("a line of a day does not fit its steps");
}

}  // namespace glow::assess
