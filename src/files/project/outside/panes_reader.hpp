#pragma once

#include "core/model/room_parts.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// How much of the light an opening's glass lets through at an angle: `glazing` and `dirt`.
void read_glazing(TomlTable& opening, model::Opening& into);

/// `frame` as a share, or as { width, bar, columns, rows }: then its bars cast shadows. Nothing is stated
/// without it.
std::optional<double> read_frame(TomlTable& opening, model::Opening& into);

/// What hangs before it: `overhang`, `fins`, `slats`, `screen`, `blind`; each a table or a list of tables.
void read_shades(TomlTable& opening, model::Opening& into);

}  // namespace glow::files
