#pragma once

#include "core/assess/assessment.hpp"
#include "core/assess/setting.hpp"
#include "core/lighting/year_light.hpp"

namespace glow::assess {

/// Receivers by which blinds move: those of the first grid that people look at.
std::vector<std::size_t> blind_rule_points(const Setting& setting);

/// The year on the grids that people look at or that daylight is held against, and at the designer's points.
/// `mean`: what was read of the mean light of the hours of use; it tells how sure the light is. Throws
/// Cancelled.
YearReading read_year(const Setting& setting, const lighting::YearLight& light, const space::YearPlan& plan,
                      const LitRoom& lit, const Assessment& mean, const Watch& watch);

}  // namespace glow::assess
