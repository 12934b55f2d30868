// Rooms side by side: order, faults, cancelling, and the same records whatever runs beside them.
#include "core/run/run_rooms.hpp"

#include <gtest/gtest.h>
#include <numeric>

#include "rooms/furnished_room.hpp"
#include "rooms/planned_room.hpp"

namespace glow::run {
namespace run_rooms_test {

/// A bare room with one luminaire, wider with its number.
std::unique_ptr<rooms::PlannedTestRoom> room_number(int number) {
  space::Space space;
  const double width = 3 + 0.1 * number;
  space.name = "room " + std::to_string(number);
  space.outline = {{0, 0}, {width, 0}, {width, 3}, {0, 3}};
  space.height_m = 2.6;
  space.floor_area_m2 = 3 * width;
  geometry::add_room(space.geometry, space.outline, 2.6, 0.2, 0.5, 0.7);
  photometry::PlacedLuminaire luminaire;
  luminaire.table = rooms::lobe(800, 2, 0.1);
  luminaire.frame.origin = {1.5, 1.5, 2.5};
  space.groups.emplace_back();
  space.groups[0].mark = "A";
  space.groups[0].photometry = std::make_shared<photometry::Photometry>(photometry::Photometry{
      {}, {}, {}, {}, {}, {}, {}, false, {}, {}, {}, {}, {}, *luminaire.table, {}, {}});
  space.groups[0].luminaires = {luminaire};
  space.grids.push_back({"work plane", space::GridRole::work_plane, readings::Kernel::plane, Vec3::UnitX(),
                         *readings::plane_grid(space.outline, 0.8, 0.5, 0.5)});
  auto room = std::make_unique<rooms::PlannedTestRoom>();
  room->take(std::move(space), 0.8);
  return room;
}

struct Building {
  std::vector<std::unique_ptr<rooms::PlannedTestRoom>> rooms;
  RunPlan plan;

  explicit Building(int count) {
    for (int k = 0; k < count; ++k) rooms.push_back(room_number(k));
    plan.project = &rooms[0]->project;
    plan.accuracy = *Accuracy::parse("draft");
    for (const auto& room : rooms)
      plan.rooms.push_back(
          {room->planned.space.name, workload_of(room->planned), [&room] { return room->planned; }});
  }
  std::vector<FinishedRoom> run() {
    std::vector<FinishedRoom> finished;
    run_rooms(
        plan, [](const std::string&) { return Watch{}; },
        [&](std::size_t number, FinishedRoom room) {
          EXPECT_EQ(number, finished.size());
          finished.push_back(std::move(room));
        });
    return finished;
  }
};

TEST(RunRooms, GivesThemInOrderAndAlikeWithAnyMemory) {
  Building building(12);
  const auto wide = building.run();
  building.plan.memory_bytes = 1;  // one after the other
  const auto narrow = building.run();
  ASSERT_EQ(wide.size(), 12u);
  ASSERT_EQ(narrow.size(), 12u);
  for (std::size_t k = 0; k < wide.size(); ++k) {
    EXPECT_EQ(wide[k].record.name, building.plan.rooms[k].name);
    EXPECT_EQ(wide[k].record.assessment.grids[0].total_lx, narrow[k].record.assessment.grids[0].total_lx);
  }
}

TEST(RunRooms, AFaultInOneLeavesTheOthers) {
  Building building(5);
  building.plan.rooms[1].plan = []() -> space::PlannedRoom {
    throw std::runtime_error("the floor gave way");
  };
  building.plan.rooms[3].plan = []() -> space::PlannedRoom { throw std::bad_alloc(); };
  const auto finished = building.run();
  ASSERT_EQ(finished.size(), 5u);
  EXPECT_EQ(finished[1].fault, "the floor gave way");
  EXPECT_EQ(finished[3].fault, "there is not enough memory for it");
  for (const std::size_t k : {0u, 2u, 4u}) {
    EXPECT_TRUE(finished[k].fault.empty());
    EXPECT_GT(finished[k].record.assessment.grids[0].statistics.mean_lx, 0);
  }
}

TEST(RunRooms, StopWhenTheyAreCancelledOrTheSinkFails) {
  Building building(6);
  std::atomic<bool> cancel{false};
  std::size_t taken = 0;
  const auto run_until = [&](const std::function<void()>& at_second) {
    taken = 0;
    run_rooms(
        building.plan,
        [&](const std::string&) {
          return Watch{nullptr, &cancel};
        },
        [&](std::size_t, FinishedRoom) {
          if (++taken == 2) at_second();
        });
  };
  EXPECT_THROW(run_until([&] { cancel = true; }), Cancelled);
  cancel = false;
  EXPECT_THROW(run_until([] { throw std::runtime_error("the disk is full"); }), std::runtime_error);
  EXPECT_EQ(taken, 2u);
  run_until([] {});
  EXPECT_EQ(taken, 6u);
}

TEST(ExpectedCost, AddsUpOverRoomsAndGrowsWithWhatIsAsked) {
  Building small(3), large(6);
  const Cost three = expected_cost(small.plan), six = expected_cost(large.plan);
  EXPECT_EQ(three.rooms, 3u);
  EXPECT_NEAR(std::accumulate(three.shares.begin(), three.shares.end(), 0.0), 1, 1e-12);
  EXPECT_GT(three.seconds, 0);
  EXPECT_GT(six.points, three.points);
  EXPECT_GT(six.rays, three.rays);
  small.plan.accuracy = *Accuracy::parse("fine");
  EXPECT_GT(expected_cost(small.plan).rays, 4 * three.rays);
}

TEST(Workload, CountsWhatARoomIsMadeOf) {
  Building building(1);
  space::PlannedRoom& room = building.rooms[0]->planned;
  const Workload plain = workload_of(room);
  EXPECT_EQ(plain.skies, 0u);
  std::size_t points = 0;
  for (const space::Grid& grid : room.space.grids) points += grid.grid.points.size();
  EXPECT_EQ(plain.points, points);
  room.views.resize(2);
  room.scenes.resize(3);
  room.scenes[1].moment.emplace();
  room.scenes[1].series.resize(5);
  room.scenes[2].emergency = true;  // shows in no picture
  const Workload more = workload_of(room);
  EXPECT_EQ(more.skies, 1u);
  EXPECT_EQ(more.steps, 5u);
  EXPECT_EQ(more.pictures, 2u * 3u);
}

}  // namespace run_rooms_test
}  // namespace glow::run
