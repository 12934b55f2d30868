#pragma once

#include <memory>

#include "core/space/space.hpp"

namespace glow::space {

/// Lays luminaires in a room, one placement at a time, exactly as `build_space` does: for looking at many.
class GroupPlacer {
 public:
  /// Both must outlive it. What is wrong with the room itself must have been told.
  GroupPlacer(const model::Project& project, const model::Room& room);
  ~GroupPlacer();
  GroupPlacer(const GroupPlacer&) = delete;
  GroupPlacer& operator=(const GroupPlacer&) = delete;

  /// Nothing where it does not fit. Of a fitting with several parts the first.
  std::optional<LuminaireGroup> place(const model::LuminairePlacement& placement) const;

 private:
  struct Parts;
  std::unique_ptr<const Parts> parts_;
};

}  // namespace glow::space
