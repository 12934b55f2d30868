#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

namespace glow::assess {

/// What is told of a point's year of daylight.
enum class YearMetric {
  autonomy,             ///< share of the hours of use in which a level is reached, %
  continuous_autonomy,  ///< the same with an hour that reaches less counting in proportion, %
  useful_below_100,     ///< share of the hours of use by illuminance, %: these four add up to 100
  useful_100_to_300,
  useful_300_to_3000,
  useful_above_3000,
  exposure,         ///< light of all hours of the year, klx h
  strong_sun,       ///< hours of use with straight sun of 1000 lx or more, no blinds down
  sun_hours,        ///< hours of the year in whose middle the sun reaches the point, no blinds down
  half_of_daylight  ///< illuminance that half of the hours of daylight (2190) exceed, lx, no blinds down
};
/// "daylight autonomy", "continuous autonomy", "useful, below 100 lx", ...
std::string to_string(YearMetric metric);
std::optional<YearMetric> year_metric(const std::string& words);
/// "%", "klx h", "h", "lx".
std::string unit_of(YearMetric metric);

/// One metric on a grid.
struct YearMap {
  YearMetric metric = YearMetric::autonomy;
  double level_lx = 0;              ///< of autonomies
  bool blinds = false;              ///< with blinds moved by their rule; else none is ever down
  std::vector<double> values;       ///< by the grid's readable points
  double mean = 0, mean_doubt = 0;  ///< half width of the 95 % interval

  /// "daylight autonomy 300 lx, blinds by rule".
  std::string name() const;
};

/// A share of a grid's points, %, and how sure.
struct YearShare {
  double percent = 0, doubt = 0;
};

struct YearOnGrid {
  std::size_t grid = 0;  ///< number among the assessment's
  std::vector<YearMap> maps;
  YearShare spatial_autonomy;                ///< of IES LM-83, with blinds by their rule where there are any
  std::optional<YearShare> spatial_without;  ///< then: without
  YearShare sun_exposure;                    ///< of IES LM-83: no blinds
  std::array<double, 12> by_month_lx = {};   ///< mean of the hours of use, with blinds

  /// Null: not told.
  const YearMap* find(YearMetric metric, double level_lx = 0) const;
};

/// The year at one of the designer's points.
struct YearAtPoint {
  std::string name;
  std::vector<YearMap> maps;  ///< with one value each
  /// Of an eye: share of the hours of use with a daylight glare probability above 0.35, 0.40 and 0.45, %; by
  /// the light on the eye, and the sun's disc where it is in sight (glare::daylight_glare_probability).
  std::optional<std::array<double, 3>> glare = {};
  std::vector<int> by_hour_lx = {};  ///< by the hours of the year, with blinds; of the first points only
  std::array<double, 12> by_month_lx = {};  ///< mean of the hours of use, with blinds
};

/// What a year of daylight comes to.
struct YearReading {
  std::string place, file, hours_words;  ///< of the weather; hours of use
  int used_hours = 0, light_hours = 0;   ///< of the year
  std::vector<std::string> blinds;       ///< states that move by themselves
  std::vector<int> hours_down;           ///< by those: hours of use
  double rule_lx = 0, rule_share = 0;
  double relative_doubt = 0;  ///< of a typical illuminance, half width of the 95 % interval
  std::vector<YearOnGrid> grids;
  std::vector<YearAtPoint> points;
  std::vector<int> mean_lx;  ///< of the first grid, by the hours of the year, with blinds; lx

  /// Null: not read.
  const YearOnGrid* on(std::size_t grid) const;
};

}  // namespace glow::assess
