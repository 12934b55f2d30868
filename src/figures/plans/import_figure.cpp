#include "figures/plans/import_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/plans/line_work.hpp"
#include "figures/canvas/svg_canvas.hpp"
#include "figures/curves/curve_style.hpp"
#include "words/text_layout.hpp"

namespace glow::figures {
namespace {

using geometry::Polygon;
using plans::FoundOpening;

constexpr double kImportLeft = 36, kImportTop = 92, kImportBottom = 36, kImportColumn = 300,
                 kImportBetween = 26;
constexpr const char *kRoomFill = "#dcebd9", *kRoomInk = "#3f6b45", *kThing = "#b9c9d6",
                     *kThingInk = "#4a6378";
constexpr const char *kDoor = "#b5651d", *kWindow = "#1f6fb2", *kImportGap = "#8a4f9e", *kDoubt = "#b3261e",
                     *kPaleLine = "#c9c7c1", *kLuminaire = "#c98a00";

/// Metres to pixels, of what lies in the drawing's middle.
class ImportSheet {
 public:
  ImportSheet(const geometry::Box2& box) {
    const Vec2 room(kSheetWidth - kImportLeft - kImportColumn - kImportBetween - 24,
                    kSheetHeight - kImportTop - kImportBottom);
    const Vec2 size = box.size().cwiseMax(0.1);
    scale_ = std::min(room.x() / size.x(), room.y() / size.y());
    low_ = box.low;
    corner_ = Vec2(kImportLeft + (room.x() - size.x() * scale_) / 2,
                   kImportTop + (room.y() + size.y() * scale_) / 2);
  }
  Vec2 at(const Vec2& p) const {
    return corner_ + Vec2((p.x() - low_.x()) * scale_, -(p.y() - low_.y()) * scale_);
  }
  std::vector<Vec2> at(const std::vector<Vec2>& points) const {
    std::vector<Vec2> out;
    for (const Vec2& p : points) out.push_back(at(p));
    return out;
  }
  double scale() const { return scale_; }

