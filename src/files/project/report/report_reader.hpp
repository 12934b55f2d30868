#pragma once

#include "core/model/report_wish.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// [report]: how the designer wants it.
model::ReportWish read_report(TomlTable& root);

}  // namespace glow::files
