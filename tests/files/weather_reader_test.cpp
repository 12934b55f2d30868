#include "files/weather/weather_reader.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <nlohmann/json.hpp>
#include <sstream>

#include "core/daylight/climate.hpp"
#include "test_files.hpp"

namespace glow::files {
namespace weather_test {

using nlohmann::json;

const json& cases() {
  static const json all = test::json_in(test::test_data("validation/daylight.json")).at("cases");
  return all;
}

const json& case_of(const std::string& id) {
  for (const json& each : cases())
    if (each.at("id") == id) return each;
  throw std::runtime_error("no case " + id);
}

std::string base(const std::string& name) {
  return test::content_of(test::test_data("validation/weather/" + name));
}

std::vector<std::string> split(const std::string& text, char at) {
  std::vector<std::string> parts(1);
  for (const char c : text) {
    if (c == at)
      parts.emplace_back();
    else
      parts.back() += c;
  }
  return parts;
}

std::string joined(const std::vector<std::string>& parts, const std::string& between) {
  std::string text;
  for (std::size_t i = 0; i < parts.size(); ++i) text += (i ? between : "") + parts[i];
  return text;
}

constexpr std::size_t kHead = 8;

/// The base file with what a case does to it.
std::string edited(const json& of) {
  std::vector<std::string> lines = split(base(of.at("base")), '\n');
  if (lines.back().empty()) lines.pop_back();
  std::string end = "\n";
  std::size_t most = std::string::npos;
  for (const json& edit : of.at("edit")) {
    const std::string op = edit.at("op");
    const auto each_row = [&](std::size_t first, std::size_t last, const auto& change) {
      for (std::size_t row = first; row <= last; ++row) {
        std::vector<std::string> fields = split(lines[kHead + row], ',');
        change(fields);
        lines[kHead + row] = joined(fields, ",");
      }
    };
    if (op == "delete_rows") {
      const auto first = lines.begin() + std::ptrdiff_t(kHead + edit.at("first").get<std::size_t>());
      lines.erase(first, lines.begin() + std::ptrdiff_t(kHead + edit.at("last").get<std::size_t>() + 1));
    } else if (op == "set") {
      each_row(edit.at("first"), edit.at("last"), [&](auto& fields) {
        for (const json& field : edit.at("fields")) fields[field.get<std::size_t>() - 1] = edit.at("value");
      });
    } else if (op == "crlf") {
      end = "\r\n";
    } else if (op == "header_field") {
      std::vector<std::string> fields = split(lines[0], ',');
      fields[edit.at("field").get<std::size_t>() - 1] = edit.at("value");
      lines[0] = joined(fields, ",");
    } else if (op == "swap_fields") {
      each_row(0, lines.size() - kHead - 1, [](auto& fields) { std::swap(fields[14], fields[15]); });
    } else if (op == "cut_bytes") {
      most = edit.at("at");
    } else if (op == "hour_minus_one") {
      each_row(0, lines.size() - kHead - 1,
               [](auto& fields) { fields[3] = std::to_string(std::stoi(fields[3]) - 1); });
    } else if (op == "leap_day") {
      const std::size_t march = kHead + 59 * 24;
      std::vector<std::string> more(lines.begin() + std::ptrdiff_t(march - 24),
                                    lines.begin() + std::ptrdiff_t(march));
      for (std::string& line : more) {
        std::vector<std::string> fields = split(line, ',');
        fields[2] = "29";
        line = joined(fields, ",");
      }
      lines.insert(lines.begin() + std::ptrdiff_t(march), more.begin(), more.end());
    } else {
      throw std::runtime_error("unknown edit " + op);
    }
  }
  return (joined(lines, end) + end).substr(0, most);
}

class WeatherCase : public testing::TestWithParam<const char*> {};

TEST_P(WeatherCase, HasTheOutcomeThatTheTruthAsksFor) {
  struct Told {
    const char* id;
    const char* says;  ///< of what is told
  };
  static const Told kTold[] = {{"X01-hour-missing", "14 May hour 13"},
                               {"X02-missing-codes", "24 hours"},
                               {"X05-latitude-sign", "below the horizon at latitude -52.30"},
                               {"X06-columns-swapped", "global, direct and diffuse irradiance do not agree"},
                               {"X07-cut", "the file is cut off here"},
                               {"X08-word", "field 16 (diffuse irradiance) is \"n/a\""},
                               {"X09-hours-0-to-23", "hour 0"},
                               {"X10-leap-year", "29 February"}};
  const json& of = case_of(GetParam());
  Problems problems;
  const auto weather = read_weather(edited(of), "w.epw", problems);
  const bool warned = std::any_of(problems.all().begin(), problems.all().end(), [](const Problem& problem) {
    return problem.severity == Severity::warning;
  });
  const std::string outcome = !weather ? "refuse" : warned ? "warn" : "accept";
  const auto allowed = of.at("outcome").get<std::vector<std::string>>();
  EXPECT_NE(std::find(allowed.begin(), allowed.end(), outcome), allowed.end()) << outcome;
  EXPECT_EQ(weather.has_value(), !problems.has_errors());
  for (const Told& told : kTold)
    if (of.at("id") == told.id) {
      ASSERT_FALSE(problems.all().empty());
      EXPECT_LE(problems.all().size(), 2u) << "one message per fault";
      EXPECT_NE(to_string(problems.all().front()).find(told.says), std::string::npos)
          << to_string(problems.all().front());
    }
  if (of.at("id") == "X01-hour-missing") {
    EXPECT_EQ(problems.all().front().place.line, 3213);
  }
  if (of.at("id") == "X07-cut") {
    EXPECT_EQ(problems.all().front().place.line, 4648);
  }
  if (of.at("id") == "X08-word") {
    EXPECT_EQ(problems.all().front().place.line, 4321);
  }
}

class SameWeather : public testing::TestWithParam<const char*> {};

TEST_P(SameWeather, KeepsTheSunOfEveryHourThatIsThere) {
  const json& of = case_of(GetParam());
  const std::string id = of.at("id");
  Problems problems, none;
  const auto weather = read_weather(edited(of), "w.epw", problems);
  const auto whole = read_weather(base(of.at("base")), "b.epw", none);
  ASSERT_TRUE(weather && whole);
  const auto hours = daylight::hours_outside(*weather), all = daylight::hours_outside(*whole);
  EXPECT_EQ(all.size() - hours.size(), id == "X01-hour-missing" ? 1u : 0u);
  std::size_t k = 0;
  for (const daylight::HourOutside& hour : all) {
    if (k < hours.size() && hours[k].number == hour.number) {
      EXPECT_EQ(hours[k].altitude_deg, hour.altitude_deg);
      EXPECT_EQ(hours[k].sky.diffuse_lx, hour.sky.diffuse_lx);
      ++k;
    }
  }
  EXPECT_EQ(k, hours.size());
}

INSTANTIATE_TEST_SUITE_P(Broken, WeatherCase,
                         testing::Values("X01-hour-missing", "X02-missing-codes", "X03-minute-60", "X04-crlf",
                                         "X05-latitude-sign", "X06-columns-swapped", "X07-cut", "X08-word",
                                         "X09-hours-0-to-23", "X10-leap-year"),
                         [](const auto& of) { return std::string(of.param).substr(0, 3); });

INSTANTIATE_TEST_SUITE_P(Broken, SameWeather,
                         testing::Values("X01-hour-missing", "X03-minute-60", "X04-crlf", "X10-leap-year"),
                         [](const auto& of) { return std::string(of.param).substr(0, 3); });

class WeatherNumbers : public testing::TestWithParam<const char*> {};

/// What the reference calls it, by what the program finds.
double found(const std::string& quantity, const daylight::Weather& weather,
             const daylight::Climate& climate) {
  const std::pair<const char*, double> kAll[] = {
      {"latitude", weather.latitude_deg},
      {"longitude_east", weather.longitude_deg},
      {"time_zone", weather.time_zone_h},
      {"elevation", weather.elevation_m},
      {"rows", double(weather.hours.size())},
      {"global_horizontal_irradiation_year", climate.global_kwh_m2},
      {"global_horizontal_irradiance_max", climate.most_global_w_m2},
      {"direct_normal_irradiation_year", climate.direct_kwh_m2},
      {"direct_normal_irradiance_max", climate.most_direct_w_m2},
      {"diffuse_horizontal_irradiation_year", climate.diffuse_kwh_m2},
      {"diffuse_horizontal_irradiance_max", climate.most_diffuse_w_m2},
      {"median_diffuse_illuminance_2190h", climate.median_diffuse_lx},
      {"diffuse_illuminance_exposure", climate.diffuse_klxh},
      {"direct_normal_illuminance_exposure", climate.direct_klxh},
      {"global_illuminance_exposure", climate.global_klxh},
      {"hours_sun_up_at_mid_hour", double(climate.light_hours)}};
  for (const auto& [name, value] : kAll)
    if (quantity == name) return value;
  for (std::size_t bin = 1; bin <= 8; ++bin)
    if (quantity == "hours_clearness_bin_" + std::to_string(bin) + "_sun_above_3deg")
      return climate.by_clearness[bin - 1];
  return NAN;
}

/// "row 3-21 hour 8: sun_altitude".
double of_row(const std::string& quantity, const std::vector<daylight::HourOutside>& hours) {
  int month = 0, day = 0, hour = 0;
  char what[40] = "";
  if (std::sscanf(quantity.c_str(), "row %d-%d hour %d: %39s", &month, &day, &hour, what) != 4) return NAN;
  for (const daylight::HourOutside& each : hours) {
    if (each.number != daylight::hour_of_year(month, day, hour)) continue;
    const std::string name = what;
    if (name == "sun_altitude") return each.altitude_deg;
    if (name == "sun_azimuth") return each.azimuth_deg;
    if (name == "clearness") return each.sky.clearness;
    if (name == "brightness") return each.sky.brightness;
    if (name == "E_diffuse_horizontal") return each.sky.diffuse_lx;
    if (name == "E_direct_normal") return each.sky.direct_normal_lx;
  }
  return NAN;
}

TEST_P(WeatherNumbers, AreThoseOfTheReference) {
  const json& of = case_of(GetParam());
  Problems problems;
  const std::string file = of.at("file");
  const auto weather = read_weather(base(file.substr(file.find('/') + 1)), file, problems);
  ASSERT_TRUE(weather && problems.all().empty());
  const auto hours = daylight::hours_outside(*weather);
  const daylight::Climate climate = daylight::climate_of(*weather, hours);
  int compared = 0;
  for (const json& reference : of.at("reference")) {
    const std::string quantity = reference.at("quantity");
    if (!reference.at("value").is_number()) continue;
    const double value =
        quantity.rfind("row ", 0) == 0 ? of_row(quantity, hours) : found(quantity, *weather, climate);
    if (!std::isfinite(value)) continue;
    const double expected = reference.at("value");
    EXPECT_NEAR(value, expected,
                reference.at("rel_tol").get<double>() * std::abs(expected) + reference.value("abs_tol", 0.0))
        << quantity;
    ++compared;
  }
  EXPECT_GT(compared, 60);
}

INSTANTIATE_TEST_SUITE_P(Reference, WeatherNumbers, testing::Values("W01", "W02"));

constexpr const char* kTable =
    "place,Here\nlatitude,52\nlongitude,10\ntime_zone,1\nmonth,day,hour,direct_W_m2,diffuse_W_m2\n"
    "6,21,12,600,150\n6,21,13,0,300\n";

TEST(WeatherTable, IsReadByItsColumns) {
  Problems problems;
  const auto weather = read_weather(kTable, "w.csv", problems);
  ASSERT_TRUE(weather);
  ASSERT_EQ(weather->hours.size(), 2u);
  EXPECT_EQ(weather->place, "Here");
  EXPECT_EQ(weather->missing, 8758);
  EXPECT_EQ(weather->hours[0].direct_w_m2, 600);
  EXPECT_EQ(weather->hours[1].diffuse_w_m2, 300);
}

struct Fault {
  const char* from;
  const char* to;
  const char* says;
};

TEST(WeatherTable, FaultsAreNamedAtTheirPlace) {
  const Fault faults[] = {{"latitude,52\n", "", "no row \"latitude,...\""},
                          {"latitude,52", "latitude,152", "w.csv:2:10: error[header]: latitude is 152"},
                          {"place,", "city,", "\"city\" is not known before the hours"},
                          {"diffuse_W_m2", "diffuse", "unknown column \"diffuse\""},
                          {"600,150", "600", "w.csv:6:1: error[cut]: this row has 4 fields"},
                          {"600", "much", "field 4 (direct_W_m2) is \"much\""},
                          {"6,21,13", "6,31,13", "day is 31; expected 1 to 30"},
                          {"6,21,13", "6,21,12", "stands in line 6 already"},
                          {"6,21,13", "6,21,0", "hour 0"},
                          {"month,day", "day,month", "neither with LOCATION"}};
  for (const Fault& fault : faults) {
    std::string text = kTable;
    text.replace(text.find(fault.from), std::string(fault.from).size(), fault.to);
    Problems problems;
    EXPECT_FALSE(read_weather(text, "w.csv", problems)) << fault.to;
    std::string all;
    for (const Problem& problem : problems.all()) all += to_string(problem) + "\n";
    EXPECT_NE(all.find(fault.says), std::string::npos) << all;
  }
}

TEST(WeatherTable, IrradianceThatCannotBeIsToldAndLeftOut) {
  std::string text = kTable;
  text.replace(text.find("600"), 3, "-5.");
  text.replace(text.find("0,300"), 5, "0,3000");
  Problems problems;
  const auto weather = read_weather(text, "w.csv", problems);
  ASSERT_TRUE(weather);
  ASSERT_EQ(weather->hours.size(), 1u);
  EXPECT_EQ(weather->hours[0].direct_w_m2, 0);
  std::string all;
  for (const Problem& problem : problems.all()) all += problem.code + " ";
  EXPECT_EQ(all, "hours-missing below-zero too-bright no-light ");
}

}  // namespace weather_test
}  // namespace glow::files
