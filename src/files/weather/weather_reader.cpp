#include "files/weather/weather_reader.hpp"

#include <fmt/format.h>

#include <array>
#include <map>

#include "core/daylight/sun.hpp"
#include "files/text/text_scanner.hpp"
#include "files/weather/weather_rows.hpp"

namespace glow::files {
namespace {

constexpr std::size_t kMostRows = 8784;
constexpr int kMostFaults = 20;
constexpr std::size_t kHeaderLines = 8;
/// Fields of an EPW row, from 0.
enum EpwField { kMonth = 1, kDay = 2, kHour = 3, kDewPoint = 7, kGlobal = 13, kDirect = 14, kDiffuse = 15 };
constexpr std::size_t kEpwFields = 22;  // that an EPW row has at least
constexpr double kNoIrradiance = 9999, kNoDewPoint = 99.9;

std::string text_of(std::string_view field) {
  return printable(to_utf8(trimmed(field)));
}

std::optional<double> within(const WeatherFields& row, std::size_t field, const char* what, double low,
                             double high, const std::string& file, Problems& problems) {
  const auto value = weather_number(row, field, what, file, problems);
  if (!value || (*value >= low && *value <= high)) return value;
  problems.error("header", row.place(file, field),
                 fmt::format(FMT_STRING("{} is {}; expected {} to {}"), what, *value, low, high));
  return std::nullopt;
}

/// Month, day and hour; 29 February is taken as one.
bool read_date(const WeatherFields& row, std::size_t month, std::size_t day, std::size_t hour,
               const std::string& file, WeatherRow& own, Problems& problems) {
  const auto m = weather_count(row, month, "month", 1, 12, file, problems);
  const auto d =
      m ? weather_count(row, day, "day", 1, daylight::days_in_month(2016, *m), file, problems) : std::nullopt;
  const auto h = d ? weather_count(row, hour, "hour", 0, 24, file, problems) : std::nullopt;
  if (!h) return false;
  if (*h == 0) {
    problems.error("hour-0", row.place(file, hour),
                   "this row is of hour 0; hours count 1 to 24, each named by its end. Taken as they are all "
                   "hours would be an hour early: add 1 to each");
    return false;
  }
  own.line = row.line;
  own.month = *m;
  own.day = *d;
  own.hour = *h;
  return true;
}

class EpwReader {
 public:
  EpwReader(const std::vector<std::string_view>& lines, const std::string& name, Problems& problems)
      : lines_(lines), name_(name), problems_(problems) {}

  std::optional<daylight::Weather> read() {
    const int errors = problems_.error_count();
    read_location();
    read_periods();
    if (problems_.error_count() > errors) return std::nullopt;
    std::vector<WeatherRow> rows;
    for (std::size_t i = kHeaderLines; i < lines_.size(); ++i) {
      if (trimmed(lines_[i]).empty()) continue;
      if (problems_.error_count() - errors >= kMostFaults) break;
      if (rows.size() == kMostRows) {
        problems_.error("too-long", {name_, int(i) + 1, 1},
                        "more rows than hours of a year; expected at most 8784");
        break;
      }
      if (!read_row(i, rows) || counts_from_0()) break;
    }
    if (problems_.error_count() > errors || !take_rows(std::move(rows), name_, weather_, problems_))
      return std::nullopt;
    return std::move(weather_);
  }

 private:
  /// Then it does in every day.
  bool counts_from_0() const { return problems_.has_errors() && problems_.all().back().code == "hour-0"; }

  void read_location() {
    const WeatherFields row = cut_at_commas(lines_[0], 1);
    if (row.fields.size() < 10) {
      problems_.error("header", {name_, 1, 1},
                      fmt::format(FMT_STRING("LOCATION has {} fields; expected 10: city, state, country, "
                                             "source, number, latitude, longitude, time zone, elevation"),
                                  row.fields.size()));
      return;
    }
    weather_.place = text_of(row.at(1));
    weather_.latitude_deg = within(row, 6, "latitude", -90, 90, name_, problems_).value_or(0);
    weather_.longitude_deg = within(row, 7, "longitude", -180, 180, name_, problems_).value_or(0);
    weather_.time_zone_h = within(row, 8, "time zone", -12, 14, name_, problems_).value_or(0);
    weather_.elevation_m = within(row, 9, "elevation", -1000, 9999.9, name_, problems_).value_or(0);
  }

