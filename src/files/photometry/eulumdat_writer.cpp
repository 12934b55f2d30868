#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/photometry/derived.hpp"
#include "files/photometry/photometry_writer.hpp"

namespace glow::files {
namespace {

using photometry::LuminousShape;
using photometry::Photometry;
using photometry::Symmetry;

constexpr std::size_t kLongestText = 78;  // characters of the company line
constexpr int kRotationalPlanes =
    24;  // listed for a rotational luminaire, as the format expects the whole circle
constexpr double kSameStep = 1e-9;

int isym_of(Symmetry symmetry) {
  switch (symmetry) {
    case Symmetry::none:
      return 0;
    case Symmetry::rotational:
      return 1;
    case Symmetry::about_c0:
      return 2;
    case Symmetry::about_c90:
      return 3;
    case Symmetry::quadrant:
      return 4;
  }
  return 0;
}

/// The common step of the angles; 0 when they are uneven, as the format asks.
double step_of(const std::vector<double>& angles) {
  if (angles.size() < 2) return 0;
  for (std::size_t i = 2; i < angles.size(); ++i)
    if (std::abs((angles[i] - angles[i - 1]) - (angles[1] - angles[0])) > kSameStep) return 0;
  return angles[1] - angles[0];
}

class LdtText {
 public:
  explicit LdtText(std::vector<std::string>& losses) : losses_(losses) {}
  void text(std::string words, const char* what) {
    std::replace_if(
        words.begin(), words.end(), [](char c) { return c == '\n' || c == '\r'; }, ' ');
    if (words.size() > kLongestText) {
      words.resize(kLongestText);
      losses_.push_back(
          fmt::format(FMT_STRING("{} is longer than {} characters and is cut"), what, kLongestText));
    }
    bytes += words + "\r\n";
  }
  void number(double value) { bytes += fmt::format(FMT_STRING("{:.9g}\r\n"), value); }
  void millimetres(double metres) {
    bytes += fmt::format(FMT_STRING("{:g}\r\n"), std::round(metres * 10000) / 10);
  }
  std::string bytes;

 private:
  std::vector<std::string>& losses_;
};

void write_sizes(LdtText& out, const Photometry& p, std::vector<std::string>& losses) {
  const photometry::LuminousArea& a = p.area;
  const bool round = is_round(a.shape) || (p.body && p.body->round);
  const photometry::Body body =
      p.body.value_or(photometry::Body{a.extent_c0_m, a.extent_c90_m, a.height_m(), round});
  out.millimetres(body.extent_c90_m);
  out.millimetres(body.round ? 0 : body.extent_c0_m);
  out.millimetres(body.height_m);
  out.millimetres(a.extent_c90_m);
  out.millimetres(is_round(a.shape) ? 0 : a.extent_c0_m);
  for (const double height : a.side_heights_m) out.millimetres(height);
  if (a.shape == LuminousShape::sphere || a.shape == LuminousShape::horizontal_cylinder_c0 ||
      a.shape == LuminousShape::horizontal_cylinder_c90 || a.shape == LuminousShape::upright_disc ||
      a.shape == LuminousShape::ellipse)
    losses.push_back(fmt::format(FMT_STRING("EULUMDAT has no {}; its extents are written as a {}"),
                                 to_string(a.shape), is_round(a.shape) ? "round body" : "box"));
  if (!p.body)
    losses.push_back("the outer size of the luminaire is not known; that of the luminous area is written");
}

void write_lamps(LdtText& out, const Photometry& p, double flux) {
  out.number(1);
  out.number(p.absolute || !p.lamp_flux_lm ? -1 : 1);
  out.text(p.lamp.empty() ? "not stated" : p.lamp, "the description of the lamps");
  out.number(flux);
  out.text(p.cct_k ? fmt::format(FMT_STRING("{:g} K"), *p.cct_k) : std::string("not stated"), "");
  out.text(
      p.colour_rendering ? fmt::format(FMT_STRING("{:g}"), *p.colour_rendering) : std::string("not stated"),
      "");
  out.number(p.watts.value_or(0));
}

}  // namespace

std::string write_eulumdat(const Photometry& p, const std::string& file_name,
                           std::vector<std::string>& losses) {
  const photometry::IntensityTable& table = p.table;
  const bool relative = !p.absolute && p.lamp_flux_lm && *p.lamp_flux_lm > 0;
  const double flux = relative ? *p.lamp_flux_lm : p.lamp_flux_lm.value_or(p.flux_lm());
  std::vector<double> circle;
  if (table.rotational())
    for (int i = 0; i < kRotationalPlanes; ++i) circle.push_back(i * 360.0 / kRotationalPlanes);
  else
    circle.assign(table.c_deg().begin(), table.c_deg().end() - 1);
  std::vector<std::size_t> planes = listed_planes(p, true);
  const int isym = planes.empty() ? 0 : table.rotational() ? 1 : isym_of(p.declared_symmetry);
  if (planes.empty())
    for (std::size_t i = 0; i + 1 < table.c_deg().size(); ++i) planes.push_back(i);

  LdtText out(losses);
  out.text(p.manufacturer, "the maker's name");
  out.number(isym == 1 ? 1
             : std::max(p.area.extent_c0_m, p.area.extent_c90_m) >
                     3 * std::min(p.area.extent_c0_m, p.area.extent_c90_m)
                 ? 2
                 : 3);
  out.number(isym);
  out.number(double(circle.size()));
  out.number(step_of(circle));
  out.number(double(table.gamma_deg().size()));
  out.number(step_of(table.gamma_deg()));
  out.text("", "");  // report number
  out.text(p.luminaire, "the luminaire's name");
  out.text(p.catalogue_number, "the catalogue number");
  out.text(file_name, "the file name");
  out.text("", "");  // date
  write_sizes(out, p, losses);
  out.number(100 * photometry::flux_between(table, 0, 90) / p.flux_lm());
  out.number(relative ? 100 * p.flux_lm() / flux : 100);
  out.number(1);  // conversion factor
  out.number(0);  // tilt during measurement
  write_lamps(out, p, flux);
  for (int i = 0; i < 10; ++i) out.text("", "");  // direct ratios: not known, and blank is allowed
  for (const double c : circle) out.number(c);
  for (const double g : table.gamma_deg()) out.number(g);
  for (const std::size_t i : planes)
    for (std::size_t g = 0; g < table.gamma_deg().size(); ++g) out.number(table.node(i, g) * 1000 / flux);
  if (!p.keywords.empty())
    losses.push_back("EULUMDAT has no keywords; only maker, names, lamp and colour are carried over");
  losses.push_back("the ten direct ratios are left blank");
  return out.bytes;
}

}  // namespace glow::files
