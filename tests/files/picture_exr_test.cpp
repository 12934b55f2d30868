// Pictures written and read back, and files that are none.
#include "files/pictures/picture_exr.hpp"

#include <gtest/gtest.h>

#include <fstream>

#include "temporary_folder.hpp"

namespace glow::files {
namespace picture_exr_test {

views::Picture small_picture() {
  views::Picture picture;
  picture.room = "Throwing room";
  picture.view = "from the door";
  picture.kind = "perspective";
  picture.camera.columns = 5;
  picture.camera.rows = 3;
  picture.camera.eye = {1, 2, 1.6};
  picture.surface_names = {"floor", "wall 1"};
  const std::size_t n = picture.pixels();
  for (const bool moment : {false, true}) {
    views::PictureLayer layer;
    layer.source = moment ? "noon" : "P1-1";
    layer.is_moment = moment;
    layer.uncertainty = moment ? 0.05 : 0.02;
    for (std::size_t i = 0; i < n; ++i) {
      layer.luminance.push_back(float(i * i) * (moment ? 4000 : 1));
      layer.illuminance.push_back(float(10 * i));
      for (int band = 0; band < 3 && moment; ++band)
        layer.bands.push_back(layer.luminance.back() * float(0.5 + 0.4 * band));
    }
    picture.layers.push_back(layer);
  }
  for (std::size_t i = 0; i < n; ++i) {
    picture.depth_m.push_back(i == 4 ? INFINITY : 1 + float(i));
    picture.surfaces.push_back(i == 4 ? -1 : std::int32_t(i % 2));
    for (const float component : {0.0f, 0.0f, 1.0f}) picture.normals.push_back(component);
  }
  picture.uses = {{"", {0.8, 0}, {colour::Chromaticity{0.38, 0.38}, std::nullopt}},
                  {"noon", {0, 1}, {std::nullopt, colour::Chromaticity{0.31, 0.33}}}};
  return picture;
}

TEST(PictureExr, ComesBackAsItWasWritten) {
  const test::TemporaryFolder folder;
  const views::Picture picture = small_picture();
  const std::filesystem::path file = folder.path() / "a.exr";
  write_exr(picture, picture.uses.back(), file);
  Problems problems;
  const auto read = read_exr(file, problems);
  ASSERT_TRUE(read) << to_string(problems.all().front());
  EXPECT_EQ(read->room, picture.room);
  EXPECT_EQ(read->view, picture.view);
  EXPECT_EQ(read->surfaces, picture.surfaces);
  EXPECT_EQ(read->surface_names, picture.surface_names);
  EXPECT_EQ(read->camera.eye, picture.camera.eye);
  ASSERT_EQ(read->layers.size(), 2u);
  for (std::size_t l = 0; l < 2; ++l) {
    const views::PictureLayer &a = picture.layers[l], &b = read->layers[l];
    EXPECT_EQ(a.source, b.source);
    EXPECT_EQ(a.is_moment, b.is_moment);
    EXPECT_EQ(a.uncertainty, b.uncertainty);
    ASSERT_EQ(a.luminance.size(), b.luminance.size());
    ASSERT_EQ(a.bands.size(), b.bands.size());
    for (std::size_t i = 0; i < a.luminance.size(); ++i) {
      EXPECT_NEAR(a.luminance[i], b.luminance[i], 1e-3f * a.luminance[i]);
      EXPECT_NEAR(a.illuminance[i], b.illuminance[i], 1e-3f * a.illuminance[i]);
    }
    for (std::size_t i = 0; i < a.bands.size(); ++i) EXPECT_NEAR(a.bands[i], b.bands[i], 2e-3f * a.bands[i]);
  }
  EXPECT_TRUE(std::isinf(read->depth_m[4]));
  ASSERT_EQ(read->uses.size(), 2u);
  EXPECT_EQ(read->uses[1].name, "noon");
  EXPECT_EQ(read->uses[0].weights, picture.uses[0].weights);
  EXPECT_FALSE(read->uses[0].colours[1]);
  EXPECT_EQ(read->uses[0].colours[0]->x, 0.38);
}

/// Cut off anywhere, or with a byte changed, it is refused with one message, or what is read has pixels that
/// are numbers.
TEST(PictureExr, DamagedFilesAreRefusedOrHarmless) {
  const test::TemporaryFolder folder;
  const views::Picture picture = small_picture();
  const std::filesystem::path file = folder.path() / "a.exr", bad = folder.path() / "bad.exr";
  write_exr(picture, picture.uses.front(), file);
  std::ifstream in(file, std::ios::binary);
  const std::string whole{std::istreambuf_iterator<char>(in), {}};
  ASSERT_GT(whole.size(), 1000u);
  const auto try_it = [&](const std::string& bytes) {
    std::ofstream(bad, std::ios::binary) << bytes;
    Problems problems;
    const auto read = read_exr(bad, problems);
    EXPECT_EQ(read.has_value(), problems.all().empty());
    if (!read) {
      EXPECT_EQ(problems.all().front().code, "V001");
      return;
    }
    for (const views::PictureLayer& layer : read->layers)
      for (const float value : layer.luminance) EXPECT_TRUE(std::isfinite(value));
  };
  for (std::size_t cut = 0; cut < whole.size(); cut += 37) try_it(whole.substr(0, cut));
  for (std::size_t at = 0; at < whole.size(); at += 23) {
    std::string bytes = whole;
    bytes[at] = char(bytes[at] ^ 0x55);
    try_it(bytes);
  }
  try_it("not a picture");
}

}  // namespace picture_exr_test
}  // namespace glow::files
