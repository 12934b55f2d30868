// GR (CIE 112) of all eyes of a room, outdoors and in sports, with luminaires as new.
#include <algorithm>
#include <cmath>

#include "core/assess/glare/glare_reader.hpp"

namespace glow::assess {
namespace {

constexpr double kStep = 5;                                   // degrees between directions; CIE 112
constexpr double kGrPerEFold = 24 * 0.9 / 2.302585092994046;  // GR for a relative change of the surroundings

/// A direction in which an eye is rated.
struct Sight {
  explicit Sight(double azimuth) : azimuth_deg(azimuth) {
    const double down = glare::kRatingDown * kDegree, a = azimuth * kDegree;
    along = {std::cos(down) * std::cos(a), std::cos(down) * std::sin(a), -std::sin(down)};
  }
  double azimuth_deg;
  Vec3 along;
};

std::vector<Sight> sights_all_round() {
  std::vector<Sight> sights;
  for (double a = 0; a < 360; a += kStep) sights.emplace_back(a);
  return sights;
}

/// `own`: room for those that are not the same for every position.
const std::vector<Sight>& sights_at(const space::EyeSet& set, std::size_t position, std::vector<Sight>& own) {
  static const std::vector<Sight> kAllRound = sights_all_round();
  if (set.all_round) return kAllRound;
  for (std::size_t d = 0; d < set.directions(); ++d)
    own.emplace_back(set.azimuths_deg[position * set.directions() + d]);
  return own;
}

/// Veil per lux from there, by directions.
Eigen::VectorXd veils_of(const Vec3& towards, const std::vector<Sight>& sights) {
  Eigen::VectorXd veils(Eigen::Index(sights.size()));
  for (std::size_t d = 0; d < sights.size(); ++d)
    veils[Eigen::Index(d)] = glare::veil_per_lux(towards, sights[d].along);
  return veils;
}

/// Of one eye in its worst direction. `known`: veils by directions and places; `places`: of sources in it.
EyeRating rating_of(const std::vector<glare::SeenSource>& seen, const Vec3& eye,
                    const std::vector<Sight>& sights, const Eigen::MatrixXd& known,
                    const std::vector<int>& places, double mean_lx, double reflectance) {
  Eigen::MatrixXd veils(Eigen::Index(sights.size()), Eigen::Index(seen.size()));
  for (std::size_t i = 0; i < seen.size(); ++i) {
    const glare::EyeLight light(seen[i], eye);
    const int place = known.size() > 0 ? places[seen[i].source] : -1;
    if (place >= 0)
      veils.col(Eigen::Index(i)) = light.lux * known.col(place);
    else
      veils.col(Eigen::Index(i)) = light.lux * veils_of(light.towards, sights);
  }
  EyeRating worst;
  if (veils.size() == 0) return worst;
  Eigen::Index into = 0, source = 0;
  const double most = veils.rowwise().sum().maxCoeff(&into);
  worst.gr = glare::glare_rating(most, mean_lx, reflectance).value;
  if (!worst.gr) return worst;
  worst.azimuth_deg = sights[std::size_t(into)].azimuth_deg;
  worst.worst_share = veils.row(into).maxCoeff(&source) / most;
  worst.worst_source = int(seen[std::size_t(source)].source);
  return worst;
}

}  // namespace

std::vector<Eigen::MatrixXd> veils_in(const space::EyeSet& set, const GlareOrigins& origins) {
  const auto& sources = origins.sources().sources();
  std::vector<Eigen::MatrixXd> all(set.positions.size());
  for (std::size_t p = 0; p < all.size(); ++p) {
    std::vector<Sight> own;
    const std::vector<Sight>& sights = sights_at(set, p, own);
    all[p].resize(Eigen::Index(sights.size()), Eigen::Index(sources.size()));
    for (std::size_t s = 0; s < sources.size(); ++s)
      all[p].col(Eigen::Index(s)) = veils_of((sources[s].middle() - set.positions[p]).normalized(), sights);
  }
  return all;
}

void rate(const Setting& setting, const SeenFromEyes& eyes, const LitRoom& lit, double mean_lx,
          const Watch& watch, RoomGlare& glare) {
  const GlareOrigins origins(*lit.groups, lit.weights);
  const SamePlaces in_place = origins.in_places_of(eyes.own());
  for (std::size_t s = 0; s < glare.sets.size(); ++s) {
    EyeSetGlare& set = glare.sets[s];
    set.ratings.assign(set.set.positions.size(), {});
    parallel_for(set.ratings.size(), watch, "glare", [&](std::size_t p) {
      std::vector<Sight> own;
      set.ratings[p] =
          rating_of(eyes.seen(origins, in_place, s, p), set.set.positions[p], sights_at(set.set, p, own),
                    eyes.veils(s, p), in_place.sources, mean_lx, setting.space().reflectances.floor);
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
