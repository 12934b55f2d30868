#include "files/project/writers/room_update.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/plans/line_work.hpp"
#include "files/project/writers/room_writer.hpp"
#include "files/project/writers/toml_words.hpp"

namespace glow::files {
namespace {

using geometry::Polygon;
using plans::FoundOpening;
using plans::FoundRoom;

constexpr double kSame = 2e-4;  // m: what lies nearer was not moved

/// The same outline, wherever it begins.
bool is_same_outline(const Polygon& written, const Polygon& found) {
  if (written.size() != found.size()) return false;
  for (std::size_t shift = 0; shift < found.size(); ++shift)
    for (const bool backwards : {false, true}) {
      bool same = true;
      for (std::size_t k = 0; k < found.size() && same; ++k) {
        const std::size_t n = found.size(), other = backwards ? (shift + n - k) % n : (shift + k) % n;
        same = (written[k] - found[other]).norm() <= kSame;
      }
      if (same) return true;
    }
  return false;
}

std::string counted(int number, const char* what, const char* became) {
  return fmt::format(FMT_STRING("{} {}{} {}"), number, what, number == 1 ? "" : "s", became);
}

void add_words(std::string& words, const std::string& more) {
  words += (words.empty() ? "" : ", ") + more;
}

/// One room that is in the project and in the drawing.
class RoomUpdate {
 public:
  RoomUpdate(TomlText& text, const toml::table& table, const model::Room& room, const ImportedFloor& floor,
             std::size_t found, const std::vector<std::string>& names)
      : text_(text),
        table_(table),
        room_(room),
        floor_(floor),
        found_(floor.plan.rooms[found]),
        number_(int(found)),
        names_(names),
        outline_(room.outline) {}

  /// What was altered, in words; empty: nothing.
  std::string apply() {
    update_outline();
    update_height();
    update_openings();
    update_roof_openings();
    update_objects();
    update_luminaires();
    return words_;
  }

 private:
  void update_outline() {
    const toml::node* written = table_.get("outline");
    if (is_same_outline(outline_, found_.outline)) return;
    if (!written) return add_words(words_, "outline differs from its \"size\", which was kept");
    text_.replace(*written, floor_.lengths(found_.outline));
    const bool renumbered = outline_.size() != found_.outline.size();
    outline_ = found_.outline;
    add_words(words_, "outline");
    const bool has_own = std::any_of(room_.openings.begin(), room_.openings.end(),
                                     [](const model::Opening& opening) { return opening.drawn.empty(); }) ||
                         !room_.walls.empty();
    if (renumbered && has_own) add_words(words_, "walls are numbered anew: look at what you put on walls");
  }

  /// As models have it; a room that took its floor's height gets one of its own where it differs.
  void update_height() {
    if (!found_.height_m || std::abs(*found_.height_m - room_.height_m) <= 10 * kSame) return;
    add_words(words_, fmt::format(FMT_STRING("height {} m"), toml_number(*found_.height_m)));
    if (!found_.ceiling.empty() || !room_.ceiling.empty())
      add_words(words_, "look at the parts of its ceiling, which were kept");
    if (const toml::node* written = table_.get("height"))
      text_.replace(*written, floor_.lengths(*found_.height_m));
    else if (const toml::node* name = table_.get("name"))
      text_.replace(*name, toml_quoted(room_.name) + "\nheight = " + floor_.lengths(*found_.height_m));
  }

  const toml::node* table_in(const char* list, std::size_t number) const {
    const toml::array* tables = table_[list].as_array();
    return tables ? tables->get(number) : nullptr;
  }

  /// The edge of the outline as written that the stretch lies on; the outline's size: none.
  std::size_t edge_of(const plans::Segment& stretch) const {
    constexpr double kNear = 0.01;  // m
    for (std::size_t e = 0; e < outline_.size(); ++e) {
      const Vec2 a = outline_[e], b = outline_[(e + 1) % outline_.size()], way = (b - a).normalized();
      const auto off = [&](const Vec2& p) { return std::abs(plans::cross(way, p - a)); };
      const double first = way.dot(stretch.from - a), last = way.dot(stretch.to - a), length = (b - a).norm();
      if (off(stretch.from) < kNear && off(stretch.to) < kNear && std::min(first, last) > -kNear &&
          std::max(first, last) < length + kNear)
        return e;
    }
    return outline_.size();
  }

