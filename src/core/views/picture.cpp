#include "core/views/picture.hpp"

#include <algorithm>

#include "core/parallel/parallel.hpp"

namespace glow::views {
namespace {

/// What a source of which no colour is stated is taken for.
const colour::Chromaticity kWhite = colour::of_temperature(4000);

}  // namespace

const PictureUse* Picture::find_use(const std::string& name) const {
  const auto use =
      std::find_if(uses.begin(), uses.end(), [&](const PictureUse& own) { return own.name == name; });
  return use == uses.end() ? nullptr : &*use;
}

double uncertainty_of(const Picture& picture, const PictureUse& use) {
  double largest = 0;
  for (std::size_t l = 0; l < picture.layers.size(); ++l)
    if (use.weights[l] > 0) largest = std::max(largest, picture.layers[l].uncertainty);
  return largest;
}

SeenLight seen_light(const Picture& picture, const PictureUse& use) {
  const std::size_t n = picture.pixels();
  SeenLight seen;
  seen.luminance.assign(n, 0.0f);
  seen.illuminance.assign(n, 0.0f);
  seen.colour.assign(n, Eigen::Vector3f::Zero());
  const std::size_t columns = std::size_t(picture.camera.columns);
  const auto add_row = [&](std::size_t row) {
    for (std::size_t l = 0; l < picture.layers.size(); ++l) {
      const PictureLayer& layer = picture.layers[l];
      const float weight = float(use.weights[l]);
      if (weight <= 0) continue;
      const colour::Tristimulus emitted = colour::tristimulus(use.colours[l].value_or(kWhite));
      const Vec3 own_bands = colour::bands_of(emitted);
      for (std::size_t i = row * columns; i < (row + 1) * columns; ++i) {
        const float luminance = weight * layer.luminance[i];
        seen.illuminance[i] += weight * layer.illuminance[i];
        if (luminance == 0) continue;
        seen.luminance[i] += luminance;
        Vec3 light = emitted;
        if (!layer.bands.empty()) {
          const Vec3 bands(layer.bands[3 * i], layer.bands[3 * i + 1], layer.bands[3 * i + 2]);
          const Vec3 tinted = colour::light_of(bands.cwiseProduct(own_bands));
          if (tinted.y() > 0) light = tinted / tinted.y();
        }
        seen.colour[i] += luminance * light.cast<float>();
      }
    }
  };
  parallel_for(n / std::max<std::size_t>(1, columns), {}, "colours", add_row);
  return seen;
}

}  // namespace glow::views