  void read_periods() {
    constexpr const char* kName = "DATA PERIODS";
    const std::size_t at = kHeaderLines - 1;
    if (lines_.size() <= at || lines_[at].substr(0, std::string_view(kName).size()) != kName) {
      problems_.error("header", {name_, int(std::min(lines_.size(), at + 1)), 1},
                      "there is no DATA PERIODS in line 8; expected eight header lines before the hours");
      return;
    }
    const WeatherFields row = cut_at_commas(lines_[at], int(at) + 1);
    const auto periods = weather_count(row, 1, "number of data periods", 1, 1, name_, problems_);
    if (periods) weather_count(row, 2, "records per hour", 1, 1, name_, problems_);
    const std::string weekday = text_of(row.at(4));
    for (std::size_t d = 0; d < daylight::kWeekdays.size(); ++d)
      if (weekday == daylight::kWeekdays[d]) weather_.first_weekday = int(d);
    weather_.period =
        fmt::format(FMT_STRING("{}, {} to {}"), text_of(row.at(3)), text_of(row.at(5)), text_of(row.at(6)));
  }

  /// False: nothing after it can be read.
  bool read_row(std::size_t i, std::vector<WeatherRow>& rows) {
    const WeatherFields row = cut_at_commas(lines_[i], int(i) + 1);
    if (row.fields.size() < kEpwFields) {
      const bool last = i + 1 >= lines_.size() || trimmed(lines_[i + 1]).empty();
      problems_.error("cut", {name_, row.line, 1},
                      fmt::format(FMT_STRING("this row has {} fields, expected 35{}"), row.fields.size(),
                                  last ? ": the file is cut off here; get it again" : ""));
      return false;
    }
    WeatherRow own;
    if (!read_date(row, kMonth, kDay, kHour, name_, own, problems_)) return true;
    own.global = value(row, kGlobal, "global irradiance", kNoIrradiance);
    own.direct = value(row, kDirect, "direct irradiance", kNoIrradiance);
    own.diffuse = value(row, kDiffuse, "diffuse irradiance", kNoIrradiance);
    own.dew_point = value(row, kDewPoint, "dew point", kNoDewPoint);
    rows.push_back(own);
    return true;
  }

  std::optional<double> value(const WeatherFields& row, std::size_t field, const char* what, double missing) {
    const auto value = weather_number(row, field, what, name_, problems_);
    return value && *value >= missing ? std::nullopt : value;
  }

  const std::vector<std::string_view>& lines_;
  const std::string& name_;
  Problems& problems_;
  daylight::Weather weather_;
};

/// A table of our own: rows of a word and a value first (latitude, ...), then a header row that begins with
/// "month", then hours.
class TableReader {
 public:
  TableReader(const std::vector<std::string_view>& lines, const std::string& name, Problems& problems)
      : lines_(lines), name_(name), problems_(problems) {}

  std::optional<daylight::Weather> read() {
    const int errors = problems_.error_count();
    std::size_t i = 0;
    for (; i < lines_.size() && text_of(cut_at_commas(lines_[i], 0).at(0)) != "month"; ++i) {
      if (i == kMostHeads) {
        i = lines_.size();
        break;
      }
      read_head(cut_at_commas(lines_[i], int(i) + 1));
    }
    if (i == lines_.size()) {
      problems_.error("header", {name_, 1, 1},
                      "this is no weather file: it begins neither with LOCATION, as EPW does, nor has it a "
                      "header row month,day,hour,direct_W_m2,diffuse_W_m2");
      return std::nullopt;
    }
    read_columns(cut_at_commas(lines_[i], int(i) + 1));
    for (const char* needed : {"latitude", "longitude", "time_zone"})
      if (heads_.count(needed) == 0)
        problems_.error("header", {name_, 1, 1},
                        fmt::format(FMT_STRING("there is no row \"{},...\" before the hours"), needed));
    std::vector<WeatherRow> rows;
    for (++i; i < lines_.size() && problems_.error_count() == errors; ++i)
      if (!trimmed(lines_[i]).empty()) read_row(cut_at_commas(lines_[i], int(i) + 1), rows);
    if (problems_.error_count() > errors || !take_rows(std::move(rows), name_, weather_, problems_))
      return std::nullopt;
    return std::move(weather_);
  }

