#include "figures/figure_list.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/model/file_names.hpp"
#include "figures/columns_figure.hpp"
#include "figures/daylight/day_figure.hpp"
#include "figures/daylight/sun_path_figure.hpp"
#include "figures/daylight/year_figures.hpp"
#include "figures/flat/plan_figure.hpp"
#include "figures/floor_figure.hpp"
#include "figures/glare_figure.hpp"
#include "figures/neighbours_figure.hpp"
#include "figures/room_sheet.hpp"
#include "figures/shares_figure.hpp"
#include "figures/status_figure.hpp"

namespace glow::figures {
namespace {

using Grids = std::vector<const assess::GridReading*>;

constexpr const char* kAsPlaced = "as placed";

/// Whether something is asked of the grid.
bool is_verified(const record::RoomRecord& room, const assess::GridReading& grid) {
  return std::any_of(room.assessment.checks.begin(), room.assessment.checks.end(), [&](const auto& check) {
    return check.target.kind == standards::Target::Kind::grid &&
           &room.assessment.grids[check.target.id] == &grid;
  });
}

class RoomFigures {
 public:
  RoomFigures(const record::RoomRecord& room, const model::FigureStyle& style, const units::ShownUnits& units,
              const CommonScale& common)
      : room_(room), style_(style), units_(units), common_(common) {}

  std::vector<Figure> make() {
    add(room_);
    return std::move(figures_);
  }

 private:
  void add(const record::RoomRecord& room) {
    const auto input = std::make_shared<const FigureInput>(FigureInput{&room, style_, units_, common_});
    const std::string folder = room.scene.empty() ? "" : model::file_name_part(room.scene) + "/";
    const std::string first = folder + model::file_name_part(room.name) + "--";
    const bool of_daylight = record::verifies_daylight(room.assessment);  // then nothing else is looked at
    Grids surfaces, ceiling;
    for (const assess::GridReading& grid : room.assessment.grids) {
      if (grid.total_lx.empty()) continue;
      if (grid.role == space::GridRole::floor) surfaces.push_back(&grid);
      if (grid.role == space::GridRole::ceiling) ceiling.push_back(&grid);
      if (grid.role == space::GridRole::wall || grid.role == space::GridRole::eye_level ||
          grid.role == space::GridRole::neighbour)
        continue;
      if (grid.role == space::GridRole::daylight_plane || of_daylight) {
        if (of_daylight && is_verified(room, grid))
          add_factors(first + model::file_name_part(grid.name), room, grid);
        continue;
      }
      const std::string base = first + model::file_name_part(grid.name);
      add(base, fmt::format(FMT_STRING("{}: {}"), room.title(), grid.name), input, {&grid}, false,
          [input, &grid] { return plan_svg(*input, grid); });
      figures_.back().main = grid.role == space::GridRole::work_plane;
      const bool looked_at =
          grid.role == space::GridRole::requested || grid.role == space::GridRole::task_area;
      figures_.back().usual = figures_.back().main || looked_at;
      if (!figures_.back().usual) continue;
      add(base + "--columns", fmt::format(FMT_STRING("{}: {} as columns"), room.title(), grid.name), input,
          {&grid}, true, [input, &grid] { return columns_svg(*input, grid); });
      if (grid.colour && grid.colour->warmest_k) add_colours(base, room, grid);
      if (grid.day && grid.day->has_factor) add_factors(base, room, grid);
    }
    add_daylight(room, first, input);
    if (room.assessment.spill && !room.assessment.spill->neighbours.empty())
      add_neighbours(room, first, input, *room.assessment.spill);
    if (of_daylight) return;
    add_eyes(room, first, input);
    const Grids walls = walls_in_order(room);
    surfaces.insert(surfaces.end(), ceiling.begin(), ceiling.end());
    surfaces.insert(surfaces.end(), walls.begin(), walls.end());
    add_sheet(first + "walls--sheet", "walls, seen from inside, turning right", input, walls);
    if (surfaces.size() > walls.size())
      add_sheet(first + "room--sheet", "floor, ceiling and walls", input, surfaces);
    if (!surfaces.empty()) figures_.back().usual = true;
  }

