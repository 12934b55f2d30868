#pragma once

#include "core/assess/assessment.hpp"
#include "files/results/described/archive.hpp"

// How a year of daylight stands in results.json. Included by record_json.cpp only.
namespace glow::files {

inline void refuse_year_unless(bool holds) {
  if (!holds) throw std::runtime_error("a year of daylight is not as it is written");
}

}  // namespace glow::files

namespace glow::assess {

using files::Described;

template <class A>
void describe(A& a, Described<A, YearMap>& v) {
  a.derived("name", [&] { return v.name(); });
  if constexpr (A::kReads) {
    const auto metric = year_metric(a.at("metric").template get<std::string>());
    files::refuse_year_unless(metric.has_value());
    v.metric = *metric;
  } else {
    a("metric", to_string(v.metric));
  }
  a.derived("unit", [&] { return unit_of(v.metric); });
  a("level_lx", v.level_lx);
  a("blinds", v.blinds);
  a.brief("mean", v.mean);
  a.brief("mean_uncertainty", v.mean_doubt);
  a.brief_list("values", v.values);
}
template <class A>
void describe(A& a, Described<A, YearShare>& v) {
  a.brief("percent", v.percent);
  a.brief("uncertainty", v.doubt);
}
template <class A>
void describe_means(A& a, Described<A, std::array<double, 12>>& v) {
  std::vector<double> months(v.begin(), v.end());
  a.brief_list("mean_by_month_lx", months);
  if constexpr (A::kReads) {
    files::refuse_year_unless(months.size() == v.size());
    std::copy(months.begin(), months.end(), v.begin());
  }
}
template <class A>
void describe(A& a, Described<A, YearOnGrid>& v) {
  a("grid", v.grid);
  a("spatial_autonomy", v.spatial_autonomy);
  a.present("spatial_autonomy_without_blinds", v.spatial_without);
  a("sun_exposure", v.sun_exposure);
  describe_means(a, v.by_month_lx);
  a("maps", v.maps);
}
template <class A>
void describe(A& a, Described<A, YearAtPoint>& v) {
  a("name", v.name);
  a("values", v.maps);
  describe_means(a, v.by_month_lx);
  a("by_hour_lx", v.by_hour_lx);
  std::optional<std::vector<double>> shares;
  if (v.glare) shares.emplace(v.glare->begin(), v.glare->end());
  a.present("glare_above_035_040_045_percent", shares);
  if constexpr (A::kReads) {
    files::refuse_year_unless((!shares || shares->size() == 3) &&
                              (v.by_hour_lx.empty() || v.by_hour_lx.size() == 8760));
    if (shares) v.glare = {(*shares)[0], (*shares)[1], (*shares)[2]};
  }
}
template <class A>
void describe(A& a, Described<A, YearReading>& v) {
  a("place", v.place);
  a("weather", v.file);
  a("hours_of_use", v.hours_words);
  a("used_hours", v.used_hours);
  a("light_hours", v.light_hours);
  a.object("blinds", [&](auto& own) {
    own("states", v.blinds);
    own("hours_down", v.hours_down);
    own("sun_lx", v.rule_lx);
    own("share", v.rule_share);
  });
  a.brief("relative_uncertainty", v.relative_doubt);
  a("grids", v.grids);
  a("points", v.points);
  a("mean_by_hour_lx", v.mean_lx);
  if constexpr (A::kReads)
    files::refuse_year_unless((v.mean_lx.empty() || v.mean_lx.size() == 8760) &&
                              (v.blinds.empty() || v.hours_down.size() == v.blinds.size()));
}

}  // namespace glow::assess
