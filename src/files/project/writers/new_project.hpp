#pragma once

#include <string>

#include "core/geometry/vec.hpp"

namespace glow::files {

/// What a first project file is made of.
struct NewProject {
  std::string name, standard;
  std::string room;
  Vec3 size = Vec3(6, 4, 2.8);   ///< m: along x, along y, high
  std::string task, task_words;  ///< key, and what the table calls it
  std::string mark, file;        ///< of the luminaire; the file as it is to be named
  std::string luminaire;         ///< maker and name, for a comment
  bool outside = false;          ///< the file lies outside the project's folder
  bool suspended = false;        ///< it gives light upwards too
  bool arrange = false;          ///< the tool finds the array; else `rows` and `columns`
  int rows = 1, columns = 1;
};

/// A small commented project file, as a person would have written it.
std::string new_project_text(const NewProject& project);

}  // namespace glow::files
