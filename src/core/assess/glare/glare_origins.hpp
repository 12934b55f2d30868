#pragma once

#include "core/assess/glare/room_glare.hpp"
#include "core/glare/seen_sources.hpp"
#include "core/lighting/weights.hpp"

namespace glow::assess {

/// Which sources and luminaires of one set stand in the very places of another's; -1: none.
struct SamePlaces {
  std::vector<int> sources;     ///< that hide behind the same
  std::vector<int> luminaires;  ///< of the same table, turned the same way
};

/// The luminaires of groups, dimmed but as new, as sources of glare, with their names.
class GlareOrigins {
 public:
  /// `weights`: by groups; only their dimming counts.
  GlareOrigins(const std::vector<space::LuminaireGroup>& groups, const lighting::Weights& weights);

  const glare::GlareSources& sources() const { return sources_; }
  const std::vector<GlareSourceName>& names() const { return names_; }
  /// By the sources and luminaires of this one, the numbers of the other's.
  SamePlaces in_places_of(const GlareOrigins& other) const;

 private:
  glare::GlareSources sources_;
  std::vector<GlareSourceName> names_;
};

}  // namespace glow::assess