 private:
  Vec2 low_, corner_;
  double scale_ = 1;
};

/// Of the rooms, with something around; of the drawing where there are none.
geometry::Box2 shown_part(const ImportPicture& picture) {
  std::vector<Vec2> points;
  for (const plans::FoundRoom& room : picture.plan->rooms)
    points.insert(points.end(), room.outline.begin(), room.outline.end());
  const bool of_rooms = !points.empty();
  if (!of_rooms)
    for (const plans::Stroke& stroke : picture.drawing->strokes)
      points.insert(points.end(), stroke.points.begin(), stroke.points.end());
  if (points.empty()) return {Vec2(0, 0), Vec2(1, 1)};
  geometry::Box2 box{points.front(), points.front()};
  for (const Vec2& p : points) {
    box.low = box.low.cwiseMin(p);
    box.high = box.high.cwiseMax(p);
  }
  const double around = of_rooms ? std::max(1.0, 0.06 * box.size().maxCoeff()) : 0;
  return {box.low.array() - around, box.high.array() + around};
}

void draw_drawing(SvgCanvas& canvas, const ImportSheet& sheet, const plans::Drawing& drawing) {
  std::string data;  // one path: a hundred thousand elements open slowly
  for (const plans::Stroke& stroke : drawing.strokes)
    if (stroke.points.size() > 1) data += path_data(sheet.at(stroke.points), stroke.closed);
  for (const plans::Fill& fill : drawing.fills)
    for (const Polygon& loop : fill.loops) data += path_data(sheet.at(loop), true);
  if (!data.empty()) canvas.path(data, "none", kPaleLine, 0.8);
}

void draw_rooms(SvgCanvas& canvas, const ImportSheet& sheet, const plans::FoundPlan& plan) {
  for (const plans::FoundRoom& room : plan.rooms) {
    std::string data = path_data(sheet.at(room.outline), true);
    for (const Polygon& hole : room.holes) data += path_data(sheet.at(hole), true);
    canvas.path(data, kRoomFill, kRoomInk, 1.4);
    canvas.opacity_of_last(0.8);
  }
  for (const plans::FoundObject& object : plan.objects)
    canvas.path(path_data(sheet.at(object.footprint), true), kThing, kThingInk, 0.9);
}

/// Where light would leak out of a shell.
void draw_open_edges(SvgCanvas& canvas, const ImportSheet& sheet, const plans::FoundPlan& plan) {
  for (const plans::Segment& edge : plan.open_edges)
    canvas.line(sheet.at(edge.from), sheet.at(edge.to), kDoubt, 2);
}

void draw_roof_openings(SvgCanvas& canvas, const ImportSheet& sheet, const plans::FoundPlan& plan) {
  for (const plans::FoundRoom& room : plan.rooms)
    for (const plans::FoundRoofOpening& opening : room.roof_openings) {
      const double turn = opening.rotation_deg * M_PI / 180;
      const Vec2 along = Vec2(std::cos(turn), std::sin(turn)) * (opening.size.x() / 2);
      const Vec2 up = Vec2(-std::sin(turn), std::cos(turn)) * (opening.size.y() / 2);
      canvas.path(path_data(sheet.at({opening.at - along - up, opening.at + along - up,
                                      opening.at + along + up, opening.at - along + up}),
                            true),
                  "#d6e6f4", kWindow, 1.6);
    }
}

void draw_luminaires(SvgCanvas& canvas, const ImportSheet& sheet, const plans::FoundPlan& plan) {
  for (const plans::FoundLuminaire& luminaire : plan.luminaires)
    canvas.circle(sheet.at(luminaire.at), 3.5, kLuminaire, "#ffffff", 1);
}

void draw_openings(SvgCanvas& canvas, const ImportSheet& sheet, const plans::FoundPlan& plan) {
  for (const plans::FoundRoom& room : plan.rooms)
    for (const FoundOpening& opening : room.openings) {
      const plans::Segment line =
          plans::along_edge(room.outline, opening.edge, opening.from_m, opening.width_m);
      const char* colour = opening.kind == FoundOpening::Kind::window ? kWindow
                           : opening.kind == FoundOpening::Kind::door ? kDoor
                                                                      : kImportGap;
      canvas.line(sheet.at(line.from), sheet.at(line.to), colour, 4.5);
    }
}

/// Name, and number and area below it, as far as they fit the room.
void write_names(SvgCanvas& canvas, const ImportSheet& sheet, const ImportPicture& picture) {
  for (std::size_t k = 0; k < picture.plan->rooms.size(); ++k) {
    const plans::FoundRoom& room = picture.plan->rooms[k];
    const geometry::Box2 box = geometry::bounding_box(room.outline);
    const Vec2 size = box.size() * sheet.scale();
    const Vec2 middle =
        room.outline.size() == 4 ? Vec2((box.low + box.high) / 2) : plans::point_inside(room.outline);
    const Vec2 at = sheet.at(middle);
    const double letters = std::clamp(
        14 * (size.x() - 8) / std::max(1.0, 1.08 * text_width(picture.room_names[k], 14)), 8.0, 14.0);
    if (size.x() < 24 || size.y() < 10) continue;
    canvas.text(at, fitted_text(picture.room_names[k], size.x() - 6, letters, true),
                {letters, "middle", kSheetInk, true, "#ffffff"});
    if (size.y() < 3.2 * letters) continue;
    std::string below = fmt::format(FMT_STRING("{:.1f} m\u00b2"), geometry::signed_area(room.outline));
    if (!room.number.empty()) below = room.number + ", " + below;
    if (room.height_m) below += fmt::format(FMT_STRING(", {:.2f} m high"), *room.height_m);
    canvas.text(at + Vec2(0, 1.25 * letters), fitted_text(below, size.x() - 6, letters - 1),
                {letters - 1, "middle", kSheetGrey, false, "#ffffff"});
  }
}

/// The column beside the drawing.
class ImportColumn {
 public:
  explicit ImportColumn(SvgCanvas& canvas) : canvas_(canvas), x_(kSheetWidth - kImportColumn - 20) {}

