#include "core/assess/daylight/year_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>

#include "core/assess/daylight/sun_glare.hpp"
#include "core/daylight/weather.hpp"
#include "core/glare/daylight_glare.hpp"
#include "core/standards/daylight_rules.hpp"

namespace glow::assess {
namespace {

constexpr std::array<std::pair<YearMetric, const char*>, 10> kMetrics = {
    {{YearMetric::autonomy, "daylight autonomy"},
     {YearMetric::continuous_autonomy, "continuous autonomy"},
     {YearMetric::useful_below_100, "useful, below 100 lx"},
     {YearMetric::useful_100_to_300, "useful, 100 to 300 lx"},
     {YearMetric::useful_300_to_3000, "useful, 300 to 3000 lx"},
     {YearMetric::useful_above_3000, "useful, above 3000 lx"},
     {YearMetric::exposure, "light exposure"},
     {YearMetric::strong_sun, "hours of strong sun"},
     {YearMetric::sun_hours, "hours of sun"},
     {YearMetric::half_of_daylight, "half of daylight"}}};

/// Of the sky's division into patches, against its own luminance in every direction: the root of the mean
/// square is half of it (bench/year_bench).
constexpr double kOfSkyDivision = 0.0025;
/// Hours of sun are counted by their middles: the edge of a shadow passes in the midst of some.
constexpr double kOfSunHours = 0.02;

constexpr std::size_t kMostCarpets = 12;  // points whose hours are kept

/// One metric as a number of a point's hours.
struct Wanted {
  YearMetric metric;
  double level_lx = 0;
  bool blinds = false;
};

/// All that is read of a point.
struct PointYear {
  std::vector<double> values, low, high;  ///< by what is wanted; with all light at its least and at its most
  double spatial = 0, spatial_low = 0, spatial_high = 0;  ///< autonomy of IES LM-83 with blinds, %
  double spatial_open = 0;
};

class Reader {
 public:
  Reader(const Setting& setting, const lighting::YearLight& light, const space::YearPlan& plan,
         const LitRoom& lit, const Assessment& mean, const HourSink& sink)
      : setting_(setting), light_(light), plan_(plan), lit_(lit), mean_(mean), sink_(sink) {
    const auto both = [&](YearMetric metric, double level) {
      if (light.has_blinds()) wanted_.push_back({metric, level, true});
      wanted_.push_back({metric, level, false});
    };
    for (const double level : plan.levels_lx) both(YearMetric::autonomy, level);
    for (const double level : plan.levels_lx) both(YearMetric::continuous_autonomy, level);
    for (const YearMetric metric :
         {YearMetric::useful_below_100, YearMetric::useful_100_to_300, YearMetric::useful_300_to_3000,
          YearMetric::useful_above_3000, YearMetric::exposure})
      both(metric, 0);
    for (const YearMetric metric :
         {YearMetric::strong_sun, YearMetric::sun_hours, YearMetric::half_of_daylight})
      wanted_.push_back({metric, 0, false});
  }

  YearReading read(const Watch& watch) {
    YearReading year;
    year.place = plan_.place;
    year.file = plan_.file;
    year.hours_words = plan_.hours_words;
    year.used_hours = plan_.used_hours;
    year.light_hours = int(plan_.hours.size());
    if (light_.has_blinds()) {
      year.blinds = plan_.blinds.states;
      year.hours_down = light_.hours_down();
      year.rule_lx = plan_.blinds.sun_lx;
      year.rule_share = plan_.blinds.share;
    }
    const space::Space& space = setting_.space();
    bool first = true;
    for (std::size_t g = 0; g < space.grids.size(); ++g) {
      const bool asked = space.grids[g].role == space::GridRole::daylight_plane;
      if ((!space.grids[g].is_looked_at() && !asked) || setting_.readable()[g].empty()) continue;
      year.grids.push_back(on_grid(g, first ? &year.mean_lx : nullptr, watch));
      if (first) year.relative_doubt = doubt_of(g);
      first = false;
    }
    add_points(year, watch);
    return year;
  }

 private:
  /// Of the mean light of a grid, in proportion.
  double doubt_of(std::size_t grid) const {
    const GridReading& reading = mean_.grids[grid];
    const double mean = reading.statistics.mean_lx;
    return kOfSkyDivision + (mean > 0 ? reading.uncertainty.mean_lx / mean : 0);
  }
  double doubt_at(std::size_t receiver, double of_all) const {
    const double total = lit_.light.maintained.total_lx(receiver);
    return of_all + (total > 0 ? lit_.light.maintained.direct_error_lx[receiver] / total : 0);
  }

