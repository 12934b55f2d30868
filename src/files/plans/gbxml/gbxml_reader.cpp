#include "files/plans/gbxml/gbxml_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "core/plans/naming.hpp"
#include "core/units/quantity.hpp"
#include "files/plans/gbxml/xml_text.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::files::gbxml {
namespace {

using pugi::xml_node;

constexpr std::pair<const char*, double> kLengths[] = {
    {"Meters", 1},    {"Millimeters", 0.001}, {"Centimeters", 0.01}, {"Kilometers", 1000},
    {"Feet", 0.3048}, {"Inches", 0.0254},     {"Yards", 0.9144},     {"Miles", 1609.344}};
constexpr double kLargest = 1e7;  // m

class Reader {
 public:
  Reader(const XmlText& text, const std::string& name, Problems& problems)
      : text_(text), name_(name), problems_(problems) {}

  std::optional<plans::Model> read(std::optional<double> unit_m) {
    const xml_node root = text_.root();
    if (local_name(root) != "gbXML") {
      problems_.error("root", {name_, text_.line_of(root), 0},
                      fmt::format(FMT_STRING("its root element is \"{}\"; expected \"gbXML\""),
                                  printable(to_utf8(local_name(root)))));
      return std::nullopt;
    }
    if (!read_unit(root, unit_m)) return std::nullopt;
    for (const xml_node& campus : children(root, "Campus")) {
      read_location(child(campus, "Location"));
      for (const xml_node& building : children(campus, "Building")) read_building(building);
      read_surfaces(campus, root);
    }
    if (problems_.has_errors()) return std::nullopt;
    return std::move(model_);
  }

 private:
  bool read_unit(const xml_node& root, std::optional<double> unit_m) {
    const std::string word = root.attribute("lengthUnit").value();
    for (const auto& [name, metres] : kLengths)
      if (word == name) metre_ = metres;
    if (unit_m) metre_ = *unit_m;
    model_.metres_per_unit = metre_;
    if (metre_ > 0) return true;
    problems_.error("unit-unknown", {name_, text_.line_of(root), 0},
                    word.empty()
                        ? "the model does not say in what unit its lengths are (lengthUnit); say it with "
                          "--unit m (or mm, cm, ft, in)"
                        : fmt::format(FMT_STRING("lengthUnit is \"{}\"; expected Meters, Millimeters, "
                                                 "Centimeters, Feet or Inches"),
                                      printable(word)));
    return false;
  }

  void doubt(const char* code, const xml_node& node, std::string text) {
    model_.doubts.push_back(
        {code, std::move(text), Vec2::Zero(), false, {}, std::uint32_t(text_.line_of(node))});
  }

  plans::Entity entity(const xml_node& node, std::string name) const {
    const std::string id = node.attribute("id").value();
    return {id, std::move(name), printable(id), std::uint32_t(text_.line_of(node))};
  }

  /// The number in an element; nothing and an error where it is none.
  std::optional<double> number(const xml_node& node) {
    const std::string words(trimmed(node.text().get()));
    double value = 0;
    if (units::parse_number(words, value) && std::abs(value) < 1e12) return value;
    const std::string fault = number_fault(words);
    problems_.error(fault == "not-finite" ? fault : "bad-number", {name_, text_.line_of(node), 0},
                    fmt::format(FMT_STRING("\"{}\" is {}; expected a number"), printable(to_utf8(words)),
                                fault == "not-finite" ? "not finite" : "no number"));
    return std::nullopt;
  }
  std::optional<double> child_number(const xml_node& node, const char* name) {
    const xml_node found = child(node, name);
    return found ? number(found) : std::nullopt;
  }

  void read_location(const xml_node& location) {
    if (!location) return;
    const auto latitude = child_number(location, "Latitude"), longitude = child_number(location, "Longitude");
    if (const auto above = child_number(location, "Elevation")) model_.site.elevation_m = *above * metre_;
    const auto azimuth = child_number(location, "CADModelAzimuth");
    if (latitude && longitude) {
      if (std::abs(*latitude) > 90 || std::abs(*longitude) > 180 || (*latitude == 0 && *longitude == 0))
        doubt("location", location,
              fmt::format(
                  FMT_STRING("the model's place is {:g}, {:g}, which nobody means; state the site's own "
                             "latitude and longitude"),
                  *latitude, *longitude));
      else {
        model_.site.latitude_deg = latitude;
        model_.site.longitude_deg = longitude;
      }
    }
    if (!azimuth) return;
    model_.site.north_deg = std::fmod(*azimuth + 720, 360);
    if (*azimuth != 0)
      doubt(
          "north", location,
          fmt::format(
              FMT_STRING("the model is turned by {:g} degrees from north; programs differ in which way they "
                         "count. Look at \"north\": it is the bearing that +y points to"),
              *azimuth));
  }

