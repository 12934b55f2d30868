// GR (CIE 112) of all eyes of a room, outdoors and in sports, with luminaires as new.
#include <algorithm>
#include <cmath>

#include "core/assess/glare_reader.hpp"

namespace glow::assess {
namespace {

constexpr double kStep = 5;                                   // degrees between directions; CIE 112
constexpr double kGrPerEFold = 24 * 0.9 / 2.302585092994046;  // GR for a relative change of the surroundings

/// Level directions in which an eye is rated.
std::vector<double> azimuths_at(const space::EyeSet& set, std::size_t position) {
  std::vector<double> azimuths;
  for (double a = 0; set.all_round && a < 360; a += kStep) azimuths.push_back(a);
  for (std::size_t d = 0; !set.all_round && d < set.directions(); ++d)
    azimuths.push_back(set.azimuths_deg[position * set.directions() + d]);
  return azimuths;
}

Vec3 rated_sight(double azimuth_deg) {
  const double down = glare::kRatingDown * kDegree, a = azimuth_deg * kDegree;
  return {std::cos(down) * std::cos(a), std::cos(down) * std::sin(a), -std::sin(down)};
}

/// Of one eye in its worst direction.
EyeRating rating_of(const std::vector<glare::SeenSource>& seen, const Vec3& eye,
                    const std::vector<double>& azimuths, double mean_lx, double reflectance) {
  EyeRating worst;
  for (const double azimuth : azimuths) {
    const Vec3 sight = rated_sight(azimuth);
    const glare::GlareRating rating = glare::glare_rating(seen, eye, sight, mean_lx, reflectance);
    if (!rating.value || (worst.gr && *rating.value <= *worst.gr)) continue;
    worst = {rating.value, azimuth, -1, 0};
    for (const glare::SeenSource& source : seen) {
      const double share = glare::veiling_luminance(source, eye, sight) / rating.veiling_luminaires_cd_m2;
      if (share > worst.worst_share) worst.worst_source = int(source.source);
      worst.worst_share = std::max(worst.worst_share, share);
    }
  }
  return worst;
}

}  // namespace

void rate(const Setting& setting, const SeenFromEyes& eyes, const LitRoom& lit, double mean_lx,
          const Watch& watch, RoomGlare& glare) {
  const GlareOrigins origins(*lit.groups, lit.weights);
  const std::vector<int> in_place = origins.in_places_of(eyes.own());
  for (std::size_t s = 0; s < glare.sets.size(); ++s) {
    EyeSetGlare& set = glare.sets[s];
    set.ratings.assign(set.set.positions.size(), {});
    parallel_for(set.ratings.size(), watch, "glare", [&](std::size_t p) {
      set.ratings[p] = rating_of(eyes.seen(origins, in_place, s, p), set.set.positions[p],
                                 azimuths_at(set.set, p), mean_lx, setting.space().reflectances.floor);
    });
    set.worst_rating.reset();
    for (std::size_t p = 0; p < set.ratings.size(); ++p) {
      const auto& gr = set.ratings[p].gr;
      if (gr && (!set.worst_rating || *gr > *set.ratings[*set.worst_rating].gr)) set.worst_rating = p;
    }
  }
}

double rating_uncertainty(const GridReading& plane) {
  return plane.statistics.mean_lx > 0 ? kGrPerEFold * plane.uncertainty.mean_lx / plane.statistics.mean_lx
                                      : 0;
}

}  // namespace glow::assess
