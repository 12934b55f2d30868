// Buildings: settings that go to many rooms, floors, and results back into the architect's drawing.
#include <pugixml.hpp>

#include "core/plans/drawing.hpp"
#include "files/plans/dxf/document_reader.hpp"
#include "run_program.hpp"

namespace glow::cli {
namespace export_test {

/// Two floors beside each other in a drawing that is turned and far from zero, one room each.
std::string building(const TemporaryFolder& folder) {
  write_project(folder);
  std::string text = R"(format = 1
[project]
name = "Two floors"
standard = "EN 12464-1:2021"
[defaults]
reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }
maintenance_factor = 0.8
[luminaires.D2]
file = "photometry/quillon-d2.ies"

[[floors]]
name = "Ground"
level = 0
height = 3.0
[floors.drawing]
file = "plan.dxf"
unit = "mm"
origin = [2612408370, 1204977215]
rotate = 17.3

[[floors]]
name = "Upper"
level = 3.4
height = 2.6

[[settings]]
[[settings.luminaires]]
mark = "D2"
array = { rows = 1, columns = 2 }

[[settings]]
for = { task = "circulation.*", floor = "Upper" }
maintenance_factor = 0.7
[[settings.luminaires]]
mark = "D2"
at = [1, 1]
rotation = 30

[[rooms]]
name = "Office"
number = "0.1"
floor = "Ground"
outline = [[1, 1], [5, 1], [5, 4], [1, 4]]
task = "office.writing"

[[rooms]]
name = "Passage"
floor = "Upper"
outline = [[0, 0], [6, 0], [6, 2], [0, 2]]
task = { proposed = "circulation.corridor" }

[[rooms]]
name = "Store"
floor = "Upper"
height = 2.2
outline = [[0, 3], [3, 3], [3, 6], [0, 6]]
task = "storage.store-room"
)";
  folder.write("b.toml", text);
  return text;
}

TEST(Building, SettingsAndFloorsGoToTheRoomsThatTheyAreFor) {
  const TemporaryFolder folder;
  building(folder);
  const Ran ran = run(folder, "check b.toml");
  ASSERT_EQ(ran.code, 0) << ran.err;
  for (const char* words : {"12.00 m2, 3.00 m high, 2 luminaires, maintenance factor 0.80",
                            "12.00 m2, 2.60 m high, 1 luminaire, maintenance factor 0.70",
                            "9.00 m2, 2.20 m high, 2 luminaires, maintenance factor 0.80"})
    EXPECT_TRUE(says(ran.out, words)) << words << "\n" << ran.out;
}

TEST(Building, RoomsAreChosenByFloorAndPatternAndTheStatusHasAPlanForEachFloor) {
  const TemporaryFolder folder;
  building(folder);
  const Ran upper = run(folder, "run b.toml --floor Upper");
  ASSERT_EQ(upper.code, 0) << upper.err;
  EXPECT_TRUE(says(upper.out, "Passage") && says(upper.out, "Office                 not computed"))
      << upper.out;
  const Ran ran = run(folder, "run b.toml");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const std::string status = content_of(folder.path() / "b-results/figures/project--status.svg");
  EXPECT_TRUE(says(status, "Ground: ") && says(status, "Upper: ") && says(status, "Store")) << status;
  const std::string floor = content_of(folder.path() / "b-results/figures/floor--upper.svg");
  EXPECT_TRUE(says(floor, "level +3.40 m") && says(floor, "Passage") && !says(floor, "Office")) << floor;
  const Ran shown = run(folder, "show b-results grids --room 'P*' --room Off?ce");
  EXPECT_TRUE(says(shown.out, "Passage") && says(shown.out, "Office") && !says(shown.out, "Store"))
      << shown.out;
  for (const auto& [call, words] :
       {std::pair{"show b-results --floor Cellar", "there is no floor \"Cellar\"; there are: Ground, Upper"},
        std::pair{"show b-results --room 'X*'", "there is no room \"X*\""},
        std::pair{"show b-results --room Office --floor Upper", "none of these rooms is on that floor"},
        std::pair{"run b.toml --floor Uper", "did you mean \"Upper\"?"}}) {
    const Ran refused = run(folder, call);
    EXPECT_EQ(refused.code, 2);
    EXPECT_TRUE(says(refused.err, words)) << refused.err;
  }
}