  /// The sky over each opening where sunlight is verified; the course of a moment's day.
  void add_daylight(const record::RoomRecord& room, const std::string& first,
                    const std::shared_ptr<const FigureInput>& input) {
    if (const auto& outlook = room.assessment.outlook)
      for (const assess::SunOnOpening& sun : outlook->sun)
        figures_.push_back({first + "sun-path--" + model::file_name_part(sun.opening),
                            fmt::format(FMT_STRING("{}: the sun's way over {}"), room.title(), sun.opening),
                            true,
                            true,
                            [input, &outlook = *outlook, &sun] { return sun_path_svg(*input, outlook, sun); },
                            {}});
    for (Figure& figure : figures_of_year(room, first, input)) figures_.push_back(std::move(figure));
    if (room.series && !room.series->steps.empty())
      figures_.push_back({first + "day",
                          fmt::format(FMT_STRING("{}: the course of the day"), room.title()),
                          true,
                          true,
                          [input, &series = *room.series] { return day_svg(*input, series); },
                          {}});
  }

  /// The neighbours of an outdoor area in plan and section, and maps of facades.
  void add_neighbours(const record::RoomRecord& room, const std::string& first,
                      const std::shared_ptr<const FigureInput>& input, const assess::SpillReading& spill) {
    figures_.push_back({first + "neighbours",
                        fmt::format(FMT_STRING("{}: neighbours"), room.title()),
                        true,
                        true,
                        [input] { return neighbours_svg(*input); },
                        {}});
    for (const assess::NeighbourReading& own : spill.neighbours) {
      if (own.k_by_point.empty()) continue;
      const assess::GridReading& grid = room.assessment.grids[own.grid];
      const std::string base = first + model::file_name_part(grid.name);
      add(base, fmt::format(FMT_STRING("{}: light on {}"), room.title(), grid.name), input, {&grid}, false,
          [input, &grid] { return plan_svg(*input, grid); });
      figures_.push_back({base + "--glare",
                          fmt::format(FMT_STRING("{}: glare at {}"), room.title(), grid.name),
                          false,
                          true,
                          [&room, &grid, &own, style = style_, units = units_] {
                            return other_values_svg(room, glare_values_of(grid, own), style, units);
                          },
                          {}});
    }
  }

  void add_factors(const std::string& base, const record::RoomRecord& room, const assess::GridReading& grid) {
    figures_.push_back({base + "--daylight-factor",
                        fmt::format(FMT_STRING("{}: daylight factor on {}"), room.title(), grid.name),
                        true,
                        true,
                        [&room, &grid, style = style_, units = units_] {
                          return other_values_svg(
                              room, factors_of(grid, room.moment ? room.moment->words() : ""), style, units);
                        },
                        {}});
  }

  void add_colours(const std::string& base, const record::RoomRecord& room, const assess::GridReading& grid) {
    figures_.push_back({base + "--colour",
                        fmt::format(FMT_STRING("{}: colour of the light on {}"), room.title(), grid.name),
                        false,
                        true,
                        [&room, &grid, style = style_, units = units_] {
                          return other_values_svg(room, temperatures_of(grid, style.tint), style, units);
                        },
                        {}});
  }

  /// Maps of eyes all over the room, and everybody at their places on one plan.
  void add_eyes(const record::RoomRecord& room, const std::string& first,
                const std::shared_ptr<const FigureInput>& input) {
    std::vector<const assess::EyeSetGlare*> seats;
    for (const assess::EyeSetGlare& eyes : room.assessment.glare.sets) {
      if (!eyes.worst) continue;
      if (!eyes.set.cell_m) {
        seats.push_back(&eyes);
        continue;
      }
      figures_.push_back({first + model::file_name_part(eyes.set.name) + "--ugr",
                          fmt::format(FMT_STRING("{}: UGR of {}"), room.title(), eyes.set.name),
                          false,
                          true,
                          [input, &eyes] { return glare_map_svg(*input, eyes); },
                          {}});
    }
    if (seats.empty()) return;
    figures_.push_back({first + "eyes--sheet",
                        fmt::format(FMT_STRING("{}: UGR of people at their places"), room.title()),
                        false,
                        true,
                        [input, seats] { return seats_svg(*input, seats); },
                        {}});
  }

