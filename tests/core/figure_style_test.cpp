#include "core/model/figure_style.hpp"

#include <gtest/gtest.h>

namespace glow::model {
namespace figure_style_test {

TEST(ShownUnits, AreReadFromWordsAndTurnNumbersBothWays) {
  using units::ShownUnits;
  const auto imperial = ShownUnits::parse("fc, ft");
  ASSERT_TRUE(imperial);
  EXPECT_NEAR(imperial->light(500), 46.45, 0.01);
  EXPECT_NEAR(imperial->length(3), 9.8425, 1e-4);
  EXPECT_NEAR(imperial->lux_of(imperial->light(123)), 123, 1e-9);
  EXPECT_NEAR(imperial->metres_of(imperial->length(4.5)), 4.5, 1e-9);
  EXPECT_EQ(ShownUnits::parse(imperial->words())->words(), "fc, ft");
  EXPECT_EQ(ShownUnits::parse("ft")->words(), "lx, ft");
  EXPECT_EQ(ShownUnits::parse("lx m")->words(), "lx, m");
  for (const char* bad : {"", "yards", "fc, lx", "ft fc ft", "FC", ","})
    EXPECT_FALSE(ShownUnits::parse(bad)) << bad;
}

TEST(FigureStyle, TakesEverySettingAndGivesItBack) {
  const std::pair<const char*, const char*> good[] = {
      {"limits", "100, 1000"}, {"steps", "12"},   {"scale", "log"},   {"levels", "50, 100, 200"},
      {"isolux", "300"},       {"values", "all"}, {"lines", "false"}, {"common_scale", "true"}};
  FigureStyle style;
  for (const auto& [key, words] : good) EXPECT_FALSE(style.set(key, words, {})) << key;
  ASSERT_EQ(style.settings().size(), std::size(good));
  for (std::size_t i = 0; i < std::size(good); ++i) {
    EXPECT_EQ(style.settings()[i].first, good[i].first);
    EXPECT_EQ(style.settings()[i].second, good[i].second);
  }
  EXPECT_TRUE(FigureStyle().settings().empty());
  // In footcandles bare numbers are footcandles; a unit counts more.
  units::ShownUnits fc;
  fc.footcandles = true;
  EXPECT_FALSE(style.set("isolux", "10, 538.195521 lx", fc));
  EXPECT_NEAR((*style.isolux)[0], 107.639, 1e-3);
  EXPECT_NEAR((*style.isolux)[1], 538.1955, 1e-3);
}

TEST(FigureStyle, SaysWhatItExpectsOfWhatItDoesNotTake) {
  const std::pair<const char*, const char*> bad[] = {
      {"limits", "100"},   {"limits", "1000, 100"}, {"steps", "1"},     {"steps", "many"},
      {"scale", "square"}, {"levels", "3, 2"},      {"isolux", "-5"},   {"values", "some"},
      {"lines", "maybe"},  {"levels", "1, 2,"},     {"isolux", "3 kg"}, {"colour", "red"},
      {"steps", "2.5"},    {"limits", "nan, 3"}};
  for (const auto& [key, words] : bad) {
    FigureStyle style;
    const auto expected = style.set(key, words, {});
    ASSERT_TRUE(expected) << key << " " << words;
    EXPECT_FALSE(expected->empty());
  }
}

}  // namespace figure_style_test
}  // namespace glow::model
