#include "core/space/times/year_plan.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/daylight/sun.hpp"
#include "core/space/times/moments.hpp"
#include "core/units/clock.hpp"

namespace glow::space {
namespace {

/// States that nothing outside has.
void check_states(const std::vector<std::string>& states, const Place& place, const char* what,
                  const std::set<std::string>& known, Problems& problems) {
  for (const std::string& state : states)
    if (!known.count(state))
      problems.error(
          "P095", place,
          fmt::format(FMT_STRING("\"{}\" of [year] names the state \"{}\", in which nothing stands or hangs "
                                 "outside{}{}"),
                      what, state, known.empty() ? "" : "; there are: ", fmt::join(known, ", ")));
}

}  // namespace

double YearPlan::mean_open_lx() const {
  double sum = 0;
  for (const YearHour& hour : hours) sum += hour.is_used ? hour.open_lx() : 0;
  return used_hours > 0 ? sum / used_hours : 0;
}

YearPlan thinned(const YearPlan& plan, int every_day) {
  YearPlan less = plan;
  less.every_day = every_day;
  less.hours.clear();
  less.used_hours = 0;
  for (const YearHour& hour : plan.hours)
    if (hour.number / 24 % every_day == 0) less.hours.push_back(hour);
  for (std::size_t day = 0; day < plan.used_by_day.size(); day += std::size_t(every_day))
    less.used_hours += plan.used_by_day[day];
  return less;
}

bool is_used(const model::UseHours& use, const model::Site& site, int first_weekday, int hour) {
  const auto [month, date] = daylight::date_of_day(hour / 24);
  int day = hour / 24;
  double clock = hour % 24 + 0.5;
  if (site.summer_time && read_clock(*site.summer_time, daylight::kSunYear, month, date, clock).ahead) {
    clock += 1;
    if (clock >= 24) {
      clock -= 24;
      ++day;
    }
  }
  const int of_year = day % (daylight::kHoursOfYear / 24) + 1;
  return std::any_of(use.periods.begin(), use.periods.end(), [&](const model::UseHours::Period& period) {
    return period.days[std::size_t((first_weekday + day) % 7)] && clock > period.from_h &&
           clock < period.to_h &&
           std::none_of(period.holidays.begin(), period.holidays.end(),
                        [&](const model::UseHours::Holiday& holiday) { return holiday.holds(of_year); });
  });
}

namespace {

std::string period_words(const model::UseHours::Period& period) {
  const auto count = std::count(period.days.begin(), period.days.end(), true);
  std::string days = "every day";
  if (count < 7) {
    std::size_t first = 0;
    while (!period.days[first] || period.days[(first + 6) % 7]) ++first;
    days = daylight::kWeekdays[first];
    if (count > 1) days += std::string(" to ") + daylight::kWeekdays[(first + std::size_t(count) - 1) % 7];
  }
  int off = 0;
  for (int day = 1; day <= daylight::kHoursOfYear / 24; ++day)
    off += std::any_of(period.holidays.begin(), period.holidays.end(),
                       [&](const model::UseHours::Holiday& holiday) { return holiday.holds(day); });
  return fmt::format(FMT_STRING("{} {} to {}{}"), days, units::clock_words(period.from_h),
                     units::clock_words(period.to_h),
                     off > 0 ? fmt::format(FMT_STRING(", {} days of holiday"), off) : "");
}

}  // namespace

std::string to_words(const model::UseHours& use) {
  std::string words;
  for (const model::UseHours::Period& period : use.periods)
    words += (words.empty() ? "" : "; ") + period_words(period);
  return words;
}

namespace {

PlannedTimes plan_times(const model::YearTimes& wish, const model::Site& site, int first_weekday,
                        Problems& problems) {
  PlannedTimes times{wish.name, to_words(wish.hours), {}, wish.low_lx, wish.high_lx};
  const auto month_word = [](int month) { return std::string(daylight::kMonths[std::size_t(month - 1)]); };
  if (wish.first_month == wish.last_month)
    times.words = month_word(wish.first_month) + ", " + times.words;
  else if (wish.first_month != 1 || wish.last_month != 12)
    times.words = month_word(wish.first_month) + " to " + month_word(wish.last_month) + ", " + times.words;
  bool any = false;
  for (int h = 0; h < daylight::kHoursOfYear; ++h) {
    const int month = daylight::date_of_day(h / 24).first;
    const bool in_months = wish.first_month <= wish.last_month
                               ? month >= wish.first_month && month <= wish.last_month
                               : month >= wish.first_month || month <= wish.last_month;
    times.holds.push_back(in_months && is_used(wish.hours, site, first_weekday, h));
    any = any || times.holds.back();
  }
  if (!any)
    problems.error(
        "P130", wish.place,
        fmt::format(FMT_STRING("\"{}\" holds no hour's middle; expected at least one hour of some day"),
                    wish.name));
  return times;
}

}  // namespace

std::optional<YearPlan> plan_year(const model::Project& project, const model::Room& room,
                                  Problems& problems) {
  if (!project.year) {
    if (room.year)
      problems.error("P130", room.year->place,
                     "the room asks for a year of daylight, but nothing says the weather; give the project "
                     "[year] with weather = \"FILE.epw\"");
    return std::nullopt;
  }
  const model::YearWish& wish = *project.year;
  const std::set<std::string> known = known_states(project);
  check_states(wish.states, wish.states_place, "states", known, problems);
  check_states(wish.blinds.states, wish.blinds_place, "blinds", known, problems);
  if (!wish.weather) return std::nullopt;
  warn_of_north(project.site, problems);
  const daylight::Weather& weather = *wish.weather;
  const model::UseHours use = room.year && room.year->hours ? *room.year->hours : wish.hours;
  YearPlan plan;
  plan.place = weather.place;
  plan.file = wish.file;
  plan.hours_words = to_words(use);
  plan.latitude_deg = weather.latitude_deg;
  plan.longitude_deg = weather.longitude_deg;
  plan.levels_lx = room.year && !room.year->levels_lx.empty() ? room.year->levels_lx : wish.levels_lx;
  plan.blinds = wish.blinds;
  plan.states = wish.states;
  std::vector<char> used(daylight::kHoursOfYear);
  plan.used_by_day.assign(daylight::kHoursOfYear / 24, 0);
  for (int h = 0; h < daylight::kHoursOfYear; ++h) {
    used[std::size_t(h)] = is_used(use, project.site, weather.first_weekday, h);
    plan.used_hours += used[std::size_t(h)];
    plan.used_by_day[std::size_t(h / 24)] =
        char(plan.used_by_day[std::size_t(h / 24)] + used[std::size_t(h)]);
  }
  for (const daylight::HourOutside& hour : daylight::hours_outside(weather))
    plan.hours.push_back(
        {hour.number, used[std::size_t(hour.number)] != 0,
         daylight::direction_of(hour.altitude_deg, hour.azimuth_deg - project.site.north_deg.value_or(0)),
         hour.sky.direct_normal_lx, hour.sky.diffuse_lx, hour.sky.shape});
  for (const model::YearTimes& times : wish.times)
    plan.times.push_back(plan_times(times, project.site, weather.first_weekday, problems));
  if (plan.used_hours > 0) return plan;
  problems.error("P130", room.year ? room.year->place : wish.place,
                 "the hours of use hold no hour's middle; expected at least one hour of some day");
  return std::nullopt;
}

}  // namespace glow::space
