#include "figures/compared_figures.hpp"

#include <fmt/format.h>

#include "core/model/file_names.hpp"
#include "figures/flat/shown_measure.hpp"
#include "figures/room_sheet.hpp"

namespace glow::figures {
namespace {

/// One grid of a room in several runs: its values, or those of a map, and what they are.
struct Sides {
  std::string base, name;  ///< of files; of what is compared
  std::vector<assess::GridReading> grids;
  std::vector<std::size_t> runs;  ///< of those
  ShownMeasure measure;
};

class ComparedFigures {
 public:
  ComparedFigures(const std::vector<ComparedIn>& rooms, const model::FigureStyle& style,
                  const units::ShownUnits& units)
      : rooms_(rooms), first_(*rooms.front().room), style_(style), units_(units) {}

  std::vector<Figure> make() {
    for (const assess::GridReading& grid : first_.assessment.grids)
      if (is_shown_in_scenes(grid)) add(light_of(grid));
    if (const auto sides = autonomy()) add(*sides);
    return std::move(figures_);
  }

 private:
  std::string side_name(std::size_t run) const { return rooms_[run].run; }

  Sides light_of(const assess::GridReading& grid) const {
    Sides sides{
        model::file_name_part(first_.name) + "--" + model::file_name_part(grid.name), grid.name, {}, {}, {}};
    for (std::size_t k = 0; k < rooms_.size(); ++k)
      if (const assess::GridReading* own = rooms_[k].room->find_grid(grid.name);
          own && !own->total_lx.empty()) {
        sides.grids.push_back(*own);
        sides.runs.push_back(k);
      }
    return sides;
  }

  /// The year in each room, or in the one among its scenes.
  static const assess::Assessment* year_of(const record::RoomRecord& room) {
    if (room.assessment.year) return &room.assessment;
    for (const record::SceneRecord& scene : room.scenes)
      if (scene.assessment.year) return &scene.assessment;
    return nullptr;
  }

  std::optional<Sides> autonomy() const {
    Sides sides;
    for (std::size_t k = 0; k < rooms_.size(); ++k) {
      const assess::Assessment* found = year_of(*rooms_[k].room);
      if (!found || found->year->grids.empty()) continue;
      const assess::YearOnGrid& own = found->year->grids.front();
      const assess::YearMap& map = own.maps.front();
      OtherValues values = year_map_of(found->grids[own.grid], map, found->year->hours_words);
      if (sides.grids.empty()) {
        sides.name = found->grids[own.grid].name + ", " + map.name();
        sides.base = model::file_name_part(first_.name) + "--" +
                     model::file_name_part(found->grids[own.grid].name) + "--" +
                     model::file_name_part(map.name());
        sides.measure = values.measure;
      }
      sides.grids.push_back(std::move(values.grid));
      sides.runs.push_back(k);
    }
    return sides.grids.empty() ? std::nullopt : std::optional(std::move(sides));
  }

  void add(const Sides& sides) {
    if (sides.grids.size() < 2) return;
    const auto shown = std::make_shared<std::vector<assess::GridReading>>(sides.grids);
    for (std::size_t k = 0; k < shown->size(); ++k) (*shown)[k].name = side_name(sides.runs[k]);
    const std::string subject = sides.name + ", side by side";
    const auto input = std::make_shared<const FigureInput>(
        FigureInput{&first_, style_, units_, std::nullopt, sides.measure});
    figures_.push_back({sides.base + "--compared",
                        fmt::format(FMT_STRING("{}: {}"), first_.name, subject),
                        true,
                        true,
                        [shown, input, subject] {
                          std::vector<const assess::GridReading*> list;
                          for (const assess::GridReading& each : *shown) list.push_back(&each);
                          return sheet_svg(*input, subject, list);
                        },
                        {}});
    if (sides.runs.front() != 0) return;
    for (std::size_t k = 1; k < sides.grids.size(); ++k)
      if (sides.grids[k].total_lx.size() == sides.grids.front().total_lx.size()) add_difference(sides, k);
  }

  void add_difference(const Sides& sides, std::size_t k) {
    const std::size_t run = sides.runs[k];
    std::string what = fmt::format(FMT_STRING("{}, less {}"), side_name(run), side_name(0));
    if (sides.measure.of_year) what = sides.name + ": " + what;
    const auto other = std::make_shared<const OtherValues>(
        difference_of(sides.grids[k], sides.grids.front(), what, sides.measure.of_year));
    figures_.push_back({sides.base + "--difference-" + std::string(1, char('a' + int(run))),
                        fmt::format(FMT_STRING("{}: {}, {}"), first_.name, sides.name, what),
                        false,
                        false,
                        [other, room = rooms_[run].room, style = style_, units = units_] {
                          return other_values_svg(*room, *other, style, units);
                        },
                        {}});
  }

  const std::vector<ComparedIn>& rooms_;
  const record::RoomRecord& first_;
  const model::FigureStyle& style_;
  const units::ShownUnits& units_;
  std::vector<Figure> figures_;
};

}  // namespace

std::vector<Figure> comparisons_of(const std::vector<ComparedIn>& rooms, const model::FigureStyle& style,
                                   const units::ShownUnits& units) {
  if (rooms.size() < 2) return {};
  return ComparedFigures(rooms, style, units).make();
}

}  // namespace glow::figures
