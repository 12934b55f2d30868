#include "figures/flat/bare_plan.hpp"

#include "figures/curves/curve_style.hpp"
#include "figures/flat/flat_view.hpp"

namespace glow::figures {
namespace {

constexpr double kLuminaireOpacity = 0.5;  // values are read through them

}  // namespace

std::string BarePlan::path(const std::vector<Vec2>& points, bool closed) const {
  std::vector<Vec2> drawn;
  for (const Vec2& p : points) drawn.push_back(px(p));
  return path_data(drawn, closed);
}

void BarePlan::ground() {
  canvas_.path(path(room_.outline, true), kBlank);
}

void BarePlan::overlay(bool names) {
  for (const space::PlanShape& object : room_.objects)
    canvas_.path(path(object.extent.plan, object.extent.plan.size() > 2), "none", kSheetInk, 1, "4 3");
  for (const space::Opening& opening : room_.openings)
    if (!opening.in_roof) canvas_.path(path(opening.plan(), false), "none", "#ffffff", 7);
  for (const record::LuminaireRecord& luminaire : room_.luminaires()) draw(luminaire);
  // Ground outdoors ends without a wall.
  canvas_.path(path(room_.outline, true), "none", kSheetInk, room_.outdoors ? 1 : 2.5,
               room_.outdoors ? "2 3" : nullptr);
  for (const space::Opening& opening : room_.openings)
    if (!opening.in_roof) canvas_.path(path(opening.plan(), false), "none", "#8fb0b8", 4);
  if (!names) return;
  for (const space::PlanShape& object : room_.objects) {
    const geometry::Box2 extent = geometry::bounding_box(object.extent.plan);
    const Vec2 size = extent.size() * scale_;
    if (size.x() > text_width(object.name, 11) && size.y() > 12)
      canvas_.text(px(extent.low) + Vec2(5, -5), object.name, {11, "start", kSheetGrey});
  }
}

void BarePlan::draw(const record::LuminaireRecord& luminaire) {
  if (!luminaire.is_upright()) {
    std::vector<Vec2> corners;
    for (const Vec3& corner : luminaire.corners()) corners.push_back(corner.xy());
    canvas_.path(path(corners, true), "none", kSheetInk, 1);
    canvas_.opacity_of_last(kLuminaireOpacity);
    return;
  }
  const Vec2 size = (luminaire.size_m * scale_).cwiseMax(4.0);
  canvas_.begin_group(px(luminaire.position.xy()), -luminaire.rotation_deg);
  if (luminaire.round)
    canvas_.circle({0, 0}, size.x() / 2, "none", kSheetInk, 1);
  else
    canvas_.rectangle(-size / 2, size, "none", kSheetInk, 1);
  canvas_.opacity_of_last(kLuminaireOpacity);
  canvas_.end_group();
}

}  // namespace glow::figures
