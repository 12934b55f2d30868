#include "files/results/answers/probe_json.hpp"

#include "files/text/json_number.hpp"
#include "files/text/json_text.hpp"

namespace glow::files {
namespace {

json vector_json(const Vec3& v) {
  return json::array({number(v.x()), number(v.y()), number(v.z())});
}

json chromaticity_json(const colour::Chromaticity& c, const std::optional<colour::Temperature>& t) {
  return {{"x", number(c.x)},
          {"y", number(c.y)},
          {"cct_k", t ? number(t->kelvin) : json()},
          {"duv", t ? number(t->duv) : json()}};
}

json colour_json(const studies::ProbedColour& colour) {
  json j = {{"known_share", number(colour.mixture.known_share)}};
  j.update(chromaticity_json(*colour.mixture.total, colour.mixture.temperature));
  for (const studies::GroupColour& group : colour.groups) {
    json own = {{"group", group.name}, {"total_lx", number(group.total_lx)}};
    own.update(chromaticity_json(group.chromaticity, group.temperature));
    j["groups"].push_back(std::move(own));
  }
  return j;
}

}  // namespace

std::string probe_json(const std::string& room, const readings::Receiver& point,
                       const studies::ProbeResult& result) {
  json j = {{"room", room},
            {"at_m", vector_json(point.position)},
            {"facing", vector_json(point.normal)},
            {"direct_lx", number(result.direct_lx)},
            {"interreflected_lx", number(result.interreflected_lx)},
            {"total_lx", number(result.total_lx())},
            {"uncertainty_lx", number(result.uncertainty_lx)},
            {"luminaires", json::array()}};
  for (const studies::LuminaireShare& l : result.luminaires)
    j["luminaires"].push_back({{"mark", l.mark},
                               {"at_m", vector_json(l.position)},
                               {"direct_lx", number(l.direct_lx)},
                               {"interreflected_lx", number(l.interreflected_lx)},
                               {"total_lx", number(l.total_lx())},
                               {"cct_k", number(l.cct_k)}});
  if (result.colour) j["colour"] = colour_json(*result.colour);
  return json_text(j);
}

}  // namespace glow::files
