// Materials, objects, openings and ceilings in the project file: what is read, and what is told about faults.
#include <gtest/gtest.h>

#include "core/space/room_geometry.hpp"
#include "files/project/project_reader.hpp"

namespace glow::files {
namespace room_parts_test {

constexpr const char* kHead = R"(format = 1
[materials.glass]
reflectance = "8 %"
transmittance = 0.7
[materials.opal]
reflectance = 0.3
scattering = 0.5
[[rooms]]
name = "Glaze kitchen"
size = [6, 4]
height = 3
reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }
maintenance_factor = 0.8
)";
constexpr int kHeadLines = 13;

std::optional<model::Project> read(const std::string& more, Problems& problems) {
  return read_project(kHead + more, "kitchen.toml", problems);
}

TEST(RoomParts, AreReadWithTheirUnits) {
  Problems problems;
  const auto project = read(R"([[rooms.objects]]
name = "bench"
box = ["240 cm", 0.7, 0.82]
at = [1, 2, 0]
rotation = 30
reflectance = 0.4
[[rooms.objects]]
name = "screen"
panel = [2, "6 ft"]
at = [4, 1, 0]
material = "opal"
[[rooms.objects]]
name = "bulkhead"
block = [[0, 3], [6, 3], [6, 4], [0, 4]]
bottom = 2.6
top = 2.8
reflectance = 0.7
[[rooms.openings]]
name = "window"
wall = 3
from = 1
sill = 0.9
width = 2
height = 1.4
material = "glass"
[[rooms.openings]]
name = "hatch"
wall = 1
from = 4
width = 0.8
height = 2
[[rooms.ceiling]]
from = [0, 0]
height = 2.4
to = [0, 4]
to_height = 3
)",
                            problems);
  ASSERT_TRUE(project);
  for (const Problem& problem : problems.all()) ADD_FAILURE() << to_string(problem);
  const model::Room& room = project->rooms.at(0);
  ASSERT_EQ(room.objects.size(), 3u);
  EXPECT_DOUBLE_EQ(room.objects[0].size.x(), 2.4);
  EXPECT_DOUBLE_EQ(room.objects[1].size.z(), 6 * 0.3048);
  EXPECT_DOUBLE_EQ(room.objects[1].finish.material.scattering, 0.5);
  EXPECT_TRUE(room.objects[1].finish.material.two_sided);
  EXPECT_DOUBLE_EQ(room.objects[2].bottom_m, 2.6);
  ASSERT_EQ(room.openings.size(), 2u);
  EXPECT_DOUBLE_EQ(room.openings[0].pane->material.diffuse, 0.08);
  EXPECT_DOUBLE_EQ(room.openings[0].pane->material.clear, 0.7);
  EXPECT_FALSE(room.openings[1].pane);
  geometry::Geometry geometry;
  const geometry::Polygon outline = geometry::tidied(room.outline);
  const auto built =
      space::add_room_geometry(room, outline, space::WrittenWalls(room, outline), geometry, problems);
  EXPECT_TRUE(problems.all().empty());
  EXPECT_DOUBLE_EQ(built.shell.ceiling_height({3, 2}), 2.7);
  EXPECT_EQ(built.objects.size(), 3u);
  EXPECT_EQ(built.shell.openings.size(), 2u);
  EXPECT_FALSE(geometry.enclosed());
  // Wall 3 runs from (6, 4) to (0, 4): the window lies from x = 5 to x = 3.
  double low = 10, high = 0;
  for (const geometry::Facet& facet : geometry.facets())
    if (geometry.surfaces()[std::size_t(facet.surface)].name == "window")
      for (const Vec2& p : facet.vertices) {
        low = std::min(low, facet.at(p).x());
        high = std::max(high, facet.at(p).x());
      }
  EXPECT_NEAR(low, 3, 1e-12);
  EXPECT_NEAR(high, 5, 1e-12);
}

struct Fault {
  const char* text;
  int line;  ///< of the text
  const char* code;
  const char* words;
};

void PrintTo(const Fault& fault, std::ostream* out) {
  *out << fault.code << ": " << fault.words;
}

class RoomPartsFault : public testing::TestWithParam<Fault> {};

