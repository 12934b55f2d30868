#pragma once

#include <array>
#include <map>

#include "core/assess/grid_reader.hpp"
#include "core/assess/room_glare_sources.hpp"

namespace glow::assess {

/// Receivers for the background of all views, in the order of space.eyes; none for sets whose UGR is not
/// rated.
std::vector<readings::Receiver> eye_receivers(const space::Space& space);

readings::Receiver eye_receiver(const space::EyeSet& set, std::size_t view);

/// Views of a set that may turn out to be its worst when all is known better.
std::vector<std::size_t> critical_views(const EyeSetGlare& set);
/// Takes the background of these views from a finer calculation, whose receivers from `first` on are theirs.
void refine(EyeSetGlare& set, const std::vector<std::size_t>& views, const transport::Transport& transport,
            const RoomLight& light, std::size_t first);
/// Half width of the 95 % interval of UGR that the background of a receiver brings.
double background_uncertainty(const transport::NumericalError& confidence, const RoomLight& light,
                              std::size_t receiver);

/// UGR of all eyes of a room. Kept apart from its results, since changes are tried with it afterwards.
class GlareReader {
 public:
  /// `first`: number of the first of eye_receivers among the transport's. All must outlive it.
  GlareReader(const space::Space& space, const transport::Transport& transport, const RoomLight& light,
              std::size_t first, const Watch& watch);

  /// Fills in sources and sets, and UGR where it is rated.
  void read(RoomGlare& glare) const;

  /// What causes the worst UGR of a set, and what its number does not say.
  void tell_causes(EyeSetGlare& result) const;

  /// UGR of every view of a set with the change; the background is lit anew.
  std::vector<std::optional<double>> changed(std::size_t set, const RoomGlareSources::Change& change) const;
  /// UGR of one view with the change before the background as it is: quick, to choose by.
  std::optional<double> roughly(const EyeSetGlare& set, std::size_t view,
                                const RoomGlareSources::Change& change) const;

  const RoomGlareSources& sources() const { return sources_; }

 private:
  void read_views(EyeSetGlare& result, std::size_t first) const;
  void mark_buried(RoomGlare& glare) const;
  std::size_t first_of(std::size_t set) const;
  std::vector<double> reflected(const photometry::PlacedLuminaire& luminaire) const;
  const std::vector<double>& known(std::size_t group, std::size_t luminaire) const;

  const space::Space& space_;
  const transport::Transport& transport_;
  const RoomLight& light_;
  std::size_t first_;
  const Watch& watch_;
  RoomGlareSources sources_;
  /// By way of the surfaces from one luminaire to all views of all sets, lx; what was asked for.
  mutable std::map<std::array<std::size_t, 2>, std::vector<double>> reflected_;
};

}  // namespace glow::assess