  double share_of_use(const Eigen::RowVectorXf& lux, double level) const {
    int reached = 0;
    for (std::size_t h = 0; h < plan_.hours.size(); ++h)
      reached += plan_.hours[h].is_used && double(lux[Eigen::Index(h)]) >= level;
    return 100.0 * reached / plan_.used_hours;
  }

  double value_of(const Wanted& wanted, const Eigen::RowVectorXf& open, const Eigen::RowVectorXf& used,
                  const Eigen::RowVectorXf& sun, double factor) const {
    const Eigen::RowVectorXf& lux = wanted.blinds ? used : open;
    const auto from = [&](double level) { return share_of_use(lux, level / factor); };
    double sum = 0;
    switch (wanted.metric) {
      case YearMetric::autonomy:
        return from(wanted.level_lx);
      case YearMetric::continuous_autonomy:
        for (std::size_t h = 0; h < plan_.hours.size(); ++h)
          if (plan_.hours[h].is_used)
            sum += std::min(1.0, factor * double(lux[Eigen::Index(h)]) / wanted.level_lx);
        return 100 * sum / plan_.used_hours;
      case YearMetric::useful_below_100:
        return 100 - from(100);
      case YearMetric::useful_100_to_300:
        return from(100) - from(300);
      case YearMetric::useful_300_to_3000:
        return from(300) - from(3000);
      case YearMetric::useful_above_3000:
        return from(3000);
      case YearMetric::exposure:
        return plan_.every_day * factor * double(lux.cast<double>().sum()) / 1000;
      case YearMetric::strong_sun:
        for (std::size_t h = 0; h < plan_.hours.size(); ++h)
          sum += plan_.hours[h].is_used && sun[Eigen::Index(h)] >= standards::kStrongSun;
        return plan_.every_day * sum;
      case YearMetric::sun_hours:
        return plan_.every_day * double((sun.array() > 0).count());
      case YearMetric::half_of_daylight: {
        std::vector<float> sorted(lux.data(), lux.data() + lux.size());
        const int rank = std::max(1, daylight::kHalfOfDaylight / plan_.every_day);
        if (sorted.size() < std::size_t(rank)) return 0;
        const auto half = sorted.begin() + rank - 1;
        std::nth_element(sorted.begin(), half, sorted.end(), std::greater<>());
        return factor * double(*half);
      }
    }
    return 0;
  }

  PointYear of_point(std::size_t receiver, const Eigen::RowVectorXf& open, const Eigen::RowVectorXf& used,
                     const Eigen::RowVectorXf& sun, double of_all) const {
    const double doubt = std::min(0.9, doubt_at(receiver, of_all));
    PointYear point;
    for (const Wanted& wanted : wanted_) {
      point.values.push_back(value_of(wanted, open, used, sun, 1));
      point.low.push_back(value_of(wanted, open, used, sun, 1 - of_all));
      point.high.push_back(value_of(wanted, open, used, sun, 1 + of_all));
    }
    point.spatial = share_of_use(used, standards::kSpatialLevel);
    point.spatial_low = share_of_use(used, standards::kSpatialLevel / (1 - doubt));
    point.spatial_high = share_of_use(used, standards::kSpatialLevel / (1 + doubt));
    point.spatial_open = share_of_use(open, standards::kSpatialLevel);
    return point;
  }

  /// The points of receivers, and the sums of their illuminances by the plan's hours.
  std::vector<PointYear> points_of(
      const std::vector<std::size_t>& receivers, double of_all, Eigen::VectorXd& sums, const Watch& watch,
      std::size_t grid = ReadingPlan::kNone,
      const std::function<void(const lighting::YearLight::Hours&)>& look = {}) const {
    std::vector<PointYear> points(receivers.size());
    sums = Eigen::VectorXd::Zero(Eigen::Index(plan_.hours.size()));
    for (std::size_t first = 0; first < receivers.size(); first += lighting::YearLight::kTogether) {
      const std::size_t count = std::min(lighting::YearLight::kTogether, receivers.size() - first);
      const std::vector<std::size_t> some(receivers.begin() + std::ptrdiff_t(first),
                                          receivers.begin() + std::ptrdiff_t(first + count));
      const lighting::YearLight::Hours hours = light_.at(some, watch);
      if (look) look(hours);
      if (sink_ && grid != ReadingPlan::kNone) sink_(grid, first, hours.as_used());
      parallel_for(count, watch, "metrics of the year", [&](std::size_t i) {
        const Eigen::Index row = Eigen::Index(i);
        points[first + i] =
            of_point(some[i], hours.open.row(row), hours.as_used().row(row), hours.sun.row(row), of_all);
      });
      sums += hours.as_used().cast<double>().colwise().sum().transpose();
    }
    return points;
  }

