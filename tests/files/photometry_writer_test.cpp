// Conversions keep the light: every valid file of the corpus, there and back, and the changes on the way.
#include "files/photometry/photometry_writer.hpp"
#include "core/photometry/placed_luminaire.hpp"

#include <gtest/gtest.h>

#include <filesystem>

#include "core/photometry/transform.hpp"
#include "corpus.hpp"

namespace glow::files {
namespace photometry_writer_test {

using photometry::Photometry;

Photometry read_back(const std::string& bytes, const std::string& name) {
  Problems problems;
  auto p = read_photometry(bytes, name, problems);
  EXPECT_TRUE(p) << to_string(problems.all().at(0));
  return *p;
}

/// The same light at every node of the first, to better than seven digits.
void expect_same_light(const Photometry& a, const Photometry& b, double turn_deg = 0) {
  const double peak = a.table.peak().candela;
  for (const double c : a.table.c_deg())
    for (const double g : a.table.gamma_deg())
      ASSERT_NEAR(b.table.intensity(c + turn_deg, g), a.table.intensity(c, g), 2e-7 * peak)
          << "C " << c << " gamma " << g;
  EXPECT_NEAR(b.flux_lm(), a.flux_lm(), 1e-6 * a.flux_lm());
}

class RoundTripTest : public testing::TestWithParam<std::string> {};

TEST_P(RoundTripTest, KeepsEveryIntensityAndTheFlux) {
  Problems problems;
  const auto original = read_from_corpus(GetParam(), problems);
  ASSERT_TRUE(original);
  std::vector<std::string> losses;
  const Photometry ies = read_back(write_ies(*original, losses), "a.ies");
  expect_same_light(*original, ies);
  EXPECT_EQ(ies.area.shape, original->area.shape);
  const Photometry ldt = read_back(write_eulumdat(ies, "a.ldt", losses), "a.ldt");
  expect_same_light(*original, ldt);
  const Photometry again = read_back(write_ies(ldt, losses), "b.ies");
  expect_same_light(*original, again);
  if (!original->absolute && original->lamp_flux_lm.value_or(0) > 0) {
    EXPECT_NEAR(again.lamp_flux_lm.value_or(0), *original->lamp_flux_lm, 1e-5 * *original->lamp_flux_lm);
  }
  EXPECT_NEAR(again.watts.value_or(0), original->watts.value_or(0), 1e-5 * original->watts.value_or(0));
  EXPECT_EQ(again.cct_k, original->cct_k);
  EXPECT_NEAR(again.area.extent_c0_m, original->area.extent_c0_m, 1e-4);
  EXPECT_NEAR(again.area.extent_c90_m, original->area.extent_c90_m, 1e-4);
  EXPECT_EQ(again.declared_symmetry, ies.declared_symmetry);
}

INSTANTIATE_TEST_SUITE_P(Corpus, RoundTripTest, testing::ValuesIn(corpus_names("valid")),
                         [](const testing::TestParamInfo<std::string>& file) {
                           std::string name = file.param;
                           for (char& c : name)
                             if (!std::isalnum(static_cast<unsigned char>(c))) c = '_';
                           return name;
                         });

/// What fuzzing found and was mended: read to a value or an error, and what was read can be written and read
/// again.
TEST(Regression, FilesThatBrokeAReaderOnceAreHarmless) {
  int files = 0;
  for (const auto& entry : std::filesystem::directory_iterator(corpus_folder() + "regression")) {
    SCOPED_TRACE(entry.path().filename().string());
    Problems problems;
    const auto p =
        read_photometry(content_of(entry.path().string()), entry.path().filename().string(), problems);
    EXPECT_EQ(p.has_value(), !problems.has_errors());
    std::vector<std::string> losses;
    if (p) expect_same_light(*p, read_back(write_ies(*p, losses), "again.ies"));
    ++files;
  }
  EXPECT_GE(files, 1);
}

class TurnTest : public testing::TestWithParam<double> {};

TEST_P(TurnTest, TurnsTheLightAndSurvivesBothFormats) {
  for (const char* name :
       {"valid/e05-street.ldt", "valid/e02-pendant.ldt", "valid/e07-skew.ldt", "valid/e03-board.ldt"}) {
    SCOPED_TRACE(name);
    Problems problems;
    const auto original = read_from_corpus(name, problems);
    std::vector<std::string> losses;
    const Photometry turned = photometry::turned(*original, GetParam(), losses);
    expect_same_light(*original, turned, GetParam());
    expect_same_light(turned, read_back(write_ies(turned, losses), "a.ies"));
    expect_same_light(turned, read_back(write_eulumdat(turned, "a.ldt", losses), "a.ldt"));
    if (GetParam() == 90) {
      EXPECT_EQ(turned.area.extent_c0_m, original->area.extent_c90_m);
    }
  }
}

INSTANTIATE_TEST_SUITE_P(Angles, TurnTest, testing::Values(90.0, 180.0, -90.0, 15.0, 360.0));

TEST(Transform, MergedLightAddsUpInEveryDirection) {
  Problems problems;
  const auto down = read_from_corpus("valid/i01-panel.ies", problems);
  const auto up = read_from_corpus("valid/i11-uplight-90-180.ies", problems);
  const auto skew = read_from_corpus("valid/e07-skew.ldt", problems);
  std::vector<std::string> notes;
  const Photometry whole = photometry::merged({*down, *up, *skew}, notes);
  for (double c = 0; c < 360; c += 15)
    for (double g = 0; g <= 180; g += 2.5)
      EXPECT_NEAR(whole.table.intensity(c, g),
                  down->table.intensity(c, g) + up->table.intensity(c, g) + skew->table.intensity(c, g),
                  1e-6 * 2000);
  EXPECT_NEAR(whole.flux_lm(), down->flux_lm() + up->flux_lm() + skew->flux_lm(), 2e-4 * whole.flux_lm());
  EXPECT_NEAR(whole.watts.value_or(0), *down->watts + *up->watts + *skew->watts, 1e-9);
  EXPECT_NEAR(*whole.lamp_flux_lm, *down->lamp_flux_lm + *up->lamp_flux_lm + *skew->lamp_flux_lm, 1e-9);
  EXPECT_FALSE(notes.empty());
}

TEST(Transform, ScalingScalesLightAndLampsButNotWatts) {
  Problems problems;
  const auto panel = read_from_corpus("valid/i01-panel.ies", problems);
  const Photometry half = photometry::scaled(*panel, 0.5);
  EXPECT_NEAR(half.flux_lm(), 0.5 * panel->flux_lm(), 1e-9);
  EXPECT_NEAR(*half.lamp_flux_lm, 0.5 * *panel->lamp_flux_lm, 1e-9);
  EXPECT_EQ(half.watts, panel->watts);
}

}  // namespace photometry_writer_test
}  // namespace glow::files
