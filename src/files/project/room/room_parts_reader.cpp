#include "files/project/room/room_parts_reader.hpp"

#include <fmt/format.h>

#include <set>

#include "files/project/outside/panes_reader.hpp"
#include "files/project/ranges.hpp"

namespace glow::files {
namespace {

constexpr Range kReveal{0, 3};

using model::Finish;
using model::Opening;
using units::Dimension;

constexpr int kMostWalls = 2000;
constexpr double kUsualFrameShare = 0.2;
constexpr double kUsualFrameReflectance = 0.5;
constexpr const char* kUsualGlass = "clear glass";
constexpr double kUsualLeaf = 0.5;

/// The pane as a whole: glass and frame by their shares of the area.
Finish with_frame(const Finish& glass, double share, double frame_reflectance) {
  Finish pane = glass;
  geometry::Material& m = pane.material;
  m.diffuse = (1 - share) * m.diffuse + share * frame_reflectance;
  m.mirror *= 1 - share;
  m.clear *= 1 - share;
  m.scattering *= 1 - share;
  return pane;
}

/// Glass by transmittance and reflectance, or by a material; a door's leaf likewise. Says what is assumed.
void read_pane(TomlTable& table, const Materials& materials, Opening& opening,
               std::vector<std::string>& assumed) {
  const auto assume = [&](const std::string& words) {
    assumed.push_back(fmt::format(FMT_STRING("\"{}\": {}"), opening.name, words));
  };
  std::optional<Finish> finish = read_finish(table, materials);
  const auto clear = table.quantity("transmittance", Dimension::ratio, range::kShare);
  const auto scattering = table.quantity("scattering", Dimension::ratio, range::kShare);
  const auto share = read_frame(table, opening);
  const auto frame_reflectance = table.quantity("frame_reflectance", Dimension::ratio, Range{0, 0.98});
  if (clear || scattering) {
    if (!finish) finish.emplace();
    finish->material.clear = clear.value_or(finish->material.clear);
    finish->material.scattering = scattering.value_or(finish->material.scattering);
  }
  if (!finish && opening.is_glazed()) {
    finish = everyday_finishes().at(kUsualGlass);
    assume(fmt::format(FMT_STRING("{}, transmittance {:.2f}"), kUsualGlass, finish->material.clear));
  }
  if (!finish && opening.kind == "door") {
    finish.emplace();
    finish->material.diffuse = kUsualLeaf;
    assume(fmt::format(FMT_STRING("reflectance {}"), kUsualLeaf));
  }
  if (!share && opening.is_glazed())
    assume(fmt::format(FMT_STRING("frame {:.0f} % of its area"), 100 * kUsualFrameShare));
  opening.frame_share = share.value_or(opening.is_glazed() ? kUsualFrameShare : 0);
  if (opening.frame_share > 0 && !frame_reflectance)
    assume(fmt::format(FMT_STRING("frame of reflectance {}"), kUsualFrameReflectance));
  if (!finish) return;
  opening.glass = finish->material;
  opening.pane = with_frame(*finish, opening.frame_share, frame_reflectance.value_or(kUsualFrameReflectance));
  const geometry::Material& m = opening.pane->material;
  const double sum = m.diffuse + m.mirror + m.clear + m.scattering;
  if (sum > 0.995)
    table.problems().error("P031", opening.place,
                           fmt::format(FMT_STRING("\"{}\": what it reflects and lets through adds up to "
                                                  "{:.3f}; expected at most 0.995"),
                                       opening.name, sum));
}

/// In a wall from one of its corners, or in the ceiling about a place in plan.
void read_position(TomlTable& table, Opening& opening) {
  opening.in_roof =
      opening.kind == "roof window" || opening.kind == "dome" || (table.has("at") && !table.has("wall"));
  if (!std::set<std::string>{"window", "door", "opening", "roof window", "dome"}.count(opening.kind))
    table.problems().error(
        "P005", table.place_of("kind"),
        fmt::format(FMT_STRING("\"kind\" is \"{}\"; expected window, door, opening, roof window or dome"),
                    opening.kind));
  opening.size.x() = table.quantity("width", Dimension::length, range::kLength, Need::required).value_or(1);
  if (opening.in_roof) {
    opening.size.y() =
        table.quantity("length", Dimension::length, range::kLength, Need::required).value_or(1);
    opening.at = table.point("at", Need::required).value_or(Vec2::Zero());
    opening.rotation_deg = table.quantity("rotation", Dimension::angle, range::kAngle).value_or(0);
    return;
  }
  if (const auto wall = read_wall_word(table, "wall", Need::required)) {
    opening.wall = wall->number;
    opening.wall_name = wall->name;
  }
  opening.from_m = table.quantity("from", Dimension::length, range::kAlong, Need::required).value_or(0);
  opening.sill_m = table.quantity("sill", Dimension::length, range::kHeight).value_or(0);
  opening.size.y() = table.quantity("height", Dimension::length, range::kLength, Need::required).value_or(1);
}

}  // namespace

std::optional<WallWord> read_wall_word(TomlTable& table, const std::string& key, Need need) {
  if (table.is_text(key)) {
    const auto name = table.text(key, need);
    return name ? std::optional(WallWord{0, *name}) : std::nullopt;
  }
  const auto number = table.count(key, 1, kMostWalls, need);
  return number ? std::optional(WallWord{*number, {}}) : std::nullopt;
}

std::vector<model::Wall> read_walls(TomlTable& room, const Materials& materials) {
  std::vector<model::Wall> walls;
  for (TomlTable& table : room.tables("walls")) {
    model::Wall wall;
    wall.place = table.place();
    wall.number = table.count("wall", 1, kMostWalls, Need::required).value_or(1);
    wall.name = table.text("name").value_or("");
    wall.finish = read_finish(table, materials);
    table.finish();
    walls.push_back(std::move(wall));
  }
  return walls;
}

std::vector<Opening> read_openings(TomlTable& room, const Materials& materials,
                                   std::vector<std::string>& assumed) {
  std::vector<Opening> openings;
  for (TomlTable& table : room.tables("openings")) {
    Opening opening;
    opening.place = table.place();
    opening.name = table.text("name", Need::required).value_or("");
    opening.kind = table.text("kind").value_or("opening");
    opening.drawn = table.text("drawn").value_or("");
    read_position(table, opening);
    read_pane(table, materials, opening, assumed);
    read_glazing(table, opening);
    opening.reveal_m = table.quantity("reveal", Dimension::length, kReveal).value_or(0);
    opening.reveal_reflectance = table.quantity("reveal_reflectance", Dimension::ratio, Range{0, 0.98})
                                     .value_or(opening.reveal_reflectance);
    read_shades(table, opening);
    table.finish();
    openings.push_back(std::move(opening));
  }
  return openings;
}

bool read_rise(TomlTable& table, const Range& heights, const char* what, model::CeilingPart& part) {
  const auto from = table.point("from", Need::required), to = table.point("to", Need::required);
  part.to_height_m = table.quantity("to_height", Dimension::length, heights, Need::required).value_or(0);
  if (!from || !to) return false;
  part.from = *from;
  part.to = *to;
  if ((*to - *from).norm() > 1e-3) return true;
  table.problems().error("P005", table.place_of("to"),
                         fmt::format(FMT_STRING("\"from\" and \"to\" are the same point; expected the "
                                                "direction in which the {} rises"),
                                     what));
  return false;
}

std::vector<model::CeilingPart> read_ceiling(TomlTable& room) {
  std::vector<model::CeilingPart> parts;
  for (TomlTable& table : room.tables("ceiling")) {
    model::CeilingPart part;
    part.place = table.place();
    part.height_m = table.quantity("height", Dimension::length, range::kHeight, Need::required).value_or(0);
    if (table.has("over")) {
      const auto over = table.points("over");
      table.finish();
      if (!over) continue;
      part.over = *over;
      if (const auto fault = geometry::fault_of_outline(part.over))
        table.problems().error("P013", table.place_of("over"),
                               fmt::format(FMT_STRING("this outline is not a simple polygon: {}"), *fault));
      else
        parts.push_back(std::move(part));
      continue;
    }
    const bool rises = read_rise(table, range::kHeight, "ceiling", part);
    table.finish();
    if (rises) parts.push_back(std::move(part));
  }
  return parts;
}

}  // namespace glow::files
