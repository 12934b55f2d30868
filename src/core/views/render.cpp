#include "core/views/render.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "core/transport/numerical_error.hpp"
#include "core/transport/tracing/sampling.hpp"
#include "core/views/block_filler.hpp"
#include "core/views/picture_light.hpp"

namespace glow::views {
namespace {

constexpr int kTile = 64;         // pixels along each side of what one thread fills at a time
constexpr double kOfSteps = 1.6;  // of the closest places that look around: so far each serves at least

/// What a surface sends on of the light on it, cd/m2 to the lx: of all of it, then in bands, which it tints.
using Sent = std::array<double, 4>;

Sent sent(double share, const Vec3& tint) {
  const double grey = share / kPi;
  return {grey, grey * tint.x(), grey * tint.y(), grey * tint.z()};
}

/// How far off a pixel is, as shares: from light found there by itself; and by the size of patches, at most.
struct PixelError {
  double found = NAN, by_size = 0;
};

/// A picture while it is made.
class Rendering {
 public:
  Rendering(const RoomSources& sources, const SeenLuminaires& luminaires, const space::PlannedView& view,
            const Quality& quality, const Watch& watch)
      : sources_(sources),
        quality_(quality),
        camera_(view.camera),
        watch_(watch),
        sight_(sources, luminaires, view.camera.from_outside, quality.gloss_rays),
        lines_(sight_, view.camera),
        field_(sources, quality.rays, quality.reach, kOfSteps * quality.finest_step) {
    picture_.room = sources.lit().space->name;
    picture_.view = view.name;
    picture_.kind = view.kind;
    picture_.camera = camera_;
  }

  Picture make() {
    prepare();
    look_at_all();
    find_reflected();
    fill_blocks();
    measure_errors();
    return std::move(picture_);
  }

 private:
  std::size_t pixel(int x, int y) const {
    return std::size_t(y) * std::size_t(camera_.columns) + std::size_t(x);
  }
  void prepare();
  void look_at_all();
  void find_reflected();
  void fill_blocks();
  void fill_block(const Block& own);
  bool is_edge(int x, int y) const;
  void add(const Seen& seen, double share, const std::vector<BlockFiller>& fillers, int x, int y,
           std::vector<double>& light, std::vector<double>& lux) const;
  void add_known(const std::vector<BlockFiller>& fillers, const Block& row);
  void send_on(const float* on, double share, const Vec3& tint, std::vector<double>& light) const;
  const float* near(const SeenSurface& surface, const std::vector<BlockFiller>& fillers, int x, int y) const;
  void write(std::size_t i, const std::vector<double>& light, const std::vector<double>& lux);
  void measure_errors();
  bool check_pixel(std::size_t number, std::vector<PixelError>& off) const;

