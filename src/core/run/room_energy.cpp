// What hours of the year are kept for, and the room's energy.
#include "core/assess/judge.hpp"
#include "core/run/room_computation.hpp"

namespace glow::run {
namespace {

constexpr Eigen::Index kMostPlaces = 240;  // of the plane, where sensors may go

std::vector<int> numbers_of(const space::YearPlan& plan) {
  std::vector<int> numbers;
  for (const space::YearHour& hour : plan.hours) numbers.push_back(hour.number);
  return numbers;
}

}  // namespace

/// For files that hold them all, and for energy: points, and places all over the plane.
void RoomComputation::take_hours(const assess::Setting& setting, const space::YearPlan& plan,
                                 std::size_t grid, std::size_t first, const Eigen::MatrixXf& lux) {
  if (gives_hours_ && grid != assess::ReadingPlan::kNone) {
    if (first == 0)
      computed_.hours.push_back({space_.grids[grid].name, numbers_of(plan),
                                 Eigen::MatrixXf(Eigen::Index(setting.readable()[grid].size()), lux.cols())});
    computed_.hours.back().lux.middleRows(Eigen::Index(first), lux.rows()) = lux;
  }
  if (!room_.energy && plan.times.empty()) return;
  if (!hours_) {
    hours_ = std::make_shared<studies::DayHours>();
    hours_->hours = numbers_of(plan);
    hours_->points.resize(space_.points.size());
  }
  if (grid == assess::ReadingPlan::kNone) {
    hours_->points[first] = lux.row(0);
    return;
  }
  if (assess::blind_rule_points(setting) != setting.readable()[grid]) return;
  const auto& receivers = setting.readable()[grid];
  const Eigen::Index step = std::max<Eigen::Index>(1, Eigen::Index(receivers.size()) / kMostPlaces);
  for (Eigen::Index r = 0; r < lux.rows(); ++r) {
    if ((Eigen::Index(first) + r) % step != 0) continue;
    hours_->plane.conservativeResize(hours_->plane.rows() + 1, lux.cols());
    hours_->plane.row(hours_->plane.rows() - 1) = lux.row(r);
    const std::size_t receiver = receivers[first + std::size_t(r)];
    hours_->plane_receivers.push_back(receiver);
    hours_->plane_points.push_back(setting.transport().receivers()[receiver].position);
  }
}

/// What groups take and give on the work plane as they are set.
studies::GroupsInYear RoomComputation::groups_in_year(const Pass& first) const {
  studies::GroupsInYear groups;
  const std::vector<std::size_t> plane = assess::blind_rule_points(*first.setting);
  for (std::size_t g = 0; g < space_.groups.size(); ++g) {
    const record::GroupRecord& group = computed_.record.groups[g];
    groups.watts.push_back(
        group.watts_w ? std::optional(*group.watts_w * double(group.positions.size()) * group.weight.output)
                      : std::nullopt);
    double sum = 0;
    for (const std::size_t r : plane) sum += first.lighting->sources()[g].total_lx(r);
    groups.mean_lx.push_back(plane.empty() ? 0 : group.weight.maintained() * sum / double(plane.size()));
  }
  for (const record::SceneRecord& scene : computed_.record.scenes)
    groups.scene_shares.push_back(scene.shares);
  return groups;
}

/// What groups give at the places of the plane, by hours of the year.
Eigen::MatrixXf RoomComputation::electric_hours(const Pass& first, const Eigen::MatrixXf& output) const {
  if (output.size() == 0 || !hours_) return {};
  Eigen::MatrixXf at(hours_->plane.rows(), output.rows());
  for (Eigen::Index place = 0; place < at.rows(); ++place)
    for (Eigen::Index g = 0; g < at.cols(); ++g)
      at(place, g) = float(
          computed_.record.groups[std::size_t(g)].weight.maintained() *
          first.lighting->sources()[std::size_t(g)].total_lx(hours_->plane_receivers[std::size_t(place)]));
  return at * output;
}

void RoomComputation::find_energy(const Pass& first) {
  Eigen::MatrixXf output;
  if (room_.energy) {
    studies::EnergyOfYear year =
        studies::room_energy(*room_.energy, space_, groups_in_year(first), hours_.get());
    computed_.record.energy = std::move(year.energy);
    output = std::move(year.output);
  }
  for (const space::PlannedScene& scene : scenes_)
    if (scene.year && hours_)
      computed_.record.times = studies::at_times(scene.year->times, *hours_, electric_hours(first, output));
  if (!room_.energy) return;
  Assessment& found = assessment();
  found.kwh_m2 = computed_.record.energy->kwh_m2();
  if (brief_.energy.empty()) return;
  assess::judge(space_, brief_, space_.groups, uses_.front().weights, found);
}

}  // namespace glow::run
