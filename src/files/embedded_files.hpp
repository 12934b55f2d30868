#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace glow::files {

/// A file that was built into the program.
struct EmbeddedFile {
  std::string name;  ///< path below its folder, "photometry/tarnfell-p1.ldt"
  std::string_view bytes;
};

/// data/*.csv: the requirement tables.
const std::vector<EmbeddedFile>& embedded_tables();
/// demo/: the example project.
const std::vector<EmbeddedFile>& embedded_demo();

}  // namespace glow::files