  void read_building(const xml_node& building) {
    for (const xml_node& node : children(building, "BuildingStorey")) {
      plans::ModelStorey storey;
      storey.entity = entity(node, to_utf8(child_text(node, "Name")));
      if (storey.entity.name.empty()) storey.entity.name = storey.entity.id;
      storey.level_m = storey.z_m = child_number(node, "Level").value_or(0) * metre_;
      storeys_[storey.entity.id] = int(model_.storeys.size());
      model_.storeys.push_back(std::move(storey));
    }
    for (const xml_node& node : children(building, "Space")) read_space(node);
    model_.kinds.push_back({"Space", model_.spaces.size(), true});
  }

  std::vector<Vec3> loop(const xml_node& polyloop) {
    std::vector<Vec3> points;
    for (const xml_node& point : children(polyloop, "CartesianPoint")) {
      Vec3 p = Vec3::Zero();
      Eigen::Index k = 0;
      for (const xml_node& coordinate : children(point, "Coordinate")) {
        const auto value = number(coordinate);
        if (!value) return {};
        if (k < 3) p[k++] = *value * metre_;
      }
      if (p.cwiseAbs().maxCoeff() > kLargest) return {};
      if (points.empty() || (points.back() - p).norm() > 1e-6) points.push_back(p);
    }
    while (points.size() > 1 && (points.front() - points.back()).norm() < 1e-6) points.pop_back();
    return points;
  }

  /// The loops of a geometry as faces.
  plans::Shell faces(const xml_node& geometry) {
    plans::Shell shell;
    for (const xml_node& polyloop : children(geometry, "PolyLoop")) {
      std::vector<Vec3> points = loop(polyloop);
      if (points.size() > 2) shell.push_back({{std::move(points)}, {}});
    }
    return shell;
  }

  void read_space(const xml_node& node) {
    plans::ModelSpace space;
    space.entity = entity(node, to_utf8(child_text(node, "Name")));
    split_name(space);
    const auto storey = storeys_.find(node.attribute("buildingStoreyIdRef").value());
    space.storey = storey == storeys_.end() ? -1 : storey->second;
    plans::Shell shell = faces(child(child(node, "ShellGeometry"), "ClosedShell"));
    if (shell.empty())
      for (const xml_node& boundary : children(node, "SpaceBoundary"))
        for (plans::ShellFace& face : faces(child(boundary, "PlanarGeometry")))
          shell.push_back(std::move(face));
    const bool has_shell = shell.size() > 3;
    if (has_shell) space.shells.push_back(std::move(shell));
    if (const xml_node floor = child(node, "PlanarGeometry")) read_floor(node, floor, has_shell, space);
    spaces_[space.entity.id] = int(model_.spaces.size());
    model_.spaces.push_back(std::move(space));
  }

  /// "0.01 Joinery" in its parts.
  static void split_name(plans::ModelSpace& space) {
    const std::string& name = space.entity.name;
    const std::size_t blank = name.find(' ');
    if (blank == std::string::npos ||
        plans::kind_of_words(name.substr(0, blank)) != plans::WordKind::number ||
        plans::kind_of_words(name.substr(blank + 1)) != plans::WordKind::name)
      return;
    space.number = name.substr(0, blank);
    space.entity.name = name.substr(blank + 1);
  }

  void read_floor(const xml_node& node, const xml_node& geometry, bool has_shell, plans::ModelSpace& space) {
    constexpr double kFlat = 0.02;  // m
    const std::vector<Vec3> points = loop(child(geometry, "PolyLoop"));
    const std::string so = has_shell ? "; its shell was taken" : "; it is left out";
    if (points.size() < 3)
      return doubt("no-area", node,
                   fmt::format(FMT_STRING("the floor of space {} \"{}\" has {} points{}"), space.entity.word,
                               printable(space.entity.name), points.size(), so));
    plans::Face floor;
    double low = HUGE_VAL, high = -HUGE_VAL;
    for (const Vec3& p : points) {
      floor.outline.push_back(p.xy());
      low = std::min(low, p.z());
      high = std::max(high, p.z());
    }
    if (high - low > kFlat)
      return doubt(
          "not-flat", node,
          fmt::format(FMT_STRING("the floor of space {} \"{}\" is not flat: a corner lies {:.2f} m above "
                                 "another{}"),
                      space.entity.word, printable(space.entity.name), high - low, so));
    if (geometry::signed_area(floor.outline) < 0) std::reverse(floor.outline.begin(), floor.outline.end());
    space.floor_z = low;
    space.floor = std::move(floor);
  }

