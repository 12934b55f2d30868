// Whether the stated uncertainty is honest: a furnished room, computed many times with other seeds, against
// runs of far greater effort. Prints how often the truth lies inside the stated 95 % interval.
//
//   confidence_bench [repetitions, 200] [accuracy: draft, normal]
#include <fmt/format.h>

#include <cstdlib>
#include <numeric>
#include <string>

#include "core/assess/grid_uncertainty.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "rooms/furnished_room.hpp"

namespace {

using namespace glow;

struct Values {
  double mean = 0, least = 0, u0 = 0;
  readings::Uncertainty uncertainty;
};

Values computed(const rooms::TestRoom& space, const transport::Effort& effort, bool with_uncertainty) {
  const transport::Transport transport(space.geometry, space.receivers, effort, Watch{});
  const transport::GroupLight light = sources::relight(transport, space.luminaires, {});
  std::vector<double> total(light.direct_lx.size());
  for (std::size_t i = 0; i < total.size(); ++i) total[i] = light.direct_lx[i] + light.interreflected_lx[i];
  const readings::Statistics s = readings::statistics(total);
  Values values{s.mean_lx, s.min_lx, *s.u0, {}};
  if (!with_uncertainty) return values;
  std::vector<std::size_t> all(total.size());
  std::iota(all.begin(), all.end(), std::size_t{0});
  values.uncertainty = assess::grid_uncertainty(transport::NumericalError(transport, light), light, all);
  return values;
}

struct Tally {
  const char* name;
  int inside = 0;
  double error = 0, largest = 0, width = 0;
  void add(double value, double truth, double half_width) {
    const double off = std::abs(value / truth - 1), half = half_width / truth;
    inside += off <= half;
    error += off * off;
    largest = std::max(largest, off);
    width += half;
  }
};

}  // namespace

int main(int argc, char** argv) {
  const int repetitions = argc > 1 ? std::atoi(argv[1]) : 200;
  const bool draft = argc > 2 && std::string(argv[2]) == "draft";
  const rooms::TestRoom space = rooms::furnished_room();
  Values truth;
  constexpr int kLongRuns = 4;
  for (int seed = 1; seed <= kLongRuns; ++seed) {
    const Values v = computed(space, {12000, 256, 16384, std::uint64_t(100000 + seed)}, false);
    truth.mean += v.mean / kLongRuns;
    truth.least += v.least / kLongRuns;
    truth.u0 += v.u0 / kLongRuns;
  }
  Tally mean{"mean"}, least{"minimum"}, u0{"U0"};
  for (int seed = 1; seed <= repetitions; ++seed) {
    transport::Effort effort = draft ? transport::Effort::draft() : transport::Effort::normal();
    effort.seed = std::uint64_t(seed);
    const Values v = computed(space, effort, true);
    mean.add(v.mean, truth.mean, v.uncertainty.mean_lx);
    least.add(v.least, truth.least, v.uncertainty.min_lx);
    u0.add(v.u0, truth.u0, v.uncertainty.u0);
  }
  fmt::print(FMT_STRING("long runs: mean {:.3f} lx, minimum {:.3f} lx, U0 {:.4f}\n\n"), truth.mean,
             truth.least, truth.u0);
  fmt::print(FMT_STRING("| of {} | inside | error, root mean square | largest | stated half width, mean |\n"
                        "| --- | ---: | ---: | ---: | ---: |\n"),
             repetitions);
  for (const Tally& t : {mean, least, u0})
    fmt::print(FMT_STRING("| {} | {:.1f} % | {:.3f} % | {:.3f} % | {:.3f} % |\n"), t.name,
               100.0 * t.inside / repetitions, 100 * std::sqrt(t.error / repetitions), 100 * t.largest,
               100 * t.width / repetitions);
  return 0;
}
