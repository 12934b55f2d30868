#pragma once

#include <optional>
#include <string_view>

#include "core/problems/problems.hpp"
#include "core/record/record.hpp"

namespace glow::files {

inline constexpr std::size_t kLargestResults = 256u << 20;
inline constexpr int kResultsFormat = 11;

/// Reads a results.json as `results_json` writes it. Nothing comes back, and one error, when it is not, or
/// when it is of another format: then with what to do.
std::optional<record::RunRecord> read_results(std::string_view bytes, const std::string& name,
                                              Problems& problems);

}  // namespace glow::files
