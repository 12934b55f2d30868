#pragma once

#include "core/assess/assessment.hpp"
#include "core/assess/setting.hpp"
#include "core/studies/findings.hpp"

namespace glow::studies {

/// What a scene is solved from. All must outlive the call.
struct SceneToSolve {
  const assess::Setting& setting;               ///< with what is asked in the scene
  const lighting::Lighting& lighting;           ///< what each group gives
  const lighting::Weights& planned;             ///< of groups as placed
  const std::vector<standards::Check>& checks;  ///< of what is asked, with all groups as placed
  const std::vector<double>& shares;            ///< by groups: of those that are not free
  const std::vector<char>& is_free;             ///< by groups
  const std::vector<double>& watts;             ///< by groups, all its luminaires as placed
};

struct SolvedScene {
  std::vector<double> shares;  ///< by groups
  SceneSolution solution;
};

/// Shares of the free groups that meet all binding means, minima and uniformities of grids with the least
/// power, exactly: light, and what is asked of it, are linear in them. Each is asked for with the uncertainty
/// that it has as placed on top, so that it is surely met. Where that cannot be, those that come nearest, and
/// the conditions that cannot be even alone, or a set that contradicts itself and of which any could be left
/// out.
SolvedScene least_watts(const SceneToSolve& scene);

}  // namespace glow::studies
