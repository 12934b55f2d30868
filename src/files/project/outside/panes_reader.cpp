#include "files/project/outside/panes_reader.hpp"

#include <fmt/format.h>

#include "files/project/ranges.hpp"

namespace glow::files {
namespace {

using model::Shade;
using units::Dimension;

constexpr Range kDirt{0.01, 1}, kDiffuse{0, 0.98}, kBarWidth{0, 1}, kSlatTilt{-90, 90};
constexpr Range kDepth{0, 20, true}, kShadeGap{0, 20}, kSlatDepth{0.001, 5}, kSlatSpacing{0.005, 5};
constexpr int kMostPanes = 20;

/// What all of them state.
Shade common(TomlTable& table, Shade::Kind kind) {
  Shade shade;
  shade.kind = kind;
  shade.place = table.place();
  shade.state = table.text("state").value_or("");
  return shade;
}

/// A board that juts out; `gap`: the key of how far from the opening's edge it does.
Shade read_board(TomlTable& table, Shade::Kind kind, const char* gap) {
  Shade shade = common(table, kind);
  shade.depth_m = table.quantity("depth", Dimension::length, kDepth, Need::required).value_or(0);
  shade.gap_m = table.quantity(gap, Dimension::length, kShadeGap).value_or(0);
  shade.beyond_m = table.quantity("beyond", Dimension::length, kShadeGap).value_or(0);
  shade.reflectance = table.quantity("reflectance", Dimension::ratio, kDiffuse).value_or(shade.reflectance);
  return shade;
}

Shade read_overhang(TomlTable& table) {
  return read_board(table, Shade::Kind::overhang, "above");
}

Shade read_fins(TomlTable& table) {
  return read_board(table, Shade::Kind::fins, "beside");
}

Shade read_slats(TomlTable& table) {
  const std::string way = table.text("direction").value_or("horizontal");
  Shade shade =
      common(table, way == "vertical" ? Shade::Kind::vertical_slats : Shade::Kind::horizontal_slats);
  if (way != "horizontal" && way != "vertical")
    table.problems().error(
        "P005", table.place_of("direction"),
        fmt::format(FMT_STRING("\"direction\" is \"{}\"; expected horizontal or vertical"), way));
  shade.depth_m = table.quantity("depth", Dimension::length, kSlatDepth, Need::required).value_or(0.1);
  shade.spacing_m = table.quantity("spacing", Dimension::length, kSlatSpacing, Need::required).value_or(0.1);
  shade.tilt_deg = table.quantity("tilt", Dimension::angle, kSlatTilt).value_or(0);
  // Clear of the wall at any tilt.
  shade.gap_m = table.quantity("distance", Dimension::length, kShadeGap).value_or(shade.depth_m / 2 + 0.02);
  shade.reflectance = table.quantity("reflectance", Dimension::ratio, kDiffuse).value_or(shade.reflectance);
  if (shade.gap_m < shade.depth_m / 2 * std::cos(shade.tilt_deg * kDegree))
    table.problems().error(
        "P005", table.place(),
        "the slats reach into the wall; give \"distance\", from the wall to their middle, at "
        "least half their depth");
  return shade;
}

Shade read_screen(TomlTable& table) {
  Shade shade = common(table, Shade::Kind::screen);
  shade.transmittance =
      table.quantity("transmittance", Dimension::ratio, range::kShare, Need::required).value_or(1);
  shade.scattered_share = table.quantity("scattered", Dimension::ratio, range::kShare).value_or(0);
  return shade;
}

}  // namespace

void read_glazing(TomlTable& table, model::Opening& into) {
  using Law = daylight::Glazing::Law;
  into.outside = table.flag("outside").value_or(true);
  into.dirt = table.quantity("dirt", Dimension::ratio, kDirt).value_or(1);
  if (!table.has("glazing")) return;
  if (table.is_list("glazing")) {
    into.glazing.law = Law::table;
    for (const auto& pair : table.pairs("glazing")) into.glazing.table.emplace_back(pair.x(), pair.y());
    bool rising = into.glazing.table.size() > 1;
    for (std::size_t i = 0; i < into.glazing.table.size(); ++i) {
      const auto& [angle, share] = into.glazing.table[i];
      rising = rising && angle >= 0 && angle <= 90 && share >= 0 && share <= 1.05 &&
               (i == 0 || angle > into.glazing.table[i - 1].first);
    }
    if (!rising)
      table.problems().error(
          "P005", table.place_of("glazing"),
          "\"glazing\" as a list is [[angle, share of the transmittance at normal incidence], ...], "
          "angles rising from 0 to 90");
    into.has_glazing = rising;
    return;
  }
  into.has_glazing = true;
  const std::optional<std::string> said = table.text("glazing");
  if (!said) return;  // told of
  const std::string& words = *said;
  into.glazing.law = Law::clear;
  if (words == "clear single")
    into.glazing.panes = 1;
  else if (words == "clear double")
    into.glazing.panes = 2;
  else if (words == "clear triple")
    into.glazing.panes = 3;
  else if (words == "even")
    into.glazing.law = Law::constant;
  else
    table.problems().error(
        "P005", table.place_of("glazing"),
        fmt::format(FMT_STRING("\"glazing\" is \"{}\"; expected clear single, clear double, clear "
                               "triple, even (the same at every angle) or a measured table. Panes "
                               "that redirect light are not computed"),
                    words));
}

std::optional<double> read_frame(TomlTable& opening, model::Opening& into) {
  if (!opening.is_table("frame")) return opening.quantity("frame", Dimension::ratio, range::kShare);
  auto table = opening.table("frame");
  into.bars.frame_m = table->quantity("width", Dimension::length, kBarWidth, Need::required).value_or(0);
  into.bars.columns = table->count("columns", 1, kMostPanes).value_or(1);
  into.bars.rows = table->count("rows", 1, kMostPanes).value_or(1);
  into.bars.bar_m = table->quantity("bar", Dimension::length, kBarWidth).value_or(into.bars.frame_m);
  table->finish();
  const double share = into.bars.share(into.size);
  if (share < 1) return share;
  table->problems().error(
      "P005", table->place(),
      fmt::format(FMT_STRING("frame and bars of \"{}\" leave no glass of it; expected them narrower"),
                  into.name));
  into.bars = {};
  return 0;
}

void read_shades(TomlTable& opening, model::Opening& into) {
  constexpr std::pair<const char*, Shade (*)(TomlTable&)> kKinds[] = {{"overhang", read_overhang},
                                                                      {"fins", read_fins},
                                                                      {"slats", read_slats},
                                                                      {"screen", read_screen},
                                                                      {"blind", read_screen}};
  for (const auto& [key, read] : kKinds)
    for (TomlTable& table : opening.one_or_more(key)) {
      into.shades.push_back(read(table));
      table.finish();
    }
}

}  // namespace glow::files
