#pragma once

#include <memory>
#include <optional>
#include <string>

#include "core/transport/effort.hpp"
#include "core/transport/exchange.hpp"
#include "core/transport/mirror_images.hpp"
#include "core/transport/occluders.hpp"
#include "core/transport/patch_light.hpp"

namespace glow::transport {

/// Where a room's light ends up. emitted = absorbed + escaped + lost, to the residual of the solution.
struct FluxBalance {
  double emitted_lm = 0;
  double absorbed_lm = 0;
  double escaped_lm = 0;       ///< leaves an open scene
  double lost_lm = 0;          ///< emitted into a surface or an object
  double captured_share = 1;   ///< see PatchLight
  int traced_luminaires = 0;   ///< see PatchLight
  double solver_residual = 0;  ///< relative, of the linear system
  /// Adds another group's, at `factor` of its output.
  void add(const FluxBalance& other, double factor);
};

/// What one group of luminaires gives at full output, or a weighted sum of groups: initial values, no
/// maintenance factor.
struct GroupLight {
  std::vector<double> direct_lx;          ///< per receiver; through clear panes as well
  std::vector<double> interreflected_lx;  ///< per receiver; over mirrors as well
  Eigen::VectorXd patch_flux_lm;          ///< straight on each patch
  Eigen::MatrixXf patch_flux_sets_lm;     ///< see PatchLight
  Eigen::VectorXd patch_irradiance_lx;    ///< per patch, total
  Eigen::VectorXd exitance_by_rays;       ///< per patch, lm/m2: what receivers found with rays (HotPatches)
  FluxBalance balance;

  /// Adds another group's light at `factor` of its output.
  void add(const GroupLight& other, double factor);
};

/// A receiver that cannot be lit as it stands.
struct MisplacedReceiver {
  std::size_t receiver = 0;
  std::string inside;  ///< name of the surface whose inside it looks at; empty: it is outside the room
};

/// Which receivers are read, a flag for each; empty: all of them. The others get no light.
using ReceiverChoice = std::vector<bool>;
inline bool is_chosen(const ReceiverChoice& choice, std::size_t receiver) {
  return choice.empty() || choice[receiver];
}

/// How light travels in one geometry, for one set of receivers. Knows no luminaires: any of them, anywhere,
/// is a `relight`. Immutable once made; the same values whatever the number of threads.
class Transport {
 public:
  /// Traces. Throws Cancelled.
  Transport(geometry::Geometry geometry, std::vector<Receiver> receivers, const Effort& effort,
            const Watch& watch);
  /// From what was traced before for the very same geometry, receivers and effort, if there is something.
  Transport(std::optional<TracedHits> known, geometry::Geometry geometry, std::vector<Receiver> receivers,
            const Effort& effort, const Watch& watch);
  Transport(const Transport&) = delete;
  Transport& operator=(const Transport&) = delete;

  GroupLight relight(const std::vector<photometry::PlacedLuminaire>& luminaires, const Watch& watch,
                     const ReceiverChoice& choice = {}) const;

  /// The light that follows from what falls straight on the patches; `direct_lx` is taken as it is, and light
  /// over mirrors to a receiver is left out. `like`: light of the same places, which it is found quicker
  /// from.
  GroupLight spread(PatchLight on_patches, std::vector<double> direct_lx, const Watch& watch,
                    const GroupLight* like = nullptr, const ReceiverChoice& choice = {}) const;

  /// The same light with another diffuse reflectance of what lands on each patch (Exchange::reflectance):
  /// what a brighter or darker finish would do. The balance of flux is the one of `light`.
  GroupLight refinished(const GroupLight& light, const Eigen::VectorXd& reflectance, const Watch& watch,
                        const ReceiverChoice& choice = {}) const;

  /// What some of the receivers get from patches of this exitance (lm/m2), lx, in their order.
  std::vector<double> reflected_at(const std::vector<std::size_t>& receivers,
                                   const Eigen::VectorXd& exitance) const;

  /// What luminaires give some of the receivers by way of diffuse surfaces alone, lx, in their order; light
  /// over mirrors to a receiver is left out. Cheaper than a relight: light that has to be traced out is so
  /// with a quarter of the rays.
  std::vector<double> reflected_from(const std::vector<photometry::PlacedLuminaire>& luminaires,
                                     const std::vector<std::size_t>& receivers, const Watch& watch) const;

  /// Receivers that look at the inside of an object, or at nothing in an enclosed room, with more than a
  /// quarter of their rays: they lie inside something, or in a surface.
  std::vector<MisplacedReceiver> misplaced() const;

  const geometry::Geometry& geometry() const { return geometry_; }
  const std::vector<Receiver>& receivers() const { return receivers_; }
  const PatchSet& patches() const { return patches_; }
  const TracedHits& hits() const { return hits_; }
  const Exchange& exchange() const { return exchange_; }
  const geometry::RayTracer& tracer() const { return tracer_; }
  const Occluders& occluders() const { return occluders_; }
  const Effort& effort() const { return effort_; }

 private:
  void read_direct(const std::vector<photometry::PlacedLuminaire>& luminaires, const Watch& watch,
                   const ReceiverChoice& choice, GroupLight& light) const;
  /// What receivers get from patches of this exitance, lx; `by_rays`: see GroupLight::exitance_by_rays.
  std::vector<double> gathered(const Eigen::VectorXd& exitance, Eigen::VectorXd& by_rays, const Watch& watch,
                               const ReceiverChoice& choice) const;

  geometry::Geometry geometry_;
  std::vector<Receiver> receivers_;
  Effort effort_;
  geometry::RayTracer tracer_;
  PatchSet patches_;
  TracedHits hits_;
  Exchange exchange_;
  MirrorImages mirrors_;
  Occluders occluders_;
};

}  // namespace glow::transport
