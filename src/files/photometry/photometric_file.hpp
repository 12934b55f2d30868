#pragma once

#include <filesystem>

#include "files/photometry/photometry_reader.hpp"

namespace glow::files {

/// Files beside the one at `path`, for readers that need them.
Companion beside(const std::filesystem::path& path);

/// Opens and reads a photometric file, with what lies beside it. `named_at`: where it is named, for a file
/// that cannot be opened. Nothing comes back exactly when an error was added.
std::optional<photometry::Photometry> read_photometric_file(const std::filesystem::path& path,
                                                            Problems& problems, const Place& named_at = {});

}  // namespace glow::files
