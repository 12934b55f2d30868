#pragma once

#include <functional>
#include <utility>
#include <vector>

#include "core/space/build_space.hpp"
#include "core/studies/findings.hpp"
#include "core/transport/effort.hpp"

namespace glow::run {

/// A change to project and room; false: there is nothing to change.
using RoomChange = std::function<bool(model::Project&, model::Room&)>;
/// What it is, and what it does.
using TriedChange = std::pair<studies::DaylightChange, RoomChange>;

/// What brings more daylight in, and what keeps sun out.
std::vector<TriedChange> more_daylight();
std::vector<TriedChange> less_daylight();

/// Orders what was tried: what meets first, then what comes nearest. By the checks.
void put_best_first(const std::vector<standards::Check>& checks,
                    std::vector<studies::Explanation>& explanations);

/// A room that nobody wrote, with its ways to be used; nothing where it cannot be.
std::optional<space::PlannedRoom> planned_as_changed(const model::Project& project, const model::Room& room);
/// What is tried need not be as sure as what is verified: half of it.
transport::Effort effort_of_trials(const transport::Effort& effort);

/// The room with nothing in it but what daylight meets, and what is asked of that.
model::Room bare(const model::Room& room);

}  // namespace glow::run
