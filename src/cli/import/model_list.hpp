#pragma once

#include <string>

#include "core/plans/models/model.hpp"

namespace glow::cli {

/// What a building model holds, for a person who is about to take it.
std::string model_list(const plans::Model& model, const std::string& file);

}  // namespace glow::cli
