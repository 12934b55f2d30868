#pragma once

#include "core/photometry/placed_luminaire.hpp"
#include "validation/metric_cases.hpp"

namespace glow::reference {

inline Vec3 point(const nlohmann::json& j) {
  return {j[0].get<double>(), j[1].get<double>(), j[2].get<double>()};
}

/// The shapes of metrics.json.
inline photometry::LuminousArea luminous_area(const nlohmann::json& shape) {
  using photometry::LuminousShape;
  const std::string type = shape.at("type");
  if (type == "rect") return {LuminousShape::rectangle, shape.at("x"), shape.at("y"), {}};
  if (type == "box")
    return {LuminousShape::box,
            shape.at("x"),
            shape.at("y"),
            {shape.at("h_C0"), shape.at("h_C90"), shape.at("h_C180"), shape.at("h_C270")}};
  const double d = shape.at("d");
  if (type == "disc") return {LuminousShape::disc, d, d, {}};
  if (type == "sphere") return {LuminousShape::sphere, d, d, {d, d, d, d}};
  if (type == "cylinder") {
    const double h = shape.at("h");
    return {LuminousShape::vertical_cylinder, d, d, {h, h, h, h}};
  }
  return {LuminousShape::horizontal_cylinder_c90, d, shape.at("length"), {d, d, d, d}};
}

/// A photometry of the reference set, for a lamp flux.
inline photometry::IntensityTable intensities(const nlohmann::json& j, double lamp_flux) {
  std::vector<double> planes = j.at("C"), gammas = j.at("gamma"), candela;
  nlohmann::json rows = j.at("I_cd_per_klm");
  if (planes.size() > 1) {
    planes.push_back(360);
    rows.push_back(rows[0]);
  }
  for (const nlohmann::json& row : rows)
    for (const nlohmann::json& value : row) candela.push_back(value.get<double>() * lamp_flux / 1000);
  return {planes, gammas, candela};
}

inline const nlohmann::json& photometry_named(const nlohmann::json& inputs) {
  return metrics().at("photometries").at(inputs.at("photometry").get<std::string>());
}

/// The luminaire that a case names, as a point.
inline photometry::PlacedLuminaire luminaire(const nlohmann::json& inputs, const Vec3& at) {
  photometry::PlacedLuminaire luminaire;
  luminaire.table = std::make_shared<photometry::IntensityTable>(
      intensities(photometry_named(inputs), inputs.at("lamp_flux")));
  luminaire.frame = geometry::Frame::upright(at, 0);
  return luminaire;
}

/// The same with its luminous area, turned, at its place.
inline photometry::PlacedLuminaire sized_luminaire(const nlohmann::json& inputs) {
  photometry::PlacedLuminaire sized = luminaire(inputs, point(inputs.at("pos")));
  sized.frame = geometry::Frame::upright(sized.frame.origin, inputs.at("rotation"));
  sized.area =
      luminous_area(inputs.contains("shape") ? inputs.at("shape") : photometry_named(inputs).at("shape"));
  return sized;
}

/// The whole photometry that a case names.
inline photometry::Photometry whole_photometry(const nlohmann::json& inputs) {
  const nlohmann::json& j = photometry_named(inputs);
  const double flux = j.at("lamp_flux");
  return {"",
          "",
          "",
          "",
          "",
          "",
          {},
          false,
          flux,
          {},
          {},
          {},
          photometry::Symmetry::none,
          intensities(j, flux),
          luminous_area(j.at("shape")),
          {}};
}

}  // namespace glow::reference
