// Single rules of the two photometric formats, as changes to a good file.
#include <gtest/gtest.h>

#include "core/photometry/placed_luminaire.hpp"
#include "corpus.hpp"
#include "files/photometry/ies_opening.hpp"

namespace glow::files {
namespace formats_test {

using photometry::LuminousShape;

/// The lines of a file, so that one can be replaced by its number.
std::vector<std::string> lines_of(const std::string& name) {
  std::vector<std::string> lines;
  std::istringstream stream(content_of(corpus_folder() + name));
  for (std::string line; std::getline(stream, line);) {
    if (!line.empty() && line.back() == '\r') line.pop_back();
    lines.push_back(line);
  }
  return lines;
}

std::string joined(const std::vector<std::string>& lines) {
  std::string text;
  for (const std::string& line : lines) text += line + "\r\n";
  return text;
}

struct LineFault {
  int line;
  const char* becomes;
  const char* code;  ///< of the one error
};

class EulumdatFaultTest : public testing::TestWithParam<LineFault> {};

TEST_P(EulumdatFaultTest, IsNamedWithItsLine) {
  std::vector<std::string> lines = lines_of("valid/e02-pendant.ldt");
  lines[std::size_t(GetParam().line) - 1] = GetParam().becomes;
  Problems problems;
  EXPECT_FALSE(read_eulumdat(joined(lines), "pendant.ldt", problems));
  ASSERT_EQ(problems.error_count(), 1);
  EXPECT_EQ(problems.all()[0].code, GetParam().code) << problems.all()[0].text;
  EXPECT_EQ(problems.all()[0].place.line, GetParam().line) << problems.all()[0].text;
}

INSTANTIATE_TEST_SUITE_P(Lines, EulumdatFaultTest,
                         testing::Values(LineFault{2, "x", "not-a-number"}, LineFault{3, "5", "bad-code"},
                                         LineFault{3, "1.5", "bad-code"}, LineFault{4, "0", "bad-count"},
                                         LineFault{4, "99999", "count-too-large"},
                                         LineFault{6, "-3", "bad-count"}, LineFault{16, "", "not-a-number"},
                                         LineFault{24, "-1", "bad-factor"}, LineFault{26, "0", "bad-count"},
                                         LineFault{29, "inf", "not-finite"},
                                         LineFault{29, "0", "zero-flux"}));

TEST(Eulumdat, LampSetsMayBeListedFieldAfterField) {
  std::vector<std::string> lines = lines_of("valid/e13-three-lamp-sets.ldt");
  std::vector<std::string> turned = lines;
  for (std::size_t set = 0; set < 3; ++set)
    for (std::size_t field = 0; field < 6; ++field)
      turned[26 + 3 * field + set] = lines[26 + 6 * set + field];
  Problems a, b;
  const auto by_set = read_eulumdat(joined(lines), "a.ldt", a);
  const auto by_field = read_eulumdat(joined(turned), "b.ldt", b);
  ASSERT_TRUE(by_set && by_field);
  EXPECT_EQ(*by_set->lamp_flux_lm, 5400);
  EXPECT_EQ(*by_field->lamp_flux_lm, 5400);
  EXPECT_EQ(by_field->watts, by_set->watts);
  EXPECT_EQ(by_field->flux_lm(), by_set->flux_lm());
}

TEST(Eulumdat, TheTenDirectRatiosMayBeMissing) {
  std::vector<std::string> lines = lines_of("valid/e01-panel.ldt");
  Problems problems;
  const auto whole = read_eulumdat(joined(lines), "a.ldt", problems);
  lines.erase(lines.begin() + 32, lines.begin() + 42);
  const auto shorter = read_eulumdat(joined(lines), "b.ldt", problems);
  ASSERT_TRUE(whole && shorter);
  EXPECT_EQ(whole->flux_lm(), shorter->flux_lm());
  EXPECT_EQ(problems.all().back().code, "no-direct-ratios");
}

TEST(Eulumdat, AConversionFactorOfZeroIsTakenAsOneWithAWarning) {
  std::vector<std::string> lines = lines_of("valid/e01-panel.ldt");
  lines[23] = "0";
  Problems problems;
  const auto p = read_eulumdat(joined(lines), "a.ldt", problems);
  ASSERT_TRUE(p);
  EXPECT_GT(p->flux_lm(), 1000);
  EXPECT_EQ(problems.all()[0].code, "conversion-zero");
}

TEST(Ies, EditionsDisagreeAboutTheTwelfthNumber) {
  const std::string text = content_of(corpus_folder() + "valid/i01-panel.ies");
  const auto flux = [&](const std::string& edition) {
    std::string changed = text;
    changed.replace(0, changed.find('\n'), edition);
    changed.replace(changed.find("1 1 32"), 6, "1 0.5 32");
    Problems problems;
    return read_ies(changed, "a.ies", problems)->flux_lm();
  };
  const double whole = flux("IESNA:LM-63-2002");
  EXPECT_NEAR(flux("IESNA91"), 0.5 * whole, 1e-9);  // the ballast-lamp factor, then
  EXPECT_EQ(flux("IESNA:LM-63-1995"), whole);
  EXPECT_EQ(flux("IES:LM-63-2019"), whole);  // a code, now
}

struct Opening {
  double width, length, height;
  bool one_extent;
  LuminousShape shape;
  double c0, c90, high;
};

class OpeningTest : public testing::TestWithParam<Opening> {};

TEST_P(OpeningTest, SignsCarryTheShape) {
  const Opening& o = GetParam();
  const photometry::LuminousArea area = luminous_opening(o.width, o.length, o.height, o.one_extent);
  EXPECT_EQ(area.shape, o.shape) << to_string(area.shape);
  EXPECT_EQ(area.extent_c0_m, o.c0);
  EXPECT_EQ(area.extent_c90_m, o.c90);
  EXPECT_EQ(area.height_m(), o.high);
}

INSTANTIATE_TEST_SUITE_P(
    Signs, OpeningTest,
    testing::Values(Opening{0, 0, 0, false, LuminousShape::point, 0, 0, 0},
                    Opening{0.3, 1.2, 0, false, LuminousShape::rectangle, 1.2, 0.3, 0},
                    Opening{0.3, 1.2, 0.1, false, LuminousShape::box, 1.2, 0.3, 0.1},
                    Opening{-0.2, -0.2, 0, false, LuminousShape::disc, 0.2, 0.2, 0},
                    Opening{-0.2, -0.4, 0, false, LuminousShape::ellipse, 0.4, 0.2, 0},
                    Opening{-0.2, -0.2, 0.5, false, LuminousShape::vertical_cylinder, 0.2, 0.2, 0.5},
                    Opening{-0.2, -0.2, -0.2, false, LuminousShape::sphere, 0.2, 0.2, 0.2},
                    Opening{-0.03, 1.4, -0.03, false, LuminousShape::horizontal_cylinder_c0, 1.4, 0.03, 0.03},
                    Opening{1.4, -0.03, -0.03, false, LuminousShape::horizontal_cylinder_c90, 0.03, 1.4,
                            0.03},
                    Opening{-0.2, 0, -0.2, false, LuminousShape::upright_disc, 0, 0.2, 0.2},
                    // 1991 and 1995: one extent only.
                    Opening{-0.2, 0, 0, true, LuminousShape::disc, 0.2, 0.2, 0},
                    Opening{-0.2, 0, 0.5, true, LuminousShape::vertical_cylinder, 0.2, 0.2, 0.5},
                    Opening{-0.2, 0, -0.2, true, LuminousShape::sphere, 0.2, 0.2, 0.2},
                    Opening{0, 1.4, -0.03, true, LuminousShape::horizontal_cylinder_c0, 1.4, 0.03, 0.03},
                    Opening{1.4, 0, -0.03, true, LuminousShape::horizontal_cylinder_c90, 0.03, 1.4, 0.03}));

}  // namespace formats_test
}  // namespace glow::files