  void heading(const std::string& words) {
    y_ += 14;
    line(words, kSheetInk, true);
  }
  void line(const std::string& words, const char* ink = kSheetGrey, bool bold = false) {
    if (is_full()) return;
    y_ += 17;
    canvas_.text({x_, y_}, fitted_text(words, kImportColumn, 12.5, bold), {12.5, "start", ink, bold});
  }
  void key(const char* colour, const std::string& words) {
    if (is_full()) return;
    y_ += 17;
    canvas_.line({x_, y_ - 4}, {x_ + 22, y_ - 4}, colour, 4.5);
    canvas_.text({x_ + 30, y_}, words, {12.5, "start", kSheetGrey});
  }
  /// Words over as many lines as they take.
  void paragraph(const std::string& words, const char* ink) {
    std::string row;
    for (std::size_t begin = 0; begin <= words.size();) {
      const std::size_t end = std::min(words.find(' ', begin), words.size());
      const std::string word = words.substr(begin, end - begin);
      if (!row.empty() && text_width(row + " " + word, 12.5) > kImportColumn) {
        line(row, ink);
        row.clear();
      }
      row += (row.empty() ? "" : " ") + word;
      begin = end + 1;
    }
    line(row, ink);
  }
  bool is_full() const { return y_ > kSheetHeight - 40; }

