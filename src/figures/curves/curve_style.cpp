#include "figures/curves/curve_style.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/photometry/derived.hpp"

namespace glow::figures {
namespace {

// Slate, terracotta, moss, plum, ochre, teal, rust, sky, rose, olive, ink, sand: apart in lightness as well
// as in hue.
constexpr const char* kCurveColours[] = {"#2f4b7c", "#c1562f", "#5c7a29", "#7b3f73", "#b98a12", "#1f7a78",
                                         "#7a2b16", "#5b9bd0", "#d07a94", "#3d4a12", "#15151f", "#a08a6a"};
constexpr std::size_t kColourCount = 12;
constexpr double kLegendEnd = 780;  // px

std::string first_letters(const std::string& text, std::size_t most) {
  if (text.size() <= most) return text;
  std::size_t end = most - 1;
  while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80) --end;  // not inside a letter
  return text.substr(0, end) + "...";
}

std::string angle_words(const std::optional<photometry::BeamEdges>& edges) {
  return edges ? fmt::format(FMT_STRING("{:.1f}\u00b0"), edges->width_deg()) : std::string("-");
}

}  // namespace

std::vector<PlaneCurve> plane_curves(const std::vector<Curve>& curves,
                                     const std::vector<double>& more_planes) {
  std::vector<PlaneCurve> lines;
  for (std::size_t i = 0; i < curves.size(); ++i) {
    std::vector<double> planes = {0};
    if (!curves[i].photometry->table.rotational()) {
      planes.push_back(90);
      planes.insert(planes.end(), more_planes.begin(), more_planes.end());
    }
    for (std::size_t k = 0; k < planes.size(); ++k) {
      const std::size_t colour = curves.size() == 1 ? k : i;
      lines.push_back({i, planes[k], kCurveColours[colour % kColourCount],
                       k == 0   ? ""
                       : k == 1 ? "8 5"
                                : "2 4"});
    }
  }
  return lines;
}

double scale_factor(const photometry::Photometry& photometry, bool per_klm) {
  if (!per_klm || !photometry.lamp_flux_lm || *photometry.lamp_flux_lm <= 0) return 1;
  return 1000 / *photometry.lamp_flux_lm;
}

const char* scale_unit(bool per_klm) {
  return per_klm ? "cd/klm" : "cd";
}

double round_step(double largest, int steps) {
  const double power = std::pow(10.0, std::floor(std::log10(largest / steps)));
  for (const double factor : {1.0, 2.0, 2.5, 5.0})
    if (factor * power >= largest / steps) return factor * power;
  return 10 * power;
}

void draw_title(SvgCanvas& canvas, const std::vector<Curve>& curves, const std::string& below) {
  const photometry::Photometry& first = *curves.front().photometry;
  std::string title = curves.size() > 1         ? fmt::format(FMT_STRING("{} luminaires"), curves.size())
                      : first.luminaire.empty() ? curves.front().name
                                                : first.luminaire;
  canvas.text({24, 40}, first_letters(title, 60), {24, "start", kSheetInk, true});
  const std::string maker =
      curves.size() > 1 || first.manufacturer.empty() ? "" : first.manufacturer + " \u00b7 ";
  canvas.text({24, 66}, maker + below, {14, "start", kSheetGrey});
}

namespace {

/// Of many luminaires: a line each, as long as there is room, the rest counted.
double draw_brief_legend(SvgCanvas& canvas, const std::vector<Curve>& curves,
                         const std::vector<PlaneCurve>& lines, double x, double y) {
  constexpr double kLegendLine = 36, kLeastLegendLine = 22;
  const double step =
      std::clamp((kLegendEnd - 60 - y) / double(curves.size()), kLeastLegendLine, kLegendLine);
  for (std::size_t i = 0; i < curves.size(); ++i) {
    if (y + step > kLegendEnd - 40) {
      canvas.text({x, y}, fmt::format(FMT_STRING("and {} more"), curves.size() - i),
                  {12.5, "start", kSheetGrey});
      y += kLeastLegendLine;
      break;
    }
    const auto first =
        std::find_if(lines.begin(), lines.end(), [&](const PlaneCurve& line) { return line.luminaire == i; });
    canvas.path(path_data({{x, y - 4}, {x + 28, y - 4}}), "none", first->colour.c_str(), 2.4);
    canvas.text({x + 38, y}, fitted_text(curves[i].name, kSheetWidth - x - 48, 13, true),
                {13, "start", kSheetInk, true});
    const photometry::Photometry& p = *curves[i].photometry;
    if (step >= kLegendLine - 2)
      canvas.text({x + 38, y + 15},
                  fmt::format(FMT_STRING("{:.0f} lm, half peak {}"), p.flux_lm(),
                              angle_words(beam_edges(p.table, 0, 0.5))),
                  {11.5, "start", kSheetGrey});
    y += step;
  }
  canvas.text({x, y + 8}, "full: C0 - C180, dashed: C90 - C270", {12, "start", kSheetGrey});
  return y + 20;
}

}  // namespace

