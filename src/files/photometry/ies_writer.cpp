#include <fmt/format.h>

#include <algorithm>

#include "files/photometry/photometry_writer.hpp"

namespace glow::files {
namespace {

using photometry::LuminousShape;
using photometry::Photometry;

constexpr std::size_t kLongestLine = 130;  // LM-63-1995 allows 132 characters

/// Width, length, height with the signs that carry the shape (LM-63-2002).
std::array<double, 3> opening(const photometry::LuminousArea& a) {
  const double w = a.extent_c90_m, l = a.extent_c0_m, h = a.height_m();
  switch (a.shape) {
    case LuminousShape::point:
      return {0, 0, 0};
    case LuminousShape::rectangle:
    case LuminousShape::box:
      return {w, l, h};
    case LuminousShape::disc:
    case LuminousShape::ellipse:
      return {-w, -l, 0};
    case LuminousShape::vertical_cylinder:
      return {-w, -l, h};
    case LuminousShape::sphere:
      return {-w, -l, -h};
    case LuminousShape::horizontal_cylinder_c0:
      return {-w, l, -h};
    case LuminousShape::horizontal_cylinder_c90:
      return {w, -l, -h};
    case LuminousShape::upright_disc:
      return {-w, 0, -h};
  }
  return {0, 0, 0};
}

std::string one_line(std::string text) {
  std::replace_if(
      text.begin(), text.end(), [](char c) { return c == '\n' || c == '\r'; }, ' ');
  return text;
}

class IesText {
 public:
  void line(const std::string& words) { text_ += words + "\r\n"; }
  void keyword(const std::string& key, const std::string& words) {
    if (!words.empty()) line("[" + key + "] " + one_line(words));
  }
  void numbers(const std::vector<double>& values) {
    std::string row;
    for (const double value : values) {
      const std::string word = fmt::format(FMT_STRING("{:.9g}"), value);
      if (!row.empty() && row.size() + word.size() + 1 > kLongestLine) {
        line(row);
        row.clear();
      }
      row += (row.empty() ? "" : " ") + word;
    }
    if (!row.empty()) line(row);
  }
  std::string take() { return std::move(text_); }

 private:
  std::string text_;
};

void write_keywords(IesText& text, const Photometry& p) {
  const auto has = [&](const char* key) {
    return std::any_of(p.keywords.begin(), p.keywords.end(), [&](const auto& k) { return k.first == key; });
  };
  for (const auto& [key, words] : p.keywords) {
    if (key.empty())
      text.keyword("OTHER", words);
    else
      text.keyword(key, words);
  }
  const std::string luminaire = p.luminaire.empty() ? "unnamed" : p.luminaire;
  const std::pair<const char*, std::string> wanted[] = {{"TEST", "not stated"},
                                                        {"TESTLAB", "not stated"},
                                                        {"ISSUEDATE", "not stated"},
                                                        {"MANUFAC", p.manufacturer},
                                                        {"LUMCAT", p.catalogue_number},
                                                        {"LUMINAIRE", luminaire},
                                                        {"LAMP", p.lamp}};
  for (const auto& [key, words] : wanted)
    if (!has(key)) text.keyword(key, words.empty() && std::string(key) == "MANUFAC" ? "not stated" : words);
  if (p.cct_k && !has("_CCT")) text.keyword("_CCT", fmt::format(FMT_STRING("{:g}"), *p.cct_k));
  if (p.colour_rendering && !has("_CRI"))
    text.keyword("_CRI", fmt::format(FMT_STRING("{:g}"), *p.colour_rendering));
}

}  // namespace

std::string write_ies(const Photometry& p, std::vector<std::string>& losses) {
  IesText text;
  text.line("IESNA:LM-63-2002");
  write_keywords(text, p);
  text.line("TILT=NONE");
  const photometry::IntensityTable& table = p.table;
  std::vector<std::size_t> planes = listed_planes(p, false);
  if (planes.empty())
    for (std::size_t i = 0; i < table.c_deg().size(); ++i) planes.push_back(i);
  const bool absolute = p.absolute || !p.lamp_flux_lm || *p.lamp_flux_lm <= 0;
  const auto size = opening(p.area);
  text.line(fmt::format(FMT_STRING("1 {:.9g} 1 {} {} 1 2 {:.6g} {:.6g} {:.6g}"),
                        absolute ? -1.0 : *p.lamp_flux_lm, table.gamma_deg().size(), planes.size(), size[0],
                        size[1], size[2]));
  text.line(fmt::format(FMT_STRING("1 1 {:.6g}"), p.watts.value_or(0)));
  text.numbers(table.gamma_deg());
  std::vector<double> angles;
  for (const std::size_t i : planes) angles.push_back(table.c_deg()[i]);
  text.numbers(angles);
  for (const std::size_t i : planes) {
    std::vector<double> row;
    for (std::size_t g = 0; g < table.gamma_deg().size(); ++g) row.push_back(table.node(i, g));
    text.numbers(row);
  }
  if (p.body) losses.push_back("LM-63 has no outer size of the luminaire, only its luminous opening");
  const auto& sides = p.area.side_heights_m;
  if (*std::min_element(sides.begin(), sides.end()) != p.area.height_m())
    losses.push_back("LM-63 has one luminous height; the largest of the four is written");
  if (p.absolute && p.lamp_flux_lm)
    losses.push_back("absolute photometry in LM-63 states no flux; it is that of the table");
  return text.take();
}

}  // namespace glow::files
