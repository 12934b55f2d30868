#include "cli/options/figure_options.hpp"

#include <fmt/format.h>

#include <algorithm>
#include "cli/streams.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace {

/// "common_scale" is --common-scale on the command line.
std::string option_name(std::string key) {
  std::replace(key.begin(), key.end(), '_', '-');
  return key;
}

}  // namespace

void add_units_option(po::options_description& options) {
  options.add_options()("units", po::value<std::string>()->value_name("UNITS"),
                        "what people see: lx or fc, and m or ft, such as fc,ft");
}

void add_scale_options(po::options_description& options) {
  add_units_option(options);
  const auto add = [&](const char* name, const char* value, const char* what) {
    options.add_options()(name, po::value<std::string>()->value_name(value), what);
  };
  add("limits", "LOW,HIGH", "colours from LOW to HIGH; values beyond are striped");
  add("steps", "N", "about N bands of colour, or smooth");
  add("scale", "HOW", "linear or log");
  add("levels", "LIST", "own limits of the bands, such as 100,200,500");
  add("lines", "YES|NO", "lines between the bands: yes or no");
}

void add_figure_options(po::options_description& options) {
  add_scale_options(options);
  const auto add = [&](const char* name, const char* value, const char* what) {
    options.add_options()(name, po::value<std::string>()->value_name(value), what);
  };
  add("isolux", "LIST", "own isolux lines");
  add("values", "HOW", "printed values: none, fitting or all");
  add("common-scale", "YES|NO", "one colour scale for all figures: yes or no");
}

bool apply_units_option(const Arguments& arguments, const std::string& command, units::ShownUnits& units) {
  if (!arguments.has("units")) return true;
  if (const auto parsed = units::ShownUnits::parse(arguments.text("units"))) {
    units = *parsed;
    return true;
  }
  say(fmt::format(
      FMT_STRING("glowgrid {}: --units is \"{}\"; expected lx or fc, and m or ft, such as fc,ft\n"), command,
      arguments.text("units")));
  return false;
}

namespace {

bool apply(const std::vector<std::string>& keys, const Arguments& arguments, const std::string& command,
           const units::ShownUnits& units, model::FigureStyle& style) {
  for (const std::string& key : keys) {
    const std::string name = option_name(key);
    if (!arguments.has(name.c_str())) continue;
    const std::string words = arguments.text(name.c_str());
    if (const auto expected = style.set(key, words, units)) {
      say(fmt::format(FMT_STRING("glowgrid {}: --{} is \"{}\"; expected {}\n"), command, name, words,
                      *expected));
      return false;
    }
  }
  return true;
}

}  // namespace

bool apply_figure_options(const Arguments& arguments, const std::string& command,
                          const units::ShownUnits& units, model::FigureStyle& style) {
  return apply(model::FigureStyle::keys(), arguments, command, units, style);
}

bool apply_scale_options(const Arguments& arguments, const std::string& command,
                         const units::ShownUnits& units, model::FigureStyle& style) {
  return apply({"limits", "steps", "scale", "levels", "lines"}, arguments, command, units, style);
}

}  // namespace glow::cli
