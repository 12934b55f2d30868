#include "core/plans/drawing_units.hpp"

#include <fmt/format.h>

#include <cmath>

namespace glow::plans {
namespace {

struct Unit {
  const char* name;
  double metres;
};
constexpr Unit kUnits[] = {{"mm", 0.001},  {"cm", 0.01}, {"m", 1},       {"in", 0.0254},
                           {"ft", 0.3048}, {"dm", 0.1},  {"yd", 0.9144}, {"km", 1000}};
constexpr std::size_t kUsual = 5;  // the first of them are what plans are drawn in

}  // namespace

std::string unit_name(double metres_per_unit) {
  for (const Unit& unit : kUnits)
    if (std::abs(metres_per_unit / unit.metres - 1) < 1e-9) return unit.name;
  return fmt::format(FMT_STRING("units of {:g} m"), metres_per_unit);
}

std::optional<double> unit_of(const std::string& name) {
  for (const Unit& unit : kUnits)
    if (name == unit.name) return unit.metres;
  return std::nullopt;
}

double likely_unit(double area) {
  constexpr double kUsualRoom = 20;  // m2
  const auto far = [&](double metres) { return std::abs(std::log(area * metres * metres / kUsualRoom)); };
  double best = kUnits[0].metres;
  for (std::size_t k = 1; k < kUsual; ++k)
    if (far(kUnits[k].metres) < far(best)) best = kUnits[k].metres;
  return best;
}

}  // namespace glow::plans