 private:
  SvgCanvas& canvas_;
  double x_, y_ = kImportTop - 24;
};

std::size_t count(const plans::FoundPlan& plan, FoundOpening::Kind kind) {
  std::size_t n = 0;
  for (const plans::FoundRoom& room : plan.rooms)
    for (const FoundOpening& opening : room.openings)
      // A door between two rooms is one door.
      n += opening.kind == kind &&
           (opening.leads_to < 0 || &plan.rooms[std::size_t(opening.leads_to)] > &room);
  return n;
}

void write_column(SvgCanvas& canvas, const ImportPicture& picture) {
  constexpr std::size_t kMostDoubts = 9, kMostLayers = 12;
  const plans::FoundPlan& plan = *picture.plan;
  ImportColumn column(canvas);
  column.heading("Taken");
  column.key(kRoomInk, words::counted(plan.rooms.size(), "room"));
  if (const std::size_t doors = count(plan, FoundOpening::Kind::door))
    column.key(kDoor, words::counted(doors, "door"));
  if (const std::size_t windows = count(plan, FoundOpening::Kind::window))
    column.key(kWindow, words::counted(windows, "window"));
  if (const std::size_t gaps = count(plan, FoundOpening::Kind::gap))
    column.key(kImportGap, words::counted(gaps, "gap") + ", closed");
  std::size_t roof_windows = 0;
  for (const plans::FoundRoom& room : plan.rooms) roof_windows += room.roof_openings.size();
  if (roof_windows > 0) column.key(kWindow, words::counted(roof_windows, "roof window"));
  if (!plan.open_edges.empty()) column.key(kDoubt, words::counted(plan.open_edges.size(), "open edge"));
  if (!plan.objects.empty()) column.key(kThingInk, words::counted(plan.objects.size(), "thing"));
  if (!plan.luminaires.empty()) column.key(kLuminaire, words::counted(plan.luminaires.size(), "luminaire"));
  if (!plan.doubts.empty() || !picture.warnings.empty()) column.heading("To look at");
  for (const std::string& words : picture.warnings) column.paragraph(words, kDoubt);
  for (std::size_t k = 0; k < std::min(plan.doubts.size(), kMostDoubts); ++k) {
    std::string words = fmt::format(FMT_STRING("{}: {}"), k + 1, plan.doubts[k].text);
    if (!plan.doubts[k].drawn.empty()) words += " (" + plan.doubts[k].drawn + ")";
    column.paragraph(words, kDoubt);
  }
  if (plan.doubts.size() > kMostDoubts)
    column.line(fmt::format(FMT_STRING("and {} more"), plan.doubts.size() - kMostDoubts), kDoubt);
  std::vector<const plans::Layer*> ignored;
  for (std::size_t k = 0; k < picture.drawing->layers.size(); ++k)
    if (!picture.taken[k] && picture.drawing->layers[k].entities > 0)
      ignored.push_back(&picture.drawing->layers[k]);
  if (!ignored.empty()) column.heading("Not looked at");
  for (std::size_t k = 0; k < std::min(ignored.size(), kMostLayers); ++k)
    column.line(fmt::format(FMT_STRING("{}: {}{}"), ignored[k]->name, ignored[k]->entities,
                            ignored[k]->frozen ? " (frozen)"
                            : ignored[k]->off  ? " (off)"
                                               : ""));
  if (ignored.size() > kMostLayers)
    column.line(fmt::format(FMT_STRING("and {} more layers"), ignored.size() - kMostLayers));
}

void mark_doubts(SvgCanvas& canvas, const ImportSheet& sheet, const plans::FoundPlan& plan) {
  constexpr double kMarkRadius = 9;
  for (std::size_t k = 0; k < plan.doubts.size(); ++k) {
    if (!plan.doubts[k].has_place) continue;
    const Vec2 at = sheet.at(plan.doubts[k].at);
    const Vec2 kept(std::clamp(at.x(), kImportLeft, kSheetWidth - kImportColumn - kImportBetween - 24.0),
                    std::clamp(at.y(), kImportTop, kSheetHeight - kImportBottom));
    canvas.circle(kept, kMarkRadius, "#ffffff", kDoubt, 1.8);
    canvas.text(kept + Vec2(0, 4), std::to_string(k + 1), {11, "middle", kDoubt, true});
  }
}

/// A bar of whole metres.
void draw_scale_bar(SvgCanvas& canvas, const ImportSheet& sheet) {
  double metres = 1;
  for (const double step : {2.0, 5.0, 10.0, 20.0, 50.0, 100.0})
    if (metres * sheet.scale() < 60) metres = step;
  const double y = kSheetHeight - 22;
  canvas.line({kImportLeft, y}, {kImportLeft + metres * sheet.scale(), y}, kSheetInk, 2);
  canvas.text({kImportLeft + metres * sheet.scale() + 8, y + 4}, fmt::format(FMT_STRING("{:g} m"), metres),
              {12, "start", kSheetInk});
}

}  // namespace

std::string import_svg(const ImportPicture& picture) {
  SvgCanvas canvas(kSheetWidth, kSheetHeight);
  const ImportSheet sheet(shown_part(picture));
  canvas.text({kImportLeft, 40}, fitted_text(picture.title, kSheetWidth - 2 * kImportLeft, 24, true),
              {24, "start", kSheetInk, true});
  canvas.text({kImportLeft, 64}, fitted_text(picture.subtitle, kSheetWidth - 2 * kImportLeft, 14),
              {14, "start", kSheetGrey});
  const double right = kSheetWidth - kImportColumn - kImportBetween - 20;
  canvas.begin_clip(path_data({{kImportLeft - 8, kImportTop - 8},
                               {right, kImportTop - 8},
                               {right, kSheetHeight - kImportBottom + 8},
                               {kImportLeft - 8, kSheetHeight - kImportBottom + 8}},
                              true));
  draw_drawing(canvas, sheet, *picture.drawing);
  draw_rooms(canvas, sheet, *picture.plan);
  draw_openings(canvas, sheet, *picture.plan);
  draw_roof_openings(canvas, sheet, *picture.plan);
  draw_open_edges(canvas, sheet, *picture.plan);
  draw_luminaires(canvas, sheet, *picture.plan);
  write_names(canvas, sheet, picture);
  canvas.end_group();
  mark_doubts(canvas, sheet, *picture.plan);
  draw_scale_bar(canvas, sheet);
  write_column(canvas, picture);
  return canvas.bytes();
}

}  // namespace glow::figures
