#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/geometry/polygon.hpp"
#include "core/model/project.hpp"

namespace glow::space {

/// Walls as the designer numbers and names them, found again in the tidied outline, which runs
/// counter-clockwise and joins walls that lie in one line.
class WrittenWalls {
 public:
  WrittenWalls(const model::Room& room, const geometry::Polygon& tidied);

  /// A place on a wall of the tidied outline.
  struct Place {
    std::size_t wall = 0;
    double start_m = 0;  ///< where the written wall's first corner lies along it
    double sign = 1;     ///< +1: the written wall runs the same way
    double along(double from_m) const { return start_m + sign * from_m; }
  };
  /// Nothing when there is no such wall.
  std::optional<Place> find(int number, const std::string& name) const;
  /// Name of a wall of the tidied outline: given, or "wall 3" by its first number as written; outdoors, where
  /// edges carry nothing, "edge 3".
  const std::string& name_of(std::size_t wall) const { return names_[wall]; }
  const std::vector<std::string>& names() const { return names_; }
  /// What a wall can be called, in words, for messages.
  std::string choices() const;

 private:
  std::optional<Place> find_number(int number) const;

  const model::Room& room_;
  const geometry::Polygon& outline_;
  std::vector<std::string> names_;
};

}  // namespace glow::space
