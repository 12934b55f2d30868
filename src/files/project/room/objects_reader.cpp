#include "files/project/room/objects_reader.hpp"

#include <fmt/format.h>

#include "files/project/ranges.hpp"
#include "files/project/room/typical_furniture.hpp"

namespace glow::files {
namespace {

using model::Object;
using model::ObjectShape;
using units::Dimension;

constexpr Range kHeightOutside{-1000, 1000};
constexpr Range kScale{1e-6, 1e6};
constexpr int kMostRepeats = 1000;
constexpr double kUsualReflectance = 0.5, kUsualOutside = 0.3;

constexpr std::array<const char*, 6> kShapeKeys = {"box", "panel", "block", "cylinder", "furniture", "mesh"};

constexpr const char* kFormerFurniture = "thing";

}  // namespace

model::MeshUse read_mesh_use(TomlTable& table) {
  model::MeshUse use;
  use.file = table.text("mesh").value_or("");
  use.place = table.place_of("mesh");
  if (table.is_text("scale")) {
    // A unit's name: how long one unit of the file is.
    const auto unit = table.text("scale");
    const units::Parsed parsed = units::parse_quantity("1 " + unit.value_or(""), Dimension::length);
    if (unit && !parsed.ok)
      table.problems().error("P006", table.place_of("scale"),
                             fmt::format(FMT_STRING("\"scale\" is \"{}\"; expected the file's unit (m, cm, "
                                                    "mm, ft, in) or a number"),
                                         *unit));
    use.scale = parsed.ok ? parsed.value : 1;
  } else {
    use.scale = table.quantity("scale", Dimension::ratio, kScale).value_or(1);
  }
  // The glTF standard fixes its axes; OBJ and STL come either way.
  const auto is_gltf = [&](const char* suffix) {
    const std::size_t length = std::string_view(suffix).size();
    return use.file.size() > length && use.file.compare(use.file.size() - length, length, suffix) == 0;
  };
  const std::string up = table.text("up").value_or(is_gltf(".gltf") || is_gltf(".glb") ? "y" : "z");
  if (up != "y" && up != "z")
    table.problems().error("P005", table.place_of("up"),
                           fmt::format(FMT_STRING("\"up\" is \"{}\"; expected \"y\" or \"z\""), up));
  use.z_up = up != "y";
  return use;
}

namespace {

class ObjectReader {
 public:
  ObjectReader(TomlTable& table, const Materials& materials, std::vector<std::string>& assumed,
               bool outside = false)
      : table_(table), materials_(materials), assumed_(assumed), outside_(outside) {}

  /// `state` is that of an obstruction.
  std::optional<Object> read(std::string* state = nullptr) {
    object_.place = table_.place();
    object_.name = table_.text("name", Need::required).value_or("");
    object_.drawn = table_.text("drawn").value_or("");
    const bool shaped = read_shape();
    read_repeat();
    settle_finish(shaped);
    if (state) *state = table_.text("state").value_or("");
    table_.finish();
    if (!shaped) return std::nullopt;
    return std::move(object_);
  }
  const std::string& name() const { return object_.name; }

 private:
  bool read_shape();
  bool read_box();
  bool read_panel();
  bool read_block();
  bool read_cylinder();
  bool read_furniture();
  bool read_mesh();
  void read_repeat();
  void settle_finish(bool shaped);
  bool read_place() {
    const auto at = table_.position("at", Need::required);
    object_.at = at.value_or(Vec3::Zero());
    object_.rotation_deg = table_.quantity("rotation", Dimension::angle, range::kAngle).value_or(0);
    return at.has_value();
  }
  bool positive(const char* key, double least) {
    if (least > 0) return true;
    table_.problems().error(
        "P005", table_.place_of(key),
        fmt::format(FMT_STRING("\"{}\" holds a length of 0 or less; expected lengths above 0 m"), key));
    return false;
  }

