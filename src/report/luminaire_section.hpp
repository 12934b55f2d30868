#pragma once

#include "report/report.hpp"

namespace glow::report {

/// The schedule of all rooms; with `sheets` a data sheet of each mark whose photometry is at hand: numbers,
/// curve, and the luminaire's outline with its size.
Section luminaire_section(
    const Source& source,
    const std::map<std::string, std::shared_ptr<const photometry::Photometry>>& photometry, bool sheets);

}  // namespace glow::report
