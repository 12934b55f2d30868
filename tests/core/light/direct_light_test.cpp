// Direct light against a slow oracle: the luminous area cut into very many points, each traced.
#include "core/sources/direct/direct_light.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/sources/luminaire_inflow.hpp"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <random>

#include "core/geometry/room_shell.hpp"
#include "core/photometry/derived.hpp"
#include "core/sources/emission.hpp"

namespace glow::transport {

using namespace readings;
using namespace sources;
using geometry::Occluders;
namespace direct_light_test {

using photometry::LuminousShape;
using photometry::PlacedLuminaire;

constexpr int kOraclePoints = 300;  // along each side

std::shared_ptr<photometry::IntensityTable> skewed_table() {
  std::vector<double> planes, gammas, candela;
  for (double c = 0; c <= 360; c += 10) planes.push_back(c);
  for (double g = 0; g <= 180; g += 2.5) gammas.push_back(g);
  for (const double c : planes)
    for (const double g : gammas)
      candela.push_back(800 * std::pow(std::abs(std::cos(g * kDegree)), 1.5) *
                        (1 + 0.4 * std::sin(g * kDegree) * std::cos(c * kDegree)) * (g > 90 ? 0.3 : 1));
  return std::make_shared<photometry::IntensityTable>(planes, gammas, candela);
}

/// Midpoints of a fine grid over the rectangle or the disc.
double oracle(const PlacedLuminaire& l, const geometry::RayTracer* tracer, const Vec3& point,
              const Vec3& normal) {
  double sum = 0, points = 0;
  for (int i = 0; i < kOraclePoints; ++i)
    for (int j = 0; j < kOraclePoints; ++j) {
      const double u = (i + 0.5) / kOraclePoints - 0.5, v = (j + 0.5) / kOraclePoints - 0.5;
      if (is_round(l.area.shape) && u * u + v * v > 0.25) continue;
      ++points;
      const Vec3 spot =
          l.frame.origin + u * l.area.extent_c0_m * l.frame.c0 + v * l.area.extent_c90_m * l.frame.c90;
      const Vec3 way = point - spot;
      const double facing = -normal.dot(way);
      if (facing <= 0 || (tracer && tracer->passed(point + geometry::kStartOffset * normal, spot) == 0))
        continue;
      sum += l.table->intensity_along(way.dot(l.frame.c0), way.dot(l.frame.c90), way.dot(l.frame.g0)) *
             facing / std::pow(way.norm(), 3);
    }
  return sum / points;
}

class DirectLightTest : public testing::TestWithParam<unsigned> {};

TEST_P(DirectLightTest, AgreesWithVeryManyPoints) {
  std::mt19937 chance(GetParam());
  const auto between = [&](double a, double b) { return a + (b - a) * double(chance()) / 4294967296.0; };
  PlacedLuminaire l;
  l.table = skewed_table();
  const bool disc = GetParam() % 3 == 0;
  const double x = between(0.05, 1.5), y = disc ? x : between(0.05, 1.5);
  l.area = {disc ? LuminousShape::disc : LuminousShape::rectangle, x, y, {}};
  l.frame = geometry::Frame::upright({0, 0, 3}, between(0, 360));
  for (int i = 0; i < 6; ++i) {
    // From a hand's breadth to several metres away, below and above, facing anywhere.
    const double far = between(0.15, 5);
    const Vec3 away = Vec3(between(-1, 1), between(-1, 1), between(-1, 0.3)).normalized();
    const Vec3 point = l.frame.origin + far * away;
    const Vec3 normal = (-away + 0.6 * Vec3(between(-1, 1), between(-1, 1), between(-1, 1))).normalized();
    const double expected = oracle(l, nullptr, point, normal);
    EXPECT_NEAR(DirectLight(l, nullptr).illuminance({point, normal}), expected, 0.004 * expected + 1e-3)
        << "size " << x << " x " << y << " at " << far << " m";
    const DirectLux refined = DirectLight(l, nullptr).with_error({point, normal}, 2e-4 * expected);
    EXPECT_NEAR(refined.lux, expected, 0.002 * expected + 1e-3) << "size " << x << " x " << y;
  }
}

INSTANTIATE_TEST_SUITE_P(Scenes, DirectLightTest, testing::Range(1u, 13u));

/// A sheet folded along a diagonal and a solid with eight sides, of triangles as meshes are.
void add_meshes(geometry::Geometry& geometry, const Vec3& sheet, const Vec3& solid) {
  geometry::Material cloth;
  cloth.two_sided = true;
  const std::vector<Vec3> corners{sheet, sheet + Vec3(0.5, 0, 0.1), sheet + Vec3(0.6, 0.4, -0.1),
                                  sheet + Vec3(0, 0.5, 0.2)};
  geometry.add_triangles(geometry.add_surface("sheet", cloth), corners, {{0, 1, 2}, {0, 2, 3}});
  std::vector<Vec3> tips;
  for (const double side : {1.0, -1.0})
    for (int axis = 0; axis < 3; ++axis)
      tips.push_back(solid + side * (0.15 + 0.1 * axis) * Vec3(Vec3::Unit(axis)));
  geometry.add_triangles(
      geometry.add_surface("solid", {}), tips,
      {{0, 1, 2}, {1, 3, 2}, {3, 4, 2}, {4, 0, 2}, {1, 0, 5}, {3, 1, 5}, {4, 3, 5}, {0, 4, 5}});
}

/// Whatever stands between: boxes, turned ones among them, and meshes, before rectangles, discs and lines.
TEST_P(DirectLightTest, ShadowsAgreeWithVeryManyPoints) {
  std::mt19937 chance(GetParam() + 100);
  const auto between = [&](double a, double b) { return a + (b - a) * double(chance()) / 4294967296.0; };
  geometry::Geometry geometry;
  geometry::add_room(geometry, {{-3, -3}, {3, -3}, {3, 3}, {-3, 3}}, 3, 0, 0, 0);
  for (int k = 0; k < 4; ++k) {
    Eigen::Isometry3d frame = Eigen::Isometry3d::Identity();
    frame.translate(Vec3(between(-1, 1), between(-1, 1), between(1, 2)));
    frame.rotate(Eigen::AngleAxisd(between(0, 3), Vec3(between(-1, 1), 0.3, 1).normalized()));
    geometry.add_box(fmt::format(FMT_STRING("box {}"), k), Vec3::Zero(),
                     {between(0.02, 0.6), between(0.02, 0.6), between(0.02, 0.4)}, {}, frame);
  }
  const auto about = [&] { return Vec3(between(-1, 1), between(-1, 1), between(1, 2)); };
  if (GetParam() % 2) add_meshes(geometry, about(), about());
  const geometry::RayTracer tracer(geometry);
  const Occluders occluders(geometry);
  PlacedLuminaire l;
  l.table = skewed_table();
  const unsigned kind = GetParam() % 3;
  l.area = {kind == 0 ? LuminousShape::disc : LuminousShape::rectangle, 0.9, kind == 1 ? 0.0 : 0.9, {}};
  l.frame = geometry::Frame::upright({between(-0.5, 0.5), between(-0.5, 0.5), 2.8}, between(0, 360));
  const DirectLight light(l, &tracer, &occluders), open(l, nullptr);
  int shaded = 0;
  for (double x = -1.9; x < 2; x += 0.475)
    for (double y = -1.9; y < 2; y += 0.95) {
      const Vec3 point(x, y, 0.01);
      const double lux = light.illuminance({point, Vec3::UnitZ()});
      const double unshaded = open.illuminance({point, Vec3::UnitZ()});
      if (std::abs(lux - unshaded) < 0.01 * unshaded) continue;
      ++shaded;
      EXPECT_NEAR(lux, oracle(l, &tracer, point, Vec3::UnitZ()), 0.006 * unshaded) << x << " " << y;
    }
  EXPECT_GE(shaded, 1);
}

/// Whatever the shape: what is allowed to be off is kept, and what it was before lies within its own error.
TEST(DirectLight, EveryShapeIsDividedUntilItIsSure) {
  for (const auto shape : {LuminousShape::rectangle, LuminousShape::disc, LuminousShape::box,
                           LuminousShape::vertical_cylinder, LuminousShape::sphere}) {
    PlacedLuminaire l;
    l.table = skewed_table();
    l.area = {shape, 0.5, 0.5, {0.5, 0.5, 0.5, 0.5}};
    l.frame = geometry::Frame::tilted({0, 0, 3}, 20, 10);
    const DirectLight light(l, nullptr);
    for (const double z : {0.0, 1.5, 2.2})
      for (const Kernel kernel : {Kernel::plane, Kernel::cylinder}) {
        const Receiver receiver{{0.7, 0.4, z}, Vec3::UnitZ(), kernel};
        const DirectLux first = light.with_error(receiver),
                        fine = light.with_error(receiver, 1e-3 * first.lux);
        EXPECT_LE(fine.error, 1.01e-3 * fine.lux) << int(shape) << " " << z;
        EXPECT_NEAR(first.lux, fine.lux, first.error + fine.error) << int(shape) << " " << z;
        EXPECT_DOUBLE_EQ(first.lux, light.illuminance(receiver));
      }
  }
}

TEST(DirectLight, PenumbrasAreSmooth) {
  geometry::Geometry geometry;
  geometry::add_room(geometry, {{0, 0}, {6, 0}, {6, 4}, {0, 4}}, 3, 0, 0, 0);
  geometry.add_box("screen", {2.9, 0.5, 0}, {3.0, 3.5, 1.4}, {});
  const geometry::RayTracer tracer(geometry);
  PlacedLuminaire l;
  l.table = skewed_table();
  l.area = {LuminousShape::rectangle, 0.6, 0.6, {}};
  l.frame = geometry::Frame::upright({1.5, 2, 2.8}, 0);
  const DirectLight light(l, &tracer);
  const double open = DirectLight(l, nullptr).illuminance({{4, 2, 0}, Vec3::UnitZ()});
  for (double x = 3.1; x < 5.6; x += 0.1) {
    const Vec3 point(x, 2, 0);
    EXPECT_NEAR(light.illuminance({point, Vec3::UnitZ()}), oracle(l, &tracer, point, Vec3::UnitZ()),
                0.02 * open)
        << x;
  }
}

TEST(DirectLight, GivesNothingBehindTheReceiverOrInItsPlane) {
  PlacedLuminaire l;
  l.table = skewed_table();
  l.area = {LuminousShape::rectangle, 1, 1, {}};
  l.frame = geometry::Frame::upright({0, 0, 3}, 0);
  const DirectLight light(l, nullptr);
  EXPECT_EQ(light.illuminance({{0, 0, 0}, -Vec3::UnitZ()}), 0);
  EXPECT_EQ(light.illuminance({{0.2, 0.1, 3}, -Vec3::UnitZ()}), 0);
  EXPECT_TRUE(std::isfinite(light.illuminance({{0.2, 0.1, 3}, Vec3::UnitX()})));
}

TEST(Emission, PortionsFollowTheTableAndAddUp) {
  PlacedLuminaire l;
  l.table = skewed_table();
  l.area = {LuminousShape::rectangle, 0.4, 1.2, {}};
  l.frame = geometry::Frame::upright({1, 2, 3}, 30);
  const Emission emission(*l.table, l.area, 1 << 15, 7);
  double total = 0, in_cone[6] = {}, towards_c0 = 0;
  for (const EmittedRay& ray : emission.rays()) {
    total += ray.flux_lm;
    const double gamma = std::acos(ray.direction(l.frame).dot(l.frame.g0)) / kDegree;
    in_cone[std::min(5, int(gamma / 30))] += ray.flux_lm;
    towards_c0 += ray.direction(l.frame).dot(l.frame.c0) > 0 ? ray.flux_lm : 0;
    const Vec3 from = ray.start(l.frame) - l.frame.origin;
    EXPECT_LE(std::abs(from.dot(l.frame.c0)), 0.2 + 1e-9);
    EXPECT_LE(std::abs(from.dot(l.frame.c90)), 0.6 + 1e-9);
  }
  EXPECT_NEAR(total, l.table->flux(), 1e-6 * total);
  for (int i = 0; i < 6; ++i)
    EXPECT_NEAR(in_cone[i], photometry::flux_between(*l.table, 30 * i, 30 * i + 30), 0.005 * total) << i;
  EXPECT_GT(towards_c0, 0.55 * total);  // the table is skewed to C0
}

}  // namespace direct_light_test
}  // namespace glow::transport
