// Whether the stated uncertainty is honest: three rooms, computed many times with other seeds, against runs
// of far greater effort. Prints how often the truth lies inside the stated 95 % interval.
//
//   confidence [repetitions, 100] [accuracy: draft, normal, fine] [room: furnished, plain, long-low]
#include <fmt/format.h>

#include <cstdlib>
#include <numeric>
#include <string>

#include "bench/benches.hpp"
#include "bench/tally.hpp"
#include "core/assess/grid_uncertainty.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "rooms/furnished_room.hpp"

namespace glow::bench::confidence_bench {
namespace {

constexpr int kLongRuns = 4;
constexpr std::size_t kPoints = 8;  // that are looked at one by one

struct Values {
  double mean = 0, least = 0, u0 = 0;
  readings::Uncertainty uncertainty;
  std::vector<double> points, point_uncertainty;
};

/// Every so many of the receivers.
std::vector<std::size_t> chosen_points(const rooms::TestRoom& room) {
  std::vector<std::size_t> points;
  for (std::size_t k = 0; k < kPoints; ++k)
    points.push_back((2 * k + 1) * room.receivers.size() / (2 * kPoints));
  return points;
}

Values computed(const rooms::TestRoom& space, const transport::Effort& effort, bool with_uncertainty) {
  const transport::Transport transport(space.geometry, space.receivers, effort, Watch{});
  const transport::GroupLight light = sources::relight(transport, space.luminaires, {});
  std::vector<double> total(light.direct_lx.size());
  for (std::size_t i = 0; i < total.size(); ++i) total[i] = light.total_lx(i);
  const readings::Statistics s = readings::statistics(total);
  Values values;
  values.mean = s.mean_lx;
  values.least = s.min_lx;
  values.u0 = *s.u0;
  for (const std::size_t p : chosen_points(space)) values.points.push_back(total[p]);
  if (!with_uncertainty) return values;
  std::vector<std::size_t> all(total.size());
  std::iota(all.begin(), all.end(), std::size_t{0});
  const transport::LightError error(transport, light);
  values.uncertainty = assess::grid_uncertainty(error, light, all);
  for (const std::size_t p : chosen_points(space))
    values.point_uncertainty.push_back(assess::point_uncertainty(error, light, p));
  return values;
}

/// Downlights of a cosine beam, nothing else.
rooms::TestRoom bare_room(const Vec2& size, double height, const std::vector<Vec2>& luminaires) {
  rooms::TestRoom room;
  const geometry::Polygon outline = {{0, 0}, {size.x(), 0}, size, {0, size.y()}};
  geometry::add_room(room.geometry, outline, height, 0.2, 0.5, 0.7);
  photometry::PlacedLuminaire luminaire;
  luminaire.table = rooms::lobe(900, 1, 0);
  luminaire.area = {photometry::LuminousShape::rectangle, 0.6, 0.6, {}};
  for (const Vec2& at : luminaires) {
    luminaire.frame = geometry::Frame::upright({at.x(), at.y(), height - 0.001}, 0);
    room.luminaires.push_back(luminaire);
  }
  const auto grid = readings::plane_grid(outline, 0.75, 0.5, 0.6);
  for (const Vec3& p : grid->points) room.receivers.push_back({p, Vec3::UnitZ()});
  return room;
}

rooms::TestRoom room_called(const std::string& name) {
  if (name == "plain") return bare_room({6, 4}, 3, {{1.5, 2}, {4.5, 2}});
  if (name == "long-low") {
    std::vector<Vec2> row;
    for (double x = 2; x < 20; x += 4) row.emplace_back(x, 1.5);
    return bare_room({20, 3}, 2.4, row);
  }
  return rooms::furnished_room();
}

void examine(const std::string& name, const transport::Effort& normal, int repetitions) {
  const rooms::TestRoom space = room_called(name);
  Values truth;
  truth.points.assign(kPoints, 0.0);
  for (int seed = 1; seed <= kLongRuns; ++seed) {
    const Values v = computed(space, {12000, 256, 16384, std::uint64_t(100000 + seed), 1e-4}, false);
    truth.mean += v.mean / kLongRuns;
    truth.least += v.least / kLongRuns;
    truth.u0 += v.u0 / kLongRuns;
    for (std::size_t p = 0; p < kPoints; ++p) truth.points[p] += v.points[p] / kLongRuns;
  }
  Tally mean{"mean"}, least{"minimum"}, u0{"U0"}, points{"points, one by one"};
  for (int seed = 1; seed <= repetitions; ++seed) {
    transport::Effort effort = normal;
    effort.seed = std::uint64_t(seed);
    const Values v = computed(space, effort, true);
    mean.add(v.mean, truth.mean, v.uncertainty.mean_lx);
    least.add(v.least, truth.least, v.uncertainty.min_lx);
    u0.add(v.u0, truth.u0, v.uncertainty.u0);
    for (std::size_t p = 0; p < kPoints; ++p)
      points.add(v.points[p], truth.points[p], v.point_uncertainty[p]);
  }
  fmt::print(FMT_STRING("\n{}: long runs: mean {:.3f} lx, minimum {:.3f} lx, U0 {:.4f}\n\n"), name,
             truth.mean, truth.least, truth.u0);
  Tally::print_head(repetitions);
  for (const Tally& tally : {mean, least, u0, points}) tally.print();
}

int measure(const Words& words) {
  const int repetitions = words.number(0, 100);
  const std::string accuracy = words.at(1, "normal");
  const transport::Effort effort = accuracy == "draft"  ? transport::Effort::draft()
                                   : accuracy == "fine" ? transport::Effort::fine()
                                                        : transport::Effort::normal();
  for (const char* room : {"furnished", "plain", "long-low"})
    if (words.at(2, room) == room) examine(room, effort, repetitions);
  return 0;
}

const Measurement known("confidence", measure);

}  // namespace
}  // namespace glow::bench::confidence_bench
