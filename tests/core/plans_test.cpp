// Plans: words of rooms, patterns, frames, curves, texts of drawings.
#include <gtest/gtest.h>

#include <cmath>

#include "core/plans/line_work.hpp"
#include "core/plans/naming.hpp"
#include "core/plans/request.hpp"
#include "files/plans/dxf/curves.hpp"
#include "files/plans/dxf/drawn_text.hpp"
#include "files/plans/room_words.hpp"

namespace glow {
namespace plans_test {

using plans::WordKind;

class RoomWordsTest : public testing::TestWithParam<std::pair<const char*, WordKind>> {};
TEST_P(RoomWordsTest, AreNameNumberOrNote) {
  EXPECT_EQ(int(plans::kind_of_words(GetParam().first)), int(GetParam().second)) << GetParam().first;
}
INSTANTIATE_TEST_SUITE_P(
    Words, RoomWordsTest,
    testing::Values(std::pair{"Drawing office", WordKind::name}, std::pair{"0.12", WordKind::number},
                    std::pair{"E5", WordKind::number}, std::pair{"B", WordKind::number},
                    std::pair{"A-1.07a", WordKind::number}, std::pair{"Class 5", WordKind::name},
                    std::pair{"Büro", WordKind::name}, std::pair{"Škola", WordKind::name},
                    std::pair{"35.4 m2", WordKind::note}, std::pair{"35,40 m²", WordKind::note},
                    std::pair{"F = 122", WordKind::note}, std::pair{"h=2.80", WordKind::note},
                    std::pair{"+3.25 m", WordKind::note}, std::pair{"° ²", WordKind::note},
                    std::pair{"WC", WordKind::name}, std::pair{"120 sq ft", WordKind::note},
                    std::pair{"3rd floor store", WordKind::name}, std::pair{"1.07 °", WordKind::number}));

class TaskByNameTest : public testing::TestWithParam<std::pair<const char*, const char*>> {};
TEST_P(TaskByNameTest, IsProposed) {
  EXPECT_EQ(files::task_by_name(GetParam().first), GetParam().second);
}
INSTANTIATE_TEST_SUITE_P(
    Names, TaskByNameTest,
    testing::Values(
        std::pair{"Office 3", "office.writing"}, std::pair{"BÜRO Süd", "office.writing"},
        std::pair{"Drawing office", "office.technical-drawing"}, std::pair{"Hall", "circulation.corridor"},
        std::pair{"Turnhalle", "education.sports-hall"}, std::pair{"Glaze store", "storage.store-room"},
        std::pair{"Glaze kitchen", "ceramics.glazing"}, std::pair{"Kitchen", "hospitality.kitchen"},
        std::pair{"Treppenhaus", "circulation.stairs"}, std::pair{"Salle de cours 2", "education.classroom"},
        std::pair{"Sala de espera", "health.waiting-room"}, std::pair{"Baderaum 4", ""},
        std::pair{"Bad", "rest.washroom"}, std::pair{"Xyzzy", ""}, std::pair{"", ""}));

TEST(Patterns, StandForLetters) {
  EXPECT_TRUE(plans::fits("room-outline", {"room*"}));
  EXPECT_TRUE(plans::fits("room-outline", {"x", "*out?ine"}));
  EXPECT_TRUE(plans::fits("*u7", {"*u7"}));
  EXPECT_FALSE(plans::fits("room-outline", {"room", "*outlin", "?"}));
  EXPECT_FALSE(plans::fits("a", {}));
  const std::vector<plans::BlockUse> blocks = {{"*", plans::BlockUse::Kind::ignored, {}},
                                               {"*u7", plans::BlockUse::Kind::door, {}}};
  EXPECT_EQ(int(plans::use_of("*u7", blocks)->kind),
            int(plans::BlockUse::Kind::door));  // the whole name first
}

TEST(Frames, GoThereAndBack) {
  for (const double turn : {0.0, 90.0, 180.0, -90.0, 17.3, 359.0}) {
    const plans::Frame frame{0.001, Vec2(2612408370.25, 1204977215.5), turn};
    const Vec2 metres(12.345, -6.789);
    EXPECT_LT((frame.to_metres(frame.to_drawing(metres)) - metres).norm(), 1e-6);
    EXPECT_NEAR((frame.to_drawing(metres) - frame.origin).norm(), 1000 * metres.norm(), 1e-3);
  }
  const plans::Frame upside_down{1, Vec2::Zero(), 180};
  EXPECT_EQ(upside_down.to_metres(Vec2(3, 4)), Vec2(-3, -4));  // quarters are exact
}

TEST(Curves, ChordsStayWithinTheSag) {
  files::dxf::Arc circle;
  circle.axis = Vec3(3000, 0, 0);
  circle.full = true;
  const auto points = files::dxf::points_of(circle, 2);
  for (std::size_t k = 0; k < points.size(); ++k) {
    const Vec3 middle = (points[k] + points[(k + 1) % points.size()]) / 2;
    EXPECT_NEAR(points[k].norm(), 3000, 1e-9);
    EXPECT_GE(middle.norm(), 2998 - 1e-9);
  }
  // A bulge of 1 is a half circle, to the right of the way.
  files::dxf::Polyline half;
  half.vertices = {{Vec3(0, 0, 0), 1}, {Vec3(2, 0, 0), 0}};
  double lowest = 0;
  const auto parts = files::dxf::points_of(half, 1e-4);
  for (const Vec3& p : parts.front()) {
    EXPECT_NEAR((p - Vec3(1, 0, 0)).norm(), 1, 1e-9);
    lowest = std::min(lowest, p.y());
  }
  EXPECT_NEAR(lowest, -1, 1e-3);
  // A straight spline, and one without its numbers in order.
  files::dxf::Spline spline;
  spline.control = {Vec3(0, 0, 0), Vec3(1, 0, 0), Vec3(2, 0, 0), Vec3(3, 0, 0)};
  spline.knots = {0, 0, 0, 0, 1, 1, 1, 1};
  const auto line = files::dxf::points_of(spline, 0.001);
  EXPECT_LT((line.front() - spline.control.front()).norm() + (line.back() - spline.control.back()).norm(),
            1e-9);
  for (const Vec3& p : line) EXPECT_NEAR(p.y(), 0, 1e-12);
  spline.knots = {5, 1};
  EXPECT_EQ(files::dxf::points_of(spline, 0.001).size(), 4u);
  // Fit points alone: a closed curve through points of a circle is one to a thousandth of its radius.
  files::dxf::Spline ring;
  ring.closed = true;
  for (int k = 0; k < 12; ++k) ring.fit.emplace_back(2 * std::cos(k * kPi / 6), 2 * std::sin(k * kPi / 6), 0);
  const auto round = files::dxf::points_of(ring, 0.001);
  EXPECT_GT(round.size(), 48u);
  for (const Vec3& point : round) EXPECT_NEAR(point.norm(), 2, 0.002);
  ring.closed = false;
  EXPECT_LT((files::dxf::points_of(ring, 0.001).back() - ring.fit.back()).norm(), 1e-12);
}

TEST(DrawnTexts, ComeAsPeopleReadThem) {
  using namespace files::dxf;
  EXPECT_EQ(plain_line("%%c40 %%d %%p2 %%%  %%u%%065 ^I x"), "Ø40 ° ±2 %  A   x");
  EXPECT_EQ(plain_paragraph("{\\fArial|b1;Kiln} \\C1;room\\P1.04\\~b \\\\ \\S1^2;"),
            "Kiln room\n1.04 b \\ 1/2");
  EXPECT_EQ(Letters("AC1015", "ANSI_1250").decoded("\xb3\\U+00D6"), "łÖ");
  EXPECT_EQ(Letters("AC1021", "ANSI_1252").decoded("Büro"), "Büro");
  EXPECT_EQ(Letters("AC1009", "dos850").decoded("\x81"), "ü");
  EXPECT_EQ(Letters("AC1015", "ANSI_932").decoded("\x8e\xba"), "室");
  EXPECT_EQ(Letters("AC1015", "").decoded("\\M+18EBA"), "室");
  EXPECT_FALSE(Letters("AC1015", "ANSI_X").is_known());
  EXPECT_EQ(folded("RÄUME"), folded("räume"));
}

TEST(LineWork, FacesHullsAndShares) {
  const std::vector<plans::Segment> cross = {{{0, 0}, {4, 0}},
                                             {{4, 0}, {4, 2}},
                                             {{4, 2}, {0, 2}},
                                             {{0, 2}, {0, 0}},
                                             {{2, -1}, {2, 3}}};  // ends that hang free bound nothing
  const auto faces = plans::faces_of(cross);
  ASSERT_EQ(faces.size(), 2u);
  for (const plans::Face& face : faces) EXPECT_NEAR(geometry::signed_area(face.outline), 4, 1e-9);
  EXPECT_TRUE(plans::is_thinner_than(faces[0], 2.1));
  EXPECT_FALSE(plans::is_thinner_than(faces[0], 1.9));
  EXPECT_NEAR(plans::shared_area(faces[0].outline, {{0, 0}, {4, 0}, {4, 1}, {0, 1}}), 2, 1e-9);
  EXPECT_EQ(plans::convex_hull({{0, 0}, {1, 0}, {0.5, 0.2}, {1, 1}, {0, 1}}).size(), 4u);
  const Vec2 inside = plans::point_inside({{0, 0}, {9, 0}, {9, 4}, {5, 4}, {5, 8}, {0, 8}});
  EXPECT_GT(geometry::distance_to_edges({{0, 0}, {9, 0}, {9, 4}, {5, 4}, {5, 8}, {0, 8}}, inside), 2.4);
  EXPECT_TRUE(plans::faces_of({}).empty());
}

}  // namespace plans_test
}  // namespace glow
