// Small drawings as text: what is read of them, and what is said of those that are damaged.
#include <gtest/gtest.h>

#include <cstring>

#include "files/plans/dxf/document_reader.hpp"
#include "files/plans/dxf/drawing_writer.hpp"
#include "files/plans/plan_taker.hpp"

namespace glow::files {
namespace dxf_reader_test {

/// "code value" pairs, a line each, as the file has them.
std::string pairs(const std::string& words) {
  std::string text;
  for (std::size_t begin = 0; begin < words.size();) {
    const std::size_t end = std::min(words.find('|', begin), words.size());
    const std::string pair = words.substr(begin, end - begin);
    const std::size_t blank = pair.find(' ');
    text += pair.substr(0, blank) + "\n" + (blank == std::string::npos ? "" : pair.substr(blank + 1)) + "\n";
    begin = end + 1;
  }
  return text;
}

std::string drawing(const std::string& entities, const std::string& blocks = "") {
  return pairs("0 SECTION|2 HEADER|9 $INSUNITS|70 4|0 ENDSEC|0 SECTION|2 BLOCKS|" + blocks +
               (blocks.empty() ? "" : "|") + "0 ENDSEC|0 SECTION|2 ENTITIES|" + entities + "|0 ENDSEC|0 EOF");
}

const std::string kSquare =
    "0 LWPOLYLINE|5 A1|8 R|90 4|70 1|10 0|20 0|10 4000|20 0|10 4000|20 3000|10 0|20 3000";

struct Read {
  std::optional<dxf::Document> document;
  Problems problems;
  std::string code() const { return problems.all().empty() ? "" : problems.all().front().code; }
};

Read read(const std::string& bytes) {
  Read out;
  out.document = dxf::read_document(bytes, "a.dxf", out.problems);
  return out;
}

/// Rooms on layer R, in mm.
std::optional<TakenFloor> take(const std::string& bytes, Problems& problems,
                               plans::RoomsFrom from = plans::RoomsFrom::outlines) {
  const auto document = dxf::read_document(bytes, "a.dxf", problems);
  if (!document) return std::nullopt;
  plans::FloorWish floor;
  floor.request.from = from;
  floor.request.room_layers = floor.request.wall_layers = {"r"};
  return take_floor(*document, floor, "a.dxf", problems);
}

double area_of(const std::string& bytes, plans::RoomsFrom from = plans::RoomsFrom::outlines) {
  Problems problems;
  const auto taken = take(bytes, problems, from);
  double area = 0;
  if (taken)
    for (const plans::FoundRoom& room : taken->plan.rooms) area += geometry::signed_area(room.outline);
  return area;
}

struct Drawn {
  const char* what;
  std::string entities, blocks;
  double area_m2;
  double within;
};
void PrintTo(const Drawn& drawn, std::ostream* out) {
  *out << drawn.what;
}

class DrawnAreaTest : public testing::TestWithParam<Drawn> {};

TEST_P(DrawnAreaTest, IsThatOfItsRooms) {
  const Drawn& drawn = GetParam();
  EXPECT_NEAR(area_of(drawing(drawn.entities, drawn.blocks)), drawn.area_m2, drawn.within);
}

const std::string kCell = "0 BLOCK|2 CELL|70 0|10 100|20 100|" + kSquare + "|0 ENDBLK";

INSTANTIATE_TEST_SUITE_P(
    Shapes, DrawnAreaTest,
    testing::Values(
        Drawn{"polyline", kSquare, "", 12, 1e-9},
        Drawn{"old polyline",
              "0 POLYLINE|8 R|66 1|70 1|0 VERTEX|8 R|10 0|20 0|0 VERTEX|8 R|10 4000|20 0|0 VERTEX|8 R|10 "
              "4000|20 "
              "3000|0 VERTEX|8 R|10 0|20 3000|0 SEQEND",
              "", 12, 1e-9},
        Drawn{"old polyline without its end",
              "0 POLYLINE|8 R|66 1|70 1|0 VERTEX|8 R|10 0|20 0|0 VERTEX|8 R|10 4000|20 0|0 VERTEX|8 R|10 "
              "0|20 3000",
              "", 6, 1e-9},
        Drawn{"circle", "0 CIRCLE|8 R|10 0|20 0|40 2000", "", M_PI * 4, 0.03},
        Drawn{"ellipse", "0 ELLIPSE|8 R|10 0|20 0|11 3000|21 0|40 0.5|41 0|42 6.283185307179586", "",
              M_PI * 4.5, 0.04},
        Drawn{"half round end",
              "0 LWPOLYLINE|8 R|90 4|70 1|10 0|20 0|10 4000|20 0|42 1|10 4000|20 2000|10 0|20 2000", "",
              8 + M_PI / 2, 0.01},
        Drawn{"bay inwards",
              "0 LWPOLYLINE|8 R|90 4|70 1|10 0|20 0|10 4000|20 0|42 -1|10 4000|20 2000|10 0|20 2000", "",
              8 - M_PI / 2, 0.01},
        Drawn{"closed spline",
              "0 SPLINE|8 R|70 1|71 1|72 7|73 5|40 0|40 0|40 1|40 2|40 3|40 4|40 4|10 0|20 0|10 2000|20 0|10 "
              "2000|20 "
              "2000|10 0|20 2000|10 0|20 0",
              "", 4, 1e-6},
        Drawn{"solid as a hatch",
              "0 HATCH|8 R|10 0|20 0|30 0|70 1|91 1|92 2|72 0|73 1|93 3|10 0|20 0|10 3000|20 0|10 0|20 "
              "2000|97 0",
              "", 0, 1e-9},  // outlines are asked for
        Drawn{"insert at another scale", "0 INSERT|8 X|2 CELL|10 0|20 0|41 0.5|42 2", kCell, 12, 1e-9},
        Drawn{"mirrored insert, turned", "0 INSERT|8 X|2 CELL|10 50|20 70|41 -1|50 33", kCell, 12, 1e-6},
        Drawn{"array of inserts", "0 INSERT|8 X|2 CELL|10 0|20 0|70 3|71 2|44 5000|45 4000", kCell, 72, 1e-6},
        Drawn{"a block in a block", "0 INSERT|8 X|2 OUTER|10 0|20 0",
              kCell + "|0 BLOCK|2 OUTER|10 0|20 0|0 INSERT|8 0|2 CELL|10 9|20 9|0 INSERT|8 0|2 CELL|10 "
                      "9000|20 9|0 ENDBLK",
              24, 1e-6},
        Drawn{"a block that holds itself", kSquare + "|0 INSERT|8 X|2 SELF|10 9000|20 0",
              "0 BLOCK|2 SELF|10 0|20 0|0 INSERT|8 R|2 SELF|10 0|20 0|0 ENDBLK", 12, 1e-9},
        Drawn{"layer 0 takes the insert's layer", "0 INSERT|8 R|2 PLAIN|10 0|20 0",
              "0 BLOCK|2 PLAIN|10 0|20 0|0 CIRCLE|8 0|10 0|20 0|40 1000|0 ENDBLK", M_PI, 0.01},
        Drawn{"normal downwards",
              "0 LWPOLYLINE|8 R|90 3|70 1|210 0|220 0|230 -1|10 0|20 0|10 4000|20 0|10 0|20 3000", "", 6,
              1e-9},
        Drawn{"upright outline is none",
              "0 LWPOLYLINE|8 R|90 4|70 1|210 0|220 -1|230 0|10 0|20 0|10 4000|20 0|10 4000|20 "
              "3000|10 0|20 3000",
              "", 0, 1e-9},
        Drawn{"invisible, and on paper",
              kSquare + "|60 1|0 LWPOLYLINE|8 R|67 1|90 3|70 1|10 0|20 0|10 9|20 0|10 0|20 9", "", 0, 1e-9},
        Drawn{"closed by its last point",
              "0 LWPOLYLINE|8 R|90 4|70 0|10 0|20 0|10 4000|20 0|10 0|20 3000|10 0|20 0", "", 6, 1e-9},
        Drawn{"spike and double points",
              "0 LWPOLYLINE|8 R|90 7|70 1|10 0|20 0|10 4000|20 0|10 6000|20 0|10 4000|20 0|10 4000|20 "
              "3000|10 4000|20 "
              "3000|10 0|20 3000",
              "", 12, 1e-9},
        Drawn{"twice the same", kSquare + "|" + kSquare, "", 12, 1e-9},
        Drawn{"round two others",
              kSquare +
                  "|0 LWPOLYLINE|8 R|90 4|70 1|10 4200|20 0|10 8000|20 0|10 8000|20 3000|10 4200|20 3000|0 "
                  "LWPOLYLINE|8 R|90 4|70 1|10 -300|20 -300|10 8300|20 -300|10 8300|20 3300|10 -300|20 3300",
              "", 12 + 11.4, 1e-9}));

struct Fault {
  const char* code;
  std::string bytes;
  int line;  ///< 0: not asked
};
void PrintTo(const Fault& fault, std::ostream* out) {
  *out << fault.code;
}
class DrawingFaultTest : public testing::TestWithParam<Fault> {};

TEST_P(DrawingFaultTest, IsToldWithItsLine) {
  const Fault& fault = GetParam();
  Read got = read(fault.bytes);
  if (got.document && got.problems.all().empty()) take(fault.bytes, got.problems);
  ASSERT_FALSE(got.problems.all().empty());
  EXPECT_EQ(got.code(), fault.code);
  if (fault.line > 0) {
    EXPECT_NEAR(got.problems.all().front().place.line, fault.line, 1);
  }
}

INSTANTIATE_TEST_SUITE_P(
    Faults, DrawingFaultTest,
    testing::Values(
        Fault{"empty", "", 0}, Fault{"is-dwg", std::string("AC1032\0\0\0\0\n more\n", 17), 0},
        Fault{"not-dxf", "%PDF-1.7\n", 0}, Fault{"not-dxf", "PK\x03\x04zip", 0},
        Fault{"not-dxf", "<html>\n", 0}, Fault{"not-dxf", std::string("\xff\xfe\x30\x00", 4), 0},
        Fault{"bad-group-code", "Hello,\nthis is text\n", 1},
        Fault{"not-dxf", pairs("999 a remark|0 EOF"), 0},
        Fault{"truncated", pairs("0 SECTION|2 ENTITIES|0 LINE|8 R"), 8},
        Fault{"truncated", pairs("0 SECTION|2 ENTITIES") + "0", 5},
        Fault{"bad-number", drawing("0 LINE|8 R|10 abc"), 0},
        Fault{"bad-number", drawing("0 CIRCLE|8 R|10 1,5|20 0|40 1"), 0},
        Fault{"bad-number", drawing("0 LWPOLYLINE|8 R|90 four|70 1"), 0},
        Fault{"not-finite", drawing("0 LINE|8 R|10 nan|20 0"), 0},
        Fault{"not-finite", drawing("0 LINE|8 R|10 1.#INF|20 0"), 0},
        Fault{"out-of-range", drawing("0 LINE|8 R|10 1e300|20 0"), 0},
        Fault{"not-finite", drawing("0 LINE|8 R|10 1e999|20 0"), 0},
        Fault{"no-end", pairs("0 SECTION|2 ENTITIES|0 ENDSEC"), 0},
        Fault{"section-not-ended", pairs("0 SECTION|2 ENTITIES|0 LINE|8 R|10 0|20 0|0 EOF"), 0},
        Fault{"block-twice", drawing(kSquare, kCell + "|" + kCell), 0},
        Fault{"count-wrong", drawing("0 LWPOLYLINE|8 R|90 9|70 1|10 0|20 0|10 1|20 0|10 0|20 1"), 0},
        Fault{"block-missing", drawing(kSquare + "|0 INSERT|8 R|2 NONE|10 0|20 0"), 0},
        Fault{"xref-missing",
              drawing(kSquare + "|0 INSERT|8 R|2 SITE|10 0|20 0",
                      "0 BLOCK|2 SITE|70 4|1 ../site.dxf|10 0|20 0|0 ENDBLK"),
              0},
        Fault{"insert-counts", drawing(kSquare + "|0 INSERT|8 R|2 CELL|10 0|20 9000|70 -3", kCell), 0},
        Fault{"insert-counts", drawing(kSquare + "|0 INSERT|8 R|2 CELL|10 0|20 9000|41 0", kCell), 0},
        Fault{"too-many",
              drawing(kSquare + "|0 INSERT|8 R|2 CELL|10 0|20 0|70 30000|71 30000|44 1|45 1", kCell), 0},
        Fault{"layer-not-found", drawing("0 LINE|8 OTHER|10 0|20 0|11 1|21 1"), 0},
        Fault{"unit-unknown", pairs("0 SECTION|2 ENTITIES|" + kSquare + "|0 ENDSEC|0 EOF"), 0},
        Fault{
            "unit-doubtful",
            drawing("0 LWPOLYLINE|8 R|90 4|70 1|10 0|20 0|10 400000|20 0|10 400000|20 300000|10 0|20 300000"),
            0},
        Fault{"far-from-origin",
              drawing("0 LWPOLYLINE|8 R|90 3|70 1|10 9000000|20 0|10 9004000|20 0|10 9000000|20 3000"), 0}));

TEST(DxfReader, SurvivesEveryCutAndLosesNothingSilently) {
  const std::string whole =
      drawing(kSquare +
                  "|0 INSERT|8 R|2 CELL|10 0|20 9000|66 1|0 ATTRIB|8 R|2 NAME|1 A|10 1|20 1|0 SEQEND|0 "
                  "MTEXT|8 R|10 1|20 1|1 {\\fX;B}\\P1",
              kCell);
  for (std::size_t length = 0; length + 2 < whole.size(); ++length) {
    const Read cut = read(whole.substr(0, length));
    EXPECT_TRUE(!cut.problems.all().empty()) << length;
    EXPECT_EQ(cut.document.has_value(), !cut.problems.has_errors()) << length;
  }
}

TEST(DxfReader, LineEndsByteOrderMarksAndCaseDoNotMatter) {
  const std::string text = drawing(kSquare);
  std::string windows, old;
  for (const char c : text) {
    windows += c == '\n' ? "\r\n" : std::string(1, c);
    old += c == '\n' ? '\r' : c;
  }
  for (const std::string& bytes : {text, "\xef\xbb\xbf" + text, windows, old, text + "\x1a", text + "\n\n"})
    EXPECT_NEAR(area_of(bytes), 12, 1e-9);
}

/// The same groups as binary, with codes of one byte or two.
std::string binary(const std::string& text, bool old) {
  std::string out("AutoCAD Binary DXF\r\n\x1a\0", 22);
  std::size_t at = 0;
  const auto line = [&] {
    const std::size_t end = text.find('\n', at);
    const std::string words = text.substr(at, end - at);
    at = end + 1;
    return words;
  };
  const auto put = [&](const auto& value) {
    out.append(reinterpret_cast<const char*>(&value), sizeof value);
  };
  while (at < text.size()) {
    const int code = std::stoi(line());
    const std::string value = line();
    if (old)
      put(std::uint8_t(code));
    else
      put(std::int16_t(code));
    if (code >= 10 && code <= 59)
      put(std::stod(value));
    else if (code >= 60 && code <= 79)
      put(std::int16_t(std::stoi(value)));
    else if (code >= 90 && code <= 99)
      put(std::int32_t(std::stoi(value)));
    else
      out += value + std::string(1, '\0');
  }
  return out;
}

TEST(DxfReader, BinaryIsTheSameAsText) {
  const std::string text = drawing(kSquare + "|0 CIRCLE|8 R|10 9000|20 0|40 1000");
  for (const bool old : {false, true}) {
    const std::string bytes = binary(text, old);
    EXPECT_NEAR(area_of(bytes), area_of(text), 1e-9);
    for (std::size_t length = 23; length < bytes.size(); length += 7) read(bytes.substr(0, length));
  }
}

TEST(DxfReader, HatchesGiveRoomsWithTheirPiers) {
  const std::string edges =
      "0 HATCH|8 R|10 0|20 0|30 0|70 0|91 2|92 1|93 4|72 1|10 0|20 0|11 5000|21 0|72 2|10 5000|20 1500|40 "
      "1500|50 270|51 "
      "450|73 1|72 1|10 5000|20 3000|11 0|21 3000|72 1|10 0|20 3000|11 0|21 0|97 0|92 18|72 0|73 1|93 4|10 "
      "1000|20 1000|10 "
      "1400|20 1000|10 1400|20 1400|10 1000|20 1400|97 0|75 0|98 0";
  Problems problems;
  const auto taken = take(drawing(edges), problems, plans::RoomsFrom::hatches);
  ASSERT_TRUE(taken && taken->plan.rooms.size() == 1);
  EXPECT_NEAR(geometry::signed_area(taken->plan.rooms[0].outline), 15 + M_PI * 1.5 * 1.5 / 2, 0.02);
  ASSERT_EQ(taken->plan.rooms[0].holes.size(), 1u);
  EXPECT_NEAR(geometry::signed_area(taken->plan.rooms[0].holes[0]), 0.16, 1e-9);
}

TEST(DxfReader, StampsNameRoomsByTheirTagsWhateverTheirCase) {
  const std::string stamp =
      kSquare +
      "|0 INSERT|8 S|2 CELL|10 1000|20 1000|66 1|0 ATTRIB|8 S|2 RÄUMNAME|1 Werkstatt|10 1000|20 "
      "1000|0 ATTRIB|8 S|2 Nummer|1 0.7|10 1000|20 900|0 ATTRIB|8 S|2 FLAECHE|1 12 m2|10 1000|20 800|0 "
      "SEQEND";
  Problems problems;
  const auto document = dxf::read_document(
      pairs("0 SECTION|2 HEADER|9 $ACADVER|1 AC1021|9 $INSUNITS|70 4|0 ENDSEC|0 SECTION|2 ENTITIES|" + stamp +
            "|0 ENDSEC|0 EOF"),
      "a.dxf", problems);
  ASSERT_TRUE(document);
  plans::FloorWish floor;
  floor.request.room_layers = {"R"};
  floor.request.name_tag = "räumname";
  floor.request.number_tag = "NUMMER";
  const auto taken = take_floor(*document, floor, "a.dxf", problems);
  ASSERT_TRUE(taken && taken->plan.rooms.size() == 1);
  EXPECT_EQ(taken->plan.rooms[0].name, "Werkstatt");
  EXPECT_EQ(taken->plan.rooms[0].number, "0.7");
}

TEST(DrawingWriter, WhatItWritesIsReadAgain) {
  dxf::DrawingWriter writer(0.3048);
  writer.layer("R", 3);
  writer.begin_block("B");
  writer.circle(Vec2::Zero(), 1.5);
  writer.attribute_definition("MARK", Vec2::Zero(), 0.2);
  writer.end_block();
  writer.on("R");
  writer.polyline({{0, 0}, {10, 0}, {10, 20.125}, {0, 20}}, true);
  writer.insert("B", Vec2(2612408.123456, -3), 33.5, {{"MARK", "P1 Ä室"}}, 0.2);
  writer.text(Vec2(1, 2), 0.5, "500 ü");
  writer.solid({0, 0}, {1, 0}, {1, 1}, {0, 1}, 5);
  const Read got = read(writer.bytes());
  ASSERT_TRUE(got.document && got.problems.all().empty());
  EXPECT_NEAR(stated_unit(*got.document).value_or(0), 0.3048, 1e-12);
  ASSERT_EQ(got.document->entities.size(), 4u);  // the attribute is not to be seen, and so not read
  const auto& insert = std::get<dxf::Insert>(got.document->entities[1].shape);
  EXPECT_NEAR(insert.at.x(), 2612408.123456, 1e-6);
  EXPECT_EQ(insert.name(), "B");
}

}  // namespace dxf_reader_test
}  // namespace glow::files
