#include "cli/options/shelf_options.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <sstream>

#include "cli/streams.hpp"
#include "core/problems/problems.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace {

using photometry::LightKind;

constexpr LightKind kKinds[] = {LightKind::direct, LightKind::direct_indirect, LightKind::indirect,
                                LightKind::one_sided};

std::string joined(const std::vector<std::string>& names) {
  std::string text;
  for (const std::string& name : names) text += (text.empty() ? "" : ", ") + name;
  return text;
}

std::vector<std::string> kind_names() {
  std::vector<std::string> names;
  for (const LightKind kind : kKinds) names.push_back(photometry::to_string(kind));
  return names;
}

std::vector<std::string> split(const std::string& text, char at) {
  std::vector<std::string> parts;
  std::istringstream in(text);
  for (std::string part; std::getline(in, part, at);)
    if (!part.empty()) parts.push_back(part);
  return parts;
}

bool refuse(const char* command, const std::string& words) {
  say(fmt::format(FMT_STRING("{}: {}\n"), command, words));
  return false;
}

/// Names with commas between, each one of those that there are.
bool take_names(const Arguments& arguments, const char* option, const std::vector<std::string>& names,
                const char* command, std::vector<std::string>& taken) {
  for (const std::string& name : split(arguments.text(option), ',')) {
    if (std::find(names.begin(), names.end(), name) == names.end())
      return refuse(command,
                    fmt::format(FMT_STRING("--{} is \"{}\"; expected {}"), option, name, joined(names)));
    taken.push_back(name);
  }
  return true;
}

bool take_ranges(const Arguments& arguments, const char* command, shelf::Query& query) {
  for (const shelf::MeasureWords& each : shelf::measures()) {
    if (!arguments.has(each.key) || query.ranges.count(each.key)) continue;
    units::ParsedRange parsed = units::parse_range(arguments.text(each.key), each.dimension);
    // A colour temperature is stated, not measured: one value means just that.
    if (const units::Parsed one = units::parse_quantity(arguments.text(each.key), each.dimension);
        one.ok && each.measure == shelf::Measure::cct)
      parsed = {true, {one.value, one.value}, {}};
    if (!parsed.ok) return refuse(command, fmt::format(FMT_STRING("--{}: {}"), each.key, parsed.problem));
    if (each.dimension == units::Dimension::ratio && parsed.range.low > 1)
      return refuse(
          command,
          fmt::format(FMT_STRING("--{} begins above 1, and so above all; for per cent write \"{:g} %\""),
                      each.key, parsed.range.low));
    query.ranges[each.key] = parsed.range;
  }
  return true;
}

}  // namespace

void add_shelf_options(po::options_description& options) {
  options.add_options()("words", po::value<std::string>()->value_name("WORDS"),
                        "each word is in the path, maker, name, number or lamps")(
      "kind", po::value<std::string>()->value_name("KIND,..."), (joined(kind_names())).c_str())(
      "shape", po::value<std::string>()->value_name("SHAPE,..."),
      ("luminous area: " + joined(shelf::all_shape_names())).c_str());
  for (const shelf::MeasureWords& each : shelf::measures())
    if (*each.about)
      options.add_options()(each.key, po::value<std::string>()->value_name("A..B"), each.about);
}

std::optional<shelf::Query> shelf_query(const Arguments& arguments, const char* command) {
  shelf::Query query;
  query.words = split(arguments.text("words"), ' ');
  std::vector<std::string> kinds, shapes;
  if (!take_names(arguments, "kind", kind_names(), command, kinds) ||
      !take_names(arguments, "shape", shelf::all_shape_names(), command, shapes) ||
      !take_ranges(arguments, command, query))
    return std::nullopt;
  for (const LightKind kind : kKinds)
    if (std::find(kinds.begin(), kinds.end(), photometry::to_string(kind)) != kinds.end())
      query.kinds.insert(kind);
  query.shapes.insert(shapes.begin(), shapes.end());
  return query;
}

std::vector<std::string> limited_keys(const shelf::Query& query) {
  std::vector<std::string> keys;
  for (const std::string& key : shelf::measure_keys())
    if (query.ranges.count(key)) keys.push_back(key);
  return keys;
}

}  // namespace glow::cli
