#include "core/studies/arrangement/fields.hpp"

#include <algorithm>
#include <cmath>

#include "core/studies/trials.hpp"

namespace glow::studies {
namespace {

constexpr double kSameWay = 1e-6;
constexpr int kSampled = 9;         // places along each side
constexpr double kDoorWidth = 0.9;  // m, before a door, where nothing may hang in its way
constexpr double kOverDoor = 0.05;  // m
constexpr double kRound = 1e-3;     // m: sides that are the same

/// Whether a quarter turn makes no difference.
bool turns_in_vain(const photometry::Photometry& photometry) {
  return photometry.table.rotational() &&
         std::abs(photometry.area.extent_c0_m - photometry.area.extent_c90_m) < kRound;
}

bool is_before_door(const space::Space& space, const photometry::PlacedLuminaire& luminaire) {
  const Vec3& at = luminaire.frame.origin;
  for (const space::Opening& opening : space.openings) {
    if (opening.in_roof || opening.bottom_m() > kRound || at.z() > opening.top_m() + kOverDoor) continue;
    const geometry::Polygon line = opening.plan();
    const Vec2 way = line[1] - line[0];
    const double along = (at.xy() - line[0]).dot(way) / way.squaredNorm();
    const double before = -opening.outwards.xy().dot(at.xy() - line[0]);
    if (along > 0 && along < 1 && before < kDoorWidth) return true;
  }
  return false;
}

bool is_clear(const space::Space& space, const space::LuminaireGroup& group) {
  return std::all_of(group.luminaires.begin(), group.luminaires.end(), [&](const auto& luminaire) {
    return has_room_for(space, luminaire, {}) && !is_before_door(space, luminaire);
  });
}

/// The sides of what is to be filled.
Vec2 sides_of(const SearchRoom& room, const ArrangementWish& wish) {
  const geometry::Polygon& within = wish.base.array ? wish.base.array->within : geometry::Polygon{};
  return geometry::bounding_box(within.empty() ? room.setting.space().outline : within).size();
}

bool is_oblong(const Vec2& sides, int rows, int columns) {
  if (rows == 1 || columns == 1) return false;
  const double x = sides.x() / columns, y = sides.y() / rows;
  return std::max(x, y) > kMostOblong * std::min(x, y);
}

/// Ways that a luminaire of the wish may hang, without rows and columns.
std::vector<Field> ways_to_hang(const SearchRoom& room, const ArrangementWish& wish) {
  std::vector<Field> ways;
  const model::ScheduledLuminaire* entry = room.project.find(wish.base.mark);
  const bool turns = wish.turns && entry && entry->photometry && !turns_in_vain(*entry->photometry);
  std::vector<std::optional<double>> heights(wish.heights_m.begin(), wish.heights_m.end());
  if (heights.empty()) heights.emplace_back();
  for (const auto& height : heights)
    for (const bool turned : {false, true}) {
      if (turned && !turns) continue;
      Field& field = ways.emplace_back();
      field.turned = turned;
      field.height_m = height;
    }
  return ways;
}

}  // namespace

model::LuminairePlacement Field::placement(const model::LuminairePlacement& base) const {
  model::LuminairePlacement placement = base;
  if (!placement.array) placement.array.emplace();
  placement.array->rows = rows;
  placement.array->columns = columns;
  placement.array->spacing.reset();
  placement.array->staggered = staggered;
  if (turned) placement.rotation_deg += placement.rotation_deg >= 90 ? -90 : 90;
  if (height_m) {
    placement.mounting_height_m = height_m;
    placement.suspension_m.reset();
    if (placement.mounting != model::Mounting::wall) placement.mounting = model::Mounting::suspended;
  }
  placement.dimming = base.dimming * dimming;
  return placement;
}

namespace {

/// Of one way to hang, over all of what is to be filled.
std::vector<photometry::PlacedLuminaire> sampled(const SearchRoom& room, const ArrangementWish& wish,
                                                 Field way) {
  way.rows = way.columns = kSampled;
  const auto group = room.lay(way.placement(wish.base));
  return group ? group->luminaires : std::vector<photometry::PlacedLuminaire>();
}

}  // namespace

std::vector<photometry::PlacedLuminaire> sample_places(const SearchRoom& room, const ArrangementWish& wish) {
  std::vector<photometry::PlacedLuminaire> places;
  for (const Field& way : ways_to_hang(room, wish)) {
    const std::vector<photometry::PlacedLuminaire> some = sampled(room, wish, way);
    places.insert(places.end(), some.begin(), some.end());
  }
  return places;
}

/// On plan all of the outline; by height what the samples tell, and a step more where a ceiling slopes.
std::vector<HangingPlaces> hanging_places(const SearchRoom& room, const ArrangementWish& wish) {
  const auto plan = geometry::bounding_box(room.setting.space().outline);
  std::vector<HangingPlaces> all;
  for (const Field& way : ways_to_hang(room, wish)) {
    const std::size_t first = all.size();
    for (const photometry::PlacedLuminaire& luminaire : sampled(room, wish, way)) {
      const auto alike = std::find_if(all.begin() + std::ptrdiff_t(first), all.end(), [&](const auto& known) {
        const geometry::Frame &a = known.luminaire.frame, &b = luminaire.frame;
        return (a.c0 - b.c0).norm() + (a.g0 - b.g0).norm() < kSameWay;
      });
      const Vec3& at = luminaire.frame.origin;
      if (alike == all.end())
        all.push_back({luminaire, Eigen::AlignedBox3d(at)});
      else
        alike->where.extend(at);
    }
    for (std::size_t i = first; i < all.size(); ++i) {
      Eigen::AlignedBox3d& box = all[i].where;
      const double step = box.sizes().z() / (kSampled - 1);
      box.extend(Vec3(plan.low.x(), plan.low.y(), box.min().z() - step));
      box.extend(Vec3(plan.high.x(), plan.high.y(), box.max().z() + step));
    }
  }
  return all;
}

namespace {

/// All rows and columns, in every way to hang, of at least `fewest` positions and of as many as leave `most`
/// luminaires inside; those of fewer are counted only.
std::vector<Field> all_rows_and_columns(const SearchRoom& room, const ArrangementWish& wish,
                                        std::size_t fewest, std::size_t most, std::size_t& too_few) {
  const Vec2 sides = sides_of(room, wish);
  const bool whole = !wish.base.array || wish.base.array->within.empty();
  const double filled =
      whole ? room.setting.space().floor_area_m2 : std::abs(geometry::signed_area(wish.base.array->within));
  const int positions = int(std::ceil(double(most) * sides.prod() / filled));
  std::vector<Field> fields;
  for (const Field& way : ways_to_hang(room, wish))
    for (int rows = 1; rows <= positions; ++rows)
      for (int columns = 1; rows * columns <= positions; ++columns) {
        if (is_oblong(sides, rows, columns)) continue;
        for (const bool staggered : {false, true}) {
          if (staggered && (rows < 2 || !wish.staggers)) continue;
          Field field = way;
          field.rows = rows;
          field.columns = columns;
          field.staggered = staggered;
          if (std::size_t(rows * columns) < fewest)
            ++too_few;
          else
            fields.push_back(field);
        }
      }
  return fields;
}

}  // namespace

AllFields all_fields(const SearchRoom& room, const ArrangementWish& wish, std::size_t fewest,
                     std::size_t most) {
  AllFields all;
  const std::vector<Field> wanted = all_rows_and_columns(room, wish, fewest, most, all.too_few);
  std::vector<std::optional<space::LuminaireGroup>> groups(wanted.size());
  std::vector<char> is_blocked(wanted.size(), 0);
  const Watch quiet{{}, room.watch.cancel};
  parallel_for(wanted.size(), quiet, "arrangements", [&](std::size_t i) {
    auto group = room.lay(wanted[i].placement(wish.base));
    if (!group || group->luminaires.size() > most) return;
    if (is_clear(room.setting.space(), *group))
      groups[i] = std::move(group);
    else
      is_blocked[i] = 1;
  });
  for (std::size_t i = 0; i < wanted.size(); ++i) {
    all.blocked += std::size_t(is_blocked[i]);
    if (!groups[i]) continue;
    Field field = wanted[i];
    field.luminaires = groups[i]->luminaires.size();
    if (groups[i]->photometry->watts)
      field.watts = double(field.luminaires) * *groups[i]->photometry->watts * wish.base.dimming;
    all.fields.push_back({field, std::move(*groups[i])});
  }
  std::stable_sort(all.fields.begin(), all.fields.end(), [](const LaidField& a, const LaidField& b) {
    return a.field.luminaires < b.field.luminaires;
  });
  return all;
}

}  // namespace glow::studies
