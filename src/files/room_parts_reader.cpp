#include "files/room_parts_reader.hpp"

#include <fmt/format.h>

namespace glow::files {
namespace {

using units::Dimension;

constexpr Range kShare{0, 1};
constexpr Range kLength{0, 2000, true};
constexpr Range kHeight{0, 200};
constexpr Range kAlong{0, 2000};
constexpr Range kAngle{-3600, 3600};
constexpr int kMostWalls = 2000;
constexpr double kUsualReflectance = 0.5;

geometry::Material read_shares(TomlTable& table) {
  geometry::Material material;
  const auto share = [&](const char* key, double& value) {
    if (const auto given = table.quantity(key, Dimension::ratio, kShare)) value = *given;
  };
  share("reflectance", material.diffuse);
  share("mirror", material.mirror);
  share("transmittance", material.clear);
  share("scattering", material.scattering);
  const double sum = material.diffuse + material.mirror + material.clear + material.scattering;
  if (sum > 0.995)
    table.problems().error(
        "P031", table.place(),
        fmt::format(FMT_STRING("reflectance, mirror, transmittance and scattering add up to {:.3f}; expected "
                               "at most 0.995: every surface keeps some of the light"),
                    sum));
  return material;
}

/// By `material` = a name, or `reflectance` = a number; nothing when neither is there or the name is unknown.
std::optional<geometry::Material> read_material(TomlTable& table, const Materials& materials) {
  const auto name = table.text("material");
  const auto reflectance = table.quantity("reflectance", Dimension::ratio, Range{0, 0.98});
  if (name && reflectance)
    table.problems().error("P007", table.place_of("material"),
                           "both \"material\" and \"reflectance\" are given; keep one of them");
  if (name) {
    const auto found = materials.find(*name);
    if (found != materials.end()) return found->second;
    std::vector<std::string> names;
    for (const auto& [known, material] : materials) names.push_back(known);
    const std::string near = nearest_word(*name, names);
    table.problems().error(
        "P030", table.place_of("material"),
        fmt::format(FMT_STRING("unknown material \"{}\"; {}"), *name,
                    near.empty() ? std::string("expected one of the [materials.NAME] tables")
                                 : fmt::format(FMT_STRING("did you mean \"{}\"?"), near)));
  }
  if (!reflectance) return std::nullopt;
  geometry::Material material;
  material.diffuse = *reflectance;
  return material;
}

void read_placed(TomlTable& table, model::Object& object) {
  object.at = table.spot("at", Need::required).value_or(Vec3::Zero());
  object.rotation_deg = table.quantity("rotation", Dimension::angle, kAngle).value_or(0);
}

bool positive(TomlTable& table, const char* key, double least) {
  if (least > 0) return true;
  table.problems().error("P005", table.place_of(key),
                         fmt::format(FMT_STRING("\"{}\" holds a length of 0 or less; expected lengths above "
                                                "0 m"),
                                     key));
  return false;
}

bool read_shape(TomlTable& table, model::Object& object) {
  const int shapes = int(table.has("box")) + int(table.has("panel")) + int(table.has("block"));
  if (shapes != 1) {
    table.problems().error("P007", table.place(),
                           "an object needs exactly one of \"box\" = [x, y, z], \"panel\" = [width, height] "
                           "and \"block\" = [[x, y], ...]");
    for (const char* key : {"box", "panel", "block", "at", "rotation", "bottom", "top"}) table.skip(key);
    return false;
  }
  if (table.has("box")) {
    read_placed(table, object);
    const auto size = table.spot("box");
    if (!size || !positive(table, "box", size->minCoeff())) return false;
    object.size = *size;
  } else if (table.has("panel")) {
    read_placed(table, object);
    object.shape = model::ObjectShape::panel;
    const auto size = table.point("panel");
    if (!size || !positive(table, "panel", size->minCoeff())) return false;
    object.size = {size->x(), 0, size->y()};
  } else {
    object.shape = model::ObjectShape::block;
    const auto outline = table.points("block");
    object.bottom_m = table.quantity("bottom", Dimension::length, kHeight).value_or(0);
    object.top_m = table.quantity("top", Dimension::length, kHeight, Need::required).value_or(0);
    if (!outline) return false;
    object.outline = *outline;
    if (const auto fault = geometry::fault_of_outline(object.outline)) {
      table.problems().error(
          "P013", table.place_of("block"),
          fmt::format(FMT_STRING("the outline of \"{}\" is not a simple polygon: {}"), object.name, *fault));
      return false;
    }
    if (table.has("top") && object.top_m <= object.bottom_m) {
      table.problems().error("P005", table.place_of("top"),
                             fmt::format(FMT_STRING("\"top\" is {:.2f} m and \"bottom\" {:.2f} m; expected "
                                                    "top above bottom"),
                                         object.top_m, object.bottom_m));
      return false;
    }
  }
  return true;
}

}  // namespace

Materials read_materials(TomlTable& root) {
  Materials materials;
  for (auto& [name, table] : root.named_tables("materials")) {
    materials[name] = read_shares(table);
    table.finish();
  }
  return materials;
}

std::vector<model::Object> read_objects(TomlTable& room, const Materials& materials) {
  std::vector<model::Object> objects;
  for (TomlTable& table : room.tables("objects")) {
    model::Object object;
    object.place = table.place();
    object.name = table.text("name", Need::required).value_or("");
    const bool shaped = read_shape(table, object);
    const auto material = read_material(table, materials);
    object.material.diffuse = kUsualReflectance;
    if (material)
      object.material = *material;
    else if (!table.has("material"))
      table.problems().warning("P032", object.place,
                               fmt::format(FMT_STRING("\"{}\" has no reflectance and no material; assumed "
                                                      "reflectance {}"),
                                           object.name, kUsualReflectance));
    object.material.two_sided = object.shape == model::ObjectShape::panel;
    table.finish();
    if (shaped) objects.push_back(std::move(object));
  }
  return objects;
}

std::vector<model::Opening> read_openings(TomlTable& room, const Materials& materials) {
  std::vector<model::Opening> openings;
  for (TomlTable& table : room.tables("openings")) {
    model::Opening opening;
    opening.place = table.place();
    opening.name = table.text("name", Need::required).value_or("");
    opening.wall = table.count("wall", 1, kMostWalls, Need::required).value_or(1);
    opening.from_m = table.quantity("from", Dimension::length, kAlong, Need::required).value_or(0);
    opening.sill_m = table.quantity("sill", Dimension::length, kHeight).value_or(0);
    opening.size.x() = table.quantity("width", Dimension::length, kLength, Need::required).value_or(1);
    opening.size.y() = table.quantity("height", Dimension::length, kLength, Need::required).value_or(1);
    opening.pane = read_material(table, materials);
    table.finish();
    openings.push_back(std::move(opening));
  }
  return openings;
}

std::vector<model::CeilingSlope> read_ceiling(TomlTable& room) {
  std::vector<model::CeilingSlope> slopes;
  for (TomlTable& table : room.tables("ceiling")) {
    model::CeilingSlope slope;
    slope.place = table.place();
    const auto from = table.point("from", Need::required), to = table.point("to", Need::required);
    slope.height_m = table.quantity("height", Dimension::length, kHeight, Need::required).value_or(0);
    slope.to_height_m = table.quantity("to_height", Dimension::length, kHeight, Need::required).value_or(0);
    table.finish();
    if (!from || !to) continue;
    slope.from = *from;
    slope.to = *to;
    if ((*to - *from).norm() > 1e-3) {
      slopes.push_back(slope);
      continue;
    }
    table.problems().error("P005", table.place_of("to"),
                           "\"from\" and \"to\" are the same point; expected the direction in which the "
                           "ceiling rises");
  }
  return slopes;
}

}  // namespace glow::files
