#include "files/maintenance_reader.hpp"

namespace glow::files {
namespace {

using units::Dimension;

constexpr Range kFactor{0, 1, true};
constexpr Range kHours{0, 1e6, true};
constexpr Range kYears{0, 50, true};

}  // namespace

std::optional<model::LuminaireMaintenance> read_luminaire_maintenance(TomlTable& owner) {
  auto table = owner.table("maintenance");
  if (!table) return std::nullopt;
  model::LuminaireMaintenance m;
  m.lamp_flux = table->quantity("lamp_flux", Dimension::ratio, kFactor, Need::required).value_or(1);
  m.lamp_survival = table->quantity("lamp_survival", Dimension::ratio, kFactor).value_or(1);
  m.luminaire = table->quantity("luminaire", Dimension::ratio, kFactor, Need::required).value_or(1);
  m.lamp_hours = table->quantity("lamp_hours", Dimension::ratio, kHours);
  m.cleaning_years = table->quantity("cleaning_years", Dimension::ratio, kYears);
  table->finish();
  return m;
}

std::optional<model::SurfaceMaintenance> read_surface_maintenance(TomlTable& owner) {
  auto table = owner.table("room_surfaces");
  if (!table) return std::nullopt;
  model::SurfaceMaintenance m;
  m.factor = table->quantity("factor", Dimension::ratio, kFactor, Need::required).value_or(1);
  m.cleaning_years = table->quantity("cleaning_years", Dimension::ratio, kYears);
  table->finish();
  return m;
}

}  // namespace glow::files
