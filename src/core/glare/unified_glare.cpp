#include "core/glare/unified_glare.hpp"

#include <cmath>

namespace glow::glare {
namespace {

constexpr double kSmallFactor = 200;  // CIE 147: 1 / kSmallSource, m-2

}  // namespace

double Ugr::sum() const {
  double sum = 0;
  for (const UgrTerm& t : terms)
    if (t.standing == Standing::counts) sum += t.term;
  return sum;
}

std::optional<double> ugr_value(double sum, double background_cd_m2) {
  if (sum <= 0 || background_cd_m2 <= 0) return std::nullopt;
  return 8 * std::log10(0.25 * sum / background_cd_m2);
}

UgrTerm ugr_term(const SeenSource& seen, const Vec3& eye, const Vec3& sight) {
  UgrTerm t;
  t.seen = seen;
  const SightPosition at = sight_position(eye, sight, seen.middle);
  if (at.ahead_m <= 0) {
    t.standing = Standing::behind;
    return t;
  }
  t.position_index = guth_position_index(at);
  t.below = at.above_m < 0;
  t.standing = seen.seen_share <= 0   ? Standing::hidden
               : in_field_of_view(at) ? Standing::counts
                                      : Standing::outside;
  if (t.standing == Standing::hidden) return t;
  const double p2 = t.position_index * t.position_index;
  const double candela = seen.passed * seen.intensity_cd;
  t.small = seen.projected_area_m2 < kSmallSource;
  if (seen.projected_area_m2 > 0) {
    const double luminance = seen.luminance_cd_m2();
    t.plain_term = luminance * luminance * seen.solid_angle_sr() / p2;
    t.tiny = seen.solid_angle_sr() < kLeastSolidAngle;
    t.large = seen.solid_angle_sr() > kMostSolidAngle;
  }
  t.term = t.small
               ? seen.seen_share * kSmallFactor * candela * candela / (seen.distance_m * seen.distance_m * p2)
               : t.plain_term;
  return t;
}

Ugr unified_glare(const std::vector<SeenSource>& seen, const Vec3& eye, const Vec3& sight,
                  double indirect_lx) {
  Ugr ugr;
  ugr.background_cd_m2 = indirect_lx / kPi;
  ugr.terms.reserve(seen.size());
  double in_front = 0, counting = 0, plain = 0;
  for (const SeenSource& source : seen) {
    ugr.terms.push_back(ugr_term(source, eye, sight));
    const UgrTerm& t = ugr.terms.back();
    in_front += t.term;
    if (t.standing != Standing::counts) continue;
    counting += t.term;
    plain += t.plain_term;
  }
  ugr.value = ugr_value(counting, ugr.background_cd_m2);
  ugr.all_in_front = ugr_value(in_front, ugr.background_cd_m2);
  ugr.without_cie147 = ugr_value(plain, ugr.background_cd_m2);
  return ugr;
}

}  // namespace glow::glare
