#pragma once

#include <optional>

#include "cli/options/arguments.hpp"
#include "core/shelf/query.hpp"

namespace glow::cli {

/// --words, --kind, --shape and an option for each number that luminaires are searched by.
void add_shelf_options(boost::program_options::options_description& options);

/// What these options say; nothing, after saying on standard error what is wrong with them.
std::optional<shelf::Query> shelf_query(const Arguments& arguments, const char* command);

/// Keys of the numbers that the options limit, in the order of shelf::measures().
std::vector<std::string> limited_keys(const shelf::Query& query);

}  // namespace glow::cli