  /// The project's opening that is this one; nothing: it is new.
  std::optional<std::size_t> known_opening(const FoundOpening& opening, const plans::Segment& stretch,
                                           const std::vector<bool>& used) const {
    constexpr double kNear = 0.6, kNearOfSame = 3;  // m
    std::optional<std::size_t> best;
    double least = HUGE_VAL;
    for (std::size_t k = 0; k < room_.openings.size(); ++k) {
      const model::Opening& known = room_.openings[k];
      if (used[k] || known.drawn.empty() || known.in_roof || known.kind != kind_word(opening.kind)) continue;
      const plans::Segment there =
          plans::along_edge(room_.outline, std::size_t(wall_of(known) - 1), known.from_m, known.size.x());
      const double far = (there.middle() - stretch.middle()).norm();
      const bool same = known.drawn != "-" && known.drawn == drawn_word(opening.drawn);
      if (far < (same ? kNearOfSame : kNear) && far - (same ? 1 : 0) < least) {
        least = far - (same ? 1 : 0);
        best = k;
      }
    }
    return best;
  }

  int wall_of(const model::Opening& opening) const {
    for (const model::Wall& wall : room_.walls)
      if (!opening.wall_name.empty() && wall.name == opening.wall_name) return wall.number;
    return opening.wall;
  }

  void update_openings() {
    int moved = 0, added = 0;
    std::vector<bool> used(room_.openings.size(), false);
    UniqueNames names;
    for (const model::Opening& opening : room_.openings) names.unique(opening.name);
    for (const FoundOpening& found : found_.openings) {
      const plans::Segment stretch =
          plans::along_edge(found_.outline, found.edge, found.from_m, found.width_m);
      const auto known = known_opening(found, stretch, used);
      if (known) {
        used[*known] = true;
        const bool reached = move_opening(room_.openings[*known], table_in("openings", *known), stretch);
        moved += raise_opening(room_.openings[*known], table_in("openings", *known), found) || reached;
        continue;
      }
      FoundOpening fresh = found;
      place(fresh, stretch);
      text_.insert(text_.end_of(table_), opening_text(floor_, fresh, names, names_));
      ++added;
    }
    for (std::size_t k = 0; k < used.size(); ++k) used[k] = used[k] || room_.openings[k].in_roof;
    end_update(room_.openings, used, "openings", "opening", moved, added);
  }

  /// Sill and height, where the file says them.
  bool raise_opening(const model::Opening& known, const toml::node* node, const FoundOpening& found) {
    const toml::table* table = node ? node->as_table() : nullptr;
    if (!table || !found.height_m) return false;
    const double sill = found.sill_m.value_or(known.sill_m);
    const bool same_sill = std::abs(sill - known.sill_m) <= kSame;
    const bool same_height = std::abs(*found.height_m - known.size.y()) <= kSame;
    std::string words = floor_.lengths(*found.height_m);
    if (const toml::node* written = table->get("sill"); written && !same_sill)
      text_.replace(*written, floor_.lengths(sill));
    else if (!same_sill)
      words += "\nsill = " + floor_.lengths(sill);
    if (!same_height || words.size() > floor_.lengths(*found.height_m).size())
      text_.replace(*table->get("height"), words);
    return !same_sill || !same_height;
  }