TEST(Building, OneProjectMayLieInSeveralFiles) {
  const TemporaryFolder folder;
  std::string text = building(folder);
  const std::size_t upper = text.find("[[rooms]]\nname = \"Passage\"");
  ASSERT_NE(upper, std::string::npos);
  folder.write("upper.toml", "# The upper floor.\nformat = 1\n\n" + text.substr(upper));
  text = text.substr(0, upper);
  text.insert(text.find("standard ="), "parts = [\"upper.toml\"]\n");
  folder.write("b.toml", text);
  const Ran ran = run(folder, "check b.toml");
  ASSERT_EQ(ran.code, 0) << ran.err;
  EXPECT_TRUE(says(ran.out, "Passage") && says(ran.out, "Office")) << ran.out;
  EXPECT_TRUE(says(ran.err, "upper.toml:8:8: warning[P097]")) << ran.err;
  // A room that has its luminaires from settings gets its own.
  const std::string as_written = content_of(folder.path() / "upper.toml");
  ASSERT_EQ(run(folder, "arrange b.toml --room Passage --mark D2 --write -q").code, 0);
  EXPECT_TRUE(
      says(content_of(folder.path() / "upper.toml"),
           "task = { proposed = \"circulation.corridor\" }\n\n[[rooms.luminaires]]\nmark = \"D2\"\narray"))
      << content_of(folder.path() / "upper.toml");
  folder.write("upper.toml", as_written);
  // What is written goes to the file that it belongs to.
  const std::string part =
      content_of(folder.path() / "upper.toml") + "\n[[rooms.luminaires]]\nmark = \"D2\"\nat = [1, 4]\n";
  folder.write("upper.toml", part);
  ASSERT_EQ(run(folder, "arrange b.toml --room Store --mark D2 --write -q").code, 0);
  EXPECT_EQ(content_of(folder.path() / "b.toml"), text);
  const std::string now = content_of(folder.path() / "upper.toml");
  EXPECT_TRUE(now != part && now.rfind("# The upper floor.\nformat = 1\n\n[[rooms]]", 0) == 0 &&
              says(now, "array = {"))
      << now;
  for (const auto& [bytes, words] :
       {std::pair{"name = 3\n", "upper.toml: error[P101]"},
        std::pair{"[[rooms]]\nnme = \"A\"\n", "upper.toml:2:1: error[P004]"},
        std::pair{"[[rooms]\n", "upper.toml:1:"}, std::pair{"[defaults]\n", "upper.toml:1:"}}) {
    folder.write("upper.toml", bytes);
    const Ran refused = run(folder, "check b.toml");
    EXPECT_EQ(refused.code, 2);
    EXPECT_TRUE(says(refused.err, words)) << words << "\n" << refused.err;
  }
  std::filesystem::remove(folder.path() / "upper.toml");
  EXPECT_EQ(run(folder, "check b.toml").code, 2);
}

/// What a reader of drawings finds on a layer.
std::vector<files::dxf::Entity> on_layer(const files::dxf::Document& document, const std::string& layer) {
  std::vector<files::dxf::Entity> found;
  for (const files::dxf::Entity& entity : document.entities)
    if (document.layers[entity.layer].name == layer) found.push_back(entity);
  return found;
}

