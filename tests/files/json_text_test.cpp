// JSON as it is written and taken apart, whatever bytes there are.
#include "files/text/json_text.hpp"

#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

namespace glow::files {
namespace json_text_test {

using json = nlohmann::ordered_json;

TEST(JsonText, NoBytesCanBreakIt) {
  const json value = {{"file", "t\xFF.ldt"}, {"cut\xE2\x82", "\xED\xA0\x80"}};
  for (const std::string& text : {json_line(value), json_text(value), json_piece(value, 2)})
    EXPECT_EQ(parsed_json(text).at("file"), "t\uFFFD.ldt") << text;
}

TEST(JsonText, OnALineHasNoSpaces) {
  EXPECT_EQ(json_line({{"a", 1}, {"b", {1.5, nullptr}}, {"c", "x y"}}),
            R"({"a":1,"b":[1.5,null],"c":"x y"})");
}

TEST(JsonText, WhatIsNoneIsDiscarded) {
  for (const char* text : {"", "{", "[1,]", "{\"a\":1} b", "nul", "\xFF", "\"\xFF\""})
    EXPECT_TRUE(parsed_json(text).is_discarded()) << text;
  EXPECT_TRUE(parsed_json(std::string(100000, '[')).is_discarded());
  EXPECT_EQ(parsed_json(" [1, {\"a\": null}] "), json::parse(R"([1,{"a":null}])"));
}

}  // namespace json_text_test
}  // namespace glow::files