  void update_roof_openings() {
    int moved = 0, added = 0;
    std::vector<bool> used;
    UniqueNames names;
    for (const model::Opening& opening : room_.openings) {
      used.push_back(!opening.in_roof);
      names.unique(opening.name);
    }
    for (const plans::FoundRoofOpening& found : found_.roof_openings) {
      const auto known = known_thing(room_.openings, used, found.at, found.drawn);
      if (!known) {
        text_.insert(text_.end_of(table_), roof_opening_text(floor_, found, names));
        ++added;
        continue;
      }
      used[*known] = true;
      const model::Opening& opening = room_.openings[*known];
      const toml::node* node = table_in("openings", *known);
      bool other = place_anew(opening.at, 0, opening.rotation_deg, node, found.at, found.rotation_deg);
      const toml::table* table = node ? node->as_table() : nullptr;
      if (table && (opening.size - found.size).cwiseAbs().maxCoeff() > kSame) {
        text_.replace(*table->get("width"), floor_.lengths(found.size.x()));
        text_.replace(*table->get("length"), floor_.lengths(found.size.y()));
        other = true;
      }
      moved += other;
    }
    end_update(room_.openings, used, "openings", "roof window", moved, added);
  }

  static Vec2 place_of(const model::Opening& opening) { return opening.at; }

  /// Along the outline as it is written.
  void place(FoundOpening& opening, const plans::Segment& stretch) const {
    const std::size_t edge = edge_of(stretch);
    if (edge == outline_.size()) return;
    const Vec2 a = outline_[edge], way = (outline_[(edge + 1) % outline_.size()] - a).normalized();
    opening.edge = edge;
    opening.from_m = std::max(0.0, std::min(way.dot(stretch.from - a), way.dot(stretch.to - a)));
  }

  bool move_opening(const model::Opening& known, const toml::node* node, const plans::Segment& stretch) {
    FoundOpening now;
    now.width_m = (stretch.to - stretch.from).norm();
    now.edge = std::size_t(wall_of(known) - 1);
    now.from_m = known.from_m;
    place(now, stretch);
    const bool same = int(now.edge) + 1 == wall_of(known) && std::abs(now.from_m - known.from_m) <= kSame &&
                      std::abs(now.width_m - known.size.x()) <= kSame;
    const toml::table* table = node ? node->as_table() : nullptr;
    if (same || !table) return false;
    if (int(now.edge) + 1 != wall_of(known)) text_.replace(*table->get("wall"), std::to_string(now.edge + 1));
    text_.replace(*table->get("from"), floor_.lengths(now.from_m));
    text_.replace(*table->get("width"), floor_.lengths(now.width_m));
    return true;
  }

  /// Where a thing stands, by what is written of it.
  static Vec2 place_of(const model::Object& object) {
    if (object.shape == model::ObjectShape::block) return plans::mean_point(object.outline);
    const double turn = object.rotation_deg * M_PI / 180;
    const Vec2 half = object.size.xy() / 2;
    return object.at.xy() + Vec2(std::cos(turn) * half.x() - std::sin(turn) * half.y(),
                                 std::sin(turn) * half.x() + std::cos(turn) * half.y());
  }

  /// The known thing that a found one is: of its drawn within a room's length, else as near as can be.
  /// Nothing: it is new.
  template <class Known>
  std::optional<std::size_t> known_thing(const std::vector<Known>& all, const std::vector<bool>& used,
                                         const Vec2& at, const std::string& drawn) const {
    constexpr double kNear = 0.3, kNearOfSame = 20;  // m
    std::optional<std::size_t> best;
    double least = HUGE_VAL;
    for (std::size_t k = 0; k < all.size(); ++k) {
      if (used[k] || all[k].drawn.empty()) continue;
      const double far = (place_of(all[k]) - at).norm();
      const bool same = all[k].drawn != "-" && all[k].drawn == drawn_word(drawn);
      const double rank = far - (same ? kNearOfSame : 0);
      if (far < (same ? kNearOfSame : kNear) && rank < least) {
        least = rank;
        best = k;
      }
    }
    return best;
  }

  /// Takes out what is no longer drawn, and says what became of things.
  template <class Known>
  void end_update(const std::vector<Known>& all, const std::vector<bool>& used, const char* list,
                  const char* what, int moved, int added) {
    int gone = 0;
    for (std::size_t k = 0; k < all.size(); ++k) {
      if (used[k] || all[k].drawn.empty()) continue;
      if (const toml::node* table = table_in(list, k)) text_.take_out(*table, true);
      ++gone;
    }
    if (moved) add_words(words_, counted(moved, what, "moved"));
    if (added) add_words(words_, counted(added, what, "new"));
    if (gone) add_words(words_, counted(gone, what, "gone"));
  }

