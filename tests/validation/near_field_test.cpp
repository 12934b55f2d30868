// Straight light near long and steep luminaires, against sums over very fine elements.
#include <gtest/gtest.h>

#include <random>

#include "core/sources/received_light.hpp"
#include "core/transport/effort.hpp"
#include "corpus.hpp"
#include "test_files.hpp"
#include "validation/metric_luminaires.hpp"

namespace glow::reference {
namespace near_field_test {

const nlohmann::json& near_field() {
  static const nlohmann::json cases = test::json_in(test::test_data("validation/nearfield.json"));
  return cases;
}

photometry::PlacedLuminaire luminaire_of_file(const nlohmann::json& c) {
  Problems problems;
  const auto photometry = files::read_from_corpus("valid/" + c.at("file").get<std::string>(), problems);
  photometry::PlacedLuminaire placed;
  placed.table = std::make_shared<photometry::IntensityTable>(photometry.value().table);
  placed.area = photometry->area;
  placed.frame = geometry::Frame::tilted(point(c.at("at")), c.at("rotation"), c.at("tilt"));
  return placed;
}

struct Accuracy {
  transport::Effort effort;
  double most;  ///< share by which a value may be off
};

class NearFieldTest : public testing::TestWithParam<std::size_t> {};

TEST_P(NearFieldTest, IsAsCloseAsItSays) {
  const nlohmann::json& c = near_field().at("cases").at(GetParam());
  SCOPED_TRACE(c.at("id"));
  const photometry::PlacedLuminaire placed = luminaire_of_file(c);
  const sources::DirectLight light(placed, nullptr);
  for (const Accuracy& accuracy :
       {Accuracy{transport::Effort::normal(), 0.005}, Accuracy{transport::Effort::fine(), 0.001}})
    for (const nlohmann::json& r : c.at("receivers")) {
      const double expected = r.at("lx");
      const sources::DirectLux found = sources::received({&light}, {point(r.at("at")), point(r.at("facing"))},
                                                         accuracy.effort.direct_tolerance);
      EXPECT_NEAR(found.lux, expected, accuracy.most * expected + 0.02) << r.at("at");
      EXPECT_NEAR(found.lux, expected, found.error + 2e-4 * expected + 1e-3) << r.at("at");
      EXPECT_LE(found.error, 0.0035 * found.lux) << r.at("at");
    }
}

/// Midpoints of a fine net over the rectangle or the disc.
double summed_up(const photometry::PlacedLuminaire& l, const readings::Receiver& receiver) {
  constexpr int kAlong = 400;
  double sum = 0;
  int count = 0;
  for (int i = 0; i < kAlong; ++i)
    for (int j = 0; j < kAlong; ++j) {
      const double u = (i + 0.5) / kAlong - 0.5, v = (j + 0.5) / kAlong - 0.5;
      if (is_round(l.area.shape) && u * u + v * v > 0.25) continue;
      ++count;
      const Vec3 place =
          l.frame.origin + u * l.area.extent_c0_m * l.frame.c0 + v * l.area.extent_c90_m * l.frame.c90;
      const Vec3 way = receiver.position - place;
      const double weight = receiver.weight(-way.normalized());
      if (weight > 0)
        sum += weight / way.squaredNorm() *
               l.table->intensity_along(way.dot(l.frame.c0), way.dot(l.frame.c90), way.dot(l.frame.g0));
    }
  return sum / count;
}

/// The stated error is meant to hold for 95 of 100 points, any luminaire, leaning any way, from 0.4 to 4 m.
TEST(NearField, TheStatedErrorHolds) {
  constexpr int kPointsOfEach = 6;
  std::mt19937 random(7);
  const auto between = [&](double low, double high) {
    return std::uniform_real_distribution<double>(low, high)(random);
  };
  int points = 0, inside = 0;
  double worst = 0;
  for (const std::string& name : files::corpus_names("valid")) {
    Problems problems;
    const auto photometry = files::read_from_corpus(name, problems);
    if (photometry->area.shape != photometry::LuminousShape::rectangle &&
        photometry->area.shape != photometry::LuminousShape::disc)
      continue;
    photometry::PlacedLuminaire placed;
    placed.table = std::make_shared<photometry::IntensityTable>(photometry->table);
    placed.area = photometry->area;
    for (int k = 0; k < kPointsOfEach; ++k) {
      placed.frame = geometry::Frame::tilted({0, 0, 3}, between(0, 360), between(0, 30));
      const readings::Receiver receiver{{between(-2, 2), between(-2, 2), between(0, 2.6)},
                                        Vec3(between(-1, 1), between(-1, 1), between(-0.2, 1)).normalized()};
      const double expected = summed_up(placed, receiver);
      if (expected < 0.5) continue;
      const sources::DirectLight light(placed, nullptr);
      const sources::DirectLux found = sources::received({&light}, receiver, 0.002);
      const double off = std::abs(found.lux - expected);
      ++points;
      inside += off <= found.error + 2e-4 * expected;  // the net is not finer
      worst = std::max(worst, off / expected);
    }
  }
  EXPECT_GT(points, 80);
  EXPECT_GE(inside, 0.9 * points) << inside << " of " << points;
  EXPECT_LT(worst, 0.01);
}

INSTANTIATE_TEST_SUITE_P(Files, NearFieldTest,
                         testing::Range(std::size_t(0), near_field().at("cases").size()));

}  // namespace near_field_test
}  // namespace glow::reference
