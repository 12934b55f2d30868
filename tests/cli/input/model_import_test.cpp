// Rooms from building models and meshes of rooms, and again after the architect's change.
#include "cli/run_program.hpp"
#include "core/plans/line_work.hpp"
#include "files/project/project_reader.hpp"
#include "plans/written_model.hpp"

namespace glow::cli {
namespace model_import_test {

using cases::WrittenModel;

std::optional<model::Project> project_in(const TemporaryFolder& folder, const std::string& name) {
  Problems problems;
  auto project = files::read_project(content_of(folder.path() / name), name, problems);
  EXPECT_FALSE(problems.has_errors());
  return project;
}

void write_demo(const TemporaryFolder& folder) {
  for (const files::EmbeddedFile& file : files::embedded_demo()) {
    std::filesystem::create_directories((folder.path() / file.name).parent_path());
    folder.write(file.name, std::string(file.bytes));
  }
}

TEST(ModelImport, TheExamplesModelGivesTheExamplesRooms) {
  const TemporaryFolder folder;
  write_demo(folder);
  const Ran made = run(folder, "import plans/millrace.ifc -o mill.toml --marks plans/types.csv");
  ASSERT_EQ(made.code, 0) << made.err;
  EXPECT_EQ(made.err, "");
  const auto example = project_in(folder, "millrace.toml"), taken = project_in(folder, "mill.toml");
  ASSERT_TRUE(example && taken);
  ASSERT_EQ(taken->rooms.size() + 1, example->rooms.size()) << "the yard is not drawn";
  EXPECT_NEAR(*taken->site.latitude_deg, *example->site.latitude_deg, 1e-6);
  EXPECT_NEAR(*taken->site.north_deg, *example->site.north_deg, 1e-3);
  ASSERT_EQ(taken->site.obstructions.size(), 1u);
  EXPECT_EQ(taken->site.obstructions[0].object.top_m, example->site.obstructions[0].object.top_m);
  for (const model::Room& room : example->rooms) {
    if (room.outdoors) continue;
    SCOPED_TRACE(room.name);
    const auto found = std::find_if(taken->rooms.begin(), taken->rooms.end(),
                                    [&](const model::Room& other) { return other.name == room.name; });
    ASSERT_NE(found, taken->rooms.end());
    EXPECT_NEAR(geometry::signed_area(geometry::tidied(found->outline)),
                geometry::signed_area(geometry::tidied(room.outline)), 1e-6);
    EXPECT_NEAR(found->height_m, room.height_m, 1e-9);
    EXPECT_EQ(found->ceiling.size(), room.ceiling.size());
    ASSERT_EQ(found->openings.size(), room.openings.size());
    for (const model::Opening& opening : room.openings)
      EXPECT_TRUE(std::any_of(found->openings.begin(), found->openings.end(),
                              [&](const model::Opening& other) {
                                return other.kind == opening.kind &&
                                       std::abs(other.sill_m - opening.sill_m) < 1e-6 &&
                                       (other.size - opening.size).norm() < 1e-6;
                              }))
          << opening.name;
  }
  EXPECT_EQ(run(folder, "check mill.toml -q").code, 0);
  EXPECT_TRUE(says(run(folder, "import mill.toml").out, "mill.toml is as its drawings are"));
}

TEST(ModelImport, IsListedBeforeItIsTaken) {
  const TemporaryFolder folder;
  write_demo(folder);
  const Ran listed = run(folder, "import plans/millrace.ifc --list");
  EXPECT_TRUE(listed.code == 0 && says(listed.out, "5 spaces") && says(listed.out, "Quillon downlight") &&
              says(listed.out, "Lime plaster") && says(listed.out, "52.3000, 10.4000"))
      << listed.out;
}

/// An office of 5 x 4 m with a window and a luminaire, of a type with a comma in its name.
WrittenModel office(double deep = 4000, double sill = 900) {
  WrittenModel m;
  m.aggregate(m.storey(), m.space("office-guid", "0.1", "Office", m.box(0, 0, 5000, deep, 2800)));
  m.opening("window-guid", m.box(0, -300, 5000, 300, 2800), m.box(1000, -300, 1500, 300, 1200, sill),
            "IFCWINDOW");
  const std::string at = m.add("IFCAXIS2PLACEMENT3D(" + m.point(2500, 2000, 2600) + ",$,$)");
  const std::string light =
      m.add("IFCLIGHTFIXTURE('light-guid',$,'L1',$,$," +
            m.add("IFCLOCALPLACEMENT(" + m.place() + "," + at + ")") + ",$,$,.POINTSOURCE.)");
  const std::string type = m.add("IFCLIGHTFIXTURETYPE('t',$,'Panel, 600',$,$,$,$,$,$,.POINTSOURCE.)");
  m.add("IFCRELDEFINESBYTYPE('r',$,$,$,(" + light + ")," + type + ")");
  return m;
}

TEST(ModelImport, LuminairesWaitForTheirFilesAndTheArchitectsChangeIsFollowed) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("m.ifc", office().bytes());
  folder.write("types.csv", "# types\nPanel, 600, photometry/quillon-d2.ies\n");
  const Ran waiting = run(folder, "import m.ifc -o waiting.toml");
  EXPECT_TRUE(waiting.code == 0 && says(waiting.out, "One type of luminaire has no photometric file yet"))
      << waiting.out;
  EXPECT_EQ(run(folder, "check waiting.toml -q").code, 2);
  ASSERT_EQ(run(folder, "import m.ifc -o m.toml --marks types.csv").code, 0);
  const std::string text = content_of(folder.path() / "m.toml");
  EXPECT_TRUE(says(text, "[luminaires.\"Panel, 600\"]\nfile = \"photometry/quillon-d2.ies\"") &&
              says(text, "at = [2.5, 2]\nmounting_height = 2.6") && says(text, "drawn = \"office-guid\""))
      << text;
  folder.write("m.toml", text + "# mine\n");
  folder.write("m.ifc", office(4500, 1000).bytes());
  const Ran again = run(folder, "import m.toml");
  EXPECT_TRUE(again.code == 0 && says(again.out, "altered  Office (Ground): outline, 1 opening moved"))
      << again.out << again.err;
  const auto now = project_in(folder, "m.toml");
  EXPECT_EQ(now->rooms[0].openings[0].sill_m, 1);
  EXPECT_TRUE(says(content_of(folder.path() / "m.toml"), "# mine\n"));
  EXPECT_TRUE(says(run(folder, "import m.toml").out, "as its drawings are"));
}

TEST(ModelImport, ResultsGoBackByTheModelsIdentifiers) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("m.ifc", office().bytes());
  ASSERT_EQ(run(folder, "import m.ifc -o m.toml --mark 'Panel, 600=photometry/quillon-d2.ies'").code, 0);
  const Ran ran = run(folder, "run m.toml -o out -q --accuracy draft");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const Ran exported = run(folder, "export out --to csv");
  ASSERT_EQ(exported.code, 0) << exported.err;
  EXPECT_TRUE(says(content_of(folder.path() / "out/export/rooms.csv"),
                   "\noffice-guid,Ground,Office,0.1,20.000,2.800,"));
}

