#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/problems/problems.hpp"
#include "files/plans/dxf/document.hpp"

namespace glow::files::dxf {

inline constexpr std::size_t kLargestDrawing = 1u << 29;  // bytes

/// A drawing exchange file, ASCII or binary, of any version from R12 on. Nothing where it cannot be
/// understood, with one error at the line where it breaks off; what it merely lacks are warnings.
std::optional<Document> read_document(std::string_view bytes, const std::string& file, Problems& problems);

}  // namespace glow::files::dxf
