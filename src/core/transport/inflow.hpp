#pragma once

#include <vector>

#include "core/transport/sampled_flux.hpp"

namespace glow::transport {

/// What sources send into a space, before any of it is reflected evenly: initial values. Whatever they are,
/// luminaires or sky, transport knows no more of them than this.
struct Inflow {
  SampledFlux on_patches;           ///< straight, through clear panes and over mirrors
  std::vector<double> direct_lx;    ///< per receiver; through clear panes as well
  std::vector<double> mirrored_lx;  ///< per receiver, over mirrors; counts as interreflected
  std::vector<double> error_lx;     ///< per receiver: what both may be off for their own sake; empty: nothing
  double emitted_lm = 0;
  double escaped_lm = 0;  ///< leaves an open space without having met a surface that scatters
  double lost_lm = 0;     ///< starts inside a surface or an object and lights nothing
  /// What points on the patches caught of what should arrive, before it was made to balance: 1 = all of it.
  double captured_share = 1;
  int traced_sources = 0;  ///< too narrow or too near for points on patches: their light was traced out
};

/// Which receivers are read, a flag for each; empty: all of them. The others get no light.
using ReceiverChoice = std::vector<bool>;
/// Whether this receiver is read.
inline bool is_chosen(const ReceiverChoice& choice, std::size_t receiver) {
  return choice.empty() || choice[receiver];
}

}  // namespace glow::transport
