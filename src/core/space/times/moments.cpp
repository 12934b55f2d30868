#include "core/space/times/moments.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "core/daylight/sun.hpp"
#include "core/units/clock.hpp"

namespace glow::space {
namespace {

using model::Moment;

constexpr int kClearSky = 12, kIntermediateSky = 7;  // of CIE S 011
constexpr double kUsualTurbidity = 4;
constexpr double kFarZone = 3;  // hours that a time zone may lie off its longitude

/// The sun's light through a cloudless air of this turbidity, lx on a plane facing it.
/// Source  Kittler and Darula; extinction Navvab et al. 1984, air mass Kasten 1966
double clear_sun_lx(double altitude_deg, double turbidity, double elevation_m) {
  constexpr double kScaleHeight = 8400;  // m, in which the air becomes thinner by e
  const double mass = std::exp(-elevation_m / kScaleHeight) /
                      (std::sin(altitude_deg * kDegree) + 0.15 * std::pow(altitude_deg + 3.885, -1.253));
  return 133800 * std::exp(-mass * turbidity / (9.9 + 0.043 * mass));
}

/// Zenith luminance of a clear sky, cd/m2 (CIE 110, 1994).
double clear_zenith(double altitude_deg, double turbidity) {
  return 1000 * std::max(0.1, (1.34 * turbidity - 3.46) * std::tan(std::min(75.0, altitude_deg) * kDegree) +
                                  0.10 * turbidity + 0.90);
}

/// Whether a sky is as bright in all directions of one altitude.
bool is_even(const daylight::SkyShape& shape) {
  return shape.c == 0 && shape.e == 0;
}

class Planner {
 public:
  Planner(const model::Project& project, const Moment& moment, Problems& problems, bool in_series = false)
      : project_(project), site_(project.site), moment_(moment), problems_(problems), in_series_(in_series) {}

  std::optional<PlannedMoment> plan() {
    check_states();
    planned_.time_h = moment_.time_h;
    if (moment_.time_h) planned_.time = units::clock_words(*moment_.time_h);
    if (moment_.year > 0)
      planned_.date = fmt::format(FMT_STRING("{:04}-{:02}-{:02}"), moment_.year, moment_.month, moment_.day);
    if (needs_sun() && !find_sun()) return std::nullopt;
    planned_.states = moment_.states;
    planned_.within_lx = moment_.within_lx;
    if (!find_sky()) return std::nullopt;
    return planned_;
  }

 private:
  void fault(const std::string& words) {
    problems_.error("P095", moment_.place, fmt::format(FMT_STRING("moment \"{}\": {}"), moment_.name, words));
  }
  bool needs_sun() const;
  bool find_sun();
  void place_sun(double altitude_deg, double azimuth_deg);
  std::optional<double> hours_ahead();
  bool find_sky();
  void check_states();
  void check_zone();

