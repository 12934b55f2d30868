// How the engine grows, and how it does against plain path tracing. Prints tables; takes a few minutes.
//
//   equal error   the furnished room: time to the same error at points as plain path tracing with the same
//   rays threads       the furnished room on one thread and on all arrays        1 000 different arrays of
//   luminaires in one room growth        a hall at fixed grid spacing: by floor area, and by number of
//   luminaires hall          120 x 60 m, 600 luminaires, 200 racks: time and memory
#include <fmt/format.h>

#include <chrono>
#include <fstream>
#include <numeric>
#include <string>

#include "bench/benches.hpp"
#include "bench/path_tracing.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/sources/luminaire_inflow.hpp"

namespace glow::bench::scale_bench {
namespace {

using transport::Effort;
using transport::GroupLight;
using transport::Transport;

class Stopwatch {
 public:
  double seconds() const {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin_).count();
  }

 private:
  std::chrono::steady_clock::time_point begin_ = std::chrono::steady_clock::now();
};

std::vector<double> totals(const GroupLight& light) {
  std::vector<double> sum(light.direct_lx.size());
  for (std::size_t i = 0; i < sum.size(); ++i) sum[i] = light.direct_lx[i] + light.interreflected_lx[i];
  return sum;
}

std::vector<double> computed(const rooms::TestRoom& space, const Effort& effort) {
  return totals(
      sources::relight(Transport(space.geometry, space.receivers, effort, Watch{}), space.luminaires, {}));
}

void equal_error() {
  const rooms::TestRoom space = rooms::furnished_room();
  const std::vector<double> truth = computed(space, {12000, 256, 16384, 999});
  constexpr int kRuns = 5;
  double ours = 0, squares = 0;
  for (int run = 1; run <= kRuns; ++run) {
    Effort effort;
    effort.seed = std::uint64_t(run);
    const Stopwatch watch;
    const std::vector<double> values = computed(space, effort);
    ours += watch.seconds() / kRuns;
    squares += std::pow(error_of(values, truth), 2) / kRuns;
  }
  const double our_error = std::sqrt(squares);
  const geometry::RayTracer tracer(space.geometry);
  const ProgramsRays rays{&tracer};
  constexpr int kPaths = 2000;
  std::vector<double> values(space.receivers.size());
  const Stopwatch watch;
  parallel_for(values.size(), {}, "", [&](std::size_t r) {
    rooms::PathTracer path_tracer(space, rays, unsigned(r + 1));
    values[r] = rooms::estimate(path_tracer, space.receivers[r], kPaths).mean;
  });
  const double path_seconds = watch.seconds(), path_error = error_of(values, truth);
  const double at_equal_error = path_seconds * std::pow(path_error / our_error, 2);
  fmt::print(
      FMT_STRING("equal error, furnished room, {} points\n"
                 "  ours          {:.3f} s, error {:.3f} %\n"
                 "  path tracing  {:.3f} s with {} paths a point, error {:.2f} %; {:.1f} s at our error\n"
                 "  ratio         {:.0f}   (aim: at least 50)\n\n"),
      values.size(), ours, 100 * our_error, path_seconds, kPaths, 100 * path_error, at_equal_error,
      at_equal_error / ours);
}

void threads() {
  const rooms::TestRoom space = rooms::furnished_room();
  const auto best = [&](int count) {
    const ThreadLimit limit(count);
    double least = 1e9;
    for (int run = 0; run < 7; ++run) {
      const Stopwatch watch;
      computed(space, {800, 512, 1024, 1});
      least = std::min(least, watch.seconds());
    }
    return least;
  };
  const double one = best(1), two = best(2);
  fmt::print(
      FMT_STRING("threads, furnished room\n  one {:.3f} s, two {:.3f} s, ratio {:.2f}   (aim: 1.8)\n\n"), one,
      two, one / two);
}

photometry::PlacedLuminaire panel() {
  photometry::PlacedLuminaire luminaire;
  luminaire.table = rooms::lobe(1500, 1.5, 0.2);
  luminaire.area = {photometry::LuminousShape::rectangle, 1.2, 0.3, {}};
  return luminaire;
}

/// rows x columns evenly over x by y metres, at height z.
std::vector<photometry::PlacedLuminaire> array(double x, double y, double z, int rows, int columns,
                                               double rotation_deg) {
  std::vector<photometry::PlacedLuminaire> luminaires;
  for (int j = 0; j < rows; ++j)
    for (int i = 0; i < columns; ++i) {
      luminaires.push_back(panel());
      luminaires.back().frame =
          geometry::Frame::upright({(i + 0.5) * x / columns, (j + 0.5) * y / rows, z}, rotation_deg);
    }
  return luminaires;
}

void arrays() {
  rooms::TestRoom space;
  geometry::add_room(space.geometry, {{0, 0}, {9.6, 0}, {9.6, 6.4}, {0, 6.4}}, 3.2, 0.2, 0.5, 0.7);
  for (double y = 0.7; y < 6; y += 0.6)
    for (double x = 0.7; x < 9.2; x += 0.8) space.receivers.push_back({{x, y, 0.8}, Vec3::UnitZ()});
  const Stopwatch whole;
  const Transport transport(space.geometry, space.receivers, Effort{}, Watch{});
  const double full = whole.seconds();
  const Stopwatch watch;
  int count = 0;
  double luminaires = 0;
  for (int rows = 1; rows <= 5; ++rows)
    for (int columns = 1; columns <= 5; ++columns)
      for (int turn = 0; turn < 4; ++turn)
        for (int height = 0; height < 10; ++height, ++count) {
          const auto tried = array(9.6, 6.4, 2.2 + 0.1 * height, rows, columns, 45.0 * turn);
          sources::relight(transport, tried, {});
          luminaires += double(tried.size());
        }
  fmt::print(
      FMT_STRING("arrays, room of 9.6 x 6.4 m, {} points\n  {} arrays of {:.0f} luminaires in the mean: "
                 "{:.2f} s ({:.2f} ms each); transport {:.3f} s\n\n"),
      space.receivers.size(), count, luminaires / count, watch.seconds(), 1000 * watch.seconds() / count,
      full);
}

/// x by y by 9 m, points every 2 m; racks of 6 x 1.2 x 5 m in rows; the program's default effort.
rooms::TestRoom hall(double x, double y, int racks) {
  rooms::TestRoom space;
  geometry::add_room(space.geometry, {{0, 0}, {x, 0}, {x, y}, {0, y}}, 9, 0.3, 0.5, 0.7);
  const int columns = std::max(1, int(x / 10));
  for (int i = 0; i < racks; ++i) {
    const Vec3 at(2 + i % columns * 10, 2 + i / columns * 3.5, 0);
    if (at.y() + 1.2 < y) space.geometry.add_box("rack", at, at + Vec3(6, 1.2, 5), rooms::diffuse(0.4));
  }
  for (double py = 1; py < y; py += 2)
    for (double px = 1; px < x; px += 2) space.receivers.push_back({{px, py, 0.2}, Vec3::UnitZ()});
  return space;
}

struct Cost {
  std::size_t points = 0, patches = 0;
  double transport = 0, relight = 0;
};

Cost cost_of(const rooms::TestRoom& space) {
  const Stopwatch full;
  const Transport transport(space.geometry, space.receivers, Effort{}, Watch{});
  Cost cost{space.receivers.size(), transport.patches().size(), full.seconds(), 0};
  const Stopwatch relight;
  sources::relight(transport, space.luminaires, {});
  cost.relight = relight.seconds();
  return cost;
}

void growth() {
  fmt::print(
      FMT_STRING("growth with floor area, 100 luminaires\n\n"
                 "| floor, m2 | points | patches | transport, s | light, s | s per 1000 m2 |\n"
                 "| ---: | ---: | ---: | ---: | ---: | ---: |\n"));
  for (const double x : {30.0, 60.0, 120.0, 240.0}) {
    rooms::TestRoom space = hall(x, 30, int(x / 4));
    space.luminaires = array(x, 30, 8, 5, 20, 0);
    const Cost c = cost_of(space);
    fmt::print(FMT_STRING("| {} | {} | {} | {:.2f} | {:.2f} | {:.2f} |\n"), 30 * x, c.points, c.patches,
               c.transport, c.relight, (c.transport + c.relight) / (30 * x) * 1000);
  }
  fmt::print(FMT_STRING(
      "\ngrowth with the number of luminaires, 60 x 30 m\n\n"
      "| luminaires | transport, s | light, s | ms per luminaire |\n| ---: | ---: | ---: | ---: |\n"));
  for (const int rows : {2, 4, 8, 16}) {
    rooms::TestRoom space = hall(60, 30, 15);
    space.luminaires = array(60, 30, 8, rows, 25, 0);
    const Cost c = cost_of(space);
    fmt::print(FMT_STRING("| {} | {:.2f} | {:.2f} | {:.2f} |\n"), space.luminaires.size(), c.transport,
               c.relight, 1000 * c.relight / double(space.luminaires.size()));
  }
  fmt::print(FMT_STRING("\n"));
}

double peak_memory_gb() {
  std::ifstream status("/proc/self/status");
  std::string word;
  double kb = 0;
  while (status >> word)
    if (word == "VmHWM:") status >> kb;
  return kb / 1024 / 1024;
}

void large_hall() {
  rooms::TestRoom space = hall(120, 60, 200);
  space.luminaires = array(120, 60, 8, 20, 30, 0);
  const Cost c = cost_of(space);
  fmt::print(FMT_STRING("hall of 120 x 60 m, 600 luminaires, 200 racks: {} points, {} patches\n"
                        "  transport {:.1f} s, light {:.1f} s, peak memory {:.2f} GB   (aim: under 2)\n"),
             c.points, c.patches, c.transport, c.relight, peak_memory_gb());
}

int measure(const Words& words) {
  const std::string only = words.at(0, "");
  const auto wanted = [&](const char* name) { return only.empty() || only == name; };
  if (wanted("hall")) large_hall();
  if (wanted("growth")) growth();
  if (wanted("arrays")) arrays();
  if (wanted("threads")) threads();
  if (wanted("error")) equal_error();
  return 0;
}

const Measurement known("scale", measure);

}  // namespace
}  // namespace glow::bench::scale_bench