  static plans::ModelBody::Kind kind_of(const std::string& type) {
    using Kind = plans::ModelBody::Kind;
    if (type == "Shade") return Kind::shading;
    if (type == "Roof") return Kind::roof;
    if (type.find("Wall") != std::string::npos) return Kind::wall;
    if (type == "Ceiling" || type == "UndergroundCeiling") return Kind::ceiling;
    return type.find("Column") != std::string::npos ? Kind::column : Kind::slab;
  }

  void read_surfaces(const xml_node& campus, const xml_node& root) {
    std::map<std::string, std::size_t> counts;
    for (const xml_node& node : children(campus, "Surface")) {
      plans::ModelBody body;
      const std::string type = node.attribute("surfaceType").value();
      ++counts[type];
      body.entity = entity(node, to_utf8(child_text(node, "Name")));
      body.kind = kind_of(type);
      body.shell = faces(child(node, "PlanarGeometry"));
      body.material = material_of(root, node.attribute("constructionIdRef").value());
      std::vector<int> beside;
      for (const xml_node& adjacent : children(node, "AdjacentSpaceId")) {
        const auto space = spaces_.find(adjacent.attribute("spaceIdRef").value());
        if (space != spaces_.end()) beside.push_back(space->second);
      }
      if (!beside.empty()) body.storey = model_.spaces[std::size_t(beside.front())].storey;
      model_.bodies.push_back(std::move(body));
      for (const xml_node& opening : children(node, "Opening")) read_opening(opening, beside, root);
    }
    for (const auto& [type, count] : counts) model_.kinds.push_back({type, count, true});
  }

  void read_opening(const xml_node& node, const std::vector<int>& beside, const xml_node& root) {
    const std::string type = node.attribute("openingType").value();
    plans::ModelOpening opening;
    opening.entity = entity(node, to_utf8(child_text(node, "Name")));
    opening.kind = type.find("Door") != std::string::npos ? plans::FoundOpening::Kind::door
                   : type == "Air"                        ? plans::FoundOpening::Kind::gap
                                                          : plans::FoundOpening::Kind::window;
    opening.body = int(model_.bodies.size()) - 1;
    const auto kind = model_.bodies.back().kind;
    opening.in_roof = type.find("Skylight") != std::string::npos || kind == plans::ModelBody::Kind::roof;
    opening.spaces = beside;
    for (const plans::ShellFace& face : faces(child(node, "PlanarGeometry")))
      for (const std::vector<Vec3>& points : face.loops)
        opening.corners.insert(opening.corners.end(), points.begin(), points.end());
    opening.transmittance = glass_of(root, node);
    if (opening.corners.size() < 3)
      return doubt("no-shape", node,
                   fmt::format(FMT_STRING("the opening {} \"{}\" has no shape; it was left out"),
                               opening.entity.word, printable(opening.entity.name)));
    model_.openings.push_back(std::move(opening));
  }

  /// The visible transmittance of its window type or construction.
  std::optional<double> glass_of(const xml_node& root, const xml_node& opening) {
    for (const auto& [attribute, element] :
         {std::pair{"windowTypeIdRef", "WindowType"}, {"constructionIdRef", "Construction"}}) {
      const std::string id = opening.attribute(attribute).value();
      if (id.empty()) continue;
      for (const xml_node& type : children(root, element)) {
        if (id != type.attribute("id").value()) continue;
        for (const xml_node& value : children(type, "Transmittance")) {
          const bool visible = std::string(value.attribute("type").value()) == "Visible";
          const auto share = visible ? number(value) : std::nullopt;
          if (share && *share > 0 && *share <= 1) return share;
        }
      }
    }
    return std::nullopt;
  }

  static std::string material_of(const xml_node& root, const std::string& id) {
    if (id.empty()) return {};
    for (const xml_node& construction : children(root, "Construction"))
      if (id == construction.attribute("id").value()) return to_utf8(child_text(construction, "Name"));
    return {};
  }

  const XmlText& text_;
  const std::string& name_;
  Problems& problems_;
  double metre_ = 0;
  plans::Model model_;
  std::map<std::string, int> storeys_, spaces_;
};

}  // namespace

std::optional<plans::Model> read_gbxml(std::string bytes, const std::string& name,
                                       std::optional<double> unit_m, Problems& problems) {
  const auto text = XmlText::read(std::move(bytes), name, problems);
  return text ? Reader(*text, name, problems).read(unit_m) : std::nullopt;
}

}  // namespace glow::files::gbxml
