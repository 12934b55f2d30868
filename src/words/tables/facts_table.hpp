#pragma once

#include "core/shelf/luminaire_facts.hpp"

namespace glow::words {

/// A line of the table.
struct FactsRow {
  std::string file;
  const shelf::LuminaireFacts* facts = nullptr;  ///< null: the file was refused
  std::size_t findings = 0;
};

/// A line for each file: flux, watts, lm/W, beam angles, Ra, colour temperature, tabular UGR at 4H x 8H,
/// then, of measures that are not among these, those whose keys are in `more`, then kind of distribution.
/// `names`: with its name, or its
/// maker where it has none.
std::string facts_table(const std::vector<FactsRow>& rows, const std::vector<std::string>& more = {},
                        bool names = false);

/// One value as tables show it: "2540", "0.05"; "-" where it is not known.
std::string measure_text(const shelf::LuminaireFacts& facts, shelf::Measure measure);
/// Both planes of the measures with this key, once where they are alike: "98/60".
std::string key_text(const shelf::LuminaireFacts& facts, const std::string& key);

}  // namespace glow::words