TEST(ModelImport, SaysWhatIsWrongWithTheCall) {
  const TemporaryFolder folder;
  folder.write("m.ifc", office().bytes());
  folder.write("bad.csv", "Panel 600\n");
  folder.write("gone.csv", "Panel 600,nowhere.ldt\n");
  folder.write("plan.dxf", "0\nEOF\n");
  const std::pair<const char*, const char*> wrong[] = {
      {"import m.ifc -o m.toml --rooms ROOMS", "--rooms is for drawings"},
      {"import m.ifc plan.dxf -o m.toml", "cannot be taken in one go"},
      {"import m.ifc -o m.toml --marks bad.csv", "bad.csv:1: \"Panel 600\"; expected a type of luminaire"},
      {"import m.ifc -o m.toml --marks gone.csv", "there is no file"},
      {"import m.ifc -o m.toml --up x", "expected y or z"},
      {"import none.ifc -o m.toml", "none.ifc"},
  };
  for (const auto& [call, words] : wrong) {
    const Ran ran = run(folder, call);
    EXPECT_EQ(ran.code, 2) << call;
    EXPECT_TRUE(says(ran.err, words)) << call << ": " << ran.err;
    EXPECT_FALSE(std::filesystem::exists(folder.path() / "m.toml")) << call;
  }
}

