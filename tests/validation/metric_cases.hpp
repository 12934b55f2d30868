#pragma once

#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "test_files.hpp"

namespace glow::reference {

/// Reference values for metrics: `photometries` and `cases`, see docs/validation.md.
inline const nlohmann::json& metrics() {
  static const nlohmann::json parsed = test::json_in(test::test_data("validation/metrics.json"));
  return parsed;
}

/// The cases whose id begins so.
inline std::vector<nlohmann::json> metric_cases(const std::string& prefix) {
  std::vector<nlohmann::json> found;
  for (const nlohmann::json& c : metrics().at("cases"))
    if (c.at("id").get<std::string>().rfind(prefix, 0) == 0) found.push_back(c);
  return found;
}

}  // namespace glow::reference
