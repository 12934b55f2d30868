#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/model/floor.hpp"
#include "core/plans/found.hpp"
#include "files/project/writers/toml_words.hpp"

namespace glow::files {

/// What plans do not say, m.
inline constexpr double kUsualHeight = 2.8, kDoorHeight = 2.1, kSill = 0.9, kWindowHeight = 1.3;

/// A floor as it was taken from its drawing.
struct ImportedFloor {
  model::Floor floor;  ///< with its drawing
  plans::FoundPlan plan;
  bool height_assumed = true, level_assumed = false;
  Lengths lengths;  ///< as the project has them
};

/// The task that a room's name suggests, with what the requirement table calls it; empty: none.
struct ProposedTask {
  std::string key, words;
};
using ProposeTask = std::function<ProposedTask(const std::string& name)>;

/// A project of rooms that were taken from drawings, as a person would have written it.
struct ImportedBuilding {
  std::string name, standard;
  bool files_outside = false;  ///< a drawing lies outside the project's folder
  bool from_model = false;     ///< heights and sills are what it says
  plans::FoundSite site;       ///< of a model
  std::vector<plans::FoundNeighbour> neighbours;
  std::vector<ImportedFloor> floors;
  std::vector<std::pair<std::string, std::string>> schedule;  ///< marks and their photometric files
};
std::string building_text(const ImportedBuilding& building, const ProposeTask& propose);

/// Names that no two rooms share, in the order of floors and rooms: by number, then by floor, where several
/// rooms are called the same.
std::vector<std::vector<std::string>> unique_names(const std::vector<ImportedFloor>& floors);

/// A floor's table, with its drawing.
std::string floor_text(const ImportedFloor& floor);

}  // namespace glow::files
