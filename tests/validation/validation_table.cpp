// Writes the table of reference cases to standard output, as Markdown.
#include <fmt/format.h>

#include <cmath>

#include "validation/reference_cases.hpp"

int main() {
  using namespace glow::validation;
  fmt::print(
      FMT_STRING("# Reference cases\n\n"
                 "Made by `cmake --build build/release --target validation-table`; do not edit by hand.\n\n"
                 "References come from closed forms or independent computation "
                 "(`tests/validation/transport.json`); none was computed by this program.\n"
                 "A row passes when |ours - reference| is at most the allowed deviation that the case names. "
                 "The flux balance is absorbed (and escaped) over emitted flux. `caught` is the share of the "
                 "emitted flux that "
                 "points on the surfaces find by themselves, before the sum is made to balance.\n\n"
                 "## Summary\n\n"
                 "| case | what | values | passed | largest deviation / allowed | flux balance | caught |\n"
                 "| --- | --- | ---: | ---: | ---: | ---: | ---: |\n"));
  std::string details;
  int values = 0, passed = 0;
  for (const std::string& id : case_ids("abcdefgh")) {
    const CaseResult result = run_case(id, glow::transport::Effort{});
    int own_passed = 0;
    double worst = 0;
    details += fmt::format(
        FMT_STRING("\n## {}: {}\n\n| receiver | component | reference | ours | deviation | allowed "
                   "| passed |\n| --- | --- | ---: | ---: | ---: | ---: | --- |\n"),
        id, result.title);
    for (const Row& row : result.rows) {
      own_passed += row.passed();
      worst = std::max(worst, std::abs(row.ours - row.reference) / row.allowed);
      details += fmt::format(FMT_STRING("| {} | {} | {:.6g} {} | {:.6g} | {:+.3g} | {:.3g} | {} |\n"),
                             row.receiver, row.component, row.reference, row.unit, row.ours,
                             row.ours - row.reference, row.allowed, row.passed() ? "yes" : "NO");
    }
    const auto& b = result.balance;
    fmt::print(FMT_STRING("| {} | {} | {} | {} | {:.2f} | {} | {} |\n"), id, result.title, result.rows.size(),
               own_passed, worst,
               result.closed ? fmt::format(FMT_STRING("{:.5f}"),
                                           (b.absorbed_lm + b.escaped_lm + b.lost_lm) / b.emitted_lm)
                             : "open scene",
               result.closed ? fmt::format(FMT_STRING("{:.4f}"), b.captured_share) : "-");
    values += int(result.rows.size());
    passed += own_passed;
  }
  fmt::print(FMT_STRING("\n{} of {} values within their tolerances.\n{}"), passed, values, details);
  return passed == values ? 0 : 1;
}
