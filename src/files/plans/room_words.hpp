#pragma once

#include <string>
#include <vector>

namespace glow::files {

/// The task that a room's name suggests, by data/room-words.txt; empty: none.
std::string task_by_name(const std::string& name);

}  // namespace glow::files