  const RoomSources& sources_;
  const Quality& quality_;
  const geometry::Camera& camera_;
  const Watch& watch_;
  Sight sight_;
  PictureSight lines_;
  ReflectedField field_;
  std::vector<std::vector<PixelKey>> keys_;  ///< by order along the lines of sight
  Picture picture_;
};

void Rendering::prepare() {
  const std::size_t n = picture_.pixels();
  const LitSpace& lit = sources_.lit();
  for (std::size_t s = 0; s < sources_.count(); ++s) {
    PictureLayer layer;
    layer.is_moment = s >= lit.space->groups.size();
    layer.source =
        layer.is_moment ? lit.moments[s - lit.space->groups.size()].name : lit.space->groups[s].name;
    picture_.layers.push_back(std::move(layer));
  }
  // Getting so much memory takes as long as filling it.
  parallel_for(picture_.layers.size(), watch_, "looking", [&](std::size_t s) {
    PictureLayer& layer = picture_.layers[s];
    layer.luminance.resize(n);
    layer.illuminance.resize(n);
    if (sources_.bands() > 1) layer.bands.resize(3 * n);
  });
  for (const geometry::Surface& surface : lit.transport->geometry().surfaces())
    picture_.surface_names.push_back(surface.name);
  picture_.depth_m.resize(n);
  picture_.normals.resize(3 * n);
  picture_.surfaces.resize(n);
  keys_.assign(Sight::kMostSurfaces, std::vector<PixelKey>(n));
}

/// What the middle of each pixel meets; what of it needs no more light to be found is written.
void Rendering::look_at_all() {
  const geometry::Geometry& geometry = sources_.lit().transport->geometry();
  const std::vector<double> dark(sources_.count(), 0.0);
  parallel_for(std::size_t(camera_.rows), watch_, "looking", [&](std::size_t y) {
    thread_local Seen seen;
    seen.with_light = true;
    lines_.along_row(int(y), seen, [&](int x) {
      const std::size_t i = pixel(x, int(y));
      for (std::size_t k = 0; k < seen.surfaces.size(); ++k) {
        const SeenSurface& surface = seen.surfaces[k];
        const int facet = surface.place.facet;
        const bool tinted = surface.tint == geometry.material_of(geometry.facets()[std::size_t(facet)]).tint;
        keys_[k][i] = {surface.key, facet, float(tinted ? surface.share : -surface.share)};
      }
      if (!seen.light.empty()) write(i, seen.light, dark);
      picture_.depth_m[i] = float(seen.depth_m);
      picture_.surfaces[i] = seen.surface;
      for (int axis = 0; axis < 3; ++axis)
        picture_.normals[3 * i + std::size_t(axis)] = float(seen.normal[axis]);
    });
  });
}

/// Looks around from ever closer places, where those before do not serve; and from each facet at least once.
void Rendering::find_reflected() {
  const auto look_from = [&](const std::vector<std::size_t>& pixels, std::size_t order) {
    std::vector<Place> places(pixels.size());
    parallel_for(pixels.size(), watch_, "reflected light", [&](std::size_t p) {
      thread_local Seen seen;
      seen.with_light = false;
      lines_.at(double(pixels[p] % std::size_t(camera_.columns)) + 0.5,
                double(pixels[p] / std::size_t(camera_.columns)) + 0.5, seen);
      if (order < seen.surfaces.size()) places[p] = seen.surfaces[order].place;
    });
    places.erase(std::remove_if(places.begin(), places.end(), [](const Place& at) { return at.facet < 0; }),
                 places.end());
    field_.add(places, watch_);
  };
  const geometry::Geometry& geometry = sources_.lit().transport->geometry();
  for (std::size_t order = 0; order < keys_.size(); ++order) {
    const std::vector<PixelKey>& keys = keys_[order];
    if (std::all_of(keys.begin(), keys.end(), [](const PixelKey& own) { return own.key == 0; })) break;
    for (int step = 48;; step = std::max(quality_.finest_step, step / 2)) {
      std::vector<std::size_t> pixels;
      for (int y = step / 2; y < camera_.rows; y += step)
        for (int x = step / 2; x < camera_.columns; x += step)
          if (keys[pixel(x, y)].key != 0 &&
              (step >= 2 * quality_.finest_step || !is_weak(keys[pixel(x, y)], geometry)))
            pixels.push_back(pixel(x, y));
      look_from(pixels, order);
      if (step == quality_.finest_step) break;
    }
    std::vector<char> known(sources_.lit().transport->geometry().facets().size(), 0);
    std::vector<std::size_t> first;
    for (std::size_t i = 0; i < keys.size(); ++i)
      if (keys[i].key != 0 && !known[std::size_t(keys[i].facet)] && !field_.knows(keys[i].facet)) {
        known[std::size_t(keys[i].facet)] = 1;
        first.push_back(i);
      }
    look_from(first, order);
  }
}

void Rendering::fill_blocks() {
  std::vector<Block> blocks;
  for (int y = 0; y < camera_.rows; y += kTile)
    for (int x = 0; x < camera_.columns; x += kTile)
      blocks.push_back(
          {x, y, std::min(x + kTile, camera_.columns) - 1, std::min(y + kTile, camera_.rows) - 1});
  parallel_for(blocks.size(), watch_, "picture", [&](std::size_t b) { fill_block(blocks[b]); });
}

/// Whether a neighbour sees something else.
bool Rendering::is_edge(int x, int y) const {
  const std::size_t i = pixel(x, y);
  for (const auto& [dx, dy] : {std::pair(-1, 0), std::pair(1, 0), std::pair(0, -1), std::pair(0, 1)}) {
    const int u = x + dx, v = y + dy;
    if (u < 0 || v < 0 || u >= camera_.columns || v >= camera_.rows) continue;
    const std::size_t j = pixel(u, v);
    if (picture_.surfaces[i] != picture_.surfaces[j] ||
        std::isinf(picture_.depth_m[i]) != std::isinf(picture_.depth_m[j]))
      return true;
    for (const auto& keys : keys_)
      if (keys[i].key != keys[j].key) return true;
  }
  return false;
}

void Rendering::fill_block(const Block& own) {
  Block wide = own;  // with the first pixels of the next ones
  wide.right = std::min(own.right + 1, camera_.columns - 1);
  wide.bottom = std::min(own.bottom + 1, camera_.rows - 1);
  std::vector<BlockFiller> fillers;
  for (std::size_t order = 0; order < keys_.size(); ++order) {
    fillers.emplace_back(sources_, field_, lines_, quality_, keys_[order], order, wide);
    if (!fillers.back().any()) break;
    fillers.back().fill();
  }
  for (int y = own.top; y <= own.bottom; ++y) add_known(fillers, {own.left, y, own.right, y});
  const int n = quality_.edge_samples;
  if (n == 1) return;
  Seen seen;
  std::vector<double> light, lux;
  for (int y = own.top; y <= own.bottom; ++y)
    for (int x = own.left; x <= own.right; ++x) {
      if (!is_edge(x, y)) continue;
      light.assign(sources_.layers(), 0.0);
      lux.assign(sources_.count(), 0.0);
      for (int k = 0; k < n * n; ++k) {
        lines_.at(x + (k % n + 0.5) / n, y + (k / n + 0.5) / n, seen);
        add(seen, 1.0 / (n * n), fillers, x, y, light, lux);
      }
      write(pixel(x, y), light, lux);
    }
}

/// The light on a surface as a pixel close by has it; null: none there sees it.
const float* Rendering::near(const SeenSurface& surface, const std::vector<BlockFiller>& fillers, int x,
                             int y) const {
  const Block& block = fillers.front().block();
  for (const int reach : {0, 1, 2})
    for (int v = std::max(block.top, y - reach); v <= std::min(block.bottom, y + reach); ++v)
      for (int u = std::max(block.left, x - reach); u <= std::min(block.right, x + reach); ++u)
        for (const BlockFiller& filler : fillers)
          if (filler.key(u, v) == surface.key) return filler.at(u, v);
  return nullptr;
}

/// Adds what a surface sends on of the light on it, source after source. `share`: of its exitance.
void Rendering::send_on(const float* on, double share, const Vec3& tint, std::vector<double>& light) const {
  const std::size_t bands = std::size_t(sources_.bands());
  const Sent of_lux = sent(share, tint);
  for (std::size_t s = 0; s < sources_.count(); ++s)
    for (std::size_t b = 0; b < bands; ++b) light[s * bands + b] += of_lux[b] * double(on[s * bands + b]);
}

namespace {

/// A surface that a pixel shows, and the light on it.
struct Shown {
  std::size_t pixel;
  const float* on;  // lx by layers
  Sent sent;
  bool is_met_first;
};

}  // namespace

/// Adds what surfaces in the middle of some pixels send on, to what has been written of luminaires and gloss:
/// source after source, so that memory is gone through in its order; few pixels, whose light stays at hand.
void Rendering::add_known(const std::vector<BlockFiller>& fillers, const Block& row) {
  const geometry::Geometry& geometry = sources_.lit().transport->geometry();
  thread_local std::vector<Shown> shown;
  shown.clear();
  for (int y = row.top; y <= row.bottom; ++y)
    for (int x = row.left; x <= row.right; ++x)
      for (std::size_t order = 0; order < fillers.size(); ++order) {
        const float* on = fillers[order].at(x, y);
        if (!on) continue;
        const std::size_t i = pixel(x, y);
        const PixelKey& key = keys_[order][i];
        const Vec3& tint = geometry.material_of(geometry.facets()[std::size_t(key.facet)]).tint;
        shown.push_back({i, on, sent(std::abs(double(key.share)), key.share > 0 ? tint : Vec3(Vec3::Ones())),
                         order == 0 && picture_.surfaces[i] >= 0});
      }
  const std::size_t bands = std::size_t(sources_.bands());
  for (std::size_t s = 0; s < sources_.count(); ++s) {
    PictureLayer& layer = picture_.layers[s];
    for (const Shown& surface : shown) {
      const float* on = surface.on + s * bands;
      if (surface.is_met_first) layer.illuminance[surface.pixel] = on[0];
      layer.luminance[surface.pixel] += float(surface.sent[0] * double(on[0]));
      for (std::size_t b = 1; b < bands; ++b)
        layer.bands[3 * surface.pixel + b - 1] += float(surface.sent[b] * double(on[b]));
    }
  }
}

/// `light`: cd/m2 by layers of what is seen; `lux`: by sources, on what is met first.
void Rendering::add(const Seen& seen, double share, const std::vector<BlockFiller>& fillers, int x, int y,
                    std::vector<double>& light, std::vector<double>& lux) const {
  const std::size_t bands = std::size_t(sources_.bands());
  for (std::size_t k = 0; k < seen.light.size(); ++k) light[k] += share * seen.light[k];
  std::vector<double> own;
  std::vector<float> found;
  for (const SeenSurface& surface : seen.surfaces) {
    if (sources_.count() == 0) break;
    const float* on = near(surface, fillers, x, y);
    if (!on) {
      own.resize(sources_.layers());
      light_at(sources_, field_, surface.place, {}, quality_.direct_tolerance, own.data());
      found.assign(own.begin(), own.end());
      on = found.data();
    }
    const bool first = &surface == &seen.surfaces.front() && surface.place.facet >= 0 && seen.surface >= 0;
    send_on(on, share * surface.share, surface.tint, light);
    for (std::size_t s = 0; first && s < sources_.count(); ++s) lux[s] += share * double(on[s * bands]);
  }
}

void Rendering::write(std::size_t i, const std::vector<double>& light, const std::vector<double>& lux) {
  const std::size_t bands = std::size_t(sources_.bands());
  for (std::size_t s = 0; s < sources_.count(); ++s) {
    PictureLayer& layer = picture_.layers[s];
    layer.luminance[i] = float(light[s * bands]);
    layer.illuminance[i] = float(lux[s]);
    for (std::size_t b = 1; b < bands; ++b) layer.bands[3 * i + b - 1] = float(light[s * bands + b]);
  }
}

/// How far the light of all groups together, and then of each moment, is off at a random pixel; NaN: there is
/// none. False: it shows more than one matt surface, or an edge.
bool Rendering::check_pixel(std::size_t number, std::vector<PixelError>& off) const {
  constexpr int kMoreRays = 4;
  const Vec2 at = transport::even_point(std::uint32_t(number), {0.37, 0.61});
  const int x = int(at.x() * camera_.columns), y = int(at.y() * camera_.rows);
  if (keys_[0][pixel(x, y)].key == 0 || is_edge(x, y)) return false;
  Seen seen;
  seen.with_light = false;
  lines_.at(x + 0.5, y + 0.5, seen);
  if (seen.surfaces.size() != 1 || seen.surface < 0) return false;
  const Place& place = seen.surfaces.front().place;
  std::vector<double> exact(sources_.layers()), beams(sources_.count(), 0.0);
  std::vector<std::int32_t> met;
  ReflectedField::look(sources_, place, kMoreRays * quality_.rays, exact.data(), &met);
  const Vec3 u = place.pixel_m * place.normal.unitOrthogonal();
  sources_.add_beams({place.point, place.normal}, {u, place.normal.cross(u)}, quality_.direct_tolerance / 4,
                     beams.data());
  std::vector<double> expected(off.size(), 0.0), found(off.size(), 0.0), by_size(off.size(), 0.0);
  std::size_t moment = 0;
  for (std::size_t s = 0; s < sources_.count(); ++s) {
    const std::size_t k = picture_.layers[s].is_moment ? ++moment : 0;
    expected[k] += exact[s * std::size_t(sources_.bands())] + beams[s];
    found[k] += double(picture_.layers[s].illuminance[pixel(x, y)]);
    for (const std::int32_t patch : met)
      if (patch >= 0) by_size[k] += sources_.leaving_by_size(s, patch) / double(met.size());
  }
  for (std::size_t k = 0; k < off.size(); ++k)
    if (expected[k] > 0) off[k] = {found[k] / expected[k] - 1, by_size[k] / expected[k]};
  return true;
}

/// Within what 95 % of some pixels are right, from light that is found there by itself with more rays, and
/// from what the size of patches does to it.
void Rendering::measure_errors() {
  const std::size_t pixels = std::size_t(quality_.checked_pixels);
  std::vector<std::vector<PixelError>> off(pixels,
                                           std::vector<PixelError>(1 + sources_.lit().moments.size()));
  parallel_for(pixels, watch_, "checking", [&](std::size_t k) {
    if (!check_pixel(k, off[k])) std::fill(off[k].begin(), off[k].end(), PixelError());
  });
  std::size_t moment = 0;
  for (PictureLayer& layer : picture_.layers) {
    const std::size_t k = layer.is_moment ? ++moment : 0;
    std::vector<double> all;
    for (const std::vector<PixelError>& own : off)
      if (!std::isnan(own[k].found))
        all.push_back(std::hypot(own[k].found, transport::kSizesAtOnePoint * own[k].by_size));
    std::sort(all.begin(), all.end());
    layer.uncertainty = all.empty() ? 0 : all[std::size_t(std::ceil(0.95 * double(all.size()))) - 1];
  }
}

}  // namespace

std::optional<Quality> Quality::parse(const std::string& words) {
  if (words == "draft") return draft();
  if (words == "normal") return normal();
  if (words == "fine") return fine();
  return std::nullopt;
}

Picture render(const RoomSources& sources, const SeenLuminaires& luminaires, const space::PlannedView& view,
               const Quality& quality, const Watch& watch) {
  return Rendering(sources, luminaires, view, quality, watch).make();
}

}  // namespace glow::views
