#include "core/assess/rating_reader.hpp"
#include "core/sources/luminaire_inflow.hpp"

#include <algorithm>
#include <cmath>

namespace glow::assess {
namespace {

constexpr double kStep = 5;                                 // degrees between directions; CIE 112
constexpr double kPerEFold = 24 * 0.9 / 2.302585092994046;  // GR for a relative change of the surroundings

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

}  // namespace

/// Of every eye in its worst direction.
std::vector<EyeRating> RatingReader::rated(const space::EyeSet& set, const glare::GlareSources& sources,
                                           double mean_lx) const {
  std::vector<EyeRating> ratings(set.positions.size());
  parallel_for(set.positions.size(), watch_, "glare", [&](std::size_t p) {
    const Vec3& eye = set.positions[p];
    const auto seen = sources_.seen_from(sources, eye);
    EyeRating& worst = ratings[p];
    for (const double azimuth : azimuths_at(set, p)) {
      const Vec3 sight = rated_sight(azimuth);
      const glare::GlareRating rating =
          glare::glare_rating(seen, eye, sight, mean_lx, space_.reflectances.floor);
      if (!rating.value || (worst.gr && *rating.value <= *worst.gr)) continue;
      worst = {rating.value, azimuth, -1, 0};
      for (const glare::SeenSource& source : seen) {
        const double share = glare::veiling_luminance(source, eye, sight) / rating.veiling_luminaires_cd_m2;
        if (share > worst.worst_share) worst.worst_source = int(source.source);
        worst.worst_share = std::max(worst.worst_share, share);
      }
    }
  });
  return ratings;
}

void RatingReader::read(const GridReading& plane, RoomGlare& glare) const {
  for (EyeSetGlare& set : glare.sets) {
    set.ratings = rated(set.set, sources_.as_they_are(), plane.initial.mean_lx);
    set.worst_rating.reset();
    for (std::size_t p = 0; p < set.ratings.size(); ++p) {
      const auto& gr = set.ratings[p].gr;
      if (gr && (!set.worst_rating || *gr > *set.ratings[*set.worst_rating].gr)) set.worst_rating = p;
    }
    set.rating_uncertainty =
        plane.statistics.mean_lx > 0 ? kPerEFold * plane.uncertainty.mean_lx / plane.statistics.mean_lx : 0;
  }
}

std::vector<EyeRating> RatingReader::changed(const EyeSetGlare& set, const RoomGlareSources::Change& change,
                                             const GridReading& plane,
                                             const std::vector<std::size_t>& receivers) const {
  transport::ReceiverChoice choice(transport_.receivers().size(), false);
  for (const std::size_t r : receivers) choice[r] = true;
  const auto sum = [&](const photometry::PlacedLuminaire& luminaire) {
    const transport::GroupLight light = sources::relight(transport_, {luminaire}, watch_, choice);
    double lux = 0;
    for (const std::size_t r : receivers) lux += light.direct_lx[r] + light.interreflected_lx[r];
    return lux;
  };
  double more = 0;
  for (std::size_t i = 0; i < change.placed.size(); ++i) {
    const auto& [g, l] = change.source->luminaires[i];
    more += space_.groups[g].dimming *
            (change.share * sum(change.placed[i]) - sum(space_.groups[g].luminaires[l]));
  }
  const double mean_lx = plane.initial.mean_lx + more / double(std::max<std::size_t>(1, receivers.size()));
  return rated(set.set, sources_.with(change), mean_lx);
}

}  // namespace glow::assess