  void update_objects() {
    int moved = 0, added = 0;
    std::vector<bool> used(room_.objects.size(), false);
    UniqueNames names;
    for (const model::Object& object : room_.objects) names.unique(object.name);
    for (const plans::FoundObject& found : things_in(floor_.plan, std::size_t(number_))) {
      const auto known = known_thing(room_.objects, used, plans::mean_point(found.footprint), found.drawn);
      if (known) {
        used[*known] = true;
        moved += move_object(room_.objects[*known], table_in("objects", *known), found);
      } else {
        text_.insert(text_.end_of(table_), object_text(floor_, found, names));
        ++added;
      }
    }
    end_update(room_.objects, used, "objects", "thing", moved, added);
  }

  static Vec2 place_of(const model::LuminairePlacement& placement) {
    return placement.at.value_or(Vec2::Constant(HUGE_VAL));
  }

  void update_luminaires() {
    int moved = 0, added = 0;
    std::vector<bool> used(room_.luminaires.size(), false);
    for (const plans::FoundLuminaire& found : floor_.plan.luminaires) {
      if (found.room != number_) continue;
      const auto known = known_thing(room_.luminaires, used, found.at, found.drawn);
      if (known) {
        used[*known] = true;
        const model::LuminairePlacement& placement = room_.luminaires[*known];
        moved += place_anew(place_of(placement), 0, placement.rotation_deg, table_in("luminaires", *known),
                            found.at, found.rotation_deg);
      } else {
        text_.insert(text_.end_of(table_), luminaire_text(floor_, found));
        ++added;
      }
    }
    end_update(room_.luminaires, used, "luminaires", "luminaire", moved, added);
  }

  /// Writes another "at" and "rotation", where they differ.
  bool place_anew(const Vec2& was, double z, double was_turned_deg, const toml::node* node, const Vec2& at,
                  double turned_deg) {
    constexpr double kSameTurn = 0.01;  // degrees
    const toml::table* table = node ? node->as_table() : nullptr;
    const toml::node* written = table ? table->get("at") : nullptr;
    const bool same_turn = std::abs(std::remainder(was_turned_deg - turned_deg, 360)) <= kSameTurn;
    if (!written || ((was - at).norm() <= 5 * kSame && same_turn)) return false;
    std::string words = "[" + floor_.lengths(at.x()) + ", " + floor_.lengths(at.y());
    if (z > 0) words += ", " + floor_.lengths(z);
    words += "]";
    const toml::node* turn = table->get("rotation");
    if (turn && !same_turn)
      text_.replace(*turn, toml_number(turned_deg));
    else if (!turn && std::abs(turned_deg) > kSameTurn)
      words += "\nrotation = " + toml_number(turned_deg);
    text_.replace(*written, words);
    return true;
  }

  bool move_object(const model::Object& known, const toml::node* node, const plans::FoundObject& found) {
    const toml::table* table = node ? node->as_table() : nullptr;
    if (!table) return false;
    if (known.shape == model::ObjectShape::block) {
      if (is_same_outline(known.outline, found.footprint)) return false;
      text_.replace(*table->get("block"), floor_.lengths(found.footprint));
      return true;
    }
    const auto rectangle = as_rectangle(found.footprint);
    return rectangle && place_anew(known.at.xy(), known.at.z(), known.rotation_deg, node, rectangle->at,
                                   rectangle->turn_deg);
  }

  TomlText& text_;
  const toml::table& table_;
  const model::Room& room_;
  const ImportedFloor& floor_;
  const FoundRoom& found_;
  const int number_;
  const std::vector<std::string>& names_;
  Polygon outline_;  ///< as it will be written
  std::string words_;
};

}  // namespace

std::string update_room(TomlText& text, const KnownRoom& known) {
  return RoomUpdate(text, known.table, known.room, known.floor, known.found, known.names).apply();
}

}  // namespace glow::files
