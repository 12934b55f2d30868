// Rooms from plan drawings, and again after the architect's change.
#include "cli/run_program.hpp"
#include "files/project/project_reader.hpp"

namespace glow::cli {
namespace import_test {

/// A drawing in millimetres, as text, made of what the tests need.
class Sheet {
 public:
  Sheet& room(const std::vector<std::pair<int, int>>& corners, const std::string& handle) {
    body_ += "0\nLWPOLYLINE\n5\n" + handle + "\n8\nROOM\n90\n" + std::to_string(corners.size()) + "\n70\n1\n";
    for (const auto& [x, y] : corners) body_ += point(x, y);
    return *this;
  }
  Sheet& text(int x, int y, const std::string& words) {
    body_ += "0\nTEXT\n8\nNAMES\n" + point(x, y) + "40\n200\n1\n" + words + "\n";
    return *this;
  }
  /// A door of a leaf and its swing, hinged at x, y in a wall along x.
  Sheet& door(int x, int y, int width, const std::string& handle) {
    const std::string w = std::to_string(width);
    body_ += "0\nLINE\n8\nDOOR\n" + point(x, y) + "11\n" + std::to_string(x) + "\n21\n" +
             std::to_string(y + width) + "\n";
    body_ += "0\nARC\n5\n" + handle + "\n8\nDOOR\n" + point(x, y) + "40\n" + w + "\n50\n0\n51\n90\n";
    return *this;
  }
  Sheet& column(int x, int y, const std::string& handle) {
    body_ += "0\nINSERT\n5\n" + handle + "\n8\nCOLS\n2\nCOL\n" + point(x, y);
    return *this;
  }
  std::string bytes() const {
    return "0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1015\n9\n$"
           "INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nBLOCKS\n"
           "0\nBLOCK\n2\nCOL\n10\n0\n20\n0\n0\nLWPOLYLINE\n8\n0\n90\n4\n70\n1\n" +
           point(-150, -150) + point(150, -150) + point(150, 150) + point(-150, 150) +
           "0\nENDBLK\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n" + body_ + "0\nENDSEC\n0\nEOF\n";
  }

