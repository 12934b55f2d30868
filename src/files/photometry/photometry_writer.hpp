#pragma once

#include <string>
#include <vector>

#include "core/photometry/photometry.hpp"

namespace glow::files {

/// IES LM-63-2002, type C, metres, CRLF. Intensities have nine significant digits. `losses` says what the
/// format cannot carry of this luminaire.
std::string write_ies(const photometry::Photometry& photometry, std::vector<std::string>& losses);

/// EULUMDAT, CRLF; intensities in cd per 1000 lm with nine significant digits, lengths to 0.1 mm.
std::string write_eulumdat(const photometry::Photometry& photometry, const std::string& file_name,
                           std::vector<std::string>& losses);

/// Indices of the table's planes that a file of the declared symmetry lists, in its order (EULUMDAT begins
/// symmetry about C90-C270 at C270). Empty when the table lacks a plane that the symmetry needs; then list
/// all.
std::vector<std::size_t> listed_planes(const photometry::Photometry& photometry, bool eulumdat);

}  // namespace glow::files
