#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/assess/assessment.hpp"
#include "core/lighting/weights.hpp"
#include "core/transport/transport.hpp"

namespace glow::studies {

/// What one luminaire gives at the probed point; maintained, lx.
struct LuminaireShare {
  std::string mark;
  Vec3 position;  ///< middle of the luminous part
  double direct_lx = 0, interreflected_lx = 0;
  std::optional<double> cct_k = {};  ///< as stated
  double total_lx() const { return direct_lx + interreflected_lx; }
};

/// The light of one group at the probed point, and its colour there: its own, as surfaces have tinted it.
struct GroupColour {
  std::string name;
  double total_lx = 0;
  colour::Chromaticity chromaticity;
  std::optional<colour::Temperature> temperature;  ///< nothing: too far from the Planckian locus
};

/// The colour of the mixture and of what each group gives of it, largest first; of groups whose colour is
/// stated.
struct ProbedColour {
  assess::PointColour mixture;
  std::vector<GroupColour> groups;
};

/// Light at one point of a room, maintained.
struct ProbeResult {
  double direct_lx = 0, interreflected_lx = 0;
  double uncertainty_lx = 0;               ///< half width of the 95 % interval of the total
  std::vector<LuminaireShare> luminaires;  ///< largest first
  std::optional<ProbedColour> colour;      ///< nothing: no luminaire states its own
  std::optional<assess::MisplacedPoint>
      misplaced;  ///< the point cannot be lit as it stands; nothing else counts
  double total_lx() const { return direct_lx + interreflected_lx; }
};

/// Every luminaire is a relight of its own on one transport. Throws Cancelled.
ProbeResult probe(const space::Space& space, const lighting::Weights& weights,
                  const readings::Receiver& point, const transport::Effort& effort, const Watch& watch);

}  // namespace glow::studies
