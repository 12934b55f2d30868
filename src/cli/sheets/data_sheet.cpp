#include "cli/sheets/data_sheet.hpp"

#include <fmt/format.h>

#include "cli/sheets/glare_sheet.hpp"
#include "core/photometry/derived.hpp"
#include "words/tables/facts_table.hpp"
#include "words/text_layout.hpp"

namespace glow::cli {
namespace {

using photometry::Photometry;

class Sheet {
 public:
  explicit Sheet(const Photometry& p) : p_(p) {}

  void identity() {
    row("maker", p_.manufacturer);
    row("luminaire", p_.luminaire + (p_.catalogue_number.empty() ? "" : " (" + p_.catalogue_number + ")"));
    row("lamps", p_.lamp);
  }
  void flux();
  void beam();
  void body();
  void row(const std::string& name, const std::string& words) {
    if (words.empty()) return;
    words::wrap(text, fmt::format(FMT_STRING("  {:<16} "), name), words, 19);
  }
  std::string text;

 private:
  std::string edges(double c_deg) const {
    const auto width = [&](double share) {
      const auto e = photometry::beam_edges(p_.table, c_deg, share);
      return e ? fmt::format(FMT_STRING("{:.1f} deg"), e->width_deg()) : std::string("none below 90 deg");
    };
    return width(0.5) + ", " + width(0.1);
  }
  std::string luminances(double c_deg) const {
    std::string words;
    for (const int gamma : {65, 75, 85})
      if (const auto luminance = photometry::mean_luminance(p_, c_deg, gamma))
        words += fmt::format(FMT_STRING("{}{:.0f}"), words.empty() ? "" : " / ", *luminance);
    return words;
  }

  const Photometry& p_;
};

void Sheet::flux() {
  row("flux", fmt::format(FMT_STRING("{:.0f} lm as installed, integrated{}"), p_.flux_lm(),
                          p_.absolute ? "; absolute photometry"
                          : p_.lamp_flux_lm
                              ? fmt::format(FMT_STRING("; lamps stated with {:.0f} lm"), *p_.lamp_flux_lm)
                              : std::string()));
  const auto code = photometry::flux_code(p_);
  const double up = p_.table.upward_flux() / p_.flux_lm();
  row("shares",
      fmt::format(FMT_STRING("{}down {:.1f} %, up {:.1f} %"),
                  code && code->n5 ? fmt::format(FMT_STRING("output ratio {:.1f} %, "), *code->n5) : "",
                  100 * (1 - up), 100 * up));
  if (code)
    row("CIE flux code",
        fmt::format(FMT_STRING("{:.0f} {:.0f} {:.0f} {:.0f} {}"), code->n1, code->n2, code->n3, code->n4,
                    code->n5 ? fmt::format(FMT_STRING("{:.0f}"), *code->n5) : "-"));
  row("power", p_.watts ? fmt::format(FMT_STRING("{:g} W, {:.1f} lm/W"), *p_.watts, p_.flux_lm() / *p_.watts)
                        : std::string("not stated"));
  const std::string temperature =
      p_.cct_k ? fmt::format(FMT_STRING("{:g} K"), *p_.cct_k) : std::string("temperature not stated");
  row("colour",
      temperature + (p_.colour_rendering ? fmt::format(FMT_STRING(", Ra {:g}"), *p_.colour_rendering)
                                         : std::string(", rendering not stated")));
}

void Sheet::beam() {
  const photometry::Peak peak = p_.table.peak();
  const bool per_klm = p_.lamp_flux_lm && *p_.lamp_flux_lm > 0;
  row("peak",
      fmt::format(
          FMT_STRING("{:.1f} cd{} at C {:g}, gamma {:g}"), peak.candela,
          per_klm ? fmt::format(FMT_STRING(" ({:.1f} cd/klm)"), peak.candela * 1000 / *p_.lamp_flux_lm) : "",
          peak.c_deg, peak.gamma_deg));
  row("beam, field", "C0-C180: " + edges(0) + " (half, tenth of the peak)");
  if (!p_.table.rotational()) row("", "C90-C270: " + edges(90));
  row("distribution", photometry::kind_of_distribution(p_.table));
  row("symmetry", fmt::format(FMT_STRING("declared {}, found {}"), to_string(p_.declared_symmetry),
                              to_string(photometry::symmetry_found(p_.table))));
  const auto spacing = [&](double c) {
    const auto s = photometry::spacing_criterion(p_.table, c);
    return s ? fmt::format(FMT_STRING("{:.2f}"), *s) : std::string("none");
  };
  row("spacing/height", "along C0 " + spacing(0) + ", along C90 " + spacing(90));
}

void Sheet::body() {
  const photometry::LuminousArea& a = p_.area;
  row("luminous area", a.shape == photometry::LuminousShape::point
                           ? std::string("a point: no size is stated")
                           : fmt::format(FMT_STRING("{}, {:g} m along C0, {:g} m along C90, {:g} m high"),
                                         to_string(a.shape), a.extent_c0_m, a.extent_c90_m, a.height_m()));
  const std::string across = luminances(0);
  if (across.empty()) return;
  row("luminance", "C0: " + across + " cd/m2 at gamma 65 / 75 / 85");
  if (!p_.table.rotational()) row("", "C90: " + luminances(90) + " cd/m2");
  row("", screen_words(p_));
}

}  // namespace

std::string data_table(const std::vector<files::Inspection>& inspections) {
  std::vector<shelf::LuminaireFacts> facts(inspections.size());
  std::vector<words::FactsRow> rows;
  for (std::size_t i = 0; i < inspections.size(); ++i) {
    const files::Inspection& inspection = inspections[i];
    if (inspection.photometry) facts[i] = shelf::facts_of(*inspection.photometry);
    rows.push_back(
        {inspection.file, inspection.photometry ? &facts[i] : nullptr, inspection.findings.size()});
  }
  return words::facts_table(rows);
}

std::string data_sheet(const files::Inspection& inspection, const std::vector<files::Direction>& directions,
                       bool tables) {
  if (!inspection.photometry) return inspection.file + ": refused\n";
  const Photometry& p = *inspection.photometry;
  Sheet sheet(p);
  sheet.text = fmt::format(FMT_STRING("{}: {}{}\n"), inspection.file, p.format,
                           p.version.empty() ? "" : " (" + p.version + ")");
  sheet.identity();
  sheet.flux();
  sheet.beam();
  sheet.body();
  sheet.row("UGR", ugr_words(p));
  for (const files::Direction& d : directions)
    sheet.row("at", fmt::format(FMT_STRING("C {:g}, gamma {:g}: {:.5g} cd"), d.c_deg, d.gamma_deg,
                                p.table.intensity(d.c_deg, d.gamma_deg)));
  sheet.row("findings", inspection.findings.empty()
                            ? std::string("none")
                            : fmt::format(FMT_STRING("{}, told below"), inspection.findings.size()));
  if (tables) sheet.text += glare_tables(p);
  return sheet.text;
}

}  // namespace glow::cli
