// Ways to place luminaires: arrays turned, staggered, fitted and with margins, paths, faces of things, one
// over each thing, fittings of several parts.
#include <gtest/gtest.h>

#include "core/lighting/weights.hpp"
#include "core/space/build_space.hpp"
#include "core/space/placing/array_positions.hpp"
#include "rooms/furnished_room.hpp"

namespace glow::space {
namespace luminaire_places_test {

geometry::Polygon rectangle(double x, double y) {
  return {{0, 0}, {x, 0}, {x, y}, {0, y}};
}

struct ArrayCase {
  const char* name;
  model::Array array;
  std::vector<Vec2> inside;
};

model::Array array(int rows, int columns, void (*change)(model::Array&)) {
  model::Array array{rows, columns, {}, {}};
  change(array);
  return array;
}

class Arrays : public testing::TestWithParam<ArrayCase> {};

TEST_P(Arrays, LieWhereTheyShould) {
  const ArrayPositions positions = array_positions(rectangle(8, 4), GetParam().array);
  ASSERT_EQ(positions.inside.size(), GetParam().inside.size());
  for (std::size_t i = 0; i < positions.inside.size(); ++i)
    EXPECT_LT((positions.inside[i] - GetParam().inside[i]).norm(), 1e-9) << positions.inside[i].transpose();
}

INSTANTIATE_TEST_SUITE_P(
    Ways, Arrays,
    testing::Values(
        ArrayCase{"margin", array(1, 3, [](model::Array& a) { a.margin_m = 1; }), {{1, 2}, {4, 2}, {7, 2}}},
        ArrayCase{"margin_of_one", array(1, 1, [](model::Array& a) { a.margin_m = 1; }), {{4, 2}}},
        ArrayCase{"margins_that_meet", array(1, 2, [](model::Array& a) { a.margin_m = 2.5; }), {}},
        ArrayCase{"spacing_between_margins",
                  array(1, 1,
                        [](model::Array& a) {
                          a.margin_m = 0.5;
                          a.spacing = Vec2(3, 4);
                        }),
                  {{1, 2}, {4, 2}, {7, 2}}},
        ArrayCase{"staggered",  // 2.5 steps of 3.2 m: rows at 1.6, 4.8 and at 3.2, 6.4
                  array(2, 2, [](model::Array& a) { a.staggered = true; }),
                  {{1.6, 1}, {4.8, 1}, {3.2, 3}, {6.4, 3}}},
        ArrayCase{
            "turned",  // the box about the room turned by 45 degrees is 8.49 m square; its middle remains
            array(1, 1, [](model::Array& a) { a.turned_deg = 45; }),
            {{4, 2}}},
        ArrayCase{"fitted",  // to a triangle: the row at y = 1 is 6 m long, the one at y = 3 is 2 m long
                  array(2, 3,
                        [](model::Array& a) {
                          a.within = {{0, 0}, {8, 0}, {0, 4}};
                          a.fitted = true;
                        }),
                  {{1.5, 1}, {4.5, 1}, {1, 3}}}),
    [](const auto& each) { return std::string(each.param.name); });

TEST(Paths, AreFollowedByCountAndBySpacing) {
  model::Along along{{{0, 0}, {4, 0}, {4, 3}}, 3, {}};
  const auto three = path_positions(along);
  ASSERT_EQ(three.size(), 3u);
  EXPECT_LT((three[1].first - Vec2(3.5, 0)).norm(), 1e-9);
  EXPECT_LT((three[2].first - Vec2(4, 3)).norm(), 1e-9);
  EXPECT_NEAR(three[2].second, 90, 1e-9);
  along.spacing_m = 2;  // 7 m: four, half a metre from the ends
  const auto four = path_positions(along);
  ASSERT_EQ(four.size(), 4u);
  EXPECT_LT((four[0].first - Vec2(0.5, 0)).norm(), 1e-9);
  EXPECT_LT((four[3].first - Vec2(4, 2.5)).norm(), 1e-9);
}

/// A room of 6 x 4 x 3 m under a shed roof that rises to 4 m along x, with two desks and a hood.
struct Workshop {
  model::Project project;
  model::Room room;
  std::vector<standards::RequirementTable> standards;
  Problems problems;

