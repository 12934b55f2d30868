// `glowgrid probe`, on the built program.
#include "cli/run_program.hpp"

namespace glow::cli {
namespace {

TEST(Probe, AgreesWithTheGridAndItsSharesAddUp) {
  const TemporaryFolder folder;
  write_project(folder);
  ASSERT_EQ(run(folder, "run millrace.toml -o out").code, 0);
  // The grid's fourth row: x, y, z, normal, direct, interreflected, total.
  std::istringstream csv(content_of(folder.path() / "out/grids/throwing-room--work-plane.csv"));
  std::string row;
  for (int k = 0; k < 5; ++k) std::getline(csv, row);
  std::vector<double> values;
  std::istringstream cells(row);
  for (std::string cell; std::getline(cells, cell, ',');) values.push_back(std::stod(cell));
  ASSERT_EQ(values.size(), 9u);
  const Ran ran = run(folder, "probe millrace.toml --json --at " + std::to_string(values[0]) + "," +
                                  std::to_string(values[1]) + "," + std::to_string(values[2]));
  ASSERT_EQ(ran.code, 0) << ran.err;
  const json spot = json_of(ran.out);
  EXPECT_NEAR(spot.at("direct_lx").get<double>(), values[6], 1e-3 * values[6]);
  EXPECT_NEAR(spot.at("total_lx").get<double>(), values[8], 0.01 * values[8]);
  EXPECT_LT(spot.at("uncertainty_lx").get<double>(), 0.01 * values[8]);
  double sum = 0, last = 1e9;
  for (const json& luminaire : spot.at("luminaires")) {
    const double lux = luminaire.at("total_lx").get<double>();
    EXPECT_LE(lux, last);
    last = lux;
    sum += lux;
  }
  EXPECT_EQ(spot.at("luminaires").size(), 8u);
  EXPECT_NEAR(sum, spot.at("total_lx").get<double>(), 1e-6 * sum);
  EXPECT_FALSE(std::filesystem::exists(folder.path() / "millrace-results"));
}

struct Refusal {
  const char* options;
  const char* words;
};

void PrintTo(const Refusal& refusal, std::ostream* out) {
  *out << refusal.options;
}

class ProbeRefusal : public ::testing::TestWithParam<Refusal> {};

TEST_P(ProbeRefusal, SaysWhatWasExpected) {
  const TemporaryFolder folder;
  write_project(folder);
  const Ran ran = run(folder, std::string("probe millrace.toml ") + GetParam().options);
  EXPECT_EQ(ran.code, 2);
  EXPECT_EQ(ran.out, "");
  EXPECT_TRUE(says(ran.err, GetParam().words)) << ran.err;
}

INSTANTIATE_TEST_SUITE_P(
    Calls, ProbeRefusal,
    ::testing::Values(Refusal{"", "expected three lengths"}, Refusal{"--at 1,2", "expected three lengths"},
                      Refusal{"--at 1,2,3,4", "expected three lengths"},
                      Refusal{"--at 1,2,x", "three lengths"},
                      Refusal{"--at 2,2,1 --facing sideways", "expected up, down, a direction"},
                      Refusal{"--at 2,2,1 --facing 0,0,0", "expected up, down, a direction"},
                      Refusal{"--at 2,2,1 --room \"Trowing room\"", "did you mean \"Throwing room\"?"},
                      Refusal{"--at 2,2,-1", "inside or behind \"floor\""},
                      Refusal{"--at 99,2,1", "outside \"Throwing room\""}));

}  // namespace
}  // namespace glow::cli
