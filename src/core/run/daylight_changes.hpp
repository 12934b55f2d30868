#pragma once

#include <functional>
#include <utility>
#include <vector>

#include "core/model/project.hpp"
#include "core/studies/findings.hpp"

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

/// The room with nothing in it but what daylight meets, and what is asked of that.
model::Room bare(const model::Room& room);

}  // namespace glow::run