TEST(Export, PutsResultsWhereTheArchitectHasTheRooms) {
  const TemporaryFolder folder;
  building(folder);
  ASSERT_EQ(run(folder, "run b.toml -q").code, 0);
  const Ran ran = run(folder, "export b-results --to dxf");
  ASSERT_EQ(ran.code, 0) << ran.err;
  EXPECT_TRUE(says(ran.out, "plan--light.dxf, as plan.dxf lies") &&
              says(ran.out, "rooms--light.dxf, in metres"))
      << ran.out;
  Problems problems;
  const std::string bytes = content_of(folder.path() / "b-results/export/plan--light.dxf");
  const auto document = files::dxf::read_document(bytes, "plan--light.dxf", problems);
  ASSERT_TRUE(document && problems.all().empty());
  EXPECT_EQ(document->unit_code, 4);
  const plans::Frame frame{0.001, Vec2(2612408370, 1204977215), 17.3};
  std::vector<Vec2> positions;
  for (const auto& entity : on_layer(*document, "LIGHT-LUMINAIRES")) {
    if (const auto* insert = std::get_if<files::dxf::Insert>(&entity.shape)) {
      positions.push_back(frame.to_metres(insert->at.xy()));
      EXPECT_NEAR(insert->rotation * 180 / M_PI, 360 - 17.3, 1e-6);
      EXPECT_EQ(insert->name(), "LUMINAIRE-D2");
    }
  }
  ASSERT_EQ(positions.size(), 2u);
  EXPECT_LT((positions[0] - Vec2(2, 2.5)).norm(), 1e-4);
  EXPECT_LT((positions[1] - Vec2(4, 2.5)).norm(), 1e-4);
  const auto rooms = on_layer(*document, "LIGHT-ROOMS");
  ASSERT_EQ(rooms.size(), 1u);
  EXPECT_LT((frame.to_metres(std::get<files::dxf::Polyline>(rooms[0].shape).vertices[0].at.xy()) - Vec2(1, 1))
                .norm(),
            1e-4);
  EXPECT_FALSE(on_layer(*document, "LIGHT-NUMBERS").empty() || on_layer(*document, "LIGHT-ISOLUX").empty() ||
               on_layer(*document, "LIGHT-FALSE-COLOURS").empty());
  EXPECT_TRUE(says(bytes, "MARK\n") && says(bytes, "HEIGHT\n") && says(bytes, "3.000"));

  const Ran table = run(folder, "export b-results --to csv -o l.csv --room Office");
  ASSERT_EQ(table.code, 0) << table.err;
  const Vec2 there = frame.to_drawing(Vec2(2, 2.5));
  EXPECT_TRUE(
      says(content_of(folder.path() / "l.csv"),
           fmt::format(FMT_STRING("Ground,Office,0.1,D2,2.0000,2.5000,3.0000,0,plan.dxf,{:.6f},{:.6f},342.7"),
                       there.x(), there.y())))
      << content_of(folder.path() / "l.csv");
  EXPECT_EQ(run(folder, "export b-results --to pdf").code, 2);
  EXPECT_EQ(run(folder, "export b-results --to dxf --scene night").code, 2);
}

TEST(Export, OpensInAnIndependentReaderAtTheSameCoordinates) {
  if (std::system("/usr/bin/python3 -c 'import ezdxf' 2> /dev/null") != 0)
    GTEST_SKIP() << "python3-ezdxf is not installed";
  const TemporaryFolder folder;
  building(folder);
  ASSERT_EQ(run(folder, "run b.toml -q").code, 0);
  ASSERT_EQ(run(folder, "export b-results --to dxf -o all").code, 0);
  folder.write("look.py",
               "import ezdxf\nd = ezdxf.readfile('all/plan--light.dxf')\nassert not d.audit().errors\n"
               "i = d.modelspace().query('INSERT')\nprint(len(i), *('%.3f' % v for v in (i[0].dxf.insert.x, "
               "i[0].dxf.insert.y)))\n"
               "print(*(a.dxf.tag + '=' + a.dxf.text for a in i[0].attribs))\n");
  ASSERT_EQ(std::system(("cd '" + folder.path().string() + "' && /usr/bin/python3 look.py > seen").c_str()),
            0);
  const Vec2 there = plans::Frame{0.001, Vec2(2612408370, 1204977215), 17.3}.to_drawing(Vec2(2, 2.5));
  EXPECT_EQ(
      content_of(folder.path() / "seen"),
      fmt::format(FMT_STRING("2 {:.3f} {:.3f}\nMARK=D2 ROTATION=0 HEIGHT=3.000\n"), there.x(), there.y()));
}

