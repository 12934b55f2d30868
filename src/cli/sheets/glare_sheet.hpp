#pragma once

#include <string>

#include "core/photometry/photometry.hpp"

namespace glow::cli {

/// The tabular UGR in short, for the data sheet: "16.2 crosswise, 18.4 endwise ...", or why there is none.
std::string ugr_words(const photometry::Photometry& photometry);
/// Largest luminance at 65 degrees and above against the limits for screens; empty for a point.
std::string screen_words(const photometry::Photometry& photometry);
/// The whole glare section: the table of CIE 190 in two blocks, utilisation factors.
std::string glare_tables(const photometry::Photometry& photometry);

}  // namespace glow::cli
