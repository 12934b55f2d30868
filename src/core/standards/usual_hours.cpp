#include "core/standards/usual_hours.hpp"

#include <array>

namespace glow::standards {
namespace {

enum class Building { office, education, hospital, restaurant, retail, factory };

struct AreaOf {
  const char* begins;  ///< of the area's name
  Building building;
};

constexpr std::array<AreaOf, 31> kAreas = {
    {{"offices", Building::office},         {"control rooms", Building::office},
     {"education", Building::education},    {"nurseries", Building::education},
     {"libraries", Building::education},    {"health", Building::hospital},
     {"restaurants", Building::restaurant}, {"retail", Building::retail},
     {"hairdressers", Building::retail},    {"trade fairs", Building::retail},
     {"metal", Building::factory},          {"textiles", Building::factory},
     {"electrical", Building::factory},     {"wood", Building::factory},
     {"rolling", Building::factory},        {"logistics", Building::factory},
     {"food", Building::factory},           {"chemicals", Building::factory},
     {"ceramics", Building::factory},       {"vehicle", Building::factory},
     {"leather", Building::factory},        {"foundries", Building::factory},
     {"printing", Building::factory},       {"power", Building::factory},
     {"laundries", Building::factory},      {"jewellery", Building::factory},
     {"cement", Building::factory},         {"agriculture", Building::factory},
     {"paper", Building::factory},          {"bakeries", Building::factory},
     {"storage", Building::factory}}};

UsualHours hours_of(Building building) {
  switch (building) {
    case Building::office:
      return {"office", 2250, 250};
    case Building::education:
      return {"education", 1800, 200};
    case Building::hospital:
      return {"hospital", 3000, 2000};
    case Building::restaurant:
      return {"restaurant", 1250, 1250};
    case Building::retail:
      return {"retail", 3000, 2000};
    case Building::factory:
      return {"factory", 2500, 1500};
  }
  return {};
}

}  // namespace

std::optional<UsualHours> usual_hours(const std::string& area) {
  for (const AreaOf& known : kAreas)
    if (area.rfind(known.begins, 0) == 0) return hours_of(known.building);
  return std::nullopt;
}

}  // namespace glow::standards
