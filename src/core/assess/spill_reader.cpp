#include "core/assess/spill_reader.hpp"

#include <algorithm>
#include <cmath>

#include "core/glare/spill_glare.hpp"

namespace glow::assess {
namespace {

constexpr double kLeastAngle = 1.5, kMostAngle = 60;  // degrees off the line of sight that veil it

class SpillReader {
 public:
  SpillReader(const Setting& setting, const SeenFromEyes& eyes, const LitRoom& lit,
              const std::vector<GridReading>& grids, const Watch& watch)
      : setting_(setting),
        space_(setting.space()),
        brief_(*setting.brief().spill),
        eyes_(eyes),
        lit_(lit),
        grids_(grids),
        watch_(watch),
        origins_(*lit.groups, lit.weights),
        in_place_(origins_.in_places_of(eyes.own())) {}

  SpillReading read() {
    SpillReading reading;
    reading.sources = origins_.names();
    reading.small_angles = standards::to_string(brief_.small_angles);
    reading.told = brief_.worst;
    for (std::size_t n = 0; n < space_.neighbours.size(); ++n) reading.neighbours.push_back(neighbour(n));
    for (std::size_t u = 0; u < space_.road_users.size(); ++u) reading.road_users.push_back(road_user(u));
    add_upward(reading);
    return reading;
  }

 private:
  NeighbourReading neighbour(std::size_t n) const;
  SpillSource source_of(const glare::SeenSource& seen, const Vec3& eye, double background) const;
  std::vector<SpillSource> seen_from(std::size_t n, std::size_t eye, double background) const;
  void find_background(const space::NeighbourPlace& place, NeighbourReading& own) const;
  RoadUserReading road_user(std::size_t u) const;
  void add_upward(SpillReading& reading) const;

