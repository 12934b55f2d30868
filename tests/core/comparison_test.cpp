// Runs held against each other: what is better, what worse, what no more than the numerical uncertainty.
#include "core/record/comparison.hpp"

#include <gtest/gtest.h>

#include "words/tables/comparison_table.hpp"
#include "words/text_changes.hpp"

namespace glow::record {
namespace comparison_test {

struct Room {
  double mean = 500, doubt = 5, u0 = 0.6, watts = 100, ugr = 18;
  double target = 500;
};

RoomRecord record_of(const Room& room, const char* name = "Hall") {
  RoomRecord record;
  record.name = name;
  record.floor_area_m2 = 20;
  assess::GridReading plane;
  plane.name = "work plane";
  plane.role = space::GridRole::work_plane;
  plane.total_lx = {room.mean};
  plane.statistics.mean_lx = room.mean;
  plane.statistics.u0 = room.u0;
  plane.uncertainty = {room.doubt, room.doubt, 0.01};
  record.assessment.grids.push_back(plane);
  record.assessment.checks.push_back(
      standards::judge({standards::Quantity::mean_illuminance, room.target, {}, {}, {}, {}}, plane.statistics,
                       plane.uncertainty));
  record.assessment.checks.back().target = {standards::Target::Kind::grid, 0};
  assess::EyeSetGlare eyes;
  eyes.views.emplace_back();
  eyes.views.back().ugr = room.ugr;
  eyes.worst = 0;
  eyes.uncertainty = 0.2;
  record.assessment.glare.sets.push_back(eyes);
  return record;
}

struct ChangeCase {
  const char* name;
  Room before, after;
  ComparedMeasure measure;
  Change change;
};
void PrintTo(const ChangeCase& one, std::ostream* out) {
  *out << one.name;
}

Room with(double Room::*what, double value) {
  Room room;
  room.*what = value;
  return room;
}

const ChangeCase kCases[] = {
    {"Same", {}, {}, ComparedMeasure::mean_lx, Change::none},
    {"MeanWithinBothDoubts", {}, with(&Room::mean, 506), ComparedMeasure::mean_lx, Change::within_doubt},
    {"MeanBeyondThem", {}, with(&Room::mean, 520), ComparedMeasure::mean_lx, Change::other},
    {"TargetReached", with(&Room::mean, 450), {}, ComparedMeasure::mean_lx, Change::better},
    {"TargetMissedNow", {}, with(&Room::mean, 450), ComparedMeasure::mean_lx, Change::worse},
    {"MoreEven", {}, with(&Room::u0, 0.7), ComparedMeasure::uniformity, Change::better},
    {"LessEven", {}, with(&Room::u0, 0.5), ComparedMeasure::uniformity, Change::worse},
    {"EvennessInDoubt", {}, with(&Room::u0, 0.61), ComparedMeasure::uniformity, Change::within_doubt},
    {"MoreGlare", {}, with(&Room::ugr, 19), ComparedMeasure::glare, Change::worse},
    {"GlareInDoubt", {}, with(&Room::ugr, 18.2), ComparedMeasure::glare, Change::within_doubt},
};

class ChangeTest : public testing::TestWithParam<ChangeCase> {};

TEST_P(ChangeTest, IsNamed) {
  RunRecord before, after;
  before.rooms.push_back(record_of(GetParam().before));
  after.rooms.push_back(record_of(GetParam().after));
  const auto rooms = compared({&before, &after});
  ASSERT_EQ(rooms.size(), 1u);
  const auto row = std::find_if(rooms[0].rows.begin(), rooms[0].rows.end(),
                                [](const auto& one) { return one.measure == GetParam().measure; });
  ASSERT_NE(row, rooms[0].rows.end());
  EXPECT_EQ(row->values[1].change, GetParam().change);
  EXPECT_EQ(rooms[0].is_worse(), GetParam().change == Change::worse);
}

INSTANTIATE_TEST_SUITE_P(Comparison, ChangeTest, testing::ValuesIn(kCases),
                         [](const auto& one) { return std::string(one.param.name); });

TEST(Comparison, RoomsThatOneRunLacksAreTold) {
  RunRecord before, after;
  before.rooms.push_back(record_of({}, "Old"));
  after.rooms.push_back(record_of({}, "New"));
  const auto rooms = compared({&before, &after});
  ASSERT_EQ(rooms.size(), 2u);
  const std::string table = words::comparison_table(rooms, {"before", "after"}, {});
  EXPECT_NE(table.find("Old, not in B"), std::string::npos) << table;
  EXPECT_NE(table.find("New, not in A"), std::string::npos) << table;
}

TEST(TextChanges, AreTheLinesThatDiffer) {
  EXPECT_EQ(words::text_changes("a\nb\nc\n", "a\nb\nc\n", 9), "");
  EXPECT_EQ(words::text_changes("a\nb\nc\n", "a\nx\nc\nd\n", 9), "  - b\n  + x\n  + d\n");
  EXPECT_EQ(words::text_changes("a\nb\nc\nd\n", "b\nd\n", 9), "  - a\n  - c\n");
  EXPECT_EQ(words::text_changes("", "1\n2\n3\n", 2), "  + 1\n  + 2\n  and 1 more lines (--text)\n");
}

}  // namespace comparison_test
}  // namespace glow::record