/// A room of 6 x 4 m as a mesh in millimetres, its ceiling rising from 2.5 to 3.5 m, a window in its front
/// wall. `axes`: order of the coordinates; `without`: a face that is left out.
std::string room_mesh(bool y_up = false, const std::string& without = {}) {
  const std::vector<std::pair<std::string, std::vector<Vec3>>> faces = {
      {"floor", {{0, 0, 0}, {0, 4000, 0}, {6000, 4000, 0}, {6000, 0, 0}}},
      {"ceiling", {{0, 0, 2500}, {6000, 0, 2500}, {6000, 4000, 3500}, {0, 4000, 3500}}},
      {"wall", {{0, 0, 0}, {6000, 0, 0}, {6000, 0, 900}, {0, 0, 900}}},
      {"wall", {{0, 0, 900}, {1000, 0, 900}, {1000, 0, 2100}, {0, 0, 2100}}},
      {"glass", {{1000, 0, 900}, {3000, 0, 900}, {3000, 0, 2100}, {1000, 0, 2100}}},
      {"wall", {{3000, 0, 900}, {6000, 0, 900}, {6000, 0, 2100}, {3000, 0, 2100}}},
      {"wall", {{0, 0, 2100}, {6000, 0, 2100}, {6000, 0, 2500}, {0, 0, 2500}}},
      {"wall", {{0, 4000, 0}, {6000, 4000, 0}, {6000, 4000, 3500}, {0, 4000, 3500}}},
      {"wall", {{0, 0, 0}, {0, 4000, 0}, {0, 4000, 3500}, {0, 0, 2500}}},
      {"east", {{6000, 0, 0}, {6000, 4000, 0}, {6000, 4000, 3500}, {6000, 0, 2500}}}};
  std::string text;
  int corner = 0;
  for (const auto& [name, points] : faces) {
    if (name == without) continue;
    std::string face = "g " + name + "\nf";
    for (const Vec3& p : points) {
      text += y_up ? fmt::format(FMT_STRING("v {} {} {}\n"), p.x(), p.z(), -p.y())
                   : fmt::format(FMT_STRING("v {} {} {}\n"), p.x(), p.y(), p.z());
      face += " " + std::to_string(++corner);
    }
    text += face + "\n";
  }
  return text;
}

TEST(ModelImport, AMeshOfARoomBecomesARoomAndItsLeaksAreShown) {
  const TemporaryFolder folder;
  folder.write("room.obj", room_mesh());
  const Ran unitless = run(folder, "import room.obj -o r.toml");
  EXPECT_TRUE(unitless.code == 2 && says(unitless.err, "likely mm, by which the room measures 6 x 4 x 3.5 m"))
      << unitless.err;
  const Ran made = run(folder, "import room.obj -o r.toml --unit mm");
  EXPECT_TRUE(made.code == 0 && made.err.empty()) << made.err;
  const auto project = project_in(folder, "r.toml");
  ASSERT_EQ(project->rooms.size(), 1u);
  const model::Room& room = project->rooms[0];
  EXPECT_NEAR(geometry::signed_area(room.outline), 24, 1e-9);
  ASSERT_EQ(room.ceiling.size(), 1u);
  EXPECT_NEAR(room.ceiling[0].height_m, 2.5, 1e-9);
  EXPECT_NEAR(room.ceiling[0].to_height_m, 3.5, 1e-9);
  ASSERT_EQ(room.openings.size(), 1u);
  EXPECT_NEAR(room.openings[0].sill_m, 0.9, 1e-9);
  EXPECT_TRUE(says(content_of(folder.path() / "r.toml"), "walls: east, wall"));
  EXPECT_TRUE(says(run(folder, "import r.toml").out, "as its drawings are"));

  folder.write("open.obj", room_mesh(false, "east"));
  const Ran open = run(folder, "import open.obj -o o.toml --unit mm");
  EXPECT_TRUE(open.code == 0 && says(open.err, "the mesh is not closed: 6 edges")) << open.err;
  EXPECT_TRUE(says(content_of(folder.path() / "o-import.svg"), "6 open edges"));

  folder.write("lying.obj", room_mesh(true));
  const Ran lying = run(folder, "import lying.obj -o l.toml --unit mm");
  EXPECT_TRUE(lying.code == 2 && says(lying.err, "Say so with --up y")) << lying.err;
  EXPECT_EQ(run(folder, "import lying.obj -o l.toml --unit mm --up y").code, 0);
  EXPECT_NEAR(geometry::signed_area(project_in(folder, "l.toml")->rooms[0].outline), 24, 1e-9);
}

}  // namespace model_import_test
}  // namespace glow::cli