TEST_P(RoomPartsFault, IsToldWithItsPlaceAndItsMend) {
  const Fault& fault = GetParam();
  Problems problems;
  const auto project = read(fault.text, problems);
  if (project && problems.error_count() == 0) {
    const model::Room& room = project->rooms.at(0);
    geometry::Geometry geometry;
    const geometry::Polygon outline = geometry::tidied(room.outline);
    space::add_room_geometry(room, outline, space::WrittenWalls(room, outline), geometry, problems);
  }
  int found = 0;
  for (const Problem& p : problems.all()) {
    if (p.code != fault.code) continue;
    ++found;
    EXPECT_EQ(p.place.line, kHeadLines + fault.line) << to_string(p);
    EXPECT_NE(to_string(p).find(fault.words), std::string::npos) << to_string(p);
  }
  EXPECT_EQ(found, 1);
  EXPECT_EQ(problems.all().size(), 1u) << to_string(problems.all().back());
}

INSTANTIATE_TEST_SUITE_P(
    Faults, RoomPartsFault,
    testing::Values(
        Fault{"[[rooms.objects]]\nname = \"x\"\nreflectance = 0.5\n", 1, "P007", "exactly one of"},
        Fault{"[[rooms.objects]]\nname = \"x\"\nbox = [1, 1]\nat = [0, 0, 0]\nreflectance = 0.5\n", 3, "P003",
              "three lengths"},
        Fault{"[[rooms.objects]]\nname = \"x\"\nbox = [1, -1, 1]\nat = [0, 0, 0]\nreflectance = 0.5\n", 3,
              "P005", "above"},
        Fault{"[[rooms.objects]]\nname = \"x\"\nbox = [1, 1, 1]\nreflectance = 0.5\n", 1, "P004", "\"at\""},
        Fault{"[[rooms.objects]]\nname = \"x\"\nbox = [1, 1, 1]\nat = [0, 0, 0]\nmaterial = \"glas\"\n", 5,
              "P030", "did you mean \"glass\"?"},
        Fault{"[[rooms.objects]]\nname = \"x\"\nbox = [1, 1, 1]\nat = [0, 0, 0]\n", 1, "P032", "assumed"},
        Fault{"[[rooms.objects]]\nname = \"x\"\nblock = [[0, 0], [1, 1], [1, 0], [0, 1]]\ntop = "
              "1\nreflectance = "
              "0.5\n",
              3, "P013", "not a simple polygon"},
        Fault{"[[rooms.objects]]\nname = \"x\"\nblock = [[0, 0], [1, 0], [1, 1]]\nbottom = 2\ntop = "
              "1\nreflectance "
              "= 0.5\n",
              5, "P005", "top above bottom"},
        Fault{"[[rooms.objects]]\nname = \"x\"\nbox = [1, 1, 1]\nat = [5.5, 0, 0]\nreflectance = 0.5\n", 1,
              "P037", "sticks out"},
        Fault{"[materials.bad]\nreflectance = 0.7\nmirror = 0.5\n", 1, "P031", "1.200"},
        Fault{"[[rooms.openings]]\nname = \"w\"\nwall = 9\nfrom = 0\nwidth = 1\nheight = 1\n", 1, "P034",
              "has 4 walls"},
        Fault{"[[rooms.openings]]\nname = \"w\"\nwall = 2\nfrom = 3.5\nwidth = 1\nheight = 1\n", 1, "P035",
              "4.00 m long"},
        Fault{"[[rooms.openings]]\nname = \"w\"\nwall = 2\nfrom = 1\nsill = 2.5\nwidth = 1\nheight = 1\n", 1,
              "P035", "3.00 m high"},
        Fault{"[[rooms.openings]]\nname = \"v\"\nwall = 2\nfrom = 1\nwidth = 1\nheight = 1\n"
              "[[rooms.openings]]\nname = \"w\"\nwall = 2\nfrom = 1.5\nwidth = 1\nheight = 1\n",
              7, "P036", "\"v\" and \"w\" overlap"},
        Fault{"[[rooms.ceiling]]\nfrom = [0, 0]\nheight = 0\nto = [6, 4]\nto_height = 3\n", 1, "P033",
              "comes down"},
        Fault{"[[rooms.ceiling]]\nfrom = [1, 1]\nheight = 2\nto = [1, 1]\nto_height = 3\n", 4, "P005",
              "the same point"}));

}  // namespace room_parts_test
}  // namespace glow::files
