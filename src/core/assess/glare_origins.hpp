#pragma once

#include "core/assess/room_glare.hpp"
#include "core/glare/seen_sources.hpp"
#include "core/lighting/weights.hpp"

namespace glow::assess {

/// The luminaires of groups, dimmed but as new, as sources of glare, with their names.
class GlareOrigins {
 public:
  /// `weights`: by groups; only their dimming counts.
  GlareOrigins(const std::vector<space::LuminaireGroup>& groups, const lighting::Weights& weights);

  const glare::GlareSources& sources() const { return sources_; }
  const std::vector<GlareSourceName>& names() const { return names_; }
  /// For each source the number of the other's source that stands in its very place and hides behind the
  /// same; -1: there is none.
  std::vector<int> in_places_of(const GlareOrigins& other) const;

 private:
  glare::GlareSources sources_;
  std::vector<GlareSourceName> names_;
};

}  // namespace glow::assess
