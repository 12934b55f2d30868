#pragma once

#include <optional>
#include <string>

#include "core/plans/models/model.hpp"
#include "core/problems/problems.hpp"

namespace glow::files {

inline constexpr std::size_t kLargestModel = 600u << 20;

/// Whether a file of this name is a building model: .ifc, .xml, .gbxml.
bool is_model(const std::string& name);

/// A building model, IFC or gbXML, told apart by what it holds. Nothing and errors, with their lines, where
/// it is damaged or neither. `unit_m`: metres of one unit of length, instead of the file's own.
std::optional<plans::Model> read_model(std::string bytes, const std::string& name,
                                       std::optional<double> unit_m, Problems& problems);

/// Adds doubts as warnings, each with its place in the file.
void tell_doubts(const std::vector<plans::Doubt>& doubts, const std::string& file, Problems& problems);

}  // namespace glow::files
