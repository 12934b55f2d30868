#include "files/photometry/inspection_json.hpp"

#include "core/photometry/derived.hpp"
#include "files/photometry/glare_tables.hpp"
#include "files/text/json_text.hpp"

namespace glow::files {
namespace {

using photometry::Photometry;

json findings_json(const std::vector<Problem>& findings) {
  json list = json::array();
  for (const Problem& problem : findings) {
    const char* severity = problem.severity == Severity::error     ? "error"
                           : problem.severity == Severity::warning ? "warning"
                                                                   : "note";
    list.push_back({{"severity", severity},
                    {"code", problem.code},
                    {"line", problem.place.line > 0 ? json(problem.place.line) : json(nullptr)},
                    {"text", problem.text}});
  }
  return list;
}

json edges_json(const Photometry& p, double c_deg) {
  const auto one = [&](double share) -> json {
    const auto edges = photometry::beam_edges(p.table, c_deg, share);
    if (!edges) return nullptr;
    return {{"left_deg", number(edges->left_deg)},
            {"right_deg", number(edges->right_deg)},
            {"width_deg", number(edges->width_deg())}};
  };
  return {{"beam", one(0.5)}, {"field", one(0.1)}};
}

json luminance_json(const Photometry& p) {
  json j;
  for (const auto& [name, c] : {std::pair{"c0", 0.0}, {"c90", 90.0}}) {
    json values;
    for (const int gamma : {65, 75, 85})
      values[std::to_string(gamma)] = number(photometry::mean_luminance(p, c, gamma));
    j[name] = values;
  }
  j["max_above_65"] = number(photometry::max_luminance_above_65(p));
  return j;
}

void add_light(json& j, const Photometry& p) {
  const photometry::Peak peak = p.table.peak();
  j["flux_lm"] = number(p.flux_lm());
  j["stated_lamp_flux_lm"] = p.absolute && p.format == "IES LM-63" ? json(nullptr) : number(p.lamp_flux_lm);
  j["absolute"] = p.absolute;
  j["watts_w"] = number(p.watts);
  j["efficacy_lm_w"] = p.watts ? number(p.flux_lm() / *p.watts) : json(nullptr);
  j["cct_k"] = number(p.cct_k);
  j["colour_rendering"] = number(p.colour_rendering);
  j["upward_share"] = number(p.table.upward_flux() / p.flux_lm());
  const auto code = photometry::flux_code(p);
  j["light_output_ratio"] = code && code->n5 ? number(*code->n5 / 100) : json(nullptr);
  j["flux_code"] =
      code ? json({number(code->n1), number(code->n2), number(code->n3), number(code->n4), number(code->n5)})
           : json(nullptr);
  j["peak_cd"] = number(peak.candela);
  j["peak_c_deg"] = number(peak.c_deg);
  j["peak_gamma_deg"] = number(peak.gamma_deg);
  j["symmetry_declared"] = to_string(p.declared_symmetry);
  j["symmetry_found"] = to_string(photometry::symmetry_found(p.table));
  j["kind"] = photometry::kind_of_distribution(p.table);
  j["c0_c180"] = edges_json(p, 0);
  j["c90_c270"] = edges_json(p, 90);
  j["luminance_cd_m2"] = luminance_json(p);
  j["spacing_to_height"] = {{"along_c0", number(photometry::spacing_criterion(p.table, 0))},
                            {"along_c90", number(photometry::spacing_criterion(p.table, 90))}};
}

json file_json(const Inspection& inspection, const std::vector<Direction>& directions, bool tables) {
  json j = {{"file", inspection.file}};
  if (!inspection.photometry) {
    j["format"] = nullptr;
    j["findings"] = findings_json(inspection.findings);
    return j;
  }
  const Photometry& p = *inspection.photometry;
  j["format"] = p.format;
  j["version"] = p.version;
  j["manufacturer"] = p.manufacturer;
  j["luminaire"] = p.luminaire;
  j["catalogue_number"] = p.catalogue_number;
  j["lamp"] = p.lamp;
  add_light(j, p);
  j["shape"] = to_string(p.area.shape);
  j["extent_c0_m"] = number(p.area.extent_c0_m);
  j["extent_c90_m"] = number(p.area.extent_c90_m);
  j["height_m"] = number(p.area.height_m());
  j["ugr"] = glare_tables_json(p, tables);
  if (!directions.empty()) {
    j["at"] = json::array();
    for (const Direction& d : directions)
      j["at"].push_back({{"c_deg", number(d.c_deg)},
                         {"gamma_deg", number(d.gamma_deg)},
                         {"cd", number(p.table.intensity(d.c_deg, d.gamma_deg))}});
  }
  j["keywords"] = json::array();
  for (const auto& [key, text] : p.keywords) j["keywords"].push_back({{"key", key}, {"text", text}});
  j["findings"] = findings_json(inspection.findings);
  return j;
}

}  // namespace

std::string inspection_json(const std::vector<Inspection>& files, const std::vector<Direction>& directions,
                            bool tables) {
  json document = {{"files", json::array()}};
  for (const Inspection& file : files) document["files"].push_back(file_json(file, directions, tables));
  return json_text(document);
}

}  // namespace glow::files
