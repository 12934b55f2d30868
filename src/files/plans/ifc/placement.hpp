#pragma once

#include <set>

#include "files/plans/ifc/ifc_file.hpp"

namespace glow::files::ifc {

/// Where things stand. Motions are in the file's own units of length.
class Placements {
 public:
  explicit Placements(IfcFile& file) : file_(file) {}

  /// Of an IfcObjectPlacement, everything it is relative to included. Nothing: a ring, or of a kind that is
  /// not read; both are told.
  std::optional<Eigen::Affine3d> of(std::uint64_t number);
  /// Of an IfcAxis2Placement3D or 2D; without one, no motion.
  Eigen::Affine3d axes(const Item& placement);
  /// Of an IfcCartesianTransformationOperator.
  Eigen::Affine3d operation(const Item& transformation);

  std::optional<Vec3> point(const Item& item) const;      ///< 2-D ones at z = 0
  std::optional<Vec3> direction(const Item& item) const;  ///< of length 1

 private:
  IfcFile& file_;
  std::map<std::uint64_t, std::optional<Eigen::Affine3d>> known_;
  std::set<std::uint64_t> open_;  ///< those that are being read
};

}  // namespace glow::files::ifc
