#pragma once

#include <filesystem>
#include <map>
#include <memory>
#include <vector>

#include "files/plans/plan_taker.hpp"
#include "files/project/writers/building_writer.hpp"

namespace glow::cli {

/// Drawings that floors are taken from, each read once.
class Drawings {
 public:
  explicit Drawings(std::filesystem::path folder) : folder_(std::move(folder)) {}

  /// By its name as written, relative to the folder; null and one error where it cannot be read.
  const files::dxf::Document* read(const std::string& name, Problems& problems);

 private:
  const std::filesystem::path folder_;
  std::map<std::string, std::unique_ptr<files::dxf::Document>> documents_;
};

/// A floor with all that is to be told and drawn of it.
struct TakenStorey {
  files::ImportedFloor imported;
  plans::Frame frame;
  plans::Drawing drawing;  ///< all that can be seen
  std::vector<bool> looked_at;
  Problems problems;
};

/// Takes each floor from its drawing. What is wrong is in `problems` of each; false where one cannot be
/// taken.
bool take_storeys(const std::vector<model::Floor>& floors, Drawings& drawings,
                  std::vector<TakenStorey>& storeys, Problems& problems);

}  // namespace glow::cli
