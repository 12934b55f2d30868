// Rooms with things in them, and light read on them, through the built program.
#include <fmt/format.h>

#include "cli/run_program.hpp"

namespace glow::cli {
namespace rooms_test {

json room_of(const TemporaryFolder& folder, const std::string& options = "") {
  const Ran ran = run(folder, "run small.toml --json -q --no-cache --accuracy draft " + options);
  EXPECT_EQ(ran.code, 0) << ran.err;
  return ran.code == 0 ? json_of(ran.out).at("rooms").at(0) : json();
}

json named(const json& list, const std::string& name) {
  for (const json& entry : list)
    if (entry.at("name") == name) return entry;
  ADD_FAILURE() << "nothing is called " << name;
  return {};
}

double mean_of(const json& room, const std::string& grid) {
  return named(room.at("grids"), grid).at("mean_lx").get<double>();
}

TEST(Rooms, EverySurfaceIsReadOnTheSideThatPeopleSee) {
  const TemporaryFolder folder;
  write_small_room(folder);
  const json room = room_of(folder);
  struct Case {
    const char *grid, *role, *kind;
  };
  for (const Case& c :
       {Case{"work plane", "work plane", "horizontal plane"}, Case{"floor", "floor", "horizontal plane"},
        Case{"ceiling", "ceiling", "plane along the slope"}, Case{"wall 1", "wall", "vertical plane"},
        Case{"street side", "wall", "vertical plane"}, Case{"table 1 top", "wanted", "horizontal plane"},
        Case{"display board front", "wanted", "vertical plane"}}) {
    const json grid = named(room.at("grids"), c.grid);
    EXPECT_EQ(grid.at("role"), c.role);
    EXPECT_EQ(grid.at("kind"), c.kind);
    EXPECT_GT(grid.at("min_lx").get<double>(), 1) << c.grid;
  }
  // The window is not part of its wall, and nothing was read there.
  const json street = named(room.at("grids"), "street side");
  EXPECT_EQ(street.at("place").at("holes_m").size(), 1u);
  EXPECT_LT(street.at("points").get<int>(),
            street.at("counts")[0].get<int>() * street.at("counts")[1].get<int>());
  EXPECT_GT(mean_of(room, "table 1 top"), mean_of(room, "floor"));
  const json point = named(room.at("points"), "at the door");
  EXPECT_GT(point.at("facing")[1].get<double>(), 0.9);
  EXPECT_EQ(named(room.at("openings"), "window").at("bottom_m"), 0.9);
  EXPECT_GE(room.at("assumed").size(), 4u);
}

TEST(Rooms, GridsMayLieAnywhereTurnAndBeOfAnyDensity) {
  const TemporaryFolder folder;
  write_small_room(
      folder, "[[rooms.points]]",
      "[[rooms.grids]]\nname = \"up\"\nrectangle = { at = [1, 1, 1.5], size = [1, 0.5] }\ncolumns = 4\nrows "
      "= 2\n"
      "[[rooms.grids]]\nname = \"down\"\nrectangle = { at = [1, 1], height = 1.5, size = [1, 0.5] }\n"
      "turned = true\nspacing = 0.25\n"
      "[[rooms.grids]]\nname = \"upright\"\nrectangle = { at = [1, 2, 0.5], size = [1, 1], rotation = 90, "
      "tilt = 90 }\n"
      "[[rooms.grids]]\nname = \"triangle\"\npolygon = [[1, 1, 1], [2, 1, 1], [1, 2, 1]]\nspacing = 0.1\n"
      "[[rooms.grids]]\nname = \"cylinders\"\nheight = 1.2\nkind = \"cylindrical\"\nspacing = 1\n"
      "[[rooms.grids]]\nname = \"faces\"\nheight = 1.2\nkind = \"semi-cylindrical\"\nfacing = [0, "
      "1]\nspacing = 1\n"
      "[[rooms.grids]]\nname = \"domes\"\nheight = 1.2\nkind = \"hemispherical\"\nspacing = 1\n"
      "[[rooms.grids]]\nname = \"board, behind\"\non = \"display board.front\"\nturned = "
      "true\n[[rooms.points]]");
  const Ran behind = run(folder, "run small.toml -q --accuracy draft");
  EXPECT_EQ(behind.code, 2);  // nothing of it can be read: it looks into the board
  EXPECT_TRUE(says(behind.err, "no point of board, behind is left to read")) << behind.err;
  std::string text = content_of(folder.path() / "small.toml");
  text.replace(text.find("\nturned = true\n[[rooms.points]]"), 14, "");
  folder.write("small.toml", text);
  const json room = room_of(folder);
  EXPECT_EQ(named(room.at("grids"), "up").at("counts"), json::array({4, 2}));
  EXPECT_EQ(named(room.at("grids"), "down").at("points"), 8);
  EXPECT_EQ(named(room.at("grids"), "down").at("place").at("normal")[2], -1);
  EXPECT_GT(mean_of(room, "up"), 2 * mean_of(room, "down"));
  // Rotated by 90 degrees, an upright rectangle faces +x.
  EXPECT_NEAR(named(room.at("grids"), "upright").at("place").at("normal")[0].get<double>(), 1, 1e-9);
  EXPECT_EQ(named(room.at("grids"), "upright").at("kind"), "vertical plane");
  EXPECT_NEAR(named(room.at("grids"), "triangle").at("points").get<int>(), 50, 5);
  // A cylinder's illuminance lies between that of the darkest and the brightest side; a dome's above it here.
  EXPECT_EQ(named(room.at("grids"), "cylinders").at("kind"), "cylindrical");
  EXPECT_GT(mean_of(room, "domes"), mean_of(room, "cylinders"));
  EXPECT_EQ(named(room.at("grids"), "faces").at("facing"), json::array({0, 1, 0}));
}

TEST(Rooms, PeopleSeeTheirUnitsAndResultsStaySI) {
  const TemporaryFolder folder;
  write_small_room(folder);
  folder.write(
      "units.toml",
      "format = 1\n[project]\nstandard = \"EN 12464-1:2021\"\nunits = \"fc, "
      "ft\"\n[defaults]\nmaintenance_factor = 0.8\n"
      "reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }\n"
      "[luminaires.D2]\nfile = \"photometry/quillon-d2.ies\"\n[[rooms]]\nname = \"Office\"\nsize = [12, 10]\n"
      "height = 9\nsurfaces = false\n[[rooms.luminaires]]\nmark = \"D2\"\nat = [6, 5]\n");
  EXPECT_TRUE(says(run(folder, "run units.toml").out, " fc, U0 "));
  const std::string table = shown(folder, "units.toml");
  EXPECT_TRUE(says(table, "mean fc") && says(table, "work plane 2.62 ft")) << table;
  const json results = json_in(folder.path() / "units-results/results.json");
  EXPECT_NEAR(results.at("rooms")[0].at("floor_area_m2").get<double>(), 120 * 0.09290304, 1e-6);
  const double mean = results.at("rooms")[0].at("grids")[0].at("mean_lx");
  EXPECT_TRUE(says(table, fmt::format(FMT_STRING("{:>9.1f}"), mean / 10.7639104))) << table;
  const std::string csv = content_of(folder.path() / "units-results/grids/office--work-plane.csv");
  EXPECT_EQ(csv.substr(0, csv.find('\n')),
            "x_ft,y_ft,z_ft,normal_x,normal_y,normal_z,direct_fc,interreflected_fc,total_fc");
  EXPECT_TRUE(says(run(folder, "show units.toml grids --units lx,m").out, "mean lx"));
  std::string outside = content_of(folder.path() / "units.toml");
  outside.replace(outside.find("at = [6, 5]"), 11, "at = [16, 5]\nmounting_height = 700");
  folder.write("outside.toml", outside);
  const std::string faults = run(folder, "check outside.toml").err;
  EXPECT_TRUE(says(faults, "\"mounting_height\" is 700; expected from 0 to 656.")) << faults;
  EXPECT_TRUE(says(faults, "at (16.00, 5.00) lies outside")) << faults;
  EXPECT_TRUE(says(faults, "x 0.00 to 12.00, y 0.00 to 10.00")) << faults;
  EXPECT_TRUE(says(run(folder, "check units.toml").out, "120.00 ft2, 9.00 ft high"));
  EXPECT_TRUE(says(run(folder, "probe units.toml --at 6,5,2.5").out, "at (6.00, 5.00, 2.50) ft"));
  EXPECT_TRUE(says(run(folder, "probe units.toml --at 6,5,2.5 --units lx,ft").out, " lx\n"));
}

TEST(Rooms, AMeshTableGivesTheLightOfTheBuiltInOne) {
  const TemporaryFolder folder;
  write_small_room(folder);
  const json built_in = room_of(folder);
  // The same boxes as a mesh in millimetres, y up: top and four legs.
  std::string obj;
  int corner = 0;
  const auto box = [&](double x, double y, double z, double a, double b, double c) {
    for (int k = 0; k < 8; ++k)
      obj += fmt::format(FMT_STRING("v {} {} {}\n"), 1000 * (x + (k & 1 ? a : 0)),
                         1000 * (z + (k & 4 ? c : 0)), -1000 * (y + (k & 2 ? b : 0)));
    for (const auto& f :
         {std::array{1, 3, 4, 2}, {5, 6, 8, 7}, {1, 2, 6, 5}, {2, 4, 8, 6}, {4, 3, 7, 8}, {3, 1, 5, 7}})
      obj += fmt::format(FMT_STRING("f {} {} {} {}\n"), corner + f[0], corner + f[1], corner + f[2],
                         corner + f[3]);
    corner += 8;
  };
  box(0, 0, 0.71, 1.2, 0.7, 0.03);
  for (const double x : {0.0, 1.15})
    for (const double y : {0.0, 0.65}) box(x, y, 0, 0.05, 0.05, 0.71);
  folder.write("meshes/table.obj", obj);
  write_small_room(folder, "furniture = \"table\"\nsize = [1.2, 0.7, 0.74]\nat = [0.4, 0.4]",
                   "mesh = \"meshes/table.obj\"\nscale = \"mm\"\nup = \"y\"\nmaterial = \"light wood\"\nat = "
                   "[0.4, 0.4, 0]");
  std::string text = content_of(folder.path() / "small.toml");
  text.replace(text.find("on = \"table.top\""), 16,
               "name = \"table 1 top\"\nrectangle = { at = [0.4, 0.4, 0.74], size = [1.2, 0.7] }");
  folder.write("small.toml", text);
  const json mesh = room_of(folder);
  for (const char* grid : {"work plane", "floor", "table 1 top", "display board front"})
    EXPECT_NEAR(mean_of(mesh, grid) / mean_of(built_in, grid), 1, 0.01) << grid;
}

struct Fault {
  const char *from, *to;
  const char *code, *words;
};

void PrintTo(const Fault& fault, std::ostream* out) {
  *out << fault.code << ": " << fault.words;
}

class RoomFault : public ::testing::TestWithParam<Fault> {};

TEST_P(RoomFault, IsToldOnceWithItsMend) {
  const TemporaryFolder folder;
  const Fault& fault = GetParam();
  write_small_room(folder, fault.from, fault.to);
  folder.write("meshes/huge.obj", "v 0 0 0\nv 1600 0 0\nv 1600 800 0\nv 0 0 740\nf 1 2 3\nf 1 3 4\n");
  folder.write("meshes/bad.obj", "v 0 0 0\nf 1 2 3\n");
  const Ran ran = run(folder, "check small.toml");
  std::size_t count = 0;
  for (std::size_t at = ran.err.find(fault.code); at != std::string::npos;
       at = ran.err.find(fault.code, at + 1))
    ++count;
  EXPECT_EQ(count, 1u) << ran.err;
  // That a mesh has no faces for the grid on it is a fault of its own.
  if (!says(ran.err, "P050")) {
    EXPECT_EQ(ran.err.find("error["), ran.err.rfind("error[")) << "no other fault follows\n" << ran.err;
  }
  EXPECT_FALSE(says(ran.err, "P032")) << ran.err;  // no guess follows from a fault
  EXPECT_TRUE(says(ran.err, fault.words)) << ran.err;
  EXPECT_TRUE(says(ran.err, "small.toml:")) << ran.err;
  EXPECT_EQ(ran.code, says(ran.err, "error[") ? 2 : 0);
}

const char* kMesh = "furniture = \"table\"\nsize = [1.2, 0.7, 0.74]\nat = [0.4, 0.4]";

INSTANTIATE_TEST_SUITE_P(
    Faults, RoomFault,
    ::testing::Values(
        Fault{"furniture = \"board\"", "furniture = \"bord\"", "P041", "did you mean \"board\"?"},
        Fault{"size = [1.2, 0.7, 0.74]", "size = [1.2, 0.7]", "P003", "is an array of 2; expected three"},
        Fault{"furniture = \"board\"\nsize = [1.2, 0.03, 0.8]\nat = [1.0, 2.97]",
              "box = [1.2, 0.03, 0.8]\nat = [1.0, 2.97]", "P003", "\"at\" is an array of 2"},
        Fault{"wall = \"street side\"", "wall = \"street\"", "P034",
              "expected a number from 1 to 4, \"street side\""},
        Fault{"[[rooms.openings]]", "[[rooms.walls]]\nwall = 9\n[[rooms.openings]]", "P034",
              "there is no wall 9"},
        Fault{"on = \"display board\"", "on = \"display bord\"", "P051", "did you mean \"display board\"?"},
        Fault{"on = \"table.top\"", "on = \"table.lid\"", "P050",
              "it has: top, bottom, front, right, back, left"},
        Fault{"facing = \"display board\"", "facing = \"sideways\"", "P052",
              "expected up, down, a direction"},
        Fault{"on = \"table.top\"", "on = \"table.top\"\nheight = 1", "P007", "exactly one of \"on\""},
        Fault{"on = \"table.top\"",
              "name = \"bent\"\npolygon = [[0, 0, 1], [1, 0, 1], [1, 1, 1], [0, 1, 1.2]]", "P042",
              "do not lie in one plane"},
        Fault{"on = \"table.top\"", "on = \"table.top\"\ncolumns = 4", "P007", "\"columns\" and \"rows\""},
        Fault{"on = \"table.top\"", "on = \"table.top\"\nkind = \"semi-cylindrical\"", "P004",
              "needs \"facing\""},
        Fault{kMesh, "mesh = \"meshes/huge.obj\"\nat = [1, 1, 0]\nreflectance = 0.4", "P047",
              "give scale = \"mm\""},
        Fault{kMesh, "mesh = \"meshes/bad.obj\"\nat = [1, 1, 0]\nreflectance = 0.4", "P044",
              "\"meshes/bad.obj\" cannot be used"},
        Fault{kMesh, "mesh = \"../table.obj\"\nat = [1, 1, 0]\nreflectance = 0.4", "P043",
              "leads out of the project's folder"},
        Fault{kMesh, "mesh = \"/etc/passwd.obj\"\nat = [1, 1, 0]\nreflectance = 0.4", "P043", "leads out"},
        Fault{"row = {", "mounting = \"suspended\"\nrow = {", "P007",
              "needs \"suspension\" or \"mounting_height\""},
        Fault{"row = {", "mounting = \"floating\"\nrow = {", "P005",
              "recessed, surface, suspended, wall or standing"},
        Fault{"row = { from = [1.0, 1.5], to = [2.6, 1.5], count = 2 }",
              "on_wall = { wall = 1, from = 9 }\nmounting_height = 2", "P035",
              "beyond the end of wall 1, which is 3.60 m long"},
        Fault{"[[rooms]]", "[figures]\nscale = \"square\"\n[[rooms]]", "P005", "expected linear or log"},
        Fault{"name = \"Small room\"", "name = \"Small room\"\nunits = \"furlongs\"", "P005",
              "expected lx or fc, and m or ft"},
        Fault{"reflectance = 0.6", "material = \"white pait\"", "P030", "did you mean \"white paint\"?"},
        Fault{"[[rooms]]", "[materials.red]\nreflectance = 0.6\ncolour = \"#ff0000\"\n[[rooms]]", "P040",
              "one channel would reflect 282 %"},
        Fault{"[[rooms]]", "[materials.red]\nreflectance = 0.2\ncolour = \"reddish\"\n[[rooms]]", "P040",
              "expected \"#rrggbb\""},
        Fault{"[[rooms.openings]]",
              "[[rooms.ceiling]]\nover = [[0, 0], [9, 0], [9, 1]]\nheight = 2.2\n[[rooms.openings]]", "P039",
              "reaches out of \"Office\""},
        Fault{"repeat = { columns = 2, step = [1.5, 0] }", "repeat = { columns = 2, step = [0.9, 0] }",
              "P045", "stand inside each other"}));

/// A yard: what goes up is gone, there is no ceiling, and nothing hangs from it.
TEST(Rooms, MayBeOpenAbove) {
  const TemporaryFolder folder;
  write_project(folder, "height = 3.2", "height = 3.2\nroof = false");
  const Ran hung = run(folder, "run millrace.toml -o out -q");
  EXPECT_EQ(hung.code, 2);
  EXPECT_TRUE(says(hung.err, "error[P015]: luminaire P1 has no ceiling to hang from")) << hung.err;
  write_project(folder, "height = 3.2", "height = 3.2\nroof = false");
  std::string project = content_of(folder.path() / "millrace.toml");
  for (const auto& [from, to] :
       {std::pair<std::string, std::string>{"suspension = 0.5", "mounting_height = 2.7"},
        {"at = [3.2, 5.8]", "at = [3.2, 5.8]\nmounting_height = 3.2"},
        {"at = [6.4, 5.8]", "at = [6.4, 5.8]\nmounting_height = 3.2"}})
    project.replace(project.find(from), from.size(), to);
  folder.write("millrace.toml", project);
  const Ran ran = run(folder, "run millrace.toml -o out -q --json --accuracy draft");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const json room = json_of(ran.out).at("rooms").at(0), &balance = room.at("flux_balance");
  EXPECT_FALSE(room.at("roofed").get<bool>());
  EXPECT_GT(balance.at("escaped_lm").get<double>(), 0.1 * balance.at("emitted_lm").get<double>());
  EXPECT_NEAR(balance.at("emitted_lm").get<double>(),
              balance.at("escaped_lm").get<double>() + balance.at("absorbed_lm").get<double>() +
                  balance.at("lost_lm").get<double>(),
              0.002 * balance.at("emitted_lm").get<double>());
  for (const json& grid : room.at("grids")) EXPECT_NE(grid.at("role"), "ceiling");
}

TEST(Rooms, LuminairesSitWhereTheirMountingSays) {
  struct Case {
    const char* text;
    double x, y, z, rotation;
  };
  const TemporaryFolder folder;
  for (const Case& c : {Case{"at = [1, 1]\nmounting = \"recessed\"", 1, 1, 2.6 + 1.0 / 6, 0},
                        Case{"at = [1, 1]\nsuspension = 0.5", 1, 1, 2.1 + 1.0 / 6, 0},
                        Case{"on_wall = { wall = \"street side\", from = 1.5 }\nmounting_height = 2.0",
                             3.6 - 0.0825 - 0.001, 1.5, 2.0, 180},
                        Case{"ring = { centre = [1.8, 1.5], radius = 0.5, count = 5 }\nmounting_height = 2",
                             2.3, 1.5, 2, 0}}) {
    write_small_room(folder, "row = { from = [1.0, 1.5], to = [2.6, 1.5], count = 2 }", c.text);
    const Ran ran = run(folder, "run small.toml --json -q --no-cache --accuracy draft");
    ASSERT_EQ(ran.code, 0) << ran.err;
    const json group = json_of(ran.out).at("rooms")[0].at("luminaires")[0];
    const json& at = group.at("positions_m")[0];
    EXPECT_NEAR(at[0].get<double>(), c.x, 0.02) << c.text;
    EXPECT_NEAR(at[1].get<double>(), c.y, 1e-6) << c.text;
    EXPECT_NEAR(at[2].get<double>(), c.z, 1e-6) << c.text;
    EXPECT_NEAR(group.at("rotations_deg")[0].get<double>(), c.rotation, 1e-6) << c.text;
  }
}

TEST(Rooms, OwnFluxAndDimmingScaleTheLight) {
  const TemporaryFolder folder;
  write_small_room(folder);
  const double full = mean_of(room_of(folder), "work plane");
  write_small_room(folder, "row = {", "dimming = \"40 %\"\nrow = {");
  EXPECT_NEAR(mean_of(room_of(folder), "work plane") / full, 0.4, 1e-6);
  write_small_room(folder, "file = \"photometry/quillon-d2.ies\"",
                   "file = \"photometry/quillon-d2.ies\"\nflux = 3300\ncct = 2700");
  const json room = room_of(folder);
  EXPECT_NEAR(mean_of(room, "work plane") / full, 2, 1e-3);
  EXPECT_NEAR(room.at("luminaires")[0].at("flux_lm").get<double>(), 3300, 0.01);
  EXPECT_EQ(room.at("luminaires")[0].at("cct_k"), 2700);
}

}  // namespace rooms_test
}  // namespace glow::cli
