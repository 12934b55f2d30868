#include "files/plans/ifc/ifc_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "files/plans/ifc/bodies.hpp"
#include "files/plans/ifc/relations.hpp"

namespace glow::files::ifc {
namespace {

using Kind = plans::ModelBody::Kind;

constexpr std::pair<const char*, Kind> kBodies[] = {{"IFCWALL", Kind::wall},
                                                    {"IFCWALLSTANDARDCASE", Kind::wall},
                                                    {"IFCWALLELEMENTEDCASE", Kind::wall},
                                                    {"IFCCURTAINWALL", Kind::wall},
                                                    {"IFCSLAB", Kind::slab},
                                                    {"IFCSLABSTANDARDCASE", Kind::slab},
                                                    {"IFCROOF", Kind::roof},
                                                    {"IFCCOVERING", Kind::ceiling},
                                                    {"IFCCOLUMN", Kind::column},
                                                    {"IFCCOLUMNSTANDARDCASE", Kind::column},
                                                    {"IFCFURNISHINGELEMENT", Kind::furniture},
                                                    {"IFCFURNITURE", Kind::furniture},
                                                    {"IFCSYSTEMFURNITUREELEMENT", Kind::furniture},
                                                    {"IFCSHADINGDEVICE", Kind::shading},
                                                    {"IFCBUILDINGELEMENTPROXY", Kind::other},
                                                    {"IFCGEOGRAPHICELEMENT", Kind::other}};

class Reader {
 public:
  explicit Reader(IfcFile& file) : file_(file), bodies_(file), relations_(read_relations(file)) {}

  plans::Model read() {
    model_.metres_per_unit = file_.metre;
    read_storeys();
    read_site();
    read_spaces();
    read_bodies();
    read_openings();
    read_lights();
    read_kinds();
    model_.doubts = std::move(file_.doubts);
    return std::move(model_);
  }

 private:
  static std::string called(const Item& product) {
    const std::string name = product.text(2);
    return name.empty() ? product.text(7) : name;
  }

  void read_storeys() {
    for (const Record* record : file_.step.of_type("IFCBUILDINGSTOREY")) {
      const Item item = file_.item(*record);
      if (!item) continue;
      const auto place = bodies_.placements().of(item.reference(5));
      plans::ModelStorey storey;
      storey.entity = file_.entity(item, called(item));
      if (storey.entity.name.empty())
        storey.entity.name = "Storey " + std::to_string(model_.storeys.size() + 1);
      storey.z_m = place ? place->translation().z() * file_.metre : 0;
      const auto level = item.number(9);
      storey.level_m = level ? *level * file_.metre : storey.z_m;
      for (int n = 2; has_storey(storey.entity.name); ++n)
        storey.entity.name = called(item) + " " + std::to_string(n);
      storeys_[record->number] = int(model_.storeys.size());
      model_.storeys.push_back(std::move(storey));
    }
  }
  bool has_storey(const std::string& name) const {
    return std::any_of(model_.storeys.begin(), model_.storeys.end(),
                       [&](const plans::ModelStorey& one) { return one.entity.name == name; });
  }

  int storey_of(std::uint64_t number) const { return relations_.storey_of(number, storeys_); }

  void read_site() {
    for (const Record* record : file_.step.of_type("IFCSITE")) {
      const Item item = file_.item(*record);
      if (!item) continue;
      const auto latitude = degrees_of(item.at(9)), longitude = degrees_of(item.at(10));
      if (const auto above = item.number(11)) model_.site.elevation_m = *above * file_.metre;
      if (!latitude || !longitude) continue;
      if (std::abs(*latitude) > 90 || std::abs(*longitude) > 180 || (*latitude == 0 && *longitude == 0)) {
        file_.doubt("location", *record,
                    fmt::format(FMT_STRING("the model's place is {:g}, {:g}, which nobody means; state the "
                                           "site's own latitude and longitude"),
                                *latitude, *longitude));
        continue;
      }
      model_.site.latitude_deg = latitude;
      model_.site.longitude_deg = longitude;
    }
    for (const Record* record : file_.step.of_type("IFCGEOMETRICREPRESENTATIONCONTEXT")) {
      const Item item = file_.item(*record);
      const auto north = item ? bodies_.placements().direction(file_.item(item, 5)) : std::nullopt;
      if (item && item.text(1) == "Model" && !model_.site.north_deg) {
        const double left = north ? std::atan2(-north->x(), north->y()) * 180 / M_PI : 0;
        model_.site.north_deg = left < 0 ? left + 360 : left + 0.0;
      }
    }
  }

