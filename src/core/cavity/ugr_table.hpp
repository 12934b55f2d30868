#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/cavity/utilisation.hpp"

namespace glow::cavity {

/// Which of the luminaire's planes the line of sight lies in.
enum class Sight {
  along_c0,  ///< C0-C180: crosswise for a luminaire whose long axis lies along C90-C270
  along_c90  ///< C90-C270: endwise for it
};

/// A room of the tabular method, in heights of the luminaires above the eye: `x` across the line of sight,
/// `y` along it.
struct TableRoom {
  double x, y;
};

/// Uncorrected UGR by the tabular method of CIE 190:2010 (CIE 117:1995, 5): 1000 lm of lamp flux a luminaire,
/// spacing 0.25 of the height above the eye, eye in the middle of a wall, looking level at the wall opposite.
/// Details that are told in different ways, and what is taken here, are in docs/glare.md.
struct UgrTable {
  static const std::vector<TableRoom>& rooms();            ///< nineteen
  static const std::vector<Reflectances>& reflectances();  ///< five
  std::vector<std::vector<double>> along_c0, along_c90;    ///< [room][set]; NaN where no source is seen
};
UgrTable ugr_table(const photometry::Photometry& photometry);

/// What a data sheet says first: corrected values at 4H x 8H and 70/50/20.
struct UgrHeadline {
  double along_c0 = 0, along_c90 = 0;
  double lamp_flux_lm = 0;  ///< that they are for
  double correction = 0;    ///< 8 lg(flux / 1000 lm), added
  bool symmetric = true;    ///< about both planes; else the worse of both ways of looking is taken
};
UgrHeadline ugr_headline(const photometry::Photometry& photometry);
/// Whether both ways of looking along each main axis have the same values, as the method wants.
bool has_one_ugr_table(const photometry::IntensityTable& table);

/// Why the method does not hold for a luminaire.
enum class NoTable { no_luminous_size, no_luminous_width, no_light_downwards };
/// "the file states no luminous size", ...
std::string to_string(NoTable reason);
/// Nothing when it holds.
std::optional<NoTable> no_ugr_table(const photometry::Photometry& photometry);

/// Uncorrected values for a room of any proportions, one for each set of reflectances; NaN as above.
/// `ratio_index`: with the other published formula of the position index, all sources in front counted.
std::vector<double> tabular_ugr(const photometry::Photometry& photometry, const TableRoom& room, Sight sight,
                                const std::vector<Reflectances>& sets, bool ratio_index = false);

/// 8 lg(flux / 1000 lm): lamp flux, or the luminaire's where its photometry is absolute.
double flux_correction(const photometry::Photometry& photometry);

}  // namespace glow::cavity