double draw_legend(SvgCanvas& canvas, const std::vector<Curve>& curves, const std::vector<PlaneCurve>& lines,
                   double x, double y) {
  const double whole = 56 * double(curves.size()) + 38 * double(lines.size());
  if (y + whole > kLegendEnd) return draw_brief_legend(canvas, curves, lines, x, y);
  for (std::size_t i = 0; i < curves.size(); ++i) {
    const photometry::Photometry& p = *curves[i].photometry;
    canvas.text({x, y}, first_letters(curves[i].name, 38), {13.5, "start", kSheetInk, true});
    canvas.text({x, y + 18},
                fmt::format(FMT_STRING("{:.0f} lm{}"), p.flux_lm(),
                            p.watts ? fmt::format(FMT_STRING(", {:g} W, {:.0f} lm/W"), *p.watts,
                                                  p.flux_lm() / *p.watts)
                                    : std::string()),
                {12.5, "start", kSheetGrey});
    y += 42;
    for (const PlaneCurve& line : lines) {
      if (line.luminaire != i) continue;
      canvas.path(path_data({{x, y - 4}, {x + 40, y - 4}}), "none", line.colour.c_str(), 2.4,
                  line.dash.empty() ? nullptr : line.dash.c_str());
      const std::string plane = p.table.rotational() ? "all planes"
                                                     : fmt::format(FMT_STRING("C{:g} - C{:g}"), line.c_deg,
                                                                   std::fmod(line.c_deg + 180, 360));
      canvas.text({x + 50, y}, plane, {12.5, "start", kSheetInk});
      canvas.text(
          {x + 50, y + 16},
          fmt::format(FMT_STRING("half peak {}, tenth {}"), angle_words(beam_edges(p.table, line.c_deg, 0.5)),
                      angle_words(beam_edges(p.table, line.c_deg, 0.1))),
          {12, "start", kSheetGrey});
      y += 38;
    }
    y += 14;
  }
  return y;
}

void draw_body(SvgCanvas& canvas, const photometry::Photometry& photometry, const Vec2& centre, double size) {
  const photometry::LuminousArea& area = photometry.area;
  // As in a plan: C0 to the right, C90 up.
  const double largest = std::max({area.extent_c0_m, area.extent_c90_m, 1e-6});
  const double room = size * 0.55;
  const Vec2 half(std::max(2.0, room * area.extent_c0_m / largest / 2),
                  std::max(2.0, room * area.extent_c90_m / largest / 2));
  if (area.shape == photometry::LuminousShape::point) {
    canvas.circle(centre, 4, kSheetInk, kSheetInk);
  } else if (is_round(area.shape)) {
    canvas.circle(centre, half.x(), "#fff6d8", kSheetInk, 1.5);
  } else {
    canvas.rectangle(centre - half, 2 * half, "#fff6d8", kSheetInk, 1.5);
  }
  const double reach = size / 2 - 6;
  canvas.line(centre, centre + Vec2(reach, 0), kSheetInk, 1.2);
  canvas.line(centre, centre - Vec2(0, reach), kSheetInk, 1.2);
  canvas.text(centre + Vec2(reach + 6, 4), "C0", {12, "start", kSheetInk});
  canvas.text(centre - Vec2(0, reach + 6), "C90", {12, "middle", kSheetInk});
  const std::string measures =
      area.shape == photometry::LuminousShape::point
          ? std::string("point")
          : fmt::format(FMT_STRING("{}, {:g} x {:g} x {:g} m"), to_string(area.shape), area.extent_c0_m,
                        area.extent_c90_m, area.height_m());
  canvas.text(centre + Vec2(0, size / 2 + 4), measures, {12, "middle", kSheetGrey});
  canvas.text(centre + Vec2(0, size / 2 + 20), "luminous area, from above", {11, "middle", kSheetGrey});
}

}  // namespace glow::figures
