// Building models: what shapes come out as, what is told, and what damaged files are refused with.
#include "files/plans/model_reader.hpp"

#include <gtest/gtest.h>

#include "core/plans/models/room_of_shell.hpp"
#include "core/plans/models/take_model.hpp"
#include "files/plans/step/step_file.hpp"
#include "plans/written_model.hpp"

namespace glow::files {
namespace model_reader_test {

using cases::WrittenModel;
using plans::FoundRoom;
using plans::TakenModel;

struct Taken {
  std::optional<TakenModel> model;
  Problems problems;
  const FoundRoom& room(std::size_t k = 0) const { return model->storeys.at(0).plan.rooms.at(k); }
  bool told(const std::string& code) const {
    return std::any_of(problems.all().begin(), problems.all().end(),
                       [&](const Problem& problem) { return problem.code == code; });
  }
  std::string words() const {
    std::string all;
    for (const Problem& problem : problems.all()) all += to_string(problem) + "\n";
    return all;
  }
};

Taken taken(const std::string& bytes, const char* name = "m.ifc", const plans::Frame& frame = {}) {
  Taken result;
  const auto model = read_model(bytes, name, std::nullopt, result.problems);
  if (!model) return result;
  result.model = plans::take_model(*model, frame);
  tell_doubts(result.model->doubts, name, result.problems);
  for (const plans::TakenStorey& storey : result.model->storeys)
    tell_doubts(storey.plan.doubts, name, result.problems);
  return result;
}

/// One space of some solids on the storey.
Taken taken_space(const std::function<std::string(WrittenModel&)>& solids) {
  WrittenModel model;
  const std::string space = model.space("s", "1", "Hall", solids(model));
  model.aggregate(model.storey(), space);
  return taken(model.bytes());
}

double area(const FoundRoom& room) {
  return geometry::signed_area(room.outline);
}

struct ShapeCase {
  const char* name;
  std::function<std::string(WrittenModel&)> solids;
  double area_m2, height_m;
  std::size_t ceilings, holes;
  const char* doubt;  ///< empty: none
};
void PrintTo(const ShapeCase& one, std::ostream* out) {
  *out << one.name;
}

/// A box of 6 x 4 x 3 m, cut by a plane through a point with a normal.
std::string cut_box(WrittenModel& m, const Vec3& at, const Vec3& normal, const char* agreement) {
  const std::string direction = m.add(
      fmt::format(FMT_STRING("IFCDIRECTION(({:.6f},{:.6f},{:.6f}))"), normal.x(), normal.y(), normal.z()));
  const std::string axes =
      m.add("IFCAXIS2PLACEMENT3D(" + m.point(at.x(), at.y(), at.z()) + "," + direction + ",$)");
  const std::string plane = m.add("IFCPLANE(" + axes + ")");
  const std::string half = m.add("IFCHALFSPACESOLID(" + plane + ",." + agreement + ".)");
  return m.add("IFCBOOLEANCLIPPINGRESULT(.DIFFERENCE.," + m.box(0, 0, 6000, 4000, 3000) + "," + half + ")");
}

/// The same shape by a map, mirrored in x.
std::string mirrored(WrittenModel& m) {
  const std::string body = m.add("IFCSHAPEREPRESENTATION(" + m.context() + ",'Body','SweptSolid',(" +
                                 m.box(1000, 0, 6000, 4000, 3000) + "))");
  const std::string map = m.add("IFCREPRESENTATIONMAP(" + m.axes() + "," + body + ")");
  const std::string x = m.add("IFCDIRECTION((-1.,0.,0.))"), y = m.add("IFCDIRECTION((0.,1.,0.))"),
                    z = m.add("IFCDIRECTION((0.,0.,1.))");
  const std::string to = m.add("IFCCARTESIANTRANSFORMATIONOPERATOR3D(" + x + "," + y + "," +
                               m.point(0, 0, 0) + ",1.," + z + ")");
  return m.add("IFCMAPPEDITEM(" + map + "," + to + ")");
}

std::string triangles(WrittenModel& m, const char* faces) {
  const std::string list = m.add(
      "IFCCARTESIANPOINTLIST3D(((0.,0.,0.),(6000.,0.,0.),(6000.,4000.,0.),(0.,4000.,0.),(0.,0.,3000.),(6000.,"
      "0.,3000.),"
      "(6000.,4000.,3000.),(0.,4000.,3000.)))");
  return m.add("IFCTRIANGULATEDFACESET(" + list + ",$,.T.,(" + faces + "),$)");
}

const std::vector<ShapeCase>& shape_cases() {
  static const std::vector<ShapeCase> cases = {
      {"Box", [](WrittenModel& m) { return m.box(0, 0, 6000, 4000, 3000); }, 24, 3, 0, 0, ""},
      {"TwoPartsSideBySide",
       [](WrittenModel& m) { return m.box(0, 0, 6000, 4000, 3000) + "," + m.box(6000, 0, 2000, 4000, 3000); },
       32, 3, 0, 0, ""},
      {"ALowerPart",
       [](WrittenModel& m) { return m.box(0, 0, 6000, 4000, 3000) + "," + m.box(6000, 0, 2000, 4000, 2400); },
       32, 3, 1, 0, ""},
      {"OnePartOverAnother",
       [](WrittenModel& m) {
         return m.box(0, 0, 6000, 4000, 3000) + "," + m.box(0, 0, 6000, 4000, 1000, 3000);
       },
       24, 4, 0, 0, ""},
      {"AStepInTheFloor",
       [](WrittenModel& m) {
         return m.box(0, 0, 6000, 4000, 3000) + "," + m.box(6000, 0, 2000, 4000, 2700, 300);
       },
       32, 3, 0, 0, "floor-levels"},
      {"PartsApart",
       [](WrittenModel& m) { return m.box(0, 0, 6000, 4000, 3000) + "," + m.box(7000, 0, 2000, 4000, 3000); },
       24, 3, 0, 0, "space-in-pieces"},
      {"CutByAHalfSpaceAgainstItsNormal",
       [](WrittenModel& m) {
         return cut_box(m, {0, 0, 2000}, Vec3(0, 0.25, -1).normalized(), "T");
       },
       24, 3, 1, 0, ""},
      {"CutByAHalfSpaceAlongItsNormal",
       [](WrittenModel& m) {
         return cut_box(m, {0, 0, 2000}, Vec3(0, -0.25, 1).normalized(), "F");
       },
       24, 3, 1, 0, ""},
      {"MappedAndMirrored", mirrored, 24, 3, 0, 0, ""},
      {"Triangles",
       [](WrittenModel& m) {
         return triangles(
             m,
             "(1,3,2),(1,4,3),(5,6,7),(5,7,8),(1,2,6),(1,6,5),(2,3,7),(2,7,6),(3,4,8),(3,8,7),(4,1,5),"
             "(4,5,8)");
       },
       24, 3, 0, 0, ""},
      {"Butterfly",  // two slopes that fall to a valley
       [](WrittenModel& m) {
         const std::string list = m.add(
             "IFCCARTESIANPOINTLIST3D(((0.,0.,0.),(6000.,0.,0.),(6000.,4000.,0.),(0.,4000.,0.),(0.,0.,3000.),"
             "(6000.,0.,"
             "3000.),(6000.,4000.,3000.),(0.,4000.,3000.),(3000.,0.,2000.),(3000.,4000.,2000.)))");
         return m.add("IFCTRIANGULATEDFACESET(" + list +
                      ",$,.T.,((1,3,2),(1,4,3),(5,9,10),(5,10,8),(9,6,7),(9,7,10)),$)");
       },
       24, 2.5, 0, 0, "ceiling-folded"},
  };
  return cases;
}

class ModelShapeTest : public testing::TestWithParam<ShapeCase> {};

TEST_P(ModelShapeTest, BecomesARoom) {
  const ShapeCase& one = GetParam();
  const Taken result = taken_space(one.solids);
  SCOPED_TRACE(result.words());
  ASSERT_TRUE(result.model && result.model->storeys.size() == 1);
  const FoundRoom& room = result.room();
  EXPECT_NEAR(area(room), one.area_m2, 1e-3);
  EXPECT_NEAR(room.height_m.value_or(0), one.height_m, 1e-3);
  EXPECT_EQ(room.ceiling.size(), one.ceilings);
  EXPECT_EQ(room.holes.size(), one.holes);
  EXPECT_EQ(result.problems.all().size(), *one.doubt ? 1u : 0u);
  EXPECT_TRUE(!*one.doubt || result.told(one.doubt));
}

INSTANTIATE_TEST_SUITE_P(Models, ModelShapeTest, testing::ValuesIn(shape_cases()),
                         [](const auto& one) { return std::string(one.param.name); });

/// Two rooms with a wall of 0.2 m between them, a door in it, a window in an outer wall, and more where
/// wanted.
WrittenModel two_rooms() {
  WrittenModel m;
  const std::string a = m.space("A", "1", "Office", m.box(0, 0, 5000, 4000, 2800)),
                    b = m.space("B", "2", "Store", m.box(5200, 0, 3000, 4000, 2800));
  m.aggregate(m.storey(), a + "," + b);
  m.opening("door", m.box(5000, 0, 200, 4000, 2800), m.box(5000, 1000, 200, 900, 2100), "IFCDOOR");
  m.opening("window", m.box(0, -300, 5000, 300, 2800), m.box(1000, -300, 1500, 300, 1200, 900), "IFCWINDOW");
  return m;
}

TEST(Model, OpeningsAreOnBothSidesWithTheirHeights) {
  const Taken result = taken(two_rooms().bytes());
  SCOPED_TRACE(result.words());
  EXPECT_TRUE(result.problems.all().empty());
  const FoundRoom &office = result.room(0), &store = result.room(1);
  ASSERT_EQ(office.openings.size(), 2u);
  ASSERT_EQ(store.openings.size(), 1u);
  EXPECT_EQ(store.openings[0].leads_to, 0);
  EXPECT_EQ(store.openings[0].drawn, "door");
  EXPECT_NEAR(*store.openings[0].height_m, 2.1, 1e-9);
  const auto window = std::find_if(office.openings.begin(), office.openings.end(), [](const auto& opening) {
    return opening.kind == plans::FoundOpening::Kind::window;
  });
  ASSERT_NE(window, office.openings.end());
  EXPECT_EQ(window->edge, 0u);
  EXPECT_NEAR(window->from_m, 1, 1e-9);
  EXPECT_NEAR(window->width_m, 1.5, 1e-9);
  EXPECT_NEAR(*window->sill_m, 0.9, 1e-9);
}

TEST(Model, ItsPlanIsLaidByAFrame) {
  const Taken plain = taken(two_rooms().bytes()),
              turned = taken(two_rooms().bytes(), "m.ifc", {1, {10, 20}, 90});
  const Vec2 corner = plain.room().outline[1];
  bool there = false;
  for (const FoundRoom& room : turned.model->storeys[0].plan.rooms)  // read in another order
    for (const Vec2& p : room.outline)
      there = there || (p - Vec2(20 - corner.y(), corner.x() - 10)).norm() < 1e-9;
  EXPECT_TRUE(there);
}

TEST(Model, WhatItLacksOrContradictsIsTold) {
  WrittenModel overlap = two_rooms();
  overlap.aggregate(overlap.storey(),
                    overlap.space("C", "3", "Niche", overlap.box(4000, 1000, 1000, 1000, 2800)));
  EXPECT_TRUE(taken(overlap.bytes()).told("spaces-overlap"));

  WrittenModel loose = two_rooms();
  loose.add("IFCWINDOW('loose',$,'Loose',$,$," + loose.place() + "," +
            loose.shape(loose.box(2000, 4000, 1000, 100, 1000, 900)) + ",$,1000.,1000.,$,$,$)");
  const Taken with_loose = taken(loose.bytes());
  EXPECT_TRUE(with_loose.told("opening-without-wall")) << with_loose.words();
  EXPECT_EQ(with_loose.room(0).openings.size(), 3u);

  WrittenModel nowhere = two_rooms();
  nowhere.add("IFCSITE('site',$,$,$,$," + nowhere.place() + ",$,$,.ELEMENT.,(0,0,0),(0,0,0),0.,$,$)");
  EXPECT_TRUE(taken(nowhere.bytes()).told("location"));

  WrittenModel high;
  const std::string upper = high.space("U", "1", "Loft", high.box(0, 0, 5000, 4000, 2800, 4000));
  high.aggregate(high.storey(), upper);
  EXPECT_TRUE(taken(high.bytes()).told("storey-level"));

  WrittenModel outdoors = two_rooms();
  outdoors.aggregate(outdoors.storey(), outdoors.space("T", "9", "Terrace",
                                                       outdoors.box(0, 5000, 5000, 4000, 2800), "EXTERNAL"));
  EXPECT_EQ(taken(outdoors.bytes()).model->storeys[0].plan.rooms.size(), 2u);
}

TEST(Model, PartsOfASpaceAreOneRoom) {
  WrittenModel m;
  const std::string whole =
      m.add("IFCSPACE('W',$,'1',$,$," + m.place() + ",$,'Hall',.COMPLEX.,.INTERNAL.,$)");
  const std::string a = m.space("a", "1a", "Hall east", m.box(0, 0, 5000, 4000, 2800)),
                    b = m.space("b", "1b", "Hall west", m.box(5000, 0, 5000, 4000, 2800));
  m.aggregate(whole, a + "," + b);
  m.aggregate(m.storey(), whole);
  const Taken result = taken(m.bytes());
  ASSERT_EQ(result.model->storeys[0].plan.rooms.size(), 1u) << result.words();
  EXPECT_NEAR(area(result.room()), 40, 1e-6);
  EXPECT_EQ(result.room().drawn, "W");
}

TEST(Model, WhatStandsOnTheSiteIsANeighbour) {
  WrittenModel m = two_rooms();
  const std::string site =
      m.add("IFCSITE('site',$,$,$,$," + m.place() + ",$,$,.ELEMENT.,(52,30,0),(13,0,0),40000.,$,$)");
  const std::string house = m.add("IFCBUILDINGELEMENTPROXY('h',$,'House',$,$," + m.place() + "," +
                                  m.shape(m.box(0, -20000, 8000, 6000, 9000)) + ",$,$)");
  m.add("IFCRELCONTAINEDINSPATIALSTRUCTURE('c',$,$,$,(" + house + ")," + site + ")");
  const Taken result = taken(m.bytes());
  ASSERT_EQ(result.model->neighbours.size(), 1u) << result.words();
  EXPECT_NEAR(result.model->neighbours[0].top_m, 9, 1e-9);
  EXPECT_NEAR(geometry::signed_area(result.model->neighbours[0].footprint), 48, 1e-6);
  EXPECT_NEAR(*result.model->site.latitude_deg, 52.5, 1e-12);
}

struct RefusalCase {
  const char *name, *file, *bytes, *code;
  int line;  ///< 0: of the whole file
};
void PrintTo(const RefusalCase& one, std::ostream* out) {
  *out << one.name;
}

#define STEP_HEAD "ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('IFC4'));\nENDSEC;\nDATA;\n"
#define STEP_TAIL "ENDSEC;\nEND-ISO-10303-21;\n"
constexpr RefusalCase kRefusals[] = {
    {"Empty", "m.ifc", " \n", "empty", 1},
    {"Zipped", "m.ifc", "PK\x03\x04 and so on", "is-zip", 1},
    {"NoStep", "m.ifc", "solid cube\n", "not-step", 1},
    {"OtherSchema", "m.ifc",
     "ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('AUTOMOTIVE_DESIGN'));\nENDSEC;\nDATA;\n" STEP_TAIL, "schema", 0},
    {"CutOff", "m.ifc", STEP_HEAD "#1=IFCWALL('a'", "truncated", 6},
    {"NoEnd", "m.ifc", STEP_HEAD "#1=IFCWALL('a');\n", "truncated", 7},
    {"OpenText", "m.ifc", STEP_HEAD "#1=IFCWALL('a);\n#2=IFCWALL('b');\n" STEP_TAIL, "quote", 6},
    {"NumberTwice", "m.ifc", STEP_HEAD "#1=IFCWALL('a');\n#1=IFCWALL('b');\n" STEP_TAIL, "id-twice", 7},
    {"NoNumber", "m.ifc", STEP_HEAD "#x=IFCWALL('a');\n" STEP_TAIL, "bad-number", 6},
    {"Brackets", "m.ifc", STEP_HEAD "#1=IFCWALL('a'));\n" STEP_TAIL, "syntax", 6},
    {"NoUnit", "m.ifc", STEP_HEAD "#1=IFCPROJECT('p',$,$,$,$,$,$,$,$);\n" STEP_TAIL, "unit-unknown", 1},
    {"UnitOfItself", "m.ifc",
     STEP_HEAD "#1=IFCPROJECT('p',$,$,$,$,$,$,$,#2);\n#2=IFCUNITASSIGNMENT((#3));\n"
               "#3=IFCCONVERSIONBASEDUNIT($,.LENGTHUNIT.,'X',#4);\n#4=IFCMEASUREWITHUNIT(1.,#3);\n" STEP_TAIL,
     "unit-unknown", 7},
    {"Markup", "m.xml", "<gbXML><Campus></gbXML>", "not-well-formed", 1},
    {"Entities", "m.xml", "<!DOCTYPE g [\n<!ENTITY a \"b\">]><gbXML/>", "entities", 2},
    {"OtherXml", "m.xml", "<html/>", "root", 1},
    {"NoLengthUnit", "m.xml", "<gbXML/>", "unit-unknown", 1},
    {"StrangeUnit", "m.xml", "<gbXML lengthUnit=\"Cubits\"/>", "unit-unknown", 1},
};

class ModelRefusalTest : public testing::TestWithParam<RefusalCase> {};

TEST_P(ModelRefusalTest, IsOneErrorWithItsLine) {
  const RefusalCase& one = GetParam();
  Problems problems;
  EXPECT_FALSE(read_model(one.bytes, one.file, std::nullopt, problems));
  ASSERT_EQ(problems.all().size(), 1u);
  EXPECT_EQ(problems.all()[0].code, one.code) << to_string(problems.all()[0]);
  EXPECT_EQ(problems.all()[0].place.line, one.line);
}

INSTANTIATE_TEST_SUITE_P(Models, ModelRefusalTest, testing::ValuesIn(kRefusals),
                         [](const auto& one) { return std::string(one.param.name); });

std::string loop_of(const std::vector<Vec3>& points) {
  std::string text = "<PlanarGeometry><PolyLoop>";
  for (const Vec3& p : points)
    text += fmt::format(FMT_STRING("<CartesianPoint><Coordinate>{}</Coordinate><Coordinate>{}</Coordinate>"
                                   "<Coordinate>{}</Coordinate></CartesianPoint>"),
                        p.x(), p.y(), p.z());
  return text + "</PolyLoop></PlanarGeometry>";
}

/// A room of 5 x 4 m as a floor with a height by its boundary faces, a window of a type, and shades outside.
TEST(GbXml, GlassShadesAndTheTurnFromNorth) {
  const auto boundary = [](const std::vector<Vec3>& points) {
    return "<SpaceBoundary>" + loop_of(points) + "</SpaceBoundary>";
  };
  const std::string text =
      "<gb:gbXML xmlns:gb=\"x\" lengthUnit=\"Meters\"><gb:WindowType id=\"w1\"><gb:Transmittance "
      "type=\"Visible\">0.65"
      "</gb:Transmittance></gb:WindowType><Campus><Location><Latitude>52</Latitude><Longitude>13</Longitude>"
      "<CADModelAzimuth>30</CADModelAzimuth></Location><Building><BuildingStorey "
      "id=\"s\"><Name>Ground</Name><Level>0"
      "</Level></BuildingStorey><Space id=\"room\" buildingStoreyIdRef=\"s\"><Name>Office</Name>" +
      boundary({{0, 0, 0}, {5, 0, 0}, {5, 4, 0}, {0, 4, 0}}) +
      boundary({{0, 0, 3}, {5, 0, 3}, {5, 4, 3}, {0, 4, 3}}) +
      boundary({{0, 0, 0}, {5, 0, 0}, {5, 0, 3}, {0, 0, 3}}) +
      boundary({{5, 0, 0}, {5, 4, 0}, {5, 4, 3}, {5, 0, 3}}) +
      "</Space></Building><Surface id=\"wall\" surfaceType=\"ExteriorWall\"><AdjacentSpaceId "
      "spaceIdRef=\"room\"/>" +
      loop_of({{0, -0.15, 0}, {5, -0.15, 0}, {5, -0.15, 3}, {0, -0.15, 3}}) +
      "<Opening id=\"o\" openingType=\"FixedWindow\" windowTypeIdRef=\"w1\">" +
      loop_of({{1, -0.15, 1}, {3, -0.15, 1}, {3, -0.15, 2}, {1, -0.15, 2}}) +
      "</Opening></Surface><Surface id=\"fin\" surfaceType=\"Shade\"><Name>Fin</Name>" +
      loop_of({{6, -3, 0}, {6, -1, 0}, {6, -1, 5}, {6, -3, 5}}) +
      "</Surface><Surface id=\"roof\" surfaceType=\"Shade\"><Name>Canopy</Name>" +
      loop_of({{0, -3, 4}, {5, -3, 4}, {5, -1, 4}, {0, -1, 4}}) + "</Surface></Campus></gb:gbXML>";
  const Taken result = taken(text, "m.xml");
  ASSERT_TRUE(result.model && result.model->storeys.size() == 1) << result.words();
  EXPECT_TRUE(result.told("north"));
  EXPECT_NEAR(*result.model->site.north_deg, 30, 1e-12);
  ASSERT_EQ(result.room().openings.size(), 1u);
  const plans::FoundOpening& window = result.room().openings[0];
  EXPECT_NEAR(*window.transmittance, 0.65, 1e-12);
  EXPECT_NEAR(window.from_m, 1, 1e-9);
  EXPECT_NEAR(*window.sill_m, 1, 1e-9);
  ASSERT_EQ(result.model->neighbours.size(), 2u);
  for (const plans::FoundNeighbour& shade : result.model->neighbours) {
    const bool level = shade.name == "Canopy";
    EXPECT_NEAR(geometry::signed_area(shade.footprint), level ? 10 : 0.04, 1e-6) << shade.name;
    EXPECT_NEAR(shade.top_m, level ? 4 : 5, 1e-9) << shade.name;
  }
}

TEST(Model, GlassOfAWindowIsItsProperty) {
  WrittenModel m = two_rooms();
  const std::string bytes = m.bytes();
  const std::size_t at = bytes.find("=IFCWINDOW(");
  const std::string window = bytes.substr(bytes.rfind('#', at), at - bytes.rfind('#', at));
  const std::string value =
      m.add("IFCPROPERTYSINGLEVALUE('VisibleLightTransmittance',$,IFCPOSITIVERATIOMEASURE(0.7),$)");
  const std::string set = m.add("IFCPROPERTYSET('s',$,'Pset_DoorWindowGlazingType',$,(" + value + "))");
  m.add("IFCRELDEFINESBYPROPERTIES('r',$,$,$,(" + window + ")," + set + ")");
  const Taken result = taken(m.bytes());
  bool there = false;
  for (const plans::FoundOpening& opening : result.room(0).openings)
    there = there || (opening.transmittance && std::abs(*opening.transmittance - 0.7) < 1e-12);
  EXPECT_TRUE(there) << result.words();
}

TEST(Step, TextsAreDecoded) {
  EXPECT_EQ(step::decoded("Bell''s \\\\ east"), "Bell's \\ east");
  EXPECT_EQ(step::decoded("\\X2\\00DC0142\\X0\\b"), "Üłb");
  EXPECT_EQ(step::decoded("\\X4\\0001F600\\X0\\"), "😀");
  EXPECT_EQ(step::decoded("\\X2\\D83DDE00\\X0\\"), "😀");
  EXPECT_EQ(step::decoded("\\X\\E4\\S\\d"), "ää");
  EXPECT_EQ(step::decoded("Gr\xFC\xDF"), "Grüß");  // bytes of a code page
  for (const char* broken :
       {"\\X2\\", "\\X2\\00", "\\X\\", "\\S\\", "\\P", "\\PA", "\\", "\\X4\\FFFFFFFF\\X0\\"})
    EXPECT_LE(step::decoded(broken).size(), 8u) << broken;
}

/// A mesh of a thousand rings, lists a thousand deep: survived, and told in a line.
TEST(Model, RingsAndDepthsAreSurvived) {
  WrittenModel ring = two_rooms();
  const std::string space = "IFCSPACE('R',$,'9',$,$," + ring.place();
  const std::string body =
      ring.add("IFCSHAPEREPRESENTATION(" + ring.context() + ",'Body','MappedRepresentation',(#9999))");
  const std::string map = ring.add("IFCREPRESENTATIONMAP(" + ring.axes() + "," + body + ")");
  const std::string to =
      ring.add("IFCCARTESIANTRANSFORMATIONOPERATOR3D($,$," + ring.point(0, 0, 0) + ",$,$)");
  const std::string item = ring.add("IFCMAPPEDITEM(" + map + "," + to + ")");
  const std::string shape = ring.add("IFCPRODUCTDEFINITIONSHAPE($,$,(" + body + "))");
  ring.aggregate(ring.storey(), ring.add(space + "," + shape + ",'Ring',.ELEMENT.,.INTERNAL.,$)"));
  std::string bytes = ring.bytes();
  bytes.replace(bytes.find("#9999"), 5, item);
  const Taken result = taken(bytes);
  EXPECT_TRUE(result.told("too-deep") && result.told("no-shape")) << result.words();
  EXPECT_EQ(result.model->storeys[0].plan.rooms.size(), 2u);

  Problems problems;
  const std::string deep =
      STEP_HEAD "#1=IFCWALL(" + std::string(1000, '(') + std::string(1000, ')') + ");\n" STEP_TAIL;
  EXPECT_FALSE(read_model(deep, "m.ifc", std::nullopt, problems));
  EXPECT_EQ(problems.all().at(0).code, "too-deep");

  std::string elements = "<gbXML lengthUnit=\"Meters\">";
  for (int k = 0; k < 50000; ++k) elements += "<Campus>";
  for (int k = 0; k < 50000; ++k) elements += "</Campus>";
  Problems nested;
  EXPECT_FALSE(read_model(elements + "</gbXML>", "m.xml", std::nullopt, nested));
  EXPECT_EQ(nested.all().at(0).code, "too-deep");
}

}  // namespace model_reader_test
}  // namespace glow::files
