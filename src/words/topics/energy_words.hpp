#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::words {

/// Under the table of energies: how estimates were made, what a deeper calculation wants, where sensors
/// stand, when targets are missed and what would mend it. Lines of the terminal.
std::string energy_remarks(const record::RunRecord& run);

}  // namespace glow::words
