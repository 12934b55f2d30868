#pragma once

#include <string>
#include <vector>

#include "core/assess/daylight/outlook.hpp"
#include "core/assess/glare/glare_origins.hpp"
#include "core/assess/reading_plan.hpp"
#include "core/lighting/daylight.hpp"
#include "core/lighting/lighting.hpp"

namespace glow::assess {

/// A room as it can be read: the space, what is asked of it, and a transport to the receivers of a plan. Made
/// once for a pass and shared by all that ask what some light comes to there. All that it is made of must
/// outlive it.
class Setting {
 public:
  Setting(const space::Space& space, const space::Brief& brief, const ReadingPlan& plan,
          const transport::Transport& transport);

  /// Receivers that a grid's demands are held against: all that can be read, or, of walls and ceiling, those
  /// that keep the standard's border from the edges (all where none does).
  struct JudgedPoints {
    std::vector<std::size_t> receivers;
    double border_m = 0;
  };

  /// What it was made of.
  const space::Space& space() const { return *space_; }
  const space::Brief& brief() const { return *brief_; }
  const ReadingPlan& plan() const { return *plan_; }
  const transport::Transport& transport() const { return *transport_; }
  /// What a receiver lies in, by name ("" : outside the room); null: it can be read.
  const std::string* misplaced(std::size_t receiver) const {
    return lies_in_.empty() || !is_misplaced_[receiver] ? nullptr : &lies_in_[receiver];
  }
  /// By grids; empty for those that are not read.
  const std::vector<std::vector<std::size_t>>& readable() const { return readable_; }
  /// By grids; empty for those that are not read.
  const std::vector<JudgedPoints>& judged() const { return judged_; }
  /// Whether an eye looks at the inside of something in one direction.
  bool is_buried(std::size_t set, std::size_t position) const { return buried_[set][position]; }
  /// Receivers that some demand hangs on: points of grids that are judged, and the eyes that are read.
  transport::ReceiverChoice that_count() const;

 private:
  void find_judged(std::size_t grid);

  const space::Space* space_;
  const space::Brief* brief_;
  const ReadingPlan* plan_;
  const transport::Transport* transport_;
  std::vector<bool> is_misplaced_;
  std::vector<std::string> lies_in_;
  std::vector<std::vector<std::size_t>> readable_;
  std::vector<JudgedPoints> judged_;
  std::vector<std::vector<bool>> buried_;
};

/// What shines in a room, and the light that it gives.
struct LitRoom {
  const std::vector<space::LuminaireGroup>* groups = nullptr;  ///< the space's own, or others in their place
  lighting::Weights weights;                                   ///< of each group
  lighting::RoomLight light;                                   ///< at the receivers of the setting
  const lighting::MomentLight* day = nullptr;                  ///< of a moment, already in the light
  const space::PlannedMoment* moment = nullptr;                ///< likewise
  const Outlook* outlook = nullptr;                            ///< sun and view, where they are asked for
  const lighting::Daylight* paths = nullptr;  ///< how the moment's daylight comes in; null: of a year
};

}  // namespace glow::assess
