#include "files/weather/weather_rows.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/daylight/sun.hpp"
#include "core/units/quantity.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::files {
namespace {

constexpr double kMostIrradiance = 1500;  // W/m2: more than the sun sends
constexpr double kLongestWord = 40;

/// Rows of a fault: how many, and the first.
struct Count {
  int rows = 0;
  WeatherRow first;
  void add(const WeatherRow& row) {
    if (rows++ == 0) first = row;
  }
};

std::string date_words(int month, int day, int hour) {
  return fmt::format(FMT_STRING("{} {} hour {}"), day, daylight::kMonths[std::size_t(month - 1)], hour);
}

std::string first_of(const Count& count) {
  return fmt::format(FMT_STRING("the first is {}"),
                     date_words(count.first.month, count.first.day, count.first.hour));
}

const char* hours(int count) {
  return count == 1 ? "hour" : "hours";
}

/// Takes nothing below zero and nothing that is brighter than the sun.
void bound(std::optional<double>& value, const WeatherRow& row, Count& below, Count& above) {
  if (!value) return;
  if (*value < 0) {
    below.add(row);
    value = 0;
  } else if (*value > kMostIrradiance) {
    above.add(row);
    value.reset();
  }
}

/// What does not agree with itself, or with where the sun stands.
class Doubts {
 public:
  Doubts(const std::string& file, Problems& problems) : file_(file), problems_(problems) {}

  void look(const WeatherRow& row, double altitude_deg) {
    if (!row.direct || !row.diffuse) return;
    if (*row.direct > kDarkBeam && altitude_deg < -1) beam_at_night_.add(row);
    if (!row.global || altitude_deg < kWellUp) return;
    const double sum = *row.diffuse + *row.direct * std::sin(altitude_deg * kDegree);
    const double off = std::abs(*row.global - sum);
    if (off > kOff && off > 0.1 * *row.global) sums_.add(row);
    if (*row.diffuse > *row.global + kOff && *row.diffuse > 1.1 * *row.global) diffuse_.add(row);
  }

  void tell(const daylight::Weather& weather) const {
    if (beam_at_night_.rows > kFew)
      problems_.warning(
          "sun-below-horizon", {file_, beam_at_night_.first.line, 0},
          fmt::format(FMT_STRING("in {} {} the sun's beam is above {} W/m2 while the sun is below the "
                                 "horizon at latitude {:.2f}, longitude {:.2f}, UTC{:+g}; {}. Check signs of "
                                 "latitude and longitude, and the time zone; that light is left out"),
                      beam_at_night_.rows, hours(beam_at_night_.rows), kDarkBeam, weather.latitude_deg,
                      weather.longitude_deg, weather.time_zone_h, first_of(beam_at_night_)));
    else if (sums_.rows > kFew)  // which follow from a sun in another place
      problems_.warning(
          "sums-differ", {file_, sums_.first.line, 0},
          fmt::format(FMT_STRING("in {} {} global, direct and diffuse irradiance do not agree: global is not "
                                 "diffuse + direct times the sine of the sun's altitude; {}{}. Columns may "
                                 "have changed places; direct and diffuse are taken as they stand"),
                      sums_.rows, hours(sums_.rows), first_of(sums_),
                      diffuse_.rows == 0
                          ? std::string()
                          : fmt::format(FMT_STRING("; diffuse is above global in {}"), diffuse_.rows)));
  }

 private:
  static constexpr double kDarkBeam = 50, kOff = 50;  // W/m2
  static constexpr double kWellUp = 10;               // degrees
  static constexpr int kFew = 8;                      // of a year, which say nothing

