#include "figures/figure_list.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/model/file_names.hpp"
#include "figures/columns_figure.hpp"
#include "figures/flat/plan_figure.hpp"
#include "figures/glare_figure.hpp"
#include "figures/room_sheet.hpp"
#include "figures/status_figure.hpp"

namespace glow::figures {
namespace {

using Grids = std::vector<const assess::GridReading*>;

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
    const std::string first = model::file_name_part(room.name) + "--";
    Grids surfaces, ceiling;
    for (const assess::GridReading& grid : room.assessment.grids) {
      if (grid.total_lx.empty()) continue;
      if (grid.role == space::GridRole::floor) surfaces.push_back(&grid);
      if (grid.role == space::GridRole::ceiling) ceiling.push_back(&grid);
      if (grid.role == space::GridRole::wall || grid.role == space::GridRole::eye_level) continue;
      const std::string base = first + model::file_name_part(grid.name);
      add(base, fmt::format(FMT_STRING("{}: {}"), room.name, grid.name), input, {&grid}, false,
          [input, &grid] { return plan_svg(*input, grid); });
      figures_.back().main = grid.role == space::GridRole::work_plane;
      const bool looked_at =
          grid.role == space::GridRole::requested || grid.role == space::GridRole::task_area;
      figures_.back().usual = figures_.back().main || looked_at;
      if (!figures_.back().usual) continue;
      add(base + "--columns", fmt::format(FMT_STRING("{}: {} as columns"), room.name, grid.name), input,
          {&grid}, true, [input, &grid] { return columns_svg(*input, grid); });
    }
    add_eyes(room, first, input);
    const Grids walls = walls_in_order(room);
    surfaces.insert(surfaces.end(), ceiling.begin(), ceiling.end());
    surfaces.insert(surfaces.end(), walls.begin(), walls.end());
    add_sheet(first + "walls--sheet", "walls, seen from inside, turning right", input, walls);
    if (surfaces.size() > walls.size())
      add_sheet(first + "room--sheet", "floor, ceiling and walls", input, surfaces);
    if (!surfaces.empty()) figures_.back().usual = true;
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
                          fmt::format(FMT_STRING("{}: UGR of {}"), room.name, eyes.set.name),
                          false,
                          true,
                          [input, &eyes] { return glare_map_svg(*input, eyes); },
                          {}});
    }
    if (seats.empty()) return;
    figures_.push_back({first + "eyes--sheet",
                        fmt::format(FMT_STRING("{}: UGR of people at their places"), room.name),
                        false,
                        true,
                        [input, seats] { return seats_svg(*input, seats); },
                        {}});
  }

  void add_sheet(const std::string& base, const std::string& subject,
                 const std::shared_ptr<const FigureInput>& input, const Grids& grids) {
    if (grids.empty()) return;
    add(base, fmt::format(FMT_STRING("{}: {}"), input->room->name, subject), input, grids, false,
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

std::vector<Figure> figures_of(const record::RoomRecord& room, const model::FigureStyle& style,
                               const units::ShownUnits& units, const CommonScale& common) {
  return RoomFigures(room, style, units, common).make();
}

std::vector<Figure> figures_of(const record::RunRecord& run) {
  std::vector<Figure> all = {status_of(run)};
  const CommonScale common = common_scale_of(run.rooms);
  for (const record::RoomRecord& room : run.rooms)
    for (Figure& figure : figures_of(room, run.style, run.units, common)) all.push_back(std::move(figure));
  return all;
}

}  // namespace glow::figures
