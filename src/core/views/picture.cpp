#include "core/views/picture.hpp"

#include <algorithm>

#include "core/parallel/parallel.hpp"

namespace glow::views {
namespace {

/// What a source of which no colour is stated is taken for.
const colour::Chromaticity kWhite = colour::of_temperature(4000);

/// A layer with light in a use.
struct Shining {
  const PictureLayer* layer;
  float weight;
  colour::Tristimulus emitted;
  Vec3 bands;  ///< of what is emitted

  /// Of what a pixel sends on, for a luminance of 1.
  colour::Tristimulus colour(std::size_t pixel) const {
    if (layer->bands.empty()) return emitted;
    const float* sent = layer->bands.data() + 3 * pixel;
    const colour::Tristimulus tinted = colour::light_of(Vec3(sent[0], sent[1], sent[2]).cwiseProduct(bands));
    return tinted.y() > 0 ? colour::Tristimulus(tinted / tinted.y()) : emitted;
  }
};

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
  const std::size_t n = picture.pixels(), columns = std::size_t(picture.camera.columns);
  SeenLight seen;
  seen.luminance.assign(n, 0.0f);
  seen.illuminance.assign(n, 0.0f);
  seen.colour.assign(n, Eigen::Vector3f::Zero());
  std::vector<Shining> shining;
  for (std::size_t l = 0; l < picture.layers.size(); ++l)
    if (use.weights[l] > 0) {
      const colour::Tristimulus emitted = colour::tristimulus(use.colours[l].value_or(kWhite));
      shining.push_back({&picture.layers[l], float(use.weights[l]), emitted, colour::bands_of(emitted)});
    }
  parallel_for(std::size_t(picture.camera.rows), {}, "colours", [&](std::size_t row) {
    for (const Shining& own : shining)
      for (std::size_t i = row * columns; i < (row + 1) * columns; ++i) {
        const float luminance = own.weight * own.layer->luminance[i];
        seen.illuminance[i] += own.weight * own.layer->illuminance[i];
        if (luminance == 0) continue;
        seen.luminance[i] += luminance;
        seen.colour[i] += luminance * own.colour(i).cast<float>();
      }
  });
  return seen;
}

}  // namespace glow::views
