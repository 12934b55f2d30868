#pragma once

#include <string>
#include <vector>

#include "core/photometry/photometry.hpp"
#include "core/problems/problems.hpp"

namespace glow::files {

/// What a reader knows beside the photometry itself, for judging it.
struct FileClaims {
  std::string file;
  int flux_line = 0;        ///< where the lamps' flux stands
  int size_line = 0;        ///< where the luminous size stands
  int ratio_line = 0;       ///< where the light output ratio stands
  double output_ratio = 0;  ///< stated light output ratio, 0..1; 0 = not stated
};

/// Warnings about values that contradict each other or cannot be meant: flux against the table, sizes in
/// another unit.
void judge(const photometry::Photometry& photometry, const FileClaims& claims, Problems& problems);

/// Warnings about planes that should agree: the first and the last of a full circle, and all of them at gamma
/// 0 and 180. candela[plane * gamma_deg.size() + g] of the listed planes.
void judge_planes(const std::vector<double>& c_deg, const std::vector<double>& gamma_deg,
                  const std::vector<double>& candela, const Place& place, Problems& problems);

}  // namespace glow::files
