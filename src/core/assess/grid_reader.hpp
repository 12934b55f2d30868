#pragma once

#include <map>

#include "core/assess/room_result.hpp"
#include "core/transport/numerical_error.hpp"

namespace glow::assess {

/// A room's light as its luminaires are maintained and dimmed, with what it was initially.
struct RoomLight {
  transport::GroupLight maintained;
  std::vector<double> initial_lx, initial_indirect_lx;  ///< per receiver; the second by way of surfaces
  transport::FluxBalance initial_balance;
};

/// Relights every group. The maintenance factors are applied here and nowhere else.
RoomLight light_room(const space::Space& space, const transport::Transport& transport,
                     const Watch& watch);

/// Turns one pass over a room into results, grid by grid: the transport's receivers have to be the points of
/// the grids, then the spots, in the order of the calls.
class GridReader {
 public:
  GridReader(const transport::Transport& transport, const RoomLight& light);
  /// The grid whose points are the next receivers.
  GridReading next(const space::Grid& source);
  PointReading next(const space::Point& source);
  /// Receivers of the grid read last that its demands are held against; empty when nothing is asked of it.
  const std::vector<std::size_t>& judged() const { return judged_; }
  /// Number of the receiver after all that were read.
  std::size_t position() const { return next_; }

 private:
  readings::Uncertainty uncertainty(const std::vector<std::size_t>& receivers) const;
  void judge(const space::Grid& source, const std::vector<std::size_t>& receivers, GridReading& result);

  const RoomLight& light_;
  transport::NumericalError error_;
  std::map<std::size_t, std::string> misplaced_;
  std::vector<std::size_t> judged_;
  std::size_t next_ = 0;
};

}  // namespace glow::assess