  Workshop() {
    room.name = "Workshop";
    room.outline = rectangle(6, 4);
    room.height_m = 4;
    room.ceiling.push_back({{0, 0}, {6, 0}, 3, 4, {}, {}});
    room.maintenance_factor = 0.8;
    for (const char* mark : {"U", "D"}) {
      model::ScheduledLuminaire entry;
      entry.mark = mark;
      photometry::PlacedLuminaire like;
      like.area = {photometry::LuminousShape::rectangle, 0.6, 0.2, {}};
      entry.photometry = std::make_shared<photometry::Photometry>(photometry::Photometry{
          {}, {}, {}, {}, {}, {}, {}, false, {}, {}, {}, {}, {}, *rooms::lobe(800, 2, 0.1), like.area, {}});
      project.schedule.push_back(entry);
    }
    model::ScheduledLuminaire fitting;
    fitting.mark = "F";
    fitting.parts = {{"U", 0.5, 10000.0, {}}, {"D", 1, 4000.0, {}}};
    project.schedule.push_back(fitting);
    standards.emplace_back(std::vector<standards::Requirement>{{}});
    add_box("desk", {1, 1, 0}, {1.6, 0.8, 0.75}, 0);
    add_box("desk", {4, 1, 0}, {1.6, 0.8, 0.75}, 90);
    add_box("hood", {2, 3.2, 1.8}, {1.5, 0.8, 0.4}, 0);
  }
  void add_box(const char* name, const Vec3& at, const Vec3& size, double rotation_deg) {
    model::Object object;
    object.name = name;
    object.at = at;
    object.size = size;
    object.rotation_deg = rotation_deg;
    object.finish.material.diffuse = 0.5;
    room.objects.push_back(object);
  }
  Space place(const model::LuminairePlacement& placement) {
    room.luminaires.push_back(placement);
    const auto planned = build_space(project, room, standards, problems);
    return planned ? planned->space : Space{};
  }
  std::string errors() const {
    std::string list;
    for (const Problem& problem : problems.all())
      if (problem.severity == Severity::error) list += problem.text + "\n";
    return list;
  }
};

model::LuminairePlacement of(const char* mark) {
  model::LuminairePlacement placement;
  placement.mark = mark;
  return placement;
}

TEST(Places, OnASlopedCeilingShineStraightOff) {
  Workshop shop;
  model::LuminairePlacement placement = of("D");
  placement.at = Vec2(3, 2);
  placement.on = "ceiling";
  const Space space = shop.place(placement);
  ASSERT_EQ(space.groups.size(), 1u) << shop.errors();
  const geometry::Frame& frame = space.groups[0].luminaires[0].frame;
  const Vec3 down = Vec3(1, 0, -6).normalized();
  EXPECT_LT((frame.g0 - down).norm(), 1e-9);
  EXPECT_LT((frame.origin - (Vec3(3, 2, 3.5) + 0.001 * down)).norm(), 1e-9);
  EXPECT_NEAR(frame.c90.y(), 1, 1e-9);
  EXPECT_LT((frame.c0.cross(frame.c90) + frame.g0).norm(), 1e-9);
}

TEST(Places, OnASideOfAThingAreCountedFromItsCorner) {
  Workshop shop;
  model::LuminairePlacement placement = of("D");
  placement.row = model::Row{{0.4, 0.2}, {1.1, 0.2}, 2};
  placement.on = "hood.front";
  const Space space = shop.place(placement);
  ASSERT_EQ(space.groups.size(), 1u) << shop.errors();
  const geometry::Frame& frame = space.groups[0].luminaires[0].frame;
  EXPECT_LT((frame.g0 - Vec3(0, -1, 0)).norm(), 1e-9);
  EXPECT_LT((frame.origin - Vec3(2.4, 3.2 - 0.001, 2.0)).norm(), 1e-9) << frame.origin.transpose();
}

TEST(Places, OverThingsTurnWithThem) {
  Workshop shop;
  model::LuminairePlacement placement = of("D");
  placement.over = model::Over{"desk", {0.2, 0}};
  placement.mounting_height_m = 2;
  const Space space = shop.place(placement);
  ASSERT_EQ(space.groups.size(), 1u) << shop.errors();
  const auto& luminaires = space.groups[0].luminaires;
  ASSERT_EQ(luminaires.size(), 2u);
  EXPECT_LT((luminaires[0].frame.origin - Vec3(2.0, 1.4, 2)).norm(), 1e-9);
  EXPECT_LT((luminaires[1].frame.origin - Vec3(3.6, 2.0, 2)).norm(), 1e-9)
      << luminaires[1].frame.origin.transpose();
  EXPECT_NEAR(luminaires[1].frame.c0.y(), 1, 1e-9);
}

TEST(Places, PartsOfAFittingShareOnePlaceAndKeepTheirOwnLight) {
  Workshop shop;
  model::LuminairePlacement placement = of("F");
  placement.at = Vec2(3, 2);
  placement.mounting_height_m = 2.4;
  placement.dimming = 0.8;
  placement.name = "sky";
  const Space space = shop.place(placement);
  ASSERT_EQ(space.groups.size(), 2u) << shop.errors();
  EXPECT_EQ(space.groups[0].luminaires[0].frame.origin, space.groups[1].luminaires[0].frame.origin);
  EXPECT_EQ(*space.groups[0].colour.cct_k, 10000);
  EXPECT_EQ(space.groups[1].name, "sky D");
  EXPECT_EQ(space.groups[1].fitting, "F");
  const lighting::Weights weights = lighting::planned_weights(shop.project, shop.room, space);
  EXPECT_NEAR(weights[0].output, 0.4, 1e-12);
  EXPECT_NEAR(weights[1].output, 0.8, 1e-12);
}

TEST(Places, AreNumberedWhereNobodyNamedThem) {
  Workshop shop;
  model::LuminairePlacement first = of("D"), named = of("D"), other = of("U");
  first.at = Vec2(1, 3);
  named.at = Vec2(3, 3);
  named.name = "middle";
  other.at = Vec2(5, 3);
  shop.room.luminaires = {first, named, other};
  first.at = Vec2(1, 2);
  const Space space = shop.place(first);
  ASSERT_EQ(space.groups.size(), 4u) << shop.errors();
  std::vector<std::string> names;
  for (const LuminaireGroup& group : space.groups) names.push_back(group.name);
  EXPECT_EQ(names, (std::vector<std::string>{"D 1", "middle", "U", "D 2"}));
}

struct Refused {
  const char* name;
  void (*change)(model::LuminairePlacement&);
  const char* says;
};
class Refusals : public testing::TestWithParam<Refused> {};

TEST_P(Refusals, SayWhatWasExpected) {
  Workshop shop;
  model::LuminairePlacement placement = of("D");
  GetParam().change(placement);
  shop.place(placement);
  EXPECT_NE(shop.errors().find(GetParam().says), std::string::npos) << shop.errors();
}

INSTANTIATE_TEST_SUITE_P(Each, Refusals,
                         testing::Values(Refused{"unknown_thing",
                                                 [](auto& p) {
                                                   p.over = model::Over{"dask", {0, 0}};
                                                 },
                                                 "did you mean \"desk\"?"},
                                         Refused{"unknown_surface",
                                                 [](auto& p) {
                                                   p.at = Vec2(1, 1);
                                                   p.on = "hod.front";
                                                 },
                                                 "did you mean \"hood\"?"},
                                         Refused{"unknown_face",
                                                 [](auto& p) {
                                                   p.at = Vec2(1, 1);
                                                   p.on = "hood.lid";
                                                 },
                                                 "\"hood\" has no face \"lid\"; it has:"},
                                         Refused{"off_the_face",
                                                 [](auto& p) {
                                                   p.at = Vec2(2, 0.2);
                                                   p.on = "hood.front";
                                                 },
                                                 "lies outside \"hood.front\""},
                                         Refused{"margins",
                                                 [](auto& p) {
                                                   p.array = model::Array{1, 1, {}, {}};
                                                   p.array->margin_m = 2.5;
                                                 },
                                                 "give a smaller \"margin\""},
                                         Refused{"part_that_is_a_fitting", [](auto& p) { p.mark = "G"; },
                                                 "unknown luminaire mark"}),
                         [](const auto& each) { return std::string(each.param.name); });

}  // namespace luminaire_places_test
}  // namespace glow::space
