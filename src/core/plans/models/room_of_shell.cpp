#include "core/plans/models/room_of_shell.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace glow::plans {
namespace {

using geometry::Polygon;

constexpr double kLevel = 0.02;       // m: floors and ceilings nearer to each other are one
constexpr double kLeastSheet = 1e-4;  // m2 in plan: thinner faces bound nothing
constexpr double kSteepFloor = 0.94;  // cosine: what is steeper is a wall that leans out
constexpr std::size_t kMostFaces = 1500;

/// A face that is not upright, as a height over a place in plan.
struct Sheet {
  Face plan;
  Vec3 normal;  ///< z = 1
  double offset = 0;
  geometry::Box2 box;

  double z(const Vec2& p) const { return offset - normal.x() * p.x() - normal.y() * p.y(); }
  bool is_over(const Vec2& p) const {
    if ((p.array() < box.low.array()).any() || (p.array() > box.high.array()).any()) return false;
    if (!geometry::contains(plan.outline, p)) return false;
    return std::none_of(plan.holes.begin(), plan.holes.end(),
                        [&](const Polygon& hole) { return geometry::contains(hole, p); });
  }
  Vec2 slope() const { return {-normal.x(), -normal.y()}; }  ///< m up per m
};

double area_of(const Face& face) {
  double area = geometry::signed_area(face.outline);
  for (const Polygon& hole : face.holes) area -= geometry::signed_area(hole);
  return area;
}

std::vector<Sheet> sheets_of(const std::vector<Shell>& shells) {
  std::vector<Sheet> sheets;
  for (const Shell& shell : shells)
    for (const ShellFace& face : shell) {
      Sheet sheet;
      sheet.plan = in_plan(face);
      if (sheet.plan.outline.size() < 3 || area_of(sheet.plan) < kLeastSheet) continue;
      const Vec3 normal = loop_normal(face.loops.front());
      sheet.normal = normal / normal.z();
      double sum = 0;  // a face that is not quite flat lies about its plane
      for (const Vec3& p : face.loops.front()) sum += sheet.normal.dot(p);
      sheet.offset = sum / double(face.loops.front().size());
      sheet.box = geometry::bounding_box(sheet.plan.outline);
      sheets.push_back(std::move(sheet));
    }
  return sheets;
}

/// Whether no other sheet lies under (`way` -1) or over (+1) the middle of this one.
bool is_outermost(const std::vector<Sheet>& sheets, std::size_t which, const Vec2& middle, int way) {
  const double z = sheets[which].z(middle);
  for (std::size_t k = 0; k < sheets.size(); ++k)
    if (k != which && way * (sheets[k].z(middle) - z) > kLevel && sheets[k].is_over(middle)) return false;
  return true;
}

/// Sheets of one plane are one ceiling.
struct Ceiling {
  Vec3 normal;
  double offset = 0;
  std::vector<Face> faces;
  double low = HUGE_VAL, high = -HUGE_VAL, area = 0;
  double z(const Vec2& p) const { return offset - normal.x() * p.x() - normal.y() * p.y(); }
  Vec2 slope() const { return {-normal.x(), -normal.y()}; }
  bool is_level() const { return slope().norm() < 2e-3; }
};

std::vector<Ceiling> ceilings_of(const std::vector<const Sheet*>& sheets) {
  std::vector<Ceiling> ceilings;
  for (const Sheet* sheet : sheets) {
    Ceiling* same = nullptr;
    for (Ceiling& ceiling : ceilings) {
      bool all = true;
      for (const Vec2& p : sheet->plan.outline) all = all && std::abs(ceiling.z(p) - sheet->z(p)) < kLevel;
      if (all && (ceiling.slope() - sheet->slope()).norm() < 0.02) same = &ceiling;
    }
    if (!same) {
      ceilings.push_back({sheet->normal, sheet->offset, {}});
      same = &ceilings.back();
    }
    for (const Vec2& p : sheet->plan.outline) {
      same->low = std::min(same->low, sheet->z(p));
      same->high = std::max(same->high, sheet->z(p));
    }
    same->faces.push_back(sheet->plan);
    same->area += area_of(sheet->plan);
  }
  return ceilings;
}

/// From the ceiling's lowest place up its slope, as far as it rises.
FoundCeiling rising(const Ceiling& ceiling, double floor_z) {
  const Vec2 up = ceiling.slope().normalized();
  Vec2 lowest = ceiling.faces.front().outline.front();
  for (const Face& face : ceiling.faces)
    for (const Vec2& p : face.outline)
      if (up.dot(p) < up.dot(lowest)) lowest = p;
  const double run = (ceiling.high - ceiling.low) / ceiling.slope().norm();
  const double from = ceiling.z(lowest) - floor_z;
  return {lowest, lowest + up * run, from, from + ceiling.slope().norm() * run, {}};
}

/// Height of the ceiling that the parts make: the lowest counts.
double height_at(const std::vector<FoundCeiling>& parts, double height, const Vec2& p) {
  for (const FoundCeiling& part : parts) height = std::min(height, part.height_at(p));
  return height;
}

void add_ceiling(const std::vector<Ceiling>& ceilings, RoomShape& room) {
  constexpr double kSame = 0.05;  // m
  for (const Ceiling& ceiling : ceilings) {
    if (!ceiling.is_level()) {
      room.ceiling.push_back(rising(ceiling, room.floor_z));
    } else if (ceiling.high < room.floor_z + room.height_m - kLevel) {
      for (const Face& part : united(ceiling.faces))
        room.ceiling.push_back(
            {Vec2::Zero(), Vec2::Zero(), ceiling.high - room.floor_z, 0, tidy_outline(part.outline)});
    }
  }
  double worst = 0, volume = 0, area = 0;
  for (const Ceiling& ceiling : ceilings)
    for (const Face& face : ceiling.faces) {
      Vec2 middle = Vec2::Zero();
      for (const Vec2& p : face.outline) middle += p / double(face.outline.size());
      const auto off = [&](const Vec2& p) {
        return std::abs(height_at(room.ceiling, room.height_m, p) - (ceiling.z(p) - room.floor_z));
      };
      if (geometry::contains(face.outline, middle)) worst = std::max(worst, off(middle));
      for (const Vec2& p : face.outline) worst = std::max(worst, off(p + 1e-3 * (middle - p)));
      volume += area_of(face) * (ceiling.z(middle) - room.floor_z);
      area += area_of(face);
    }
  if (worst <= kSame) return;
  room.ceiling.clear();
  room.height_m = volume / area;
  room.doubts.emplace_back(
      "ceiling-folded",
      fmt::format(
          FMT_STRING("its ceiling is folded in a way that a project cannot hold; it was made level at "
                     "its mean height of {:.2f} m"),
          room.height_m));
}

/// What the sheets of a room's floor cover, with a doubt where it has steps.
std::vector<Face> floor_of(const std::vector<const Sheet*>& floors, RoomShape& room) {
  double lowest = HUGE_VAL, highest = -HUGE_VAL;
  std::vector<Face> faces;
  for (const Sheet* sheet : floors) {
    const Vec2 middle = point_inside(sheet->plan);
    lowest = std::min(lowest, sheet->z(middle));
    highest = std::max(highest, sheet->z(middle));
    faces.push_back(sheet->plan);
  }
  room.floor_z = lowest;
  if (highest - lowest > kLevel)
    room.doubts.emplace_back(
        "floor-levels",
        fmt::format(
            FMT_STRING("its floor has places {:.2f} m above others; it was taken as level, at the lowest"),
            highest - lowest));
  return united(faces);
}

}  // namespace

