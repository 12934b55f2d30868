#pragma once

#include <array>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/photometry/intensity_table.hpp"
#include "core/photometry/symmetry.hpp"

namespace glow::photometry {

enum class LuminousShape {
  point,
  rectangle,
  disc,
  ellipse,
  box,  ///< rectangle with luminous sides
  vertical_cylinder,
  horizontal_cylinder_c0,   ///< axis along C0-C180
  horizontal_cylinder_c90,  ///< axis along C90-C270
  sphere,                   ///< or ellipsoid
  upright_disc              ///< stands upright and faces C0
};

/// "point", "rectangle", "circle", "vertical cylinder", ...
std::string to_string(LuminousShape shape);
/// Whether the shape, seen from below, is round.
bool is_round(LuminousShape shape);

/// The part of a luminaire that the light leaves from, in metres, in the luminaire's own frame.
/// A disc has its diameter in both extents; they differ for an ellipse.
struct LuminousArea {
  LuminousShape shape = LuminousShape::point;
  double extent_c0_m = 0;   ///< along C0-C180
  double extent_c90_m = 0;  ///< along C90-C270
  /// Heights of the luminous sides seen from C0, C90, C180 and C270; 0 = a flat area.
  std::array<double, 4> side_heights_m = {0, 0, 0, 0};
  double height_m() const;  ///< the largest side
  bool operator==(const LuminousArea& o) const {
    return shape == o.shape && extent_c0_m == o.extent_c0_m && extent_c90_m == o.extent_c90_m &&
           side_heights_m == o.side_heights_m;
  }
};

/// Outer size of the luminaire, when the file states it. Round bodies have equal extents.
struct Body {
  double extent_c0_m = 0;
  double extent_c90_m = 0;
  double height_m = 0;
  bool round = false;
};

/// Everything that a photometric file tells about one luminaire, whatever its format.
/// Angles are as in the file: nothing is rotated on load.
struct Photometry {
  std::string format;   ///< "IES LM-63" or "EULUMDAT"
  std::string version;  ///< such as "IESNA:LM-63-2002"; empty where the format has none
  std::string manufacturer;
  std::string luminaire;  ///< the maker's name of it
  std::string catalogue_number;
  std::string lamp;                                           ///< description of the lamps
  std::vector<std::pair<std::string, std::string>> keywords;  ///< all of an IES file's, in order

  bool absolute = false;                   ///< true: no separate lamp flux exists
  std::optional<double> lamp_flux_lm;      ///< stated, of all lamps together
  std::optional<double> watts;             ///< of the whole luminaire, nothing when not stated
  std::optional<double> cct_k;             ///< correlated colour temperature, when stated
  std::optional<double> colour_rendering;  ///< Ra, when stated as a number

  Symmetry declared_symmetry = Symmetry::none;
  IntensityTable table;
  LuminousArea area;
  std::optional<Body> body;

  /// lm leaving the luminaire as installed: the integral of the table.
  double flux_lm() const { return table.flux(); }
};

}  // namespace glow::photometry
