#include "core/plans/models/take_model.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "core/plans/models/model_bodies.hpp"
#include "core/plans/models/model_openings.hpp"
#include "core/plans/models/room_of_shell.hpp"
#include "core/plans/outlines.hpp"
#include "core/plans/take_plan.hpp"

namespace glow::plans {
namespace {

constexpr double kSameLevel = 0.02, kOtherLevel = 0.5;  // m
constexpr double kLargestRoom = 2000;                   // m

/// A message that begins with what it is about.
std::string about(const char* what, const Entity& entity, const std::string& words) {
  std::string text = what;
  if (!entity.word.empty()) text += " " + entity.word;
  if (!entity.name.empty()) text += " \"" + entity.name + "\"";
  return text + words;
}

/// The storey of a space that names none: the highest that lies no higher than its floor.
int storey_by_height(const Model& model, double z) {
  int best = -1;
  for (std::size_t s = 0; s < model.storeys.size(); ++s) {
    const double there = model.storeys[s].z_m;
    if (there <= z + kOtherLevel && (best < 0 || there > model.storeys[std::size_t(best)].z_m)) best = int(s);
  }
  return best < 0 && !model.storeys.empty() ? 0 : best;
}

class ModelTaker {
 public:
  ModelTaker(Model model, const Frame& frame) : model_(std::move(model)), frame_(frame) {}

  TakenModel take() {
    taken_.site = model_.site;
    taken_.doubts = model_.doubts;
    if (model_.spaces.empty()) take_spaces_from_walls();
    if (model_.storeys.empty()) model_.storeys.push_back({{{}, "Building", {}, 0}, 0, lowest()});
    check_levels();
    for (std::size_t k = 0; k < model_.spaces.size(); ++k) shape_space(k);
    std::vector<std::size_t> order(model_.storeys.size());
    for (std::size_t s = 0; s < order.size(); ++s) order[s] = s;
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
      return model_.storeys[a].level_m < model_.storeys[b].level_m;
    });
    placed_.assign(model_.openings.size(), false);
    for (const std::size_t s : order) take_storey(s);
    tell_openings();
    hand_out_doubts();
    taken_.neighbours = neighbours_of(
        model_, frame_, model_.storeys.front().z_m - model_.storeys.front().level_m, taken_.doubts);
    return std::move(taken_);
  }

 private:
  void take_spaces_from_walls() {
    model_.spaces = spaces_between_walls(model_);
    taken_.doubts.push_back(
        {"no-spaces",
         model_.spaces.empty()
             ? "the model has no spaces, and its walls enclose none; have it exported with its spaces"
             : "the model has no spaces; rooms are what its walls enclose, without names. Better have it "
               "exported "
               "with its spaces",
         Vec2::Zero(), false});
  }

  double lowest() const {
    double z = HUGE_VAL;
    for (const ModelSpace& space : model_.spaces) {
      if (space.floor) z = std::min(z, space.floor_z);
      for (const Shell& shell : space.shells) z = std::min(z, box_of(shell).low.z());
    }
    return std::isfinite(z) ? z : 0;
  }

  /// Storeys that lie apart by other heights than they state.
  void check_levels() {
    const ModelStorey& first = model_.storeys.front();
    for (const ModelStorey& storey : model_.storeys) {
      const double stated = storey.level_m - first.level_m, lies = storey.z_m - first.z_m;
      if (std::abs(stated - lies) > kSameLevel)
        doubt(-1, "storey-level", storey.entity,
              about("storey", storey.entity,
                    fmt::format(
                        FMT_STRING(" states a level of {:.2f} m and lies at {:.2f} m; the stated one was "
                                   "taken"),
                        storey.level_m, first.level_m + lies)));
    }
  }

