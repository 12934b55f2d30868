#include "cli/sheets/glare_sheet.hpp"

#include <fmt/format.h>

#include <cmath>

#include "core/cavity/ugr_table.hpp"
#include "core/glare/screen_luminance.hpp"
#include "core/standards/glare_rules.hpp"
#include "files/photometry/glare_tables.hpp"
#include "words/text_layout.hpp"

namespace glow::cli {
namespace {

using cavity::Reflectances;
using cavity::UgrTable;
using cavity::UtilisationTable;
using photometry::Photometry;

/// Crosswise comes first, on the left.
struct Sights {
  std::string crosswise, endwise;  ///< the planes
  double crosswise_value, endwise_value;
};

Sights sights_of(const cavity::UgrHeadline& h, const Photometry& p) {
  if (files::is_long_along_c0(p)) return {"C90-C270", "C0-C180", h.along_c90, h.along_c0};
  return {"C0-C180", "C90-C270", h.along_c0, h.along_c90};
}

std::string flux_words(const cavity::UgrHeadline& h, const Photometry& p) {
  return fmt::format(FMT_STRING("{:.0f} lm{}"), h.lamp_flux_lm,
                     p.absolute || !p.lamp_flux_lm ? " of the luminaire" : " of the lamps");
}

std::string value_cell(double value) {
  return std::isfinite(value) ? fmt::format(FMT_STRING("{:6.1f}"), value) : std::string("     -");
}

/// Of a beam so narrow that no luminaire of the table's rooms shines towards the eye there is no value.
std::string ugr_value(double ugr) {
  if (std::isfinite(ugr) && ugr < 0) return "below 0";
  return std::isfinite(ugr) ? fmt::format(FMT_STRING("{:.1f}"), ugr)
                            : std::string("none (no light to the eye)");
}

void add_reflectances(std::string& text, const std::string& name, double Reflectances::*part) {
  text += fmt::format(FMT_STRING("  {:<11}"), name);
  for (int block = 0; block < 2; ++block) {
    for (const Reflectances& r : UgrTable::reflectances())
      text += fmt::format(FMT_STRING("{:6.2f}"), r.*part);
    text += block == 0 ? "  |" : "\n";
  }
}

void add_ugr_rows(std::string& text, const Photometry& p) {
  const UgrTable table = cavity::ugr_table(p);
  const bool turned = files::is_long_along_c0(p);
  double last_x = 0;
  for (std::size_t r = 0; r < UgrTable::rooms().size(); ++r) {
    const cavity::TableRoom& room = UgrTable::rooms()[r];
    text += fmt::format(FMT_STRING("  {:>3}  {:>3}   "),
                        room.x == last_x ? "" : fmt::format(FMT_STRING("{:g}H"), room.x),
                        fmt::format(FMT_STRING("{:g}H"), room.y));
    last_x = room.x;
    for (const double value : (turned ? table.along_c90 : table.along_c0)[r]) text += value_cell(value);
    text += "  |";
    for (const double value : (turned ? table.along_c0 : table.along_c90)[r]) text += value_cell(value);
    text += "\n";
  }
}

void add_ugr_table(std::string& text, const Photometry& p) {
  const auto reason = cavity::no_ugr_table(p);
  if (reason) {
    text += "  UGR table: none, " + cavity::to_string(*reason) + "\n";
    return;
  }
  const cavity::UgrHeadline headline = cavity::ugr_headline(p);
  const Sights sights = sights_of(headline, p);
  words::wrap(
      text, "  ",
      fmt::format(FMT_STRING("UGR by the tabular method of CIE 190, uncorrected: for 1000 lm. Spacing 0.25 "
                             "of H, the height of the luminaires above the eye (1.2 m seated); for {} add "
                             "{:+.1f}"),
                  flux_words(headline, p), headline.correction),
      2);
  text += "\n";
  add_reflectances(text, "ceiling", &Reflectances::top);
  add_reflectances(text, "walls", &Reflectances::walls);
  add_reflectances(text, "work plane", &Reflectances::bottom);
  text += fmt::format(FMT_STRING("  {:<11} {:<29}  | {}\n"), "  x    y",
                      "crosswise: along " + sights.crosswise, "endwise: along " + sights.endwise);
  add_ugr_rows(text, p);
  text += "\n";
  words::wrap(text, "  ",
              fmt::format(FMT_STRING("4H x 8H, 70/50/20, corrected: {} crosswise, {} endwise"),
                          ugr_value(sights.crosswise_value), ugr_value(sights.endwise_value)),
              2);
  words::wrap(
      text, "  ",
      "x lies across the line of sight, y along it. About 0.3 from a table made to the letter of the method, "
      "0.6 at worst",
      2);
}

void add_utilisation(std::string& text, const Photometry& p) {
  const UtilisationTable table = cavity::utilisation_table(p);
  words::wrap(
      text, "\n  ",
      fmt::format(
          FMT_STRING("Utilisation factors: lm on the work plane over {}; ceiling at the luminaires' plane, "
                     "spread evenly"),
          p.absolute || !p.lamp_flux_lm ? "lm of the luminaire" : "lm of the lamps"),
      2);
  text += "\n";
  for (const auto& [name, part] : {std::pair{"ceiling", &Reflectances::top},
                                   {"walls", &Reflectances::walls},
                                   {"work plane", &Reflectances::bottom}}) {
    text += fmt::format(FMT_STRING("  {:<11}"), name);
    for (const Reflectances& r : UtilisationTable::reflectances())
      text += fmt::format(FMT_STRING("{:6.2f}"), r.*part);
    text += "\n";
  }
  text += "  room index\n";
  for (std::size_t k = 0; k < table.factors.size(); ++k) {
    text += fmt::format(FMT_STRING("  {:>8.2f}   "), UtilisationTable::indices()[k]);
    for (const double factor : table.factors[k]) text += fmt::format(FMT_STRING("{:6.2f}"), factor);
    text += "\n";
  }
}

}  // namespace

std::string ugr_words(const Photometry& p) {
  const auto reason = cavity::no_ugr_table(p);
  if (reason) return "no tabular value: " + cavity::to_string(*reason);
  const cavity::UgrHeadline headline = cavity::ugr_headline(p);
  const Sights sights = sights_of(headline, p);
  return fmt::format(
      FMT_STRING("{} crosswise (along {}), {} endwise; tabular, 4H x 8H, 70/50/20, {}{}"),
      ugr_value(sights.crosswise_value), sights.crosswise, ugr_value(sights.endwise_value),
      flux_words(headline, p),
      headline.symmetric ? "" : "; not symmetric, as the method wants: the worse way of looking");
}

std::string screen_words(const Photometry& p) {
  photometry::PlacedLuminaire upright;
  upright.table = std::make_shared<photometry::IntensityTable>(p.table);
  upright.area = p.area;
  const auto planes = glare::luminances_from(upright, 1, standards::kScreenLimitFrom);
  if (planes.empty()) return "";
  glare::PlaneLuminance most;
  for (const auto& plane : planes)
    if (plane.cd_m2 > most.cd_m2) most = plane;
  std::string kept;
  for (const auto& [screen, dark] : {std::pair{100.0, true}, {300.0, true}, {300.0, false}}) {
    const double limit = standards::luminance_limit({screen, dark}, "EN 12464-1");
    kept += fmt::format(FMT_STRING("{}{:.0f} {}"), kept.empty() ? "" : ", ", limit,
                        most.cd_m2 <= limit ? "kept" : "exceeded");
  }
  return fmt::format(
      FMT_STRING("most from 65 deg: {:.0f} cd/m2 at C {:g}, gamma {:g}; limits for screens: {}"), most.cd_m2,
      most.c_deg, most.gamma_deg, kept);
}

std::string glare_tables(const Photometry& p) {
  std::string text = "\n";
  add_ugr_table(text, p);
  add_utilisation(text, p);
  return text;
}

}  // namespace glow::cli
