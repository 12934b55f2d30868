// Chromaticities against independent values, and laws of mixing.
#include <gtest/gtest.h>

#include <cmath>

#include "core/colour/chromaticity.hpp"
#include "validation/expect_metric.hpp"

namespace glow::colour {
namespace colour_test {

using nlohmann::json;
using reference::expect_as;

void expect_chromaticity(const json& of, const char* name, const Chromaticity& found, const json& expected) {
  expect_as(of, name, found.x, expected.at(0).get<double>());
  expect_as(of, name, found.y, expected.at(1).get<double>());
}

void expect_temperature(const json& of, const Chromaticity& chromaticity) {
  const auto found = correlated(chromaticity);
  ASSERT_TRUE(found) << of.at("id");
  expect_as(of, "cct_exact", found->kelvin, of.at("expected").at("cct_exact").get<double>());
  expect_as(of, "duv", found->duv, of.at("expected").at("duv").get<double>());
}

TEST(Colour, OfTemperaturesOnBothLoci) {
  const auto cases = reference::metric_cases("cct-to-xy");
  EXPECT_EQ(cases.size(), 6u);
  for (const json& each : cases) {
    const double kelvin = each.at("inputs").at("T").get<double>();
    const bool is_planck = each.at("inputs").at("locus") == "planck";
    const Chromaticity found = is_planck ? planckian(kelvin) : daylight(kelvin);
    expect_chromaticity(each, "xy", found, each.at("expected").at("xy"));
    const Uniform uniform = uniform_1960(found);
    expect_chromaticity(each, "uv_1960", {uniform.u, uniform.v}, each.at("expected").at("uv_1960"));
    expect_temperature(each, found);
  }
}

TEST(Colour, TemperaturesOfChromaticities) {
  const auto cases = reference::metric_cases("xy-to-cct");
  EXPECT_EQ(cases.size(), 3u);
  for (const json& each : cases) {
    const json& xy = each.at("inputs").at("xy");
    expect_temperature(each, {xy.at(0).get<double>(), xy.at(1).get<double>()});
  }
}

TEST(Colour, MixesByTristimulusValues) {
  const auto cases = reference::metric_cases("mix-");
  EXPECT_EQ(cases.size(), 4u);
  for (const json& each : cases) {
    std::vector<Part> parts;
    for (const json& source : each.at("inputs").at("sources")) {
      const json& cct = source.at("cct");
      parts.push_back({cct.is_string() ? daylight(std::stod(cct.get<std::string>().substr(1)))
                                       : planckian(cct.get<double>()),
                       source.at("E").get<double>()});
      expect_chromaticity(each, "xy_sources", parts.back().chromaticity,
                          each.at("expected").at("xy_sources").at(parts.size() - 1));
    }
    const auto found = mixed(parts);
    ASSERT_TRUE(found);
    expect_chromaticity(each, "xy", *found, each.at("expected").at("xy"));
    expect_temperature(each, *found);
  }
}

TEST(Colour, EqualSourcesMixToThemselves) {
  for (const double kelvin : {1800.0, 2700.0, 4300.0, 6500.0, 20000.0}) {
    const Chromaticity own = of_temperature(kelvin);
    const auto both = mixed({{own, 100}, {own, 3}});
    ASSERT_TRUE(both);
    EXPECT_NEAR(both->x, own.x, 1e-12);
    EXPECT_NEAR(both->y, own.y, 1e-12);
    const auto again = correlated(own);
    ASSERT_TRUE(again);
    EXPECT_NEAR(again->kelvin / kelvin, 1, 0.003) << kelvin;
  }
  EXPECT_FALSE(mixed({}));
  EXPECT_FALSE(mixed({{of_temperature(3000), 0}}));
}

TEST(Colour, BlendsFromOneLocusToTheOther) {
  for (const double kelvin : {4000.0, 5000.0}) {
    const Chromaticity below = of_temperature(kelvin - 1e-6), above = of_temperature(kelvin + 1e-6);
    EXPECT_NEAR(below.x, above.x, 1e-6);
    EXPECT_NEAR(below.y, above.y, 1e-6);
  }
}

TEST(Colour, HasNoTemperatureFarFromTheLocus) {
  EXPECT_FALSE(correlated({0.30, 0.60})) << "green";
  EXPECT_FALSE(correlated({0.64, 0.33})) << "red";
  EXPECT_TRUE(correlated({0.31, 0.33}));
}

}  // namespace colour_test
}  // namespace glow::colour
