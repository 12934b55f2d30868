#include "files/text/toml_table.hpp"

#include <fmt/format.h>
#include <toml++/toml.h>

#include <algorithm>
#include <cmath>

namespace glow::files {
namespace {

std::string type_name(const toml::node& node) {
  switch (node.type()) {
    case toml::node_type::table:
      return "a table";
    case toml::node_type::array:
      return fmt::format(FMT_STRING("an array of {}"), node.as_array()->size());
    case toml::node_type::string:
      return "text";
    case toml::node_type::integer:
    case toml::node_type::floating_point:
      return "a number";
    case toml::node_type::boolean:
      return "true or false";
    default:
      return "a date or time";
  }
}

/// What stands there, short enough for a message.
std::string shown(const toml::node& node) {
  if (const auto text = node.value<std::string>(); node.is_string() && text)
    return fmt::format(FMT_STRING("\"{}\""), text->substr(0, 40));
  if (const auto number = node.value<double>(); node.is_number() && number)
    return fmt::format(FMT_STRING("{}"), *number);
  return type_name(node);
}

int line_of(const toml::node& node) {
  return static_cast<int>(node.source().begin.line);
}

}  // namespace

TomlTable::TomlTable(const toml::table& table, std::string name, std::string file, Problems& problems)
    : table_(&table), name_(std::move(name)), file_(std::move(file)), problems_(&problems) {}

/// A table that stands under the key; under a name of its own there, where `name` is given.
TomlTable TomlTable::inner(const toml::table& table, const std::string& key, const std::string& name) const {
  TomlTable result(table, name.empty() ? key : key + "." + name, file_, *problems_);
  result.units_ = units_;
  if (asked_) result.asked_ = name.empty() ? &asked_->key(key) : &asked_->key(key).key("*");
  return result;
}

void TomlTable::know_what(const TomlTable& other) {
  known_ = other.known_;
  if (asked_ && other.asked_) asked_->add(*other.asked_);
}

void TomlTable::note(const std::string& key, Form form, const std::string& allowed) const {
  if (asked_) asked_->key(key).forms.emplace(form, allowed);
}

const toml::node* TomlTable::find(const std::string& key) const {
  const toml::node* node = table_->get(key);
  for (std::size_t k = 0; k < others_.size() && !node; ++k) node = others_[k]->get(key);
  return node;
}

std::string TomlTable::peek(const std::string& key) const {
  const toml::node* node = find(key);
  return node && node->is_string() ? node->value<std::string>().value_or("") : std::string();
}

Place TomlTable::place_of(const toml::node& node) const {
  return {file_, line_of(node), static_cast<int>(node.source().begin.column)};
}

Place TomlTable::place_of(const std::string& key) const {
  const toml::node* node = find(key);
  return node ? place_of(*node) : place();
}

Place TomlTable::place() const {
  return place_of(static_cast<const toml::node&>(*table_));
}

bool TomlTable::has(const std::string& key) const {
  return find(key) != nullptr;
}

const toml::node* TomlTable::take(const std::string& key, Form form, Need need) {
  note(key, form);
  known_.push_back(key);
  const toml::node* node = find(key);
  if (!node && need == Need::required) tell_missing(key);
  return node;
}

void TomlTable::wrong_type(const std::string& key, const toml::node& node, const std::string& expected) {
  problems_->error("P003", place_of(node),
                   fmt::format(FMT_STRING("\"{}\" is {}; expected {}"), key, shown(node), expected));
}

std::optional<std::string> TomlTable::text_of(const std::string& key, const toml::node* node,
                                              std::size_t most) {
  if (!node) return std::nullopt;
  const auto value = node->value<std::string>();
  if (!node->is_string() || !value) {
    wrong_type(key, *node, "text in quotes");
    return std::nullopt;
  }
  if (value->empty() || value->size() > most) {
    problems_->error(
        "P005", place_of(*node),
        fmt::format(FMT_STRING("\"{}\" has {} characters; expected 1 to {}"), key, value->size(), most));
    return std::nullopt;
  }
  return value;
}

std::optional<std::string> TomlTable::text(const std::string& key, Need need) {
  const toml::node* node = take(key, Form::text, need);
  const auto value = text_of(key, node, 1000);
  return value && check_characters(*value, place_of(*node)) ? value : std::nullopt;
}

std::optional<std::string> TomlTable::paragraphs(const std::string& key) {
  const toml::node* node = take(key, Form::text);
  const auto value = text_of(key, node, 20000);
  if (!value) return std::nullopt;
  std::string lines = *value;  // of which line breaks and tabs are no fault
  for (char& c : lines)
    if (c == '\n' || c == '\r' || c == '\t') c = ' ';
  return check_characters(lines, place_of(*node)) ? value : std::nullopt;
}

/// Names go to terminals and into files.
bool TomlTable::check_characters(const std::string& text, const Place& place) {
  if (!has_control_characters(text) && text.find('\t') == std::string::npos) return true;
  problems_->error(
      "P072", place,
      fmt::format(FMT_STRING("\"{}\" has a tab, line break or other control character in it; take it out"),
                  text.substr(0, 60)));
  return false;
}

std::optional<double> TomlTable::to_quantity(const std::string& key, const toml::node& node,
                                             units::Dimension dimension) {
  if (node.is_number()) {
    const double value = node.value<double>().value_or(std::nan(""));
    if (std::isfinite(value) && dimension == units::Dimension::length) return units_.metres_of(value);
    if (std::isfinite(value) && dimension == units::Dimension::illuminance) return units_.lux_of(value);
    if (std::isfinite(value)) return value;
  } else if (const auto text = node.value<std::string>(); node.is_string() && text) {
    const units::Parsed parsed = units::parse_quantity(*text, dimension);
    if (parsed.ok) return parsed.value;
    problems_->error("P006", place_of(node), fmt::format(FMT_STRING("{}: {}"), key, parsed.problem));
    return std::nullopt;
  }
  wrong_type(key, node,
             fmt::format(FMT_STRING("a number, or text with a unit ({})"), units::unit_names(dimension)));
  return std::nullopt;
}

namespace {

std::string allowed_words(const Range& range, units::Dimension dimension) {
  return fmt::format(FMT_STRING("{}{} to {}, or text with a unit ({})"), range.above_low ? "above " : "",
                     range.low, range.high, units::unit_names(dimension));
}

}  // namespace

std::optional<double> TomlTable::quantity(const std::string& key, units::Dimension dimension, Range range,
                                          Need need) {
  if (asked_) note(key, Form::quantity, allowed_words(range, dimension));
  const toml::node* node = take(key, Form::quantity, need);
  if (!node) return std::nullopt;
  const auto value = to_quantity(key, *node, dimension);
  if (!value) return std::nullopt;
  const auto shown = [&](double v) { return dimension == units::Dimension::length ? units_.length(v) : v; };
  if (*value > range.high || *value < range.low || (range.above_low && *value == range.low)) {
    std::string likely;
    if (dimension == units::Dimension::length && *value > range.high && *value / 1000 > range.low)
      likely = fmt::format(FMT_STRING(". If these are millimetres, say \"{} mm\""), shown(*value));
    if (dimension == units::Dimension::ratio && *value > range.high && *value / 100 <= range.high)
      likely = fmt::format(FMT_STRING(". If this is a percentage, say \"{} %\" or {}"), *value, *value / 100);
    problems_->error(
        "P005", place_of(*node),
        fmt::format(FMT_STRING("\"{}\" is {}; expected {} {} to {}{}"), key, shown(*value),
                    range.above_low ? "above" : "from", shown(range.low), shown(range.high), likely));
    return std::nullopt;
  }
  return value;
}

std::vector<std::pair<std::string, Place>> TomlTable::texts(const std::string& key) {
  std::vector<std::pair<std::string, Place>> list;
  const toml::node* node = take(key, Form::texts);
  if (!node) return list;
  const toml::array* array = node->as_array();
  if (!array) {
    wrong_type(key, *node, "a list of texts, such as [\"...\"]");
    return list;
  }
  for (const toml::node& entry : *array)
    if (const auto text = entry.value<std::string>(); text && entry.is_string())
      list.emplace_back(*text, place_of(entry));
    else
      wrong_type(key, entry, "a list of texts, such as [\"...\"]");
  return list;
}

std::optional<int> TomlTable::count(const std::string& key, int low, int high, Need need) {
  if (asked_) note(key, Form::count, fmt::format(FMT_STRING("{} to {}"), low, high));
  const toml::node* node = take(key, Form::count, need);
  if (!node) return std::nullopt;
  const auto value = node->is_number() ? node->value<double>() : std::nullopt;
  if (!value || *value != std::floor(*value)) {
    wrong_type(key, *node, "a whole number");
    return std::nullopt;
  }
  if (*value < low || *value > high) {
    problems_->error("P005", place_of(*node),
                     fmt::format(FMT_STRING("\"{}\" is {}; expected {} to {}"), key, *value, low, high));
    return std::nullopt;
  }
  return static_cast<int>(*value);
}

std::vector<std::string> TomlTable::keys() const {
  if (asked_) asked_->any_key = true;
  std::vector<std::string> names;
  for (const auto& [key, node] : *table_) names.emplace_back(key.str());
  return names;
}

std::optional<bool> TomlTable::flag(const std::string& key) {
  const toml::node* node = take(key, Form::flag);
  if (!node) return std::nullopt;
  if (const auto* value = node->as_boolean()) return value->get();
  wrong_type(key, *node, "true or false");
  return std::nullopt;
}

bool TomlTable::is_text(const std::string& key) const {
  const toml::node* node = find(key);
  return node && node->is_string();
}

bool TomlTable::is_word(const std::string& key, const std::string& word) {
  if (asked_) asked_->key(key).words.insert(word);
  const toml::node* node = find(key);
  if (!node || !node->is_string() || node->value<std::string>() != word) return false;
  known_.push_back(key);
  return true;
}

std::vector<Vec2> TomlTable::pairs(const std::string& key) {
  std::vector<Vec2> pairs;
  const toml::node* node = take(key, Form::pairs);
  const toml::array* list = node ? node->as_array() : nullptr;
  for (std::size_t i = 0; list && i < list->size(); ++i) {
    const toml::array* pair = list->get(i)->as_array();
    const auto number = [&](std::size_t k) {
      return pair && pair->size() == 2 ? pair->get(k)->value<double>() : std::optional<double>();
    };
    if (number(0) && number(1)) {
      pairs.push_back({*number(0), *number(1)});
      continue;
    }
    wrong_type(key, *list->get(i), "a pair of numbers, such as [60, 0.9]");
    return pairs;
  }
  return pairs;
}

bool TomlTable::is_list(const std::string& key) const {
  const toml::node* node = find(key);
  return node && node->is_array();
}

bool TomlTable::is_false(const std::string& key) {
  if (asked_) asked_->key(key).may_be_false = true;
  const toml::node* node = find(key);
  if (!node || !node->is_boolean() || node->value<bool>() != false) return false;
  known_.push_back(key);
  return true;
}

bool TomlTable::is_table(const std::string& key) const {
  const toml::node* node = find(key);
  return node && node->is_table();
}

std::optional<TomlTable> TomlTable::table(const std::string& key) {
  const toml::node* node = take(key, Form::table);
  if (!node) return std::nullopt;
  if (const toml::table* inner = node->as_table()) return this->inner(*inner, key);
  wrong_type(key, *node, "a table, as in { key = value }");
  return std::nullopt;
}

std::vector<TomlTable> TomlTable::tables(const std::string& key) {
  std::vector<TomlTable> result;
  const toml::node* node = take(key, Form::tables);
  if (!node) return result;
  const toml::array* array = node->as_array();
  if (!array) {
    wrong_type(key, *node, fmt::format(FMT_STRING("one or more [[{}]] tables"), key));
    return result;
  }
  for (const toml::node& element : *array) {
    if (const toml::table* inner = element.as_table()) {
      result.push_back(this->inner(*inner, key));
    } else {
      wrong_type(key, element, fmt::format(FMT_STRING("a [[{}]] table"), key));
    }
  }
  return result;
}

std::vector<TomlTable> TomlTable::one_or_more(const std::string& key) {
  note(key, Form::table);
  note(key, Form::tables);
  if (!is_table(key)) return tables(key);
  std::vector<TomlTable> result;
  if (auto one = table(key)) result.push_back(std::move(*one));
  return result;
}

std::vector<std::pair<std::string, TomlTable>> TomlTable::named_tables(const std::string& key) {
  std::vector<std::pair<std::string, TomlTable>> result;
  const toml::node* node = take(key, Form::named_tables);
  if (!node) return result;
  const toml::table* outer = node->as_table();
  if (!outer) {
    wrong_type(key, *node, fmt::format(FMT_STRING("tables such as [{}.P1]"), key));
    return result;
  }
  for (const auto& [name, inner] : *outer) {
    const Place place{file_, int(name.source().begin.line), int(name.source().begin.column)};
    if (!check_characters(std::string(name.str()), place)) continue;
    if (const toml::table* table = inner.as_table()) {
      result.emplace_back(std::string(name.str()), this->inner(*table, key, std::string(name.str())));
    } else {
      wrong_type(std::string(name.str()), inner, fmt::format(FMT_STRING("a table such as [{}.P1]"), key));
    }
  }
  // The parser keeps tables by name; people think in the order they wrote.
  std::stable_sort(result.begin(), result.end(), [](const auto& a, const auto& b) {
    const Place p = a.second.place(), q = b.second.place();
    return std::pair(p.line, p.column) < std::pair(q.line, q.column);
  });
  return result;
}

}  // namespace glow::files