  std::vector<YearMap> maps_of(const std::vector<PointYear>& points) const {
    std::vector<YearMap> maps;
    for (std::size_t w = 0; w < wanted_.size(); ++w) {
      YearMap& map = maps.emplace_back();
      map.metric = wanted_[w].metric;
      map.level_lx = wanted_[w].level_lx;
      map.blinds = wanted_[w].blinds;
      double low = 0, high = 0;
      for (const PointYear& point : points) {
        map.values.push_back(point.values[w]);
        map.mean += point.values[w] / double(points.size());
        low += point.low[w] / double(points.size());
        high += point.high[w] / double(points.size());
      }
      map.mean_doubt = std::abs(high - low) / 2;
      if (map.metric == YearMetric::strong_sun || map.metric == YearMetric::sun_hours)
        map.mean_doubt = kOfSunHours * map.mean;
    }
    return maps;
  }

  YearOnGrid on_grid(std::size_t g, std::vector<int>* mean_by_hours, const Watch& watch) const {
    const std::vector<std::size_t>& receivers = setting_.readable()[g];
    Eigen::VectorXd sums;
    const std::vector<PointYear> points = points_of(receivers, doubt_of(g), sums, watch, g);
    YearOnGrid own;
    own.grid = g;
    own.maps = maps_of(points);
    const auto share = [&](const auto& counts) {
      return 100.0 * double(std::count_if(points.begin(), points.end(), counts)) / double(points.size());
    };
    constexpr double kHalf = 100 * standards::kSpatialShare;
    own.spatial_autonomy.percent = share([&](const PointYear& p) { return p.spatial >= kHalf; });
    own.spatial_autonomy.doubt = (share([&](const PointYear& p) { return p.spatial_high >= kHalf; }) -
                                  share([&](const PointYear& p) { return p.spatial_low >= kHalf; })) /
                                 2;
    if (light_.has_blinds())
      own.spatial_without = YearShare{share([&](const PointYear& p) { return p.spatial_open >= kHalf; }),
                                      own.spatial_autonomy.doubt};
    const YearMap& sun = *own.find(YearMetric::strong_sun);
    const auto above = [&](double hours) {
      return 100.0 *
             double(std::count_if(sun.values.begin(), sun.values.end(),
                                  [&](double value) { return value > hours; })) /
             double(points.size());
    };
    own.sun_exposure = {above(standards::kMostSunHours),
                        (above(standards::kMostSunHours * (1 - kOfSunHours)) -
                         above(standards::kMostSunHours * (1 + kOfSunHours))) /
                            2};
    sums /= double(receivers.size());
    own.by_month_lx = by_month(sums);
    if (mean_by_hours) *mean_by_hours = by_hour(sums);
    return own;
  }

  std::vector<int> by_hour(const Eigen::VectorXd& means) const {
    std::vector<int> hours(daylight::kHoursOfYear, 0);
    for (std::size_t h = 0; h < plan_.hours.size(); ++h)
      hours[std::size_t(plan_.hours[h].number)] = int(std::lround(means[Eigen::Index(h)]));
    return hours;
  }

  std::array<double, 12> by_month(const Eigen::VectorXd& means) const {
    std::array<double, 12> own{};
    std::array<double, 12> used{};
    for (std::size_t day = 0; day < plan_.used_by_day.size(); ++day)
      used[month_of(int(day))] += plan_.used_by_day[day];
    for (std::size_t h = 0; h < plan_.hours.size(); ++h)
      if (plan_.hours[h].is_used)
        own[month_of(plan_.hours[h].number / 24)] += plan_.every_day * means[Eigen::Index(h)];
    for (std::size_t m = 0; m < 12; ++m) own[m] /= std::max(1.0, used[m]);
    return own;
  }
  static std::size_t month_of(int day) { return std::size_t(daylight::date_of_day(day).first - 1); }

