// Accuracy, refinement and reuse, on the built program and on the call behind it.
#include <gtest/gtest.h>

#include "cli/run_program.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/run/compute_room.hpp"
#include "rooms/furnished_room.hpp"
#include "rooms/planned_room.hpp"

namespace glow::cli {
namespace accuracy_test {

namespace fs = std::filesystem;

TEST(Reuse, UnchangedRoomsAreNotTracedAgainAndGiveTheSameBytes) {
  const TemporaryFolder folder;
  write_project(folder);
  const auto results = [&](const std::string& options) {
    const Ran ran = run(folder, "run millrace.toml -o out " + options);
    EXPECT_EQ(ran.code, 0) << ran.err;
    return std::pair(content_of(folder.path() / "out/results.json"), ran.err);
  };
  const auto [first, first_err] = results("");
  EXPECT_FALSE(says(first_err, "reused"));
  ASSERT_TRUE(fs::exists(folder.path() / "millrace-cache"));
  const auto [second, second_err] = results("");
  EXPECT_TRUE(says(second_err, "Light transport of 1 of 1 rooms reused from millrace-cache")) << second_err;
  EXPECT_TRUE(first == second);
  // Damaged: not trusted, and written anew.
  for (const auto& file : fs::directory_iterator(folder.path() / "millrace-cache"))
    fs::resize_file(file.path(), fs::file_size(file.path()) / 2);
  const auto [third, third_err] = results("");
  EXPECT_FALSE(says(third_err, "reused"));
  EXPECT_TRUE(first == third);
  // Other luminaires in the same room.
  write_project(folder, "suspension = 0.5", "suspension = 0.6");
  const auto [moved, moved_err] = results("");
  EXPECT_TRUE(says(moved_err, "reused"));
  EXPECT_FALSE(first == moved);
  const auto [anew, anew_err] = results("--no-cache");
  EXPECT_FALSE(says(anew_err, "reused"));
  EXPECT_TRUE(moved == anew);
  // Another room.
  write_project(folder, "height = 3.2", "height = 3.3");
  EXPECT_FALSE(says(results("").second, "reused"));
}

TEST(Accuracy, WordsAndPerCentAreTakenOthersRefused) {
  const TemporaryFolder folder;
  write_project(folder);
  double last = 1e9;
  for (const std::string how : {"draft", "normal", "fine", "0.2"}) {
    const Ran ran = run(folder, "run millrace.toml -o out --json --accuracy " + how);
    ASSERT_EQ(ran.code, 0) << ran.err;
    const json grid = json_of(ran.out).at("rooms").at(0).at("grids").at(0);
    const double sure = grid.at("uncertainty").at("mean_lx").get<double>() / grid.at("mean_lx").get<double>();
    if (how == "0.2") {
      EXPECT_LE(sure, 0.002);
    } else {
      EXPECT_LT(sure, last) << how;
    }
    last = sure;
  }
  for (const std::string how : {"superb", "0.01", "50", "-1", "1x", "\"\""}) {
    const Ran ran = run(folder, "run millrace.toml -o out2 --accuracy " + how);
    EXPECT_EQ(ran.code, 2) << how;
    EXPECT_TRUE(says(ran.err, "expected draft, normal, fine")) << ran.err;
    EXPECT_FALSE(fs::exists(folder.path() / "out2"));
  }
}

space::Space small_room() {
  space::Space room;
  room.name = "Store";
  room.outline = {{0, 0}, {4, 0}, {4, 3}, {0, 3}};
  room.height_m = 2.6;
  room.floor_area_m2 = 12;
  geometry::add_room(room.geometry, room.outline, 2.6, 0.2, 0.5, 0.7);
  photometry::PlacedLuminaire luminaire;
  luminaire.table = rooms::lobe(800, 2, 0.1);
  luminaire.frame.origin = {1.7, 1.3, 2.5};
  auto photometry = std::make_shared<photometry::Photometry>(photometry::Photometry{
      {}, {}, {}, {}, {}, {}, {}, false, {}, {}, {}, {}, {}, *luminaire.table, {}, {}});
  room.groups.emplace_back();
  room.groups[0].photometry = photometry;
  room.groups[0].luminaires = {luminaire};
  room.grids.push_back({"work plane", space::GridRole::work_plane, readings::Kernel::plane, Vec3::UnitX(),
                        *readings::plane_grid(room.outline, 0.8, 0.5, 0.5)});
  return room;
}

TEST(Refinement, GoesOnUntilACheckIsDecidedAndSaysWhenItIsNot) {
  rooms::PlannedTestRoom room;
  room.take(small_room(), 1);
  room.planned.brief.grids[0].demands = {standards::Demand{}};
  standards::Demand& demand = room.planned.brief.grids[0].demands[0];
  const auto compute = [&](const run::Accuracy& accuracy) {
    return run::compute_room(room.project, room.planned, accuracy, nullptr, {}).record;
  };
  const auto mean_of = [&](const run::Accuracy& accuracy) {
    return compute(accuracy).assessment.grids.at(0);
  };
  const run::Accuracy draft = *run::Accuracy::parse("draft");
  const assess::GridReading coarse = mean_of({draft.effort, {}, 0});
  const assess::GridReading finest = mean_of({draft.effort.finer().finer(), {}, 0});
  // The limit where the finest calculation comes out: nothing can decide that.
  demand.required = finest.statistics.mean_lx;
  const record::RoomRecord undecided = compute(draft);
  EXPECT_EQ(undecided.assessment.status, assess::Status::undecided);
  EXPECT_EQ(undecided.assessment.checks.at(0).verdict, standards::Verdict::undecided);
  EXPECT_EQ(undecided.engine.refinements, 2);
  // Within what a draft leaves open, but farther off than the finest calculation does: refined and decided.
  demand.required = finest.statistics.mean_lx - 0.7 * coarse.uncertainty.mean_lx;
  ASSERT_LT(finest.uncertainty.mean_lx, 0.5 * coarse.uncertainty.mean_lx);
  const record::RoomRecord decided = compute(draft);
  EXPECT_EQ(decided.assessment.status, assess::Status::met);
  EXPECT_GT(decided.engine.refinements, 0);
  // Far off: a draft will do.
  demand.required = 5 * finest.statistics.mean_lx;
  EXPECT_EQ(compute(draft).engine.refinements, 0);
}

TEST(Objects, PointsInsideThemAreLeftOutAndNamed) {
  const TemporaryFolder folder;
  const std::string kiln =
      "[[rooms.objects]]\nname = \"kiln\"\nbox = [2, 2, 1.5]\nat = [1, 1, 0]\nreflectance = 0.3\n\n"
      "[[rooms.luminaires]]";
  write_project(folder, "[[rooms.luminaires]]", kiln);
  const Ran ran = run(folder, "run millrace.toml -o out --json");
  ASSERT_EQ(ran.code, 0) << ran.err;
  EXPECT_TRUE(says(shown(folder, "out"), "inside or behind kiln"));
  const json grid = json_of(ran.out).at("rooms").at(0).at("grids").at(0);
  EXPECT_GT(grid.at("min_lx").get<double>(), 50);
  EXPECT_GT(grid.at("left_out").size(), 3u);
  EXPECT_EQ(grid.at("left_out").at(0).at("inside"), "kiln");
}

}  // namespace accuracy_test
}  // namespace glow::cli
