#pragma once

#include "core/record/record.hpp"
#include "figures/canvas/svg_canvas.hpp"

namespace glow::figures {

/// A plan of a room or an outdoor area without values: ground, objects, openings, luminaires and walls, for
/// what is drawn over it.
class BarePlan {
 public:
  /// `corner`: px of the lower left corner of `box`, which is the part of the world that is drawn, m.
  BarePlan(SvgCanvas& canvas, const record::RoomRecord& room, const geometry::Box2& box, const Vec2& corner,
           double pixels_per_m)
      : canvas_(canvas), room_(room), box_(box), corner_(corner), scale_(pixels_per_m) {}

  Vec2 px(const Vec2& m) const {
    return {corner_.x() + (m.x() - box_.low.x()) * scale_, corner_.y() - (m.y() - box_.low.y()) * scale_};
  }
  void ground();
  /// Objects, luminaires and walls, over what was drawn.
  void overlay(bool names);

 private:
  std::string path(const std::vector<Vec2>& points, bool closed) const;
  void draw(const record::LuminaireRecord& luminaire);

  SvgCanvas& canvas_;
  const record::RoomRecord& room_;
  geometry::Box2 box_;
  Vec2 corner_;
  double scale_;
};

}  // namespace glow::figures
