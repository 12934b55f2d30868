#pragma once

#include <functional>

#include "core/lighting/daylight.hpp"
#include "core/space/times/year_plan.hpp"

namespace glow::lighting {

/// The daylight of all hours of a year at a transport's receivers. Every hour's sky and ground are weighted
/// sums of coefficients, which hold what surfaces inside and outside throw back; the sun is followed at its
/// true place in every hour, straight to the receivers and onto the surfaces. Blinds are down in the hours
/// that their rule says.
///
/// Openings that blinds hang at are computed with and without them, those of one state together; a blind is
/// seen by its own openings only.
class YearLight {
 public:
  /// All must outlive it. `rule_points`: receivers that the blinds' rule counts. Throws Cancelled.
  YearLight(const space::Space& space, const transport::Transport& transport, const space::YearPlan& plan,
            const std::vector<std::size_t>& rule_points, const Watch& watch);
  ~YearLight();

  /// lx of some receivers, a row each, by the hours of the plan.
  struct Hours {
    Eigen::MatrixXf open;  ///< no blinds are down
    Eigen::MatrixXf used;  ///< as the rule moves them; empty: there are none
    Eigen::MatrixXf sun;   ///< straight, with no blinds down
    const Eigen::MatrixXf& as_used() const { return used.size() > 0 ? used : open; }
  };
  /// Of not more than kTogether receivers: memory does not grow with their number.
  Hours at(const std::vector<std::size_t>& receivers, const Watch& watch) const;
  static constexpr std::size_t kTogether = 512;

  /// The mean over the hours of use, dark ones too, at all receivers and patches, as a moment's light.
  MomentLight mean(const Watch& watch) const;
  /// Hours of use in which blinds are down, by the states of the plan's rule.
  const std::vector<int>& hours_down() const { return hours_down_; }
  /// Whether anything moves at openings of this room.
  bool has_blinds() const;

 private:
  class Part;
  Eigen::MatrixXf skies(double ground_reflectance, const Watch& watch) const;
  Eigen::MatrixXf reach(const std::vector<std::size_t>& receivers, const Watch& watch) const;

  const transport::Transport* transport_;
  const space::YearPlan* plan_;
  std::unique_ptr<const transport::PatchResponse> response_;
  std::vector<std::unique_ptr<const Part>> parts_;   ///< openings without blinds, then each state's
  std::vector<std::unique_ptr<const Part>> closed_;  ///< null for the first
  std::vector<std::vector<char>> down_;              ///< by parts and hours
  std::vector<int> hours_down_;
  Eigen::MatrixXf outside_;  ///< cd/m2 of sky patches and ground, by hours
};

}  // namespace glow::lighting
