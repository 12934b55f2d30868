#include "core/assess/assess.hpp"

#include "core/assess/glare/table_glare.hpp"
#include "core/assess/grid_reader.hpp"
#include "core/assess/spill_reader.hpp"

namespace glow::assess {
namespace {

/// Initial light of the work plane, which GR is held before.
std::optional<readings::Statistics> plane_initial(const Setting& setting, const lighting::RoomLight& light) {
  std::vector<double> lux;
  for (const std::size_t r : setting.readable().front()) lux.push_back(light.initial_lx[r]);
  if (lux.empty()) return std::nullopt;
  return readings::statistics(lux);
}

void tell_uncertainties(const Setting& setting, const lighting::RoomLight& light,
                        const transport::NumericalError& error, Assessment& assessment) {
  for (std::size_t s = 0; s < assessment.glare.sets.size(); ++s) {
    EyeSetGlare& set = assessment.glare.sets[s];
    if (set.worst)
      set.uncertainty = background_uncertainty(error, light, setting.plan().views[s][*set.worst]);
    if (setting.brief().glare.rates_gr) set.rating_uncertainty = rating_uncertainty(assessment.grids.front());
  }
}

}  // namespace

Assessment assess(const Setting& setting, const SeenFromEyes& eyes, const LitRoom& lit,
                  const transport::NumericalError* error, const Scope& scope, const Watch& watch) {
  Assessment assessment;
  const std::size_t grids = setting.space().grids.size();
  for (std::size_t g = 0; g < grids; ++g)
    assessment.grids.push_back(scope.judged_only ? read_judged(setting, g, lit.light)
                                                 : read_grid(setting, g, lit, error));
  if (!scope.judged_only && error) assessment.points = read_points(setting, lit, *error);
  const space::GlareBrief& brief = setting.brief().glare;
  if (scope.glare) {
    assessment.glare =
        read_glare(setting, eyes, lit, scope.ratings ? plane_initial(setting, lit.light) : std::nullopt,
                   scope.views, watch);
    if (brief.rates_ugr)
      assessment.glare.table = table_glare(setting.space(), brief, *lit.groups, lit.weights, scope.tabular);
  }
  if (scope.spill) assessment.spill = read_spill(setting, eyes, lit, assessment.grids, watch);
  if (error) tell_uncertainties(setting, lit.light, *error, assessment);
  if (lit.outlook) assessment.outlook = *lit.outlook;
  judge(setting.space(), setting.brief(), *lit.groups, lit.weights, assessment);
  return assessment;
}

}  // namespace glow::assess