  const std::string& file_;
  Problems& problems_;
  Count beam_at_night_, sums_, diffuse_;
};

/// The rows of a common year in their hours; null: none.
std::vector<const WeatherRow*> by_hours(const std::vector<WeatherRow>& rows, const std::string& file,
                                        Problems& problems) {
  std::vector<const WeatherRow*> at(daylight::kHoursOfYear, nullptr);
  int leap = 0, twice = 0;
  for (const WeatherRow& row : rows) {
    if (row.month == 2 && row.day == 29) {
      ++leap;
      continue;
    }
    const WeatherRow*& own = at[std::size_t(daylight::hour_of_year(row.month, row.day, row.hour))];
    if (own && twice++ == 0)
      problems.error("twice", {file, row.line, 0},
                     fmt::format(FMT_STRING("{} stands in line {} already; expected each hour once"),
                                 date_words(row.month, row.day, row.hour), own->line));
    own = &row;
  }
  if (leap > 0)
    problems.note("leap-day", {file, 0, 0},
                  fmt::format(FMT_STRING("29 February is left out ({} {}): a year has 8760 hours; all other "
                                         "days keep their dates"),
                              leap, hours(leap)));
  return at;
}

void tell_missing(const std::vector<const WeatherRow*>& at, const std::string& file, Problems& problems) {
  int missing = 0, line = 0, after = 0;
  std::string first;
  for (int h = 0; h < daylight::kHoursOfYear; ++h) {
    if (at[std::size_t(h)]) {
      if (missing == 0) after = at[std::size_t(h)]->line;
      continue;
    }
    if (missing++ > 0) continue;
    line = after + 1;
    const auto [month, day] = daylight::date_of_day(h / 24);
    first = date_words(month, day, h % 24 + 1);
  }
  if (missing == 0) return;
  problems.warning(
      "hours-missing", {file, line, 0},
      fmt::format(
          FMT_STRING("{} of 8760 hours {} missing, {} are there: the first is {}. The others are placed "
                     "by their dates; what is missing counts as dark"),
          missing, missing == 1 ? "is" : "are", daylight::kHoursOfYear - missing, first));
}

void tell_bounds(const Count& below, const Count& above, const std::string& file, Problems& problems) {
  if (below.rows > 0)
    problems.warning(
        "below-zero", {file, below.first.line, 0},
        fmt::format(FMT_STRING("{} values of irradiance are below zero; {}. They are taken as 0"), below.rows,
                    first_of(below)));
  if (above.rows > 0)
    problems.warning(
        "too-bright", {file, above.first.line, 0},
        fmt::format(FMT_STRING("{} values of irradiance are above {} W/m2, more than the sun sends; {}. They "
                               "are left out"),
                    above.rows, kMostIrradiance, first_of(above)));
}

}  // namespace

Place WeatherFields::place(const std::string& file, std::size_t i) const {
  int column = 1;
  for (std::size_t k = 0; k < i && k < fields.size(); ++k) column += int(fields[k].size()) + 1;
  return {file, line, column};
}

WeatherFields cut_at_commas(std::string_view line, int number) {
  WeatherFields row;
  row.line = number;
  for (std::size_t begin = 0;;) {
    const std::size_t comma = line.find(',', begin);
    row.fields.push_back(line.substr(begin, comma - begin));
    if (comma == std::string_view::npos) return row;
    begin = comma + 1;
  }
}

std::optional<double> weather_number(const WeatherFields& row, std::size_t field, const char* what,
                                     const std::string& file, Problems& problems) {
  const std::string word(trimmed(row.at(field)));
  double value = 0;
  if (!word.empty() && units::parse_number(word, value)) return value;
  problems.error("not-a-number", row.place(file, field),
                 fmt::format(FMT_STRING("field {} ({}) is \"{}\"; expected a number"), field + 1, what,
                             printable(to_utf8(word.substr(0, std::size_t(kLongestWord))))));
  return std::nullopt;
}

std::optional<int> weather_count(const WeatherFields& row, std::size_t field, const char* what, int low,
                                 int high, const std::string& file, Problems& problems) {
  const auto value = weather_number(row, field, what, file, problems);
  if (!value) return std::nullopt;
  if (*value == std::floor(*value) && *value >= low && *value <= high) return int(*value);
  problems.error("bad-date", row.place(file, field),
                 fmt::format(FMT_STRING("{} is {}; expected {} to {}"), what,
                             std::string(trimmed(row.at(field))), low, high));
  return std::nullopt;
}

bool take_rows(std::vector<WeatherRow> rows, const std::string& file, daylight::Weather& weather,
               Problems& problems) {
  const int errors = problems.error_count();
  const std::vector<const WeatherRow*> at = by_hours(rows, file, problems);
  if (problems.error_count() > errors) return false;
  tell_missing(at, file, problems);
  Count below, above, dark;
  Doubts doubts(file, problems);
  for (const WeatherRow* known : at) {
    if (!known) {
      ++weather.missing;
      continue;
    }
    WeatherRow row = *known;
    bound(row.global, *known, below, above);
    bound(row.direct, *known, below, above);
    bound(row.diffuse, *known, below, above);
    if (!row.direct || !row.diffuse) {
      ++weather.missing;
      dark.add(*known);
      continue;
    }
    const daylight::SunPosition sun =
        daylight::sun_position({daylight::kSunYear, row.month, row.day, row.hour - 0.5 - weather.time_zone_h},
                               weather.latitude_deg, weather.longitude_deg);
    doubts.look(row, sun.altitude_deg);
    weather.hours.push_back(
        {row.month, row.day, row.hour, *row.direct, *row.diffuse, row.dew_point.value_or(10), row.global});
  }
  tell_bounds(below, above, file, problems);
  if (dark.rows > 0)
    problems.warning("no-light", {file, dark.first.line, 0},
                     fmt::format(FMT_STRING("{} {} without direct or diffuse irradiance (9999: missing); {}. "
                                            "They count as dark, and are no light of 9999 W/m2"),
                                 dark.rows, dark.rows == 1 ? "hour is" : "hours are", first_of(dark)));
  doubts.tell(weather);
  if (!weather.hours.empty()) return true;
  problems.error("no-light", {file, 0, 0}, "no hour has direct and diffuse irradiance");
  return false;
}

}  // namespace glow::files
