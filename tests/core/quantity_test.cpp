#include "core/units/quantity.hpp"

#include <gtest/gtest.h>

#include <cmath>
#include <limits>

namespace glow::units {
namespace quantity_test {

struct Case {
  const char* text;
  Dimension dimension;
  double value;  // NaN: refused
  const char* says = "";
};

constexpr double kRefused = std::numeric_limits<double>::quiet_NaN();

class QuantityTest : public testing::TestWithParam<Case> {};

TEST_P(QuantityTest, ReadsOrRefuses) {
  const Case& c = GetParam();
  const Parsed parsed = parse_quantity(c.text, c.dimension);
  if (std::isnan(c.value)) {
    EXPECT_FALSE(parsed.ok);
    EXPECT_NE(parsed.problem.find(c.says), std::string::npos) << parsed.problem;
  } else {
    ASSERT_TRUE(parsed.ok) << parsed.problem;
    EXPECT_DOUBLE_EQ(parsed.value, c.value);
  }
}

INSTANTIATE_TEST_SUITE_P(
    Texts, QuantityTest,
    testing::Values(Case{"2.7", Dimension::length, 2.7}, Case{"2.7 m", Dimension::length, 2.7},
                    Case{"270cm", Dimension::length, 2.7}, Case{" 2700 mm ", Dimension::length, 2.7},
                    Case{"30 in", Dimension::length, 30 * 0.0254},
                    Case{"9 ft", Dimension::length, 9 * 0.3048},
                    Case{"9 ft 6 in", Dimension::length, 9 * 0.3048 + 6 * 0.0254},
                    Case{"9'6\"", Dimension::length, 9 * 0.3048 + 6 * 0.0254},
                    Case{"-2 ft 6 in", Dimension::length, -(2 * 0.3048 + 6 * 0.0254)},
                    Case{"1e-1", Dimension::length, 0.1}, Case{"500 lx", Dimension::illuminance, 500},
                    Case{"50 fc", Dimension::illuminance, 50 / 0.09290304},
                    Case{"90 deg", Dimension::angle, 90}, Case{"80 %", Dimension::ratio, 0.8},
                    Case{"0.8", Dimension::ratio, 0.8}, Case{"300 cd/m2", Dimension::luminance, 300},
                    Case{"3 kcd/m\u00b2", Dimension::luminance, 3000}, Case{"4.65klm", Dimension::flux, 4650},
                    Case{"4000 K", Dimension::temperature, 4000}, Case{"80", Dimension::number, 80},
                    Case{"300 cd", Dimension::luminance, kRefused, "not a unit of luminance"},
                    Case{"4000 k", Dimension::temperature, kRefused, "expected K"},
                    Case{"80 %", Dimension::number, kRefused, "expected nothing"},
                    Case{"4000 K warm", Dimension::temperature, kRefused, "4000 K"},
                    Case{"2,7 m", Dimension::length, kRefused, "point"},
                    Case{"2.7 lx", Dimension::length, kRefused, "not a unit of length"},
                    Case{"2.7 metres long", Dimension::length, kRefused, "not a unit"},
                    Case{"9 ft 6", Dimension::length, kRefused, "only inches"},
                    Case{"9 ft 6 m", Dimension::length, kRefused, "only inches"},
                    Case{"2 m 3", Dimension::length, kRefused, "left over"},
                    Case{"", Dimension::length, kRefused, "expected a number"},
                    Case{"wide", Dimension::length, kRefused, "expected a number"},
                    Case{"nan", Dimension::length, kRefused, "expected a number"},
                    Case{"inf m", Dimension::length, kRefused, "expected a number"},
                    Case{"1e999", Dimension::length, kRefused, "expected a number"}));

struct RangeCase {
  const char* text;
  Dimension dimension;
  double low, high;  // NaN: refused
  const char* says = "";
};

TEST(Ranges, AreReadOrRefused) {
  constexpr double kOpen = std::numeric_limits<double>::infinity();
  const RangeCase cases[] = {
      {"2000..4500", Dimension::flux, 2000, 4500},
      {"2..4.5klm", Dimension::flux, 2000, 4500},
      {"900 lm .. 2 klm", Dimension::flux, 900, 2000},
      {"80..", Dimension::number, 80, kOpen},
      {"..19", Dimension::number, -kOpen, 19},
      {"10..40 %", Dimension::ratio, 0.1, 0.4},
      {"120..lm/W", Dimension::efficacy, kRefused, 0, "not an efficacy"},
      {"120 lm/W..", Dimension::efficacy, 120, kOpen},
      {"..30 W", Dimension::power, -kOpen, 30},
      {"2..3 ft 6 in", Dimension::length, 2 * 0.3048, 3.5 * 0.3048},
      {"80", Dimension::number, kRefused, 0, "\"80..\" for at least"},
      {"..", Dimension::number, kRefused, 0, "no end"},
      {"5..4", Dimension::number, kRefused, 0, "lower value first"},
      {"1..2 kg", Dimension::flux, kRefused, 0, "\"kg\" is not a unit"},
      {"1..2..3", Dimension::number, kRefused, 0, ""},
  };
  for (const RangeCase& each : cases) {
    const ParsedRange parsed = parse_range(each.text, each.dimension);
    EXPECT_EQ(parsed.ok, !std::isnan(each.low)) << each.text << ": " << parsed.problem;
    if (parsed.ok) {
      EXPECT_DOUBLE_EQ(parsed.range.low, each.low) << each.text;
      EXPECT_DOUBLE_EQ(parsed.range.high, each.high) << each.text;
    } else {
      EXPECT_NE(parsed.problem.find(each.says), std::string::npos) << parsed.problem;
    }
  }
}

}  // namespace quantity_test
}  // namespace glow::units
