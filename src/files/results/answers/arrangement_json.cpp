#include "files/results/answers/arrangement_json.hpp"

#include "files/text/json_text.hpp"
#include "words/topics/arrangement_words.hpp"

namespace glow::files {
namespace {

json field_json(const studies::TriedField& tried) {
  const studies::Field& field = tried.field;
  json j = {{"luminaires", field.luminaires}, {"rows", field.rows},
            {"columns", field.columns},       {"turned", field.turned},
            {"staggered", field.staggered},   {"dimming", number(field.dimming)}};
  if (field.height_m) j["mounting_height_m"] = number(*field.height_m);
  if (field.watts) j["watts_w"] = number(*field.watts);
  j["meets"] = tried.meets;
  j["checks"] = json::array();
  for (const standards::Check& check : tried.checks) {
    json own = {{"quantity", standards::to_string(check.demand.quantity)},
                {"required", number(check.demand.required)}};
    if (std::isfinite(check.actual)) own["actual"] = number(check.actual);
    j["checks"].push_back(std::move(own));
  }
  return j;
}

}  // namespace

json arrangement_json(const std::string& room, const std::string& mark, const studies::Arrangement& found) {
  json j = {{"room", room},
            {"mark", mark},
            {"least_luminaires", found.least_luminaires},
            {"most_luminaires", found.most_luminaires},
            {"fields", found.fields},
            {"calculated", found.calculated},
            {"best", found.best ? field_json(*found.best) : json()},
            {"others", json::array()}};
  for (const studies::TriedField& other : found.runners_up) j["others"].push_back(field_json(other));
  if (found.nearest) j["nearest"] = field_json(*found.nearest);
  return j;
}

std::string ranking_json(const std::string& room, const std::vector<run::RankedCandidate>& ranked,
                         const std::vector<run::Candidate>& candidates, const units::ShownUnits& units) {
  json j = {{"room", room}, {"candidates", json::array()}};
  for (const run::RankedCandidate& each : ranked) {
    json own = {{"file", candidates[each.candidate].file}, {"meets", each.meets()}};
    if (each.meets())
      own["best"] = field_json(*each.found.best);
    else
      own["why_not"] = words::shortcoming(each.found, units);
    if (each.w_per_m2_100lx) own["w_per_m2_100lx"] = number(*each.w_per_m2_100lx);
    j["candidates"].push_back(std::move(own));
  }
  return json_text(j);
}

}  // namespace glow::files
