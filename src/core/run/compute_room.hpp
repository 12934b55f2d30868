#pragma once

#include <optional>
#include <string>

#include "core/assess/room_result.hpp"
#include "core/model/maintenance.hpp"

namespace glow::run {

/// How surely a room is to be known.
struct Accuracy {
  transport::Effort effort;       ///< to begin with
  std::optional<double> percent;  ///< wanted for means (95 %); three times as much is allowed for minima
  int most_refinements = 2;       ///< each with twice the patches and four times the rays

  /// "draft", "normal", "fine", or a number of per cent from 0.1 to 20; nothing when it is none of these.
  static std::optional<Accuracy> parse(const std::string& words);
};

/// Keeps traced hits for later; may forget and may fail, in silence.
class TransportStore {
 public:
  virtual ~TransportStore() = default;
  virtual std::optional<transport::TracedHits> find(const std::string& key) = 0;
  virtual void keep(const std::string& key, const transport::TracedHits& hits) = 0;
};

/// What to do beyond computing and verifying.
struct Studies {
  std::optional<model::ToleranceWish> spread;
};

/// Computes one room; refines while a check is undecided or the accuracy is not reached. `space` must outlive
/// the result; `store` may be null. Throws Cancelled.
assess::RoomResult compute_room(const space::Space& space, const Accuracy& accuracy, TransportStore* store,
                        const Watch& watch, const Studies& studies = {});

}  // namespace glow::run
