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

/// Arranges candidates, each by itself, in a room in which only what stays is placed. Light of places and
/// sight lines are found once for all. `wish`: of one and all; its base has the mark of none.
class Ranker {
 public:
  /// Room and candidates must outlive it, as `watch`'s `cancel`. Throws Cancelled.
  Ranker(const model::Project& project, const model::Room& room, const std::vector<Candidate>& candidates,
         const studies::ArrangementWish& wish, const std::vector<standards::RequirementTable>& standards,
         const Accuracy& accuracy, TransportStore* store, const Watch& watch);
  ~Ranker();

  /// May be called from any thread. Throws Cancelled.
  RankedCandidate rank(std::size_t candidate) const;

 private:
  struct Looked;  ///< the room, looked at once

  model::Project project_;  ///< that each candidate is added to
  const model::Room& room_;
  const std::vector<Candidate>& candidates_;
  studies::ArrangementWish wish_;
  Watch quiet_;
  std::unique_ptr<Looked> looked_;
};

/// Those that meet all checks first, in the order asked for, the others by how near they come.
void put_in_order(std::vector<RankedCandidate>& list, RankBy by);

}  // namespace glow::run
