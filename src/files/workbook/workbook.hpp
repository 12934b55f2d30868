#pragma once

#include <filesystem>

#include "core/record/record.hpp"

namespace glow::files {

/// A workbook of a run, whole or not at all: a summary of all rooms, all checks, the luminaire schedule,
/// scenes, moments, and a sheet for each room with its grids. Numbers are numbers, with a format each, in the
/// run's units; the same bytes for the same run. Throws OutputError.
void write_workbook(const record::RunRecord& run, const std::filesystem::path& path);

}  // namespace glow::files
