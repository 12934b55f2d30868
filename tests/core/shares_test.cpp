// Shares of areas below, within and above limits that people state.
#include "core/record/shares.hpp"

#include <gtest/gtest.h>

#include "core/record/record.hpp"
#include "figures/shares_figure.hpp"
#include "words/standing.hpp"

namespace glow::record {
namespace shares_test {

RoomRecord room_of(const char* name, const std::vector<double>& lux, double area_m2) {
  RoomRecord room;
  room.name = name;
  room.floor = "Ground";
  room.floor_area_m2 = area_m2;
  room.thresholds_lx = Thresholds{300, 3000};
  room.assessment.grids.emplace_back();
  room.assessment.grids.back().role = space::GridRole::work_plane;
  room.assessment.grids.back().total_lx = lux;
  return room;
}

TEST(Shares, AddUpToOneAndLimitsAreWithin) {
  const RoomRecord room = room_of("Hall", {299.9, 300, 1000, 3000, 3000.1, 5000, 400, 500}, 10);
  const Shares shares = *plane_shares(room);
  EXPECT_NEAR(shares.below, 1.0 / 8, 1e-12);
  EXPECT_NEAR(shares.within, 5.0 / 8, 1e-12);
  EXPECT_NEAR(shares.above, 2.0 / 8, 1e-12);
}

TEST(Shares, RoomsCountByTheirAreaAndValuesMayBeDropped) {
  std::vector<RoomRecord> rooms = {room_of("Small", {100, 100}, 10), room_of("Large", {500, 500}, 30),
                                   room_of("Elsewhere", {5000}, 40)};
  rooms[2].floor = "Upper";
  const auto before = shares_over(rooms), of_ground = shares_over(rooms, "Ground");
  EXPECT_NEAR(before->below, 10.0 / 80, 1e-12);
  EXPECT_NEAR(before->above, 40.0 / 80, 1e-12);
  EXPECT_NEAR(of_ground->below, 0.25, 1e-12);
  for (RoomRecord& room : rooms) drop_values(room);
  EXPECT_NEAR(shares_over(rooms)->within, before->within, 1e-12);
  EXPECT_FALSE(shares_over(rooms, "Attic"));
}

TEST(Shares, AreToldInWordsAndInAFigure) {
  RunRecord run;
  run.project = "Mill";
  run.rooms = {room_of("Small <room>", {100, 100}, 10), room_of("Large", {500, 5000}, 30)};
  EXPECT_EQ(words::shares_words(run), "Work planes: 25 % below 300 lx, 38 % within, 38 % above 3000 lx\n");
  const std::string svg = figures::shares_svg(run);
  for (const char* words :
       {"Small &lt;room&gt;", "all work planes", "below 300 lx", "300 to 3000 lx", ">100 %<"})
    EXPECT_NE(svg.find(words), std::string::npos) << words;
  run.rooms[0].thresholds_lx.reset();
  run.rooms[1].thresholds_lx.reset();
  EXPECT_EQ(words::shares_words(run), "");
  EXPECT_EQ(figures::shares_svg(run), "");
}

}  // namespace shares_test
}  // namespace glow::record
