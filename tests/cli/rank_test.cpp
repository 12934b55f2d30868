// Luminaires weighed against each other by the built program.
#include "run_program.hpp"

namespace glow::cli {
namespace rank_test {

void write_store(const TemporaryFolder& folder) {
  write_project(folder);
  folder.write(
      "p.toml",
      "format = 1\n[project]\nname = \"P\"\nstandard = \"EN 12464-1:2021\"\n[defaults]\nmaintenance_factor = "
      "0.8\n[luminaires.D2]\nfile = \"photometry/quillon-d2.ies\"\n[[rooms]]\nname = \"Store\"\nsize = [4, "
      "3]\n"
      "height = 2.8\ntask = \"storage.store-room\"\nsurfaces = false\n");
}

const std::string kFiles =
    " photometry/quillon-d2.ies photometry/tarnfell-w3.ldt photometry/tarnfell-p1.ldt ";

TEST(Rank, OrdersThoseThatCanDoItAndSaysWhyOthersCannot) {
  const TemporaryFolder folder;
  write_store(folder);
  const Ran ran = run(folder, "rank p.toml" + kFiles + "--json --figure rank.svg -q");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const json candidates = json::parse(ran.out).at("candidates");
  ASSERT_EQ(candidates.size(), 3u);
  double last = 0;
  bool still = true;
  for (const json& each : candidates) {
    const bool meets = each.at("meets").get<bool>();
    EXPECT_TRUE(still || !meets);
    still = meets;
    if (!meets) {
      EXPECT_FALSE(each.at("why_not").get<std::string>().empty());
      continue;
    }
    const double watts = each.at("best").at("watts_w").get<double>();
    EXPECT_GE(watts, last);
    last = watts;
  }
  EXPECT_TRUE(says(content_of(folder.path() / "rank.svg"), "1. "));
  // Each has the arrangement that `arrange` finds for it.
  const json own = json::parse(run(folder, "arrange p.toml --mark D2 --json -q").out)[0].at("best");
  for (const json& each : candidates)
    if (each.at("file") == "photometry/quillon-d2.ies") {
      EXPECT_EQ(each.at("best").at("rows"), own.at("rows"));
      EXPECT_EQ(each.at("best").at("columns"), own.at("columns"));
      EXPECT_NEAR(each.at("best").at("checks")[0].at("actual").get<double>(),
                  own.at("checks")[0].at("actual").get<double>(), 1e-6);
    }
}

TEST(Rank, LeavesOutWhatCannotBeReadAndRefusesNone) {
  const TemporaryFolder folder;
  write_store(folder);
  folder.write("bad.ies", "not photometric");
  const Ran some = run(folder, "rank p.toml bad.ies photometry/quillon-d2.ies -q --by luminaires");
  EXPECT_EQ(some.code, 0) << some.err;
  EXPECT_TRUE(says(some.err, "bad.ies") && says(some.out, "Store: 1 of 1 luminaire can do it"))
      << some.out << some.err;
  const Ran none = run(folder, "rank p.toml bad.ies -q");
  EXPECT_EQ(none.code, 2);
  EXPECT_TRUE(says(none.err, "none of the photometric files can be read")) << none.err;
  EXPECT_EQ(run(folder, "rank p.toml photometry/quillon-d2.ies --by beauty").code, 2);
  const Ran unpriced = run(folder, "rank p.toml photometry/quillon-d2.ies --by cost");
  EXPECT_EQ(unpriced.code, 2);
  EXPECT_TRUE(says(unpriced.err, "give [luminaires.MARK] with these files a price")) << unpriced.err;
  std::string priced = content_of(folder.path() / "p.toml");
  priced.replace(priced.find("[[rooms]]"), 0, "price = 40\n");
  folder.write("priced.toml", priced);
  EXPECT_EQ(run(folder, "rank priced.toml photometry/quillon-d2.ies --by cost -q").code, 0);
  const Ran misses = run(folder, "rank p.toml photometry/quillon-d2.ies --most 1 -q");
  EXPECT_EQ(misses.code, 1);
  EXPECT_TRUE(says(misses.out, "Cannot do it:")) << misses.out;
}

}  // namespace rank_test
}  // namespace glow::cli
