#include "figures/pictures/pictures_beside.hpp"

#include <algorithm>
#include <cmath>

#include "figures/canvas/svg_canvas.hpp"

namespace glow::figures {
namespace {

constexpr double kSide = 28, kHead = 64, kStateName = 26, kAir = 18;  // px
constexpr double kBesideWidth = 1280;

/// Rows to columns of a PNG file, from its head.
double ratio_of(const std::string& png) {
  constexpr std::size_t kWidthAt = 16, kHeightAt = 20;
  if (png.size() < kHeightAt + 4) return 0.625;
  const auto number = [&](std::size_t at) {
    double value = 0;
    for (std::size_t k = 0; k < 4; ++k) value = 256 * value + double(static_cast<unsigned char>(png[at + k]));
    return value;
  };
  return number(kWidthAt) > 0 ? number(kHeightAt) / number(kWidthAt) : 0.625;
}

}  // namespace

std::string pictures_beside(const std::string& title, const std::vector<StatePicture>& pictures) {
  const std::size_t columns = std::min<std::size_t>(pictures.size(), pictures.size() == 4 ? 2 : 3);
  const std::size_t rows = (pictures.size() + columns - 1) / columns;
  const double width = (kBesideWidth - 2 * kSide - double(columns - 1) * kAir) / double(columns);
  double highest = 0;
  for (const StatePicture& picture : pictures) highest = std::max(highest, width * ratio_of(picture.png));
  const double row = kStateName + highest + kAir;
  SvgCanvas canvas(kBesideWidth, std::ceil(kHead + double(rows) * row + kSide / 2));
  canvas.text({kSide, 40}, fitted_text(title, kBesideWidth - 2 * kSide, 22, true),
              {22, "start", "#1c1c1c", true});
  for (std::size_t k = 0; k < pictures.size(); ++k) {
    const Vec2 corner(kSide + double(k % columns) * (width + kAir), kHead + double(k / columns) * row);
    canvas.text(corner + Vec2(0, 16), fitted_text(pictures[k].state, width, 14), {14});
    canvas.image(corner + Vec2(0, kStateName), {width, width * ratio_of(pictures[k].png)}, pictures[k].png);
  }
  return canvas.bytes();
}

}  // namespace glow::figures
