#pragma once

#include <optional>
#include <string>

#include "core/plans/models/model.hpp"
#include "core/problems/problems.hpp"

namespace glow::files::ifc {

/// An IFC model (IFC2x3, IFC4 and what later schemas share with them; STEP text). Nothing and errors, with
/// their lines, where the file is damaged. `unit_m`: metres of one unit of length, instead of the file's own.
std::optional<plans::Model> read_ifc(std::string bytes, const std::string& name, std::optional<double> unit_m,
                                     Problems& problems);

}  // namespace glow::files::ifc
