#include "core/assess/assessment.hpp"

#include <algorithm>

namespace glow::assess {

GridReading::GridReading() = default;
GridReading::GridReading(const GridReading&) = default;
GridReading::GridReading(GridReading&&) noexcept = default;
GridReading& GridReading::operator=(const GridReading&) = default;
GridReading& GridReading::operator=(GridReading&&) noexcept = default;
GridReading::~GridReading() = default;

Assessment::Assessment() = default;
Assessment::Assessment(const Assessment&) = default;
Assessment::Assessment(Assessment&&) noexcept = default;
Assessment& Assessment::operator=(const Assessment&) = default;
Assessment& Assessment::operator=(Assessment&&) noexcept = default;
Assessment::~Assessment() = default;

Power power_of(const space::Space& space, const std::vector<space::LuminaireGroup>& groups, double mean_lx) {
  double watts = 0;
  for (const space::LuminaireGroup& group : groups) {
    if (!group.photometry->watts) return {};
    watts += *group.photometry->watts * double(group.luminaires.size());
  }
  Power power;
  power.installed_w = watts;
  power.w_per_m2 = watts / space.floor_area_m2;
  constexpr double kDark = 1e-3;  // lx: what it takes to light nothing says nothing
  if (mean_lx >= kDark) power.w_per_m2_100lx = *power.w_per_m2 / (mean_lx / 100);
  return power;
}

std::string to_string(Status status) {
  switch (status) {
    case Status::met:
      return "met";
    case Status::not_met:
      return "not met";
    case Status::undecided:
      return "undecided";
    case Status::no_target:
      return "no target";
  }
  return "";
}

std::string kind_words(readings::Kernel kernel) {
  switch (kernel) {
    case readings::Kernel::cylinder:
      return "cylindrical";
    case readings::Kernel::semicylinder:
      return "semi-cylindrical";
    case readings::Kernel::hemisphere:
      return "hemispherical";
    case readings::Kernel::sphere:
      return "spherical";
    case readings::Kernel::plane:
      break;
  }
  return "plane";
}

std::optional<double> DayOnGrid::mean_factor() const {
  if (!has_factor || day_lx.empty()) return std::nullopt;
  double sum = 0;
  for (std::size_t k = 0; k < day_lx.size(); ++k) sum += factor(k);
  return sum / double(day_lx.size());
}

double DayOnGrid::share_with_sky() const {
  constexpr double kNone = 1e-9;  // lx
  if (sky_lx.empty()) return 0;
  return double(std::count_if(sky_lx.begin(), sky_lx.end(), [](double lux) { return lux > kNone; })) /
         double(sky_lx.size());
}

std::string GridReading::kind() const {
  if (kernel != readings::Kernel::plane) return kind_words(kernel);
  if (grid.plane.is_level()) {
    const bool slopes = std::any_of(grid.normals.begin(), grid.normals.end(),
                                    [](const Vec3& normal) { return !readings::Plane::is_level(normal); });
    return slopes ? "plane along the slope" : "horizontal plane";
  }
  return std::abs(grid.plane.normal.z()) < 1e-9 ? "vertical plane" : "plane";
}

double GridReading::roughness() const {
  using space::GridRole;
  if (total_lx.empty() || role == GridRole::floor || role == GridRole::ceiling || role == GridRole::wall)
    return 0;
  const auto share = [](double of, double lux) { return of > 0 ? of / lux : 0.0; };
  return std::max(share(uncertainty.mean_lx, statistics.mean_lx),
                  share(uncertainty.min_lx, statistics.min_lx) / kMinimumAllowance);
}

}  // namespace glow::assess
