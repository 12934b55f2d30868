// PNG and PDF from SVG, in the process.
#include "figures/raster/convert_svg.hpp"

#include <gtest/gtest.h>

#include "temporary_folder.hpp"
#include "test_files.hpp"

namespace glow::figures {
namespace raster_test {

const std::string kDrawing =
    "<svg xmlns='http://www.w3.org/2000/svg' width='40' height='30'><rect width='40' height='30' "
    "fill='#cfe6ea'/>"
    "<text x='4' y='20' font-size='12'>a</text></svg>";

TEST(Raster, MakesTheSameBytesOfBothKinds) {
  const test::TemporaryFolder folder;
  for (const auto& [suffix, begins] : {std::pair{".png", "\x89PNG"}, {".pdf", "%PDF"}}) {
    std::string reason;
    const auto one = folder.path() / ("one" + std::string(suffix)),
               two = folder.path() / ("two" + std::string(suffix));
    ASSERT_TRUE(convert_svg(kDrawing, one, reason)) << reason;
    ASSERT_TRUE(convert_svg(kDrawing, two, reason)) << reason;
    EXPECT_EQ(test::content_of(one).rfind(begins, 0), 0u);
    EXPECT_EQ(test::content_of(one), test::content_of(two));
  }
  // Width and height of the picture, as its header says.
  const std::string png = test::content_of(folder.path() / "one.png");
  EXPECT_EQ(int(png[19]), 40);
  EXPECT_EQ(int(png[23]), 30);
}

TEST(Raster, SaysWhyItCannot) {
  const test::TemporaryFolder folder;
  for (const char* suffix : {".png", ".pdf"}) {
    std::string reason;
    EXPECT_FALSE(convert_svg("<svg", folder.path() / ("broken" + std::string(suffix)), reason));
    EXPECT_FALSE(reason.empty());
    reason.clear();
    EXPECT_FALSE(convert_svg(kDrawing, folder.path() / "nowhere" / ("x" + std::string(suffix)), reason));
    EXPECT_FALSE(reason.empty());
  }
}

}  // namespace raster_test
}  // namespace glow::figures
