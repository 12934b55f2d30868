// What pictures cost: megapixels a second, and how much longer plain path tracing takes to be as sure, in a
// furnished office; and every view of the demo at 1280 x 800.
#include <fmt/format.h>

#include <cmath>

#include "bench/benches.hpp"
#include "bench/path_tracing.hpp"
#include "bench/timing.hpp"
#include "cli/open_project.hpp"
#include "core/run/compute_room.hpp"
#include "core/sources/luminaire_inflow.hpp"

namespace glow::bench::views_bench {
namespace {

/// Whether a pixel or one beside it shows something else than the others.
bool is_edge(const views::Picture& picture, int x, int y) {
  const int columns = picture.camera.columns;
  for (const int v : {y - 1, y, y + 1})
    for (const int u : {x - 1, x, x + 1})
      if (u < 0 || v < 0 || u >= columns || v >= picture.camera.rows ||
          picture.surfaces[std::size_t(v * columns + u)] != picture.surfaces[std::size_t(y * columns + x)])
        return true;
  return false;
}

/// Places of surfaces that pixels of the picture show, the light that it has there, and whether on an edge.
struct Shown {
  std::vector<readings::Receiver> places;
  std::vector<double> lux;
  std::vector<bool> on_edge;
};

Shown shown_in(const views::Picture& picture, const space::Space& space, const geometry::RayTracer& tracer) {
  Shown shown;
  for (std::size_t k = 0; k < 200; ++k) {
    const std::size_t i = (k * 7919 + 131) % picture.pixels();
    const int x = int(i % std::size_t(picture.camera.columns)),
              y = int(i / std::size_t(picture.camera.columns));
    const geometry::SightLine line = picture.camera.sight(x + 0.5, y + 0.5);
    const geometry::Hit hit = tracer.nearest(tracer.local(line.from), line.along.cast<float>());
    if (hit.facet < 0 || hit.from_behind || std::abs(hit.distance - picture.depth_m[i]) > 1e-3f ||
        picture.layers[0].illuminance[i] < 1)
      continue;
    const geometry::Facet& facet = space.geometry.facets()[std::size_t(hit.facet)];
    Vec3 at = line.from + double(hit.distance) * line.along;
    at -= (at - facet.origin).dot(facet.normal) * facet.normal;
    shown.places.push_back({at, facet.normal});
    shown.lux.push_back(double(picture.layers[0].illuminance[i]));
    shown.on_edge.push_back(is_edge(picture, x, y));
  }
  return shown;
}

void against_path_tracing() {
  const rooms::TestRoom scene = rooms::furnished_room();
  space::Space space;
  space.geometry = scene.geometry;
  space.outline = {{0, 0}, {6, 0}, {6, 5}, {0, 5}};
  space.groups.emplace_back();
  space.groups.back().luminaires = scene.luminaires;
  space::PlannedView view;
  view.camera.eye = {0.4, 0.4, 1.6};
  view.camera.half_width = 0.85;
  geometry::look_along({2.8, 2.6, -0.5}, view.camera);
  views::Picture picture;
  const double ours = seconds(3, [&] {
    const transport::Transport transport(space.geometry, {}, {}, Watch{});
    const lighting::Lighting lighting(space, transport, {});
    const views::RoomSources sources({&space, &transport, &lighting, {}}, {});
    picture = views::render(sources, views::SeenLuminaires(space), view, {}, {});
  });
  const geometry::RayTracer tracer(space.geometry);
  const auto [places, found, on_edge] = shown_in(picture, space, tracer);
  const transport::Transport finest(space.geometry, places, {12000, 256, 8192, 999, 0.0005}, Watch{});
  const transport::GroupLight light = sources::relight(finest, scene.luminaires, {});
  std::vector<double> truth;
  for (std::size_t p = 0; p < places.size(); ++p) truth.push_back(light.total_lx(p));
  constexpr int kPaths = 1000;
  std::vector<double> traced(places.size());
  const double took = seconds(1, [&] {
    parallel_for(places.size(), {}, "", [&](std::size_t p) {
      const ProgramsRays rays{&tracer};
      rooms::PathTracer path_tracer(scene, rays, unsigned(p + 1));
      traced[p] = rooms::estimate(path_tracer, places[p], kPaths).mean;
    });
  });
  const double stated = picture.layers[0].uncertainty;
  double counted = 0, within = 0;
  for (std::size_t p = 0; p < places.size(); ++p) {
    if (on_edge[p]) continue;
    counted += 1;
    within += std::abs(found[p] / truth[p] - 1) < stated;
  }
  const double pixels = double(picture.pixels());
  const double our_error = error_of(found, truth), their_error = error_of(traced, truth);
  const double theirs = took / double(places.size()) * pixels * std::pow(their_error / our_error, 2);
  fmt::print(FMT_STRING("furnished office, 1280 x 800, normal quality\n"
                        "  ours          {:.2f} s, {:.2f} megapixels a second, error {:.2f} %; off edges "
                        "{:.0f} % within the stated {:.2f} %\n"
                        "  path tracing  {} paths a pixel, error {:.1f} %; {:.0f} s at our error\n"
                        "  ratio         {:.0f}   (aim: at least 100)\n"),
             ours, pixels / 1e6 / ours, 100 * our_error, 100 * within / counted, 100 * stated, kPaths,
             100 * their_error, theirs, theirs / ours);
}

/// Light and transport are found before the clock starts.
void demo_views() {
  const auto open = cli::open_project(GLOWGRID_SOURCE "/demo/millrace.toml");
  for (const cli::OpenProject::Room& room : open->rooms) {
    space::PlannedRoom planned = open->plan(room);
    const auto timed = [&](const views::Quality& quality, int times) {
      run::Studies studies;
      studies.pictures = run::PictureChoice{quality, {}, {}, 0, true};
      const auto compute = [&] {
        run::compute_room(open->project, planned, *run::Accuracy::parse("normal"), nullptr, {}, studies);
      };
      const std::vector<space::PlannedView> views = planned.views;
      planned.views.clear();
      const double without = seconds(3, compute);
      std::string words;
      for (const space::PlannedView& view : views) {
        planned.views = {view};
        words += fmt::format(FMT_STRING("{:6.1f}"), std::max(0.0, seconds(times, compute) - without));
      }
      planned.views = views;
      return words;
    };
    fmt::print(FMT_STRING("{:<16} draft {} s   normal {} s   (aims: 1, 10)\n"), room.name(),
               timed(views::Quality::draft(), 3), timed(views::Quality::normal(), 1));
  }
}

int measure(const Words&) {
  against_path_tracing();
  demo_views();
  return 0;
}

const Measurement known("views", measure);

}  // namespace
}  // namespace glow::bench::views_bench
