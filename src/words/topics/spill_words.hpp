#pragma once

#include "core/studies/findings.hpp"
#include "words/values.hpp"

namespace glow::words {

/// "P2 at (3.0, 4.0), 38 m away, 62 deg off its axis: k 939; 2 of 5 luminaires in sight are beyond the
/// limit".
std::vector<std::string> spill_cause_words(const studies::SpillCauses& causes, const standards::Check& check,
                                           const Values& values);
/// "F1 at (3.0, 4.0) and 2 more tilted down by 10 deg".
std::string spill_change_words(const studies::SpillChange& change, const Values& values);
/// Of neighbours that get light of several areas, the sum; `failing`: only of those whose limit it does not
/// surely keep. Each line ends with a line break.
std::string together_words(const record::RunRecord& run, bool failing);
/// Of a run: how k was found where, and what lies outside its range; each line ends with a line break.
std::string spill_remarks(const record::RunRecord& run);

}  // namespace glow::words
