#pragma once

#include "core/assess/assessment.hpp"
#include "core/glare/screen_luminance.hpp"
#include "core/lighting/weights.hpp"
#include "core/space/brief.hpp"

namespace glow::assess {

/// Holds what was read against what is asked: fills in checks, what is not verified, modelling, power and
/// status from the readings that `assessment` holds. Pure; reads nothing else.
void judge(const space::Space& space, const space::Brief& brief,
           const std::vector<space::LuminaireGroup>& groups, const lighting::Weights& weights,
           Assessment& assessment);

/// The status that checks come to: those that bind.
Status status_of(const std::vector<standards::Check>& checks);

/// Checks of glare, for `judge`: added in the order of the brief's limits.
void judge_glare(const space::GlareBrief& brief, const std::vector<space::LuminaireGroup>& groups,
                 const lighting::Weights& weights, Assessment& assessment);

/// Luminances, cd/m2, in all C planes from gamma `from_deg` on, of the luminaire of the group that looks
/// brightest at `output` of its light: they differ when they are aimed. Empty: the file states no luminous
/// size.
std::vector<glare::PlaneLuminance> brightest_planes(const space::LuminaireGroup& group, double output,
                                                    double from_deg);

/// Number of the first group of a mark: the id of a luminaire type.
std::size_t first_of_mark(const std::vector<space::LuminaireGroup>& groups, const std::string& mark);

}  // namespace glow::assess
