#include "core/standards/general_rules.hpp"

#include <algorithm>
#include <array>

namespace glow::standards {
namespace {

constexpr std::array<double, 21> kScale = {5,   7.5, 10,  15,   20,   30,   50,   75,   100,  150,  200,
                                           300, 500, 750, 1000, 1500, 2000, 3000, 5000, 7500, 10000};

struct Level {
  double task_lx, surrounding_lx;
};

/// Surrounding level of the highest row that the task reaches; between two rows the upper row's: the
/// stricter.
std::optional<double> looked_up(const std::vector<Level>& rows, double task_lx, bool& between) {
  if (task_lx < rows.front().task_lx) return std::nullopt;
  for (const Level& row : rows)
    if (task_lx <= row.task_lx) {
      between = task_lx < row.task_lx;
      return row.surrounding_lx;
    }
  return rows.back().surrounding_lx;
}

const std::vector<Level>& indoor() {
  static const std::vector<Level> rows = {{150, 150}, {200, 150}, {300, 200}, {500, 300}, {750, 500}};
  return rows;
}

/// The 2002 edition keeps 200 lx beside a task of 200 lx; another statement says 150.
const std::vector<Level>& indoor_2002() {
  static const std::vector<Level> rows = {{200, 200}, {300, 200}, {500, 300}, {750, 500}};
  return rows;
}

const std::vector<Level>& outdoor() {
  static const std::vector<Level> rows = {{50, 20}, {100, 20}, {150, 30}, {200, 50}, {300, 75}, {500, 100}};
  return rows;
}

void fill(Surroundings& result, const std::vector<Level>& rows, double task_lx) {
  bool between = false;
  const auto level = looked_up(rows, task_lx, between);
  result.surrounding_lx = std::min(level.value_or(task_lx), task_lx);
  if (between) result.remark = "the table has no row for this level; the stricter neighbour is taken";
}

bool begins(const std::string& text, const char* with) {
  return text.rfind(with, 0) == 0;
}

}  // namespace

std::optional<Surroundings> surroundings_of(const Requirement& requirement, double task_lx) {
  Surroundings result;
  result.source = requirement.standard_name() + ", surrounding areas";
  result.certainty = "agreed";
  if (requirement.standard == "EN 12464-1") {
    fill(result, indoor(), task_lx);
    result.surrounding_u0 = 0.40;
    result.band_m = 0.5;
    result.background_lx = result.surrounding_lx / 3;
    result.background_u0 = 0.10;
    result.background_band_m = 3;
    return result;
  }
  if (requirement.standard == "ISO 8995-1") {
    fill(result, indoor_2002(), task_lx);
    result.surrounding_u0 = 0.50;
    result.band_m = 0.5;
    if (task_lx == 200) result.certainty = "disputed";
    return result;
  }
  if (requirement.standard == "EN 12464-2" && task_lx >= outdoor().front().task_lx) {
    fill(result, outdoor(), task_lx);
    result.surrounding_u0 = 0.10;
    result.band_m = 2;
    return result;
  }
  return std::nullopt;
}

std::optional<double> stepped(double level_lx, int steps) {
  if (steps == 0) return level_lx;
  const auto above = std::upper_bound(kScale.begin(), kScale.end(), level_lx);
  const auto not_below = std::lower_bound(kScale.begin(), kScale.end(), level_lx);
  const std::ptrdiff_t at =
      steps > 0 ? above - kScale.begin() + steps - 1 : not_below - kScale.begin() + steps;
  if (at < 0 || at >= std::ptrdiff_t(kScale.size())) return std::nullopt;
  return kScale[std::size_t(at)];
}

void add_general_surfaces(Requirement& r) {
  if (r.standard != "EN 12464-1" || r.edition != "2011" || r.own) return;
  if (r.ewall_lx || r.eceiling_lx || r.ez_lx) return;
  const bool brighter = begins(r.area, "offices") || begins(r.area, "education") ||
                        begins(r.area, "health") || begins(r.area, "circulation");
  const bool people_talk = begins(r.area, "offices") || begins(r.area, "education");
  r.ewall_lx = brighter ? 75 : 50;
  r.eceiling_lx = brighter ? 50 : 30;
  r.ez_lx = people_talk ? 150 : 50;
  r.surface_certainty = begins(r.area, "circulation") ? "single" : "agreed";
  r.others.emplace_back("surfaces", "walls, ceiling and cylinders: general clauses of the edition");
}

std::vector<ReflectanceRange> reflectance_ranges(const std::string& standard) {
  if (begins(standard, "EN 12464-1:2021"))
    return {{"ceiling", 0.7, 0.9}, {"walls", 0.5, 0.8}, {"floor", 0.2, 0.6}};
  if (begins(standard, "EN 12464-1"))
    return {{"ceiling", 0.7, 0.9}, {"walls", 0.5, 0.8}, {"floor", 0.2, 0.4}};
  if (begins(standard, "ISO 8995-1"))
    return {{"ceiling", 0.6, 0.9}, {"walls", 0.3, 0.8}, {"floor", 0.1, 0.5}};
  return {};
}

}  // namespace glow::standards
