#pragma once

#include <filesystem>
#include <optional>
#include <string>

#include "core/problems/problems.hpp"
#include "core/views/picture.hpp"

namespace glow::files {

/// A picture as an OpenEXR file, in absolute units, compressed without loss.
///
/// Channels of the picture in one use, for whoever opens it elsewhere, 32 bit floats: R, G, B (linear sRGB,
/// whose luminance is cd/m2), luminance (cd/m2), illuminance (lx), Z (m), surface (number among the names in
/// the attribute); and normal.X, normal.Y, normal.Z, 16 bit.
/// And for this program, 16 bit, source by source at full output as new: source0.luminance and
/// source0.illuminance in units of 100 cd/m2 and 100 lx, up to 6.55 million of which are kept; source0.band0
/// to 2, shares of the luminance in bands of white light. What they are, and the ways to use them, is the
/// attribute "glowgrid.picture", as JSON.
///
/// Throws std::runtime_error where it cannot be written.
void write_exr(const views::Picture& picture, const views::PictureUse& use,
               const std::filesystem::path& file);

/// Reads a picture back. Nothing, and a fault, where the file is none of this program's, or is damaged.
std::optional<views::Picture> read_exr(const std::filesystem::path& file, Problems& problems);

}  // namespace glow::files
