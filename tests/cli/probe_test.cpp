// `glowgrid probe`, on the built program.
#include "cli/run_program.hpp"

namespace glow::cli {
namespace probe_test {

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

/// Two luminaires of 2700 and 6500 K: their mixture is that of their tristimulus values, not of their kelvin.
TEST(Probe, TellsTheColourOfTheMixture) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write(
      "two.toml",
      "format = 1\n[project]\nname = \"T\"\n[defaults]\nmaintenance_factor = 0.8\nreflectance = { ceiling = "
      "0, "
      "walls = 0, floor = 0 }\n[luminaires.A]\nfile = \"photometry/quillon-d2.ies\"\ncct = 2700\n"
      "[luminaires.B]\nfile = \"photometry/quillon-d2.ies\"\ncct = 6500\n[[rooms]]\nname = \"R\"\nsize = [4, "
      "4]\nheight = 3\n[[rooms.luminaires]]\nmark = \"A\"\nat = [1, 2]\n[[rooms.luminaires]]\nmark = \"B\"\n"
      "at = [3, 2]\n");
  const json between = json::parse(run(folder, "probe two.toml --at 2,2,0.8 --json -q").out);
  const json& colour = between.at("colour");
  EXPECT_NEAR(colour.at("known_share").get<double>(), 1, 1e-9);
  // Halfway in light the mixture of these two is near 3950 K (6500 K on the daylight locus), far from 4600 K.
  EXPECT_NEAR(colour.at("cct_k").get<double>(), 3950, 40);
  EXPECT_LT(colour.at("duv").get<double>(), -0.003);
  const Ran below = run(folder, "probe two.toml --at 1,2,2.5 -q");
  EXPECT_TRUE(says(below.out, "  colour ") && says(below.out, " K, Duv ")) << below.out << below.err;
  EXPECT_NEAR(colour.at("groups").at(0).at("cct_k").get<double>(), 2700, 10) << "of its own light";
}

}  // namespace probe_test
}  // namespace glow::cli
