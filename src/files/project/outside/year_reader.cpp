#include "files/project/outside/year_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdio>

#include "core/daylight/sun.hpp"
#include "files/project/outside/site_reader.hpp"
#include "files/project/ranges.hpp"
#include "files/text/input_file.hpp"
#include "files/text/text_scanner.hpp"
#include "files/weather/weather_reader.hpp"

namespace glow::files {
namespace {

using model::UseHours;
using units::Dimension;

constexpr Range kLevel{1, 100000}, kExposure{1, 1e9};
constexpr std::size_t kMostLevels = 6;
constexpr double kSiteNear = 1.0;  // degrees between a site and its weather

/// Of the year, 1 to 365, from "12-24"; nothing for other words.
std::optional<int> day_of_year_in(std::string_view words) {
  int month = 0, date = 0, used = 0;
  const std::string text(trimmed(words));
  if (std::sscanf(text.c_str(), "%d-%d%n", &month, &date, &used) != 2 || std::size_t(used) != text.size())
    return std::nullopt;
  if (month < 1 || month > 12 || date < 1 || date > daylight::days_in_month(daylight::kSunYear, month))
    return std::nullopt;
  return daylight::day_of_year(daylight::kSunYear, month, date);
}

int day_number(std::string_view word) {
  for (std::size_t d = 0; d < daylight::kWeekdays.size(); ++d)
    if (trimmed(word) == daylight::kWeekdays[d]) return int(d);
  return -1;
}

/// "every day", "Monday to Friday", "Saturday".
bool read_days(const std::string& words, UseHours::Period& use) {
  if (words == "every day") return true;
  const std::size_t to = words.find(" to ");
  const int first = day_number(words.substr(0, to));
  const int last = to == std::string::npos ? first : day_number(words.substr(to + 4));
  if (first < 0 || last < 0) return false;
  use.days.fill(false);
  for (int d = first;; d = (d + 1) % 7) {
    use.days[std::size_t(d)] = true;
    if (d == last) return true;
  }
}

}  // namespace

std::optional<double> read_clock_time(TomlTable& table, const char* key, Need need) {
  const auto words = table.text(key, need);
  if (!words) return std::nullopt;
  int hour = 0, minute = 0, used = 0;
  if (std::sscanf(words->c_str(), "%d:%d%n", &hour, &minute, &used) == 2 &&
      std::size_t(used) == words->size() && hour >= 0 && minute >= 0 && minute < 60 &&
      hour * 60 + minute <= 24 * 60)
    return hour + minute / 60.0;
  table.problems().error(
      "P005", table.place_of(key),
      fmt::format(FMT_STRING("\"{}\" is \"{}\"; expected a time of the day, such as \"8:00\""), key, *words));
  return std::nullopt;
}

std::vector<UseHours::Holiday> read_dates(TomlTable& table, const char* key) {
  std::vector<UseHours::Holiday> days;
  for (const auto& [words, place] : table.texts(key)) {
    const std::size_t to = words.find(" to ");
    const auto first = day_of_year_in(words.substr(0, to));
    const auto last = to == std::string::npos ? first : day_of_year_in(words.substr(to + 4));
    if (first && last)
      days.push_back({*first, *last});
    else
      table.problems().error(
          "P005", place,
          fmt::format(FMT_STRING("\"{}\" holds \"{}\"; expected month and day, such as \"05-01\", or "
                                 "\"12-24 to 01-06\""),
                      key, words));
  }
  return days;
}

namespace {

std::optional<UseHours::Period> read_period(TomlTable& table) {
  UseHours::Period period;
  const std::string days = table.text("days").value_or("every day");
  if (!read_days(days, period))
    table.problems().error(
        "P005", table.place_of("days"),
        fmt::format(FMT_STRING("\"days\" is \"{}\"; expected \"every day\", a day, or days such as \"Monday "
                               "to Friday\""),
                    days));
  const auto from = read_clock_time(table, "from", Need::required);
  const auto to = read_clock_time(table, "to", Need::required);
  period.holidays = read_dates(table, "holidays");
  table.finish();
  if (!from || !to) return std::nullopt;
  period.from_h = *from;
  period.to_h = *to;
  if (period.from_h < period.to_h) return period;
  table.problems().error("P005", table.place(),
                         "\"hours\" end before they begin; expected from before to, within one day");
  return std::nullopt;
}

bool overlap(const UseHours::Period& a, const UseHours::Period& b) {
  bool same_day = false;
  for (std::size_t d = 0; d < a.days.size(); ++d) same_day = same_day || (a.days[d] && b.days[d]);
  return same_day && a.from_h < b.to_h && b.from_h < a.to_h;
}

}  // namespace

std::optional<UseHours> read_use_hours(TomlTable& parent) {
  UseHours use;
  use.periods.clear();
  for (TomlTable& table : parent.one_or_more("hours")) {
    auto period = read_period(table);
    if (!period) continue;
    if (std::any_of(use.periods.begin(), use.periods.end(),
                    [&](const UseHours::Period& other) { return overlap(*period, other); }))
      parent.problems().error("P005", table.place(),
                              "these \"hours\" overlap others of the same days; let each hour be in one");
    use.periods.push_back(std::move(*period));
  }
  return use.periods.empty() ? std::nullopt : std::optional(std::move(use));
}

namespace {

/// One level or several, lx.
std::vector<double> read_levels(TomlTable& table) {
  std::vector<double> levels;
  if (!table.is_list("levels")) {
    if (const auto level = table.quantity("levels", Dimension::illuminance, kLevel)) levels.push_back(*level);
  } else if (const auto list = table.numbers("levels", 1, kMostLevels, kLevel.low, kLevel.high)) {
    for (const double level : *list) levels.push_back(level / table.units().light(1));
  }
  return levels;
}

int month_number(std::string_view word) {
  for (std::size_t m = 0; m < daylight::kMonths.size(); ++m)
    if (trimmed(word) == daylight::kMonths[m]) return int(m) + 1;
  return 0;
}

/// [year.times.NAME]: hours that are looked at by themselves.
std::vector<model::YearTimes> read_times(TomlTable& year) {
  std::vector<model::YearTimes> all;
  for (auto& [name, table] : year.named_tables("times")) {
    model::YearTimes times;
    times.name = name;
    times.place = table.place();
    if (const auto words = table.text("months")) {
      const std::size_t to = words->find(" to ");
      times.first_month = month_number(words->substr(0, to));
      times.last_month = to == std::string::npos ? times.first_month : month_number(words->substr(to + 4));
      if (times.first_month == 0 || times.last_month == 0)
        table.problems().error(
            "P005", table.place_of("months"),
            fmt::format(
                FMT_STRING(
                    "\"months\" is \"{}\"; expected a month, or months such as \"November to February\""),
                *words));
    }
    if (const auto within = table.numbers("within", 2, 2, kLevel.low, kLevel.high)) {
      times.low_lx = (*within)[0] / table.units().light(1);
      times.high_lx = (*within)[1] / table.units().light(1);
      if (times.low_lx >= times.high_lx)
        table.problems().error("P005", table.place_of("within"),
                               "\"within\" expects the lower limit first, such as [300, 3000]");
    }
    const auto period = read_period(table);
    if (!period || times.first_month == 0 || times.last_month == 0) continue;
    times.hours.periods = {*period};
    all.push_back(std::move(times));
  }
  return all;
}

model::BlindRule read_blinds(TomlTable& year, Place& place) {
  model::BlindRule rule;
  auto table = year.table("blinds");
  if (!table) return rule;
  place = table->place();
  for (const auto& [state, at] : table->texts("states")) rule.states.push_back(state);
  rule.sun_lx = table->quantity("sun", Dimension::illuminance, kLevel).value_or(rule.sun_lx);
  rule.share = table->quantity("share", Dimension::ratio, range::kShare).value_or(rule.share);
  table->finish();
  if (rule.states.empty())
    table->problems().error("P004", place,
                            "\"blinds\" names no states; expected states = [\"blinds\"], by which openings' "
                            "slats or screens come down");
  return rule;
}

/// Latitude, longitude and clock of the site against those of its weather.
void compare_places(const model::Project& project, const daylight::Weather& weather, Problems& problems) {
  const model::Site& site = project.site;
  std::string differs;
  const auto say = [&](const char* what, const std::optional<double>& own, double other, double most) {
    if (own && std::abs(*own - other) > most)
      differs += fmt::format(FMT_STRING("{}{} {:g} here, {:g} there"), differs.empty() ? "" : ", ", what,
                             *own, other);
  };
  say("latitude", site.latitude_deg, weather.latitude_deg, kSiteNear);
  say("longitude", site.longitude_deg, weather.longitude_deg, kSiteNear);
  say("time zone", site.time_zone_h, weather.time_zone_h, 1e-6);
  if (!differs.empty())
    problems.warning(
        "P131", project.year->file_place,
        fmt::format(
            FMT_STRING("[site] and the weather of {} are not of one place: {}. The year takes sun and "
                       "sky of the weather's place"),
            weather.place.empty() ? project.year->file : weather.place, differs));
}

}  // namespace

std::optional<model::YearWish> read_year(TomlTable& root) {
  auto table = root.table("year");
  if (!table) return std::nullopt;
  model::YearWish wish;
  wish.place = table->place();
  wish.file = table->text("weather", Need::required).value_or("");
  wish.file_place = table->place_of("weather");
  wish.hours = read_use_hours(*table).value_or(UseHours{});
  const std::vector<double> levels = read_levels(*table);
  if (!levels.empty()) wish.levels_lx = levels;
  wish.blinds = read_blinds(*table, wish.blinds_place);
  for (const auto& [state, at] : table->texts("states")) wish.states.push_back(state);
  wish.states_place = table->place_of("states");
  wish.times = read_times(*table);
  table->finish();
  return wish;
}

std::optional<model::RoomYearWish> read_room_year(TomlTable& room) {
  auto table = room.table("year");
  if (!table) return std::nullopt;
  model::RoomYearWish wish;
  wish.place = table->place();
  wish.hours = read_use_hours(*table);
  wish.levels_lx = read_levels(*table);
  wish.autonomy = table->quantity("autonomy", Dimension::ratio, range::kShare);
  wish.spatial_autonomy = table->quantity("spatial_autonomy", Dimension::ratio, range::kShare);
  wish.sun_exposure = table->quantity("sun_exposure", Dimension::ratio, range::kShare);
  wish.exposure_lxh = table->quantity("exposure", Dimension::number, kExposure);
  wish.provision = read_daylight_level(*table, "provision");
  table->finish();
  return wish;
}

void load_weather(model::Project& project, const std::filesystem::path& folder, Problems& problems) {
  if (!project.year || project.year->file.empty()) return;
  model::YearWish& year = *project.year;
  const auto named = named_path(folder, year.file, project.files_outside, year.file_place, problems);
  if (!named) return;
  const auto bytes = read_file(*named, kLargestWeatherFile, year.file_place, problems);
  if (!bytes) return;
  auto weather = read_weather(*bytes, named->string(), problems);
  if (!weather) return;
  compare_places(project, *weather, problems);
  if (!project.site.median_diffuse_lx) {
    project.site.median_diffuse_lx = daylight::median_diffuse_lx(daylight::hours_outside(*weather));
    project.site.median_source = fmt::format(FMT_STRING("of the weather in {}"), year.file);
  }
  year.weather = std::make_shared<const daylight::Weather>(std::move(*weather));
}

}  // namespace glow::files
