#pragma once

#include <optional>
#include <string>

#include "core/plans/models/model.hpp"
#include "core/problems/problems.hpp"

namespace glow::files::gbxml {

/// A gbXML model. Nothing and errors, with their lines, where the file is damaged. `unit_m`: metres of one
/// unit of length, instead of the file's own. Entities are never expanded and other files never opened.
std::optional<plans::Model> read_gbxml(std::string bytes, const std::string& name,
                                       std::optional<double> unit_m, Problems& problems);

}  // namespace glow::files::gbxml
