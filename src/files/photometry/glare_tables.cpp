#include "files/photometry/glare_tables.hpp"

#include <cmath>

#include "core/cavity/ugr_table.hpp"

namespace glow::files {
namespace {

using cavity::UgrTable;
using cavity::UtilisationTable;
using photometry::Photometry;

json sets_json(const std::vector<cavity::Reflectances>& sets) {
  json list = json::array();
  for (const auto& r : sets) list.push_back({number(r.top), number(r.walls), number(r.bottom)});
  return list;
}

json values_json(const std::vector<std::vector<double>>& rows) {
  json list = json::array();
  for (const auto& row : rows) {
    json& line = list.emplace_back(json::array());
    for (const double value : row) line.push_back(short_number(value));
  }
  return list;
}

std::string set_name(const cavity::Reflectances& r) {
  return fmt::format(FMT_STRING("{:.0f}_{:.0f}_{:.0f}"), 100 * r.top, 100 * r.walls, 100 * r.bottom);
}

std::string cell(double value, int digits) {
  return std::isfinite(value) ? fmt::format(FMT_STRING(",{:.{}f}"), value, digits) : std::string(",");
}

void add_whole(json& j, const Photometry& p) {
  const UgrTable table = cavity::ugr_table(p);
  json rooms = json::array();
  for (const cavity::TableRoom& room : UgrTable::rooms()) rooms.push_back({number(room.x), number(room.y)});
  j["rooms_x_y_in_heights"] = rooms;
  j["reflectances_ceiling_walls_plane"] = sets_json(UgrTable::reflectances());
  j["uncorrected_along_c0_c180"] = values_json(table.along_c0);
  j["uncorrected_along_c90_c270"] = values_json(table.along_c90);
  const UtilisationTable factors = cavity::utilisation_table(p);
  json indices = json::array();
  for (const double k : UtilisationTable::indices()) indices.push_back(number(k));
  j["utilisation"] = {{"room_indices", indices},
                      {"reflectances_ceiling_walls_plane", sets_json(UtilisationTable::reflectances())},
                      {"factors", values_json(factors.factors)}};
}

}  // namespace

bool is_long_along_c0(const Photometry& p) {
  return p.area.extent_c0_m > p.area.extent_c90_m;
}

json glare_tables_json(const Photometry& p, bool whole) {
  const auto reason = cavity::no_ugr_table(p);
  if (reason) return {{"method", "CIE 190"}, {"not_given", cavity::to_string(*reason)}};
  const cavity::UgrHeadline headline = cavity::ugr_headline(p);
  json j = {{"method", "CIE 190"}, {"spacing_to_height", 0.25}};
  j["flux_correction"] = short_number(headline.correction);
  j["flux_lm"] = number(headline.lamp_flux_lm);
  j["symmetric"] = headline.symmetric;
  j["crosswise"] = is_long_along_c0(p) ? "along_c90_c270" : "along_c0_c180";
  j["headline_4h_8h_70_50_20"] = {{"along_c0_c180", short_number(headline.along_c0)},
                                  {"along_c90_c270", short_number(headline.along_c90)}};
  if (whole) add_whole(j, p);
  return j;
}

std::string ugr_table_csv(const Photometry& p) {
  std::string text = "x_H,y_H";
  for (const char* sight : {"crosswise", "endwise"})
    for (const auto& r : UgrTable::reflectances())
      text += fmt::format(FMT_STRING(",{}_{}"), sight, set_name(r));
  text += "\n";
  if (cavity::no_ugr_table(p)) return text;
  const UgrTable table = cavity::ugr_table(p);
  const bool turned = is_long_along_c0(p);
  const auto& crosswise = turned ? table.along_c90 : table.along_c0;
  const auto& endwise = turned ? table.along_c0 : table.along_c90;
  for (std::size_t r = 0; r < UgrTable::rooms().size(); ++r) {
    text += fmt::format(FMT_STRING("{:g},{:g}"), UgrTable::rooms()[r].x, UgrTable::rooms()[r].y);
    for (const auto* block : {&crosswise, &endwise})
      for (const double value : (*block)[r]) text += cell(value, 2);
    text += "\n";
  }
  return text;
}

std::string utilisation_csv(const Photometry& p) {
  std::string text = "room_index";
  for (const auto& r : UtilisationTable::reflectances()) text += "," + set_name(r);
  text += "\n";
  const UtilisationTable table = cavity::utilisation_table(p);
  for (std::size_t k = 0; k < table.factors.size(); ++k) {
    text += fmt::format(FMT_STRING("{:.2f}"), UtilisationTable::indices()[k]);
    for (const double factor : table.factors[k]) text += cell(factor, 4);
    text += "\n";
  }
  return text;
}

}  // namespace glow::files
