#pragma once

#include "core/run/arrange_room.hpp"

namespace glow::run {

/// What candidates are ordered by: less is better of each.
enum class RankBy { watts, luminaires, cost, glare, power };

/// A luminaire that is weighed against others.
struct Candidate {
  std::string file;
  std::shared_ptr<const photometry::Photometry> photometry;
  std::optional<double> price;
};

/// A candidate with its own best arrangement.
struct RankedCandidate {
  std::size_t candidate = 0;  ///< number in the list
  studies::Arrangement found;
  std::optional<double>
      w_per_m2_100lx;  ///< of the best, by the mean of the first grid that a mean is asked of
  std::optional<double> cost;

  bool meets() const { return found.best.has_value(); }
};

/// All candidates, each arranged in the room in which only what stays is placed; those that meet all checks
/// come first, in the order asked for, the others by how near they come. `wish`: of one and all; its base has
/// the mark of none. `light` of places and sight lines are shared. Throws Cancelled.
std::vector<RankedCandidate> rank_luminaires(const model::Project& project, const model::Room& room,
                                             const std::vector<Candidate>& candidates,
                                             const studies::ArrangementWish& wish, RankBy by,
                                             const std::vector<standards::RequirementTable>& standards,
                                             const Accuracy& accuracy, TransportStore* store,
                                             const Watch& watch);

}  // namespace glow::run
