#include "core/views/block_filler.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/views/picture_light.hpp"

namespace glow::views {
namespace {

constexpr double kOfAll = 0.25;  // of the light of all sources: what one may be off where it gives little

}  // namespace

bool is_weak(const PixelKey& own, const geometry::Geometry& geometry) {
  constexpr double kWeak = 0.1;
  const geometry::Facet& facet = geometry.facets()[std::size_t(own.facet)];
  return std::abs(double(own.share)) < kWeak * geometry.material_of(facet).diffuse;
}

void PictureSight::at(double x, double y, Seen& seen) const {
  const geometry::SightLine line = camera_->sight(x, y);
  sight_->follow(line, seen);
  measure_pixels(line, seen);
}

void PictureSight::along_row(int y, Seen& seen, const std::function<void(int x)>& tell) const {
  using geometry::RayBlock;
  thread_local RayBlock rays;
  std::array<geometry::SightLine, RayBlock::kMost> lines;
  std::array<geometry::Hit, RayBlock::kMost> hits;
  for (int left = 0; left < camera_->columns; left += RayBlock::kMost) {
    rays.size = std::min(RayBlock::kMost, camera_->columns - left);
    for (std::size_t k = 0; k < std::size_t(rays.size); ++k) {
      lines[k] = camera_->sight(left + int(k) + 0.5, y + 0.5);
      rays.set(k, sight_->tracer().local(lines[k].from), lines[k].along.cast<float>());
    }
    sight_->tracer().nearest_side_by_side(rays, hits.data());
    for (std::size_t k = 0; k < std::size_t(rays.size); ++k) {
      sight_->follow(lines[k], hits[k], seen);
      measure_pixels(lines[k], seen);
      tell(left + int(k));
    }
  }
}

/// How much of the surfaces that it shows a pixel takes up.
void PictureSight::measure_pixels(const geometry::SightLine& line, Seen& seen) const {
  for (SeenSurface& surface : seen.surfaces) {
    const double facing = std::max(0.05, std::abs(line.along.dot(seen.normal)));
    double width = 2 * camera_->half_width / camera_->columns;
    if (camera_->projection == geometry::Projection::panorama) width = 2 * kPi / camera_->columns;
    if (camera_->projection != geometry::Projection::parallel) width *= surface.place.pixel_m;
    surface.place.pixel_m = width / std::sqrt(facing);
  }
}

BlockFiller::BlockFiller(const RoomSources& sources, const ReflectedField& field, const PictureSight& sight,
                         const Quality& quality, const std::vector<PixelKey>& keys, std::size_t order,
                         const Block& block)
    : sources_(sources),
      field_(field),
      sight_(sight),
      quality_(quality),
      order_(order),
      layers_(sources.layers()),
      block_(block) {
  const std::size_t pixels = std::size_t(block.columns() * block.rows());
  bool any_scatters = false;
  keys_.reserve(pixels);
  for (int y = block.top; y <= block.bottom; ++y)
    for (int x = block.left; x <= block.right; ++x) {
      keys_.push_back(keys[std::size_t(y) * std::size_t(sight.camera().columns) + std::size_t(x)]);
      any_scatters = any_scatters || keys_.back().key != 0;
    }
  if (!any_scatters) return;
  lux_.reset(new float[pixels * layers_]);  // not set to nothing first: that takes as long as filling it
  is_found_.resize(pixels);
}

void BlockFiller::fill() {
  if (any()) fill(block_);
}

/// The light at a pixel, by itself.
float* BlockFiller::found(int x, int y) {
  const std::size_t i = index(x, y);
  float* lux = lux_.get() + i * layers_;
  if (is_found_[i]) return lux;
  is_found_[i] = 1;
  thread_local Seen seen;
  thread_local std::vector<double> light;
  seen.with_light = false;
  sight_.at(x + 0.5, y + 0.5, seen);
  if (order_ >= seen.surfaces.size()) {
    std::fill_n(lux, layers_, 0.0f);
    return lux;
  }
  const Place& place = seen.surfaces[order_].place;
  const Vec3 u = place.normal.unitOrthogonal();
  const sources::SunCell cell{place.pixel_m * u, place.pixel_m * place.normal.cross(u), quality_.sun_places};
  light.resize(layers_);
  light_at(sources_, field_, place, cell, quality_.direct_tolerance, light.data());
  for (std::size_t k = 0; k < layers_; ++k) lux[k] = float(light[k]);
  return lux;
}

bool BlockFiller::is_of_one(const Block& part) const {
  const std::uint64_t first = key(part.left, part.top);
  for (int y = part.top; y <= part.bottom; ++y)
    for (int x = part.left; x <= part.right; ++x)
      if (key(x, y) != first) return false;
  return true;
}

/// Each pixel has the light that is found at one with its key; of finer pictures its own.
void BlockFiller::share_by_keys(const Block& part) {
  for (int y = part.top; y <= part.bottom; ++y)
    for (int x = part.left; x <= part.right; ++x) {
      if (key(x, y) == 0 || is_found_[index(x, y)]) continue;
      if (quality_.least_mixed <= 1) {
        found(x, y);
        continue;
      }
      const auto first_with = [&](std::uint64_t wanted) {
        for (int j = part.top; j <= part.bottom; ++j)
          for (int i = part.left; i <= part.right; ++i)
            if (key(i, j) == wanted) return std::pair(i, j);
        return std::pair(x, y);
      };
      const auto [i, j] = first_with(key(x, y));
      const float* lux = found(i, j);
      std::copy(lux, lux + layers_, lux_.get() + index(x, y) * layers_);
      is_found_[index(x, y)] = 1;
    }
}

bool BlockFiller::fits(double tolerance, const float* lux, const float* a, const float* b, const float* c,
                       const float* d) const {
  const std::size_t bands = std::size_t(sources_.bands());
  float all = 0;
  for (std::size_t k = 0; k < layers_; k += bands) all += lux[k];
  for (std::size_t k = 0; k < layers_; k += bands) {
    const float between = d ? (a[k] + b[k] + c[k] + d[k]) / 4 : (a[k] + b[k]) / 2;
    if (std::abs(between - lux[k]) > float(tolerance) * (lux[k] + float(kOfAll) * all)) return false;
  }
  return true;
}

/// Whether what is found in the middle, and in the middle of the sides, lies between what is at the corners.
bool BlockFiller::is_even(const Block& part) {
  const int x = (part.left + part.right) / 2, y = (part.top + part.bottom) / 2;
  const float *a = found(part.left, part.top), *b = found(part.right, part.top),
              *c = found(part.left, part.bottom), *d = found(part.right, part.bottom);
  const bool weak = is_weak(keys_[index(part.left, part.top)], sources_.lit().transport->geometry());
  const double off = quality_.tolerance * (weak ? 2 : 1);
  return fits(off, found(x, y), a, b, c, d) && fits(off, found(x, part.top), a, b, nullptr, nullptr) &&
         fits(off, found(x, part.bottom), c, d, nullptr, nullptr) &&
         fits(off, found(part.left, y), a, c, nullptr, nullptr) &&
         fits(off, found(part.right, y), b, d, nullptr, nullptr);
}

/// Evenly between the corners.
void BlockFiller::lay(const Block& part) {
  const float *a = found(part.left, part.top), *b = found(part.right, part.top),
              *c = found(part.left, part.bottom), *d = found(part.right, part.bottom);
  for (int y = part.top; y <= part.bottom; ++y)
    for (int x = part.left; x <= part.right; ++x) {
      const std::size_t i = index(x, y);
      if (is_found_[i]) continue;
      const float s = part.columns() > 1 ? float(x - part.left) / float(part.columns() - 1) : 0;
      const float t = part.rows() > 1 ? float(y - part.top) / float(part.rows() - 1) : 0;
      float* lux = lux_.get() + i * layers_;
#pragma omp simd
      for (std::size_t k = 0; k < layers_; ++k)
        lux[k] = (1 - t) * ((1 - s) * a[k] + s * b[k]) + t * ((1 - s) * c[k] + s * d[k]);
      is_found_[i] = 1;
    }
}

void BlockFiller::fill(const Block& part) {
  const bool one = is_of_one(part);
  if (one && key(part.left, part.top) == 0) return;
  const int width = std::max(part.columns(), part.rows());
  if (one && width <= std::max(2, quality_.least_block)) return lay(part);
  if (!one && width <= std::max(2, quality_.least_mixed)) return share_by_keys(part);
  const int x = (part.left + part.right) / 2, y = (part.top + part.bottom) / 2;
  if (one && width <= quality_.block + 1 && is_even(part)) {
    for (const Block& quarter : {Block{part.left, part.top, x, y}, Block{x, part.top, part.right, y},
                                 Block{part.left, y, x, part.bottom}, Block{x, y, part.right, part.bottom}})
      lay(quarter);
    return;
  }
  for (const Block& quarter : {Block{part.left, part.top, x, y}, Block{x, part.top, part.right, y},
                               Block{part.left, y, x, part.bottom}, Block{x, y, part.right, part.bottom}})
    fill(quarter);
}

}  // namespace glow::views
