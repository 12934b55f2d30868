#include "figures/plan_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "figures/colour_scale.hpp"
#include "figures/isolines.hpp"
#include "figures/svg_canvas.hpp"

namespace glow::figures {
namespace {

constexpr double kWidth = 1280, kHeight = 800;
constexpr double kLeft = 76, kTop = 104, kRight = 236, kBottom = 62;
constexpr int kBands = 8;
constexpr const char* kInk = "#1c1c1c";
constexpr const char* kGrey = "#6b6b6b";
constexpr const char* kMargin = "#f4f3f0";
constexpr const char* kFail = "#a3243b";
constexpr double kLabelSize = 12, kValueSize = 11;

struct Rect {
  Vec2 low, high;
  bool meets(const Rect& o) const {
    return low.x() < o.high.x() && o.low.x() < high.x() && low.y() < o.high.y() && o.low.y() < high.y();
  }
};

Rect around(const Vec2& centre, double width, double height) {
  const Vec2 half(width / 2, height / 2);
  return {centre - half, centre + half};
}

/// A round step for axes: 1, 2 or 5 times a power of ten, at least `least`.
double axis_step(double least) {
  const double power = std::pow(10.0, std::floor(std::log10(least)));
  for (const double factor : {1.0, 2.0, 5.0})
    if (factor * power >= least) return factor * power;
  return 10 * power;
}

std::string lux(double value) {
  return value < 10 ? fmt::format(FMT_STRING("{:.1f}"), value) : fmt::format(FMT_STRING("{:.0f}"), value);
}

class PlanFigure {
 public:
  PlanFigure(const results::RoomResult& room, const results::GridResult& grid)
      : room_(room), grid_(grid), scene_(*room.scene), canvas_(kWidth, kHeight) {
    box_ = geometry::bounding_box(scene_.outline);
    const Vec2 size = box_.size();
    pixels_per_m_ = std::min((kWidth - kLeft - kRight) / size.x(), (kHeight - kTop - kBottom) / size.y());
    const Vec2 drawn = size * pixels_per_m_;
    corner_ = {kLeft + (kWidth - kLeft - kRight - drawn.x()) / 2,
               kTop + (kHeight - kTop - kBottom + drawn.y()) / 2};
    scale_ = banded_scale(grid.statistics.min_lx, grid.statistics.max_lx, kBands);
    const int most = std::max(grid.grid.count.nx, grid.grid.count.ny);
    lattice_ = smooth_lattice(grid.grid, grid.total_lx, std::clamp(240 / most, 1, 12));
  }

  std::string draw() {
    reserve_luminaires();
    colours();
    objects(false);
    lines();
    objects(true);
    object_names();
    outline();
    luminaires();
    values();
    axes();
    title();
    legend();
    return canvas_.bytes();
  }

 private:
  Vec2 px(const Vec2& m) const {
    return {corner_.x() + (m.x() - box_.low.x()) * pixels_per_m_,
            corner_.y() - (m.y() - box_.low.y()) * pixels_per_m_};
  }
  std::string path_of(const std::vector<Vec2>& points, bool closed) const {
    std::vector<Vec2> drawn;
    for (const Vec2& p : points) drawn.push_back(px(p));
    return path_data(drawn, closed);
  }
  bool is_free(const Rect& rect) const {
    return std::none_of(taken_.begin(), taken_.end(), [&](const Rect& t) { return t.meets(rect); });
  }

  void colours();
  void lines();
  void label_lines(const std::vector<std::vector<Vec2>>& chains, const std::string& words, bool strong);
  void outline();
  void objects(bool reaching_through);
  void object_names();
  Vec2 luminaire_size(const scene::LuminaireGroup& group, std::size_t index) const;
  Rect luminaire_rect(const scene::LuminaireGroup& group, std::size_t index) const;
  void reserve_luminaires();
  void luminaires();
  void luminaire(const scene::LuminaireGroup& group, std::size_t index);
  void values();
  void axes();
  void title();
  void legend();
  double legend_luminaires(double x, double y);

