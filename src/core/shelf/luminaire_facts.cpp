#include "core/shelf/luminaire_facts.hpp"

#include <algorithm>
#include <cmath>

#include "core/cavity/ugr_table.hpp"

namespace glow::shelf {
namespace {

using photometry::LuminousShape;
using photometry::Photometry;
using units::Dimension;

constexpr double kBeam = 0.5, kField = 0.1;  // of the peak
constexpr double kSquare = 1.1, kLong = 4;   // length over width: below, and from

std::optional<double> width_of(const Photometry& p, double c_deg, double share) {
  const auto edges = photometry::beam_edges(p.table, c_deg, share);
  return edges ? std::optional(edges->width_deg()) : std::nullopt;
}

std::optional<double> tabular_glare(const Photometry& p) {
  if (cavity::no_ugr_table(p)) return std::nullopt;
  const cavity::UgrHeadline headline = cavity::ugr_headline(p);
  const double worst = std::max(headline.along_c0, headline.along_c90);
  return std::isfinite(worst) ? std::optional(worst) : std::nullopt;
}

std::optional<double> efficacy_of(const Photometry& p) {
  return p.watts && *p.watts > 0 ? std::optional(p.flux_lm() / *p.watts) : std::nullopt;
}

}  // namespace

const std::array<MeasureWords, kMeasures>& measures() {
  static const std::array<MeasureWords, kMeasures> list = {{
      {Measure::flux, "flux", "flux_lm", Dimension::flux, "luminous flux as installed"},
      {Measure::watts, "watts", "watts_w", Dimension::power, "power of the luminaire"},
      {Measure::efficacy, "efficacy", "efficacy_lm_w", Dimension::efficacy, "flux over power"},
      {Measure::beam_c0, "beam", "beam_c0_deg", Dimension::angle,
       "beam angle (half the peak), in both planes"},
      {Measure::beam_c90, "beam", "beam_c90_deg", Dimension::angle, ""},
      {Measure::field_c0, "field", "field_c0_deg", Dimension::angle,
       "field angle (a tenth of the peak), in both planes"},
      {Measure::field_c90, "field", "field_c90_deg", Dimension::angle, ""},
      {Measure::cct, "cct", "cct_k", Dimension::temperature, "correlated colour temperature"},
      {Measure::colour_rendering, "ra", "colour_rendering", Dimension::number, "colour rendering Ra"},
      {Measure::glare, "ugr", "ugr_4h_8h", Dimension::number,
       "UGR by table at 4H x 8H, 70/50/20, the worse sight"},
      {Measure::luminance, "luminance", "luminance_above_65_cd_m2", Dimension::luminance,
       "largest mean luminance from 65 deg on"},
      {Measure::uplight, "uplight", "upward_share", Dimension::ratio, "share of the light that goes up"},
      {Measure::spacing_c0, "spacing", "spacing_to_height_c0", Dimension::number,
       "largest spacing over height, along both planes"},
      {Measure::spacing_c90, "spacing", "spacing_to_height_c90", Dimension::number, ""},
      {Measure::peak, "peak", "peak_cd", Dimension::number, "largest intensity, cd"},
      {Measure::length, "length", "length_m", Dimension::length, "longer side of the luminous area"},
      {Measure::width, "width", "width_m", Dimension::length, "shorter side of the luminous area"},
  }};
  return list;
}

LuminaireFacts facts_of(const Photometry& p) {
  LuminaireFacts facts{p.manufacturer,
                       p.luminaire,
                       p.catalogue_number,
                       p.lamp,
                       photometry::kind_of_distribution(p.table),
                       photometry::light_kind(p.table),
                       p.area.shape,
                       p.table.rotational(),
                       {}};
  const auto set = [&](Measure measure, std::optional<double> value) {
    facts.values[std::size_t(measure)] = value;
  };
  set(Measure::flux, p.flux_lm());
  set(Measure::watts, p.watts);
  set(Measure::efficacy, efficacy_of(p));
  set(Measure::beam_c0, width_of(p, 0, kBeam));
  set(Measure::beam_c90, width_of(p, 90, kBeam));
  set(Measure::field_c0, width_of(p, 0, kField));
  set(Measure::field_c90, width_of(p, 90, kField));
  set(Measure::cct, p.cct_k);
  set(Measure::colour_rendering, p.colour_rendering);
  set(Measure::glare, tabular_glare(p));
  set(Measure::luminance, photometry::max_luminance_above_65(p));
  set(Measure::uplight, p.table.upward_flux() / p.flux_lm());
  set(Measure::spacing_c0, photometry::spacing_criterion(p.table, 0));
  set(Measure::spacing_c90, photometry::spacing_criterion(p.table, 90));
  set(Measure::peak, p.table.peak().candela);
  if (p.area.shape != LuminousShape::point) {
    set(Measure::length, std::max(p.area.extent_c0_m, p.area.extent_c90_m));
    set(Measure::width, std::min(p.area.extent_c0_m, p.area.extent_c90_m));
  }
  return facts;
}

std::vector<std::string> shape_names(const LuminaireFacts& facts) {
  if (facts.shape == LuminousShape::point) return {"point"};
  if (facts.shape == LuminousShape::upright_disc) return {"round", "upright"};
  if (photometry::is_round(facts.shape)) return {"round"};
  const double length = facts[Measure::length].value_or(0), width = facts[Measure::width].value_or(0);
  std::vector<std::string> names = {"rectangle"};
  if (length < kSquare * width) names.emplace_back("square");
  if (length >= kLong * width) names.emplace_back("long");
  return names;
}

const std::vector<std::string>& all_shape_names() {
  static const std::vector<std::string> names = {"point", "round", "rectangle", "square", "long", "upright"};
  return names;
}

}  // namespace glow::shelf
