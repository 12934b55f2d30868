// Maps of UGR and people at their places, from made-up eyes, without computing.
#include "figures/glare_figure.hpp"

#include <gtest/gtest.h>

#include <pugixml.hpp>

namespace glow::figures {
namespace glare_figure_test {

/// 6 x 4 m with a table.
record::RoomRecord room() {
  record::RoomRecord room;
  room.name = "Glaze kitchen";
  room.outline = {{0, 0}, {6, 0}, {6, 4}, {0, 4}};
  room.height_m = 2.8;
  room.objects = {{"table", {{{1, 1}, {2, 1}, {2, 2}, {1, 2}}, 0, 0.7}, false}};
  return room;
}

/// The room with these eyes, under a limit.
record::RoomRecord room_with(const assess::EyeSetGlare& set, std::optional<double> limit) {
  record::RoomRecord record = room();
  record.assessment.glare.sets = {set};
  standards::Check check;
  check.demand.quantity = standards::Quantity::unified_glare;
  check.demand.required = limit.value_or(0);
  check.target = {standards::Target::Kind::eyes, 0};
  if (limit) record.assessment.checks.push_back(check);
  return record;
}

/// Eyes in cells of `cell` m, UGR rising from 12 by 0.5 from eye to eye; the first eye sees nothing.
assess::EyeSetGlare eyes(double cell, const std::vector<std::string>& looking,
                         const std::vector<double>& azimuths) {
  assess::EyeSetGlare set;
  set.set.name = "eyes";
  set.set.height_m = 1.2;
  set.set.cell_m = Vec2(cell, cell);
  set.set.looking = looking;
  for (double y = cell; y < 4; y += cell)
    for (double x = cell; x < 6; x += cell) {
      set.set.positions.push_back({x, y, 1.2});
      for (const double azimuth : azimuths) {
        set.set.azimuths_deg.push_back(azimuth);
        assess::ViewGlare view;
        if (!set.views.empty()) view.ugr = 12 + 0.5 * double(set.views.size());
        set.views.push_back(view);
      }
    }
  set.worst = set.views.size() - 1;
  return set;
}

std::string map_of(const assess::EyeSetGlare& set, std::optional<double> limit) {
  const record::RoomRecord record = room_with(set, limit);
  const std::string svg = glare_map_svg({&record, {}, {}, {}}, record.assessment.glare.sets[0]);
  EXPECT_TRUE(pugi::xml_document().load_string(svg.c_str()));
  return svg;
}

std::size_t count(const std::string& text, const std::string& words) {
  std::size_t found = 0;
  for (std::size_t at = text.find(words); at != std::string::npos; at = text.find(words, at + 1)) ++found;
  return found;
}

bool says(const std::string& svg, const std::string& words) {
  return svg.find(">" + words + "<") != std::string::npos;
}

TEST(GlareMap, HasAPlanForEachDirectionAndTellsTheWorst) {
  const assess::EyeSetGlare set = eyes(1, {"0 deg", "90 deg"}, {0, 90});
  ASSERT_EQ(set.views.size(), 30u);
  const std::string svg = map_of(set, 19);
  EXPECT_TRUE(says(svg, "26.5"));  // 12 + 0.5 * 29
  EXPECT_TRUE(says(svg, "worst view; limit 19"));
  EXPECT_TRUE(says(svg, "15 of 29"));  // above 19: 19.5 to 26.5
  EXPECT_TRUE(says(svg, "looking 0 deg, worst 26.0"));
  EXPECT_TRUE(says(svg, "looking 90 deg, worst 26.5"));
  EXPECT_TRUE(says(svg, "12.5"));
  EXPECT_FALSE(says(svg, "12.0"));  // that eye sees nothing
}

TEST(GlareMap, WithoutALimitNothingIsAboveIt) {
  const std::string svg = map_of(eyes(1, {"0 deg"}, {0}), std::nullopt);
  EXPECT_TRUE(says(svg, "worst view"));
  EXPECT_EQ(svg.find("above"), std::string::npos);
}

/// Where each eye looks its own way, arrows stand under the values if there is room.
TEST(GlareMap, ArrowsOfEyesStandUnderTheirValues) {
  const auto arrows = [](const assess::EyeSetGlare& set) {
    return count(map_of(set, 25), "stroke-width=\"1.2\"");
  };
  EXPECT_EQ(arrows(eyes(1, {"to board"}, {45})), 14u);  // of 15, the worst has its own
  EXPECT_EQ(arrows(eyes(0.2, {"to board"}, {45})), 0u);
  EXPECT_EQ(arrows(eyes(1, {"45 deg"}, {45})), 0u);
}

TEST(Seats, ShowEachLineOfSightWithItsValue) {
  assess::EyeSetGlare seat;
  seat.set.name = "potter";
  seat.set.height_m = 1.2;
  seat.set.looking = {"0 deg", "90 deg"};
  seat.set.positions = {{3, 2, 1.2}};
  seat.set.azimuths_deg = {0, 90};
  seat.views.resize(2);
  seat.views[0].ugr = 21.3;
  seat.worst = 0;
  const record::RoomRecord record = room_with(seat, 19);
  const std::string svg = seats_svg({&record, {}, {}, {}}, {&record.assessment.glare.sets[0]});
  ASSERT_TRUE(pugi::xml_document().load_string(svg.c_str()));
  for (const char* words : {"potter", "21.3", "-", "table"}) EXPECT_TRUE(says(svg, words)) << words;
  EXPECT_NE(svg.find("limit 19"), std::string::npos);
}

}  // namespace glare_figure_test
}  // namespace glow::figures
