#include "core/studies/energy/times_of_year.hpp"

namespace glow::studies {
namespace {

/// Sums of what is found at each place in each hour.
class Counted {
 public:
  Counted(double low, double high) : low_(low), high_(high) {}
  void add(double lux) {
    ++count_;
    sum_ += lux;
    below_ += lux < low_;
    above_ += lux > high_;
  }
  TimeOfYear::Light light() const {
    TimeOfYear::Light own;
    if (count_ == 0) return own;
    own.mean_lx = sum_ / count_;
    own.below_percent = 100 * below_ / count_;
    own.above_percent = 100 * above_ / count_;
    own.within_percent = 100 - own.below_percent - own.above_percent;
    return own;
  }

 private:
  double low_, high_, count_ = 0, sum_ = 0, below_ = 0, above_ = 0;
};

}  // namespace

std::vector<TimeOfYear> at_times(const std::vector<space::PlannedTimes>& times, const DayHours& day,
                                 const Eigen::MatrixXf& electric) {
  std::vector<TimeOfYear> all;
  if (day.plane.rows() == 0) return all;
  for (const space::PlannedTimes& planned : times) {
    TimeOfYear& own = all.emplace_back();
    own.name = planned.name;
    own.words = planned.words;
    own.low_lx = planned.low_lx;
    own.high_lx = planned.high_lx;
    for (const char holds : planned.holds) own.hours += holds;
    Counted daylight(own.low_lx, own.high_lx), in_all(own.low_lx, own.high_lx);
    for (Eigen::Index place = 0; place < day.plane.rows(); ++place) {
      const std::vector<float> lux = day.over_year(day.plane.row(place));
      for (std::size_t h = 0; h < lux.size(); ++h) {
        if (!planned.holds[h]) continue;
        daylight.add(double(lux[h]));
        if (electric.size() > 0) in_all.add(double(lux[h] + electric(place, Eigen::Index(h))));
      }
    }
    own.daylight = daylight.light();
    if (electric.size() > 0) own.in_all = in_all.light();
  }
  return all;
}

}  // namespace glow::studies
