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

/// data/: requirement tables (*.csv), everyday finishes and furniture (*.toml).
const std::vector<EmbeddedFile>& embedded_tables();
/// The one of that name.
inline const EmbeddedFile* embedded_table(std::string_view name) {
  for (const EmbeddedFile& file : embedded_tables())
    if (file.name == name) return &file;
  return nullptr;
}
/// src/report/templates/: pages of documents, and what makes them move.
const std::vector<EmbeddedFile>& embedded_report();
/// demo/: the example project.
const std::vector<EmbeddedFile>& embedded_demo();

}  // namespace glow::files
