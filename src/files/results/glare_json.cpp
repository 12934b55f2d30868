#include "files/results/glare_json.hpp"

#include <algorithm>
#include <cmath>
#include <set>
#include <stdexcept>

#include "files/output/file_names.hpp"
#include "files/results/grid_json.hpp"

namespace glow::files {
namespace {

constexpr std::size_t kMostViews = 400000;

using assess::EyeSetGlare;
using assess::RoomGlare;

json sources_json(const RoomGlare& glare) {
  json list = json::array();
  for (const assess::GlareSourceName& source : glare.sources)
    list.push_back({{"mark", source.mark},
                    {"at_m", point_json(source.position)},
                    {"luminaires", source.luminaires.size()}});
  return list;
}

json causes_json(const EyeSetGlare& set) {
  json list = json::array();
  for (const assess::SourceShare& cause : set.causes) {
    const glare::UgrTerm& t = cause.term;
    list.push_back({{"source", cause.source},
                    {"share", short_number(cause.share)},
                    {"distance_m", short_number(t.seen.distance_m)},
                    {"luminance_cd_m2",
                     t.seen.projected_area_m2 > 0 ? short_number(t.seen.luminance_cd_m2()) : json(nullptr)},
                    {"solid_angle_sr", short_number(t.seen.solid_angle_sr())},
                    {"position_index", short_number(t.position_index)},
                    {"seen_share", short_number(t.seen.seen_share)},
                    {"small", t.small},
                    {"outside_range", t.tiny || t.large || t.below}});
  }
  return list;
}

json changes_json(const std::vector<assess::GlareChange>& changes, const char* quantity) {
  json list = json::array();
  for (const assess::GlareChange& change : changes)
    list.push_back({{"change", change.words},
                    {quantity, short_number(change.value)},
                    {"worst_of_set", short_number(change.worst)}});
  return list;
}

json worst_json(const EyeSetGlare& set) {
  if (!set.worst) return nullptr;
  const std::size_t v = *set.worst;
  return {{"ugr", number(*set.views[v].ugr)},
          {"uncertainty", number(set.uncertainty)},
          {"at_m", point_json(set.set.position(v))},
          {"azimuth_deg", number(set.set.azimuths_deg[v])},
          {"looking", set.set.looking[v % set.set.directions()]},
          {"background_cd_m2", short_number(set.views[v].background_cd_m2)},
          {"causes", causes_json(set)},
          {"first_changed", changes_json(set.changes, "ugr")},
          {"remarks", set.remarks}};
}

json positions_json(const EyeSetGlare& set) {
  json list = json::array();
  const std::size_t directions = set.set.directions();
  for (std::size_t p = 0; p < set.set.positions.size(); ++p) {
    json j = {{"at_m", point_json(set.set.positions[p])}};
    json azimuths = json::array(), ugr = json::array();
    for (std::size_t d = 0; d < directions; ++d) {
      const std::size_t v = p * directions + d;
      azimuths.push_back(short_number(set.set.azimuths_deg[v]));
      ugr.push_back(!set.views.empty() && set.views[v].ugr ? short_number(*set.views[v].ugr) : json(nullptr));
    }
    j["azimuths_deg"] = std::move(azimuths);
    j["ugr"] = std::move(ugr);
    const auto worst = set.views.empty() ? std::nullopt : set.worst_at(p);
    const auto typical = set.views.empty() ? std::nullopt : set.typical_at(p);
    j["worst"] = worst ? short_number(*worst) : json(nullptr);
    j["typical"] = typical ? short_number(*typical) : json(nullptr);
    if (set.buried[p]) j["inside_a_thing"] = true;
    if (!set.ratings.empty()) {
      j["gr"] = set.ratings[p].gr ? short_number(*set.ratings[p].gr) : json(nullptr);
      j["gr_azimuth_deg"] = number(set.ratings[p].azimuth_deg);
    }
    list.push_back(std::move(j));
  }
  return list;
}

json set_json(const EyeSetGlare& set, const std::string& csv) {
  json j = {{"name", set.set.name},
            {"posture", set.set.posture},
            {"height_m", number(set.set.height_m)},
            {"verified", set.set.verified}};
  const Vec2 cell = set.set.grid ? set.set.grid->cell : Vec2(0, 0);
  j["cell_m"] = set.set.grid ? json({number(cell.x()), number(cell.y())}) : json(nullptr);
  j["looking"] = set.set.looking;
  j["worst"] = worst_json(set);
  j["typical"] = set.worst ? number(set.typical) : json(nullptr);
  if (set.worst_rating) {
    const assess::EyeRating& worst = set.ratings[*set.worst_rating];
    j["worst_gr"] = {{"gr", number(*worst.gr)},
                     {"uncertainty", number(set.rating_uncertainty)},
                     {"at_m", point_json(set.set.positions[*set.worst_rating])},
                     {"azimuth_deg", number(worst.azimuth_deg)},
                     {"source", worst.worst_source},
                     {"share", short_number(worst.worst_share)},
                     {"first_changed", changes_json(set.rating_changes, "gr")}};
  }
  j["csv"] = csv;
  j["positions"] = positions_json(set);
  return j;
}

json table_json(const assess::TableGlare& table) {
  json values = json::array();
  for (const auto& value : table.values)
    values.push_back({{"along", value.along},
                      {"x_h", short_number(value.x_h)},
                      {"y_h", short_number(value.y_h)},
                      {"crosswise", value.crosswise},
                      {"ugr", number(value.ugr)}});
  return {{"method", "CIE 190"}, {"mark", table.mark},       {"reflectances", table.reflectances},
          {"values", values},    {"why_not", table.why_not}, {"remarks", table.remarks}};
}

}  // namespace

json glare_json(const assess::RoomResult& room) {
  json j = {{"luminaires", "as new, dimmed as the project says"}};
  const std::vector<double> all = room.glare.all_ugr();
  j["worst_ugr"] = all.empty() ? json(nullptr) : number(all.back());
  j["typical_ugr"] = all.empty() ? json(nullptr) : number(all[all.size() / 2]);
  j["sources"] = sources_json(room.glare);
  j["eyes"] = json::array();
  for (const EyeSetGlare& set : room.glare.sets)
    j["eyes"].push_back(
        set_json(set, fmt::format(FMT_STRING("eyes/{}--{}.csv"), file_name_part(room.space->name),
                                  file_name_part(set.set.name))));
  j["tabular"] = table_json(room.glare.table);
  return j;
}

std::vector<record::EyeSetRecord> eyes_of(const json& j) {
  std::vector<record::EyeSetRecord> sets;
  std::set<std::string> names;
  for (const json& eyes : j.at("eyes")) {
    record::EyeSetRecord set;
    set.name = eyes.at("name").get<std::string>();
    if (file_name_part(set.name).empty() || !names.insert(file_name_part(set.name)).second)
      throw std::runtime_error("two sets of eyes have one name, or a set has none");
    set.height_m = number_of(eyes.at("height_m"));
    set.looking = eyes.at("looking").get<std::vector<std::string>>();
    if (!eyes.at("cell_m").is_null())
      set.cell_m = {number_of(eyes.at("cell_m").at(0)), number_of(eyes.at("cell_m").at(1))};
    if (set.looking.empty() || set.looking.size() * eyes.at("positions").size() > kMostViews ||
        set.cell_m.minCoeff() < 0)
      throw std::runtime_error("a set of eyes is not as it is written");
    for (const json& position : eyes.at("positions")) {
      set.positions.push_back(point_of(position.at("at_m")));
      const json &azimuths = position.at("azimuths_deg"), &ugr = position.at("ugr");
      if (azimuths.size() != set.looking.size() || ugr.size() != set.looking.size())
        throw std::runtime_error("an eye lacks directions");
      for (const json& azimuth : azimuths) set.azimuths_deg.push_back(number_of(azimuth));
      for (const json& value : ugr)
        set.ugr.push_back(value.is_null() ? std::nullopt : std::optional(number_of(value)));
    }
    sets.push_back(std::move(set));
  }
  return sets;
}

std::string eyes_csv(const RoomGlare& glare, const EyeSetGlare& set, const units::ShownUnits& units) {
  const char* m = units.length_unit();
  std::string text = fmt::format(FMT_STRING("x_{0},y_{0},z_{0},azimuth_deg,{1},worst_luminaire,worst_x_{0},"
                                            "worst_y_{0},worst_share\n"),
                                 m, set.views.empty() ? "gr" : "ugr,background_cd_m2");
  const auto place = [&](const Vec3& p) {
    return fmt::format(FMT_STRING("{:.6g},{:.6g},{:.6g}"), units.length(p.x()), units.length(p.y()),
                       units.length(p.z()));
  };
  const auto worst = [&](int source, double share) {
    if (source < 0) return std::string(",,,\n");
    const assess::GlareSourceName& name = glare.sources[std::size_t(source)];
    return fmt::format(FMT_STRING("{},{:.6g},{:.6g},{:.4f}\n"), name.mark, units.length(name.position.x()),
                       units.length(name.position.y()), share);
  };
  const auto value = [](const std::optional<double>& v) {
    return v ? fmt::format(FMT_STRING("{:.2f}"), *v) : std::string();
  };
  for (std::size_t v = 0; v < set.views.size(); ++v) {
    const assess::ViewGlare& view = set.views[v];
    text +=
        fmt::format(FMT_STRING("{},{:.6g},{},{:.5g},{}"), place(set.set.position(v)), set.set.azimuths_deg[v],
                    value(view.ugr), view.background_cd_m2, worst(view.worst_source, view.worst_share));
  }
  for (std::size_t p = 0; set.views.empty() && p < set.ratings.size(); ++p) {
    const assess::EyeRating& rating = set.ratings[p];
    text += fmt::format(FMT_STRING("{},{:.6g},{},{}"), place(set.set.positions[p]), rating.azimuth_deg,
                        value(rating.gr), worst(rating.worst_source, rating.worst_share));
  }
  return text;
}

}  // namespace glow::files
