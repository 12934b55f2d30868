#include "files/text/text_scanner.hpp"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include "core/problems/problems.hpp"

namespace glow::files {
namespace text_scanner_test {

struct Lines {
  std::string bytes;
  std::vector<std::string> lines;
};

class LinesTest : public testing::TestWithParam<Lines> {};

TEST_P(LinesTest, EndWhateverEndsThem) {
  std::vector<std::string> found;
  for (const std::string_view line : split_lines(GetParam().bytes)) found.emplace_back(line);
  EXPECT_EQ(found, GetParam().lines);
}

INSTANTIATE_TEST_SUITE_P(Texts, LinesTest,
                         testing::Values(Lines{"", {}}, Lines{"a", {"a"}}, Lines{"a\nb\n", {"a", "b"}},
                                         Lines{"a\r\nb", {"a", "b"}}, Lines{"a\rb\r", {"a", "b"}},
                                         Lines{"a\n\r\nb", {"a", "", "b"}},
                                         Lines{"\xEF\xBB\xBF"
                                               "a\n",
                                               {"a"}},
                                         Lines{"a\n\x1A", {"a"}}, Lines{std::string("a\n\0\0", 4), {"a"}}));

struct Encoding {
  std::string bytes, utf8;
};

class EncodingTest : public testing::TestWithParam<Encoding> {};

TEST_P(EncodingTest, BecomesUtf8WithoutControlCharacters) {
  EXPECT_EQ(to_utf8(GetParam().bytes), GetParam().utf8);
}

INSTANTIATE_TEST_SUITE_P(
    Texts, EncodingTest,
    testing::Values(Encoding{"plain", "plain"}, Encoding{"T\xC3\xB6pferei", "T\xC3\xB6pferei"},
                    Encoding{"T\xF6pferei", "T\xC3\xB6pferei"},            // Latin-1
                    Encoding{"\xE2\x82", "\xC3\xA2\xC2\x82"},              // cut in a letter: Latin-1
                    Encoding{"\xED\xA0\x80", "\xC3\xAD\xC2\xA0\xC2\x80"},  // half of a pair: no letter
                    Encoding{"\xE0\x80\xAF", "\xC3\xA0\xC2\x80\xC2\xAF"},  // longer than needed: none either
                    Encoding{"a\tb\x1B[31m\x7F", "a b [31m "},             // nothing for terminals
                    Encoding{"\xF0\x9F\x92\xA1", "\xF0\x9F\x92\xA1"}));

TEST(NumberScanner, KnowsWhereEachNumberStood) {
  const std::vector<std::string_view> lines = {"1.5, -2e3", "", "\t+.25  7"};
  NumberScanner scanner(lines, 0, "f");
  Problems problems;
  const double values[] = {1.5, -2000, 0.25, 7};
  const std::pair<int, int> places[] = {{1, 1}, {1, 6}, {3, 2}, {3, 8}};
  for (std::size_t i = 0; i < 4; ++i) {
    double value = 0;
    ASSERT_TRUE(scanner.next(value, "a number", problems));
    EXPECT_EQ(value, values[i]);
    EXPECT_EQ(std::pair(scanner.place().line, scanner.place().column), places[i]);
  }
  EXPECT_TRUE(scanner.word_ahead().empty());
  double value = 0;
  EXPECT_FALSE(scanner.next(value, "one more", problems));
  EXPECT_EQ(problems.all()[0].code, "truncated");
}

TEST(NumberScanner, RefusesWhatIsNoNumberAndCountsOutOfRange) {
  const std::vector<std::string_view> lines = {"12x nan 3.5 -1 1e9 4"};
  NumberScanner scanner(lines, 0, "f");
  Problems problems;
  double value = 0;
  int count = 0;
  EXPECT_FALSE(scanner.next(value, "a", problems));
  EXPECT_FALSE(scanner.next(value, "b", problems));
  for (int i = 0; i < 3; ++i) EXPECT_FALSE(scanner.next_count(count, 0, 100, "c", problems));
  EXPECT_TRUE(scanner.next_count(count, 0, 100, "d", problems));
  EXPECT_EQ(count, 4);
  std::vector<std::string> codes;
  for (const Problem& p : problems.all()) codes.push_back(p.code);
  EXPECT_EQ(codes, (std::vector<std::string>{"not-a-number", "not-finite", "bad-count", "bad-count",
                                             "count-too-large"}));
}

}  // namespace text_scanner_test
}  // namespace glow::files

