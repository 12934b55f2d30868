#pragma once

#include <string>

#include "core/studies/probe.hpp"

namespace glow::files {

/// Light at one point of a room as a JSON document: its parts, what each luminaire brings, and its colour,
/// where it is known. SI units.
std::string probe_json(const std::string& room, const readings::Receiver& point,
                       const studies::ProbeResult& result);

}  // namespace glow::files
