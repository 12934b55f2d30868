#pragma once

#include "core/plans/models/shell.hpp"
#include "files/plans/ifc/profiles.hpp"

namespace glow::files::ifc {

/// Bodies of products as flat faces, in m, in the file's coordinates.
class Bodies {
 public:
  explicit Bodies(IfcFile& file) : file_(file), placements_(file), profiles_(file, placements_) {}

  Placements& placements() { return placements_; }

  /// Each body of a product's representation; none where it has none that is read. A product without a place
  /// has none either.
  std::vector<plans::Shell> of(const Item& product);
  /// The same in one.
  plans::Shell whole(const Item& product);

 private:
  void add_representation(const Item& representation, const Eigen::Affine3d& motion, int depth,
                          std::vector<plans::Shell>& shells);
  void add_item(const Item& item, const Eigen::Affine3d& motion, int depth,
                std::vector<plans::Shell>& shells);
  /// A solid in the file's units and its own coordinates.
  plans::Shell solid(const Item& item, int depth);
  plans::Shell extruded(const Item& item);
  plans::Shell faces_of_shell(const Item& shell);
  plans::Shell triangles(const Item& item);
  plans::Shell polygons(const Item& item);
  plans::Shell cut(const Item& item, int depth);
  bool is_within_bounds(const plans::Shell& body, const Item& half_space);
  plans::ShellFace face_of(const Item& face);
  std::vector<Vec3> loop_of(const Item& bound);
  std::vector<Vec3> points_of(const Item& list) const;

  IfcFile& file_;
  Placements placements_;
  Profiles profiles_;
  std::size_t faces_ = 0;  ///< read so far
};

}  // namespace glow::files::ifc
