#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/photometry/photometry.hpp"
#include "core/problems/problems.hpp"

namespace glow::files {

/// Largest photometric file that is read; real ones stay far below a megabyte.
inline constexpr std::size_t kLargestPhotometricFile = 16u << 20;
/// Largest number of planes, and of angles in a plane, that is believed.
inline constexpr int kMostAngles = 3601;

/// Reads IES LM-63 or EULUMDAT, told apart by content, not by suffix. `name` is only for messages.
/// Nothing comes back exactly when at least one error was added to `problems`; warnings name what was
/// assumed.
std::optional<photometry::Photometry> read_photometry(std::string_view bytes, const std::string& name,
                                                      Problems& problems);

/// IES LM-63-1986 to -2019, type C, TILT=NONE and TILT=INCLUDE.
std::optional<photometry::Photometry> read_ies(std::string_view bytes, const std::string& name,
                                               Problems& problems);

/// EULUMDAT, Isym 0 to 4.
std::optional<photometry::Photometry> read_eulumdat(std::string_view bytes, const std::string& name,
                                                    Problems& problems);

}  // namespace glow::files
