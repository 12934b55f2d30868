// Plans of arrangements on one sheet, luminaires that lean, and what is said of arrangements.
#include "figures/arrangement_figure.hpp"

#include <gtest/gtest.h>

#include "core/record/record.hpp"
#include "words/topics/arrangement_words.hpp"

namespace glow::figures {
namespace arrangement_figure_test {

std::size_t count_of(const std::string& text, const std::string& words) {
  std::size_t count = 0;
  for (std::size_t at = text.find(words); at != std::string::npos; at = text.find(words, at + 1)) ++count;
  return count;
}

TEST(ArrangementFigure, DrawsEveryLuminaireAndNoMorePlansThanFit) {
  space::Space room;
  room.outline = {{0, 0}, {6, 0}, {6, 4}, {0, 4}};
  ArrangementPlan plan;
  plan.title = "2 x 2";
  plan.lines = {"4 luminaires, 100 W", "mean 512 lx"};
  plan.size = {1.2, 0.1};
  for (const double x : {1.5, 4.5})
    for (const double y : {1.0, 3.0}) plan.frames.push_back(geometry::Frame::upright({x, y, 2.6}, 90));
  const std::string few = arrangement_svg("Room", room, {plan, plan});
  EXPECT_EQ(count_of(few, "#d9902f"), 8u);
  EXPECT_EQ(count_of(few, "2 x 2"), 2u);
  const std::string many = arrangement_svg("Room", room, std::vector<ArrangementPlan>(kMostPlans + 5, plan));
  EXPECT_EQ(count_of(many, "2 x 2"), kMostPlans);
  plan.round = true;
  plan.size = {0.2, 0.2};
  EXPECT_EQ(count_of(arrangement_svg("Room", room, {plan}), "<circle"), 4u);
}

TEST(Luminaires, ThatLeanAreSeenAsTheyHang) {
  record::LuminaireRecord luminaire;
  luminaire.size_m = {1.2, 0.2};
  luminaire.position = {2, 3, 1.5};
  EXPECT_TRUE(luminaire.is_upright());
  // On a wall at y = 3, C0 along it: 1.2 m long and of no depth in plan, 0.2 m high.
  luminaire.g0 = -Vec3::UnitY();
  EXPECT_FALSE(luminaire.is_upright());
  geometry::Polygon plan;
  double low = 9, high = 0;
  for (const Vec3& corner : luminaire.corners()) {
    plan.push_back(corner.xy());
    low = std::min(low, corner.z());
    high = std::max(high, corner.z());
  }
  EXPECT_LT((geometry::bounding_box(plan).size() - Vec2(1.2, 0)).norm(), 1e-12);
  EXPECT_NEAR(high - low, 0.2, 1e-12);
  luminaire.round = true;
  EXPECT_GT(luminaire.corners().size(), 12u);
}

struct Phrase {
  standards::Quantity quantity;
  double required, actual;
  const char* words;
};

TEST(Shortcomings, AreSaidInAPhrase) {
  using standards::Quantity;
  for (const Phrase& each :
       {Phrase{Quantity::uniformity, 0.6, 0.41, "too uneven: U0 0.41 of 0.60 at best"},
        {Quantity::unified_glare, 19, 23.14, "glares: UGR 23.1 of at most 19 at best"},
        {Quantity::mean_illuminance, 500, 301.2, "too little light: mean 301 of 500 lx at best"},
        {Quantity::luminaire_luminance, 3000, 4286,
         "bright towards screens: luminance 4286 of at most 3000 cd/m2 at best"}}) {
    studies::Arrangement found;
    found.fields = 3;
    found.nearest.emplace();
    standards::Check check;
    check.demand.quantity = each.quantity;
    check.demand.required = each.required;
    check.actual = each.actual;
    found.nearest->checks = {check};
    EXPECT_EQ(words::shortcoming(found, {}), each.words);
  }
  EXPECT_EQ(words::shortcoming({}, {}), "not one fits in the room");
}

}  // namespace arrangement_figure_test
}  // namespace glow::figures
