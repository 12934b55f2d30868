#include "files/weather/weather_json.hpp"

#include "files/text/json_number.hpp"
#include "files/text/json_text.hpp"

namespace glow::files {

std::string weather_json(const std::string& file, const daylight::Weather& weather,
                         const daylight::Climate& climate) {
  json document;
  document["file"] = file;
  document["place"] = weather.place;
  document["latitude_deg"] = number(weather.latitude_deg);
  document["longitude_deg"] = number(weather.longitude_deg);
  document["time_zone_h"] = number(weather.time_zone_h);
  document["elevation_m"] = number(weather.elevation_m);
  document["period"] = weather.period;
  document["hours"] = weather.hours.size();
  document["missing_hours"] = weather.missing;
  document["light_hours"] = climate.light_hours;
  document["global_kwh_m2"] = number(climate.global_kwh_m2);
  document["direct_normal_kwh_m2"] = number(climate.direct_kwh_m2);
  document["diffuse_kwh_m2"] = number(climate.diffuse_kwh_m2);
  document["most_global_w_m2"] = number(climate.most_global_w_m2);
  document["most_direct_normal_w_m2"] = number(climate.most_direct_w_m2);
  document["most_diffuse_w_m2"] = number(climate.most_diffuse_w_m2);
  document["global_klxh"] = number(climate.global_klxh);
  document["direct_normal_klxh"] = number(climate.direct_klxh);
  document["diffuse_klxh"] = number(climate.diffuse_klxh);
  document["median_diffuse_lx"] = number(climate.median_diffuse_lx);
  document["hours_by_clearness"] = climate.by_clearness;
  for (const daylight::Climate::Month& month : climate.months)
    document["months"].push_back({{"global_kwh_m2", number(month.global_kwh_m2)},
                                  {"sunshine_h", month.sunshine_h},
                                  {"light_hours", month.light_hours},
                                  {"median_diffuse_lx", number(month.median_diffuse_lx)},
                                  {"hours_overcast", month.by_sky[daylight::Climate::kOvercast]},
                                  {"hours_between", month.by_sky[daylight::Climate::kBetween]},
                                  {"hours_clear", month.by_sky[daylight::Climate::kClear]}});
  return json_text(document);
}

}  // namespace glow::files
