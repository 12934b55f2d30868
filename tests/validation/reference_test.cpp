// Every case of classes A to F of transport.json; see docs/validation.md for the table.
#include <gtest/gtest.h>

#include <algorithm>

#include "validation/reference_cases.hpp"

namespace glow::validation {
namespace reference_test {

class ReferenceTest : public testing::TestWithParam<std::string> {};

TEST_P(ReferenceTest, IsWithinItsTolerance) {
  const CaseResult result = run_case(GetParam(), transport::Effort{});
  ASSERT_FALSE(result.rows.empty());
  for (const Row& row : result.rows)
    EXPECT_TRUE(row.passed()) << row.receiver << " " << row.component << ": " << row.ours << ", expected "
                              << row.reference << " within " << row.allowed;
  if (result.closed) {
    const auto& b = result.balance;
    EXPECT_NEAR((b.absorbed_lm + b.escaped_lm + b.lost_lm) / b.emitted_lm, 1, 0.001);
    EXPECT_NEAR(b.captured_share, 1, 0.01);
  }
}

INSTANTIATE_TEST_SUITE_P(Cases, ReferenceTest, testing::ValuesIn(case_ids("abcdefgh")),
                         [](const testing::TestParamInfo<std::string>& id) {
                           std::string name = id.param;
                           std::replace_if(
                               name.begin(), name.end(), [](char c) { return !std::isalnum(c); }, '_');
                           return name;
                         });

}  // namespace reference_test
}  // namespace glow::validation
