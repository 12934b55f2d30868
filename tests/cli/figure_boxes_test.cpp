// Every figure of rooms of many kinds, looked at as boxes: no text beyond the page, over other text, or under
// a shape.
#include <pugixml.hpp>
#include <random>

#include "figures/canvas/svg_canvas.hpp"
#include "run_program.hpp"

namespace glow::cli {
namespace figure_boxes_test {

constexpr double kPageWidth = 1280, kPageHeight = 800;
constexpr double kLetters = 0.72;  // of the type size: what letters are high
constexpr double kSure = 0.86;     // of the width that is reckoned: reckoning is good to some 10 %

struct Box {
  Vec2 low, high;
  std::string words;
  bool meets(const Box& o) const {
    return low.x() < o.high.x() && o.low.x() < high.x() && low.y() < o.high.y() && o.low.y() < high.y();
  }
  bool holds(const Box& o) const {
    return (low.array() <= o.low.array()).all() && (high.array() >= o.high.array()).all();
  }
};

/// Of a text that stands straight or is turned by a right angle; nothing for others and within turned groups.
std::optional<Box> box_of_text(const pugi::xml_node& text) {
  const std::string words = text.text().get();
  const double size = text.attribute("font-size").as_double();
  const double width = kSure * figures::text_width(words, size), height = kLetters * size;
  const Vec2 at(text.attribute("x").as_double(), text.attribute("y").as_double());
  const std::string anchor = text.attribute("text-anchor").value(),
                    turn = text.attribute("transform").value();
  const double from = anchor == "middle" ? -width / 2 : anchor == "end" ? -width : 0;
  double degrees = 0;
  if (!turn.empty() && std::sscanf(turn.c_str(), "rotate(%lf", &degrees) != 1) return std::nullopt;
  if (std::abs(degrees) < 1) return Box{at + Vec2(from, -height), at + Vec2(from + width, 0), words};
  if (std::abs(std::abs(degrees) - 90) > 1) return std::nullopt;
  return Box{at + Vec2(-height, from), at + Vec2(height, from + width), words};
}

/// Of a filled rectangle or circle that nothing is seen through.
std::optional<Box> box_of_cover(const pugi::xml_node& shape) {
  const std::string name = shape.name(), fill = shape.attribute("fill").value();
  if (fill.empty() || fill == "none" || shape.attribute("fill-opacity")) return std::nullopt;
  const auto number = [&](const char* key) { return shape.attribute(key).as_double(); };
  if (name == "rect") {
    const Vec2 low(number("x"), number("y"));
    return Box{low, low + Vec2(number("width"), number("height")), name};
  }
  if (name != "circle") return std::nullopt;
  const Vec2 middle(number("cx"), number("cy")), half = Vec2::Constant(0.7 * number("r"));
  return Box{middle - half, middle + half, name};
}

/// Shapes and texts in the order they are drawn; those in turned groups, luminaires, are left out.
void collect(const pugi::xml_node& node, std::vector<pugi::xml_node>& drawn) {
  for (const pugi::xml_node& child : node.children()) {
    const std::string name = child.name();
    if (name == "defs" || (name == "g" && child.attribute("transform"))) continue;
    drawn.push_back(child);
    if (name == "g") collect(child, drawn);
  }
}

void expect_clean(const std::filesystem::path& file) {
  pugi::xml_document document;
  ASSERT_TRUE(document.load_file(file.c_str())) << file;
  std::vector<pugi::xml_node> drawn;
  collect(document.document_element(), drawn);
  const Box page{{0, 0}, {kPageWidth, kPageHeight}, "page"};
  std::vector<Box> texts;
  for (const pugi::xml_node& node : drawn) {
    if (const auto cover = box_of_cover(node)) {
      for (const Box& text : texts) EXPECT_FALSE(cover->holds(text)) << file << ": hidden: " << text.words;
    }
    const auto box = std::string(node.name()) == "text" ? box_of_text(node) : std::nullopt;
    if (!box || box->words.empty()) continue;
    EXPECT_TRUE(page.holds(*box)) << file << ": beyond the page: " << box->words;
    for (const Box& other : texts)
      EXPECT_FALSE(box->meets(other)) << file << ": \"" << box->words << "\" over \"" << other.words << "\"";
    texts.push_back(*box);
  }
}

class FigureBoxes : public testing::TestWithParam<unsigned> {
 protected:
  double between(double low, double high) {
    return std::round(100 * (low + (high - low) * double(chance_()) / 4294967296.0)) / 100;
  }
  std::string room(const std::string& name, double x, double y, double height, const std::string& more) {
    return fmt::format(FMT_STRING("[[rooms]]\nname = \"{}\"\nsize = [{}, {}]\nheight = {}\n{}"), name, x, y,
                       height, more);
  }
  std::string array(const std::string& mark, int rows, int columns) {
    return fmt::format(
        FMT_STRING("[[rooms.luminaires]]\nmark = \"{}\"\narray = {{ rows = {}, columns = {} }}\n"), mark,
        rows, columns);
  }
  std::string project() {
    std::string text =
        "format = 1\n[project]\nname = \"A building with a rather long name\"\nstandard = \"EN "
        "12464-1:2021\"\n"
        "also_verify = [\"EN 12464-1:2011\"]\n[defaults]\nmaintenance_factor = 0.8\n"
        "reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }\n[luminaires.D2]\nfile = "
        "\"photometry/quillon-d2.ies\"\n[luminaires.\"P1 with a long mark\"]\nfile = "
        "\"photometry/tarnfell-p1.ldt\"\n";
    text += room("Closet", between(1.2, 1.8), between(1.1, 1.5), 2.3, array("D2", 1, 1));
    text += room("Hall of the long name that does not end before the sheet does, or so it seems",
                 between(30, 60), between(15, 40), 8, "task = \"storage.store-room\"\n" + array("D2", 5, 8));
    text += room("Corridor", between(14, 22), between(1.5, 2), 2.6,
                 "task = \"circulation.corridor\"\n" + array("D2", 1, int(between(4, 9))));
    std::string tables = "task = \"office.meeting-room\"\n" + array("P1 with a long mark", 2, 3);
    for (int k = 1; k <= 5; ++k)
      tables += fmt::format(
          FMT_STRING("[[rooms.objects]]\nname = \"round table {}\"\ncylinder = [{}, 0.74]\nat = [{}, {}, "
                     "0]\nreflectance = 0.4\n[[rooms.areas]]\nname = \"place {}\"\ntask = "
                     "\"office.writing\"\nrectangle = {{ at = [{}, 0.3, 0.75], size = [0.6, 0.4] }}\n"),
          k, between(0.6, 1), k * 1.4, between(1.5, 3), k, k * 1.4);
    tables += "[[rooms.eyes]]\nname = \"somebody by the wall\"\nat = [0.4, 0.4]\nlooking = 45\n";
    text += room("Meeting", 8.5, between(4, 6), 2.9, tables);
    text +=
        "[[rooms]]\nname = \"Ell\"\noutline = [[0, 0], [7, 0], [7, 3], [3, 3], [3, 6], [0, 6]]\nheight = "
        "3\ntask = "
        "\"office.writing\"\n[[rooms.walls]]\nwall = 1\nname = \"street side with the tall windows\"\n" +
        array("D2", 3, 3) +
        "[[rooms.luminaires]]\nmark = \"D2\"\nat = [1, 1]\naim = [2.5, 2.5, 0.8]\nmounting_height = 2.5\n"
        "[[rooms.objects]]\nname = \"shelf\"\nfurniture = \"shelf rack\"\nat = [4, 0.1]\n";
    return text;
  }
  std::mt19937 chance_{GetParam()};
};

TEST_P(FigureBoxes, NoTextLeavesThePageMeetsAnotherOrIsHidden) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("p.toml", project());
  const Ran ran = run(folder, "run p.toml --accuracy draft --no-cache -q");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const Ran drawn = run(folder, "draw p.toml --format svg -q -o all");
  ASSERT_EQ(drawn.code, 0) << drawn.err;
  std::size_t figures = 0;
  for (const auto& entry : std::filesystem::directory_iterator(folder.path() / "all")) {
    expect_clean(entry.path());
    ++figures;
  }
  EXPECT_GT(figures, 40u);
}

INSTANTIATE_TEST_SUITE_P(Rooms, FigureBoxes, testing::Range(1u, 4u));

TEST(FigureBoxes, CurvesOfOneFileAndOfManyStayOnTheirPage) {
  const TemporaryFolder folder;
  std::string names;
  int count = 0;
  for (const auto& entry : std::filesystem::directory_iterator(test_data("photometry/valid")))
    if (entry.path().extension() != ".tlt" && ++count <= 14) names += " '" + entry.path().string() + "'";
  ASSERT_EQ(run(folder, "inspect" + names + " -o curves -q").code, 0);
  for (const auto& entry : std::filesystem::directory_iterator(folder.path() / "curves"))
    if (entry.path().extension() == ".svg") expect_clean(entry.path());
}

}  // namespace figure_boxes_test
}  // namespace glow::cli
