#pragma once

#include <filesystem>
#include <optional>
#include <string_view>

#include "core/problems/problems.hpp"
#include "core/record/run_record.hpp"

namespace glow::files {

inline constexpr std::size_t kLargestResults = 256u << 20;

/// Reads a results.json as `results_json` writes it. Nothing comes back, and one error, when it is not.
std::optional<record::RunRecord> read_results(std::string_view bytes, const std::string& name,
                                               Problems& problems);

}  // namespace glow::files
