#pragma once

#include <functional>
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

/// Gives the content of a file that lies beside the photometric file, by its plain name; nothing when there
/// is none. Readers never ask for a name that leads to another folder.
using Companion = std::function<std::optional<std::string>(const std::string& name)>;

/// Reads IES LM-63 or EULUMDAT, told apart by content, not by suffix. `name` is for messages, and to compare
/// its suffix. Nothing comes back exactly when at least one error was added to `problems`; warnings name what
/// is doubtful and what was done about it, notes what was assumed. Codes are words: "truncated",
/// "flux-mismatch", "open-circle", ...
std::optional<photometry::Photometry> read_photometry(std::string_view bytes, const std::string& name,
                                                      Problems& problems, const Companion& companion = {});

/// IES LM-63-1986, -1991, -1995, -2002 and -2019; types A, B and C; TILT none, included or in a file beside
/// it.
std::optional<photometry::Photometry> read_ies(std::string_view bytes, const std::string& name,
                                               Problems& problems, const Companion& companion = {});

/// EULUMDAT, Isym 0 to 4, any number of lamp sets (the first is used), relative and absolute.
std::optional<photometry::Photometry> read_eulumdat(std::string_view bytes, const std::string& name,
                                                    Problems& problems);

}  // namespace glow::files