  /// Where blinds are down no sun is seen, and by hours of use.
  std::array<double, 3> glare_of(const readings::Receiver& eye,
                                 const lighting::YearLight::Hours& hours) const {
    std::array<double, 3> shares{};
    for (std::size_t h = 0; h < plan_.hours.size(); ++h) {
      if (!plan_.hours[h].is_used) continue;
      const Eigen::Index column = Eigen::Index(h);
      const double ev = double(hours.as_used()(0, column));
      const bool open = hours.used.size() == 0 || hours.used(0, column) == hours.open(0, column);
      const double sun = open ? glare_of_sun(eye, plan_.hours[h].sun, double(hours.sun(0, column))) : 0.0;
      const double probability =
          sun > 0 ? glare::daylight_glare_probability(ev, sun) : glare::simple_daylight_glare_probability(ev);
      for (std::size_t k = 0; k < shares.size(); ++k)
        if (probability > glare::kDaylightGlareSteps[k]) shares[k] += 100.0 / plan_.used_hours;
    }
    return shares;
  }

  void add_points(YearReading& year, const Watch& watch) const {
    const space::Space& space = setting_.space();
    for (std::size_t i = 0; i < space.points.size(); ++i) {
      const std::size_t receiver = setting_.plan().points[i];
      if (setting_.misplaced(receiver)) continue;
      Eigen::VectorXd sums;
      YearAtPoint& point = year.points.emplace_back();
      point.name = space.points[i].name;
      point.maps = maps_of(points_of({receiver}, year.relative_doubt, sums, watch, ReadingPlan::kNone,
                                     [&](const lighting::YearLight::Hours& hours) {
                                       if (sink_) sink_(ReadingPlan::kNone, i, hours.as_used());
                                       if (space.points[i].is_eye)
                                         point.glare = glare_of(space.points[i].receiver, hours);
                                     }));
      point.by_month_lx = by_month(sums);
      if (year.points.size() <= kMostCarpets) point.by_hour_lx = by_hour(sums);
    }
  }

  const Setting& setting_;
  const lighting::YearLight& light_;
  const space::YearPlan& plan_;
  const LitRoom& lit_;
  const Assessment& mean_;
  const HourSink& sink_;
  std::vector<Wanted> wanted_;
};

}  // namespace

std::string to_string(YearMetric metric) {
  for (const auto& [known, words] : kMetrics)
    if (known == metric) return words;
  return "";
}

std::optional<YearMetric> year_metric(const std::string& words) {
  for (const auto& [metric, known] : kMetrics)
    if (known == words) return metric;
  return std::nullopt;
}

std::string unit_of(YearMetric metric) {
  switch (metric) {
    case YearMetric::exposure:
      return "klx h";
    case YearMetric::strong_sun:
    case YearMetric::sun_hours:
      return "h";
    case YearMetric::half_of_daylight:
      return "lx";
    default:
      return "%";
  }
}

std::string YearMap::name() const {
  return to_string(metric) + (level_lx > 0 ? fmt::format(FMT_STRING(" {:.0f} lx"), level_lx) : "") +
         (blinds ? ", blinds by rule" : "");
}

const YearMap* YearOnGrid::find(YearMetric metric, double level_lx) const {
  for (const YearMap& map : maps)
    if (map.metric == metric && (level_lx == 0 || map.level_lx == level_lx)) return &map;
  return nullptr;
}

const YearOnGrid* YearReading::on(std::size_t grid) const {
  for (const YearOnGrid& own : grids)
    if (own.grid == grid) return &own;
  return nullptr;
}

std::vector<std::size_t> blind_rule_points(const Setting& setting) {
  for (std::size_t g = 0; g < setting.space().grids.size(); ++g)
    if (setting.space().grids[g].is_looked_at() && !setting.readable()[g].empty())
      return setting.readable()[g];
  return {};
}

YearReading read_year(const Setting& setting, const lighting::YearLight& light, const space::YearPlan& plan,
                      const LitRoom& lit, const Assessment& mean, const Watch& watch, const HourSink& sink) {
  return Reader(setting, light, plan, lit, mean, sink).read(watch);
}

}  // namespace glow::assess