TEST(Export, AWorkbookHoldsTheResultsAsNumbersAndIsTheSameEveryTime) {
  if (std::system("/usr/bin/python3 -c 'import openpyxl' 2> /dev/null") != 0)
    GTEST_SKIP() << "python3-openpyxl is not installed";
  const TemporaryFolder folder;
  building(folder);
  ASSERT_EQ(run(folder, "run b.toml -q").code, 0);
  ASSERT_EQ(run(folder, "export b-results --to xlsx").code, 0);
  ASSERT_EQ(run(folder, "export b-results --to xlsx -o again.xlsx").code, 0);
  EXPECT_EQ(content_of(folder.path() / "again.xlsx"),
            content_of(folder.path() / "b-results/export/results.xlsx"));
  folder.write(
      "look.py",
      "import openpyxl, warnings\nwarnings.simplefilter('error')\nb = openpyxl.load_workbook('again.xlsx')\n"
      "print(*b.sheetnames, sep='|')\n"
      "row = [r for r in b['Summary'].iter_rows(values_only=True) if r[2] == 'Office'][0]\n"
      "print('%.6f %.6f' % (row[7], row[9]))\nassert b['Summary']['J5'].number_format == '0.00'\n"
      "print(sum(1 for r in b['Checks'].iter_rows(min_row=2, values_only=True)))\n"
      "print(sum(1 for r in b['Luminaires'].iter_rows(min_row=2, values_only=True)))\n");
  ASSERT_EQ(std::system(("cd '" + folder.path().string() + "' && /usr/bin/python3 look.py > seen").c_str()),
            0);
  const json results = json_in(folder.path() / "b-results/results.json");
  std::size_t checks = 0, luminaires = 0;
  for (const json& room : results["rooms"]) {
    checks += room["checks"].size();
    for (const json& group : room["luminaires"]) luminaires += group["positions_m"].size();
  }
  const json& plane = results["rooms"][0]["grids"][0];
  EXPECT_EQ(
      content_of(folder.path() / "seen"),
      fmt::format(FMT_STRING("Summary|Checks|Luminaires|Office|Passage|Store\n{:.6f} {:.6f}\n{}\n{}\n"),
                  plane["mean_lx"].get<double>(), plane["uniformity"].get<double>(), checks, luminaires));
}

TEST(Export, EveryPointStandsInOneLongTable) {
  const TemporaryFolder folder;
  building(folder);
  ASSERT_EQ(run(folder, "run b.toml -q").code, 0);
  ASSERT_EQ(run(folder, "export b-results --to points -o p.csv").code, 0);
  const std::string table = content_of(folder.path() / "p.csv");
  EXPECT_EQ(table.substr(0, table.find('\n')),
            "floor,room,scene,date,local_time,grid,x_m,y_m,z_m,direct_lx,interreflected_lx,total_lx");
  std::ptrdiff_t points = 0;
  const json results = json_in(folder.path() / "b-results/results.json");
  for (const json& room : results["rooms"])
    for (const json& grid : room["grids"]) points += grid["points"].get<std::ptrdiff_t>();
  EXPECT_EQ(std::count(table.begin(), table.end(), '\n'), points + 1);
}

TEST(Export, XmlHoldsEveryTableBySchema) {
  if (std::system("command -v xmllint > /dev/null") != 0) GTEST_SKIP() << "libxml2-utils is not installed";
  const TemporaryFolder folder;
  for (const files::EmbeddedFile& file : files::embedded_demo()) {
    std::string content(file.bytes);
    if (file.name == "millrace.toml")
      content.resize(content.find("[[variants"));  // they hold the same tables
    folder.write("d/" + std::string(file.name), content);
  }
  ASSERT_EQ(run(folder, "run d/millrace.toml -q -a draft --room Showroom").code, 0);
  ASSERT_EQ(run(folder, "export d/millrace-results --to xml -o r.xml").code, 0);
  EXPECT_EQ(std::system(fmt::format(FMT_STRING("xmllint --noout --schema {} '{}' 2> /dev/null"),
                                    test_data("../docs/results.xsd"), (folder.path() / "r.xml").string())
                            .c_str()),
            0);
  pugi::xml_document document;
  ASSERT_TRUE(document.load_file((folder.path() / "r.xml").c_str()));
  const json results = json_in(folder.path() / "d/millrace-results/results.json");
  const pugi::xml_node first = document.child("results").child("room");
  const json& room = results["rooms"][0];
  EXPECT_EQ(first.attribute("room").value(), room["name"].get<std::string>());
  EXPECT_EQ(first.attribute("mean_lx").as_double(), room["grids"][0]["mean_lx"].get<double>());
  for (const char* list : {"checks", "grids", "views", "luminaires", "scenes", "moments", "points"})
    EXPECT_TRUE(first.child(list).first_child()) << list;
}

