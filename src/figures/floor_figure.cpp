#include "figures/floor_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/plans/line_work.hpp"
#include "figures/curves/curve_style.hpp"
#include "figures/status_look.hpp"
#include "words/standing.hpp"
#include "words/text_layout.hpp"
#include "words/topics/room_words.hpp"

namespace glow::figures {
namespace {

constexpr double kFloorLeft = 36, kFloorTop = 124, kFloorRight = 36, kFloorBottom = 36;

struct Place {
  std::string name, number, status, detail;
  geometry::Polygon outline;
};

/// Rooms of a floor; of none where `floor` is empty.
std::vector<Place> places_of(const record::RunRecord& run, const std::string& floor) {
  std::vector<Place> places;
  for (const record::RoomRecord& room : run.rooms) {
    if (room.floor != floor) continue;
    const words::Standing standing = words::standing(room);
    std::string detail = standing.decisive ? words::held_words(*standing.decisive, run.units) : std::string();
    if (!room.changed_since.empty()) detail = words::older_words(room);
    places.push_back({room.name, room.number, to_string(room.assessment.status), detail, room.outline});
  }
  for (const record::UncomputedRoom& room : run.not_computed)
    if (room.floor == floor) places.push_back({room.name, {}, "not computed", room.fault, room.outline});
  return places;
}

std::optional<geometry::Box2> box_of(const std::vector<Place>& places) {
  std::optional<geometry::Box2> box;
  for (const Place& place : places) {
    const geometry::Box2 own = geometry::bounding_box(place.outline);
    box = box ? geometry::Box2{box->low.cwiseMin(own.low), box->high.cwiseMax(own.high)} : own;
  }
  return box;
}

/// Where words lie in a room.
Vec2 middle_of(const geometry::Polygon& outline) {
  const geometry::Box2 box = geometry::bounding_box(outline);
  const Vec2 middle = (box.low + box.high) / 2;
  return outline.size() == 4 && geometry::contains(outline, middle) ? middle : plans::point_inside(outline);
}

struct Row {
  std::string words;
  SvgCanvas::Text style;
};

/// As much of name, verdict and what decides it as fits a room of this size (px), on a light ground.
void write_in(SvgCanvas& canvas, const Place& place, const Vec2& middle, const Vec2& size) {
  constexpr double kLeastLetters = 7.5, kDetailLetters = 9;
  const StatusLook look = look_of(place.status);
  if (size.x() < 20 || size.y() < 10) return;
  const auto fitting = [&](const std::string& words, double letters) {
    return std::clamp(letters * (size.x() - 8) / std::max(1.0, text_width(words, letters)), kLeastLetters,
                      letters);
  };
  std::vector<Row> rows;
  const bool short_name = fitting(place.name, 14) <= kLeastLetters && !place.number.empty();
  const std::string& name = short_name ? place.number : place.name;
  const double letters = fitting(name, 14);
  rows.push_back({fitted_text(name, size.x() - 6, letters, true), {letters, "middle", kSheetInk, true}});
  const double verdict = std::min(letters, fitting(look.word, 13));
  if (size.y() > 2.8 * letters) rows.push_back({look.word, {verdict, "middle", look.ink, true}});
  const double detail = fitting(place.detail, 12);
  if (size.y() > 4.6 * letters && !place.detail.empty() && detail >= kDetailLetters)
    rows.push_back({fitted_text(place.detail, size.x() - 6, detail), {detail, "middle", kSheetGrey}});
  double height = 4, width = 0;
  for (const Row& row : rows) {
    height += 1.3 * row.style.size;
    width = std::max(width, text_width(row.words, row.style.size) * (row.style.bold ? 1.08 : 1));
  }
  canvas.rectangle(middle - Vec2(width / 2 + 3, height / 2), Vec2(width + 6, height), "#ffffff");
  canvas.opacity_of_last(0.82);
  double y = middle.y() - height / 2;
  for (const Row& row : rows) {
    y += 1.3 * row.style.size;
    canvas.text({middle.x(), y - 0.2 * row.style.size}, row.words, row.style);
  }
}

/// A floor into a part of the sheet, `corner` its upper left.
void draw_floor(SvgCanvas& canvas, const std::vector<Place>& places, const geometry::Box2& box,
                const Vec2& corner, double scale) {
  const auto at = [&](const Vec2& p) {
    return Vec2(corner + Vec2((p.x() - box.low.x()) * scale, (box.high.y() - p.y()) * scale));
  };
  for (const Place& place : places) {
    const StatusLook look = look_of(place.status);
    std::vector<Vec2> corners;
    for (const Vec2& p : place.outline) corners.push_back(at(p));
    const std::string fill = look.fill(canvas);
    canvas.path(path_data(corners, true), fill.c_str(), look.ink, 1.6, look.dash);
  }
  for (const Place& place : places)
    write_in(canvas, place, at(middle_of(place.outline)),
             geometry::bounding_box(place.outline).size() * scale);
}

std::vector<std::string> statuses_of(const std::vector<Place>& places) {
  std::vector<std::string> statuses;
  for (const Place& place : places) statuses.push_back(place.status);
  return statuses;
}

void write_head(SvgCanvas& canvas, const std::string& title, const std::string& below) {
  canvas.text({kFloorLeft, 40}, fitted_text(title, kSheetWidth - kFloorLeft - kFloorRight, 24, true),
              {24, "start", kSheetInk, true});
  canvas.text({kFloorLeft, 64}, below, {14, "start", kSheetGrey});
}

std::string count_words(const std::vector<Place>& places) {
  const auto met =
      std::count_if(places.begin(), places.end(), [](const Place& p) { return p.status == "met"; });
  const auto judged = std::count_if(places.begin(), places.end(), [](const Place& p) {
    return p.status != "no target" && p.status != "not computed";
  });
  return judged == 0 ? words::counted(places.size(), "room") + ", no target"
                     : words::met_words(std::size_t(met), std::size_t(judged));
}

/// Columns and scale at which panels of these sizes (m) fill the sheet best.
struct Panels {
  std::size_t columns = 1;
  double scale = 0;
};
Panels panels_for(const std::vector<Vec2>& sizes, double between, double title) {
  Panels best;
  for (std::size_t columns = 1; columns <= sizes.size(); ++columns) {
    double width = 0.1, height = 0;
    const std::size_t rows = (sizes.size() + columns - 1) / columns;
    for (std::size_t row = 0; row < rows; ++row) {
      double tall = 0.1, wide = 0;
      for (std::size_t k = row * columns; k < std::min(sizes.size(), (row + 1) * columns); ++k) {
        tall = std::max(tall, sizes[k].y());
        wide += sizes[k].x();
      }
      width = std::max(width, wide);
      height += tall;
    }
    const double scale = std::min(
        (kSheetWidth - kFloorLeft - kFloorRight - double(columns - 1) * between) / width,
        (kSheetHeight - kFloorTop - kFloorBottom - double(rows) * title - double(rows - 1) * between) /
            height);
    if (scale > best.scale) best = {columns, scale};
  }
  return best;
}

}  // namespace

std::string floor_svg(const record::RunRecord& run, std::size_t floor) {
  SvgCanvas canvas(kSheetWidth, kSheetHeight);
  const std::vector<Place> places = places_of(run, run.floors[floor].name);
  write_head(canvas, run.floors[floor].name + ", " + run.project,
             fmt::format(FMT_STRING("{}; verdicts by {}; level {:+.2f} m"), count_words(places),
                         words::standards_words(run.standards), run.floors[floor].level_m));
  draw_status_key(canvas, statuses_of(places), {kFloorLeft, 80});
  const auto box = box_of(places);
  if (!box) return canvas.bytes();
  const Vec2 room(kSheetWidth - kFloorLeft - kFloorRight, kSheetHeight - kFloorTop - kFloorBottom);
  const Vec2 size = box->size().cwiseMax(0.1);
  const double scale = std::min(room.x() / size.x(), room.y() / size.y());
  draw_floor(canvas, places, *box, Vec2(kFloorLeft, kFloorTop) + (room - size * scale) / 2, scale);
  return canvas.bytes();
}

std::string building_svg(const record::RunRecord& run) {
  constexpr double kBetween = 28, kTitle = 24;
  SvgCanvas canvas(kSheetWidth, kSheetHeight);
  std::vector<std::string> titles, statuses;
  std::vector<std::vector<Place>> floors;
  std::vector<geometry::Box2> boxes;
  std::vector<Vec2> sizes;
  for (const record::FloorRecord& floor : record::floors_with_rooms(run)) {
    std::vector<Place> places = places_of(run, floor.name);
    const auto box = box_of(places);
    if (!box) continue;
    for (const std::string& status : statuses_of(places)) statuses.push_back(status);
    titles.push_back(words::floor_words(floor, run) + ": " + count_words(places));
    floors.push_back(std::move(places));
    boxes.push_back(*box);
    sizes.push_back(box->size());
  }
  write_head(
      canvas, run.project,
      fmt::format(FMT_STRING("verdicts by {}; floors at one scale"), words::standards_words(run.standards)));
  draw_status_key(canvas, statuses, {kFloorLeft, 80});
  const Panels panels = panels_for(sizes, kBetween, kTitle);
  Vec2 corner(kFloorLeft, kFloorTop);
  double tallest = 0;
  for (std::size_t k = 0; k < floors.size(); ++k) {
    if (k > 0 && k % panels.columns == 0) {
      corner = Vec2(kFloorLeft, corner.y() + tallest + kTitle + kBetween);
      tallest = 0;
    }
    const double width = std::max(120.0, sizes[k].x() * panels.scale);
    canvas.text(corner + Vec2(0, 14), fitted_text(titles[k], width + kBetween / 2, 13, true),
                {13, "start", kSheetInk, true});
    draw_floor(canvas, floors[k], boxes[k], corner + Vec2(0, kTitle), panels.scale);
    corner.x() += width + kBetween;
    tallest = std::max(tallest, sizes[k].y() * panels.scale);
  }
  return canvas.bytes();
}

}  // namespace glow::figures
