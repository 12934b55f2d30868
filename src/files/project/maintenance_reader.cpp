#include "files/project/maintenance_reader.hpp"

#include "files/project/ranges.hpp"

namespace glow::files {
namespace {

using units::Dimension;

constexpr Range kHours{0, 1e6, true};
constexpr Range kYears{0, 50, true};

}  // namespace

std::optional<model::LuminaireMaintenance> read_luminaire_maintenance(TomlTable& owner) {
  auto table = owner.table("maintenance");
  if (!table) return std::nullopt;
  model::LuminaireMaintenance m;
  m.lamp_flux = table->quantity("lamp_flux", Dimension::ratio, range::kFactor, Need::required).value_or(1);
  m.lamp_survival = table->quantity("lamp_survival", Dimension::ratio, range::kFactor).value_or(1);
  m.luminaire = table->quantity("luminaire", Dimension::ratio, range::kFactor, Need::required).value_or(1);
  m.lamp_hours = table->quantity("lamp_hours", Dimension::number, kHours);
  m.cleaning_years = table->quantity("cleaning_years", Dimension::number, kYears);
  table->finish();
  return m;
}

std::optional<model::SurfaceMaintenance> read_surface_maintenance(TomlTable& owner) {
  auto table = owner.table("room_surfaces");
  if (!table) return std::nullopt;
  model::SurfaceMaintenance m;
  m.factor = table->quantity("factor", Dimension::ratio, range::kFactor, Need::required).value_or(1);
  m.cleaning_years = table->quantity("cleaning_years", Dimension::number, kYears);
  table->finish();
  return m;
}

model::ToleranceWish read_spread(TomlTable& root) {
  constexpr Range kShare{0, 0.5};
  constexpr int kMostSamples = 100000;
  model::ToleranceWish wish;
  auto table = root.table("spread");
  if (!table) return wish;
  wish.samples = table->count("samples", 10, kMostSamples).value_or(wish.samples);
  wish.seed = unsigned(table->count("seed", 0, 1000000000).value_or(int(wish.seed)));
  wish.flux = table->quantity("flux", Dimension::ratio, kShare).value_or(wish.flux);
  wish.maintenance = table->quantity("maintenance", Dimension::ratio, kShare).value_or(wish.maintenance);
  wish.reflectance = table->quantity("reflectance", Dimension::ratio, kShare).value_or(wish.reflectance);
  wish.mounting_m = table->quantity("mounting", Dimension::length, range::kShare).value_or(wish.mounting_m);
  table->finish();
  return wish;
}

}  // namespace glow::files