/// Arguments, and the first line of what is shown.
struct ShownData {
  const char *arguments, *first_line;
};

class Show : public testing::TestWithParam<ShownData> {};

TEST_P(Show, TellsResultsAsData) {
  static const TemporaryFolder folder;
  if (!std::filesystem::exists(folder.path() / "b-results")) {
    building(folder);
    ASSERT_EQ(run(folder, "run b.toml -q").code, 0);
  }
  const Ran shown = run(folder, std::string("show b-results ") + GetParam().arguments);
  ASSERT_EQ(shown.code, 0) << shown.err;
  EXPECT_EQ(shown.out.substr(0, shown.out.find('\n')), GetParam().first_line);
}

INSTANTIATE_TEST_SUITE_P(
    Sections, Show,
    testing::Values(
        ShownData{
            "rooms --csv",
            "floor,number,room,verdict,task,area_m2,target_lx,mean_lx,mean_uncertainty_lx,u0,luminaires,"
            "power_w,power_density_w_m2,installed_w_m2_per_100_lx,changed_since"},
        ShownData{"checks --csv --room Office",
                  "room,scene,of,quantity,required,found,uncertainty,unit,verdict,binding,standard,source,"
                  "certainty"},
        ShownData{
            "--grid floor --points --csv --units fc,ft",
            "floor,room,scene,date,local_time,grid,x_ft,y_ft,z_ft,direct_fc,interreflected_fc,total_fc"},
        ShownData{
            "grids --csv",
            "room,scene,grid,kind,points,mean_lx,mean_uncertainty_lx,least_lx,most_lx,u0,direct_mean_lx,"
            "reflected_mean_lx,daylight_factor_percent"},
        ShownData{"--json", "{"},
        ShownData{"glare --csv",
                  "room,scene,eyes,x_m,y_m,z_m,azimuth_deg,ugr,gr,"
                  "background_cd_m2,worst_luminaire,worst_share"}));

TEST(ShowData, SaysWhatThereIsAndAgreesWithTheResults) {
  const TemporaryFolder folder;
  building(folder);
  ASSERT_EQ(run(folder, "run b.toml -q").code, 0);
  const json shown = json::parse(run(folder, "show b-results --json").out);
  const json results = json_in(folder.path() / "b-results/results.json");
  ASSERT_EQ(shown["rooms"].size(), results["rooms"].size());
  for (std::size_t r = 0; r < shown["rooms"].size(); ++r)
    EXPECT_EQ(shown["rooms"][r]["mean_lx"], results["rooms"][r]["grids"][0]["mean_lx"]);
  const json points = json::parse(run(folder, "show b-results --grid floor --points --json").out)["points"];
  std::vector<double> told, found;
  for (const json& point : points) told.push_back(point["direct_lx"]);
  for (const json& room : results["rooms"])
    for (const json& grid : room["grids"])
      if (grid["name"] == "floor")
        for (const json& value : grid["direct_lx"]) found.push_back(value);
  EXPECT_EQ(told, found);
  for (const auto& [arguments, word] :
       {std::pair{"nothing", "no section \"nothing\""},
        std::pair{"--grid nothing", "no grid or point \"nothing\""},
        std::pair{"--scene nothing", "no scene \"nothing\""}, std::pair{"all --csv", "name a section"},
        std::pair{"floors --json", "\"floors\" as data"}}) {
    const Ran refused = run(folder, std::string("show b-results ") + arguments);
    EXPECT_EQ(refused.code, 2);
    EXPECT_NE(refused.err.find(word), std::string::npos) << refused.err;
  }
}

}  // namespace export_test
}  // namespace glow::cli
