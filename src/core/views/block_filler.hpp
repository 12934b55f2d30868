#pragma once

#include <cstdint>
#include <functional>
#include <memory>
#include <vector>

#include "core/views/render.hpp"

namespace glow::views {

/// What a pixel's line of sight meets in one place of its order: of a SeenSurface.
struct PixelKey {
  std::uint64_t key = 0;
  std::int32_t facet = -1;
  float share = 0;  ///< of its exitance over pi that arrives; negative: without the tint of the facet
};

/// Whether so little arrives of what a surface sends, as by panes that reflect, that its light may be found
/// half as finely.
bool is_weak(const PixelKey& own, const geometry::Geometry& geometry);

/// A rectangle of pixels, both ends included.
struct Block {
  int left, top, right, bottom;
  int columns() const { return right - left + 1; }
  int rows() const { return bottom - top + 1; }
};

/// Lines of sight through the pixels of a picture, and what they meet.
class PictureSight {
 public:
  PictureSight(const Sight& sight, const geometry::Camera& camera) : sight_(&sight), camera_(&camera) {}

  /// Through a place of the picture, in pixel coordinates; how much of its surface a pixel shows is told too.
  void at(double x, double y, Seen& seen) const;
  /// Through the middles of a row's pixels: each in turn is told, as `seen` has it.
  void along_row(int y, Seen& seen, const std::function<void(int x)>& tell) const;
  const geometry::Camera& camera() const { return *camera_; }

 private:
  void measure_pixels(const geometry::SightLine& line, Seen& seen) const;

  const Sight* sight_;
  const geometry::Camera* camera_;
};

/// The light on what a block of pixels shows, in one place of the lines' order: found at a few pixels, laid
/// evenly between them where that is good enough, and else found at more of them, down to each. Blocks that
/// share a line of pixels have the same light along it, but for what they lay between.
class BlockFiller {
 public:
  BlockFiller(const RoomSources& sources, const ReflectedField& field, const PictureSight& sight,
              const Quality& quality, const std::vector<PixelKey>& keys, std::size_t order,
              const Block& block);

  /// Whether any of its pixels sees something that scatters.
  bool any() const { return lux_ != nullptr; }
  void fill();
  /// lx by layers at a pixel of the block; null: nothing that scatters is seen there.
  const float* at(int x, int y) const {
    const std::size_t i = index(x, y);
    return keys_[i].key == 0 ? nullptr : lux_.get() + i * layers_;
  }
  std::uint64_t key(int x, int y) const { return keys_[index(x, y)].key; }
  const Block& block() const { return block_; }

 private:
  std::size_t index(int x, int y) const {
    return std::size_t((y - block_.top) * block_.columns() + (x - block_.left));
  }
  float* found(int x, int y);
  void fill(const Block& part);
  bool is_even(const Block& part);
  void lay(const Block& part);
  bool fits(double tolerance, const float* found, const float* a, const float* b, const float* c,
            const float* d) const;
  void share_by_keys(const Block& part);
  bool is_of_one(const Block& part) const;

  const RoomSources& sources_;
  const ReflectedField& field_;
  const PictureSight& sight_;
  const Quality& quality_;
  std::size_t order_, layers_;
  Block block_;
  std::vector<PixelKey> keys_;    ///< of the block
  std::unique_ptr<float[]> lux_;  ///< of pixels whose light has been found
  std::vector<char> is_found_;
};

}  // namespace glow::views