Polygon tidy_outline(Polygon outline) {
  constexpr double kHair = 6e-5, kStraight = 5e-4;  // m
  const auto whole = [](double v) {
    const double mm = std::round(v * 1000) / 1000;
    return std::abs(v - mm) < kHair ? mm + 0.0 : v;
  };
  outline = simplified(outline, kStraight);
  for (Vec2& p : outline) p = Vec2(whole(p.x()), whole(p.y()));
  if (outline.empty()) return outline;
  const geometry::Box2 box = geometry::bounding_box(outline);
  const auto first = std::min_element(outline.begin(), outline.end(), [&](const Vec2& a, const Vec2& b) {
    return (a - box.low).squaredNorm() < (b - box.low).squaredNorm();
  });
  std::rotate(outline.begin(), first, outline.end());
  return outline;
}

std::optional<RoomShape> room_of(const std::vector<Shell>& shells) {
  constexpr double kLeastHeight = 0.1, kLeastRoom = 0.05, kWorthTelling = 0.02;  // m, m2, share
  const std::vector<Sheet> sheets = sheets_of(shells);
  if (sheets.empty()) return std::nullopt;
  RoomShape room;
  std::vector<const Sheet*> floors, tops;
  const bool too_many = sheets.size() > kMostFaces;
  for (std::size_t k = 0; k < sheets.size() && !too_many; ++k) {
    const Vec2 middle = point_inside(sheets[k].plan);
    const bool level = 1 / sheets[k].normal.norm() > kSteepFloor;
    if (level && is_outermost(sheets, k, middle, -1)) floors.push_back(&sheets[k]);
    if (is_outermost(sheets, k, middle, 1)) tops.push_back(&sheets[k]);
  }
  std::vector<Face> plan = floors.empty() ? covered_in_plan(shells) : floor_of(floors, room);
  if (plan.empty() || area_of(plan.front()) < kLeastRoom) return std::nullopt;
  Box3 box;
  for (const Shell& shell : shells) {
    const Box3 own = box_of(shell);
    if (own.is_empty()) continue;
    box.add(own.low);
    box.add(own.high);
  }
  if (floors.empty()) room.floor_z = box.low.z();
  double rest = 0;
  for (std::size_t k = 1; k < plan.size(); ++k) rest += area_of(plan[k]);
  if (rest > kWorthTelling * area_of(plan.front()))
    room.doubts.emplace_back("space-in-pieces",
                             fmt::format(FMT_STRING("it lies in {} pieces that do not touch; the largest was "
                                                    "taken, {:.1f} m2 were left out"),
                                         plan.size(), rest));
  room.outline = tidy_outline(plan.front().outline);
  for (const Polygon& hole : plan.front().holes)
    if (std::abs(geometry::signed_area(hole)) > kLeastSheet) room.holes.push_back(tidy_outline(hole));
  room.height_m = room.least_height_m = box.high.z() - room.floor_z;
  if (room.height_m < kLeastHeight || room.outline.size() < 3) return std::nullopt;
  if (too_many) {
    room.doubts.emplace_back("many-faces",
                             fmt::format(FMT_STRING("it has {} faces, more than {}; its ceiling was taken as "
                                                    "level"),
                                         sheets.size(), kMostFaces));
    return room;
  }
  const std::vector<Ceiling> ceilings = ceilings_of(tops);
  double top = -HUGE_VAL;
  for (const Ceiling& ceiling : ceilings) {
    room.least_height_m = std::min(room.least_height_m, ceiling.low - room.floor_z);
    top = std::max(top, ceiling.high);
  }
  if (!ceilings.empty()) room.height_m = top - room.floor_z;
  if (room.height_m < kLeastHeight) return std::nullopt;
  add_ceiling(ceilings, room);
  return room;
}

}  // namespace glow::plans
