#pragma once

#include <string>
#include <utility>
#include <vector>

#include "core/shelf/luminaire_facts.hpp"

namespace glow::files {

/// One row a luminaire: file, maker, name, catalogue_number, lamp, kind, distribution, shape, a column for
/// each of shelf::measures() with its unit in the header, findings. Empty where a value is not known.
std::string facts_csv(const std::vector<const shelf::Entry*>& entries);

/// {"files": [...], "refused": [{"file", "reason"}]} with the same names; null where a value is not known.
std::string facts_json(const std::vector<const shelf::Entry*>& entries,
                       const std::vector<std::pair<std::string, std::string>>& refused);

}  // namespace glow::files
