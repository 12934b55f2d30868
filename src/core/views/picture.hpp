#pragma once

#include <string>
#include <vector>

#include "core/colour/bands.hpp"
#include "core/geometry/camera.hpp"
#include "core/lighting/room_colour.hpp"

namespace glow::views {

/// What one source gives in a picture, at full output as new (a moment: as it is), pixel by pixel from the
/// upper left one, row by row.
struct PictureLayer {
  std::string source;  ///< the group's name, or the moment's
  bool is_moment = false;
  /// Within what 95 % of pixels of matt surfaces are right, as a share; measured at random ones against a
  /// look of its own. Of groups that of all of them together.
  double uncertainty = 0;
  std::vector<float> luminance;    ///< cd/m2
  std::vector<float> illuminance;  ///< lx on the surface that is seen; 0 where none scatters
  std::vector<float> bands;        ///< three to a pixel: luminance in bands, of white light; empty: grey
};

/// One way to use the room in a picture: what of each layer shines, and in which colour.
struct PictureUse {
  std::string name;                                          ///< of the scene or moment; empty: as placed
  std::vector<double> weights;                               ///< by layers, maintained
  std::vector<std::optional<colour::Chromaticity>> colours;  ///< by layers; nothing: not stated
  std::string when = {};                                     ///< place, date and time of a moment, in words
};

/// A room as it is seen from somewhere: each source apart, so that scenes, exposure, colour and scale are
/// chosen afterwards.
struct Picture {
  std::string room, view, kind;
  geometry::Camera camera;
  std::vector<PictureLayer> layers;
  std::vector<PictureUse> uses;        ///< as placed first
  std::vector<float> depth_m;          ///< to what is met first; infinite: nothing
  std::vector<float> normals;          ///< three to a pixel, of what is met first
  std::vector<std::int32_t> surfaces;  ///< number of its name below; -1: nothing, or what stands outside
  std::vector<std::string> surface_names;

  std::size_t pixels() const { return std::size_t(camera.columns) * std::size_t(camera.rows); }
  /// Null: there is no such use.
  const PictureUse* find_use(const std::string& name) const;
};

/// The same in a use: the largest of its layers that shine.
double uncertainty_of(const Picture& picture, const PictureUse& use);

/// What is seen in a use: absolute values, pixel by pixel.
struct SeenLight {
  std::vector<float> luminance;         ///< cd/m2
  std::vector<float> illuminance;       ///< lx
  std::vector<Eigen::Vector3f> colour;  ///< tristimulus values, Y = luminance
};
SeenLight seen_light(const Picture& picture, const PictureUse& use);

}  // namespace glow::views
