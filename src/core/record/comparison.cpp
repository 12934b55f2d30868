#include "core/record/comparison.hpp"

#include <algorithm>
#include <cmath>

namespace glow::record {
namespace {

Compared checks_of(const RoomRecord& room) {
  Compared value;
  double met = 0;
  for (const standards::Check& check : room.assessment.checks) {
    if (!check.binding) continue;
    ++value.of;
    met += check.verdict == standards::Verdict::met;
  }
  if (value.of > 0) value.value = met;
  return value;
}

Compared glare_of(const RoomRecord& room) {
  Compared highest;
  for (const assess::EyeSetGlare& set : room.assessment.glare.sets) {
    if (!set.worst) continue;
    const auto ugr = set.views[*set.worst].ugr;
    if (!ugr || !std::isfinite(*ugr) || (highest.value && *highest.value >= *ugr)) continue;
    highest.value = ugr;
    highest.uncertainty = set.uncertainty;
  }
  return highest;
}

Compared daylight_of(const assess::GridReading& plane) {
  Compared factor;
  if (plane.day) factor.value = plane.day->mean_factor();
  if (factor.value && plane.statistics.mean_lx > 0)
    factor.uncertainty = *factor.value * plane.uncertainty.mean_lx / plane.statistics.mean_lx;
  return factor;
}

/// Of a room in its year, or with one among its scenes.
Compared autonomy_of(const RoomRecord& room) {
  const std::optional<assess::YearReading>* year = &room.assessment.year;
  for (const SceneRecord& scene : room.scenes)
    if (scene.assessment.year) year = &scene.assessment.year;
  if (!*year || (*year)->grids.empty()) return {};
  const assess::YearMap& map = *(*year)->grids.front().find(assess::YearMetric::autonomy);
  return {map.mean, map.mean_doubt};
}

Compared value_of(ComparedMeasure measure, const RoomRecord& room) {
  const assess::GridReading* plane = work_plane(room.assessment);
  switch (measure) {
    case ComparedMeasure::checks_met:
      return checks_of(room);
    case ComparedMeasure::mean_lx:
      if (plane) return {plane->statistics.mean_lx, plane->uncertainty.mean_lx};
      break;
    case ComparedMeasure::uniformity:
      if (plane) return {plane->statistics.u0, plane->uncertainty.u0};
      break;
    case ComparedMeasure::glare:
      return glare_of(room);
    case ComparedMeasure::neighbour_glare:
      if (room.assessment.spill && !room.assessment.spill->neighbours.empty()) {
        Compared highest{0.0};
        for (const assess::NeighbourReading& own : room.assessment.spill->neighbours)
          if (own.k() > *highest.value) highest = {own.k(), own.k() * own.relative_doubt};
        return highest;
      }
      break;
    case ComparedMeasure::daylight_factor:
      if (plane) return daylight_of(*plane);
      break;
    case ComparedMeasure::watts:
    case ComparedMeasure::watts_per_m2: {
      if (room.groups.empty()) break;
      const auto watts = drawn_power(room);
      if (watts) return {measure == ComparedMeasure::watts ? *watts : *watts / room.floor_area_m2};
      break;
    }
    case ComparedMeasure::watts_per_m2_100lx:
      if (const auto density = room.assessment.power.w_per_m2_100lx; density && plane)
        return {density, *density * plane->uncertainty.mean_lx / plane->statistics.mean_lx};
      break;
    case ComparedMeasure::autonomy:
      return autonomy_of(room);
    case ComparedMeasure::kwh:
      if (room.energy && room.energy->kwh() > 0) return {room.energy->kwh()};
      break;
    case ComparedMeasure::energy_cost:
      if (room.energy) return {room.energy->cost()};
      break;
    case ComparedMeasure::investment:
      if (room.energy) return {room.energy->investment};
      break;
    case ComparedMeasure::payback_years:  // hangs on two rooms
      break;
  }
  return {};
}

/// Years in which less cost of energy makes good what was invested more; nothing where it never does, or
/// where no more was invested.
std::optional<double> payback_years(const RoomRecord& was, const RoomRecord& is) {
  if (!was.energy || !is.energy || !was.energy->investment || !is.energy->investment) return std::nullopt;
  const auto before = was.energy->cost(), now = is.energy->cost();
  const double more = *is.energy->investment - *was.energy->investment;
  if (!before || !now || more <= 0 || *now >= *before) return std::nullopt;
  return more / (*before - *now);
}

/// Whether the work plane's mean surely misses what is asked of it, as its checks say; nothing: no check.
std::optional<bool> misses_its_mean(const RoomRecord& room) {
  const assess::GridReading* plane = work_plane(room.assessment);
  if (!plane) return std::nullopt;
  const standards::Target target = {standards::Target::Kind::grid,
                                    std::size_t(plane - room.assessment.grids.data())};
  std::optional<bool> misses;
  for (const standards::Check& check : room.assessment.checks)
    if (check.binding && check.target == target &&
        check.demand.quantity == standards::Quantity::mean_illuminance)
      misses = misses.value_or(false) || check.verdict == standards::Verdict::not_met;
  return misses;
}

Change change_of(ComparedMeasure measure, const Compared& first, const Compared& now, const RoomRecord& was,
                 const RoomRecord& is) {
  if (!first.value || !now.value) return Change::none;
  const double more = *now.value - *first.value, doubt = std::hypot(first.uncertainty, now.uncertainty);
  const double hair = 1e-9 * std::max(1.0, std::abs(*first.value));
  if (std::abs(more) <= hair && (measure != ComparedMeasure::checks_met || first.of == now.of))
    return Change::none;
  if (std::abs(more) <= doubt) return Change::within_doubt;
  switch (measure) {
    case ComparedMeasure::checks_met: {
      const double missed_then = first.of - *first.value, missed_now = now.of - *now.value;
      return missed_now < missed_then   ? Change::better
             : missed_now > missed_then ? Change::worse
                                        : Change::other;
    }
    case ComparedMeasure::mean_lx: {
      const auto missed = misses_its_mean(was), misses = misses_its_mean(is);
      if (!missed || !misses || *missed == *misses) return Change::other;
      return *misses ? Change::worse : Change::better;
    }
    case ComparedMeasure::uniformity:
    case ComparedMeasure::daylight_factor:
    case ComparedMeasure::autonomy:
      return more > 0 ? Change::better : Change::worse;
    case ComparedMeasure::glare:
    case ComparedMeasure::neighbour_glare:
    case ComparedMeasure::watts:
    case ComparedMeasure::watts_per_m2:
    case ComparedMeasure::watts_per_m2_100lx:
    case ComparedMeasure::kwh:
    case ComparedMeasure::energy_cost:
    case ComparedMeasure::investment:
      return more < 0 ? Change::better : Change::worse;
    case ComparedMeasure::payback_years:
      return Change::other;
  }
  return Change::other;
}

constexpr ComparedMeasure kMeasures[] = {ComparedMeasure::checks_met,
                                         ComparedMeasure::mean_lx,
                                         ComparedMeasure::uniformity,
                                         ComparedMeasure::glare,
                                         ComparedMeasure::neighbour_glare,
                                         ComparedMeasure::daylight_factor,
                                         ComparedMeasure::watts,
                                         ComparedMeasure::watts_per_m2,
                                         ComparedMeasure::watts_per_m2_100lx,
                                         ComparedMeasure::autonomy,
                                         ComparedMeasure::kwh,
                                         ComparedMeasure::energy_cost,
                                         ComparedMeasure::investment,
                                         ComparedMeasure::payback_years};

void add_rows(ComparedRoom& room) {
  for (const ComparedMeasure measure : kMeasures) {
    ComparedRow row;
    row.measure = measure;
    bool any = false;
    for (const RoomRecord* one : room.rooms) {
      row.values.push_back(one ? value_of(measure, *one) : Compared());
      if (measure == ComparedMeasure::payback_years && one && room.rooms[0])
        row.values.back().value = payback_years(*room.rooms[0], *one);
      any = any || row.values.back().value;
    }
    for (std::size_t k = 1; k < room.rooms.size(); ++k)
      if (room.rooms[0] && room.rooms[k])
        row.values[k].change =
            change_of(measure, row.values[0], row.values[k], *room.rooms[0], *room.rooms[k]);
    if (any) room.rows.push_back(std::move(row));
  }
}

}  // namespace

bool ComparedRoom::is_worse() const {
  return std::any_of(rows.begin(), rows.end(), [](const ComparedRow& row) {
    return std::any_of(row.values.begin(), row.values.end(),
                       [](const Compared& value) { return value.change == Change::worse; });
  });
}

std::vector<ComparedRoom> compared(const std::vector<const RunRecord*>& runs) {
  std::vector<ComparedRoom> all;
  for (std::size_t k = 0; k < runs.size(); ++k)
    for (const RoomRecord& room : runs[k]->rooms) {
      auto known = std::find_if(all.begin(), all.end(),
                                [&](const ComparedRoom& one) { return one.name == room.name; });
      if (known == all.end()) {
        all.push_back({room.name, std::vector<const RoomRecord*>(runs.size(), nullptr), {}});
        known = std::prev(all.end());
      }
      known->rooms[k] = &room;
    }
  for (ComparedRoom& room : all) add_rows(room);
  return all;
}

}  // namespace glow::record
