#include "core/views/tone.hpp"

#include <algorithm>
#include <cmath>

#include "core/parallel/parallel.hpp"
#include "core/views/bloom.hpp"

namespace glow::views {
namespace {

using Matrix = Eigen::Matrix3d;

constexpr double kMiddleGrey = 0.18;
constexpr double kStraight = 0.45;    // of white: up to here the curve is straight
constexpr double kOfSettled = 0.6;    // of what eyes settle on: rooms are mostly lighter than middle grey
constexpr double kAdapts = 0.8;       // how far eyes take a room's light for white
constexpr std::uint8_t kPaper = 250;  // beside a room that is seen from outside
const colour::Chromaticity kScreenWhite{0.3127, 0.3290};

const Matrix& to_cones() {
  static const Matrix matrix =
      (Matrix() << 0.7328, 0.4296, -0.1624, -0.7036, 1.6975, 0.0061, 0.0030, 0.0136, 0.9834).finished();
  return matrix;
}

/// Share of white: straight at first, then ever flatter.
double rolled_off(double x) {
  if (x <= kStraight) return x;
  const double beyond = (x - kStraight) / (1 - kStraight);
  return kStraight + (1 - kStraight) * beyond / (1 + beyond);
}

std::uint8_t coded(double linear) {
  const double x = std::clamp(linear, 0.0, 1.0);
  const double code = x <= 0.0031308 ? 12.92 * x : 1.055 * std::pow(x, 1 / 2.4) - 0.055;
  return std::uint8_t(std::lround(255 * code));
}

/// The geometric mean of what is neither nearly black nor a light source, lifted for rooms that are dark in
/// most places and lit in some.
double settled_luminance(const SeenLight& light) {
  std::vector<float> lit;
  for (const float l : light.luminance)
    if (l > 0) lit.push_back(l);
  if (lit.empty()) return 1;
  const std::size_t low = lit.size() / 20, high = lit.size() - lit.size() / 20;
  std::nth_element(lit.begin(), lit.begin() + std::ptrdiff_t(low), lit.end());
  if (high < lit.size())
    std::nth_element(lit.begin() + std::ptrdiff_t(low), lit.begin() + std::ptrdiff_t(high), lit.end());
  double sum = 0, squares = 0;
  for (std::size_t i = low; i < high; ++i) {
    sum += std::log(double(lit[i]));
    squares += double(lit[i]);
  }
  const double count = double(high - low);
  return kOfSettled * std::sqrt(std::exp(sum / count) * squares / count);
}

/// The mixture's tristimulus values: each pixel counts by its luminance, light sources no more than others.
colour::Tristimulus mixture_of(const SeenLight& light, double most) {
  Vec3 sum = Vec3::Zero();
  for (std::size_t i = 0; i < light.luminance.size(); ++i) {
    const double l = double(light.luminance[i]);
    if (l > 0) sum += light.colour[i].cast<double>() * std::min(1.0, most / l);
  }
  return sum;
}

/// What of a pixel's light, `l` cd/m2 in all, is shown where `grey` is middle grey; linear, of white.
Vec3 shown(const colour::Tristimulus& light, double l, double grey) {
  const double level = kMiddleGrey * l / grey, bright = rolled_off(level);
  Vec3 rgb = colour::linear_srgb(light / l).cwiseMax(0.0);  // of luminance about 1
  // What is brighter than can be shown turns to white.
  const double pale = level > bright ? std::min(1.0, (level - bright) / level) : 0;
  rgb = (1 - pale) * rgb + pale * Vec3::Ones();
  rgb *= bright;
  const double most = rgb.maxCoeff();
  if (most > 1) rgb = rgb + (Vec3::Ones() - rgb) * std::min(1.0, (most - 1) / most) * 0.5;
  return rgb;
}

}  // namespace

Photograph developed(const Picture& picture, SeenLight light, const Development& how) {
  Photograph photograph;
  const double grey = how.exposure_ev ? std::pow(2, *how.exposure_ev) / 8 : settled_luminance(light);
  photograph.exposure_ev = std::log2(8 * grey);
  colour::Tristimulus white = mixture_of(light, 4 * grey);
  if (how.white_k) white = colour::tristimulus(colour::of_temperature(*how.white_k));
  Matrix adapted = Matrix::Identity();
  if (white.y() > 0) {
    white /= white.y();
    if (const auto c = colour::chromaticity_of(white))
      if (const auto temperature = colour::correlated(*c)) photograph.white_k = temperature->kelvin;
    const Vec3 from = to_cones() * white, to = to_cones() * colour::tristimulus(kScreenWhite);
    const double share = how.white_k ? 1 : kAdapts;
    const Vec3 scale = Vec3::Constant(1 - share) + share * to.cwiseQuotient(from);
    adapted = to_cones().inverse() * scale.asDiagonal() * to_cones();
  }
  if (how.bloom) add_bloom(picture.camera, grey / kMiddleGrey, light);
  photograph.srgb.resize(3 * picture.pixels());
  const std::size_t columns = std::size_t(picture.camera.columns);
  parallel_for(std::size_t(picture.camera.rows), {}, "developing", [&](std::size_t row) {
    for (std::size_t i = row * columns; i < (row + 1) * columns; ++i) {
      std::uint8_t* codes = photograph.srgb.data() + 3 * i;
      const double l = double(light.luminance[i]);
      if (l > 0) {
        const Vec3 rgb = shown(adapted * light.colour[i].cast<double>(), l, grey);
        for (std::size_t k = 0; k < 3; ++k) codes[k] = coded(rgb[Eigen::Index(k)]);
      } else if (picture.camera.from_outside && std::isinf(picture.depth_m[i])) {
        std::fill_n(codes, 3, kPaper);
      }
    }
  });
  return photograph;
}

}  // namespace glow::views