  TomlTable& table_;
  const Materials& materials_;
  std::vector<std::string>& assumed_;
  Object object_;
  std::string usual_finish_;
  std::string furniture_ = "furniture";  ///< its key
  bool outside_;
};

bool ObjectReader::read_shape() {
  if (table_.has(kFormerFurniture) && !table_.has("furniture")) {
    furniture_ = kFormerFurniture;
    table_.problems().warning("P071", table_.place_of(furniture_),
                              "\"thing\" is now called \"furniture\"; it is read as that");
  }
  int shapes = furniture_ == kFormerFurniture;
  for (const char* key : kShapeKeys) shapes += table_.has(key);
  if (shapes != 1) {
    table_.problems().error(
        "P007", table_.place(),
        "an object needs exactly one of \"box\" = [x, y, z], \"panel\" = [width, height], \"block\" = [[x, "
        "y], ...], \"cylinder\" = [diameter, height], \"furniture\" = \"table\" and \"mesh\" = \"file.obj\"");
    for (const char* key : kShapeKeys) table_.skip(key);
    for (const char* key : {"at", "rotation", "bottom", "top", "size", "thickness", "leg", "shelves", "scale",
                            "up", "materials"})
      table_.skip(key);
    return false;
  }
  if (table_.has("box")) return read_box();
  if (table_.has("panel")) return read_panel();
  if (table_.has("block")) return read_block();
  if (table_.has("cylinder")) return read_cylinder();
  return table_.has(furniture_) ? read_furniture() : read_mesh();
}

bool ObjectReader::read_box() {
  const bool placed = read_place();
  const auto size = table_.position("box");
  if (!size || !positive("box", size->minCoeff()) || !placed) return false;
  object_.size = *size;
  return true;
}

bool ObjectReader::read_panel() {
  const bool placed = read_place();
  object_.shape = ObjectShape::panel;
  const auto size = table_.point("panel");
  if (!size || !positive("panel", size->minCoeff()) || !placed) return false;
  object_.size = {size->x(), 0, size->y()};
  return true;
}

bool ObjectReader::read_block() {
  object_.shape = ObjectShape::block;
  const auto outline = table_.points("block");
  const Range height = outside_ ? kHeightOutside : range::kHeight;
  object_.bottom_m = table_.quantity("bottom", Dimension::length, height).value_or(0);
  object_.top_m = table_.quantity("top", Dimension::length, height, Need::required).value_or(0);
  if (!outline) return false;
  object_.outline = *outline;
  if (const auto fault = geometry::fault_of_outline(object_.outline)) {
    table_.problems().error(
        "P013", table_.place_of("block"),
        fmt::format(FMT_STRING("the outline of \"{}\" is not a simple polygon: {}"), object_.name, *fault));
    return false;
  }
  if (table_.has("top") && object_.top_m <= object_.bottom_m) {
    table_.problems().error(
        "P005", table_.place_of("top"),
        fmt::format(FMT_STRING("\"top\" is {} and \"bottom\" {}; expected "
                               "top above bottom"),
                    table_.problems().length(object_.top_m), table_.problems().length(object_.bottom_m)));
    return false;
  }
  return true;
}

bool ObjectReader::read_cylinder() {
  const bool placed = read_place();
  object_.shape = ObjectShape::cylinder;
  const auto size = table_.point("cylinder");
  if (!size || !positive("cylinder", size->minCoeff()) || !placed) return false;
  object_.size = {size->x(), size->x(), size->y()};
  return true;
}

bool ObjectReader::read_furniture() {
  const auto kind = table_.text(furniture_);
  const auto found = kind ? typical_furniture().find(*kind) : typical_furniture().end();
  object_.shape = ObjectShape::furniture;
  const auto size = table_.position("size");
  const auto thickness = table_.quantity("thickness", Dimension::length, range::kHeight);
  const auto leg = table_.quantity("leg", Dimension::length, range::kHeight);
  const auto shelves = table_.count("shelves", 0, kMostShelves);
  const auto at = table_.place_in_room("at");
  object_.rotation_deg = table_.quantity("rotation", Dimension::angle, range::kAngle).value_or(0);
  if (kind && found == typical_furniture().end()) {
    std::vector<std::string> names;
    for (const auto& [name, own] : typical_furniture()) names.push_back(name);
    const std::string near = nearest_word(*kind, names);
    table_.problems().error(
        "P041", table_.place_of(furniture_),
        fmt::format(FMT_STRING("there is no furniture called \"{}\"; {}"), *kind,
                    near.empty() ? fmt::format(FMT_STRING("expected one of: {}"), fmt::join(names, ", "))
                                 : fmt::format(FMT_STRING("did you mean \"{}\"?"), near)));
  }
  if (!kind || found == typical_furniture().end() || !at || (table_.has("size") && !size)) return false;
  const TypicalFurniture& typical = found->second;
  object_.kind = *kind;
  object_.at = {at->x(), at->y(), std::isnan(at->z()) ? typical.bottom : at->z()};
  object_.size = size.value_or(typical.size);
  if (!positive("size", size ? size->minCoeff() : 1)) return false;
  object_.thickness_m = thickness.value_or(typical.thickness);
  object_.leg_m = leg.value_or(typical.leg);
  object_.shelves = shelves.value_or(typical.shelves);
  usual_finish_ = typical.finish;
  if (!size)
    assumed_.push_back(object_.size.z() > 0
                           ? fmt::format(FMT_STRING("\"{}\": size of a {}, {:g} x {:g} x {:g} m"),
                                         object_.name, *kind, object_.size.x(), object_.size.y(),
                                         object_.size.z())
                           : fmt::format(FMT_STRING("\"{}\": size of a {}, {:g} m, up to the ceiling"),
                                         object_.name, *kind, object_.size.x()));
  return true;
}

bool ObjectReader::read_mesh() {
  const bool placed = read_place();
  object_.shape = ObjectShape::mesh;
  object_.mesh = read_mesh_use(table_);
  if (auto finishes = table_.table("materials")) {
    for (const std::string& name : finishes->keys())
      if (const auto wanted = finishes->text(name)) {
        if (const model::Finish* finish = materials_.find(*wanted))
          object_.mesh->finishes[name] = *finish;
        else
          table_.problems().error(
              "P030", finishes->place_of(name),
              fmt::format(FMT_STRING("unknown material \"{}\"; expected one of the [materials.NAME] tables "
                                     "or an everyday finish"),
                          *wanted));
      }
    finishes->finish();
  }
  return placed && table_.has("mesh") && !object_.mesh->file.empty();
}

void ObjectReader::read_repeat() {
  auto repeat = table_.table("repeat");
  if (!repeat) return;
  model::Repeat result;
  result.columns = repeat->count("columns", 1, kMostRepeats).value_or(1);
  result.rows = repeat->count("rows", 1, kMostRepeats).value_or(1);
  result.step = repeat->point("step", Need::required).value_or(Vec2::Ones());
  if (result.columns * result.rows > kMostRepeats) {
    repeat->problems().error("P005", repeat->place(),
                             fmt::format(FMT_STRING("{} x {} objects; expected at most {}"), result.columns,
                                         result.rows, kMostRepeats));
    result.rows = result.columns = 1;
  }
  repeat->finish();
  object_.repeat = result;
}

/// Of an object whose shape is not understood nothing is assumed: that was told already.
void ObjectReader::settle_finish(bool shaped) {
  const auto finish = read_finish(table_, materials_);
  object_.finish.material.diffuse = outside_ ? kUsualOutside : kUsualReflectance;
  if (finish) {
    object_.finish = *finish;
  } else if (!shaped || outside_) {
    object_.finish.material.two_sided = object_.shape == ObjectShape::panel;
    return;
  } else if (!usual_finish_.empty()) {
    object_.finish = everyday_finishes().at(usual_finish_);
    assumed_.push_back(fmt::format(FMT_STRING("\"{}\": {}, reflectance {:.2f}"), object_.name, usual_finish_,
                                   object_.finish.material.diffuse));
  } else if (!table_.has("material") && object_.shape != ObjectShape::mesh) {
    table_.problems().warning(
        "P032", object_.place,
        fmt::format(FMT_STRING("\"{}\" has no reflectance and no material; assumed reflectance {}"),
                    object_.name, kUsualReflectance));
    assumed_.push_back(fmt::format(FMT_STRING("\"{}\": reflectance {}"), object_.name, kUsualReflectance));
  } else if (object_.shape == ObjectShape::mesh && object_.mesh && !table_.has("material")) {
    assumed_.push_back(fmt::format(FMT_STRING("\"{}\": reflectance {} where the file's materials are not "
                                              "given one"),
                                   object_.name, kUsualReflectance));
  }
  object_.finish.material.two_sided = object_.shape == ObjectShape::panel;
}

}  // namespace

std::vector<Object> read_objects(TomlTable& room, const Materials& materials,
                                 std::vector<std::string>& assumed, std::vector<std::string>& unread) {
  std::vector<Object> objects;
  for (TomlTable& table : room.tables("objects")) {
    ObjectReader reader(table, materials, assumed);
    if (auto object = reader.read())
      objects.push_back(std::move(*object));
    else
      unread.push_back(reader.name());
  }
  return objects;
}

std::vector<model::Obstruction> read_obstructions(TomlTable& site, const Materials& materials) {
  std::vector<model::Obstruction> obstructions;
  std::vector<std::string> assumed;  // of what stands outside nothing is assumed that docs do not say
  for (TomlTable& table : site.tables("obstructions")) {
    model::Obstruction own;
    auto object = ObjectReader(table, materials, assumed, true).read(&own.state);
    if (!object) continue;
    own.object = std::move(*object);
    obstructions.push_back(std::move(own));
  }
  return obstructions;
}

}  // namespace glow::files