  const model::Project& project_;
  const model::Site& site_;
  const Moment& moment_;
  Problems& problems_;
  PlannedMoment planned_;
  bool in_series_;  ///< one of many: what its time alone makes doubtful is not told
};

/// Some skies are alike all around, with the level stated: those are the same wherever the sun is.
bool Planner::needs_sun() const {
  const bool even = moment_.sky == Moment::Sky::uniform || moment_.sky == Moment::Sky::overcast ||
                    (moment_.sky == Moment::Sky::general && is_even(daylight::general_sky(moment_.general)));
  return !even || moment_.sun_lx.value_or(0) > 0 ||
         (moment_.sky == Moment::Sky::overcast && !moment_.diffuse_lx);
}

void Planner::check_states() {
  const std::set<std::string> known = known_states(project_);
  for (const std::string& state : moment_.states)
    if (!known.count(state))
      problems_.error(
          "P095", moment_.states_place,
          fmt::format(
              FMT_STRING(
                  "moment \"{}\" names the state \"{}\", in which nothing stands or hangs outside{}{}"),
              moment_.name, state, known.empty() ? "" : "; there are: ", fmt::join(known, ", ")));
}

/// Time zones go with longitudes; one that does not is a sign that was forgotten.
void Planner::check_zone() {
  const double off = *site_.time_zone_h - *site_.longitude_deg / 15;
  if (std::abs(off) <= kFarZone) return;
  problems_.warning(
      "P096", site_.place,
      fmt::format(FMT_STRING("time zone {:+g} h lies {:.1f} h off longitude {:g}; check both signs (east "
                             "is positive)"),
                  *site_.time_zone_h, std::abs(off), *site_.longitude_deg));
}

void Planner::place_sun(double altitude_deg, double azimuth_deg) {
  planned_.altitude_deg = altitude_deg;
  planned_.azimuth_deg = azimuth_deg;
  planned_.sun = daylight::direction_of(altitude_deg, azimuth_deg - site_.north_deg.value_or(0));
}

bool Planner::find_sun() {
  if (moment_.sun_at_deg) {
    warn_of_north(site_, problems_);
    place_sun(moment_.sun_at_deg->x(), moment_.sun_at_deg->y());
    return true;
  }
  if (!site_.latitude_deg || !site_.longitude_deg || !site_.time_zone_h) {
    fault("its sky needs the sun's place; give [site] latitude, longitude and time_zone");
    return false;
  }
  if (moment_.year == 0 || !moment_.time_h) {
    fault("its sky needs the sun's place; give the moment a date and a time");
    return false;
  }
  check_zone();
  warn_of_north(site_, problems_);
  const auto ahead = hours_ahead();
  if (!ahead) return false;
  const double universal = *moment_.time_h - *site_.time_zone_h - *ahead;
  const daylight::SunPosition sun = daylight::sun_position(
      {moment_.year, moment_.month, moment_.day, universal}, *site_.latitude_deg, *site_.longitude_deg);
  double solar = std::fmod(universal + *site_.longitude_deg / 15 + sun.equation_of_time_min / 60 + 48, 24);
  planned_.solar_time = units::clock_words(solar);
  place_sun(sun.altitude_deg, sun.azimuth_deg);
  if (sun.altitude_deg > 0) return true;
  planned_.is_night = true;
  if (!in_series_)
    problems_.warning(
        "P096", moment_.place,
        fmt::format(
            FMT_STRING(
                "moment \"{}\": the sun stands {:.1f} deg below the horizon then, no daylight is computed; "
                "if that is not meant, check time_zone, summer_time and longitude"),
            moment_.name, -sun.altitude_deg));
  return true;
}

/// By which clocks run ahead of standard time then; nothing, and a fault, where no clock shows that time.
std::optional<double> Planner::hours_ahead() {
  if (moment_.summer_time) return *moment_.summer_time ? 1 : 0;
  if (!site_.summer_time) return 0;
  const ClockReading clock_then =
      read_clock(*site_.summer_time, moment_.year, moment_.month, moment_.day, *moment_.time_h);
  if (!clock_then.exists) {
    fault(fmt::format(FMT_STRING("there is no {} on {}: clocks go forward over it; take an hour later"),
                      planned_.time, planned_.date));
    return std::nullopt;
  }
  if (clock_then.twice && !in_series_)
    problems_.warning(
        "P096", moment_.place,
        fmt::format(FMT_STRING("moment \"{}\": {} comes twice on {}, the first is taken; for the second say "
                               "summer_time = false"),
                    moment_.name, planned_.time, planned_.date));
  return clock_then.ahead ? 1 : 0;
}

bool Planner::find_sky() {
  using daylight::Sky;
  if (planned_.is_night) {
    planned_.sky_words = "night";
    return true;
  }
  const double altitude = planned_.altitude_deg.value_or(0);
  const double turbidity = moment_.turbidity.value_or(kUsualTurbidity);
  const auto need = [&](const char* kind) {
    if (!moment_.diffuse_lx)
      fault(fmt::format(FMT_STRING("a {} sky needs diffuse = \"10000 lx\", say"), kind));
    return moment_.diffuse_lx.has_value();
  };
  const auto say = [&](const std::string& kind) {
    planned_.sky_words = fmt::format(FMT_STRING("{} sky of {:.0f} lx"), kind, planned_.sky.diffuse_lx());
    if (planned_.sun_normal_lx > 0)
      planned_.sky_words += fmt::format(FMT_STRING(", sun of {:.0f} lx"), planned_.sun_normal_lx);
  };
  switch (moment_.sky) {
    case Moment::Sky::uniform:
      if (!need("uniform")) return false;
      planned_.sky = Sky::uniform(*moment_.diffuse_lx);
      planned_.has_factor = *moment_.diffuse_lx > 0;
      say("uniform");
      return true;
    case Moment::Sky::overcast:
      planned_.sky = Sky::overcast(moment_.diffuse_lx.value_or(300 + 21000 * std::sin(altitude * kDegree)));
      planned_.has_factor = planned_.sky.diffuse_lx() > 0;
      say("overcast");
      return true;
    case Moment::Sky::clear:
    case Moment::Sky::intermediate:
    case Moment::Sky::general: {
      const int number = moment_.sky == Moment::Sky::clear          ? kClearSky
                         : moment_.sky == Moment::Sky::intermediate ? kIntermediateSky
                                                                    : moment_.general;
      const bool clear = moment_.sky == Moment::Sky::clear;
      if (!clear && !need(moment_.sky == Moment::Sky::intermediate ? "intermediate" : "general"))
        return false;
      const daylight::SkyShape shape = daylight::general_sky(number);
      planned_.sky = Sky::general(shape, planned_.sun, moment_.diffuse_lx.value_or(1));
      if (!moment_.diffuse_lx) planned_.sky = planned_.sky.of_zenith(clear_zenith(altitude, turbidity));
      planned_.sun_normal_lx = moment_.sun_lx.value_or(
          clear && !moment_.diffuse_lx ? clear_sun_lx(altitude, turbidity, site_.elevation_m) : 0);
      planned_.has_factor = is_even(shape) && planned_.sun_normal_lx <= 0 && planned_.sky.diffuse_lx() > 0;
      say(clear ? "clear"
                : fmt::format(FMT_STRING("{} (type {})"),
                              moment_.sky == Moment::Sky::intermediate ? "intermediate" : "general", number));
      return true;
    }
    case Moment::Sky::all_weather: {
      const int day = daylight::day_of_year(moment_.year, moment_.month, moment_.day);
      const auto found = daylight::all_weather(altitude, moment_.direct_w_m2, moment_.diffuse_w_m2,
                                               daylight::extraterrestrial_w_m2(day), moment_.dew_point_c);
      if (!found) {
        fault("a sky of irradiances needs diffuse light above 0 W/m2");
        return false;
      }
      planned_.sky = Sky::all_weather(found->shape, planned_.sun, found->diffuse_lx);
      planned_.sun_normal_lx = found->direct_normal_lx;
      say("all-weather");
      return true;
    }
  }
  return false;
}

/// Day of the month on which clocks change.
int day_of(const model::ClockChange& change, int year) {
  const double first = daylight::julian_day({year, change.month, 1, 12});
  const int weekday = int(std::fmod(first + 1, 7));  // Julian day 0 was a Monday
  int day = 1 + (change.weekday - weekday + 7) % 7 + 7 * (change.week - 1);
  while (day > daylight::days_in_month(year, change.month)) day -= 7;
  return day;
}

/// Hours since the year began, as clocks show them.
double in_year(int year, int month, int day, double hour) {
  return 24 * daylight::day_of_year(year, month, day) + hour;
}

}  // namespace

void warn_of_north(const model::Site& site, Problems& problems) {
  if (!site.north_deg)
    problems.warning(
        "P096", site.place,
        "[site] does not say where north is; the rooms' y axis is taken to point north (north = 0)");
}

ClockReading read_clock(const model::SummerTime& rule, int year, int month, int day, double hour) {
  const double now = in_year(year, month, day, hour);
  const double from = in_year(year, rule.from.month, day_of(rule.from, year), rule.from.hour);
  const double to = in_year(year, rule.to.month, day_of(rule.to, year), rule.to.hour);
  ClockReading clock;
  clock.exists = now < from || now >= from + 1;
  clock.twice = now >= to - 1 && now < to;
  clock.ahead = from < to ? now >= from && now < to : now >= from || now < to;
  return clock;
}

std::set<std::string> known_states(const model::Project& project) {
  std::set<std::string> known;
  for (const model::Obstruction& each : project.site.obstructions) known.insert(each.state);
  for (const model::Room& room : project.rooms)
    for (const model::Opening& opening : room.openings)
      for (const model::Shade& shade : opening.shades) known.insert(shade.state);
  known.erase("");
  return known;
}

std::vector<PlannedMoment> plan_series(const model::Project& project, const model::Moment& moment,
                                       Problems& problems) {
  std::vector<PlannedMoment> steps;
  if (!moment.series) return steps;
  const int errors_before = problems.error_count();
  for (int k = 0; k < moment.series->steps(); ++k) {
    model::Moment at = moment;
    at.time_h = moment.series->from_h + k * moment.series->step_h;
    if (project.site.summer_time && moment.year > 0 && !moment.summer_time &&
        !read_clock(*project.site.summer_time, moment.year, moment.month, moment.day, *at.time_h).exists)
      continue;  // clocks skip it
    auto planned = Planner(project, at, problems, true).plan();
    if (!planned || problems.error_count() > errors_before) return {};
    steps.push_back(std::move(*planned));
  }
  return steps;
}

std::optional<PlannedMoment> plan_moment(const model::Project& project, const model::Moment& moment,
                                         Problems& problems) {
  return Planner(project, moment, problems).plan();
}

}  // namespace glow::space
