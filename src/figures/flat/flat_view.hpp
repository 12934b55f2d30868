#pragma once

#include "core/record/record.hpp"
#include "figures/canvas/colour_scale.hpp"
#include "figures/canvas/isolines.hpp"
#include "figures/canvas/svg_canvas.hpp"
#include "figures/flat/flat_shapes.hpp"
#include "figures/flat/shown_measure.hpp"

namespace glow::figures {

inline constexpr const char* kInk = "#1c1c1c";
inline constexpr double kLabelSize = 12;  ///< px

inline constexpr const char* kBlank = "#f4f3f0";  ///< what is not evaluated
inline constexpr const char* kFail = "#a3243b";

/// Everything that the figures of a room share.
struct FigureInput {
  const record::RoomRecord* room = nullptr;
  model::FigureStyle style;
  units::ShownUnits units;
  /// Lowest and highest value of all figures, where they share one scale; lx.
  std::optional<std::pair<double, double>> common;
  ShownMeasure measure = {};

  /// A value of the figure's grids as people see it.
  double shown(double value) const { return measure.shown(value, units); }
};

/// The scale for one or several grids.
ColourScale scale_of(const FigureInput& input, const std::vector<const assess::GridReading*>& grids);

/// Results that are older than the project say so, in red, under a figure's title; nothing where they are
/// current.
void draw_older(SvgCanvas& canvas, const record::RoomRecord& room, const Vec2& at);

/// "123" or "4.5": a value as figures write it, without its unit.
std::string value_label(double shown);

/// A grid drawn flat at a place on a sheet: false colours, lines, values, outlines, luminaires.
class FlatView {
 public:
  /// `corner`: px of the low corner of the grid's bounding box. `limit_lx`: a line that a requirement sets,
  /// strongly marked. `small`: part of a sheet, without names of luminaires and the ring about the lowest
  /// value. `window`: what of the grid's plane is shown, in its own coordinates; nothing: the grid's box.
  FlatView(SvgCanvas& canvas, const FigureInput& input, const assess::GridReading& grid,
           const ColourScale& scale, const Vec2& corner, double pixels_per_m, bool small,
           std::optional<double> limit_lx = std::nullopt,
           std::optional<geometry::Box2> window = std::nullopt);

  void draw();
  const geometry::Box2& box() const { return box_; }
  Vec2 px(const Vec2& m) const {
    return {corner_.x() + (m.x() - box_.low.x()) * pixels_per_m_,
            corner_.y() - (m.y() - box_.low.y()) * pixels_per_m_};
  }

 private:
  struct Rect {
    Vec2 low, high;
    bool meets(const Rect& o) const {
      return low.x() < o.high.x() && o.low.x() < high.x() && low.y() < o.high.y() && o.low.y() < high.y();
    }
    bool holds(const Rect& o) const {
      return low.x() <= o.low.x() && o.high.x() <= high.x() && low.y() <= o.low.y() && o.high.y() <= high.y();
    }
  };
  static Rect around(const Vec2& centre, double width, double height) {
    const Vec2 half(width / 2, height / 2);
    return {centre - half, centre + half};
  }
  std::string path_of(const std::vector<Vec2>& points, bool closed) const;
  bool is_free(const Rect& rect) const;

  void colours();
  void tints();
  void beyond_limits();
  void blank_cells();
  void lines();
  void line_labels();
  void label_lines(const std::vector<std::vector<Vec2>>& chains, const std::string& words, bool strong);
  void shapes(bool covering);
  void shape_names();
  std::optional<Vec2> name_place(const FlatShape& shape, const geometry::Box2& extent, double size) const;
  void outline();
  Vec2 luminaire_size(const FlatLuminaire& luminaire) const;
  Rect luminaire_rect(const FlatLuminaire& luminaire) const;
  void luminaire(const FlatLuminaire& luminaire);
  void leaning(const FlatLuminaire& luminaire);
  void aim(const FlatLuminaire& luminaire);
  void mark(const FlatLuminaire& luminaire);
  bool is_under_luminaire(const Rect& rect) const;
  bool has_value(const Vec2& at) const;  ///< whether the cell there holds a point
  std::string lowest_words() const;
  Rect lowest_rect() const;
  void lowest();
  bool is_of_one_band(const Vec2& middle, const Vec2& half) const;
  void values();

  SvgCanvas& canvas_;
  const FigureInput& input_;
  const assess::GridReading& grid_;
  const ColourScale& scale_;
  Vec2 corner_;
  double pixels_per_m_;
  bool small_;
  std::optional<double> limit_;  // as shown
  geometry::Box2 box_, window_;
  std::vector<double> shown_;  // values as shown
  Lattice lattice_;
  std::vector<std::vector<std::vector<Vec2>>> chains_;  ///< of the scale's lines, as they are drawn
  std::vector<std::vector<Vec2>> no_sky_;               ///< beyond it no sky is seen
  std::vector<FlatShape> shapes_;
  std::vector<FlatLuminaire> luminaires_;
  std::vector<Rect> taken_;      // by labels
  std::set<std::string> named_;  // marks
};

/// The bands with their levels, from (x, y) down, at most `height` px high. Gives the y below it.
double draw_scale(SvgCanvas& canvas, const ColourScale& scale, const std::string& title, double x, double y,
                  double height);

}  // namespace glow::figures
