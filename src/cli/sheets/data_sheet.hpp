#pragma once

#include <string>
#include <vector>

#include "files/photometry/inspection_json.hpp"

namespace glow::cli {

/// What a photometric file holds, for people: at most 80 columns.
std::string data_sheet(const files::Inspection& inspection, const std::vector<files::Direction>& directions,
                       bool tables);

}  // namespace glow::cli
