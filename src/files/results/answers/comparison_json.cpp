#include "files/results/answers/comparison_json.hpp"

#include "files/text/json_number.hpp"
#include "files/text/json_text.hpp"

namespace glow::files {
namespace {

const char* word(record::ComparedMeasure measure) {
  using record::ComparedMeasure;
  switch (measure) {
    case ComparedMeasure::checks_met:
      return "checks_met";
    case ComparedMeasure::mean_lx:
      return "mean_lx";
    case ComparedMeasure::uniformity:
      return "uniformity";
    case ComparedMeasure::glare:
      return "highest_ugr";
    case ComparedMeasure::neighbour_glare:
      return "highest_k_at_neighbours";
    case ComparedMeasure::daylight_factor:
      return "daylight_factor";
    case ComparedMeasure::watts:
      return "drawn_w";
    case ComparedMeasure::watts_per_m2:
      return "drawn_w_per_m2";
    case ComparedMeasure::autonomy:
      return "daylight_autonomy_percent";
    case ComparedMeasure::kwh:
      return "energy_kwh";
    case ComparedMeasure::energy_cost:
      return "energy_cost_a_year";
    case ComparedMeasure::investment:
      return "invested";
    case ComparedMeasure::payback_years:
      return "payback_years";
    case ComparedMeasure::watts_per_m2_100lx:
      break;
  }
  return "installed_w_per_m2_100lx";
}

const char* word(record::Change change) {
  using record::Change;
  switch (change) {
    case Change::within_doubt:
      return "within uncertainty";
    case Change::better:
      return "better";
    case Change::worse:
      return "worse";
    case Change::other:
      return "other";
    case Change::none:
      break;
  }
  return "none";
}

}  // namespace

std::string comparison_json(const std::vector<record::ComparedRoom>& rooms,
                            const std::vector<std::string>& runs) {
  json document = {{"runs", runs}, {"rooms", json::array()}};
  for (const record::ComparedRoom& room : rooms) {
    json own = {{"name", room.name}, {"worse", room.is_worse()}, {"measures", json::array()}};
    for (const record::ComparedRow& row : room.rows) {
      json values = json::array();
      for (const record::Compared& value : row.values) {
        if (!value.value) {
          values.push_back(nullptr);
          continue;
        }
        json one = {{"value", number(*value.value)},
                    {"uncertainty", number(value.uncertainty)},
                    {"change", word(value.change)}};
        if (row.measure == record::ComparedMeasure::checks_met) one["of"] = number(value.of);
        values.push_back(std::move(one));
      }
      own["measures"].push_back({{"measure", word(row.measure)}, {"values", std::move(values)}});
    }
    document["rooms"].push_back(std::move(own));
  }
  return json_text(document);
}

}  // namespace glow::files