  /// Parts of a space are put together in the whole, if that has no shape of its own.
  void read_spaces() {
    const auto records = file_.step.of_type("IFCSPACE");
    std::map<std::uint64_t, std::vector<plans::Shell>> shapes;
    for (const Record* record : records) {
      const Item item = file_.item(*record);
      if (item) shapes[record->number] = bodies_.of(item);
    }
    for (const Record* record : records) {
      const auto whole = relations_.whole_of.find(record->number);
      const auto of_whole = whole == relations_.whole_of.end() ? shapes.end() : shapes.find(whole->second);
      if (of_whole == shapes.end() || of_whole == shapes.find(record->number)) continue;
      part_.insert(record->number);
      if (of_whole->second.empty()) of_parts_.insert(whole->second);
      if (of_parts_.count(whole->second))
        for (plans::Shell& shell : shapes[record->number]) of_whole->second.push_back(std::move(shell));
    }
    for (const Record* record : records) {
      if (part_.count(record->number)) continue;
      const Item item = file_.item(*record);
      if (!item) continue;
      plans::ModelSpace space;
      const std::string number = item.text(2), name = item.text(7);
      space.entity = file_.entity(item, name.empty() ? number : name);
      space.number = name.empty() ? "" : number;
      space.storey = storey_of(record->number);
      space.outdoors = item.word(9) == "EXTERNAL";
      space.shells = std::move(shapes[record->number]);
      model_.spaces.push_back(std::move(space));
    }
  }

  void read_bodies() {
    for (const auto& [type, kind] : kBodies)
      for (const Record* record : file_.step.of_type(type)) {
        const Item item = file_.item(*record);
        if (!item) continue;
        plans::ModelBody body;
        body.entity = file_.entity(item, called(item));
        body.kind = kind;
        body.storey = storey_of(record->number);
        const auto place = relations_.place_of.find(record->number);
        const Item in = place == relations_.place_of.end() ? Item() : file_.item(place->second);
        body.outside = body.storey < 0 && (in.is("IFCSITE") || in.is("IFCBUILDING"));
        body.material = material_name(file_, relations_, record->number);
        body.shell = bodies_.whole(item);
        body_of_[record->number] = int(model_.bodies.size());
        model_.bodies.push_back(std::move(body));
      }
  }

  /// Corners of a hole: of its body, or of the door in it where that is all there is.
  std::vector<Vec3> corners_of(const Item& item) {
    std::vector<Vec3> corners;
    for (const plans::ShellFace& face : bodies_.whole(item))
      for (const std::vector<Vec3>& loop : face.loops)
        corners.insert(corners.end(), loop.begin(), loop.end());
    return corners;
  }

  /// Of a door or window whose sizes are stated: a sheet in its own x-z plane.
  std::vector<Vec3> stated_corners(const Item& filling) {
    const auto place = bodies_.placements().of(filling.reference(5));
    const auto high = filling.number(8), wide = filling.number(9);
    std::vector<Vec3> corners;
    if (!place || !high || !wide || !(*high > 0) || !(*wide > 0)) return corners;
    for (const auto& [x, z] : {std::pair{0.0, 0.0}, {*wide, 0.0}, {*wide, *high}, {0.0, *high}})
      corners.push_back(*place * Vec3(x, 0, z) * file_.metre);
    return corners;
  }

  static plans::FoundOpening::Kind kind_of(const Item& filling) {
    if (filling && filling.type->rfind("IFCDOOR", 0) == 0) return plans::FoundOpening::Kind::door;
    if (filling && filling.type->rfind("IFCWINDOW", 0) == 0) return plans::FoundOpening::Kind::window;
    return plans::FoundOpening::Kind::gap;
  }

  /// Whether it goes through what lies above rather than what stands beside.
  bool is_in_roof(const plans::ModelOpening& opening) const {
    if (opening.body < 0) return false;
    const Kind kind = model_.bodies[std::size_t(opening.body)].kind;
    return kind == Kind::roof || kind == Kind::slab || kind == Kind::ceiling;
  }

  /// `known`: what it is called by, the filling or the hole itself.
  void add_opening(plans::ModelOpening opening, const Item& filling, const Item& known) {
    if (filling) {
      opening.transmittance =
          property(file_, relations_, filling.record->number, "VisibleLightTransmittance");
      if (opening.transmittance && !(*opening.transmittance > 0 && *opening.transmittance <= 1))
        opening.transmittance.reset();
    }
    opening.in_roof = is_in_roof(opening);
    // A hole in a slab is a shaft or a stair's: no light comes by it from outside.
    if (opening.in_roof && opening.kind == plans::FoundOpening::Kind::gap &&
        model_.bodies[std::size_t(opening.body)].kind != Kind::roof)
      return;
    if (opening.corners.size() >= 3) return model_.openings.push_back(std::move(opening));
    file_.doubt("no-shape", *known.record,
                fmt::format(FMT_STRING("the opening {} \"{}\" has no shape; it was left out"),
                            opening.entity.word, opening.entity.name));
  }

