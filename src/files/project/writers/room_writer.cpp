#include "files/project/writers/room_writer.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/model/file_names.hpp"
#include "files/project/room/typical_furniture.hpp"
#include "files/project/writers/toml_words.hpp"

namespace glow::files {
namespace {

using plans::FoundOpening;

constexpr double kBoxHeight = 0.75;  // m
constexpr const char* kFinish = "reflectance = 0.5                     # assumed\n";

std::string bottom_text(const ImportedFloor& floor, double bottom) {
  return bottom > 1e-3 ? "bottom = " + floor.lengths(bottom) + "\n" : std::string();
}

std::string shape_text(const ImportedFloor& floor, const plans::FoundObject& object) {
  const auto& typical = typical_furniture();
  const auto kind = typical.find(object.furniture);
  const auto rectangle = as_rectangle(object.footprint);
  const double usual =
      kind != typical.end() && kind->second.size.z() > 0 ? kind->second.size.z() : kBoxHeight;
  const double top = object.top_m.value_or(usual), bottom = object.bottom_m.value_or(0);
  if (!rectangle)
    return fmt::format(FMT_STRING("block = {}\n{}top = {}\n"), floor.lengths(object.footprint),
                       bottom_text(floor, bottom), floor.lengths(top)) +
           kFinish;
  std::string text;
  if (kind != typical.end())
    text = fmt::format(FMT_STRING("furniture = {}\nsize = [{}, {}, {}]\n"), toml_quoted(object.furniture),
                       floor.lengths(rectangle->size.x()), floor.lengths(rectangle->size.y()),
                       floor.lengths(top));
  else
    text = fmt::format(FMT_STRING("box = [{}, {}, {}]\n"), floor.lengths(rectangle->size.x()),
                       floor.lengths(rectangle->size.y()), floor.lengths(top - bottom));
  text += fmt::format(FMT_STRING("at = [{}, {}{}]\n"), floor.lengths(rectangle->at.x()),
                      floor.lengths(rectangle->at.y()), bottom > 1e-3 ? ", " + floor.lengths(bottom) : "");
  if (std::abs(rectangle->turn_deg) > 1e-6) text += "rotation = " + toml_number(rectangle->turn_deg) + "\n";
  return kind != typical.end() ? text : text + kFinish;
}

std::string glass_text(const std::optional<double>& transmittance) {
  return transmittance ? "transmittance = " + toml_number(*transmittance) + "\n" : std::string();
}

std::string ceiling_text(const ImportedFloor& floor, const plans::FoundCeiling& part) {
  if (!part.over.empty())
    return fmt::format(FMT_STRING("\n[[rooms.ceiling]]\nheight = {}\nover = {}\n"),
                       floor.lengths(part.height_m), floor.lengths(part.over));
  const auto point = [&](const Vec2& p) {
    return "[" + floor.lengths(p.x()) + ", " + floor.lengths(p.y()) + "]";
  };
  return fmt::format(FMT_STRING("\n[[rooms.ceiling]]\nfrom = {}\nheight = {}\nto = {}\nto_height = {}\n"),
                     point(part.from), floor.lengths(part.height_m), point(part.to),
                     floor.lengths(part.to_height_m));
}

}  // namespace

std::string UniqueNames::unique(const std::string& wanted) {
  std::string name = wanted;
  for (int n = 2; !taken_.insert(model::file_name_part(name)).second; ++n)
    name = wanted + " " + std::to_string(n);
  return name;
}

std::string drawn_word(const std::string& drawn) {
  return drawn.empty() ? std::string("-") : drawn;
}

const char* kind_word(FoundOpening::Kind kind) {
  switch (kind) {
    case FoundOpening::Kind::door:
      return "door";
    case FoundOpening::Kind::window:
      return "window";
    case FoundOpening::Kind::gap:
      break;
  }
  return "opening";
}

std::optional<Rectangle> as_rectangle(const geometry::Polygon& p) {
  if (p.size() != 4) return std::nullopt;
  const Vec2 a = p[1] - p[0], b = p[2] - p[1], c = p[3] - p[2];
  constexpr double kSquare = 1e-3;
  if (std::abs(a.normalized().dot(b.normalized())) > kSquare || (a + c).norm() > kSquare) return std::nullopt;
  Rectangle found{p[0], {a.norm(), b.norm()}, std::atan2(a.y(), a.x()) * 180 / M_PI};
  std::size_t first = 0;
  if (found.size.x() < found.size.y() - kSquare) {  // along its longer side
    first = 1;
    found = {p[1], {b.norm(), a.norm()}, std::atan2(b.y(), b.x()) * 180 / M_PI};
  }
  const double turn = found.turn_deg;
  if (turn > 135 || turn <= -45) {  // the other way round, where that turns less
    const std::size_t other = (first + 2) % 4;
    found.at = p[other];
    found.turn_deg = turn > 0 ? turn - 180 : turn + 180;
  }
  return found;
}

std::string opening_text(const ImportedFloor& floor, const FoundOpening& opening, UniqueNames& names,
                         const std::vector<std::string>& rooms) {
  const double room_height = floor.floor.height_m.value_or(kUsualHeight);
  const std::string kind = kind_word(opening.kind);
  const std::string behind = opening.leads_to >= 0 ? rooms[std::size_t(opening.leads_to)] : std::string();
  const bool is_window = opening.kind == FoundOpening::Kind::window;
  const double sill = opening.sill_m.value_or(is_window ? std::min(kSill, room_height / 3) : 0);
  const double usual = std::min(is_window ? kWindowHeight : kDoorHeight, room_height - sill - 0.01);
  std::string text = "\n[[rooms.openings]]\nname = " +
                     toml_quoted(names.unique(behind.empty() ? kind : kind + " to " + behind)) +
                     "\nkind = \"" + kind + "\"\n";
  text += "drawn = " + toml_quoted(drawn_word(opening.drawn)) + "\n";
  if (!behind.empty()) text += "outside = false\n";
  text += fmt::format(FMT_STRING("wall = {}\nfrom = {}\nwidth = {}\n"), opening.edge + 1,
                      floor.lengths(opening.from_m), floor.lengths(opening.width_m));
  if (sill > 0) text += "sill = " + floor.lengths(sill) + "\n";
  text += "height = " + floor.lengths(opening.height_m.value_or(usual)) + "\n";
  return text + glass_text(opening.transmittance);
}

std::string roof_opening_text(const ImportedFloor& floor, const plans::FoundRoofOpening& opening,
                              UniqueNames& names) {
  std::string text = fmt::format(
      FMT_STRING(
          "\n[[rooms.openings]]\nname = {}\nkind = \"roof window\"\ndrawn = {}\nat = [{}, {}]\nwidth = "
          "{}\nlength = {}\n"),
      toml_quoted(names.unique("roof window")), toml_quoted(drawn_word(opening.drawn)),
      floor.lengths(opening.at.x()), floor.lengths(opening.at.y()), floor.lengths(opening.size.x()),
      floor.lengths(opening.size.y()));
  if (std::abs(opening.rotation_deg) > 1e-6) text += "rotation = " + toml_number(opening.rotation_deg) + "\n";
  return text + glass_text(opening.transmittance);
}

std::vector<plans::FoundObject> things_in(const plans::FoundPlan& plan, std::size_t room) {
  std::vector<plans::FoundObject> things;
  for (const geometry::Polygon& pier : plan.rooms[room].holes)
    things.push_back({{}, {}, true, pier, int(room)});
  for (const plans::FoundObject& object : plan.objects)
    if (object.room == int(room)) things.push_back(object);
  return things;
}

std::string luminaire_text(const ImportedFloor& floor, const plans::FoundLuminaire& luminaire) {
  std::string text = fmt::format(FMT_STRING("\n[[rooms.luminaires]]\nmark = {}\ndrawn = {}\nat = [{}, {}]\n"),
                                 toml_quoted(luminaire.mark), toml_quoted(drawn_word(luminaire.drawn)),
                                 floor.lengths(luminaire.at.x()), floor.lengths(luminaire.at.y()));
  if (std::abs(luminaire.rotation_deg) > 1e-6)
    text += "rotation = " + toml_number(luminaire.rotation_deg) + "\n";
  if (luminaire.height_m) text += "mounting_height = " + floor.lengths(*luminaire.height_m) + "\n";
  return text;
}

std::string object_text(const ImportedFloor& floor, const plans::FoundObject& object, UniqueNames& names) {
  std::string called = object.is_column && object.block.empty() ? "pier"
                       : object.is_column                       ? "column"
                       : object.furniture.empty()               ? object.block
                                                                : object.furniture;
  if (model::file_name_part(called).empty()) called = "object";
  std::string text = "\n[[rooms.objects]]\nname = " + toml_quoted(names.unique(called)) + "\n";
  text += "drawn = " + toml_quoted(drawn_word(object.drawn)) + "\n";
  if (object.is_column)
    return text + "block = " + floor.lengths(object.footprint) + "\n" +
           bottom_text(floor, object.bottom_m.value_or(0)) +
           "top = " + floor.lengths(object.top_m.value_or(floor.floor.height_m.value_or(kUsualHeight))) +
           "\n" + kFinish;
  return text + shape_text(floor, object);
}

bool has_own_height(const plans::FoundRoom& room, const ImportedFloor& floor) {
  return room.height_m && std::abs(*room.height_m - floor.floor.height_m.value_or(kUsualHeight)) > 1e-3;
}

std::string room_text(const ImportedFloor& floor, std::size_t number_of_room,
                      const std::vector<std::string>& names, const ProposeTask& propose) {
  const plans::FoundRoom& room = floor.plan.rooms[number_of_room];
  std::string text = "\n[[rooms]]\nname = " + toml_quoted(names[number_of_room]) + "\n";
  if (!room.number.empty()) text += "number = " + toml_quoted(room.number) + "\n";
  text += "floor = " + toml_quoted(floor.floor.name) + "\n";
  text += "drawn = " + toml_quoted(drawn_word(room.drawn)) + "\n";
  text += "outline = " + floor.lengths(room.outline) + "\n";
  if (has_own_height(room, floor)) text += "height = " + floor.lengths(*room.height_m) + "\n";
  const ProposedTask task = propose(room.name);
  if (!task.key.empty())
    text += "task = { proposed = " + toml_quoted(task.key) + " }   # " + task.words + "\n";
  for (const std::string& finish : room.finishes) text += "# of the model, to confirm: " + finish + "\n";
  UniqueNames openings, objects;
  for (const plans::FoundCeiling& part : room.ceiling) text += ceiling_text(floor, part);
  for (const FoundOpening& opening : room.openings) text += opening_text(floor, opening, openings, names);
  for (const plans::FoundRoofOpening& opening : room.roof_openings)
    text += roof_opening_text(floor, opening, openings);
  for (const plans::FoundObject& object : things_in(floor.plan, number_of_room))
    text += object_text(floor, object, objects);
  for (const plans::FoundLuminaire& luminaire : floor.plan.luminaires)
    if (luminaire.room == int(number_of_room)) text += luminaire_text(floor, luminaire);
  return text;
}

}  // namespace glow::files