  const Setting& setting_;
  const space::Space& space_;
  const space::SpillBrief& brief_;
  const SeenFromEyes& eyes_;
  const LitRoom& lit_;
  const std::vector<GridReading>& grids_;
  const Watch& watch_;
  GlareOrigins origins_;
  SamePlaces in_place_;
};

SpillSource SpillReader::source_of(const glare::SeenSource& seen, const Vec3& eye, double background) const {
  SpillSource own;
  own.source = int(seen.source);
  own.distance_m = seen.distance_m;
  own.seen_share = seen.seen_share;
  own.intensity_cd = seen.passed * seen.seen_share * seen.intensity_cd;
  own.projected_area_m2 = seen.seen_share * seen.projected_area_m2;
  const geometry::Frame& frame = origins_.sources().sources()[seen.source].parts.front().placed.frame;
  const Vec3 way = (eye - seen.middle) / seen.distance_m;
  own.gamma_deg = std::acos(std::clamp(way.dot(frame.g0), -1.0, 1.0)) / kDegree;
  own.c_deg = std::fmod(std::atan2(way.dot(frame.c90), way.dot(frame.c0)) / kDegree + 360, 360);
  const glare::WindowGlare glare =
      glare::window_glare(own.intensity_cd, own.projected_area_m2, own.distance_m, background,
                          standards::least_angle(brief_.small_angles));
  own.solid_angle_sr = glare.solid_angle_sr;
  own.luminance_cd_m2 = glare.luminance_cd_m2;
  own.k = glare.k;
  own.outside_range = glare.outside_range;
  return own;
}

/// Highest k first.
std::vector<SpillSource> SpillReader::seen_from(std::size_t n, std::size_t eye, double background) const {
  const space::NeighbourPlace& place = space_.neighbours[n];
  std::vector<SpillSource> sources;
  sources.reserve(origins_.names().size());
  for (const glare::SeenSource& seen : eyes_.seen_by_neighbour(origins_, in_place_, n, eye))
    if ((place.facing.isZero() || (seen.middle - place.eyes[eye]).dot(place.facing) > 0) &&
        seen.seen_share > 0)
      sources.push_back(source_of(seen, place.eyes[eye], background));
  std::stable_sort(sources.begin(), sources.end(),
                   [](const SpillSource& a, const SpillSource& b) { return a.k > b.k; });
  return sources;
}

/// The mean luminance of what a window looks at, luminaires left out: what its grid gets by way of surfaces.
void SpillReader::find_background(const space::NeighbourPlace& place, NeighbourReading& own) const {
  const std::vector<std::size_t>& receivers = setting_.readable()[place.grid];
  double lux = 0;
  for (const std::size_t r : receivers) lux += lit_.light.initial_indirect_lx[r] / double(receivers.size());
  own.finds_background = true;
  own.background_cd_m2 = std::max(glare::kLeastBackground, lux / kPi);
  if (place.grid >= grids_.size() || grids_[place.grid].total_lx.empty()) return;
  const GridReading& grid = grids_[place.grid];
  // k goes with the root of the background, whose doubt is that of the grid.
  if (grid.interreflected_mean_lx > 0)
    own.relative_doubt = std::min(1.0, grid.uncertainty.mean_lx / grid.interreflected_mean_lx) / 2;
}

NeighbourReading SpillReader::neighbour(std::size_t n) const {
  const space::NeighbourPlace& place = space_.neighbours[n];
  NeighbourReading own;
  own.grid = place.grid;
  own.facing = place.facing;
  own.background_cd_m2 = std::max(glare::kLeastBackground, place.background_cd_m2);
  if (place.finds_background) find_background(place, own);
  std::vector<std::vector<SpillSource>> by_eye(place.eyes.size());
  parallel_for(place.eyes.size(), watch_, "neighbours",
               [&](std::size_t eye) { by_eye[eye] = seen_from(n, eye, own.background_cd_m2); });
  std::optional<std::size_t> worst;
  const auto highest = [](const std::vector<SpillSource>& list) {
    return list.empty() ? 0.0 : list.front().k;
  };
  for (std::size_t eye = 0; eye < by_eye.size(); ++eye) {
    const std::size_t first = setting_.plan().first_of_grid[place.grid];
    const bool is_read =
        first != ReadingPlan::kNone && (by_eye.size() == 1 || !setting_.misplaced(first + eye));
    if (!is_read) continue;  // inside of something
    if (by_eye.size() > 1) own.k_by_point.push_back(highest(by_eye[eye]));
    if (!worst || highest(by_eye[eye]) > highest(by_eye[*worst])) worst = eye;
  }
  own.at = place.eyes[worst.value_or(0)];
  if (worst) own.sources = std::move(by_eye[*worst]);
  return own;
}

RoadUserReading SpillReader::road_user(std::size_t u) const {
  const space::RoadUserPlace& place = space_.road_users[u];
  RoadUserReading own;
  own.name = place.name;
  own.eye = place.eye;
  own.sight = place.sight;
  own.road_cd_m2 = place.road_cd_m2;
  double most = 0;
  for (const glare::SeenSource& seen : eyes_.seen_by_road_user(origins_, in_place_, u)) {
    const Vec3 way = (seen.middle - place.eye) / seen.distance_m;
    const double theta = std::acos(std::clamp(way.dot(place.sight), -1.0, 1.0)) / kDegree;
    if (theta > kMostAngle || seen.seen_share <= 0) continue;
    const double lux = seen.passed * seen.seen_share * seen.intensity_cd /
                       (seen.distance_m * seen.distance_m) * way.dot(place.sight);
    const double off = std::max(theta, kLeastAngle);
    const double veil = place.age ? glare::veil_of_age(lux, off, *place.age) : glare::veil(lux, off);
    own.veil_cd_m2 += veil;
    if (veil <= most) continue;
    most = veil;
    own.worst_source = int(seen.source);
  }
  own.increment_percent = glare::threshold_increment(own.veil_cd_m2, own.road_cd_m2);
  return own;
}

void SpillReader::add_upward(SpillReading& reading) const {
  for (std::size_t g = 0; g < lit_.groups->size(); ++g)
    for (const photometry::PlacedLuminaire& luminaire : (*lit_.groups)[g].luminaires) {
      const photometry::HungFlux flux = eyes_.fluxes().of(luminaire);
      reading.all_lm += lit_.weights[g].output * flux.all_lm;
      reading.upward_lm += lit_.weights[g].output * flux.upward_lm;
    }
  const std::vector<std::size_t>& plane = setting_.readable().front();
  if (brief_.required_lx <= 0 || plane.empty() || reading.all_lm <= 0) return;
  double mean = 0, direct = 0;
  for (const std::size_t r : plane) {
    mean += lit_.light.initial_lx[r] / double(plane.size());
    direct += (lit_.light.initial_lx[r] - lit_.light.initial_indirect_lx[r]) / double(plane.size());
  }
  const double up = reading.upward_lm / reading.all_lm, down = 1 - up;
  const double share = std::min(1.0, direct * space_.floor_area_m2 / std::max(1e-9, down * reading.all_lm));
  reading.flux_ratio = glare::upward_flux_ratio(up, down, share, space_.reflectances.floor,
                                                brief_.surround_reflectance, mean / brief_.required_lx);
}

}  // namespace

std::optional<SpillReading> read_spill(const Setting& setting, const SeenFromEyes& eyes, const LitRoom& lit,
                                       const std::vector<GridReading>& grids, const Watch& watch) {
  if (!setting.brief().spill) return std::nullopt;
  return SpillReader(setting, eyes, lit, grids, watch).read();
}

}  // namespace glow::assess