  void read_openings() {
    for (const char* type : {"IFCOPENINGELEMENT", "IFCOPENINGSTANDARDCASE"})
      for (const Record* record : file_.step.of_type(type)) {
        const Item item = file_.item(*record);
        if (!item || item.word(8) == "RECESS") continue;
        const auto wall = relations_.voided_by.find(record->number);
        const auto filled = relations_.filled_by.find(record->number);
        const Item filling = filled == relations_.filled_by.end() ? Item() : file_.item(filled->second);
        plans::ModelOpening opening;
        const Item& known = filling ? filling : item;
        opening.entity = file_.entity(known, called(known));
        opening.kind = kind_of(filling);
        opening.storey = storey_of(record->number);
        if (wall != relations_.voided_by.end()) {
          const auto body = body_of_.find(wall->second);
          opening.body = body == body_of_.end() ? -1 : body->second;
        }
        opening.corners = corners_of(item);
        if (opening.corners.empty() && filling) opening.corners = stated_corners(filling);
        add_opening(std::move(opening), filling, known);
      }
    // Those that fill no hole: of curtain walls, or left behind.
    for (const char* type : {"IFCWINDOW", "IFCWINDOWSTANDARDCASE", "IFCDOOR", "IFCDOORSTANDARDCASE"})
      for (const Record* record : file_.step.of_type(type)) {
        if (relations_.fillings.count(record->number)) continue;
        const Item item = file_.item(*record);
        if (!item) continue;
        plans::ModelOpening opening;
        opening.entity = file_.entity(item, called(item));
        opening.kind = kind_of(item);
        opening.storey = storey_of(record->number);
        opening.corners = corners_of(item);
        if (opening.corners.empty()) opening.corners = stated_corners(item);
        add_opening(std::move(opening), item, item);
      }
  }

  void read_lights() {
    for (const char* name : {"IFCLIGHTFIXTURE", "IFCFLOWTERMINAL"})
      for (const Record* record : file_.step.of_type(name)) {
        const auto of = relations_.type_of.find(record->number);
        const Item type = of == relations_.type_of.end() ? Item() : file_.item(of->second);
        const Item item = file_.item(*record);
        if (!item || (item.is("IFCFLOWTERMINAL") && !type.is("IFCLIGHTFIXTURETYPE"))) continue;
        const auto place = bodies_.placements().of(item.reference(5));
        if (!place) continue;
        plans::ModelLight light;
        light.entity = file_.entity(item, called(item));
        light.type = type ? type.text(2) : item.text(4);
        if (light.type.empty()) light.type = light.entity.name.empty() ? "Luminaire" : light.entity.name;
        light.storey = storey_of(record->number);
        light.at = place->translation() * file_.metre;
        const Vec3 x = place->linear().col(0);
        const double turn = std::atan2(x.y(), x.x()) * 180 / M_PI;
        light.rotation_deg = std::abs(turn) < 1e-6 ? 0 : turn;
        if (light.at.allFinite()) model_.lights.push_back(std::move(light));
      }
  }

  /// Kinds of products, for the picture: those that were looked at, and those that were not.
  void read_kinds() {
    const std::set<std::string> looked_at = {"IFCSPACE",  "IFCBUILDINGSTOREY", "IFCSITE",        "IFCDOOR",
                                             "IFCWINDOW", "IFCOPENINGELEMENT", "IFCLIGHTFIXTURE"};
    for (const auto& [type, count] : file_.step.types()) {
      const bool body = std::any_of(std::begin(kBodies), std::end(kBodies),
                                    [&, &type = type](const auto& known) { return type == known.first; });
      static const std::set<std::string> passed = {"IFCBEAM",
                                                   "IFCSTAIR",
                                                   "IFCSTAIRFLIGHT",
                                                   "IFCRAILING",
                                                   "IFCRAMP",
                                                   "IFCRAMPFLIGHT",
                                                   "IFCPLATE",
                                                   "IFCMEMBER",
                                                   "IFCPIPESEGMENT",
                                                   "IFCDUCTSEGMENT",
                                                   "IFCFLOWSEGMENT",
                                                   "IFCFLOWFITTING",
                                                   "IFCGRID",
                                                   "IFCSPATIALZONE",
                                                   "IFCZONE",
                                                   "IFCFLOWTERMINAL",
                                                   "IFCTRANSPORTELEMENT",
                                                   "IFCSANITARYTERMINAL",
                                                   "IFCANNOTATION",
                                                   "IFCFOOTING",
                                                   "IFCPILE"};
      if (!body && !looked_at.count(type) && !passed.count(type)) continue;
      model_.kinds.push_back({type, count, body || looked_at.count(type) > 0});
    }
  }

  IfcFile& file_;
  Bodies bodies_;
  const Relations relations_;
  plans::Model model_;
  std::map<std::uint64_t, int> storeys_, body_of_;
  std::set<std::uint64_t> part_, of_parts_;  ///< spaces
};

}  // namespace

std::optional<plans::Model> read_ifc(std::string bytes, const std::string& name, std::optional<double> unit_m,
                                     Problems& problems) {
  const auto step = step::StepFile::read(std::move(bytes), name, problems);
  if (!step) return std::nullopt;
  if (step->schema().rfind("IFC", 0) != 0 || step->schema().rfind("IFC1", 0) == 0) {
    problems.error(
        "schema", {name, 0, 0},
        fmt::format(FMT_STRING("this STEP file holds \"{}\"; expected a building model, IFC2X3 or IFC4"),
                    printable(step->schema())));
    return std::nullopt;
  }
  IfcFile file(*step, name, problems);
  if (!read_units(file, unit_m)) return std::nullopt;
  plans::Model model = Reader(file).read();
  if (file.has_failed()) return std::nullopt;
  return model;
}

}  // namespace glow::files::ifc
