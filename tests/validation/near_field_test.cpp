// Straight light near long and steep luminaires, against sums over very fine elements.
#include <gtest/gtest.h>

#include <fstream>

#include "core/sources/received_light.hpp"
#include "core/transport/effort.hpp"
#include "corpus.hpp"
#include "validation/metric_luminaires.hpp"

namespace glow::reference {
namespace {

const nlohmann::json& near_field() {
  static const nlohmann::json cases =
      nlohmann::json::parse(std::ifstream(GLOWGRID_TEST_DATA "/validation/nearfield.json"));
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

INSTANTIATE_TEST_SUITE_P(Files, NearFieldTest,
                         testing::Range(std::size_t(0), near_field().at("cases").size()));

}  // namespace
}  // namespace glow::reference
