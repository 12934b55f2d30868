// What the engine promises about hard cases: thin things, small openings, mirrors, panes, bodies, odd shapes.
#include <fmt/format.h>
#include <gtest/gtest.h>

#include <numeric>

#include "core/photometry/placed_luminaire.hpp"
#include "core/sources/direct/direct_light.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "rooms/path_tracer.hpp"

namespace glow::transport {

using namespace readings;
using namespace sources;
namespace guarantees_test {

using photometry::LuminousShape;
using photometry::PlacedLuminaire;
using rooms::diffuse;
using rooms::TestRoom;

PlacedLuminaire luminaire(const Vec3& at, const photometry::LuminousArea& area = {}) {
  PlacedLuminaire l;
  l.table = rooms::lobe(1000, 1, 0);
  l.area = area;
  l.frame.origin = at;
  return l;
}

GroupLight light_of(const TestRoom& space, const Effort& effort = {400, 64, 128, 1}) {
  return sources::relight(Transport(space.geometry, space.receivers, effort, Watch{}), space.luminaires, {});
}

void add_black_room(TestRoom& space) {
  geometry::add_room(space.geometry, {{0, 0}, {6, 0}, {6, 4}, {0, 4}}, 3, 0, 0, 0);
}

geometry::Material sheet(double diffuse_share, double mirror, double clear, double scattering) {
  return {diffuse_share, mirror, clear, scattering, true};
}

/// Light at `p` from a panel, 1.2 m along x from 2.5 m on and 0.6 m along y about y = 2, at 2.9 m, of which
/// only the strips of `seen` are seen: in closed form along x and by many points along y.
double light_of_strips(const PlacedLuminaire& panel, const Vec3& p,
                       const std::vector<std::pair<double, double>>& seen) {
  constexpr int kPoints = 200;
  double lux = 0;
  for (const auto& [from, to] : seen) {
    const double low = std::max(2.5, from), high = std::min(3.7, to);
    for (int i = 0; i < kPoints && high > low; ++i)
      for (int j = 0; j < kPoints; ++j) {
        const Vec3 spot(low + (i + 0.5) / kPoints * (high - low), 1.7 + (j + 0.5) / kPoints * 0.6, 2.9);
        const Vec3 way = p - spot;
        lux += (high - low) / 1.2 * panel.table->intensity_along(way.x(), way.y(), -way.z()) * -way.z() /
               std::pow(way.norm(), 3) / (kPoints * kPoints);
      }
  }
  return lux;
}

TEST(Guarantees, ASlitOfTwoCentimetresIsFound) {
  // Two panels of no thickness leave a slit along y at x = 2.99 to 3.01 under a panel of 1.2 m.
  TestRoom space;
  add_black_room(space);
  const int board = space.geometry.add_surface("board", sheet(0, 0, 0, 0));
  space.geometry.add_polygon(board, {{0, 0, 1.5}, {2.99, 0, 1.5}, {2.99, 4, 1.5}, {0, 4, 1.5}});
  space.geometry.add_polygon(board, {{3.01, 0, 1.5}, {6, 0, 1.5}, {6, 4, 1.5}, {3.01, 4, 1.5}});
  space.luminaires = {luminaire({3.1, 2, 2.9}, {LuminousShape::rectangle, 1.2, 0.6, {}})};
  for (double x = 2.2; x < 3.6; x += 0.05) space.receivers.push_back({{x, 2, 0.2}, Vec3::UnitZ()});
  const GroupLight light = light_of(space);
  for (std::size_t r = 0; r < space.receivers.size(); ++r) {
    const Vec3& p = space.receivers[r].position;
    const double scale = (2.9 - p.z()) / (1.5 - p.z());
    const double expected = light_of_strips(
        space.luminaires[0], p, {{p.x() + (2.99 - p.x()) * scale, p.x() + (3.01 - p.x()) * scale}});
    EXPECT_NEAR(light.direct_lx[r], expected, 0.005 * expected + 1e-3) << "at x = " << p.x();
  }
  EXPECT_GT(*std::max_element(light.direct_lx.begin(), light.direct_lx.end()), 1);
}

TEST(Guarantees, AHundredSlatsPassWhatLiesBetweenThem) {
  // Slats of no thickness, 1 cm of every 2 cm, each a thing of its own.
  TestRoom space;
  add_black_room(space);
  for (int k = 0; k < 100; ++k) {
    const double x = 2 + 0.02 * k;
    const int slat = space.geometry.add_surface(fmt::format(FMT_STRING("slat {}"), k), sheet(0, 0, 0, 0));
    space.geometry.add_polygon(slat, {{x, 0, 1.5}, {x + 0.01, 0, 1.5}, {x + 0.01, 4, 1.5}, {x, 4, 1.5}});
  }
  space.luminaires = {luminaire({3.1, 2, 2.9}, {LuminousShape::rectangle, 1.2, 0.6, {}})};
  for (double x = 2.8; x < 3.2; x += 0.033) space.receivers.push_back({{x, 2, 0.2}, Vec3::UnitZ()});
  const GroupLight light = light_of(space);
  for (std::size_t r = 0; r < space.receivers.size(); ++r) {
    const Vec3& p = space.receivers[r].position;
    const double scale = (2.9 - p.z()) / (1.5 - p.z());
    std::vector<std::pair<double, double>> seen;
    for (int k = 0; k < 100; ++k)
      seen.emplace_back(p.x() + (2.01 + 0.02 * k - p.x()) * scale, p.x() + (2.02 + 0.02 * k - p.x()) * scale);
    const double expected = light_of_strips(space.luminaires[0], p, seen);
    ASSERT_GT(expected, 10);
    EXPECT_NEAR(light.direct_lx[r], expected, 0.005 * expected) << "at x = " << p.x();
  }
}

TEST(Guarantees, AThinRodCastsItsShadow) {
  TestRoom space;
  add_black_room(space);
  space.geometry.add_box("rod", {2.995, 0, 1.5}, {3.005, 4, 1.51}, diffuse(0));
  space.luminaires = {luminaire({3, 2, 2.9}, {LuminousShape::rectangle, 0.6, 0.6, {}})};
  for (double x = 2.7; x < 3.3; x += 0.025) space.receivers.push_back({{x, 2, 0}, Vec3::UnitZ()});
  const GroupLight light = light_of(space);
  for (std::size_t r = 0; r < space.receivers.size(); ++r) {
    const double open = DirectLight(space.luminaires[0], nullptr).illuminance(space.receivers[r]);
    EXPECT_LT(light.direct_lx[r], open * 0.985);  // a strip of 2 cm, 3.2 % of the panel, is hidden
    EXPECT_GT(light.direct_lx[r], open * 0.94);
  }
}

TEST(Guarantees, AClosedChestOfSheetsIsDarkInside) {
  TestRoom space;
  geometry::add_room(space.geometry, {{0, 0}, {6, 0}, {6, 4}, {0, 4}}, 3, 0.5, 0.7, 0.8);
  const int board = space.geometry.add_surface("sheet", sheet(0.8, 0, 0, 0));
  // The faces of a box, as sheets of no thickness that are seen from both sides, turned against the room.
  geometry::Geometry box;
  box.add_box("box", {-0.5, -0.4, 0}, {0.5, 0.4, 0.9}, diffuse(0.8),
              Eigen::Translation3d(2, 2, 0.3) * Eigen::AngleAxisd(0.3, Vec3::UnitZ()));
  for (const geometry::Facet& facet : box.facets()) {
    std::vector<Vec3> corners;
    for (const Vec2& p : facet.loops[0]) corners.push_back(facet.at(p));
    space.geometry.add_polygon(board, corners);
  }
  space.luminaires = {luminaire({2, 2.2, 2.8}, {LuminousShape::rectangle, 1.2, 0.6, {}}),
                      luminaire({4, 1, 2.8})};
  for (const double x : {1.6, 2.0, 2.4})
    for (const double z : {0.305, 0.7, 1.19}) space.receivers.push_back({{x, 2, z}, Vec3::UnitZ()});
  const GroupLight light = light_of(space);
  for (std::size_t r = 0; r < space.receivers.size(); ++r) {
    EXPECT_EQ(light.direct_lx[r], 0);
    EXPECT_LT(light.interreflected_lx[r], 1e-3);
  }
}

TEST(Guarantees, FiveCentimetresFromAWallAndOneFromTheFloorNothingSpeckles) {
  TestRoom space;
  geometry::add_room(space.geometry, {{0, 0}, {6, 0}, {6, 4}, {0, 4}}, 3, 0.2, 0.5, 0.7);
  space.luminaires = {luminaire({0.05, 2, 2}),
                      luminaire({3, 3.95, 2.4}, {LuminousShape::rectangle, 1.2, 0.06, {}})};
  for (double y = 1; y < 3; y += 0.05) space.receivers.push_back({{1.5, y, 0.01}, Vec3::UnitZ()});
  for (double y = 1; y < 3; y += 0.05) space.receivers.push_back({{0.01, y, 1}, Vec3::UnitX()});
  const GroupLight light = light_of(space, {});
  EXPECT_NEAR(light.balance.absorbed_lm + light.balance.lost_lm, light.balance.emitted_lm,
              1e-3 * light.balance.emitted_lm);
  EXPECT_LT(light.balance.lost_lm, 1e-6);
  const std::size_t row = space.receivers.size() / 2;
  for (std::size_t r = 1; r + 1 < space.receivers.size(); ++r) {
    if (r == row - 1 || r == row) continue;
    const auto at = [&](std::size_t i) { return light.interreflected_lx[i]; };
    EXPECT_NEAR(at(r), (at(r - 1) + at(r + 1)) / 2, 0.05 * at(r)) << space.receivers[r].position.transpose();
  }
}

TEST(Guarantees, AMirrorShowsTheLuminaireOnceMore) {
  TestRoom space;
  geometry::RoomShell shell = geometry::RoomShell::flat({{0, 0}, {6, 0}, {6, 4}, {0, 4}}, 3, 0, 0, 0);
  shell.walls.resize(4, shell.walls[0]);
  shell.walls[3].mirror = 0.8;  // x = 0
  geometry::add_room(space.geometry, shell);
  space.luminaires = {luminaire({1.5, 1, 2.5})};
  space.receivers = {{{1, 3, 0.5}, Vec3::UnitX()}, {{1, 3, 0.5}, -Vec3::UnitX()}, {{5, 2, 0}, Vec3::UnitZ()}};
  const GroupLight light = light_of(space);
  for (std::size_t r = 0; r < space.receivers.size(); ++r) {
    const Vec3 way = space.receivers[r].position - Vec3(-1.5, 1, 2.5);
    const double expected = 0.8 * 1000 * (-way.z() / way.norm()) *
                            std::max(0.0, -space.receivers[r].normal.dot(way)) / std::pow(way.norm(), 3);
    EXPECT_NEAR(light.interreflected_lx[r], expected, 0.003 * expected + 1e-9);
  }
  EXPECT_NEAR(light.balance.absorbed_lm, light.balance.emitted_lm, 1e-3 * light.balance.emitted_lm);
}

TEST(Guarantees, PanesPassTheirShare) {
  // A clear pane and an opal one across a black room: what is seen through the first, what passes the second.
  for (const bool opal : {false, true}) {
    TestRoom space;
    add_black_room(space);
    space.geometry.add_polygon(
        space.geometry.add_surface("pane", opal ? sheet(0, 0, 0, 0.4) : sheet(0, 0, 0.7, 0)),
        {{3, 0, 0}, {3, 4, 0}, {3, 4, 3}, {3, 0, 3}});
    space.luminaires = {luminaire({1.5, 2, 2.9}, {LuminousShape::rectangle, 0.6, 0.6, {}})};
    space.receivers = {{{4, 2, 0.5}, Vec3::UnitZ()}};
    const Transport transport(space.geometry, space.receivers, Effort{}, Watch{});
    const GroupLight light = sources::relight(transport, space.luminaires, {});
    EXPECT_NEAR(light.balance.absorbed_lm, light.balance.emitted_lm, 1e-3 * light.balance.emitted_lm);
    if (!opal) {
      const double open = DirectLight(space.luminaires[0], nullptr).illuminance(space.receivers[0]);
      EXPECT_NEAR(light.direct_lx[0], 0.7 * open, 1e-4 * open);
      EXPECT_EQ(light.interreflected_lx[0], 0);
      continue;
    }
    double on_pane = 0, behind = 0;
    for (std::size_t i = 0; i < transport.patches().size(); ++i) {
      const Patch& patch = transport.patches().patches()[i];
      const double flux =
          light.patch_irradiance_lx[Eigen::Index(i)] * transport.exchange().visible_area_m2[Eigen::Index(i)];
      if (patch.other_side >= 0)
        on_pane += flux;
      else if (patch.centre.x() > 3)
        behind += flux;
    }
    EXPECT_EQ(light.direct_lx[0], 0);
    EXPECT_NEAR(behind, 0.4 * on_pane, 0.01 * on_pane);
  }
}

TEST(Guarantees, NormalAccuracyIsOnePerCentOfMeansAndThreeOfMinima) {
  const TestRoom space = rooms::furnished_room();
  const auto values = [&](const Effort& effort) {
    const GroupLight light = light_of(space, effort);
    std::vector<double> sum;
    for (std::size_t r = 0; r < space.receivers.size(); ++r)
      sum.push_back(light.direct_lx[r] + light.interreflected_lx[r]);
    return std::pair(std::accumulate(sum.begin(), sum.end(), 0.0) / double(sum.size()),
                     *std::min_element(sum.begin(), sum.end()));
  };
  const auto [mean, least] = values({6000, 256, 4096, 77});
  for (const std::uint64_t seed : {1, 2, 3}) {
    Effort effort;
    effort.seed = seed;
    const auto [our_mean, our_least] = values(effort);
    EXPECT_NEAR(our_mean, mean, 0.01 * mean);
    EXPECT_NEAR(our_least, least, 0.03 * least);
  }
}

TEST(Guarantees, LightTravelsBothWaysAlike) {
  // A small Lambertian disc and a receiver change places, facing each other's way: the same illuminance.
  TestRoom space = rooms::furnished_room();
  const auto at = [&](const Vec3& source, const Vec3& facing, const Receiver& receiver) {
    space.luminaires = {luminaire(source)};
    geometry::Frame& f = space.luminaires[0].frame;
    f.g0 = facing;
    f.c0 = facing.unitOrthogonal();
    f.c90 = f.c0.cross(f.g0);
    space.receivers = {receiver};
    const GroupLight light = light_of(space, {1600, 256, 4096, 1});
    return light.direct_lx[0] + light.interreflected_lx[0];
  };
  const Vec3 a(1.5, 1.2, 2.2), b(4.6, 3.4, 1.0), down = -Vec3::UnitZ(), level = Vec3(-0.6, -0.8, 0);
  const double forth = at(a, down, {b, level}), back = at(b, level, {a, down});
  EXPECT_NEAR(forth, back, 0.01 * forth);
}

class ShapeTest : public testing::TestWithParam<LuminousShape> {};

TEST_P(ShapeTest, SendsOutItsFluxNearAndFar) {
  PlacedLuminaire l = luminaire({0, 0, 0}, {GetParam(), 0.5, 0.5, {0.3, 0.3, 0.3, 0.3}});
  std::vector<double> planes, gammas, candela;
  for (double c = 0; c <= 360; c += 15) planes.push_back(c);
  for (double g = 0; g <= 180; g += 2.5) gammas.push_back(g);
  for (const double c : planes)
    for (const double g : gammas)
      candela.push_back(100 + 60 * std::cos(g * kDegree) +
                        30 * std::sin(g * kDegree) * std::cos(c * kDegree));
  l.table = std::make_shared<photometry::IntensityTable>(planes, gammas, candela);
  const DirectLight light(l, nullptr);
  for (const double radius : {0.8, 2.0, 20.0}) {
    // The light through a sphere about it is its flux, whatever its shape.
    double flux = 0;
    constexpr int kPoints = 4000;
    for (int i = 0; i < kPoints; ++i) {
      const double z = 1 - (i + 0.5) * 2 / kPoints, azimuth = i * kPi * (3 - std::sqrt(5.0));
      const Vec3 n(std::sqrt(1 - z * z) * std::cos(azimuth), std::sqrt(1 - z * z) * std::sin(azimuth), z);
      flux += light.illuminance({radius * n, -n}) * 4 * kPi * radius * radius / kPoints;
    }
    EXPECT_NEAR(flux, l.table->flux(), 0.006 * flux) << photometry::to_string(GetParam()) << " at " << radius;
  }
  const Vec3 far = 30 * Vec3(0.5, 0.3, -0.8).normalized();
  EXPECT_NEAR(light.illuminance({far, -far.normalized()}),
              l.table->intensity_along(far.x(), far.y(), -far.z()) / 900, 0.002 * 0.1);
}

INSTANTIATE_TEST_SUITE_P(Shapes, ShapeTest,
                         testing::Values(LuminousShape::point, LuminousShape::rectangle, LuminousShape::disc,
                                         LuminousShape::box, LuminousShape::vertical_cylinder,
                                         LuminousShape::horizontal_cylinder_c0,
                                         LuminousShape::horizontal_cylinder_c90, LuminousShape::sphere,
                                         LuminousShape::upright_disc));

TEST(Guarantees, BodiesShadeOthersButNotTheirOwnLightNorTheirTwins) {
  TestRoom space;
  add_black_room(space);
  const photometry::LuminousArea area{LuminousShape::rectangle, 0.6, 0.6, {}};
  space.geometry.add_box("body", {2.7, 1.7, 2.0}, {3.3, 2.3, 2.1}, diffuse(0.5),
                         Eigen::Isometry3d::Identity(), 0);
  PlacedLuminaire low = luminaire({3, 2, 2.0}, area);
  low.owner = 0;
  space.receivers = {{{3, 2, 0}, Vec3::UnitZ()}, {{1, 2, 0}, Vec3::UnitZ()}};
  space.luminaires = {low};
  const GroupLight one = light_of(space);
  space.luminaires = {low, low};
  const GroupLight twins = light_of(space);
  const PlacedLuminaire high = luminaire({3, 2, 2.9});
  space.luminaires = {high};
  const GroupLight other = light_of(space);
  for (std::size_t r = 0; r < 2; ++r) {
    const double open = DirectLight(low, nullptr).illuminance(space.receivers[r]);
    EXPECT_NEAR(one.direct_lx[r], open, 1e-6 * open);
    EXPECT_NEAR(twins.direct_lx[r], 2 * one.direct_lx[r], 1e-9);
  }
  EXPECT_EQ(other.direct_lx[0], 0);
  EXPECT_GT(other.direct_lx[1], 0);
}

TEST(Guarantees, TrianglesGiveTheLightOfTheSameBox) {
  TestRoom box;
  geometry::add_room(box.geometry, {{0, 0}, {5, 0}, {5, 4}, {0, 4}}, 2.8, 0.2, 0.5, 0.7);
  TestRoom mesh = box;
  box.geometry.add_box("table", {2, 1, 0.4}, {3.4, 2, 0.75}, diffuse(0.4));
  std::vector<Vec3> corners;
  for (int k = 0; k < 8; ++k) corners.emplace_back(k & 1 ? 3.4 : 2, k & 2 ? 2 : 1, k & 4 ? 0.75 : 0.4);
  // The last one has no area, as happens in files; it is left out.
  mesh.geometry.add_triangles(mesh.geometry.add_surface("table", diffuse(0.4)), corners,
                              {{0, 2, 1},
                               {1, 2, 3},
                               {4, 5, 6},
                               {5, 7, 6},
                               {0, 1, 4},
                               {1, 5, 4},
                               {2, 6, 3},
                               {3, 6, 7},
                               {0, 4, 2},
                               {2, 4, 6},
                               {1, 3, 5},
                               {3, 7, 5},
                               {0, 0, 1}});
  // Two triangles of each side become one facet.
  ASSERT_EQ(mesh.geometry.facets().size(), mesh.geometry.facets_of_room() + 6);
  std::array<GroupLight, 2> lights;
  for (TestRoom* space : {&box, &mesh}) {
    space->luminaires = {luminaire({2.4, 2.2, 2.7}, {LuminousShape::rectangle, 1.2, 0.3, {}})};
    space->receivers = {{{2.7, 1.5, 0.75}, Vec3::UnitZ()},
                        {{2.7, 1.5, 0}, Vec3::UnitZ()},
                        {{3.6, 1.6, 0.2}, Vec3::UnitZ()},
                        {{4.5, 3, 0.8}, Vec3::UnitZ()}};
    lights[space == &mesh] = light_of(*space, Effort{});
  }
  for (std::size_t r = 0; r < box.receivers.size(); ++r) {
    EXPECT_NEAR(lights[1].direct_lx[r], lights[0].direct_lx[r], 0.005 * lights[0].direct_lx[r] + 1e-9);
    EXPECT_NEAR(lights[1].interreflected_lx[r], lights[0].interreflected_lx[r],
                0.03 * lights[0].interreflected_lx[r]);
  }
}

TEST(Guarantees, RoomShellsCloseWhateverTheirCeiling) {
  const geometry::Polygon ell = {{0, 0}, {6, 0}, {6, 2.5}, {2, 2.5}, {2, 5}, {0, 5}};
  struct Case {
    const char* name;
    std::vector<geometry::CeilingPlane> planes;
    double volume;
  };
  // Volumes by hand: area 20 m2, centroid of the outline at (2.5, 1.875).
  const Case cases[] = {{"flat", {{3, {0, 0}}}, 60},
                        {"shed", {{2.5, {0, 0.2}}}, 20 * (2.5 + 0.2 * 1.875)},
                        {"lower plane wins", {{3, {0, 0}}, {2, {0, 0}}}, 40},
                        {"ridge", {{2, {0.4, 0}}, {4.4, {-0.4, 0}}}, -1}};
  for (const Case& c : cases) {
    geometry::RoomShell shell = geometry::RoomShell::flat(ell, 3, 0.2, 0.5, 0.7);
    shell.ceiling = c.planes;
    geometry::Geometry g;
    geometry::add_room(g, shell);
    Vec3 sum = Vec3::Zero();
    double volume = 0;
    for (const geometry::Facet& f : g.facets()) {
      sum += f.area() * f.normal;
      volume -= f.area() * f.normal.dot(f.origin) / 3;  // normals face inwards
    }
    EXPECT_NEAR(sum.norm(), 0, 1e-9) << c.name;
    if (c.volume > 0) {
      EXPECT_NEAR(volume, c.volume, 1e-9) << c.name;
    }
    // An opening takes its area away, a pane puts it back, on both sides.
    shell.openings = {{0, {1, 0.8}, {2.5, 1.9}, "window", {}, false}};
    geometry::Geometry open;
    geometry::add_room(open, shell);
    Vec3 missing = Vec3::Zero();
    for (const geometry::Facet& f : open.facets()) missing += f.area() * f.normal;
    EXPECT_NEAR((missing - Vec3(0, -1.5 * 1.1, 0)).norm(), 0, 1e-9) << c.name;
    EXPECT_FALSE(open.enclosed());
  }
}

}  // namespace guarantees_test
}  // namespace glow::transport
