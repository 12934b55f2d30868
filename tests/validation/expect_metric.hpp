#pragma once

#include <gtest/gtest.h>

#include "validation/metric_cases.hpp"

namespace glow::reference {

/// Within the tolerance that a case of metrics.json states for a value.
inline void expect_as(const nlohmann::json& of, const char* name, double found, double expected) {
  const nlohmann::json& all = of.at("tolerance");
  const nlohmann::json& tolerance = all.contains(name) ? all.at(name) : all.at("*");
  const double allowed = tolerance.contains("abs") ? tolerance.at("abs").get<double>()
                                                   : tolerance.at("rel").get<double>() * std::abs(expected);
  EXPECT_NEAR(found, expected, allowed) << of.at("id") << " " << name;
}
inline void expect_as(const nlohmann::json& of, const char* name, double found) {
  expect_as(of, name, found, of.at("expected").at(name).get<double>());
}

}  // namespace glow::reference
