// Luminaires searched by their numbers.
#include <gtest/gtest.h>

#include <cmath>

#include "core/photometry/derived.hpp"
#include "core/shelf/query.hpp"
#include "files/photometry/photometric_file.hpp"
#include "test_files.hpp"

namespace glow::shelf {
namespace shelf_test {

Entry entry(const std::string& file) {
  Problems problems;
  const auto p = files::read_photometric_file(test::test_data("photometry/valid/" + file), problems);
  EXPECT_TRUE(p) << file;
  return {file, facts_of(*p), 0};
}

const std::vector<Entry>& entries() {
  static const std::vector<Entry> list = {entry("e01-panel.ldt"),          entry("e02-pendant.ldt"),
                                          entry("e03-board.ldt"),          entry("i02-isotropic-1986.ies"),
                                          entry("i11-uplight-90-180.ies"), entry("i17-sphere.ies"),
                                          entry("i03-downlight-1991.ies")};
  return list;
}

std::string names_of(const Query& query) {
  std::string names;
  for (const std::size_t i : find(entries(), query).entries) names += entries()[i].file.substr(0, 3) + " ";
  return names;
}

struct Search {
  const char* about;
  Query query;
  const char* found;
};

Query query_of(std::map<std::string, units::Range> ranges, std::vector<std::string> words = {}) {
  Query query;
  query.words = std::move(words);
  query.ranges = std::move(ranges);
  return query;
}

TEST(Shelf, FindsByWordsKindsShapesAndRanges) {
  using photometry::LightKind;
  Query one_sided, indirect_or_both, square, falling;
  one_sided.kinds = {LightKind::one_sided};
  indirect_or_both.kinds = {LightKind::indirect, LightKind::direct_indirect};
  square.shapes = {"square"};
  falling.sort = "flux";
  falling.falling = true;
  const Search searches[] = {
      {"everything, by file", {}, "e01 e02 e03 i02 i03 i11 i17 "},
      {"one-sided", one_sided, "e03 "},
      {"light upwards", indirect_or_both, "e02 i02 i11 i17 "},
      {"square", square, "e01 "},
      {"flux, largest first", falling, "e02 i11 e01 e03 i02 i17 i03 "},
      {"a range of one number", query_of({{"flux", {2000, 4000}}}), "e01 e03 "},
      {"a range of two planes holds for both", query_of({{"beam", {100, 125}}}), "e01 "},
      {"words in any case, all of them", query_of({}, {"QUILLON", "downlight"}), "i03 "},
      {"no such word", query_of({}, {"chandelier"}), ""},
  };
  for (const Search& each : searches) EXPECT_EQ(names_of(each.query), each.found) << each.about;
}

TEST(Shelf, CountsWhatIsLeftOutOnlyForNotBeingKnown) {
  const Query query = query_of({{"cct", {4000, 4000}}, {"flux", {2000, 4000}}});
  const Found found = find(entries(), query);
  EXPECT_EQ(names_of(query), "e01 e03 ");
  EXPECT_TRUE(found.unknown.empty()) << "those without a temperature are outside the other range anyway";
  EXPECT_EQ(find(entries(), query_of({{"cct", {2000, 9000}}})).unknown.at("cct"), 4u);
}

TEST(Shelf, PutsWhatIsNotKnownLastEitherWay) {
  Query query;
  query.sort = "cct";
  const std::size_t known = 3;
  for (const bool falling : {false, true}) {
    query.falling = falling;
    const Found found = find(entries(), query);
    ASSERT_EQ(found.entries.size(), entries().size());
    for (std::size_t i = 0; i < found.entries.size(); ++i)
      EXPECT_EQ(entries()[found.entries[i]].facts[Measure::cct].has_value(), i < known) << i;
  }
}

/// A beam of cos^n aimed off to the side.
TEST(Shelf, LeanIsTheSidewardPartOfTheMeanDirection) {
  const auto leaning = [](double lean_deg) {
    std::vector<double> c, gamma, cd;
    for (int i = 0; i <= 72; ++i) c.push_back(5.0 * i);
    for (int i = 0; i <= 90; ++i) gamma.push_back(2.0 * i);
    for (const double a : c)
      for (const double g : gamma) {
        const double x = std::sin(g * kDegree) * std::cos(a * kDegree), z = std::cos(g * kDegree);
        cd.push_back(
            std::pow(std::max(0.0, x * std::sin(lean_deg * kDegree) + z * std::cos(lean_deg * kDegree)), 20));
      }
    return photometry::IntensityTable(c, gamma, cd);
  };
  for (const double lean : {0.0, 10.0, 30.0, 60.0, 120.0})  // the mean of cos^n leans by (n + 1) / (n + 2)
    EXPECT_NEAR(photometry::lean_of(leaning(lean)), 21.0 / 22 * std::sin(lean * kDegree), 0.002) << lean;
  EXPECT_EQ(photometry::light_kind(leaning(10)), photometry::LightKind::direct);
  EXPECT_EQ(photometry::light_kind(leaning(30)), photometry::LightKind::one_sided);
  EXPECT_EQ(photometry::light_kind(leaning(180)), photometry::LightKind::indirect);
}

}  // namespace shelf_test
}  // namespace glow::shelf
