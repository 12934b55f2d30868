// What looking for arrangements costs, against a full calculation of the same room in the same run.
//
//   looked at   six long luminaires in new places of a furnished room with shadows, by quick light
//   moved       the same, calculated on a transport that is there
//   prepare     quick light made ready: the balance solved backwards for every point
//   arrange     each room of the demo for the linear pendant, whole search and last calculation
//   rank        candidates made of the photometric files of tests and demo with other fluxes, in a plain room
//   of
//               60 m2, each in its own best arrangement; against full calculations of a sample of their
//               fields
//
//   arrange [CANDIDATES]   how many are ranked; 200
#include <fmt/format.h>

#include <chrono>
#include <filesystem>
#include <random>

#include "bench/benches.hpp"
#include "cli/open_project.hpp"
#include "core/photometry/transform.hpp"
#include "core/run/arrange_room.hpp"
#include "core/run/rank_luminaires.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "core/studies/arrangement/field_light.hpp"
#include "files/photometry/photometric_file.hpp"
#include "rooms/furnished_room.hpp"

namespace glow::bench::arrange_bench {
namespace {

template <class Work>
double mean_seconds(int times, const Work& work) {
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
  const double full = mean_seconds(3, [&](int k) {
    const transport::Transport transport(room.geometry, room.receivers, effort, {});
    sources::relight(transport, moved(room, k), {});
  });
  const transport::Transport transport(room.geometry, room.receivers, effort, {});
  const double relit = mean_seconds(10, [&](int k) { sources::relight(transport, moved(room, k), {}); });
  const double prepare = mean_seconds(5, [&](int) { studies::FieldLight(transport, {}, {}); });
  const studies::FieldLight quick(transport, {}, {});
  const double looked = mean_seconds(40, [&](int k) { quick.lights(moved(room, k), {}); });
  fmt::print(FMT_STRING("furnished office, six long luminaires with shadows: full {:.0f} ms\n"), 1e3 * full);
  fmt::print(FMT_STRING("  looked at  {:8.3f} ms, full / it {:.0f}\n"), 1e3 * looked, full / looked);
  fmt::print(FMT_STRING("  moved      {:8.3f} ms, full / it {:.0f}\n"), 1e3 * relit, full / relit);
  fmt::print(FMT_STRING("  prepare    {:8.3f} ms, full / it {:.1f}\n"), 1e3 * prepare, full / prepare);
}

void demo_rooms() {
  const auto open = cli::open_project(GLOWGRID_SOURCE "/demo/millrace.toml");
  const run::Accuracy accuracy = *run::Accuracy::parse("normal");
  for (const cli::OpenProject::Room& room : open->rooms) {
    if (!room.written->task) continue;
    const double full = mean_seconds(
        1, [&](int) { run::compute_room(open->project, open->plan(room), accuracy, nullptr, {}); });
    studies::ArrangementWish wish;
    wish.base.mark = "P1";
    wish.base.mounting = model::Mounting::suspended;
    wish.base.suspension_m = 0.6;
    model::Room kept = *room.written;
    kept.luminaires.clear();
    kept.scenes.clear();  // they may name what is taken out
    std::size_t looked = 0;
    const double search = mean_seconds(1, [&](int) {
      const run::ArrangedRoom found =
          run::arrange_room(open->project, kept, wish, open->standards, accuracy, nullptr, {});
      looked = found.found.looked_at + found.found.calculated;
    });
    fmt::print(FMT_STRING("{:<16} arrange {:.2f} s, {} fields looked at; run of the room {:.2f} s\n"),
               room.name(), search, looked, full);
  }
}

std::vector<std::filesystem::path> photometric_files() {
  std::vector<std::filesystem::path> files;
  for (const char* folder : {GLOWGRID_SOURCE "/tests/photometry/valid", GLOWGRID_SOURCE "/demo/shelf"})
    for (const auto& entry : std::filesystem::directory_iterator(folder)) files.push_back(entry.path());
  std::sort(files.begin(), files.end());
  return files;
}

std::vector<run::Candidate> candidates(std::size_t count) {
  std::vector<std::shared_ptr<const photometry::Photometry>> kinds;
  for (const auto& file : photometric_files()) {
    Problems problems;
    if (auto p = files::read_photometric_file(file, problems))
      kinds.push_back(std::make_shared<const photometry::Photometry>(std::move(*p)));
  }
  std::mt19937 random(1);
  std::vector<run::Candidate> list;
  for (std::size_t i = 0; i < count; ++i) {
    const photometry::Photometry& kind = *kinds[i % kinds.size()];
    const double factor = std::uniform_real_distribution<>(0.6, 1.8)(random);
    list.push_back({std::to_string(i),
                    std::make_shared<const photometry::Photometry>(photometry::scaled(kind, factor)),
                    {}});
  }
  return list;
}

void ranking(std::size_t count) {
  const auto open = cli::open_project(GLOWGRID_SOURCE "/bench/office_60.toml");
  const cli::OpenProject::Room& room = open->rooms.front();
  const run::Accuracy accuracy = *run::Accuracy::parse("normal");
  const std::vector<run::Candidate> list = candidates(count);
  model::Room kept = *room.written;
  kept.luminaires.clear();
  std::vector<run::RankedCandidate> ranked;
  const double all = mean_seconds(1, [&](int) {
    const run::Ranker ranker(open->project, kept, list, {}, open->standards, accuracy, nullptr, {});
    for (std::size_t c = 0; c < list.size(); ++c) ranked.push_back(ranker.rank(c));
  });
  std::size_t looked = 0, fields = 0, met = 0;
  for (const run::RankedCandidate& each : ranked) {
    looked += each.found.looked_at;
    fields += each.found.fields;
    met += each.meets();
  }
  const double one = mean_seconds(
      5, [&](int) { run::compute_room(open->project, open->plan(room), accuracy, nullptr, {}); });
  fmt::print(FMT_STRING("rank {} candidates in 60 m2: {:.1f} s, {:.0f} ms each, {} can do it\n"), count, all,
             1e3 * all / double(count), met);
  fmt::print(
      FMT_STRING("  of {} fields {} were looked at; one in full takes {:.0f} ms: all / ranking {:.0f}, "
                 "looked at / ranking {:.0f}\n"),
      fields, looked, 1e3 * one, one * double(fields) / all, one * double(looked) / all);
}

int measure(const Words& words) {
  furnished();
  demo_rooms();
  ranking(std::size_t(words.number(0, 200)));
  return 0;
}

const Measurement known("arrange", measure);

}  // namespace
}  // namespace glow::bench::arrange_bench
