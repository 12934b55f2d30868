#include <fmt/format.h>
#include <gtest/gtest.h>

#include <chrono>
#include <cmath>
#include <filesystem>
#include <set>

#include "core/plans/line_work.hpp"
#include "files/plans/dxf/drawn_text.hpp"
#include "plans/plan_cases.hpp"
#include "plans/random_walls.hpp"

namespace glow {
namespace plan_corpus_test {

using geometry::Polygon;
using nlohmann::json;

Polygon polygon(const json& points) {
  Polygon out;
  for (const json& p : points) out.push_back(Vec2(p[0].get<double>(), p[1].get<double>()));
  if (geometry::signed_area(out) < 0) std::reverse(out.begin(), out.end());
  return out;
}

/// Largest distance of a corner of either from the outline of the other.
double deviation(const Polygon& a, const Polygon& b) {
  double most = 0;
  for (const Vec2& p : a) most = std::max(most, geometry::distance_to_edges(b, p));
  for (const Vec2& p : b) most = std::max(most, geometry::distance_to_edges(a, p));
  return most;
}

struct Found {
  const plans::FoundRoom* room;
  std::string floor;
};

/// The room that has most in common with an outline.
const Found* match(const Polygon& outline, const std::string& floor, const std::vector<Found>& rooms) {
  const Found* best = nullptr;
  double most = 0.5;
  for (const Found& found : rooms) {
    if (!floor.empty() && found.floor != floor) continue;
    const double share = plans::shared_area(outline, found.room->outline) /
                         std::max(geometry::signed_area(outline), geometry::signed_area(found.room->outline));
    if (share > most) {
      most = share;
      best = &found;
    }
  }
  return best;
}

std::string plain(const std::string& words) {
  std::string out;
  for (const char c : files::dxf::folded(words)) {
    const bool blank = c == ' ' || c == '\n' || c == '\t';
    if (!blank || (!out.empty() && out.back() != ' ')) out += blank ? ' ' : c;
  }
  return out;
}

void expect_openings(const json& wanted, const plans::FoundRoom& room, double tolerance) {
  std::set<const plans::FoundOpening*> used;
  for (const json& o : wanted) {
    const Vec2 middle(o["middle"][0].get<double>(), o["middle"][1].get<double>());
    const auto fits = [&](const plans::FoundOpening& q) {
      const Vec2 a = room.outline[q.edge], b = room.outline[(q.edge + 1) % room.outline.size()];
      const Vec2 there = a + (b - a).normalized() * (q.from_m + q.width_m / 2);
      const bool window = q.kind == plans::FoundOpening::Kind::window;
      const bool kind = q.kind == plans::FoundOpening::Kind::gap || window == (o["kind"] == "window") ||
                        o["kind"] == "opening";
      return !used.count(&q) && kind && (there - middle).norm() <= 0.05 + 2 * tolerance &&
             std::abs(q.width_m - o["width"].get<double>()) <= 0.03 + 2 * tolerance;
    };
    const auto hit = std::find_if(room.openings.begin(), room.openings.end(), fits);
    EXPECT_NE(hit, room.openings.end()) << o["kind"] << " of " << o["width"] << " m at " << o["middle"];
    if (hit != room.openings.end()) used.insert(&*hit);
  }
  EXPECT_EQ(used.size(), room.openings.size()) << "an opening that is not there";
}

/// What models know beside the plan.
void expect_heights(const json& want, const plans::FoundRoom& room) {
  constexpr double kSame = 0.01;  // m
  EXPECT_NEAR(room.height_m.value_or(0), want["height_m"].get<double>(), kSame);
  EXPECT_EQ(room.ceiling.empty(), !want.contains("ceiling"));
  if (want.contains("height_min_m")) {
    double least = HUGE_VAL;
    for (const plans::FoundCeiling& part : room.ceiling) least = std::min(least, part.height_m);
    EXPECT_NEAR(least, want["height_min_m"].get<double>(), kSame);
  }
  if (!want.contains("openings")) return;
  for (const json& o : want["openings"])
    EXPECT_TRUE(std::any_of(room.openings.begin(), room.openings.end(),
                            [&](const plans::FoundOpening& q) {
                              return std::abs(q.sill_m.value_or(-1) - o["sill"].get<double>()) < kSame &&
                                     std::abs(q.height_m.value_or(-1) - o["height"].get<double>()) < kSame;
                            }))
        << "no opening of sill " << o["sill"] << " and height " << o["height"];
}

void expect_storeys(const json& wanted, const plans::TakenModel& model) {
  for (const json& want : wanted) {
    const std::string name = want["name"];
    const auto found = std::find_if(model.storeys.begin(), model.storeys.end(),
                                    [&](const plans::TakenStorey& storey) { return storey.name == name; });
    ASSERT_NE(found, model.storeys.end()) << name;
    EXPECT_NEAR(found->level_m, want["elevation_m"].get<double>(), 0.001) << name;
  }
}

void expect_site(const json& want, const plans::FoundSite& site) {
  EXPECT_NEAR(site.latitude_deg.value_or(0), want["latitude"].get<double>(), 1e-5);
  EXPECT_NEAR(site.longitude_deg.value_or(0), want["longitude"].get<double>(), 1e-5);
  EXPECT_NEAR(site.elevation_m.value_or(0), want["elevation_m"].get<double>(), 0.01);
  if (want.contains("north_deg")) {
    EXPECT_NEAR(std::remainder(site.north_deg.value_or(999) - want["north_deg"].get<double>(), 360), 0,
                0.001);
  }
}

void expect_lights(const json& wanted, const plans::TakenModel& model) {
  std::size_t lights = 0;
  for (const plans::TakenStorey& storey : model.storeys) lights += storey.plan.luminaires.size();
  EXPECT_EQ(lights, wanted.size());
  for (const json& want : wanted) {
    const Vec2 at(want["position_m"][0].get<double>(), want["position_m"][1].get<double>());
    bool there = false;
    for (const plans::TakenStorey& storey : model.storeys)
      for (const plans::FoundLuminaire& light : storey.plan.luminaires)
        there = there || (storey.name == want["floor"] && light.mark == want["type"] &&
                          (light.at - at).norm() < 0.001 &&
                          storey.plan.rooms[std::size_t(light.room)].name == want["room"]);
    EXPECT_TRUE(there) << want;
  }
}

/// Every hole of the model is on a wall of some room, at its height; or in a roof.
void expect_wall_openings(const json& wanted, const plans::TakenModel& model) {
  for (const json& want : wanted) {
    const Vec2 middle(want["middle"][0].get<double>(), want["middle"][1].get<double>());
    bool there = false;
    for (const plans::TakenStorey& storey : model.storeys)
      for (const plans::FoundRoom& room : storey.plan.rooms) {
        for (const plans::FoundOpening& q : room.openings) {
          const plans::Segment line = plans::along_edge(room.outline, q.edge, q.from_m, q.width_m);
          there = there || ((line.middle() - middle).norm() < 0.25 &&
                            std::abs(q.width_m - want["width"].get<double>()) < 0.03);
        }
        for (const plans::FoundRoofOpening& q : room.roof_openings)
          there = there || ((q.at - middle).norm() < 0.02 &&
                            std::abs(q.size.x() - want["width"].get<double>()) < 0.01 &&
                            std::abs(q.size.y() - want["height"].get<double>()) < 0.01);
      }
    EXPECT_TRUE(there) << want;
  }
}

class PlanCaseTest : public testing::TestWithParam<cases::PlanCase> {};

void expect_rooms(const json& truth, const cases::PlanOutcome& out, double tolerance) {
  std::vector<Found> rooms;
  for (std::size_t f = 0; f < out.taken.size(); ++f)
    for (const auto& room : out.taken[f].plan.rooms) rooms.push_back({&room, out.floors[f]});
  std::set<const Found*> used;
  for (const json& want : truth["rooms"]) {
    const std::string floor = want.value("floor", ""), name = want.value("name", ""),
                      number = want.value("number", "");
    SCOPED_TRACE(number + " " + name);
    const Polygon outline = polygon(want["outline"]);
    const Found* found = match(outline, floor, rooms);
    if (!found) {
      ADD_FAILURE() << "not there";
      continue;
    }
    used.insert(found);
    EXPECT_LE(deviation(outline, found->room->outline), tolerance);
    const std::string said = plain(found->room->number + " " + found->room->name);
    EXPECT_NE(said.find(plain(name)), std::string::npos) << "said: " << said;
    EXPECT_NE(said.find(plain(number)), std::string::npos) << "said: " << said;
    if (want.contains("openings")) expect_openings(want["openings"], *found->room, tolerance);
    if (want.contains("height_m")) expect_heights(want, *found->room);
  }
  std::size_t free = 0;
  if (truth.contains("maybe"))
    for (const json& maybe : truth["maybe"])
      if (const Found* found = match(polygon(maybe["outline"]), maybe.value("floor", ""), rooms))
        free += used.insert(found).second;
  EXPECT_EQ(used.size(), rooms.size()) << "a room that is not there";
}

void expect_objects(const json& wanted, const cases::PlanOutcome& out, double tolerance) {
  std::vector<const plans::FoundObject*> objects;
  for (const auto& floor : out.taken)
    for (const auto& object : floor.plan.objects) objects.push_back(&object);
  EXPECT_EQ(objects.size(), wanted.size());
  for (const json& want : wanted) {
    const Polygon outline = polygon(want["footprint"]);
    double nearest = HUGE_VAL;
    for (const auto* object : objects) nearest = std::min(nearest, deviation(outline, object->footprint));
    EXPECT_LE(nearest, std::max(tolerance, 0.01)) << want["block"];
  }
}

TEST_P(PlanCaseTest, ComesOutAsTheTruthSays) {
  const cases::PlanCase& asked = GetParam();
  const json& truth = *asked.truth;
  const auto begin = std::chrono::steady_clock::now();
  const cases::PlanOutcome out = cases::outcome_of(asked);
  const double seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
  std::string said;
  for (const Problem& problem : out.problems.all()) said += to_string(problem) + "\n";
  SCOPED_TRACE(said);
  std::vector<std::string> may = truth.value("also_ok", std::vector<std::string>{});
  may.push_back(truth["outcome"]);
  EXPECT_NE(std::find(may.begin(), may.end(), out.outcome), may.end())
      << out.outcome << ", wanted " << truth["outcome"];
  if (truth["outcome"] != "ok" && out.outcome == truth["outcome"] && truth.contains("why")) {
    std::vector<std::string> why = truth.value("why_also", std::vector<std::string>{});
    why.push_back(truth["why"]);
    EXPECT_TRUE(std::any_of(
        out.problems.all().begin(), out.problems.all().end(),
        [&](const Problem& problem) { return std::find(why.begin(), why.end(), problem.code) != why.end(); }))
        << "wanted " << truth["why"];
  }
  if (truth.contains("line") && truth["outcome"] == "refuse") {
    EXPECT_NEAR(out.problems.all().front().place.line, truth["line"].get<int>(), 2);
  }
#if defined(__SANITIZE_ADDRESS__)
  constexpr double kSlowMachine = 20;
#else
  constexpr double kSlowMachine = 4;
#endif
  if (truth.contains("max_seconds")) {
    EXPECT_LE(seconds, kSlowMachine * truth["max_seconds"].get<double>());
  }
  if (out.outcome == "refuse") return;
  const double tolerance = truth.value("tolerance_m", 0.01);
  if (truth.contains("rooms") && !truth["rooms"].is_null()) expect_rooms(truth, out, tolerance);
  if (truth.contains("objects") && !truth.value("objects_optional", false))
    expect_objects(truth["objects"], out, tolerance);
  if (out.model && truth.contains("storeys") && !out.model->storeys.empty())
    expect_storeys(truth["storeys"], *out.model);
  if (out.model && truth.contains("site")) expect_site(truth["site"], out.model->site);
  if (out.model && truth.contains("lights")) expect_lights(truth["lights"], *out.model);
  if (out.model && truth.contains("wall_openings")) expect_wall_openings(truth["wall_openings"], *out.model);
  if (truth.contains("hand_back"))
    for (const json& h : truth["hand_back"]) {
      const Vec2 metres(h["metres"][0].get<double>(), h["metres"][1].get<double>());
      const Vec2 drawing(h["drawing"][0].get<double>(), h["drawing"][1].get<double>());
      const plans::Frame& frame = out.taken.front().frame;
      EXPECT_LE((frame.to_drawing(metres) - drawing).norm() * frame.metres_per_unit,
                truth.value("hand_back_tolerance_m", 1e-4));
    }
}

/// Laws beside the drawn cases: whatever is drawn, all rooms come out, and every door of theirs on both
/// sides.
TEST(RandomWalls, GiveAllTheirRoomsAndDoors) {
  std::size_t rooms = 0, found = 0, doors = 0, openings = 0;
  for (unsigned seed = 1; seed <= 60; ++seed) {
    const bool sloppy = seed % 3 == 0;
    const cases::DrawnWalls walls = cases::RandomWalls(seed, sloppy).make();
    plans::Request request;
    request.from = plans::RoomsFrom::walls;
    request.wall_layers = {"w"};
    const plans::FoundPlan plan = plans::take_plan(walls.drawing, request);
    EXPECT_LE(plan.rooms.size(), walls.rooms.size()) << "seed " << seed;
    rooms += walls.rooms.size();
    doors += 2 * walls.doors;
    for (const plans::FoundRoom& room : plan.rooms) openings += room.openings.size();
    for (const Polygon& wanted : walls.rooms) {
      const bool there = std::any_of(plan.rooms.begin(), plan.rooms.end(), [&](const plans::FoundRoom& room) {
        return deviation(wanted, room.outline) <= (sloppy ? 0.015 : 0.002);
      });
      found += there;
      EXPECT_TRUE(there || sloppy) << "seed " << seed;
    }
  }
  EXPECT_GE(double(found), 0.99 * double(rooms));
  EXPECT_GE(double(openings), 0.99 * double(doors));
  EXPECT_LE(openings, doors);
}

std::string case_name(const testing::TestParamInfo<cases::PlanCase>& info) {
  std::string name;
  const std::filesystem::path file = info.param.file;
  for (const char c : file.stem().string() + "_" + info.param.name)
    name += std::isalnum(static_cast<unsigned char>(c)) ? c : '_';
  return name;
}

INSTANTIATE_TEST_SUITE_P(Corpus, PlanCaseTest, testing::ValuesIn(cases::plan_cases()), case_name);

}  // namespace plan_corpus_test
}  // namespace glow
