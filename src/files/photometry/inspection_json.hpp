#pragma once

#include <memory>
#include <string>
#include <vector>

#include "core/photometry/photometry.hpp"
#include "core/problems/problems.hpp"

namespace glow::files {

/// A direction asked for with --at.
struct Direction {
  double c_deg = 0, gamma_deg = 0;
};

/// One file as it was looked at: refused ones have findings and no photometry.
struct Inspection {
  std::string file;
  std::shared_ptr<const photometry::Photometry> photometry;
  std::vector<Problem> findings;
};

/// {"files": [...]} as described in docs/photometric-files.md. `tables`: the whole table of UGR and the
/// utilisation factors, not only the headline values.
std::string inspection_json(const std::vector<Inspection>& files, const std::vector<Direction>& directions,
                            bool tables);

}  // namespace glow::files