  void add_sheet(const std::string& base, const std::string& subject,
                 const std::shared_ptr<const FigureInput>& input, const Grids& grids) {
    if (grids.empty()) return;
    add(base, fmt::format(FMT_STRING("{}: {}"), input->room->title(), subject), input, grids, false,
        [input, subject, grids] { return sheet_svg(*input, subject, grids); });
  }

  void add(const std::string& base, const std::string& what, const std::shared_ptr<const FigureInput>& input,
           const Grids& grids, bool columns, std::function<std::string()> svg) {
    figures_.push_back({base, what, false, false, std::move(svg),
                        [=] { return plot_script(*input, grids, base, columns); }});
  }

  const record::RoomRecord& room_;
  const model::FigureStyle& style_;
  const units::ShownUnits& units_;
  const CommonScale& common_;
  std::vector<Figure> figures_;
};

}  // namespace

std::string other_values_svg(const record::RoomRecord& room, const std::optional<OtherValues>& other,
                             const model::FigureStyle& style, const units::ShownUnits& units) {
  if (!other) throw std::runtime_error("there is no light whose colour could be drawn");
  FigureInput input{&room, style, units, {}, other->measure};
  return plan_svg(input, other->grid);
}

bool is_shown_in_scenes(const assess::GridReading& grid) {
  return !grid.total_lx.empty() &&
         (grid.role == space::GridRole::work_plane || grid.role == space::GridRole::task_area ||
          grid.role == space::GridRole::requested);
}

CommonScale common_scale_of(const std::vector<record::RoomRecord>& rooms) {
  CommonScale common;
  for (const record::RoomRecord& room : rooms)
    for (const assess::GridReading& grid : room.assessment.grids) {
      if (grid.total_lx.empty()) continue;
      const double low = grid.statistics.min_lx, high = grid.statistics.max_lx;
      common = common ? std::pair(std::min(common->first, low), std::max(common->second, high))
                      : std::pair(low, high);
    }
  return common;
}

Figure status_of(const record::RunRecord& run) {
  return {"project--status", "verdicts of all rooms", true, true, [&run] { return status_svg(run); }, {}};
}

std::vector<Figure> shares_of_planes(const record::RunRecord& run) {
  if (!record::shares_over(run.rooms)) return {};
  return {{"project--shares",
           "shares of the work planes by thresholds",
           false,
           true,
           [&run] { return shares_svg(run); },
           {}}};
}

std::vector<Figure> floors_of(const record::RunRecord& run) {
  std::vector<Figure> figures;
  for (std::size_t f = 0; f < run.floors.size(); ++f)
    figures.push_back({"floor--" + model::file_name_part(run.floors[f].name),
                       "verdicts of " + run.floors[f].name,
                       true,
                       true,
                       [&run, f] { return floor_svg(run, f); },
                       {}});
  return figures;
}

std::vector<Figure> figures_of(const record::RoomRecord& room, const model::FigureStyle& style,
                               const units::ShownUnits& units, const CommonScale& common) {
  return RoomFigures(room, style, units, common).make();
}

namespace {

/// A grid in every scene, or at every moment, side by side on one scale, each under its name; nothing where
/// there are none.
std::optional<Figure> side_by_side(const record::RoomRecord& room, std::size_t grid, bool moments,
                                   const model::FigureStyle& style, const units::ShownUnits& units,
                                   const CommonScale& common) {
  const auto grids = std::make_shared<std::vector<assess::GridReading>>();
  for (const record::SceneRecord& scene : room.scenes) {
    if (scene.moment.has_value() != moments || record::verifies_daylight(scene.assessment)) continue;
    grids->push_back(scene.assessment.grids[grid]);
    grids->back().name = scene.name;
  }
  if (grids->empty()) return std::nullopt;
  const assess::GridReading& placed = room.assessment.grids[grid];
  const char* of = moments ? "moments" : "scenes";
  const std::string subject =
      fmt::format(FMT_STRING("{} {}"), placed.name, moments ? "at all moments" : "in all scenes");
  const auto input = std::make_shared<const FigureInput>(FigureInput{&room, style, units, common});
  return Figure{fmt::format(FMT_STRING("{}--{}--{}"), model::file_name_part(room.name), of,
                            model::file_name_part(placed.name)),
                fmt::format(FMT_STRING("{}: {}"), room.name, subject),
                false,
                placed.role == space::GridRole::work_plane,
                [grids, input, subject] {
                  Grids list;
                  for (const assess::GridReading& each : *grids) list.push_back(&each);
                  return sheet_svg(*input, subject, list);
                },
                {}};
}

/// The grids of a room in one of its scenes, or as placed; null: it has no such scene.
const std::vector<assess::GridReading>* grids_in(const record::RoomRecord& room, const std::string& scene) {
  if (scene == kAsPlaced) return &room.assessment.grids;
  for (const record::SceneRecord& each : room.scenes)
    if (each.name == scene) return &each.assessment.grids;
  return nullptr;
}

}  // namespace

std::vector<Figure> differences_of(const record::RoomRecord& room, const std::string& scene,
                                   const std::string& other, const model::FigureStyle& style,
                                   const units::ShownUnits& units) {
  std::vector<Figure> all;
  const auto *first = grids_in(room, scene), *second = grids_in(room, other);
  if (!first || !second) return all;
  for (std::size_t g = 0; g < first->size(); ++g) {
    const assess::GridReading &a = (*first)[g], &b = (*second)[g];
    if (!is_shown_in_scenes(a) || a.total_lx.size() != b.total_lx.size()) continue;
    const std::string subject = fmt::format(FMT_STRING("{} less {}"), scene, other);
    all.push_back({model::file_name_part(room.name) + "--" + model::file_name_part(a.name) + "--" +
                       model::file_name_part(scene) + "-less-" + model::file_name_part(other),
                   fmt::format(FMT_STRING("{}: {}, {}"), room.name, a.name, subject),
                   false,
                   false,
                   [&room, &a, &b, subject, style, units] {
                     return other_values_svg(room, difference_of(a, b, subject), style, units);
                   },
                   {}});
  }
  return all;
}

std::vector<Figure> figures_of_scenes(const record::RoomRecord& room, const model::FigureStyle& style,
                                      const units::ShownUnits& units, const CommonScale& common) {
  std::vector<Figure> all;
  for (std::size_t g = 0; !room.scenes.empty() && g < room.assessment.grids.size(); ++g)
    for (const bool moments : {false, true})
      if (is_shown_in_scenes(room.assessment.grids[g]))
        if (auto sheet = side_by_side(room, g, moments, style, units, common))
          all.push_back(std::move(*sheet));
  for (std::size_t s = 0; s < room.scenes.size(); ++s) {
    const auto seen = std::make_shared<const record::RoomRecord>(record::in_scene(room, s));
    for (Figure& figure : figures_of(*seen, style, units, common)) {
      figure.usual = figure.usual && figure.main;
      figure.svg = [seen, svg = std::move(figure.svg)] { return svg(); };
      if (figure.script) figure.script = [seen, script = std::move(figure.script)] { return script(); };
      all.push_back(std::move(figure));
    }
  }
  return all;
}

std::vector<Figure> figures_of(const record::RunRecord& run) {
  std::vector<Figure> all = {status_of(run)};
  for (auto&& list : {shares_of_planes(run), floors_of(run)}) all.insert(all.end(), list.begin(), list.end());
  const CommonScale common = common_scale_of(run.rooms);
  for (const record::RoomRecord& room : run.rooms)
    for (auto&& list : {figures_of(room, run.style, run.units, common),
                        figures_of_scenes(room, run.style, run.units, common)})
      all.insert(all.end(), list.begin(), list.end());
  return all;
}

}  // namespace glow::figures