 private:
  static constexpr std::size_t kMostHeads = 20;

  void read_head(const WeatherFields& row) {
    const std::string key = text_of(row.at(0));
    if (key.empty()) return;
    heads_[key] = row.line;
    if (key == "place")
      weather_.place = text_of(row.at(1));
    else if (key == "latitude")
      weather_.latitude_deg = within(row, 1, "latitude", -90, 90, name_, problems_).value_or(0);
    else if (key == "longitude")
      weather_.longitude_deg = within(row, 1, "longitude", -180, 180, name_, problems_).value_or(0);
    else if (key == "time_zone")
      weather_.time_zone_h = within(row, 1, "time zone", -12, 14, name_, problems_).value_or(0);
    else if (key == "elevation")
      weather_.elevation_m = within(row, 1, "elevation", -1000, 9999.9, name_, problems_).value_or(0);
    else
      problems_.error(
          "header", {name_, row.line, 1},
          fmt::format(FMT_STRING("\"{}\" is not known before the hours; expected place, latitude, "
                                 "longitude, time_zone, elevation or the header row, which "
                                 "begins with month"),
                      key.substr(0, 40)));
  }

  void read_columns(const WeatherFields& row) {
    for (std::size_t c = 0; c < row.fields.size(); ++c) columns_[text_of(row.fields[c])] = c;
    for (const char* needed : {"month", "day", "hour", "direct_W_m2", "diffuse_W_m2"})
      if (columns_.count(needed) == 0)
        problems_.error("header", {name_, row.line, 1},
                        fmt::format(FMT_STRING("the header row has no column \"{}\""), needed));
    const std::vector<std::string> known = {"month",       "day",          "hour",       "direct_W_m2",
                                            "global_W_m2", "diffuse_W_m2", "dew_point_C"};
    for (const auto& [column, at] : columns_)
      if (std::find(known.begin(), known.end(), column) == known.end())
        problems_.error("header", row.place(name_, at),
                        fmt::format(FMT_STRING("unknown column \"{}\"; expected {}"), column.substr(0, 40),
                                    fmt::join(known, ", ")));
    count_ = row.fields.size();
  }

  void read_row(const WeatherFields& row, std::vector<WeatherRow>& rows) {
    if (row.fields.size() != count_) {
      problems_.error(
          "cut", {name_, row.line, 1},
          fmt::format(FMT_STRING("this row has {} fields, the header row {}"), row.fields.size(), count_));
      return;
    }
    if (rows.size() == kMostRows) {
      problems_.error("too-long", {name_, row.line, 1},
                      "more rows than hours of a year; expected at most 8784");
      return;
    }
    WeatherRow own;
    if (!read_date(row, columns_["month"], columns_["day"], columns_["hour"], name_, own, problems_)) return;
    own.direct = value(row, "direct_W_m2");
    own.diffuse = value(row, "diffuse_W_m2");
    own.global = value(row, "global_W_m2");
    own.dew_point = value(row, "dew_point_C");
    rows.push_back(own);
  }

  /// Nothing where the field is empty.
  std::optional<double> value(const WeatherFields& row, const char* column) {
    const auto at = columns_.find(column);
    if (at == columns_.end() || trimmed(row.at(at->second)).empty()) return std::nullopt;
    return weather_number(row, at->second, column, name_, problems_);
  }

  const std::vector<std::string_view>& lines_;
  const std::string& name_;
  Problems& problems_;
  daylight::Weather weather_;
  std::map<std::string, int> heads_;
  std::map<std::string, std::size_t> columns_;
  std::size_t count_ = 0;
};

}  // namespace

std::optional<daylight::Weather> read_weather(std::string_view bytes, const std::string& name,
                                              Problems& problems) {
  const std::vector<std::string_view> lines = split_lines(bytes);
  if (lines.empty() || trimmed(bytes).empty()) {
    problems.error("empty", {name, 0, 0}, "the file is empty; expected a year of weather by hours");
    return std::nullopt;
  }
  if (lines[0].substr(0, 9) == "LOCATION,") return EpwReader(lines, name, problems).read();
  return TableReader(lines, name, problems).read();
}

}  // namespace glow::files
