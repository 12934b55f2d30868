#pragma once

#include "core/assess/assessment.hpp"
#include "core/assess/setting.hpp"
#include "core/lighting/year_light.hpp"

namespace glow::assess {

/// Receivers by which blinds move: those of the first grid that people look at.
std::vector<std::size_t> blind_rule_points(const Setting& setting);

/// Takes the hours of the plan at some points of a grid, from the first on, a row for each; or, where the
/// grid is ReadingPlan::kNone, at the space's point of this number.
using HourSink = std::function<void(std::size_t grid, std::size_t first, const Eigen::MatrixXf& lux)>;

/// The year on the grids that people look at or that daylight is held against, and at the designer's points.
/// `mean`: what was read of the mean light of the hours of use; it tells how sure the light is. `sink`: may
/// be empty. Throws Cancelled.
YearReading read_year(const Setting& setting, const lighting::YearLight& light, const space::YearPlan& plan,
                      const LitRoom& lit, const Assessment& mean, const Watch& watch,
                      const HourSink& sink = {});

}  // namespace glow::assess
