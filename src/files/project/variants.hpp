#pragma once

#include <toml++/toml.h>

#include <string>
#include <vector>

#include "core/problems/problems.hpp"

namespace glow::files {

/// What a variant says: a part of a project, laid over all of it. Tables are merged key by key; entries of
/// lists
/// ([[rooms]], their luminaires, openings, objects ..) are found by their `name`, else `mark`, else `wall`,
/// or are new; `remove = true` takes one out, `without = ["array"]` keys of one. Everything else replaces
/// what was there. Positions stay those of the file. False, and errors, where it does not fit.
bool lay_variant_over(toml::table& project, const std::string& variant, const std::string& file,
                      Problems& problems);

/// Names of the variants, in the order of the file.
std::vector<std::string> variant_names(const toml::table& project);

}  // namespace glow::files