  const results::RoomResult& room_;
  const results::GridResult& grid_;
  const scene::RoomScene& scene_;
  SvgCanvas canvas_;
  geometry::Box2 box_;
  Vec2 corner_;  // px of the box's low corner
  double pixels_per_m_ = 1;
  ColourScale scale_;
  Lattice lattice_;
  std::vector<Rect> taken_;  // by labels
};

void PlanFigure::colours() {
  canvas_.begin_clip(path_of(scene_.outline, true));
  const Vec2 top_left = px({lattice_.low.x(), lattice_.node(0, lattice_.ny - 1).y()});
  const Vec2 size =
      Vec2((lattice_.nx - 1) * lattice_.step.x(), (lattice_.ny - 1) * lattice_.step.y()) * pixels_per_m_;
  canvas_.rectangle(top_left, size, scale_.colours[0].c_str());
  for (std::size_t k = 0; k < scale_.levels.size(); ++k) {
    std::string data;
    for (const auto& piece : region_above(lattice_, scale_.levels[k])) data += path_of(piece, true);
    if (!data.empty()) canvas_.path(data, scale_.colours[k + 1].c_str());
  }
}

void PlanFigure::lines() {
  // The U0 limit: points below this share of the mean make the uniformity check fail.
  std::optional<double> limit;
  if (scene_.requirement && scene_.requirement->uo)
    limit = *scene_.requirement->uo * grid_.statistics.mean_lx;
  std::vector<std::pair<std::vector<std::vector<Vec2>>, std::string>> labelled;
  for (const double level : scale_.levels) {
    auto chains = isolines(lattice_, level);
    for (const auto& chain : chains) {
      canvas_.path(path_of(chain, false), "none", "#ffffff", 1.3);
      canvas_.opacity_of_last(0.85);
    }
    labelled.emplace_back(std::move(chains), lux(level));
  }
  if (limit) {
    auto chains = isolines(lattice_, *limit);
    for (const auto& chain : chains) canvas_.path(path_of(chain, false), "none", kFail, 2.2, "7 4");
    label_lines(chains, fmt::format(FMT_STRING("U0 limit {} lx"), lux(*limit)), true);
  }
  for (const auto& [chains, words] : labelled) label_lines(chains, words, false);
  // What lies within the inset of a wall is not evaluated: covered, exactly as wide as the inset.
  if (grid_.grid.inset_m > 0)
    canvas_.path(path_of(scene_.outline, true), "none", kMargin, 2 * grid_.grid.inset_m * pixels_per_m_);
  canvas_.end_group();
}

void PlanFigure::label_lines(const std::vector<std::vector<Vec2>>& chains, const std::string& words,
                             bool strong) {
  const double width = text_width(words, kLabelSize) + 8;
  for (const auto& chain : chains) {
    double length = 0;
    for (std::size_t i = 1; i < chain.size(); ++i) length += (chain[i] - chain[i - 1]).norm() * pixels_per_m_;
    if (length < 2.2 * width) continue;
    for (const double share : {0.5, 0.3, 0.7, 0.15, 0.85}) {
      const Vec2& at = chain[static_cast<std::size_t>(share * double(chain.size() - 1))];
      const Rect rect = around(px(at), width, kLabelSize + 6);
      const Rect airy = around(px(at), width + 6, kLabelSize + 12);
      const double margin = grid_.grid.inset_m + (width / 2 + 2) / pixels_per_m_;
      if (!geometry::in_inset_area(scene_.outline, margin, at) || !is_free(airy)) continue;
      taken_.push_back(rect);
      canvas_.rectangle(rect.low, rect.high - rect.low, "#ffffff", strong ? kFail : "none", 1);
      canvas_.opacity_of_last(0.9);
      canvas_.text(px(at) + Vec2(0, kLabelSize * 0.36), words,
                   {kLabelSize, "middle", strong ? kFail : kInk, true});
      break;
    }
  }
}

void PlanFigure::outline() {
  canvas_.path(path_of(scene_.outline, true), "none", kInk, 3);
  for (const scene::PlanShape& opening : scene_.openings) {
    canvas_.line(px(opening.outline[0]), px(opening.outline[1]), "#ffffff", 5);
    canvas_.line(px(opening.outline[0]), px(opening.outline[1]), kInk, 1);
  }
}

/// What reaches through the plane is blank within its full line; what stays below or above it is dashed.
void PlanFigure::objects(bool reaching_through) {
  canvas_.begin_clip(path_of(scene_.outline, true));
  const double plane = grid_.grid.height_m;
  for (const scene::PlanShape& object : scene_.objects) {
    const bool closed = object.outline.size() > 2;
    const bool through = object.bottom_m <= plane && object.top_m >= plane;
    if (through != reaching_through) continue;
    canvas_.path(path_of(object.outline, closed), through && closed ? kMargin : "none", kInk,
                 through ? 1.6 : 1.0, through ? nullptr : "5 3");
  }
  canvas_.end_group();
}

void PlanFigure::object_names() {
  for (const scene::PlanShape& object : scene_.objects) {
    Vec2 middle = Vec2::Zero();
    for (const Vec2& p : object.outline) middle += px(p) / double(object.outline.size());
    const geometry::Box2 extent = geometry::bounding_box(object.outline);
    const double width = text_width(object.name, kLabelSize);
    const Rect label = around(middle, width + 6, kLabelSize + 6);
    if (extent.size().x() * pixels_per_m_ < width || !is_free(label)) continue;
    taken_.push_back(label);
    canvas_.text(middle + Vec2(0, kLabelSize * 0.35), object.name,
                 {kLabelSize, "middle", kInk, false, kMargin, 0});
  }
}

/// True size in px along C0 and C90: the body's where the file states it, else the luminous area's.
Vec2 PlanFigure::luminaire_size(const scene::LuminaireGroup& group, std::size_t index) const {
  const photometry::LuminousArea& area = group.luminaires[index].area;
  Vec2 extent(area.extent_c0_m, area.extent_c90_m);
  if (const auto& body = group.photometry->body) extent = {body->extent_c0_m, body->extent_c90_m};
  return extent * pixels_per_m_;
}

/// What the drawn luminaire covers, turned, with a little air.
Rect PlanFigure::luminaire_rect(const scene::LuminaireGroup& group, std::size_t index) const {
  const Vec2 size = luminaire_size(group, index);
  const double a = group.rotations_deg[index] * kDegree;
  const double c = std::abs(std::cos(a)), s = std::abs(std::sin(a));
  return around(px(group.luminaires[index].frame.origin.head<2>()), c * size.x() + s * size.y() + 12,
                s * size.x() + c * size.y() + 12);
}

void PlanFigure::reserve_luminaires() {
  for (const scene::LuminaireGroup& group : scene_.groups)
    for (std::size_t i = 0; i < group.luminaires.size(); ++i) taken_.push_back(luminaire_rect(group, i));
}

void PlanFigure::luminaire(const scene::LuminaireGroup& group, std::size_t index) {
  const photometry::PlacedLuminaire& placed = group.luminaires[index];
  const Vec2 centre = px(placed.frame.origin.head<2>());
  const Vec2 size = luminaire_size(group, index);
  const auto& body = group.photometry->body;
  const bool round = body ? body->round : photometry::is_round(placed.area.shape);
  canvas_.begin_group(centre, -group.rotations_deg[index]);
  if (size.maxCoeff() < 3) {
    canvas_.line({-5, 0}, {5, 0}, kInk, 1.5);
    canvas_.line({0, -5}, {0, 5}, kInk, 1.5);
  } else if (round) {
    canvas_.circle({0, 0}, size.x() / 2, "#ffffff", kInk, 1.5);
    canvas_.line({-size.x() / 2 - 3, 0}, {size.x() / 2 + 3, 0}, kInk, 1);
    canvas_.line({0, -size.x() / 2 - 3}, {0, size.x() / 2 + 3}, kInk, 1);
  } else {
    canvas_.rectangle(-size / 2, size, "#ffffff", kInk, 1.5);
    // A tick towards C0 tells the rotation where the shape alone does not.
    canvas_.line({size.x() / 2, 0}, {size.x() / 2 + 7, 0}, kInk, 1.5);
  }
  canvas_.end_group();
  const Rect own = luminaire_rect(group, index);
  const Vec2 label(centre.x(), own.high.y() + 11);
  const Rect rect = around(label - Vec2(0, 4), text_width(group.mark, kLabelSize) + 4, kLabelSize);
  if (!is_free(rect)) return;
  taken_.push_back(rect);
  canvas_.text(label, group.mark, {kLabelSize, "middle", kInk, true, "#ffffff"});
}

void PlanFigure::luminaires() {
  for (const scene::LuminaireGroup& group : scene_.groups)
    for (std::size_t i = 0; i < group.luminaires.size(); ++i) luminaire(group, i);
}

void PlanFigure::values() {
  const readings::PlaneGrid& grid = grid_.grid;
  const Vec2& lowest = grid.points[grid_.statistics.min_at].head<2>();
  const std::string lowest_words = "min " + lux(grid_.statistics.min_lx);
  const double lowest_width = text_width(lowest_words, kLabelSize) + 10;
  Vec2 at = px(lowest);
  canvas_.circle(at, 4, "#ffffff", kFail, 2);
  at += Vec2(at.x() < kWidth / 2 ? lowest_width / 2 + 8 : -lowest_width / 2 - 8, 0);
  const Rect rect = around(at, lowest_width, kLabelSize + 6);
  canvas_.rectangle(rect.low, rect.high - rect.low, "#ffffff", kFail, 1);
  canvas_.text(at + Vec2(0, kLabelSize * 0.36), lowest_words, {kLabelSize, "middle", kFail, true});
  taken_.push_back({rect.low - Vec2(12, 4), rect.high + Vec2(12, 4)});

  const double widest = text_width(lux(grid_.statistics.max_lx), kValueSize);
  const int skip_x = std::max(1, int(std::ceil((widest + 12) / (grid.cell.x() * pixels_per_m_))));
  const int skip_y = std::max(1, int(std::ceil((kValueSize + 8) / (grid.cell.y() * pixels_per_m_))));
  for (std::size_t i = 0; i < grid.points.size(); ++i) {
    if (grid.cells[i][0] % skip_x != skip_x / 2 || grid.cells[i][1] % skip_y != skip_y / 2) continue;
    const std::string words = lux(grid_.total_lx[i]);
    const Vec2 centre = px(grid.points[i].head<2>());
    if (!is_free(around(centre, text_width(words, kValueSize) + 2, kValueSize + 2))) continue;
    const std::size_t band = scale_.band(grid_.total_lx[i]);
    canvas_.text(centre + Vec2(0, kValueSize * 0.36), words,
                 {kValueSize, "middle", scale_.dark_text(band) ? kInk : "#ffffff", false,
                  scale_.colours[band].c_str()});
  }
}

void PlanFigure::axes() {
  const double step = axis_step(60 / pixels_per_m_);
  const Vec2 low = px(box_.low), high = px(box_.high);
  for (double x = 0; x <= box_.size().x() + 1e-9; x += step) {
    const double at = low.x() + x * pixels_per_m_;
    canvas_.line({at, low.y() + 8}, {at, low.y() + 14}, kGrey);
    canvas_.text({at, low.y() + 30}, fmt::format(FMT_STRING("{:g}"), box_.low.x() + x),
                 {12, "middle", kGrey});
  }
  for (double y = 0; y <= box_.size().y() + 1e-9; y += step) {
    const double at = low.y() - y * pixels_per_m_;
    canvas_.line({low.x() - 14, at}, {low.x() - 8, at}, kGrey);
    canvas_.text({low.x() - 20, at + 4}, fmt::format(FMT_STRING("{:g}"), box_.low.y() + y),
                 {12, "end", kGrey});
  }
  canvas_.text({(low.x() + high.x()) / 2, low.y() + 50}, "x in m", {12, "middle", kGrey});
  const Vec2 middle(low.x() - 52, (low.y() + high.y()) / 2);
  canvas_.text(middle, "y in m", {12, "middle", kGrey, false, nullptr, -90});
}

void PlanFigure::title() {
  const readings::Statistics& s = grid_.statistics;
  canvas_.text({kLeft - 52, 40}, scene_.name, {24, "start", kInk, true});
  canvas_.text({kLeft - 52, 66},
               fmt::format(FMT_STRING("{} at {:.2f} m, maintained (factor {:.2f})"), grid_.name,
                           grid_.grid.height_m, scene_.maintenance_factor),
               {14, "start", kGrey});
  struct Figure {
    std::string value, below;
    bool failed;
  };
  std::vector<Figure> figures = {
      {lux(s.mean_lx) + " lx", "mean", false},
      {s.u0 ? fmt::format(FMT_STRING("{:.2f}"), *s.u0) : "-", "U0 = min / mean", false},
      {lux(s.min_lx) + " lx", "min", false},
      {lux(s.max_lx) + " lx", "max", false}};
  for (const standards::Check& check : room_.checks) {
    if (check.where != grid_.name) continue;
    const bool mean = check.quantity == standards::Quantity::mean_illuminance;
    Figure& figure = figures[mean ? 0 : 1];
    figure.failed = check.verdict != standards::Verdict::met;
    figure.below =
        fmt::format(FMT_STRING("{} {} required: {}"), mean ? "mean," : "U0,",
                    mean ? lux(check.required) + " lx" : fmt::format(FMT_STRING("{:.2f}"), check.required),
                    standards::to_string(check.verdict));
  }
  double x = 560;
  for (const Figure& figure : figures) {
    canvas_.text({x, 42}, figure.value, {22, "start", figure.failed ? kFail : kInk, true});
    canvas_.text({x, 64}, figure.below, {12.5, "start", figure.failed ? kFail : kGrey});
    x += std::max(110.0, text_width(figure.below, 12.5) + 30);
  }
}

double PlanFigure::legend_luminaires(double x, double y) {
  std::vector<std::pair<const scene::LuminaireGroup*, std::size_t>> marks;
  for (const scene::LuminaireGroup& group : scene_.groups) {
    const auto same =
        std::find_if(marks.begin(), marks.end(), [&](const auto& m) { return m.first->mark == group.mark; });
    if (same == marks.end())
      marks.emplace_back(&group, group.luminaires.size());
    else
      same->second += group.luminaires.size();
  }
  if (!marks.empty()) canvas_.text({x, y}, "Luminaires", {13, "start", kInk, true});
  for (const auto& [group, count] : marks) {
    y += 20;
    canvas_.text({x, y}, fmt::format(FMT_STRING("{} x {}"), count, group->mark), {12.5, "start", kInk, true});
    y += 16;
    std::string name = group->photometry->luminaire;
    if (name.size() > 30) name = name.substr(0, 29) + "...";
    canvas_.text({x, y}, name, {12, "start", kGrey});
  }
  return y;
}

void PlanFigure::legend() {
  const double x = kWidth - kRight + 42;
  double y = kTop + 14;
  canvas_.text({x, y - 6}, "Illuminance in lx", {13, "start", kInk, true});
  y += 8;
  const double height = std::min(30.0, 300.0 / double(scale_.colours.size()));
  for (std::size_t k = scale_.colours.size(); k-- > 0;) {
    canvas_.rectangle({x, y}, {34, height}, scale_.colours[k].c_str(), "#ffffff", 1);
    y += height;
    if (k > 0) canvas_.text({x + 42, y + 4}, lux(scale_.levels[k - 1]), {12, "start", kInk});
  }
  y = legend_luminaires(x, y + 34);
  y += 34;
  canvas_.text({x, y}, "Grid", {13, "start", kInk, true});
  const readings::PlaneGrid& grid = grid_.grid;
  canvas_.text({x, y + 19},
               fmt::format(FMT_STRING("{} points, {:.2f} x {:.2f} m"), grid.points.size(), grid.cell.x(),
                           grid.cell.y()),
               {12, "start", kGrey});
  if (grid.inset_m > 0)
    canvas_.text({x, y + 35}, fmt::format(FMT_STRING("{:.2f} m along walls left out"), grid.inset_m),
                 {12, "start", kGrey});
}

}  // namespace

std::string plan_svg(const results::RoomResult& room, const results::GridResult& grid) {
  return PlanFigure(room, grid).draw();
}

}  // namespace glow::figures
