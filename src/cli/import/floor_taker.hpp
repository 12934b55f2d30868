#pragma once

#include <filesystem>
#include <map>
#include <memory>
#include <vector>

#include "core/plans/models/take_model.hpp"
#include "files/plans/plan_taker.hpp"
#include "files/project/writers/building_writer.hpp"

namespace glow::cli {

/// Drawings and building models that floors are taken from, each read once.
class PlanFiles {
 public:
  explicit PlanFiles(std::filesystem::path folder) : folder_(std::move(folder)) {}

  /// By its name as written, relative to the folder; null and one error where it cannot be read.
  const files::dxf::Document* drawing(const std::string& name, Problems& problems);
  /// The same of a building model, or of the mesh of a room.
  const plans::Model* model(const plans::FloorWish& wish, Problems& problems);
  /// A model's storeys as they lie in a frame, its doubts told once; null as above.
  const plans::TakenModel* storeys(const model::Floor& floor, Problems& problems);

 private:
  const std::filesystem::path folder_;
  std::map<std::string, std::unique_ptr<files::dxf::Document>> documents_;
  std::map<std::string, std::unique_ptr<plans::Model>> models_;
  std::map<std::string, std::unique_ptr<plans::TakenModel>> taken_;
};

/// A floor with all that is to be told and drawn of it.
struct TakenFloor {
  files::ImportedFloor imported;
  std::string subtitle;    ///< of its picture: what it was taken from
  plans::Drawing drawing;  ///< all that can be seen
  std::vector<bool> looked_at;
  Problems problems;
};

/// Floors of one building, and what is around it.
struct TakenBuilding {
  std::vector<TakenFloor> floors;
  plans::FoundSite site;
  std::vector<plans::FoundNeighbour> neighbours;
  bool from_model = false;
};

/// Whether a file is a building model or the mesh of a room, rather than a drawing.
bool is_model_file(const std::string& name);

/// A floor for each storey with rooms of the models; none and errors where one cannot be read.
std::vector<model::Floor> floors_of_models(const std::vector<std::string>& files,
                                           const plans::FloorWish& wish, PlanFiles& plan_files,
                                           Problems& problems);

/// Takes each floor from its drawing or model. What is wrong is in `problems` of each; false where one cannot
/// be taken.
bool take_building(const std::vector<model::Floor>& floors, PlanFiles& plan_files, TakenBuilding& building,
                   Problems& problems);

}  // namespace glow::cli
