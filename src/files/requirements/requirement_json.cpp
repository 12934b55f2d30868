#include "files/requirements/requirement_json.hpp"

#include <nlohmann/json.hpp>

#include "files/text/json_number.hpp"
#include "files/text/json_text.hpp"

namespace glow::files {
namespace {

json row_json(const standards::Requirement& r) {
  json j = {{"key", r.key},   {"source", r.source()},     {"area", r.area},
            {"task", r.task}, {"certainty", r.certainty}, {"plane_note", r.plane_note}};
  const auto put = [&](const char* name, const std::optional<double>& value) {
    if (value) j[name] = number(*value);
  };
  put("em_lx", r.em_lx);
  put("em_modified_lx", r.em_modified_lx);
  put("emin_lx", r.emin_lx);
  put("emax_over_emin", r.emax_over_emin);
  put("t50_s", r.t50_s);
  put("u0", r.uo);
  put("ra", r.ra);
  put("rugl", r.rugl);
  put("rgl", r.grl);
  put("ez_lx", r.ez_lx);
  put("ewall_lx", r.ewall_lx);
  put("eceiling_lx", r.eceiling_lx);
  put("plane_height_m", r.plane_height_m);
  const auto words = [&](const char* name, const std::string& text) {
    if (!text.empty()) j[name] = text;
  };
  words("class", r.sport_class);
  words("modified_certainty", r.modified_certainty);
  words("surface_certainty", r.surface_certainty);
  words("reference_certainty", r.reference_certainty);
  words("basis", r.basis);
  words("not_held", r.not_held);
  words("remark", r.remark);
  words("note", r.source_note);
  for (const auto& [name, value] : r.others) j[name] = value;
  return j;
}

}  // namespace

std::string requirements_json(const standards::RequirementTable& table,
                              const std::vector<const standards::Requirement*>& rows) {
  json document = {{"standard", table.name()}, {"tasks", json::array()}};
  for (const standards::Requirement* row : rows) document["tasks"].push_back(row_json(*row));
  return json_text(document);
}

}  // namespace glow::files