  void shape_space(std::size_t k) {
    ModelSpace& space = model_.spaces[k];
    if (space.outdoors) return;
    std::optional<RoomShape> shape = space.shells.empty() ? std::nullopt : room_of(space.shells);
    if (!shape && space.floor) {
      RoomShape flat;
      flat.outline = tidy_outline(space.floor->outline);
      for (const geometry::Polygon& hole : space.floor->holes) flat.holes.push_back(tidy_outline(hole));
      flat.floor_z = space.floor_z;
      flat.height_m = space.height_m.value_or(0);
      if (flat.outline.size() > 2 && geometry::signed_area(flat.outline) > 0.05) shape = std::move(flat);
      if (shape && !space.height_m)
        doubt(space.storey, "no-height", space.entity,
              about("space", space.entity, " has a floor and no height; a usual one was assumed"));
    }
    const std::string on = space.storey < 0 ? "" : " on storey \"" + storey_name(space.storey) + "\"";
    if (!shape)
      return doubt(space.storey, "no-shape", space.entity,
                   about("space", space.entity, on + " has no shape that could be a room; it is left out"));
    const Vec2 middle = laid(mean_point(shape->outline));
    const Vec2 size = geometry::bounding_box(shape->outline).size();
    if (size.maxCoeff() > kLargestRoom)
      return doubt(
          space.storey, "too-large", space.entity,
          about("space", space.entity,
                fmt::format(FMT_STRING(" is {:.0f} x {:.0f} m large, more than {:.0f} m; it is left out"),
                            size.x(), size.y(), kLargestRoom)),
          middle);
    if (shape->outline.size() > kMostCorners)
      return doubt(
          space.storey, "too-many-corners", space.entity,
          about("space", space.entity,
                fmt::format(FMT_STRING(" has an outline of {} corners, more than {}; it is left out"),
                            shape->outline.size(), kMostCorners)),
          middle);
    if (geometry::fault_of_outline(shape->outline))
      return doubt(space.storey, "self-crossing", space.entity,
                   about("space", space.entity, on + " has an outline that crosses itself; it is left out"),
                   middle);
    if (space.storey < 0) {
      space.storey = storey_by_height(model_, shape->floor_z);
      doubt(space.storey, "no-storey", space.entity,
            about("space", space.entity,
                  fmt::format(FMT_STRING(" belongs to no storey; it was put on \"{}\", where it lies"),
                              storey_name(space.storey))),
            middle);
    }
    const double above = shape->floor_z - model_.storeys[std::size_t(space.storey)].z_m;
    if (std::abs(above) > kOtherLevel)
      doubt(space.storey, "storey-level", space.entity,
            about("space", space.entity,
                  fmt::format(FMT_STRING(" lies {:.2f} m {} its storey \"{}\""), std::abs(above),
                              above > 0 ? "above" : "below", storey_name(space.storey))),
            middle);
    for (const auto& [code, words] : shape->doubts)
      doubt(space.storey, code.c_str(), space.entity, about("space", space.entity, ": " + words), middle);
    shapes_[k] = std::move(*shape);
  }

  std::string storey_name(int storey) const { return model_.storeys[std::size_t(storey)].entity.name; }

  /// The rooms of a storey in reading order, in the file's coordinates.
  std::vector<PlacedRoom> rooms_of(std::size_t storey) {
    std::vector<PlacedRoom> rooms;
    std::vector<geometry::Polygon> outlines;
    for (const auto& [k, shape] : shapes_) {
      const ModelSpace& space = model_.spaces[k];
      if (space.storey != int(storey)) continue;
      PlacedRoom placed;
      placed.space = k;
      placed.floor_z = shape.floor_z;
      FoundRoom& room = placed.room;
      room.name = space.entity.name;
      room.number = space.number;
      room.drawn = space.entity.id;
      room.outline = shape.outline;
      room.holes = shape.holes;
      if (shape.height_m > 0) room.height_m = shape.height_m;
      room.ceiling = shape.ceiling;
      outlines.push_back(laid(shape.outline));
      rooms.push_back(std::move(placed));
    }
    std::vector<PlacedRoom> ordered;
    for (const std::size_t k : reading_order(outlines)) ordered.push_back(std::move(rooms[k]));
    return ordered;
  }

  void tell_overlaps(const std::vector<PlacedRoom>& rooms) {
    constexpr double kWorthTelling = 0.02;  // m2
    for (std::size_t a = 0; a < rooms.size(); ++a)
      for (std::size_t b = a + 1; b < rooms.size(); ++b) {
        const double top_a = rooms[a].floor_z + rooms[a].room.height_m.value_or(2),
                     top_b = rooms[b].floor_z + rooms[b].room.height_m.value_or(2);
        if (std::min(top_a, top_b) - std::max(rooms[a].floor_z, rooms[b].floor_z) < 0.1) continue;
        const double shared = shared_area(rooms[a].room.outline, rooms[b].room.outline);
        if (shared < kWorthTelling) continue;
        const Entity &one = model_.spaces[rooms[a].space].entity, &two = model_.spaces[rooms[b].space].entity;
        doubt(model_.spaces[rooms[b].space].storey, "spaces-overlap", two,
              about("space", one,
                    fmt::format(FMT_STRING(" and{} overlap by {:.2f} m2; both were taken"),
                                about("", two, ""), shared)),
              laid(mean_point(rooms[b].room.outline)));
      }
  }

  void take_storey(std::size_t s) {
    std::vector<PlacedRoom> rooms = rooms_of(s);
    if (rooms.empty()) return;
    tell_overlaps(rooms);
    const std::vector<bool> placed = place_model_openings(model_.openings, rooms);
    for (std::size_t k = 0; k < placed.size(); ++k) placed_[k] = placed_[k] || placed[k];
    TakenStorey storey;
    storey.name = storey_name(int(s));
    storey.level_m = model_.storeys[s].level_m;
    std::vector<RoomPlace> places;
    std::vector<double> heights;
    for (const PlacedRoom& room : rooms) {
      const double height = room.room.height_m.value_or(0);
      places.push_back({&room.room.outline, room.floor_z, height > 0 ? height : 2.5});
      if (height > 0) heights.push_back(height);
    }
    if (!heights.empty()) {
      std::sort(heights.begin(), heights.end());
      storey.height_m = heights[heights.size() / 2];
    }
    add_objects(model_, places, storey.plan);
    add_lights(rooms, storey.plan);
    for (std::size_t r = 0; r < rooms.size(); ++r) rooms[r].room.finishes = finishes_of(model_, places[r]);
    for (PlacedRoom& room : rooms) storey.plan.rooms.push_back(std::move(room.room));
    for (const OpenEdge& leak : model_.leaks)
      storey.plan.open_edges.push_back({leak.from.xy(), leak.to.xy()});
    draw_bodies(model_, int(s), storey.drawing);
    for (const ModelKind& kind : model_.kinds) {
      storey.drawing.layers.push_back({kind.name, kind.name, false, false, kind.count});
      storey.looked_at.push_back(kind.looked_at);
    }
    lay(storey);
    numbers_[int(s)] = taken_.storeys.size();
    taken_.storeys.push_back(std::move(storey));
  }

