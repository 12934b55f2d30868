#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/photometry/derived.hpp"
#include "core/units/quantity.hpp"

namespace glow::shelf {

/// Numbers that luminaires are searched by; several may be one quantity in two planes.
enum class Measure {
  flux,
  watts,
  efficacy,
  beam_c0,
  beam_c90,
  field_c0,
  field_c90,
  cct,
  colour_rendering,
  glare,
  luminance,
  uplight,
  spacing_c0,
  spacing_c90,
  peak,
  length,
  width
};
inline constexpr std::size_t kMeasures = std::size_t(Measure::width) + 1;

struct MeasureWords {
  Measure measure;
  const char* key;     ///< of options: "beam", for both planes
  const char* column;  ///< of tables for programs, with its unit: "beam_c0_deg"
  units::Dimension dimension;
  const char* about;  ///< "beam angle in C0-C180 and in C90-C270, between halves of the peak"
};
/// All of them, in the order of the enumeration.
const std::array<MeasureWords, kMeasures>& measures();

/// What a catalogue tells of a luminaire. All numbers are those of photometry/derived and the tabular method:
/// lm as installed, W, lm/W, degrees, K, UGR at 4H x 8H and 70/50/20 (the worse way of looking), the largest
/// cd/m2 from 65 degrees on, the share that goes up, spacing over height, cd, m. Length is the longer side of
/// the luminous area. Nothing where the file does not state it or the method does not hold.
struct LuminaireFacts {
  std::string maker, name, catalogue_number, lamp;
  std::string distribution;  ///< "direct, wide beam"
  photometry::LightKind kind = photometry::LightKind::direct;
  photometry::LuminousShape shape = photometry::LuminousShape::point;
  bool rotational = false;  ///< the same in all planes
  std::array<std::optional<double>, kMeasures> values;

  const std::optional<double>& operator[](Measure measure) const { return values[std::size_t(measure)]; }
};

/// Of another release these are other numbers: what was kept of them is then found anew.
inline constexpr int kFactsRelease = 1;

LuminaireFacts facts_of(const photometry::Photometry& photometry);

/// What the luminous area may be called: "point"; "round"; "rectangle", and "square" or "long" where it is
/// one, its sides alike to a tenth or one four times the other; with "upright" for what faces sideways.
std::vector<std::string> shape_names(const LuminaireFacts& facts);
/// All the names that there are.
const std::vector<std::string>& all_shape_names();

/// A photometric file that could be read.
struct Entry {
  std::string file;  ///< as it was named, or found below a folder that was
  LuminaireFacts facts;
  std::size_t findings = 0;  ///< doubts about it
};

}  // namespace glow::shelf
