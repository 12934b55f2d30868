// Daylight through openings against closed forms, quadrature and independent Monte Carlo.
#include <gtest/gtest.h>

#include "validation/daylight_cases.hpp"

namespace glow::validation {
namespace daylight_reference_test {

class DaylightCase : public testing::TestWithParam<std::string> {};

TEST_P(DaylightCase, IsWithinTheReferencesTolerance) {
  const CaseResult result = run_daylight_case(GetParam(), transport::Effort::fine());
  EXPECT_FALSE(result.rows.empty());
  for (const Row& row : result.rows)
    EXPECT_TRUE(row.passed()) << row.receiver << " " << row.component << ": " << row.ours << " instead of "
                              << row.reference << " +/- " << row.allowed;
}

INSTANTIATE_TEST_SUITE_P(Reference, DaylightCase, testing::ValuesIn(daylight_case_ids()), [](const auto& of) {
  std::string name = of.param;
  for (char& c : name)
    if (!std::isalnum(static_cast<unsigned char>(c))) c = '_';
  return name;
});

}  // namespace daylight_reference_test
}  // namespace glow::validation
