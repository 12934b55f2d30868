// Values of a table that are lists: points, corners, numbers, words.
#include <fmt/format.h>
#include <toml++/toml.h>

#include "files/text/toml_table.hpp"

namespace glow::files {

std::optional<std::vector<double>> TomlTable::to_lengths(const std::string& key, const toml::node& node,
                                                         std::size_t count, const char* expected) {
  const toml::array* array = node.as_array();
  if (!array || array->size() != count) {
    wrong_type(key, node, expected);
    return std::nullopt;
  }
  std::vector<double> lengths;
  for (const toml::node& element : *array) {
    const auto length = to_quantity(key, element, units::Dimension::length);
    if (!length) return std::nullopt;
    constexpr double kFarthest = 1e7;  // m; a plan's own coordinates can be large
    if (std::abs(*length) > kFarthest) {
      problems_->error("P005", place_of(node),
                       fmt::format(FMT_STRING("\"{}\" is farther than 10 000 km from the origin"), key));
      return std::nullopt;
    }
    lengths.push_back(*length);
  }
  return lengths;
}

std::optional<Vec2> TomlTable::to_point(const std::string& key, const toml::node& node) {
  const auto lengths = to_lengths(key, node, 2, "two lengths, as in [4.5, 2.0]");
  return lengths ? std::optional(Vec2((*lengths)[0], (*lengths)[1])) : std::nullopt;
}

std::optional<Vec3> TomlTable::position(const std::string& key, Need need) {
  const toml::node* node = take(key, Form::position, need);
  if (!node) return std::nullopt;
  const auto lengths = to_lengths(key, *node, 3, "three lengths, as in [4.5, 2.0, 0.8]");
  return lengths ? std::optional(Vec3((*lengths)[0], (*lengths)[1], (*lengths)[2])) : std::nullopt;
}

std::optional<Vec3> TomlTable::place_in_room(const std::string& key) {
  const toml::node* node = take(key, Form::place, Need::required);
  if (!node) return std::nullopt;
  const toml::array* array = node->as_array();
  if (!array || array->size() != 2) return position(key);
  const auto p = to_point(key, *node);
  return p ? std::optional(Vec3(p->x(), p->y(), std::nan(""))) : std::nullopt;
}

std::optional<Vec2> TomlTable::point(const std::string& key, Need need) {
  const toml::node* node = take(key, Form::point, need);
  return node ? to_point(key, *node) : std::nullopt;
}

const toml::array* TomlTable::take_corners(const std::string& key, Form form, const char* expected,
                                           const toml::node*& node) {
  node = take(key, form);
  if (!node) return nullptr;
  constexpr std::size_t kMostCorners = 2000;
  const toml::array* array = node->as_array();
  if (array && !array->empty() && array->size() <= kMostCorners) return array;
  wrong_type(key, *node, expected);
  return nullptr;
}

std::optional<std::vector<Vec3>> TomlTable::positions(const std::string& key) {
  const toml::node* node = nullptr;
  const toml::array* array = take_corners(
      key, Form::positions, "a list of 3 to 2000 corners, as in [[0, 0, 1], [2, 0, 1], [2, 0, 2]]", node);
  if (!array) return std::nullopt;
  std::vector<Vec3> list;
  for (const toml::node& element : *array) {
    const auto p = to_lengths(key, element, 3, "three lengths, as in [4.5, 2.0, 0.8]");
    if (!p) return std::nullopt;
    list.emplace_back((*p)[0], (*p)[1], (*p)[2]);
  }
  return list;
}

std::optional<std::vector<double>> TomlTable::numbers(const std::string& key, std::size_t count, double low,
                                                      double high) {
  return numbers(key, count, count, low, high);
}

std::optional<std::vector<double>> TomlTable::numbers(const std::string& key, std::size_t least,
                                                      std::size_t most, double low, double high) {
  if (asked_) note(key, Form::numbers, fmt::format(FMT_STRING("{} to {}"), low, high));
  const toml::node* node = take(key, Form::numbers);
  if (!node) return std::nullopt;
  std::vector<double> values;
  if (const toml::array* array = node->as_array())
    for (const toml::node& element : *array) {
      const auto value = element.is_number() ? element.value<double>() : std::nullopt;
      if (value && *value >= low && *value <= high) values.push_back(*value);
    }
  const toml::array* array = node->as_array();
  if (array && values.size() == array->size() && values.size() >= least && values.size() <= most)
    return values;
  wrong_type(key, *node,
             least == most
                 ? fmt::format(FMT_STRING("{} numbers from {} to {}"), most, low, high)
                 : fmt::format(FMT_STRING("{} to {} numbers from {} to {}"), least, most, low, high));
  return std::nullopt;
}

std::optional<std::string> TomlTable::words(const std::string& key) {
  const toml::node* node = take(key, Form::words);
  if (!node) return std::nullopt;
  const auto one = [](const toml::node& n) -> std::optional<std::string> {
    if (const auto text = n.value<std::string>(); n.is_string() && text) return text;
    if (const auto* truth = n.as_boolean()) return std::string(truth->get() ? "true" : "false");
    if (const auto number = n.value<double>(); n.is_number() && number)
      return fmt::format(FMT_STRING("{}"), *number);
    return std::nullopt;
  };
  std::optional<std::string> words = one(*node);
  if (const toml::array* array = node->as_array()) {
    words = std::string();
    for (const toml::node& element : *array) {
      const auto word = one(element);
      if (!word) words.reset();
      if (!words) break;
      *words += (words->empty() ? "" : ", ") + *word;
    }
  }
  if (!words) wrong_type(key, *node, "text, a number, true or false, or a list of them");
  return words;
}

std::optional<std::vector<Vec2>> TomlTable::points(const std::string& key, Need need) {
  if (need == Need::required && !has(key)) {
    take(key, Form::points, need);
    return std::nullopt;
  }
  const toml::node* node = nullptr;
  const toml::array* array = take_corners(
      key, Form::points, "a list of 3 to 2000 corners, as in [[0, 0], [9.6, 0], [9.6, 6.4]]", node);
  if (!array) return std::nullopt;
  std::vector<Vec2> points;
  for (const toml::node& element : *array) {
    const auto p = to_point(key, element);
    if (!p) return std::nullopt;
    points.push_back(*p);
  }
  return points;
}

}  // namespace glow::files
