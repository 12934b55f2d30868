#include "core/studies/rating_advice.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/studies/explanation.hpp"
#include "core/studies/darkest_points.hpp"

namespace glow::studies {
namespace {

using standards::Check;

constexpr double kDimmed = 0.5;
constexpr double kTilt = 10;   // degrees by which a luminaire is turned down
constexpr double kRaised = 2;  // m

class RatingAdvice {
 public:
  RatingAdvice(const space::Space& space, const assess::RatingReader& reader,
               const std::vector<std::size_t>& plane, assess::RoomResult& result)
      : space_(space), reader_(reader), plane_(plane), result_(result), words_{space.units} {}

  void advise() {
    for (assess::EyeSetGlare& set : result_.glare.sets)
      if (set.worst_rating) try_changes(set);
    for (Check& check : result_.checks) {
      const assess::EyeSetGlare* set = result_.glare.set(check.where);
      if (check.demand.quantity == standards::Quantity::glare_rating &&
          check.verdict == standards::Verdict::not_met && set && set->worst_rating)
        explain(check, *set);
    }
  }

 private:
  const assess::GlareSourceName& first_of(const assess::EyeSetGlare& set) const {
    return result_.glare.sources[std::size_t(std::max(0, set.ratings[*set.worst_rating].worst_source))];
  }
  void try_changes(assess::EyeSetGlare& set) const;
  void keep(assess::EyeSetGlare& set, std::string words, const assess::RoomGlareSources::Change& change) const;
  void explain(Check& check, const assess::EyeSetGlare& set) const;

  const space::Space& space_;
  const assess::RatingReader& reader_;
  const std::vector<std::size_t>& plane_;
  assess::RoomResult& result_;
  Words words_;
};

void RatingAdvice::keep(assess::EyeSetGlare& set, std::string words, const assess::RoomGlareSources::Change& change) const {
  assess::GlareChange kept{std::move(words), -INFINITY, -INFINITY};
  const auto ratings = reader_.changed(set, change, result_.grids.front(), plane_);
  for (std::size_t p = 0; p < ratings.size(); ++p) {
    if (!ratings[p].gr) continue;
    if (p == *set.worst_rating) kept.value = *ratings[p].gr;
    kept.worst = std::max(kept.worst, *ratings[p].gr);
  }
  set.rating_changes.push_back(std::move(kept));
}

void RatingAdvice::try_changes(assess::EyeSetGlare& set) const {
  const assess::GlareSourceName& source = first_of(set);
  const auto placed = reader_.sources().placed(source);
  keep(set, fmt::format(FMT_STRING("dimmed to {:.0f} %"), 100 * kDimmed), {&source, placed, kDimmed});
  auto lower = placed, higher = placed;
  for (photometry::PlacedLuminaire& luminaire : lower) {
    geometry::Frame& frame = luminaire.frame;
    const double lean = std::acos(std::clamp(-frame.g0.z(), -1.0, 1.0)) / kDegree;
    const Vec3 axis = frame.g0.cross(-Vec3::UnitZ());
    if (lean < kTilt || axis.norm() < 1e-6) continue;
    const Eigen::AngleAxisd turn(kTilt * kDegree, axis.normalized());
    for (Vec3* direction : {&frame.c0, &frame.c90, &frame.g0}) *direction = turn * *direction;
  }
  if (lower.front().frame.g0 != placed.front().frame.g0)
    keep(set, fmt::format(FMT_STRING("tilted down by {:g} deg"), kTilt), {&source, lower, 1});
  for (photometry::PlacedLuminaire& luminaire : higher) luminaire.frame.origin.z() += kRaised;
  if (source.position.z() + kRaised < space_.height_m)
    keep(set, fmt::format(FMT_STRING("{} higher"), words_.length(kRaised)), {&source, higher, 1});
}

void RatingAdvice::explain(Check& check, const assess::EyeSetGlare& set) const {
  const assess::EyeRating& worst = set.ratings[*set.worst_rating];
  const assess::GlareSourceName& source = first_of(set);
  check.why.push_back(fmt::format(
      FMT_STRING("worst at {}, eye at {}, looking {:g} deg and {:g} deg down: GR {:.1f}; {} at {} adds "
                 "{:.0f} % of the veil"),
      words_.spot(set.set.positions[*set.worst_rating]), words_.length(set.set.height_m), worst.azimuth_deg,
      glare::kRatingDown, *worst.gr, source.mark, words_.spot(source.position), 100 * worst.worst_share));
  for (const assess::GlareChange& change : set.rating_changes)
    check.help.push_back(fmt::format(FMT_STRING("{} at {} {}: GR {} there, {} at worst among these eyes, {}"),
                                     source.mark, words_.spot(source.position), change.words,
                                     assess::rounded_glare(change.value), assess::rounded_glare(change.worst),
                                     check.would_meet(change.worst) ? "met" : "not enough alone"));
  put_first_what_does_alone(check);
}

}  // namespace

void advise_on_ratings(const space::Space& space, const assess::RatingReader& reader,
                       const std::vector<std::size_t>& plane, assess::RoomResult& result) {
  RatingAdvice(space, reader, plane, result).advise();
}

}  // namespace glow::studies
