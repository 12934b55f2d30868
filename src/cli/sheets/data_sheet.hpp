#pragma once

#include <string>
#include <vector>

#include "files/photometry/inspection_json.hpp"

namespace glow::cli {

/// What a photometric file holds, for people: at most 80 columns.
std::string data_sheet(const files::Inspection& inspection, const std::vector<files::Direction>& directions,
                       bool tables);

/// A line for each file: flux, watts, lm/W, beam angles, Ra, colour temperature, tabular UGR at 4H x 8H
/// (the worse way of looking), kind of distribution; findings counted.
std::string data_table(const std::vector<files::Inspection>& inspections);

}  // namespace glow::cli
