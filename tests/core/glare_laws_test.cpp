// What has to hold for glare whatever the numbers, and CIE 112 by hand.
#include <gtest/gtest.h>

#include "core/geometry/room_shell.hpp"
#include "core/glare/glare_rating.hpp"
#include "core/glare/unified_glare.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "core/transport/transport.hpp"
#include "rooms/furnished_room.hpp"

namespace glow::glare {
namespace glare_laws_test {

struct SceneOfGlare {
  geometry::Geometry geometry;
  std::vector<photometry::PlacedLuminaire> luminaires;
  readings::Receiver eye;
};

/// A room with a screen, turned as a whole by `turn_deg` about the origin.
SceneOfGlare turned_room(double turn_deg) {
  const double a = turn_deg * kDegree;
  const auto turned = [&](double x, double y, double z) {
    return Vec3(std::cos(a) * x - std::sin(a) * y, std::sin(a) * x + std::cos(a) * y, z);
  };
  SceneOfGlare space;
  geometry::Polygon outline;
  for (const auto& [x, y] : {std::pair{0.0, 0.0}, {7.0, 0.0}, {7.0, 5.0}, {0.0, 5.0}})
    outline.push_back(turned(x, y, 0).xy());
  geometry::add_room(space.geometry, outline, 2.9, 0.2, 0.5, 0.7);
  photometry::PlacedLuminaire luminaire;
  luminaire.table = rooms::lobe(900, 1.0, 0.3);
  luminaire.area = {photometry::LuminousShape::rectangle, 1.2, 0.2, {}};
  for (const double x : {1.5, 3.5, 5.5})
    for (const double y : {1.2, 3.8}) {
      luminaire.frame = geometry::Frame::upright(turned(x, y, 2.6), 30 + turn_deg);
      space.luminaires.push_back(luminaire);
    }
  space.eye.position = turned(0.8, 2.1, 1.2);
  space.eye.normal = turned(1, 0, 0);
  return space;
}

GlareSources sources_of(const std::vector<photometry::PlacedLuminaire>& luminaires, double share = 1) {
  GlareSources sources;
  for (const auto& luminaire : luminaires) sources.add(luminaire, share);
  return sources;
}

double ugr_in(const SceneOfGlare& space) {
  const transport::Transport transport(space.geometry, {space.eye}, {}, {});
  const double indirect = sources::relight(transport, space.luminaires, {}).interreflected_lx[0];
  const auto seen =
      sources_of(space.luminaires).seen_from(space.eye.position, &transport.tracer(), &transport.occluders());
  return unified_glare(seen, space.eye.position, space.eye.normal, indirect).value.value();
}

Ugr ugr_of(const GlareSources& sources, const readings::Receiver& eye, double indirect_lx) {
  return unified_glare(sources.seen_from(eye.position, nullptr, nullptr), eye.position, eye.normal,
                       indirect_lx);
}

TEST(GlareLaws, RoomAndEyeTurnTogether) {
  const double at_rest = ugr_in(turned_room(0));
  for (const double turn : {37.0, 90.0, 211.0}) EXPECT_NEAR(ugr_in(turned_room(turn)), at_rest, 0.03) << turn;
}

TEST(GlareLaws, SplittingALuminaireIntoCoincidentHalvesChangesNothing) {
  const SceneOfGlare space = turned_room(0);
  GlareSources halves;
  for (const auto& luminaire : space.luminaires)
    for (int half = 0; half < 2; ++half) halves.add(luminaire, 0.5);
  const Ugr whole = ugr_of(sources_of(space.luminaires), space.eye, 90);
  EXPECT_NEAR(ugr_of(halves, space.eye, 90).value.value(), whole.value.value(), 1e-9);
  EXPECT_EQ(halves.sources().size(), space.luminaires.size());
}

TEST(GlareLaws, TenTimesTheFlux) {
  const SceneOfGlare space = turned_room(0);
  const double before = ugr_of(sources_of(space.luminaires), space.eye, 90).value.value();
  const auto brighter = sources_of(space.luminaires, 10);
  // The sum grows a hundredfold; a background that grows with it takes half of that back.
  EXPECT_NEAR(ugr_of(brighter, space.eye, 90).value.value() - before, 16, 1e-9);
  EXPECT_NEAR(ugr_of(brighter, space.eye, 900).value.value() - before, 8, 1e-9);
}

TEST(GlareLaws, AHiddenLuminaireAddsNothingAndAHalfHiddenOneHalf) {
  SceneOfGlare space = turned_room(0);
  space.luminaires.resize(1);
  space.luminaires[0].frame = geometry::Frame::upright({4.0, 2.1, 2.0}, 90);
  const auto seen_past = [&](double low, double high) {
    SceneOfGlare changed = space;
    changed.geometry.add_box("screen", {2.0, low, 0}, {2.05, high, 2.8}, rooms::diffuse(0.5));
    const geometry::RayTracer tracer(changed.geometry);
    const geometry::Occluders occluders(changed.geometry);
    return unified_glare(sources_of(space.luminaires).seen_from(space.eye.position, &tracer, &occluders),
                         space.eye.position, space.eye.normal, 90);
  };
  const double open = ugr_of(sources_of(space.luminaires), space.eye, 90).sum();
  const Ugr hidden = seen_past(1.0, 3.2), half = seen_past(2.1, 3.2);
  EXPECT_EQ(hidden.sum(), 0);
  EXPECT_FALSE(hidden.value);
  EXPECT_EQ(hidden.terms.at(0).standing, Standing::hidden);
  EXPECT_NEAR(half.sum() / open, 0.5, 0.03);
}

TEST(GlareLaws, SeenThroughAPaneASourceIsDimmerNotSmaller) {
  SceneOfGlare space = turned_room(0);
  space.luminaires.resize(1);
  space.luminaires[0].frame = geometry::Frame::upright({4.0, 2.1, 2.0}, 0);
  geometry::Material glass;
  glass.clear = 0.5;
  glass.two_sided = true;
  space.geometry.add_polygon(space.geometry.add_surface("pane", glass),
                             {{2, 0.5, 0}, {2, 3.5, 0}, {2, 3.5, 2.8}, {2, 0.5, 2.8}});
  const geometry::RayTracer tracer(space.geometry);
  const geometry::Occluders occluders(space.geometry);
  const auto seen = sources_of(space.luminaires).seen_from(space.eye.position, &tracer, &occluders);
  const double open = ugr_of(sources_of(space.luminaires), space.eye, 90).sum();
  EXPECT_NEAR(unified_glare(seen, space.eye.position, space.eye.normal, 90).sum() / open, 0.25, 1e-6);
}

TEST(GlareLaws, WhatIsBehindOrBlackGivesNoNumber) {
  const SceneOfGlare space = turned_room(0);
  const readings::Receiver away{{6.9, 2.5, 1.2}, Vec3::UnitX()};
  EXPECT_FALSE(ugr_of(sources_of(space.luminaires), away, 90).value);
  EXPECT_FALSE(ugr_of(sources_of(space.luminaires), space.eye, 0).value);
  EXPECT_FALSE(ugr_of(GlareSources(), space.eye, 90).value);
}

TEST(GlareLaws, SourcesOutsideTheFormulasRangeAreMarked) {
  photometry::PlacedLuminaire luminaire;
  luminaire.table = rooms::lobe(900, 0.5, 0);
  const readings::Receiver eye{{0, 0, 1.2}, Vec3::UnitX()};
  const auto term = [&](double side, double x, double z) {
    luminaire.area = {photometry::LuminousShape::rectangle, side, side, {}};
    if (side == 0) luminaire.area = {};
    luminaire.frame = geometry::Frame::upright({x, 0, z}, 0);
    return ugr_of(sources_of({luminaire}), eye, 50).terms.at(0);
  };
  EXPECT_TRUE(term(2.0, 2.5, 3.0).large);
  EXPECT_TRUE(term(0.3, 15, 3.0).tiny);
  EXPECT_TRUE(term(0.05, 3, 3.0).small);
  EXPECT_TRUE(term(0, 3, 3.0).small);  // no size in the file: by its intensity
  EXPECT_GT(term(0, 3, 3.0).term, 0);
  const UgrTerm usual = term(0.6, 3, 2.8);
  EXPECT_FALSE(usual.large || usual.tiny || usual.small || usual.below);
}

TEST(GlareLaws, BelowTheLineOfSightTheIndexStartsAtOneAndGrows) {
  double last = 1;
  for (const double drop : {0.05, 0.2, 0.5, 1.0, 1.5}) {
    const double p = guth_position_index({2, 0.1, -drop});
    EXPECT_GT(p, last);
    last = p;
  }
  EXPECT_NEAR(guth_position_index({1, 0, -1e-9}), 1, 1e-6);
}

GlareRating rating_of(const SeenSource& seen, const Vec3& eye, const Vec3& sight, double mean_lx,
                      double reflectance) {
  const EyeLight light(seen, eye);
  return glare_rating(light.lux * veil_per_lux(light.towards, sight), mean_lx, reflectance);
}

/// One floodlight 40 m ahead on a mast of 20 m, 50000 cd to an eye at 1.5 m that looks level at its foot.
TEST(GlareRatings, ByHand) {
  SeenSource flood;
  flood.middle = {40, 0, 20};
  flood.intensity_cd = 50000;
  const Vec3 eye(0, 0, 1.5);
  flood.distance_m = (flood.middle - eye).norm();
  const double theta = std::atan2(18.5, 40) / kDegree;
  const double lux = 50000 * std::cos(theta * kDegree) / (40.0 * 40 + 18.5 * 18.5);
  const GlareRating rating = rating_of(flood, eye, Vec3::UnitX(), 200, 0.25);
  EXPECT_NEAR(rating.veiling_luminaires_cd_m2, 10 * lux / (theta * theta), 1e-9);
  EXPECT_NEAR(rating.veiling_environment_cd_m2, 0.035 * 0.25 * 200 / kPi, 1e-12);
  EXPECT_NEAR(rating.value.value(),
              27 + 24 * std::log10(10 * lux / (theta * theta) / std::pow(0.035 * 50 / kPi, 0.9)), 1e-9);
  // Turned away by more than 60 degrees it adds nothing; ten times the flux with ten times the level adds
  // 24 * (1 - 0.9).
  EXPECT_FALSE(rating_of(flood, eye, Vec3::UnitY(), 200, 0.25).value);
  flood.intensity_cd *= 10;
  EXPECT_NEAR(rating_of(flood, eye, Vec3::UnitX(), 2000, 0.25).value.value() - rating.value.value(), 2.4,
              1e-9);
}

}  // namespace glare_laws_test
}  // namespace glow::glare
