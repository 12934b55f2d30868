// Plans: words of rooms, patterns, frames, curves, texts of drawings.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <random>
#include <set>

#include "core/plans/line_work.hpp"
#include "core/plans/naming.hpp"
#include "core/plans/near_points.hpp"
#include "core/plans/request.hpp"
#include "core/plans/squares.hpp"
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

/// Between two segments, m.
double distance_between(const plans::Segment& a, const plans::Segment& b) {
  const Vec2 d = a.to - a.from, e = b.to - b.from;
  const double across = plans::cross(d, e);
  const double t = plans::cross(b.from - a.from, e) / across, u = plans::cross(b.from - a.from, d) / across;
  if (across != 0 && t >= 0 && t <= 1 && u >= 0 && u <= 1) return 0;
  const auto to_line = [](const plans::Segment& line, const Vec2& p) {
    const Vec2 way = line.to - line.from;
    const double share = std::clamp((p - line.from).dot(way) / way.squaredNorm(), 0.0, 1.0);
    return (line.from + share * way - p).norm();
  };
  return std::min({to_line(a, b.from), to_line(a, b.to), to_line(b, a.from), to_line(b, a.to)});
}

struct LinesCase {
  const char* name;
  int count;
  double extent_m, longest_m;
};
void PrintTo(const LinesCase& lines, std::ostream* out) {
  *out << lines.name;
}

class NearLinesTest : public testing::TestWithParam<LinesCase> {
 protected:
  double random(double most) { return std::uniform_real_distribution<double>(0, most)(engine_); }
  plans::Segment segment(double longest) {
    const Vec2 from(random(GetParam().extent_m), random(GetParam().extent_m));
    const double angle = random(2 * kPi);
    return {from, from + (0.01 + random(longest)) * Vec2(std::cos(angle), std::sin(angle))};
  }
  std::mt19937 engine_{7};
};
TEST_P(NearLinesTest, AreAllFound) {
  std::vector<plans::Segment> lines;
  std::vector<Vec2> points;
  for (int k = 0; k < GetParam().count; ++k) lines.push_back(segment(GetParam().longest_m));
  for (const plans::Segment& line : lines) points.push_back(line.from);
  const plans::Squares squares(lines);
  const double reach = 0.2;
  const plans::NearPoints near_points(points, reach);
  std::size_t near = 0;
  for (int k = 0; k < 200; ++k) {
    const plans::Segment way = segment(3);
    std::set<std::size_t> met, close;
    squares.near(way, [&](std::size_t other) { met.insert(other); });
    near_points.near(way.from, [&](std::size_t other) { close.insert(other); });
    for (std::size_t other = 0; other < lines.size(); ++other) {
      const bool is_near = distance_between(lines[other], way) < plans::Squares::kHand;
      near += is_near;
      if (is_near) {
        EXPECT_TRUE(met.count(other)) << other;
      }
      if ((points[other] - way.from).norm() < reach) {
        EXPECT_TRUE(close.count(other)) << other;
      }
    }
  }
  EXPECT_GT(near, 100u);  // some were
}
INSTANTIATE_TEST_SUITE_P(Plans, NearLinesTest,
                         testing::Values(LinesCase{"walls", 400, 30, 8}, LinesCase{"crowded", 4000, 5, 0.3},
                                         LinesCase{"far_apart", 3000, 300, 40},
                                         LinesCase{"kilometres", 4000, 1000, 1900}));

/// In whatever order lines come: a lattice has a face for each of its squares.
TEST(LineWork, ALatticeHasAllItsFaces) {
  std::vector<plans::Segment> lines;
  for (int k = 0; k <= 40; ++k) {
    lines.push_back({{double(k), -0.5}, {double(k), 40.5}});
    lines.push_back({{-0.5, double(k)}, {40.5, double(k)}});
  }
  double area = 0;
  const std::vector<plans::Face> faces = plans::faces_of(lines);
  for (const plans::Face& face : faces) area += geometry::signed_area(face.outline);
  EXPECT_EQ(faces.size(), 1600u);
  EXPECT_NEAR(area, 1600, 1e-6);
}

}  // namespace plans_test
}  // namespace glow
