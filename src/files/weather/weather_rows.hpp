#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/daylight/weather.hpp"
#include "core/problems/problems.hpp"

namespace glow::files {

/// What a row says of its hour; W/m2 and degrees C. Nothing: it is not there, or marked as missing.
struct WeatherRow {
  int line = 0;
  int month = 0, day = 0, hour = 0;
  std::optional<double> global, direct, diffuse, dew_point;
};

/// A line cut at its commas.
struct WeatherFields {
  int line = 0;
  std::vector<std::string_view> fields;

  std::string_view at(std::size_t i) const { return i < fields.size() ? fields[i] : std::string_view(); }
  /// Where field `i` begins.
  Place place(const std::string& file, std::size_t i) const;
};
WeatherFields cut_at_commas(std::string_view line, int number);

/// A number; else nothing and an error that names field and word.
std::optional<double> weather_number(const WeatherFields& row, std::size_t field, const char* what,
                                     const std::string& file, Problems& problems);
/// The same, a whole number within [low, high].
std::optional<int> weather_count(const WeatherFields& row, std::size_t field, const char* what, int low,
                                 int high, const std::string& file, Problems& problems);

/// Puts rows in their hours by date, and says what hours are missing, come twice or have no light, and what
/// irradiances cannot be. False: refused.
bool take_rows(std::vector<WeatherRow> rows, const std::string& file, daylight::Weather& weather,
               Problems& problems);

}  // namespace glow::files
