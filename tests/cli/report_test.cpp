// Reports: the page in a browser, the PDF by its boxes and its text, what may be wrong with the wishes.
#include "browser.hpp"
#include "run_program.hpp"

namespace glow::cli {
namespace report_test {

bool has(const char* program) {
  return std::system((std::string("command -v ") + program + " > /dev/null").c_str()) == 0;
}

/// The small room, with more in its project, computed.
void write_results(const TemporaryFolder& folder, const std::string& more = "") {
  write_small_room(folder);
  folder.write("small.toml", content_of(folder.path() / "small.toml") + more);
  ASSERT_EQ(run(folder, "run small.toml -q -a draft").code, 0);
}

std::size_t count(const std::string& text, const std::string& words) {
  std::size_t number = 0;
  for (std::size_t at = text.find(words); at != std::string::npos; at = text.find(words, at + 1)) ++number;
  return number;
}

/// What is set in JSON between <pre id="told"> and its end.
json told_in(const std::string& seen) {
  const std::string open = "<pre id=\"told\">";
  const std::size_t at = seen.find(open);
  EXPECT_NE(at, std::string::npos) << seen.substr(0, 2000);
  if (at == std::string::npos) return {};
  return json::parse(seen.substr(at + open.size(), seen.find("</pre>", at) - at - open.size()));
}

TEST(Report, TheValueUnderThePointerIsThatOfTheResultsAndTablesSort) {
  if (!test::has_browser()) GTEST_SKIP() << "chromium is not installed";
  const TemporaryFolder folder;
  write_results(folder);
  ASSERT_EQ(run(folder, "report small-results").code, 0);
  const std::string seen = test::seen_in_browser(folder.path() / "small-results/report.html", R"js(
    const figure = document.querySelector('figure.plan'), svg = figure.querySelector('svg');
    const grid = JSON.parse(figure.querySelector('script').textContent);
    const scale = +svg.dataset.perM, matrix = svg.getScreenCTM();
    const values = grid.cells.map((cell) => {
      const x = +svg.dataset.x0 + (grid.start[0] + (cell[0] + 0.5) * grid.cell[0]) * scale;
      const y = +svg.dataset.y0 - (grid.start[1] + (cell[1] + 0.5) * grid.cell[1]) * scale;
      const at = new DOMPoint(x, y).matrixTransform(matrix);
      svg.dispatchEvent(new PointerEvent('pointermove', { clientX: at.x, clientY: at.y }));
      return figure.querySelector('output').textContent;
    });
    const sorted = [];
    for (const table of document.querySelectorAll('table')) {
      const head = [...table.tHead.rows[0].cells].find((cell) => cell.querySelector('button') && cell.classList.contains('number'));
      if (!head) continue;
      head.querySelector('button').click();
      const column = head.cellIndex;
      sorted.push([...table.tBodies[0].rows].map((row) => row.cells[column].dataset.value).filter((value) => value).map(Number));
    }
    const wide = document.documentElement.scrollWidth <= window.innerWidth;
    const note = document.createElement('pre');
    note.id = 'told';
    note.textContent = JSON.stringify({ values, sorted, wide });
    document.body.append(note);
  )js");
  EXPECT_FALSE(says(seen, "CONSOLE")) << seen.substr(0, 2000);
  const json told = told_in(seen);
  const json plane = json_in(folder.path() / "small-results/results.json")["rooms"][0]["grids"][0];
  ASSERT_EQ(told["values"].size(), plane["direct_lx"].size());
  for (std::size_t k = 0; k < told["values"].size(); ++k) {
    const double lux = plane["direct_lx"][k].get<double>() + plane["interreflected_lx"][k].get<double>();
    const std::string words = fmt::format(FMT_STRING("{:.{}f} lx at"), lux, lux < 10 ? 1 : 0);
    EXPECT_EQ(told["values"][k].get<std::string>().rfind(words, 0), 0u) << told["values"][k] << " " << words;
  }
  ASSERT_FALSE(told["sorted"].empty());
  for (const json& column : told["sorted"])
    EXPECT_TRUE(std::is_sorted(column.begin(), column.end())) << column;
  EXPECT_TRUE(told["wide"].get<bool>());
}

TEST(Report, NeedsNothingBesideItselfAndFitsAPhone) {
  const TemporaryFolder folder;
  write_results(folder);
  ASSERT_EQ(run(folder, "report small.toml").code, 0);
  const std::string html = content_of(folder.path() / "small-results/report.html");
  std::string rest = html;  // names of the drawings' language are no addresses
  for (std::size_t at; (at = rest.find("http://www.w3.org/")) != std::string::npos;) rest.erase(at, 18);
  for (const char* address : {"http://", "https://", "<link", "@import", "src=\"/"})
    EXPECT_FALSE(says(rest, address)) << address;
  ASSERT_EQ(run(folder, "report small.toml -o again.html").code, 0);
  EXPECT_EQ(content_of(folder.path() / "again.html"), html);
  if (!test::has_browser()) return;
  const std::string seen = test::seen_in_browser(folder.path() / "again.html", R"js(
    const note = document.createElement('pre');
    note.id = 'told';
    note.textContent = JSON.stringify([document.documentElement.scrollWidth, window.innerWidth]);
    document.body.append(note);
  )js",
                                                 500);
  const json width = told_in(seen);
  EXPECT_LE(width[0].get<int>(), width[1].get<int>());
}

/// Found by the rules of accessibility that axe-core checks; where its file is named in GLOWGRID_AXE.
TEST(Report, IsAccessible) {
  const char* axe = std::getenv("GLOWGRID_AXE");
  if (!axe || !test::has_browser())
    GTEST_SKIP() << "GLOWGRID_AXE does not name axe.min.js, or chromium is not installed";
  const TemporaryFolder folder;
  write_results(folder);
  ASSERT_EQ(run(folder, "report small.toml").code, 0);
  const std::string seen = test::seen_in_browser(folder.path() / "small-results/report.html",
                                                 content_of(axe) + R"js(</script><script>
    axe.run({ resultTypes: ['violations'] }).then((result) => {
      const note = document.createElement('pre');
      note.id = 'told';
      note.textContent = JSON.stringify(result.violations.map((each) => [each.impact, each.id]));
      document.body.append(note);
    });
  )js");
  for (const json& violation : told_in(seen))
    EXPECT_TRUE(violation[0] != "serious" && violation[0] != "critical") << violation;
}

/// Words of a PDF and whether all of them lie on their pages.
struct PrintedText {
  std::string text;
  int pages = 0, outside = 0;
};

PrintedText printed(const std::filesystem::path& pdf) {
  const auto words = pdf.parent_path() / "words.html";
  const std::string quoted = "'" + pdf.string() + "' '" + words.string() + "'";
  EXPECT_EQ(std::system(("pdftotext -bbox " + quoted).c_str()), 0);
  PrintedText found;
  double width = 0, height = 0;
  std::istringstream lines(content_of(words));
  for (std::string line; std::getline(lines, line);) {
    double x0, y0, x1, y1;
    if (std::sscanf(line.c_str(), " <page width=\"%lf\" height=\"%lf\"", &width, &height) == 2) ++found.pages;
    if (std::sscanf(line.c_str(), " <word xMin=\"%lf\" yMin=\"%lf\" xMax=\"%lf\" yMax=\"%lf\"", &x0, &y0, &x1,
                    &y1) != 4)
      continue;
    found.outside += x0 < -0.5 || y0 < -0.5 || x1 > width + 0.5 || y1 > height + 0.5;
    const std::size_t begin = line.find('>') + 1;
    found.text += line.substr(begin, line.find("</word>") - begin) + " ";
  }
  return found;
}

class PrintedReport : public testing::TestWithParam<const char*> {};

TEST_P(PrintedReport, HoldsEveryChecksNumbersWithinItsPagesAndIsTheSameEveryTime) {
  if (!has("weasyprint") || !has("pdftotext")) GTEST_SKIP() << "weasyprint or poppler-utils is not installed";
  const TemporaryFolder folder;
  const std::string markup = "<b>bold</b> & \\\"quoted\\\" </script><script>alert(1)</script>";
  const std::string rtl = "\xd7\x9e\xd7\xa9\xd7\xa8\xd7\x93";
  write_results(folder, "\n[report]\nclient = \"" + markup + "\"\nauthor = \"" + std::string(300, 'n') +
                            "\"\ndate = \"" + rtl +
                            "\"\nintroduction = \"**Strong** words and "
                            "<script>alert(2)</script>\"\n[report.notes]\nOffice = \"A note with a "
                            "[link](javascript:alert(3))\"\n");
  const std::string form = GetParam();
  std::string hostile = content_of(folder.path() / "small.toml");
  hostile.replace(hostile.find("\"Office\""), 8, "\"" + markup + rtl + std::string(200, 'w') + "\"");
  folder.write("small.toml", hostile);
  ASSERT_EQ(run(folder, "run small.toml -q -a draft").code, 0);
  ASSERT_EQ(run(folder, "report small.toml -f html,pdf -o r --form " + form).code, 0);
  ASSERT_EQ(run(folder, "report small.toml -f pdf -o s --form " + form).code, 0);
  const std::string html = content_of(folder.path() / "r.html");
  EXPECT_FALSE(says(html, "<script>alert"));
  EXPECT_FALSE(says(html, "javascript:alert"));
  EXPECT_EQ(content_of(folder.path() / "r.pdf"), content_of(folder.path() / "s.pdf"));
  const PrintedText pdf = printed(folder.path() / "r.pdf");
  EXPECT_GE(pdf.pages, 1);
  EXPECT_EQ(pdf.outside, 0);
  const json results = json_in(folder.path() / "small-results/results.json");
  const json room = results["rooms"][0];
  EXPECT_TRUE(says(pdf.text, "bold"));
  if (form == "short") return;  // tables of rooms
  if (form == "room-page") {
    EXPECT_EQ(pdf.pages, 1);
    return;
  }
  for (const json& check : room["checks"])
    for (const char* key : {"required", "actual"}) {
      const std::string number = fmt::format(FMT_STRING("{:.2f}"), check[key].get<double>());
      EXPECT_TRUE(says(pdf.text, number)) << number << " of " << check;
    }
}

INSTANTIATE_TEST_SUITE_P(Forms, PrintedReport, testing::Values("full", "room-page", "short"));

TEST(Report, StampsWhatIsOlderThanTheProject) {
  const TemporaryFolder folder;
  write_results(folder);
  std::string text = content_of(folder.path() / "small.toml");
  text.replace(text.find("[[rooms.luminaires]]"), 20, "[[rooms.luminaires]]\ndimming = 0.5");
  folder.write("small.toml", text);
  ASSERT_EQ(run(folder, "report small.toml -q -o r.html").code, 0);
  const std::string html = content_of(folder.path() / "r.html");
  EXPECT_TRUE(says(html, "class=\"stamp\""));
  EXPECT_TRUE(says(html, "@top-center { content: \"older than the project\""));
  ASSERT_EQ(run(folder, "report small-results -q -o s.html").code, 0);
  EXPECT_FALSE(says(content_of(folder.path() / "s.html"), "class=\"stamp\""));
}

TEST(Report, TakesWhatTheProjectWishes) {
  const TemporaryFolder folder;
  write_results(folder, R"(
[report]
client = "Mill trust"
language = "de"
words = "own.csv"
contents = ["rooms", "summary"]
room_contents = ["checks", "notes"]
style = "own.css"
page = "Letter"
[report.notes]
Office = "*Mind the* sloped ceiling."
)");
  folder.write("own.csv", "en,de\nSummary,Kurzfassung\n");
  folder.write("own.css", "h2 { color: navy; }");
  ASSERT_EQ(run(folder, "report small.toml -o r.html").code, 0);
  const std::string html = content_of(folder.path() / "r.html");
  for (const char* words : {"size: Letter", "h2 { color: navy; }", "Kurzfassung", "<em>Mind the</em> sloped",
                            "Nachweise", "lang=\"de\""})
    EXPECT_TRUE(says(html, words)) << words;
  EXPECT_LT(html.find("id=\"room-office\""), html.find("id=\"summary\""));
  EXPECT_FALSE(says(html, "figure class=\" plan\""));
  EXPECT_FALSE(says(html, "class=\"cover\""));

  folder.write("own.html", "{{title}}: {{#sections}}{{title}};{{/sections}}");
  std::string text = content_of(folder.path() / "small.toml");
  text.replace(text.find("page = "), 0, "template = \"own.html\"\n");
  folder.write("small.toml", text);
  ASSERT_EQ(run(folder, "report small.toml -o own-made.html").code, 0);
  EXPECT_EQ(content_of(folder.path() / "own-made.html"), "Small room: Office;Kurzfassung;");
  folder.write("own.html", "{{#sections}}");
  const Ran faulty = run(folder, "report small.toml -o never.html");
  EXPECT_EQ(faulty.code, 2);
  EXPECT_TRUE(says(faulty.err, "sections")) << faulty.err;
  EXPECT_FALSE(std::filesystem::exists(folder.path() / "never.html"));
}

TEST(Report, VariantsStandSideBySide) {
  const TemporaryFolder folder;
  write_results(folder,
                "\n[[variants.dim.rooms]]\nname = \"Office\"\n[[variants.dim.rooms.luminaires]]\nmark = "
                "\"D2\"\ndimming = 0.5\n");
  ASSERT_EQ(run(folder, "report small.toml --beside small.toml@dim -o r.html").code, 0);
  const std::string html = content_of(folder.path() / "r.html");
  EXPECT_TRUE(says(html, "Side by side"));
  EXPECT_TRUE(says(html, "small.toml@dim"));
  EXPECT_GE(count(html, "id=\"beside-1-clip"), 1u);
}

/// What is asked, and what is said of it.
struct RefusedReport {
  const char *options, *words;
  int code = 2;
};

class ReportRefusal : public testing::TestWithParam<RefusedReport> {};

TEST_P(ReportRefusal, SaysWhatWasExpected) {
  static const TemporaryFolder folder;
  if (!std::filesystem::exists(folder.path() / "small-results")) write_results(folder);
  const Ran ran = run(folder, std::string("report small.toml -o never ") + GetParam().options);
  EXPECT_EQ(ran.code, GetParam().code);
  EXPECT_TRUE(says(ran.err, GetParam().words)) << ran.err;
  EXPECT_FALSE(std::filesystem::exists(folder.path() / "never.html"));
}

INSTANTIATE_TEST_SUITE_P(Cases, ReportRefusal,
                         testing::Values(RefusedReport{"--form big", "expected full, room-page or short"},
                                         RefusedReport{"--only covers", "there is no part \"covers\""},
                                         RefusedReport{"--language xx",
                                                       "no table has words in the language \"xx\""},
                                         RefusedReport{"--format docx", "expected html, pdf or html,pdf"},
                                         RefusedReport{"--room nobody", "nobody"},
                                         RefusedReport{"--beside nothing-results", "nothing-results"}));

TEST(Report, WithoutWeasyPrintSaysWhatToDo) {
  const TemporaryFolder folder;
  write_results(folder);
  const Ran ran = run(folder, "report small.toml -f pdf -o r", "PATH=/nowhere");
  EXPECT_EQ(ran.code, 3) << ran.err;
  EXPECT_TRUE(says(ran.err, "install the package weasyprint")) << ran.err;
  EXPECT_FALSE(std::filesystem::exists(folder.path() / "r.pdf"));
  EXPECT_FALSE(std::filesystem::exists(folder.path() / "r.pdf.html"));
}

TEST(Report, SlipsInItsTableAreToldWithTheirPlace) {
  const TemporaryFolder folder;
  write_small_room(folder);
  folder.write("small.toml",
               content_of(folder.path() / "small.toml") +
                   "\n[report]\ncontents = [\"cover\", \"sumary\"]\npage = \"A5\"\nclint = \"x\"\n");
  const Ran ran = run(folder, "check small.toml");
  EXPECT_EQ(ran.code, 2);
  for (const char* words : {"did you mean \"summary\"?", "expected A4 or Letter", "did you mean \"client\"?"})
    EXPECT_TRUE(says(ran.err + ran.out, words)) << words << ran.err << ran.out;
}

}  // namespace report_test
}  // namespace glow::cli
