#include "files/project/room/views_reader.hpp"

#include <fmt/format.h>

#include <set>

#include "core/model/file_names.hpp"
#include "files/project/ranges.hpp"

namespace glow::files {
namespace {

using Kind = model::ViewWish::Kind;
using units::Dimension;

constexpr Range kOpeningAngle{1, 150};
constexpr double kFewestPixels = 16, kMostPixels = 8192;

/// A point, or the name of something.
void read_end(TomlTable& table, const char* key, std::optional<Vec3>& at, std::string& name, Place& place) {
  place = table.place_of(key);
  if (table.is_list(key))
    at = table.position(key);
  else
    name = table.text(key).value_or("");
}

void read_size(TomlTable& table, model::ViewWish& wish) {
  const auto size = table.numbers("size", 2, kFewestPixels, kMostPixels);
  if (!size) return;
  wish.columns = int((*size)[0] + 0.5);
  wish.rows = int((*size)[1] + 0.5);
}

/// Keys that say nothing about a picture of this kind.
void refuse_idle_keys(TomlTable& table, const model::ViewWish& wish) {
  const bool from_an_eye = wish.kind == Kind::perspective || wish.kind == Kind::panorama;
  const auto refuse = [&](const char* key, bool speaks, const char* instead) {
    if (!speaks && table.has(key))
      table.problems().error("P007", table.place_of(key),
                             fmt::format(FMT_STRING("\"{}\" says nothing about a {} view; {}"), key,
                                         to_string(wish.kind), instead));
  };
  refuse("from", from_an_eye, "take it out, or make it a perspective");
  refuse("to", from_an_eye || wish.kind == Kind::elevation, "take it out, or make it a perspective");
  refuse("angle", wish.kind == Kind::perspective, "it takes in all there is");
  refuse("azimuth", wish.kind == Kind::cutaway, "it tells where a cutaway is looked at from");
}

std::optional<model::ViewWish> read_view(TomlTable& table) {
  model::ViewWish wish;
  wish.place = table.place();
  wish.name = table.text("name", Need::required).value_or("");
  const std::string kind = table.text("kind").value_or("perspective");
  const auto known = model::view_kind(kind);
  if (known)
    wish.kind = *known;
  else
    table.problems().error("P005", table.place_of("kind"),
                           fmt::format(FMT_STRING("\"kind\" is \"{}\"; expected perspective, plan, "
                                                  "elevation, cutaway or panorama"),
                                       kind));
  read_end(table, "from", wish.from_at, wish.from, wish.from_place);
  read_end(table, "to", wish.to_at, wish.to, wish.to_place);
  wish.angle_deg = table.quantity("angle", Dimension::angle, kOpeningAngle);
  wish.azimuth_deg = table.quantity("azimuth", Dimension::angle, range::kAngle);
  read_size(table, wish);
  if (known) refuse_idle_keys(table, wish);
  if (wish.kind == Kind::elevation && wish.to.empty())
    table.problems().error("P004", wish.place, "an elevation needs \"to\", the name of a wall");
  table.finish();
  if (!known) return {};
  return wish;
}

}  // namespace

void read_views(TomlTable& table, model::Room& room) {
  std::set<std::string> names;
  for (TomlTable& view : table.tables("views")) {
    std::optional<model::ViewWish> read = read_view(view);
    if (!read) continue;
    model::ViewWish& wish = *read;
    const std::string part = model::file_name_part(wish.name);
    if (!wish.name.empty() && part.empty())
      table.problems().error(
          "P008", wish.place,
          fmt::format(FMT_STRING("view name \"{}\" has no letter or digit to name its files by"), wish.name));
    else if (!wish.name.empty() && !names.insert(part).second)
      table.problems().error("P008", wish.place,
                             fmt::format(FMT_STRING("two views are called \"{}\", or would write the same "
                                                    "files; give one another name"),
                                         wish.name));
    room.views.push_back(std::move(wish));
  }
}

}  // namespace glow::files
