#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "core/parallel/parallel.hpp"
#include "core/views/bloom.hpp"
#include "core/views/tone.hpp"

namespace glow::views {
namespace developing_test {

/// Layers of random light: the first grey, the others in bands.
Picture random_picture(int columns, int rows, std::size_t layers) {
  std::mt19937 random(7);
  std::uniform_real_distribution<float> share(0, 1);
  Picture picture;
  picture.camera.columns = columns;
  picture.camera.rows = rows;
  const std::size_t n = picture.pixels();
  for (std::size_t l = 0; l < layers; ++l) {
    PictureLayer layer;
    for (std::size_t i = 0; i < n; ++i) {
      layer.luminance.push_back(i % 11 == 0 ? 0 : 500 * share(random));
      layer.illuminance.push_back(2000 * share(random));
      for (int b = 0; l > 0 && b < 3; ++b) layer.bands.push_back(layer.luminance[i] * share(random));
    }
    picture.layers.push_back(layer);
  }
  picture.depth_m.assign(n, 1);
  return picture;
}

TEST(Developing, LightOfAUseIsTheWeightedSumOfItsLayers) {
  const Picture picture = random_picture(50, 40, 3);
  PictureUse use;
  use.weights = {0.8, 0, 0.3};
  use.colours = {colour::of_temperature(2700), std::nullopt, colour::of_temperature(6500)};
  const SeenLight seen = seen_light(picture, use);
  PictureUse only = use;
  only.weights = {0.8, 0, 0};
  const SeenLight first = seen_light(picture, only);
  only.weights = {0, 0, 0.3};
  const SeenLight third = seen_light(picture, only);
  for (std::size_t i = 0; i < picture.pixels(); ++i) {
    const float expected = 0.8f * picture.layers[0].luminance[i] + 0.3f * picture.layers[2].luminance[i];
    ASSERT_NEAR(seen.luminance[i], expected, 1e-6f * expected);
    ASSERT_NEAR(seen.illuminance[i], first.illuminance[i] + third.illuminance[i], 1e-3f);
    ASSERT_NEAR(seen.colour[i].y(), seen.luminance[i], 1e-5f * seen.luminance[i] + 1e-6f);
    ASSERT_TRUE(seen.colour[i].isApprox(first.colour[i] + third.colour[i], 1e-5f));
    if (first.luminance[i] <= 0) continue;
    const auto own =
        colour::chromaticity_of(first.colour[i].cast<double>());  // of a grey layer: its source's
    ASSERT_TRUE(own.has_value());
    ASSERT_NEAR(own->x, use.colours[0]->x, 1e-4);
    ASSERT_NEAR(own->y, use.colours[0]->y, 1e-4);
  }
}

/// Sixteen times the light is exposed by four steps less, and looks the same.
TEST(Developing, ARoomLooksTheSameWithMoreOfTheSameLight) {
  Picture picture = random_picture(64, 48, 2);
  PictureUse use;
  use.weights = {1, 1};
  use.colours = {colour::of_temperature(3000), colour::of_temperature(5000)};
  const Photograph dim = developed(picture, seen_light(picture, use), {});
  use.weights = {16, 16};
  const Photograph bright = developed(picture, seen_light(picture, use), {});
  EXPECT_NEAR(bright.exposure_ev, dim.exposure_ev + 4, 1e-4);
  ASSERT_TRUE(dim.white_k && bright.white_k);
  EXPECT_NEAR(*bright.white_k, *dim.white_k, 1);
  for (std::size_t i = 0; i < dim.srgb.size(); ++i) ASSERT_NEAR(bright.srgb[i], dim.srgb[i], 1) << i;
  picture.camera.from_outside = true;  // beside the room: paper, where nothing is met
  picture.depth_m.assign(picture.pixels(), INFINITY);
  const Photograph paper = developed(picture, seen_light(picture, use), {});
  EXPECT_EQ(paper.srgb[0], 250);
  EXPECT_EQ(paper.srgb[3], bright.srgb[3]);
}

TEST(Developing, IsTheSameWithAnyNumberOfThreads) {
  const Picture picture = random_picture(320, 200, 3);
  PictureUse use;
  use.weights = {1, 0.5, 0.25};
  use.colours = {std::nullopt, colour::of_temperature(3000), std::nullopt};
  const auto develop = [&](int threads) {
    const ThreadLimit limit(threads);
    return developed(picture, seen_light(picture, use), {}).srgb;
  };
  const std::vector<std::uint8_t> alone = develop(1);
  for (const int threads : {2, 3, 7}) EXPECT_EQ(develop(threads), alone) << threads;
}

TEST(Developing, PhotographsKeepTheOrderOfLuminancesAndShowWhiteAsWhite) {
  Picture picture;
  picture.camera.columns = 64;
  picture.camera.rows = 1;
  PictureLayer layer;
  for (int k = 0; k < 64; ++k) layer.luminance.push_back(float(std::pow(2.0, k / 4.0)));
  layer.illuminance = layer.luminance;
  picture.layers = {layer};
  picture.depth_m.assign(64, 1);
  PictureUse use;
  use.weights = {1};
  for (const double kelvin : {2700.0, 6500.0}) {
    use.colours = {colour::of_temperature(kelvin)};
    Development how;
    how.white_k = kelvin;
    how.exposure_ev = 8;  // 32 cd/m2 is middle grey
    const Photograph photograph = developed(picture, seen_light(picture, use), how);
    for (std::size_t i = 1; i < 64; ++i) EXPECT_GE(photograph.srgb[3 * i + 1], photograph.srgb[3 * i - 2]);
    EXPECT_NEAR(photograph.srgb[3 * 20], 118, 2);  // 0.18 of white in sRGB
    for (std::size_t i = 0; i < 64; ++i) {
      EXPECT_NEAR(photograph.srgb[3 * i], photograph.srgb[3 * i + 1], 2) << kelvin;
      EXPECT_NEAR(photograph.srgb[3 * i + 2], photograph.srgb[3 * i + 1], 2) << kelvin;
    }
  }
  // Two lights of different colour look it.
  use.colours = {colour::of_temperature(2700)};
  Development cool;
  cool.white_k = 6500;
  cool.exposure_ev = 8;
  const Photograph warm = developed(picture, seen_light(picture, use), cool);
  EXPECT_GT(warm.srgb[3 * 20], warm.srgb[3 * 20 + 2] + 40);
}

/// One bright pixel veils by the formula what lies about it, by its own colour, and nothing else changes.
TEST(Developing, WhatIsBrighterThanWhiteShinesOver) {
  Picture picture;
  picture.camera.columns = 81;
  picture.camera.rows = 41;
  const std::size_t n = picture.pixels(), middle = 20 * 81 + 40;
  SeenLight light;
  light.luminance.assign(n, 10);
  light.colour.assign(n, Eigen::Vector3f(9, 10, 8));
  light.luminance[middle] = 1e6;
  light.colour[middle] = 1e6f * Eigen::Vector3f(1.2f, 1, 0.3f);
  SeenLight veiled = light;
  add_bloom(picture.camera, 1e3, veiled);
  const double lux = 1e6 * picture.camera.solid_angle(40.5, 20.5);
  const Vec3 towards = picture.camera.sight(40.5, 20.5).along;
  for (const std::size_t at : {middle + 12, middle - 20, middle + 81 * 15, std::size_t(0)}) {
    const Vec3 sight = picture.camera.sight(double(at % 81) + 0.5, double(at / 81) + 0.5).along;
    const double theta = std::acos(sight.dot(towards)) / kDegree;
    const double veil = lux * (10 / std::pow(theta, 3) + 5 * (1 + std::pow(30 / 62.5, 4)) / (theta * theta));
    EXPECT_NEAR(double(veiled.luminance[at]) - 10, veil, 0.05 * veil) << theta;
    EXPECT_NEAR(double(veiled.colour[at].x()) - 9, 1.2 * veil, 0.06 * veil) << theta;
  }
  SeenLight dim = light;
  add_bloom(picture.camera, 2e6, dim);
  EXPECT_EQ(dim.luminance, light.luminance);
  picture.camera.projection = geometry::Projection::parallel;
  add_bloom(picture.camera, 1e3, dim);
  EXPECT_EQ(dim.luminance, light.luminance);
}

}  // namespace developing_test
}  // namespace glow::views