  void add_lights(const std::vector<PlacedRoom>& rooms, FoundPlan& plan) const {
    for (const ModelLight& light : model_.lights)
      for (std::size_t r = 0; r < rooms.size(); ++r) {
        const double height = light.at.z() - rooms[r].floor_z;
        if (height < 0 || height > rooms[r].room.height_m.value_or(3) + 0.3 ||
            !geometry::contains(rooms[r].room.outline, light.at.xy()))
          continue;
        plan.luminaires.push_back({light.type, light.at.xy(), light.rotation_deg, int(r), light.entity.id,
                                   std::min(height, rooms[r].room.height_m.value_or(3))});
        break;
      }
  }

  /// `at`: in the building's metres.
  void doubt(int storey, const char* code, const Entity& entity, std::string text,
             const std::optional<Vec2>& at = std::nullopt) {
    collected_.emplace_back(
        storey, Doubt{code, std::move(text), at.value_or(Vec2::Zero()), at.has_value(), {}, entity.line});
  }

  /// To the storey that each is about, where that has rooms.
  void hand_out_doubts() {
    for (auto& [storey, doubt] : collected_) {
      const auto taken = numbers_.find(storey);
      std::vector<Doubt>& list =
          taken == numbers_.end() ? taken_.doubts : taken_.storeys[taken->second].plan.doubts;
      list.push_back(std::move(doubt));
    }
  }

  Vec2 laid(const Vec2& p) const { return frame_.to_metres(p); }
  geometry::Polygon laid(geometry::Polygon polygon) const {
    for (Vec2& p : polygon) p = frame_.to_metres(p);
    return polygon;
  }

  /// Puts the storey where the frame has it.
  void lay(TakenStorey& storey) const {
    const bool moved = frame_.rotate_deg != 0 || frame_.origin.norm() > 0;
    if (!moved) return;
    for (FoundRoom& room : storey.plan.rooms) {
      room.outline = laid(std::move(room.outline));
      for (geometry::Polygon& hole : room.holes) hole = laid(std::move(hole));
      for (FoundCeiling& part : room.ceiling) {
        part.from = frame_.to_metres(part.from);
        part.to = frame_.to_metres(part.to);
        part.over = laid(std::move(part.over));
      }
      for (FoundRoofOpening& opening : room.roof_openings) {
        opening.at = frame_.to_metres(opening.at);
        if (room.ceiling.empty()) opening.rotation_deg += frame_.rotate_deg;
      }
    }
    for (FoundObject& object : storey.plan.objects) object.footprint = laid(std::move(object.footprint));
    for (FoundLuminaire& luminaire : storey.plan.luminaires) {
      luminaire.at = frame_.to_metres(luminaire.at);
      luminaire.rotation_deg += frame_.rotate_deg;
    }
    for (Stroke& stroke : storey.drawing.strokes)
      for (Vec2& p : stroke.points) p = frame_.to_metres(p);
    for (Segment& edge : storey.plan.open_edges)
      edge = {frame_.to_metres(edge.from), frame_.to_metres(edge.to)};
  }

  void tell_openings() {
    for (std::size_t k = 0; k < model_.openings.size(); ++k) {
      const ModelOpening& opening = model_.openings[k];
      const char* what = opening.kind == FoundOpening::Kind::window ? "window"
                         : opening.kind == FoundOpening::Kind::door ? "door"
                                                                    : "opening";
      if (opening.body < 0 && opening.spaces.empty())
        doubt(opening.storey, "opening-without-wall", opening.entity,
              about(what, opening.entity,
                    placed_[k] ? " belongs to no wall; it was put in the one where it lies"
                               : " belongs to no wall and lies in none of a room; it was passed over"));
      else if (!placed_[k] && !opening.spaces.empty())
        doubt(opening.storey, "opening-without-room", opening.entity,
              about(what, opening.entity, " lies in no wall of its room; it was passed over"));
    }
  }

  Model model_;
  const Frame frame_;
  TakenModel taken_;
  std::map<std::size_t, RoomShape> shapes_;  ///< by space
  std::vector<bool> placed_;                 ///< by opening
  std::map<int, std::size_t> numbers_;       ///< of storeys that were taken, in `taken_`
  std::vector<std::pair<int, Doubt>> collected_;
};

}  // namespace

TakenModel take_model(Model model, const Frame& frame) {
  return ModelTaker(std::move(model), frame).take();
}

}  // namespace glow::plans
