#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "core/parallel/parallel.hpp"
#include "core/shelf/luminaire_facts.hpp"

namespace glow::store {

/// A file, or folder, that could not be read, and why.
struct Refusal {
  std::string file, reason;
};

/// What photometric files hold, all of them in the order of their names.
struct Shelf {
  std::vector<shelf::Entry> entries;
  std::vector<Refusal> refusals;
  std::size_t fresh = 0;     ///< files that were read now: new ones and changed ones
  std::size_t gone = 0;      ///< files that were there at the last look
  std::string why_not_kept;  ///< empty when the next look will be quick
};

/// Looks at files and at all photometric files (.ies, .ldt, .eul) below folders. What was found is kept in an
/// SQLite file by content, so that only new and changed files are read the next time; a file counts as
/// unchanged while its size, its times and its place on the disk are the same and its last change is not
/// too fresh to tell. Several processes may look at once. A damaged file is made anew; one that cannot be
/// used is done without, and said. What cannot be read never stops the rest. After Cancelled what had been
/// read is kept.
Shelf look_at_shelf(const std::vector<std::string>& paths, const std::filesystem::path& database,
                    const Watch& watch);

/// Where it is kept: in glowgrid/ in $XDG_CACHE_HOME or ~/.cache; empty when the user has neither.
std::filesystem::path shelf_database();

}  // namespace glow::store
