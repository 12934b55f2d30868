#include "core/daylight/climate.hpp"
#include "files/weather/weather_reader.hpp"
#include "fuzz_target.hpp"

namespace glow::fuzz {

void read(std::string_view bytes) {
  Problems problems;
  const auto weather = files::read_weather(bytes, "fuzz.epw", problems);
  must(weather.has_value() == !problems.has_errors());
  if (!weather) return;
  const auto hours = daylight::hours_outside(*weather);
  for (const daylight::HourOutside& hour : hours)
    must(std::isfinite(hour.sky.diffuse_lx) && hour.sky.diffuse_lx >= 0 && hour.sky.direct_normal_lx >= 0 &&
         hour.number >= 0 && hour.number < daylight::kHoursOfYear);
  must(std::isfinite(daylight::climate_of(*weather, hours).global_klxh));
}

}  // namespace glow::fuzz
