// What a year of daylight costs: 8760 hours at 1000 points against the dense product of that size, the demo's
// year from nothing, memory as points grow, and what the sky's division into patches does to illuminances.
#include <fmt/format.h>
#include <sys/resource.h>

#include <Eigen/Core>
#include <random>

#include "bench/benches.hpp"
#include "bench/timing.hpp"
#include "cli/open_project.hpp"
#include "core/assess/daylight/year_reader.hpp"
#include "core/daylight/sky_patches.hpp"
#include "core/run/room_pass.hpp"
#include "core/studies/energy/room_energy.hpp"

namespace glow::bench::year_bench {
namespace {

double megabytes() {
  rusage usage{};
  getrusage(RUSAGE_SELF, &usage);
  return double(usage.ru_maxrss) / 1024;
}

const space::PlannedScene* year_in(const space::PlannedRoom& room) {
  for (const space::PlannedScene& scene : room.scenes)
    if (scene.year) return &scene;
  return nullptr;
}

/// Level points all over a room.
std::vector<readings::Receiver> points_in(const space::PlannedRoom& room, std::size_t count) {
  const geometry::Box2 box = geometry::bounding_box(room.space.outline);
  std::vector<readings::Receiver> points;
  for (std::size_t k = 0; points.size() < count; ++k) {
    const Vec2 share(std::fmod(0.5 + 0.7548776662 * double(k), 1.0),
                     std::fmod(0.5 + 0.5698402910 * double(k), 1.0));
    const Vec2 at = box.low + share.cwiseProduct(box.size());
    if (!geometry::contains(room.space.outline, at)) continue;
    readings::Receiver point;
    point.position = {at.x(), at.y(), 0.85};
    point.normal = Vec3::UnitZ();
    points.push_back(point);
  }
  return points;
}

std::vector<std::size_t> all_of(std::size_t count) {
  std::vector<std::size_t> list(count);
  for (std::size_t i = 0; i < count; ++i) list[i] = i;
  return list;
}

/// As many hours as a year has, every one of light.
space::YearPlan full_year(space::YearPlan plan) {
  const std::vector<space::YearHour> light = plan.hours;
  while (plan.hours.size() < std::size_t(daylight::kHoursOfYear))
    plan.hours.push_back(light[plan.hours.size() % light.size()]);
  return plan;
}

/// Columns side by side, as the year's own product is made.
Eigen::MatrixXf product(const Eigen::MatrixXf& a, const Eigen::MatrixXf& b) {
  Eigen::MatrixXf c(a.rows(), b.cols());
  constexpr Eigen::Index kTogether = 64;
  parallel_for(std::size_t((b.cols() + kTogether - 1) / kTogether), {}, "", [&](std::size_t block) {
    const Eigen::Index first = Eigen::Index(block) * kTogether, width = std::min(kTogether, b.cols() - first);
    c.middleCols(first, width).noalias() = a * b.middleCols(first, width);
  });
  return c;
}

void against_dense_product(const space::PlannedRoom& room) {
  constexpr std::size_t kPoints = 1000;
  const transport::Transport transport(room.space.geometry, points_in(room, kPoints),
                                       transport::Effort::normal(), {});
  space::YearPlan plan = full_year(*year_in(room)->year);
  plan.blinds.states.clear();
  const lighting::YearLight year(room.space, transport, plan, {}, {});
  const std::vector<std::size_t> all = all_of(kPoints);
  const double hours = seconds(3, [&] { year.at(all, {}); });
  const Eigen::MatrixXf a = Eigen::MatrixXf::Random(kPoints, 2294), b = Eigen::MatrixXf::Random(2294, 8760);
  const double dense = seconds(3, [&] { product(a, b); });
  const double alone = seconds(1, [&] { Eigen::MatrixXf c = a * b; });
  fmt::print(
      FMT_STRING(
          "{}: 8760 hours x 1000 points, coefficients and sun with them {:.2f} s; the dense product on "
          "all threads {:.2f} s, ratio {:.2f}; on one {:.2f} s\n"),
      room.space.name, hours, dense, hours / dense, alone);
}

/// The room's energy beside the year of daylight that it is made from.
void energy(const space::PlannedRoom& room) {
  const transport::Transport transport(room.space.geometry, points_in(room, 240), transport::Effort::normal(),
                                       {});
  const space::YearPlan& plan = *year_in(room)->year;
  studies::DayHours day;
  const double daylight = seconds(1, [&] {
    const lighting::YearLight year(room.space, transport, plan, {}, {});
    day.plane = year.at(all_of(240), {}).as_used();
  });
  for (const space::YearHour& hour : plan.hours) day.hours.push_back(hour.number);
  for (const readings::Receiver& point : transport.receivers()) day.plane_points.push_back(point.position);
  day.points.resize(room.space.points.size());
  const std::size_t count = room.space.groups.size();
  const studies::GroupsInYear groups{
      std::vector<std::optional<double>>(count, 100.0), std::vector<double>(count, 150.0),
      std::vector<std::vector<double>>(room.scenes.size(), std::vector<double>(count, 0.5))};
  const double took = seconds(3, [&] { studies::room_energy(*room.energy, room.space, groups, &day); });
  fmt::print(FMT_STRING("{}: energy {:.1f} ms, {:.2f} % of its year of daylight\n"), room.space.name,
             1e3 * took, 100 * took / daylight);
}

void of_demo(const cli::OpenProject& open) {
  double all = 0;
  for (const cli::OpenProject::Room& room : open.rooms) {
    const space::PlannedRoom plan = open.plan(room);
    const space::PlannedScene* scene = year_in(plan);
    if (!scene) continue;
    const run::Pass pass =
        run::pass_over(plan.space, scene->brief, lighting::Weights(plan.space.groups.size()),
                       assess::ReadingPlan::whole(plan.space, plan.brief), transport::Effort{}, nullptr, {});
    const double took = seconds(1, [&] {
      const lighting::YearLight year(plan.space, *pass.transport, *scene->year,
                                     assess::blind_rule_points(*pass.setting), {});
      const lighting::MomentLight mean = year.mean({});
      year.at(all_of(std::min<std::size_t>(512, pass.transport->receivers().size())), {});
    });
    all += took;
    fmt::print(FMT_STRING("{}: {:.2f} s, {} receivers, {} patches\n"), plan.space.name, took,
               pass.transport->receivers().size(), pass.transport->patches().size());
  }
  fmt::print(FMT_STRING("the demo's year: {:.1f} s\n"), all);
}

void memory(const space::PlannedRoom& room) {
  for (const std::size_t count : {500u, 2000u, 8000u}) {
    const transport::Transport transport(room.space.geometry, points_in(room, count),
                                         transport::Effort::draft(), {});
    space::YearPlan plan = *year_in(room)->year;
    plan.blinds.states.clear();
    const lighting::YearLight year(room.space, transport, plan, {}, {});
    const std::vector<std::size_t> all = all_of(count);
    for (std::size_t first = 0; first < count; first += lighting::YearLight::kTogether)
      year.at({all.begin() + std::ptrdiff_t(first),
               all.begin() + std::ptrdiff_t(std::min(count, first + lighting::YearLight::kTogether))},
              {});
    fmt::print(FMT_STRING("{} points: most {:.0f} MB\n"), count, megabytes());
  }
}

/// Sky light straight at points by patches, against the sky's own luminance in every direction.
void sky_division(const space::PlannedRoom& room) {
  const transport::Transport transport(room.space.geometry, points_in(room, 40), transport::Effort::draft(),
                                       {});
  const lighting::Daylight day(room.space, transport, {}, {});
  const daylight::SkyPatches patches;
  double worst = 0, square = 0;
  int count = 0;
  const auto& hours = year_in(room)->year->hours;
  for (std::size_t h = 0; h < hours.size(); h += 97) {
    const daylight::Sky sky = daylight::Sky::all_weather(hours[h].shape, hours[h].sun, hours[h].diffuse_lx);
    const std::vector<double> by_patch = patches.luminances(sky);
    for (const readings::Receiver& point : transport.receivers()) {
      double exact = 0, divided = 0;
      day.paths().look_out(point, 256, [&](const Vec3& way, double solid, double passed, std::int32_t seen) {
        if (seen >= std::int32_t(by_patch.size())) return;
        const double share = solid * passed * point.weight(way);
        exact += share * sky.luminance(way);
        divided += share * by_patch[std::size_t(seen)];
      });
      if (exact < 1) continue;
      const double off = divided / exact - 1;
      worst = std::max(worst, std::abs(off));
      square += off * off;
      ++count;
    }
  }
  fmt::print(
      FMT_STRING("sky division into {} patches: {:.2f} % off (root of the mean square of {} values), at most "
                 "{:.1f} %\n"),
      patches.size(), 100 * std::sqrt(square / count), count, 100 * worst);
}

int measure(const Words&) {
  const auto open = cli::open_project(GLOWGRID_SOURCE "/demo/millrace.toml");
  for (const cli::OpenProject::Room& room : open->rooms) {
    const space::PlannedRoom plan = open->plan(room);
    if (!year_in(plan)) continue;
    memory(plan);
    against_dense_product(plan);
    sky_division(plan);
    energy(plan);
    break;
  }
  of_demo(*open);
  return 0;
}

const Measurement known("year", measure);

}  // namespace
}  // namespace glow::bench::year_bench
