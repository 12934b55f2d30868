#include "figures/figure_list.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "figures/columns_figure.hpp"
#include "figures/glare_figure.hpp"
#include "figures/plan_figure.hpp"
#include "figures/room_sheet.hpp"
#include "figures/status_figure.hpp"
#include "files/output/file_names.hpp"

namespace glow::figures {
namespace {

using Grids = std::vector<const assess::GridReading*>;

class List {
 public:
  explicit List(const record::RunRecord& run) : run_(run) {
    for (const record::RoomRecord& room : run.rooms)
      for (const assess::GridReading& grid : room.grids) {
        if (grid.total_lx.empty()) continue;
        const double low = grid.statistics.min_lx, high = grid.statistics.max_lx;
        common_ = common_ ? std::pair(std::min(common_->first, low), std::max(common_->second, high))
                          : std::pair(low, high);
      }
  }

  std::vector<Figure> make() {
    figures_.push_back({"project--status",
                        "verdicts of all rooms",
                        true,
                        true,
                        [this_run = &run_] { return status_svg(*this_run); },
                        {}});
    for (const record::RoomRecord& room : run_.rooms) add(room);
    return std::move(figures_);
  }

 private:
  void add(const record::RoomRecord& room) {
    const auto input =
        std::make_shared<const FigureInput>(FigureInput{&room, run_.style, run_.units, common_});
    const std::string first = files::file_name_part(room.name) + "--";
    Grids surfaces, ceiling;
    for (const assess::GridReading& grid : room.grids) {
      if (grid.total_lx.empty()) continue;
      if (grid.role == space::GridRole::floor) surfaces.push_back(&grid);
      if (grid.role == space::GridRole::ceiling) ceiling.push_back(&grid);
      if (grid.role == space::GridRole::wall || grid.role == space::GridRole::eye_level) continue;
      const std::string base = first + files::file_name_part(grid.name);
      add(base, fmt::format(FMT_STRING("{}: {}"), room.name, grid.name), input, {&grid}, false,
          [input, &grid] { return plan_svg(*input, grid); });
      figures_.back().main = grid.role == space::GridRole::work_plane;
      const bool looked_at = grid.role == space::GridRole::requested || grid.role == space::GridRole::task_area;
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
    std::vector<const record::EyeSetRecord*> seats;
    for (const record::EyeSetRecord& eyes : room.eyes) {
      if (std::none_of(eyes.ugr.begin(), eyes.ugr.end(), [](const auto& v) { return v.has_value(); }))
        continue;
      if (eyes.cell_m.minCoeff() <= 0) {
        seats.push_back(&eyes);
        continue;
      }
      figures_.push_back({first + files::file_name_part(eyes.name) + "--ugr",
                          fmt::format(FMT_STRING("{}: UGR of {}"), room.name, eyes.name),
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

  const record::RunRecord& run_;
  std::optional<std::pair<double, double>> common_;
  std::vector<Figure> figures_;
};

}  // namespace

std::vector<Figure> figures_of(const record::RunRecord& run) {
  return List(run).make();
}

}  // namespace glow::figures