 private:
  static std::string point(int x, int y) {
    return "10\n" + std::to_string(x) + "\n20\n" + std::to_string(y) + "\n";
  }
  std::string body_;
};

Sheet two_rooms() {
  Sheet sheet;
  sheet.room({{0, 0}, {5000, 0}, {5000, 4000}, {0, 4000}}, "A1")
      .text(2000, 2000, "Office")
      .text(2000, 1700, "0.1");
  sheet.room({{5200, 0}, {9000, 0}, {9000, 4000}, {5200, 4000}}, "A2").text(6500, 2000, "Store room");
  return sheet.door(1000, 0, 900, "D1").column(4000, 2000, "C1");
}

const std::string kOptions = " --rooms ROOM --texts NAMES --doors DOOR --block COL=column";

void take_corpus(const TemporaryFolder& folder, const std::string& name) {
  folder.write("plan.dxf", content_of(test_data("plans/dxf/" + name)));
}

TEST(Import, WritesAProjectThatChecksAndAPictureOfWhatWasTaken) {
  const TemporaryFolder folder;
  take_corpus(folder, "o01-mill-ground.dxf");
  const std::string call =
      "import plan.dxf -o mill.toml --rooms ROOM-OUTLINE --texts ROOM-TEXT --doors DOORS --windows WINDOWS "
      "--block COL_400=column,DOOR=door --floor \"Ground floor\" --height 3.2";
  const Ran made = run(folder, call);
  ASSERT_EQ(made.code, 0) << made.err;
  for (const char* words :
       {"Ground floor (plan.dxf): 5 rooms, 164 m2", "wood.machines", "Written: mill.toml", "mill-import.svg"})
    EXPECT_TRUE(says(made.out, words)) << words << "\n" << made.out;
  const std::string text = content_of(folder.path() / "mill.toml");
  for (const char* words :
       {"outline = [[0, 8.08], [9.84, 8.08], [9.84, 11.68], [0, 11.68]]", "number = \"0.01\"",
        "height = 3.2\n", "task = { proposed = \"circulation.corridor\" }", "name = \"door to Sample room\"",
        "outside = false", "block = [[3, 9.85], [3.4, 9.85], [3.4, 10.25], [3, 10.25]]",
        "layers = [\"ROOM-OUTLINE\"]"})
    EXPECT_TRUE(says(text, words)) << words << "\n" << text;
  const std::string picture = content_of(folder.path() / "mill-import.svg");
  EXPECT_TRUE(says(picture, "Turbine room") && says(picture, "WALLS: 63") && says(picture, "4 windows"))
      << picture;
  const Ran checked = run(folder, "check mill.toml");
  EXPECT_EQ(checked.code, 0) << checked.err;
  EXPECT_TRUE(says(checked.err, "its task is a proposal from its name")) << checked.err;
  EXPECT_EQ(run(folder, call).code, 2);
  EXPECT_EQ(content_of(folder.path() / "mill.toml"), text);
}

TEST(Import, FloorsComeFromWindowsOfOneDrawingAndNamesAreUnique) {
  const TemporaryFolder folder;
  take_corpus(folder, "o11-floors-side-by-side.dxf");
  const Ran made =
      run(folder,
          "import plan.dxf -o b.toml --rooms ROOM --texts ROOM-TEXT --floor \"Ground: -1766,2000 "
          "19234,21000\" --floor \"First: 28234,2000 49234,21000\" --level 0 --level \"3.5 m\"");
  ASSERT_EQ(made.code, 0) << made.err;
  const std::string text = content_of(folder.path() / "b.toml");
  EXPECT_TRUE(says(text, "level = 3.5") && says(text, "name = \"Stair 0.0\"") &&
              says(text, "name = \"Stair 1.0\"") && says(text, "origin = [31234, 5000]"))
      << text;
  EXPECT_EQ(run(folder, "check b.toml -q").code, 0);
  EXPECT_TRUE(says(run(folder, "import b.toml").out, "b.toml is as its drawings are"));
  EXPECT_TRUE(std::filesystem::exists(folder.path() / "b-import--first.svg"));
  EXPECT_FALSE(says(made.out, "levels are assumed"));
  const Ran guessed =
      run(folder,
          "import plan.dxf -o g.toml --rooms ROOM --floor \"Ground: -1766,2000 19234,21000\" --floor "
          "\"First: 28234,2000 49234,21000\"");
  EXPECT_TRUE(says(guessed.out, "heights and levels are assumed")) << guessed.out << guessed.err;
  EXPECT_TRUE(says(content_of(folder.path() / "g.toml"), "level = 3.1                          # assumed"));
}

TEST(Import, FollowsTheArchitectAndKeepsWhatTheDesignerAdded) {
  const TemporaryFolder folder;
  folder.write("plan.dxf", two_rooms().bytes());
  ASSERT_EQ(run(folder, "import plan.dxf -o p.toml" + kOptions).code, 0);
  std::string text = content_of(folder.path() / "p.toml");
  const auto change = [&](const std::string& from, const std::string& to) {
    const std::size_t at = text.find(from);
    ASSERT_NE(at, std::string::npos) << from << "\n" << text;
    text.replace(at, from.size(), to);
  };
  change("task = { proposed = \"office.writing\" }", "task = \"office.cad\"  # agreed");
  change("height = 2.1\n",
         "height = 2.3   # measured on site\n\n[[rooms.walls]]\nwall = 3\nname = \"Ä wall\"\n");
  folder.write("p.toml", text);

  Sheet
      sheet;  // the office is longer, its door moved, its column turned into two, the store gone, a room new
  sheet.room({{0, 0}, {5000, 0}, {5000, 4600}, {0, 4600}}, "A1").text(2000, 2000, "Office");
  sheet.room({{0, 5000}, {3000, 5000}, {3000, 8000}, {0, 8000}}, "A9").text(1000, 6000, "Kitchen");
  sheet.door(1500, 0, 1000, "D1").door(3500, 0, 800, "D2").column(4000, 2200, "C1").column(1000, 3000, "C2");
  folder.write("plan.dxf", sheet.bytes());
  const Ran told = run(folder, "import p.toml --only-tell");
  EXPECT_EQ(told.code, 0) << told.err;
  EXPECT_EQ(content_of(folder.path() / "p.toml"), text);
  const Ran made = run(folder, "import p.toml");
  ASSERT_EQ(made.code, 0) << made.err;
  for (const char* words :
       {"altered  Office (plan): outline, 1 opening moved, 1 opening new, 1 thing moved, 1 thing new",
        "gone     Store room (plan); it stays", "new      Kitchen (plan)"})
    EXPECT_TRUE(says(made.out, words)) << words << "\n" << made.out;
  // What the import should have done to it:
  change("[[0, 0], [5, 0], [5, 4], [0, 4]]", "[[0, 0], [5, 0], [5, 4.6], [0, 4.6]]");
  change("from = 1\nwidth = 0.9", "from = 1.5\nwidth = 1");
  change("[[3.85, 1.85], [4.15, 1.85], [4.15, 2.15], [3.85, 2.15]]",
         "[[3.85, 2.05], [4.15, 2.05], [4.15, 2.35], [3.85, 2.35]]");
  const std::string now = content_of(folder.path() / "p.toml");
  std::size_t at = 0;  // every line of it is there, in its order
  std::istringstream lines(text);
  for (std::string line; std::getline(lines, line);) {
    at = now.find(line + "\n", at);
    ASSERT_NE(at, std::string::npos) << line << "\n" << now;
  }
  EXPECT_TRUE(says(now, "name = \"door 2\"") && says(now, "name = \"column 2\"") &&
              says(now, "name = \"Kitchen\""))
      << now;
  EXPECT_EQ(run(folder, "check p.toml -q").code, 0);
  const Ran dropped = run(folder, "import p.toml --drop-gone");
  EXPECT_TRUE(says(dropped.out, "gone     Store room (plan)\n")) << dropped.out;
  EXPECT_FALSE(says(content_of(folder.path() / "p.toml"), "Store room"));
  EXPECT_TRUE(says(run(folder, "import p.toml").out, "p.toml is as its drawings are; nothing was written"));
}

/// Lengths of an outline's edges, shortest first: what stays when a room is turned and moved.
std::vector<double> edges_of(const geometry::Polygon& outline) {
  std::vector<double> edges;
  for (std::size_t k = 0; k < outline.size(); ++k)
    edges.push_back((outline[(k + 1) % outline.size()] - outline[k]).norm());
  std::sort(edges.begin(), edges.end());
  return edges;
}

TEST(Import, FollowsTheArchitectInFeetWhereTheProjectHasThem) {
  const TemporaryFolder folder;
  folder.write("plan.dxf", two_rooms().bytes());
  folder.write("p.toml",
               "format = 1\n[project]\nname = \"Feet\"\nunits = \"ft, fc\"\n[defaults]\nmaintenance_factor = "
               "0.8\n\n[[floors]]\nname = \"Ground\"\nlevel = 0\n"
               "height = \"2.8 m\"\n\n[floors.drawing]\nfile = \"plan.dxf\"\nunit = \"mm\"\norigin = [0, 0]\n"
               "rooms = { from = \"outlines\", layers = [\"ROOM\"] }\ntexts = { layers = [\"NAMES\"] }\n\n"
               "[[rooms]]\nname = \"Office\"\nfloor = \"Ground\"\ndrawn = \"A1\"\n"
               "outline = [[0, 0], [15, 0], [15, 13.1234], [0, 13.1234]]\n");
  const Ran followed = run(folder, "import p.toml");
  ASSERT_EQ(followed.code, 0) << followed.err;
  EXPECT_TRUE(says(followed.out, "altered  Office (Ground): outline")) << followed.out;
  const std::string text = content_of(folder.path() / "p.toml");
  for (const char* outline :
       {"outline = [[0, 0], [16.4042, 0], [16.4042, 13.1234], [0, 13.1234]]",
        "outline = [[17.0604, 0], [29.5276, 0], [29.5276, 13.1234], [17.0604, 13.1234]]"})
    EXPECT_TRUE(says(text, outline)) << text;
  EXPECT_TRUE(says(run(folder, "import p.toml").out, "p.toml is as its drawings are"));
}

TEST(Import, TheExamplesDrawingGivesTheExamplesRooms) {
  const TemporaryFolder folder;
  for (const files::EmbeddedFile& file : files::embedded_demo()) {
    std::filesystem::create_directories((folder.path() / file.name).parent_path());
    folder.write(file.name, std::string(file.bytes));
  }
  const Ran made =
      run(folder,
          "import plans/millrace.dxf -o from-plan.toml --rooms ROOMS --texts NAMES --doors DOORS --windows "
          "WINDOWS --blocks plans/blocks.csv --floor 'River floor: -3000,-2000 17000,12000' --floor 'Street "
          "floor: 29000,-2000 43000,10000' --level 0 --level 3.6");
  ASSERT_EQ(made.code, 0) << made.err;
  EXPECT_EQ(made.err, "");
  EXPECT_EQ(run(folder, "check from-plan.toml -q").code, 0);
  Problems problems;
  const auto example =
      files::read_project(content_of(folder.path() / "millrace.toml"), "millrace.toml", problems);
  const auto taken =
      files::read_project(content_of(folder.path() / "from-plan.toml"), "from-plan.toml", problems);
  ASSERT_TRUE(example && taken);
  ASSERT_EQ(taken->rooms.size() + 1, example->rooms.size()) << "the yard is not drawn";
  for (const model::Room& room : example->rooms) {
    if (room.outdoors) continue;
    SCOPED_TRACE(room.name);
    const auto found = std::find_if(taken->rooms.begin(), taken->rooms.end(),
                                    [&](const model::Room& other) { return other.name == room.name; });
    ASSERT_NE(found, taken->rooms.end());
    const std::vector<double> wanted = edges_of(room.outline), edges = edges_of(found->outline);
    ASSERT_EQ(edges.size(), wanted.size());
    for (std::size_t k = 0; k < edges.size(); ++k) EXPECT_NEAR(edges[k], wanted[k], 1e-6);
    ASSERT_EQ(found->openings.size(), room.openings.size());
    for (const model::Opening& opening : room.openings)
      EXPECT_TRUE(std::any_of(found->openings.begin(), found->openings.end(),
                              [&](const model::Opening& other) {
                                return other.kind == opening.kind &&
                                       std::abs(other.size.x() - opening.size.x()) < 1e-6;
                              }))
          << opening.name;
  }
}

TEST(Import, LuminairesThatAreDrawnAreKeptOrTakenOutAsTold) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("plan.dxf", two_rooms().column(1000, 1500, "E1").column(3000, 1500, "E2").bytes());
  ASSERT_EQ(run(folder,
                "import plan.dxf -o p.toml --rooms ROOM --texts NAMES --block 'COL=luminaire D2' --mark "
                "D2=photometry/quillon-d2.ies")
                .code,
            0);
  const std::string text = content_of(folder.path() / "p.toml");
  EXPECT_TRUE(says(text, "[luminaires.D2]\nfile = \"photometry/quillon-d2.ies\"") &&
              says(text, "mark = \"D2\"\ndrawn = \"E2\"\nat = [3, 1.5]") &&
              says(text, "luminaires = { COL = \"D2\" }"))
      << text;
  const Ran checked = run(folder, "check p.toml");
  EXPECT_TRUE(checked.code == 0 && says(checked.out, "3 luminaires")) << checked.out << checked.err;
  EXPECT_TRUE(says(run(folder, "import p.toml").out, "p.toml is as its drawings are"));
  Sheet moved;  // one is elsewhere, two are gone
  moved.room({{0, 0}, {5000, 0}, {5000, 4000}, {0, 4000}}, "A1")
      .text(2000, 2000, "Office")
      .text(2000, 1700, "0.1");
  moved.room({{5200, 0}, {9000, 0}, {9000, 4000}, {5200, 4000}}, "A2").text(6500, 2000, "Store room");
  folder.write("plan.dxf", moved.door(1000, 0, 900, "D1").column(3000, 2500, "E2").bytes());
  const Ran again = run(folder, "import p.toml");
  EXPECT_TRUE(says(again.out, "1 luminaire moved, 2 luminaires gone")) << again.out << again.err;
  const std::string now = content_of(folder.path() / "p.toml");
  EXPECT_TRUE(says(now, "at = [3, 2.5]") && !says(now, "at = [1, 1.5]")) << now;
  ASSERT_EQ(run(folder, "import plan.dxf -o q.toml --rooms ROOM --block COL=ignore").code, 0);
  EXPECT_FALSE(says(content_of(folder.path() / "q.toml"), "rooms.luminaires"));
}

/// Rooms between a hundred thousand lines and more would take minutes: a small file can make as many.
TEST(Import, TooManyLinesForWallsAreRefusedByName) {
  const TemporaryFolder folder;
  folder.write("plan.dxf",
               "0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1009\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n"
               "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nDASH\n10\n0\n20\n0\n"
               "0\nLINE\n8\n0\n10\n0\n20\n0\n11\n300\n21\n0\n0\nENDBLK\n0\nENDSEC\n"
               "0\nSECTION\n2\nENTITIES\n0\nINSERT\n8\nPATTERN\n2\nDASH\n10\n0\n20\n0\n"
               "70\n400\n71\n300\n44\n1000\n45\n1000\n0\nENDSEC\n0\nEOF\n");
  for (const char* rooms : {"--walls PATTERN", "--rooms PATTERN --from lines"}) {
    const Ran refused = run(folder, std::string("import plan.dxf -o p.toml ") + rooms);
    EXPECT_EQ(refused.code, 2);
    EXPECT_TRUE(says(refused.err, "between 120000 lines, more than 100000")) << refused.err;
  }
  EXPECT_FALSE(std::filesystem::exists(folder.path() / "p.toml"));
}

TEST(Import, ListsWhatADrawingHolds) {
  const TemporaryFolder folder;
  take_corpus(folder, "o47-layers-frozen.dxf");
  const Ran ran = run(folder, "import plan.dxf --list");
  EXPECT_EQ(ran.code, 0) << ran.err;
  EXPECT_TRUE(says(ran.out, "unit: not stated") && says(ran.out, "frozen") && says(ran.out, "ROOM-OLD"))
      << ran.out;
}

struct Refused {
  const char *call, *words;
};
class ImportRefusal : public testing::TestWithParam<Refused> {};

TEST_P(ImportRefusal, SaysWhatIsWrongAndWritesNothing) {
  const TemporaryFolder folder;
  folder.write("plan.dxf", two_rooms().bytes());
  folder.write("noted.toml",
               "format = 1\n[defaults]\nmaintenance_factor = 0.8\n[[rooms]]\nname = \"A\"\nsize = [3, "
               "3]\nheight = 3\n");
  folder.write("blocks.csv", "# what blocks are\nCOL,colum\n");
  const Ran ran = run(folder, std::string("import ") + GetParam().call);
  EXPECT_EQ(ran.code, 2) << ran.out;
  EXPECT_TRUE(says(ran.err, GetParam().words)) << ran.err;
  EXPECT_FALSE(std::filesystem::exists(folder.path() / "p.toml"));
}

INSTANTIATE_TEST_SUITE_P(
    Calls, ImportRefusal,
    testing::Values(
        Refused{"plan.dxf -o p.toml", "ROOM holds 2 closed outlines. Say it with --rooms LAYER"},
        Refused{"plan.dxf --rooms ROOM", "Give -o PROJECT.toml"},
        Refused{"none.dxf -o p.toml --rooms ROOM", "none.dxf"},
        Refused{"plan.dxf -o p.toml --rooms ROM", "did you mean \"ROOM\"?"},
        Refused{"plan.dxf -o p.toml --walls DOOR", "no room was found"},
        Refused{"plan.dxf -o p.toml --rooms ROOM --unit feet", "--unit is \"feet\"; expected mm"},
        Refused{"plan.dxf -o p.toml --rooms ROOM --known-distance 4", "such as \"250,834 690,834 = 4.4 m\""},
        Refused{"plan.dxf -o p.toml --rooms ROOM --known-distance \"1,1 1,1 = 3\"", "true distance"},
        Refused{"plan.dxf -o p.toml --rooms ROOM --from doors", "expected outlines, hatches, lines or walls"},
        Refused{"plan.dxf -o p.toml --rooms ROOM --origin here", "--origin is \"here\""},
        Refused{"plan.dxf -o p.toml --rooms ROOM --rotate 3 --along \"0,0 1,1\"", "give one of them"},
        Refused{"plan.dxf -o p.toml --rooms ROOM --joint 4", "--joint is 4 m; expected"},
        Refused{"plan.dxf -o p.toml --rooms ROOM --block COL", "expected NAME=USE"},
        Refused{"plan.dxf -o p.toml --rooms ROOM --block COL=colum", "did you mean \"column\"?"},
        Refused{"plan.dxf -o p.toml --rooms ROOM --blocks blocks.csv", "is to be \"colum\""},
        Refused{"plan.dxf -o p.toml --rooms ROOM --floor \"A: 1,1\"", "two corners"},
        Refused{"plan.dxf plan.dxf -o p.toml --rooms ROOM", "two floors are called \"plan\""},
        Refused{"plan.dxf -o p.toml --rooms ROOM --height 0.5", "--height is 0.5 m"},
        Refused{"plan.dxf -o p.toml --rooms ROOM --mark P1", "expected MARK=FILE"},
        Refused{"plan.dxf -o p.toml --rooms ROOM --level 0 --level 3", "there are 2 --level and 1 floors"},
        Refused{"noted.toml", "none of its [[floors]] has a drawing"}));

}  // namespace import_test
}  // namespace glow::cli
