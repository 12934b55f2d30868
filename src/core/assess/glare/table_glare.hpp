#pragma once

#include <array>
#include <map>
#include <memory>
#include <mutex>

#include "core/assess/glare/room_glare.hpp"
#include "core/cavity/ugr_table.hpp"
#include "core/lighting/weights.hpp"
#include "core/space/brief.hpp"

namespace glow::assess {

/// Values of the tabular method that are known already: they hang on the luminaire and the room's
/// proportions, not on how many there are. For who judges one room again and again; safe to use from several
/// threads.
class TabularMemory {
 public:
  /// See cavity::has_one_ugr_table.
  bool symmetric(const std::shared_ptr<const photometry::Photometry>& photometry) const;
  double ugr(const std::shared_ptr<const photometry::Photometry>& photometry, const cavity::TableRoom& room,
             cavity::Sight sight, const cavity::Reflectances& set) const;

 private:
  /// Keeps the luminaires: what has an address of its own stays another one.
  struct Luminaire {
    std::shared_ptr<const photometry::Photometry> photometry;
    std::optional<bool> symmetric;
    std::map<std::array<double, 6>, double> values;
  };
  mutable std::mutex mutex_;
  mutable std::map<const photometry::Photometry*, Luminaire> luminaires_;
};

/// Reads the luminaire's table for the room's own proportions, both ways along its sides (CIE 190). Holds for
/// rectangular rooms with a flat ceiling and one kind of symmetric luminaire in an even array, upright and
/// square to the room. Rooms beyond the table are read at its edge, which is said.
TableGlare table_glare(const space::Space& space, const space::GlareBrief& brief,
                       const std::vector<space::LuminaireGroup>& groups, const lighting::Weights& weights,
                       const TabularMemory* memory = nullptr);

}  // namespace glow::assess
