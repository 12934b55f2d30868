// What looking for arrangements costs, against a full calculation of the same room in the same run.
//
//   looked at   six long luminaires in new places of a furnished room with shadows, by quick light
//   moved       the same, calculated on a transport that is there
//   prepare     quick light made ready: the balance solved backwards for every point
//   arrange     each room of the demo for the linear pendant, whole search and last calculation
#include <fmt/format.h>

#include <chrono>

#include "cli/open_project.hpp"
#include "core/run/arrange_room.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "core/studies/arrangement/field_light.hpp"
#include "rooms/furnished_room.hpp"

namespace {

using namespace glow;

template <class Work>
double seconds(int times, const Work& work) {
  const auto begin = std::chrono::steady_clock::now();
  for (int k = 0; k < times; ++k) work(k);
  return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count() / times;
}

std::vector<photometry::PlacedLuminaire> moved(const rooms::TestRoom& room, int k) {
  std::vector<photometry::PlacedLuminaire> luminaires = room.luminaires;
  for (photometry::PlacedLuminaire& luminaire : luminaires)
    luminaire.frame.origin += Vec3(0.002 * (k + 1), -0.003 * (k + 1), -0.001 * (k + 1));
  return luminaires;
}

void furnished() {
  const rooms::TestRoom room = rooms::furnished_room();
  const auto effort = transport::Effort::normal();
  const double full = seconds(3, [&](int k) {
    const transport::Transport transport(room.geometry, room.receivers, effort, {});
    sources::relight(transport, moved(room, k), {});
  });
  const transport::Transport transport(room.geometry, room.receivers, effort, {});
  const double relit = seconds(10, [&](int k) { sources::relight(transport, moved(room, k), {}); });
  const double prepare = seconds(5, [&](int) { studies::FieldLight(transport, {}, {}); });
  const studies::FieldLight quick(transport, {}, {});
  const double looked = seconds(40, [&](int k) { quick.lights(moved(room, k), {}); });
  fmt::print(FMT_STRING("furnished office, six long luminaires with shadows: full {:.0f} ms\n"), 1e3 * full);
  fmt::print(FMT_STRING("  looked at  {:8.3f} ms, full / it {:.0f}\n"), 1e3 * looked, full / looked);
  fmt::print(FMT_STRING("  moved      {:8.3f} ms, full / it {:.0f}\n"), 1e3 * relit, full / relit);
  fmt::print(FMT_STRING("  prepare    {:8.3f} ms, full / it {:.1f}\n"), 1e3 * prepare, full / prepare);
}

void demo_rooms() {
  const auto open = cli::open_project(GLOWGRID_DEMO);
  const run::Accuracy accuracy = *run::Accuracy::parse("normal");
  for (const cli::OpenProject::Room& room : open->rooms) {
    if (!room.written->task) continue;
    const double full =
        seconds(1, [&](int) { run::compute_room(open->project, open->plan(room), accuracy, nullptr, {}); });
    studies::ArrangementWish wish;
    wish.base.mark = "P1";
    wish.base.mounting = model::Mounting::suspended;
    wish.base.suspension_m = 0.6;
    model::Room kept = *room.written;
    kept.luminaires.clear();
    std::size_t looked = 0;
    const double search = seconds(1, [&](int) {
      const run::ArrangedRoom found =
          run::arrange_room(open->project, kept, wish, open->standards, accuracy, nullptr, {});
      looked = found.found.looked_at + found.found.calculated;
    });
    fmt::print(FMT_STRING("{:<16} arrange {:.2f} s, {} fields looked at; run of the room {:.2f} s\n"),
               room.name(), search, looked, full);
  }
}

}  // namespace

int main() {
  furnished();
  demo_rooms();
}
