// How sentences are broken into lines of a terminal, and cut to a column.
#include "words/text_layout.hpp"

#include <gtest/gtest.h>

namespace glow::words {
namespace {

struct Wrapped {
  const char* name;
  std::size_t letters;  ///< of a first word
  const char* then;
  const char* second_line;  ///< empty: all is on one
};

class WrapTest : public ::testing::TestWithParam<Wrapped> {};

TEST_P(WrapTest, BreaksWhereItMay) {
  const auto& [name, letters, then, second] = GetParam();
  const std::string first(letters, 'x');
  std::string text;
  wrap(text, "- ", first + " " + then, 4);
  const std::string one = "- " + first + " " + then + "\n";
  const std::size_t broken = text.find('\n') + 1;
  if (!*second) {
    EXPECT_EQ(text, one);
  } else {
    EXPECT_EQ(text.substr(broken), "    " + std::string(second) + "\n");
    EXPECT_EQ(text.size(), one.size() + 4);
  }
}

// "- " and a blank leave 77 columns of 80.
INSTANTIATE_TEST_SUITE_P(Lines, WrapTest,
                         ::testing::Values(Wrapped{"fits", 72, "a b c", ""},
                                           Wrapped{"one_too_many", 73, "a b c", "c"},
                                           Wrapped{"letters_not_bytes", 72, "\u00e4 \u00f6 \u00fc", ""},
                                           Wrapped{"unit_with_its_number", 70, "east 0.87 %", "0.87 %"},
                                           Wrapped{"unit_before_a_comma", 70, "east 0.87 %, b", "0.87 %, b"},
                                           Wrapped{"no_number", 69, "glare is %", "%"},
                                           Wrapped{"no_unit", 69, "row 12 west", "west"}),
                         [](const auto& of) { return of.param.name; });

TEST(Fitted, IsCutBetweenLetters) {
  EXPECT_EQ(fitted("Glaze kitchen", 13), "Glaze kitchen");
  EXPECT_EQ(fitted("Glaze kitchen", 12), "Glaze kitc..");
  EXPECT_EQ(fitted("T\u00f6pferei", 8), "T\u00f6pferei");
  EXPECT_EQ(fitted("\u4f1a\u8bae\u5ba4\u5927", 3), "\u4f1a..");
}

TEST(SomeOf, NamesTheFirstOfMany) {
  EXPECT_EQ(some_of({"a", "b", "c", "d", "e"}), "a, b, c, d, e");
  EXPECT_EQ(some_of({"a", "b", "c", "d", "e", "f"}), "a, b, c, d and 2 more");
}

}  // namespace
}  // namespace glow::words