namespace glow {
namespace text_scanner_test {

TEST(Problems, AreToldWithWhatIsKnownOfTheirPlace) {
  EXPECT_EQ(to_string({Severity::error, "P002", {"a.toml", 3, 7}, "text"}), "a.toml:3:7: error[P002]: text");
  EXPECT_EQ(to_string({Severity::warning, "x", {"a.toml", 3, 0}, "text"}), "a.toml:3: warning[x]: text");
  EXPECT_EQ(to_string({Severity::note, "x", {"", 0, 0}, "text"}), "note[x]: text");
}

TEST(Problems, AreOrderedByPlaceAndKeepTheirOrderWithinOne) {
  Problems problems;
  problems.note("c", {"b", 1, 1}, "");
  problems.error("b", {"a", 9, 1}, "");
  problems.warning("a", {"a", 2, 5}, "");
  problems.warning("z", {"a", 2, 5}, "");
  problems.sort_by_place();
  std::string order;
  for (const Problem& p : problems.all()) order += p.code;
  EXPECT_EQ(order, "azbc");
  EXPECT_EQ(problems.error_count(), 1);
}

/// The same said of several rooms is told once; what differs, and every error, stays.
TEST(Problems, SaidOfSeveralRoomsBecomeOne) {
  Problems problems;
  for (const char* room : {"A", "B", "C", "D", "E"}) {
    problems.set_subject(room);
    problems.warning("P1", {"p", 1, 1}, fmt::format(FMT_STRING("\"{}\" is dark"), room));
    problems.error("P2", {"p", 2, 1}, fmt::format(FMT_STRING("\"{}\" is open"), room));
    problems.warning("P3", {"p", 3, 1},
                     fmt::format(FMT_STRING("\"{}\": height {}"), room, *room == 'A' ? 2 : 3));
  }
  problems.merge_alike();
  std::vector<std::string> texts;
  for (const Problem& problem : problems.all())
    if (problem.severity == Severity::warning) texts.push_back(problem.text);
  EXPECT_EQ(texts, (std::vector<std::string>{"\"A\", \"B\", \"C\" and 2 more is dark", "\"A\": height 2",
                                             "\"B\", \"C\", \"D\" and 1 more: height 3"}));
  EXPECT_EQ(problems.all().size(), 8u);
}

TEST(Problems, AreNotKeptWithoutEnd) {
  Problems problems;
  for (int k = 0; k < 5000; ++k) problems.error("P1", {"p", k + 1, 1}, "wrong");
  EXPECT_TRUE(problems.is_full());
  EXPECT_EQ(problems.all().size(), 1000u);
  EXPECT_EQ(problems.error_count(), 5000);
}

TEST(Printable, IsWhatATerminalDoesNotObey) {
  EXPECT_EQ(printable("K\x1b[31mred\x07\n\x7f"), "K?[31mred???");
  EXPECT_EQ(printable("k\xc3\xbchl\t\xc2\x9b"), "k\xc3\xbchl\t?");  // C1 in UTF-8
  EXPECT_FALSE(has_control_characters("T\xc3\xb6pferei"));
}

class NestingTest : public testing::TestWithParam<std::pair<const char*, int>> {};

TEST_P(NestingTest, IsMeasuredOutsideOfTexts) {
  std::string text = GetParam().first;
  for (std::size_t at; (at = text.find('*')) != std::string::npos;) {
    const char what = text[at + 1];
    text.replace(at, 2, what == '.' ? [] {
      std::string key = "a";
      for (int k = 0; k < 100; ++k) key += ".'a'";
      return key;
    }() : std::string(100, what));
  }
  EXPECT_EQ(files::line_nested_too_deeply(text), GetParam().second) << GetParam().first;
}

INSTANTIATE_TEST_SUITE_P(Texts, NestingTest,
                         testing::Values(std::pair{"a = 1\n*. = 2\n", 2}, std::pair{"a = \n*[", 2},
                                         std::pair{"a = {\n\n*{", 3}, std::pair{"a = '*['", 0},
                                         std::pair{"a = \"\\\"*[\"", 0}, std::pair{"# *[\na = 1", 0},
                                         std::pair{"a = \"\"\"\n*[\n\"\"\"\nb = 1", 0},
                                         std::pair{"a = [1.5, 2.5]\n", 0}, std::pair{"a = 'open\n*[", 2}));

TEST(NearestWord, IsOnlyOfferedWhenItCouldBeMeant) {
  const std::vector<std::string> words = {"height", "outline", "rotation", "at"};
  EXPECT_EQ(nearest_word("hieght", words), "height");
  EXPECT_EQ(nearest_word("roation", words), "rotation");
  EXPECT_EQ(nearest_word("ta", words), "at");
  EXPECT_EQ(nearest_word("a", words), "at");
  EXPECT_EQ(nearest_word("colour", words), "");
  EXPECT_EQ(nearest_word("", words), "");
  EXPECT_EQ(nearest_word(std::string(5000, 'h'), words), "");
}

}  // namespace text_scanner_test
}  // namespace glow
