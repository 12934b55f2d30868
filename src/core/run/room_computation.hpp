#pragma once

#include <algorithm>
#include <memory>
#include <string>
#include <vector>

#include "core/assess/assess.hpp"
#include "core/lighting/daylight.hpp"
#include "core/lighting/year_light.hpp"
#include "core/run/compute_room.hpp"
#include "core/run/room_pass.hpp"
#include "core/studies/energy/room_energy.hpp"

namespace glow::run {

using assess::Assessment;
using assess::GridReading;

/// A way to use the room: what shines, what is asked, and what is found. The first is that of all groups as
/// they are placed.
struct Use {
  const space::Brief* brief = nullptr;
  lighting::Weights weights;
  Assessment* found = nullptr;
  transport::FluxBalance* balance = nullptr;
  bool direct_only = false;  ///< no light counts that surfaces throw back
  lighting::SourceColours colours;
  const space::PlannedMoment* moment = nullptr;  ///< daylight shines as well
  const space::YearPlan* year = nullptr;         ///< then of all its hours, and the moment is their mean
  bool remembered = false;                       ///< found before: nothing of it is computed
};

/// A use in a pass: its light, and where that is read.
struct LitUse {
  std::unique_ptr<const assess::Setting> own_setting;  ///< where something else is asked
  const assess::Setting* setting = nullptr;
  assess::LitRoom lit;
  std::shared_ptr<const lighting::Daylight> paths;
  std::unique_ptr<const lighting::MomentLight> day;
  std::shared_ptr<const assess::Outlook> outlook;
  std::shared_ptr<const lighting::YearLight> year;
};

/// One room being computed, step by step; see compute_room.
class RoomComputation {
 public:
  RoomComputation(const model::Project& project, const space::PlannedRoom& room, const Accuracy& accuracy,
                  const Memory& memory, const Watch& watch);

  /// Nothing but pictures: where no scene has to be found, nothing is read.
  ComputedRoom look(const PictureChoice& choice);
  ComputedRoom compute(const Studies& studies);

 private:
  Pass pass(assess::ReadingPlan plan, const transport::Effort& effort);
  void solve_scenes(const Pass& first, const assess::SeenFromEyes& eyes,
                    const transport::NumericalError& placed);
  std::vector<LitUse> lit_uses(const Pass& pass);
  void add_daylight(const Pass& pass, std::vector<LitUse>& lit);
  void add_year(const Pass& pass, const space::YearPlan& plan, LitUse& use);
  void take_hours(const assess::Setting& setting, const space::YearPlan& plan, std::size_t grid,
                  std::size_t first, const Eigen::MatrixXf& lux);
  studies::GroupsInYear groups_in_year(const Pass& first) const;
  Eigen::MatrixXf electric_hours(const Pass& first, const Eigen::MatrixXf& output) const;
  void find_energy(const Pass& first);
  void read_series(const Pass& pass, std::size_t use, const lighting::Daylight& paths);
  /// Whether pictures show it: all but those on battery, of which only direct light is told, and skies that
  /// are only judged by.
  bool is_seen(std::size_t use) const {
    const bool judged = use > 0 && scenes_[use - 1].brief.daylight && !scenes_[use - 1].asks_as_room;
    return !uses_[use].direct_only && !judged && !uses_[use].year;
  }
  /// Moments that nothing is asked of are as they are found first, and so are years.
  bool is_refined(const Use& use) const {
    if (use.remembered || (use.year && !use.found->grids.empty())) return false;
    return !use.moment || accuracy_.percent || !use.found->checks.empty() || use.found->grids.empty();
  }
  void read_uses(const Pass& first, const std::vector<LitUse>& lit, const assess::SeenFromEyes& eyes,
                 const transport::NumericalError& placed);
  void read_all(const Pass& pass, const LitUse& lit, const assess::SeenFromEyes& eyes,
                const transport::NumericalError& placed, const Use& use);
  void refine(const Pass& finer, const LitUse& lit, const LitUse& first, const assess::SeenFromEyes& eyes,
              const Use& use);
  lighting::SourceColours colours_of(const std::vector<std::optional<double>>& tuned) const;
  bool tells_colour() const;
  void read_colours(const Pass& first, const std::vector<LitUse>& lit);
  void take_pictures(const Pass& first, const std::vector<LitUse>& lit, const PictureChoice& choice);
  void study(const Pass& first, const assess::SeenFromEyes& eyes, const Studies& studies);
  bool is_day_alone(const Use& use) const {
    return use.moment && std::all_of(use.weights.begin(), use.weights.end(),
                                     [](const lighting::Weight& weight) { return weight.output == 0; });
  }
  std::string key_of_days(const Pass& first) const;
  void remember_days(const std::string& key);
  void take_remembered(const Use& use);
  void keep_days(const std::string& key);
  Assessment& assessment() { return computed_.record.assessment; }

  const model::Project& project_;
  const space::PlannedRoom& room_;
  const space::Space& space_;
  const space::Brief& brief_;
  const std::vector<space::PlannedScene>& scenes_;
  const Accuracy& accuracy_;
  const Memory& memory_;
  const Watch& watch_;
  std::vector<Use> uses_;
  bool tells_colour_ = false;                 ///< in any case
  bool gives_hours_ = false;                  ///< those of years are handed on
  bool only_seen_ = false;                    ///< nothing is asked for but pictures
  std::shared_ptr<studies::DayHours> hours_;  ///< of the year; null: there is none, or nothing asks for them
  assess::TabularMemory tabular_;
  ComputedRoom computed_;
};

}  // namespace glow::run
