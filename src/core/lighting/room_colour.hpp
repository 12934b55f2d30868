#pragma once

#include "core/colour/bands.hpp"
#include "core/lighting/lighting.hpp"

namespace glow::lighting {

/// By sources: the chromaticity of what each sends out; nothing where it is not known.
using SourceColours = std::vector<std::optional<colour::Chromaticity>>;

/// The colour of the light at a receiver, of sources whose colour is known.
struct ReceivedColour {
  std::optional<colour::Chromaticity> direct, total;  ///< nothing: there is no such light
  double direct_lx = 0, known_lx = 0;                 ///< what of the light that is: direct, all
};

/// Light of coloured sources in a room. Surfaces of a colour tint what they throw back: the balance between
/// patches is solved in three bands on the one exchange. Of each source the illuminance stays what it is
/// without colours; only its chromaticity comes from the bands.
class RoomColour {
 public:
  /// `sources`: at full output as new, on that transport; both must outlive this. `choice`: receivers that
  /// are asked for. Without coloured surfaces this costs nothing. Throws Cancelled.
  RoomColour(const transport::Transport& transport, const std::vector<transport::GroupLight>& sources,
             const transport::ReceiverChoice& choice, const Watch& watch);

  /// With these weights, maintained.
  ReceivedColour at(std::size_t receiver, const Weights& weights, const SourceColours& colours) const;

 private:
  colour::Tristimulus reflected(std::size_t source, std::size_t receiver,
                                const colour::Chromaticity& chromaticity) const;

  const std::vector<transport::GroupLight>* sources_;
  /// By sources: interreflected light at each receiver as if all surfaces had their reflectance in one band.
  std::vector<std::array<std::vector<double>, 3>> in_bands_;
};

/// Reflectance of what lands on each patch, in one band.
Eigen::VectorXd reflectance_in_band(const transport::Transport& transport, int band);

/// Whether any surface has a colour.
bool has_coloured_surfaces(const geometry::Geometry& geometry);

}  // namespace glow::lighting
