// The made-up corpus against truth.json, and faults that must be named with their place.
#include "files/photometry/photometry_reader.hpp"

#include <gtest/gtest.h>

#include <fstream>
#include <nlohmann/json.hpp>
#include <set>
#include <sstream>

#include "corpus.hpp"
#include "files/text/colour_text.hpp"

namespace glow::files {
namespace photometry_reader_test {

using nlohmann::json;

const json& truth() {
  return corpus_truth();
}

std::string test_name(const testing::TestParamInfo<std::string>& file) {
  std::string name = file.param;
  for (char& c : name)
    if (!std::isalnum(static_cast<unsigned char>(c))) c = '_';
  return name;
}

class ValidFileTest : public testing::TestWithParam<std::string> {};

TEST_P(ValidFileTest, IsReadAsTheTruthSays) {
  const json& expected = truth().at(GetParam());
  Problems problems;
  const auto found = read_from_corpus(GetParam(), problems);
  ASSERT_TRUE(found) << to_string(problems.all().at(0));
  const auto near = [](double ours, const json& theirs, double relative) {
    EXPECT_NEAR(ours, theirs.get<double>(), relative * std::abs(theirs.get<double>()) + 1e-9);
  };
  // Types A and B are resampled to C-gamma, which costs a little.
  const bool resampled = expected.at("type") != "C";
  const double peak = expected.at("peak").at("cd");
  near(found->flux_lm(), expected.at("flux_lm"), resampled ? 1e-3 : 1e-5);
  EXPECT_NEAR(found->table.upward_flux() / found->flux_lm(), expected.at("upward_share").get<double>(), 1e-3);
  for (const json& sample : expected.at("samples"))
    EXPECT_NEAR(found->table.intensity(sample[0], sample[1]), sample[2].get<double>(),
                (resampled ? 5e-3 : 1e-4) * peak);
  near(found->table.peak().candela, expected.at("peak").at("cd"), resampled ? 5e-3 : 1e-5);
  for (const Problem& problem : problems.all())
    EXPECT_TRUE(problem.severity == Severity::note || problem.code == "no-watts") << to_string(problem);
  EXPECT_EQ(to_string(found->area.shape), expected.at("luminous").at("shape").get<std::string>());
  EXPECT_EQ(found->absolute, expected.at("absolute").get<bool>());
  if (expected.at("stated_lamp_flux_lm").is_number())
    near(*found->lamp_flux_lm, expected["stated_lamp_flux_lm"], 1e-9);
  if (expected.at("watts").is_number()) near(found->watts.value_or(0), expected["watts"], 1e-9);
  const json& luminous = expected.at("luminous");
  near(found->area.extent_c0_m, luminous.at("extent_C0_m"), 1e-4);
  near(found->area.extent_c90_m, luminous.at("extent_C90_m"), 1e-4);
  near(found->area.height_m(), luminous.at("height_m"), 1e-4);
  if (expected.at("cct_K").is_number()) near(found->cct_k.value_or(0), expected["cct_K"], 1e-9);
}

INSTANTIATE_TEST_SUITE_P(Corpus, ValidFileTest, testing::ValuesIn(corpus_names("valid")), test_name);

class BrokenFileTest : public testing::TestWithParam<std::string> {};

TEST_P(BrokenFileTest, IsRefusedWithAReasonOrReadWithCare) {
  const json& expected = truth().at(GetParam());
  Problems problems;
  const auto found = read_from_corpus(GetParam(), problems);
  EXPECT_EQ(found.has_value(), !problems.has_errors());
  std::set<std::string> fitting = {expected.at("why").get<std::string>()};
  if (expected.contains("why_also")) fitting.insert(expected["why_also"].begin(), expected["why_also"].end());
  std::string told;
  bool named = false;
  for (const Problem& problem : problems.all()) {
    told += to_string(problem) + "\n";
    named = named || (problem.severity != Severity::note && fitting.count(problem.code) > 0);
  }
  EXPECT_TRUE(named) << expected.at("why") << " wanted, told:\n" << told;
  std::set<std::string> allowed = {expected.at("outcome").get<std::string>()};
  if (expected.contains("also_ok")) allowed.insert(expected["also_ok"].begin(), expected["also_ok"].end());
  EXPECT_TRUE(allowed.count(found ? "warn" : "refuse") > 0) << told;
  if (found && expected.contains("flux_lm") && expected["flux_lm"].is_number()) {
    const double tolerance = expected.value("flux_tolerance", 1e-5);
    EXPECT_NEAR(found->flux_lm(), expected["flux_lm"].get<double>(),
                tolerance * expected["flux_lm"].get<double>());
  }
  for (const Problem& problem : problems.all()) {
    EXPECT_EQ(problem.place.file, GetParam());
    EXPECT_GT(problem.text.size(), 20u);
  }
}

INSTANTIATE_TEST_SUITE_P(Corpus, BrokenFileTest, testing::ValuesIn(corpus_names("broken")), test_name);

TEST(ColourText, IsTakenOnlyWhereItIsStated) {
  EXPECT_EQ(stated_colour_temperature("T8 made up, 3500 K"), 3500);
  EXPECT_EQ(stated_colour_temperature("2 x 36 W 4000K Ra>80"), 4000);
  EXPECT_FALSE(stated_colour_temperature("LED 840, 4000 kg, 5000 lm, 99999 K"));
  EXPECT_EQ(stated_colour_rendering("LED 4000 K, Ra 90"), 90);
  EXPECT_EQ(stated_colour_rendering("CRI>80"), 80);
  EXPECT_FALSE(stated_colour_rendering("Rack 90, CRIB 80, Ra 900, Ra"));
}

TEST(PhotometryReader, EveryTruncationIsRefusedOrReadWhole) {
  for (const char* name :
       {"valid/i09-street-90-270.ies", "valid/e05-street.ldt", "valid/i04-batwing-tilt-include.ies"}) {
    const std::string whole = content_of(corpus_folder() + name);
    for (std::size_t length = 0; length < whole.size(); length += 7) {
      Problems problems;
      const auto found = read_photometry(whole.substr(0, length), name, problems);
      ASSERT_EQ(found.has_value(), !problems.has_errors()) << name << " cut to " << length;
    }
  }
}

TEST(PhotometryReader, EveryDamagedByteIsRefusedOrRead) {
  for (const char* name : {"valid/i01-panel.ies", "valid/e01-panel.ldt"}) {
    const std::string whole = content_of(corpus_folder() + name);
    for (std::size_t at = 0; at < whole.size(); ++at)
      for (const char damage : {'9', '-', '\0', '\n', '\xFF'}) {
        std::string damaged = whole;
        damaged[at] = damage;
        Problems problems;
        const auto found = read_photometry(damaged, name, problems);
        ASSERT_EQ(found.has_value(), !problems.has_errors()) << name << " byte " << at;
      }
  }
}

struct Fault {
  const char* from;
  const char* to;
  const char* code;
  int line;
};

class IesFaultTest : public testing::TestWithParam<Fault> {};

TEST_P(IesFaultTest, IsNamedWithItsLine) {
  std::string text = content_of(corpus_folder() + "valid/i01-panel.ies");
  const std::size_t at = text.find(GetParam().from);
  ASSERT_NE(at, std::string::npos);
  text.replace(at, std::string(GetParam().from).size(), GetParam().to);
  Problems problems;
  EXPECT_FALSE(read_photometry(text, "panel.ies", problems));
  ASSERT_EQ(problems.error_count(), 1);
  EXPECT_EQ(problems.all()[0].code, GetParam().code) << problems.all()[0].text;
  EXPECT_EQ(problems.all()[0].place.line, GetParam().line) << problems.all()[0].text;
}

INSTANTIATE_TEST_SUITE_P(Faults, IesFaultTest,
                         testing::Values(Fault{"0.595 0.595 0", "0.595 O.595 0", "not-a-number", 10},
                                         Fault{"1 4000 1 19 1 1 2", "1 4000 1 19 1 1 3", "bad-code", 10},
                                         Fault{"1 4000 1 19 1 1 2", "1 4000 0 19 1 1 2", "zero-flux", 10},
                                         Fault{"0 5 10 15", "0 5 5 15", "angles-not-increasing", 12},
                                         Fault{"1317.80", "-1317.80", "negative-intensity", 15},
                                         Fault{"1 4000 1 19", "1 4000 1 1900", "truncated", 11}));

struct Doubt {
  const char* from;
  const char* to;
  const char* code;  ///< of the one warning or note; empty: none
};

class IesDoubtTest : public testing::TestWithParam<Doubt> {};

/// What is read all the same, the intensities unchanged, and what is said about it.
TEST_P(IesDoubtTest, IsReadAndTold) {
  const std::string plain = content_of(corpus_folder() + "valid/i01-panel.ies");
  std::string text = plain + "\n";
  const std::string from = GetParam().from;
  const std::size_t at = from.empty() ? text.size() : text.find(from);
  ASSERT_NE(at, std::string::npos);
  text.replace(at, from.size(), GetParam().to);
  Problems before, problems;
  const auto expected = read_photometry(plain, "panel.ies", before);
  const auto found = read_photometry(text, "panel.ies", problems);
  ASSERT_TRUE(found) << to_string(problems.all().front());
  EXPECT_EQ(found->table.peak().candela, expected->table.peak().candela);
  std::set<std::string> codes;
  for (const Problem& problem : problems.all()) codes.insert(problem.code);
  for (const Problem& problem : before.all()) codes.erase(problem.code);
  EXPECT_EQ(codes, *GetParam().code ? std::set<std::string>{GetParam().code} : std::set<std::string>{});
}

INSTANTIATE_TEST_SUITE_P(Files, IesDoubtTest,
                         testing::Values(Doubt{"TILT=NONE", "tilt=none", ""},
                                         Doubt{"TILT=NONE", "Tilt=None", ""},
                                         Doubt{"TILT=NONE", "TILT=INCLUDE\n1\n3\n-30 0 30\n0.9 1 0.9", ""},
                                         Doubt{"", "END\n", "trailing-words"},
                                         Doubt{"", "[END]", "trailing-words"},
                                         Doubt{" 90\r\n", " 89.5\r\n", "gamma-ends-early"}));

TEST(PhotometryReader, WhatWasNeverBuiltIsRefused) {
  const std::string plain = content_of(corpus_folder() + "valid/i01-panel.ies");
  for (const auto& [from, to] :
       {std::pair{"0.595 0.595 0", "1e19 0.595 0"}, {"1 4000 1 19", "1 4000 1e30 19"}}) {
    std::string text = plain;
    text.replace(text.find(from), std::string(from).size(), to);
    Problems problems;
    EXPECT_FALSE(read_photometry(text, "panel.ies", problems)) << to;
    ASSERT_EQ(problems.error_count(), 1) << to;
    EXPECT_EQ(problems.all().back().code, "out-of-range");
  }
}

}  // namespace photometry_reader_test
}  // namespace glow::files
