// How values of checks are shown: digits, units and limits of every quantity.
#include "words/values.hpp"

#include <gtest/gtest.h>

#include "core/record/record.hpp"
#include "words/standing.hpp"

namespace glow::words {
namespace {

using standards::Quantity;

struct Shown {
  Quantity quantity;
  double value;
  const char *sentence, *table, *required;  ///< with the unit; digits alone; as it is asked
};
void PrintTo(const Shown& shown, std::ostream* out) {
  *out << standards::to_string(shown.quantity);
}

class ValueTest : public ::testing::TestWithParam<Shown> {};

TEST_P(ValueTest, HasItsDigitsAndItsUnit) {
  const Shown& own = GetParam();
  EXPECT_EQ(value(own.quantity, own.value, {}, Detail::sentence), own.sentence);
  EXPECT_EQ(number(own.quantity, own.value, {}, Detail::table), own.table);
  standards::Demand demand;
  demand.quantity = own.quantity;
  demand.required = own.value;
  EXPECT_EQ(required(demand, {}), own.required);
}

INSTANTIATE_TEST_SUITE_P(
    Quantities, ValueTest,
    ::testing::Values(Shown{Quantity::mean_illuminance, 312.4, "312 lx", "312.4", "312 lx"},
                      Shown{Quantity::uniformity, 0.574, "0.57", "0.574", "0.57"},
                      Shown{Quantity::minimum_illuminance, 88.6, "89 lx", "88.6", "89 lx"},
                      Shown{Quantity::colour_rendering, 80, "80", "80", "80"},
                      Shown{Quantity::unified_glare, 19, "19.0", "19.0", "<= 19"},
                      Shown{Quantity::glare_rating, 45.25, "45.2", "45.2", "<= 45.25"},
                      Shown{Quantity::luminaire_luminance, 1500, "1500 cd/m2", "1500", "<= 1500"},
                      Shown{Quantity::shielding_angle, 15, "15.0 deg", "15.0", "15"},
                      Shown{Quantity::illuminance_ratio, 40, "40.0", "40.0", "<= 40"},
                      Shown{Quantity::delay, 5, "5.0 s", "5.0", "<= 5 s"},
                      Shown{Quantity::daylight_over_half, 2, "2.00 %", "2.00", "2.00 %"},
                      Shown{Quantity::sunlight_hours, 1.5, "1.50 h", "1.50", "1.5 h"},
                      Shown{Quantity::sight_angle, 14, "14 deg", "14", "14 deg"},
                      Shown{Quantity::view_layers, 2, "2", "2", "2"},
                      Shown{Quantity::sun_exposure, 31.72, "31.7 %", "31.7", "<= 31.72 %"},
                      Shown{Quantity::light_exposure, 15, "15 klx h", "15", "<= 15 klx h"},
                      Shown{Quantity::year_over_half, 300, "300 lx", "300.0", "300 lx"},
                      Shown{Quantity::power_density, 5.38, "5.4 W/m2", "5.4", "<= 5.38"},
                      Shown{Quantity::power_per_100lx, 1.324, "1.32 W/m2", "1.32", "<= 1.324"},
                      Shown{Quantity::window_illuminance, 0.3, "0.3 lx", "0.30", "0.3 lx"},
                      Shown{Quantity::glare_value, 9.96, "10.0", "10.0", "<= 9.96"},
                      Shown{Quantity::glare_value, 861.4, "861", "861", "<= 861.4"},
                      Shown{Quantity::spill_intensity, 2500, "2500 cd", "2500", "<= 2500"},
                      Shown{Quantity::threshold_increment, 15, "15.0 %", "15.0", "<= 15"}));

struct Found {
  Quantity quantity;
  double required, actual;
  bool met;
  const char *sentence, *table;
};
void PrintTo(const Found& found, std::ostream* out) {
  *out << found.actual << " of " << found.required;
}

class FoundTest : public ::testing::TestWithParam<Found> {};

TEST_P(FoundTest, ReadsNotLikeWhatIsAskedWhereItIsNotMet) {
  standards::Check check;
  check.demand.quantity = GetParam().quantity;
  check.demand.required = GetParam().required;
  check.actual = GetParam().actual;
  check.verdict = GetParam().met ? standards::Verdict::met : standards::Verdict::not_met;
  EXPECT_EQ(found_words(check, {}, Detail::sentence), GetParam().sentence);
  EXPECT_EQ(found_words(check, {}, Detail::table), GetParam().table);
}

INSTANTIATE_TEST_SUITE_P(
    Checks, FoundTest,
    ::testing::Values(Found{Quantity::mean_illuminance, 300, 299.7, false, "299.7", "299.7"},
                      Found{Quantity::mean_illuminance, 300, 299.97, false, "299.97", "299.97"},
                      Found{Quantity::mean_illuminance, 300, 300.3, true, "300", "300.3"},
                      Found{Quantity::mean_illuminance, 300, 288, false, "288", "288.0"},
                      Found{Quantity::minimum_illuminance, 1, 0.96, false, "0.96", "0.96"},
                      Found{Quantity::minimum_illuminance, 0.5, 0.3, false, "0.3", "0.3"},
                      Found{Quantity::uniformity, 0.6, 0.5996, false, "0.5996", "0.5996"},
                      Found{Quantity::unified_glare, 19, 19.04, false, "19.04", "19.04"},
                      Found{Quantity::colour_rendering, 80, 79.9999999, false, "80", "80"}));

TEST(CheckWords, CutTheNameAndNoNumber) {
  standards::Check check;
  check.target.kind = standards::Target::Kind::tabular;
  check.demand = {};
  check.demand.quantity = Quantity::unified_glare;
  check.demand.required = 25;
  check.demand.certainty = "secondary";
  check.actual = 20.84;
  check.verdict = standards::Verdict::met;
  const record::RoomRecord room;
  EXPECT_EQ(check_words(check, room, {}), "tabular value, UGR 20.8 of at most 25*");
  EXPECT_EQ(check_words(check, room, {}, 38), "tabular value, UGR 20.8 of at most 25*");
  EXPECT_EQ(check_words(check, room, {}, 37), "tabular va.., UGR 20.8 of at most 25*");
  EXPECT_EQ(check_words(check, room, {}, 10), "tabu.., UGR 20.8 of at most 25*");
}

TEST(Quantities, HaveNamesOfTheirOwn) {
  for (std::size_t i = 0; i <= std::size_t(Quantity::threshold_increment); ++i) {
    const Quantity quantity = Quantity(i);
    EXPECT_EQ(standards::quantity_of(standards::to_string(quantity)), quantity);
    EXPECT_FALSE(symbol(quantity).empty());
  }
  EXPECT_FALSE(standards::quantity_of("mean"));
}

TEST(Quantities, OfLightAreToldInFootCandles) {
  units::ShownUnits feet;
  feet.footcandles = true;
  EXPECT_EQ(value(Quantity::mean_illuminance, 322.9, feet, Detail::sentence), "30 fc");
  EXPECT_EQ(number(Quantity::mean_illuminance, 322.9, feet, Detail::table), "30.0");
  EXPECT_EQ(value(Quantity::luminaire_luminance, 1500, feet, Detail::sentence), "1500 cd/m2");
}

}  // namespace
}  // namespace glow::words
