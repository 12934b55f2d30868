#include "files/results/results_json.hpp"
#include "files/results/results_reader.hpp"
#include "fuzz_target.hpp"

namespace glow::fuzz {

void read(std::string_view bytes) {
  Problems problems;
  const auto run = files::read_results(bytes, "results.json", problems);
  must(run.has_value() == !problems.has_errors());
  if (!run) return;
  // What was read is written whole, and read again it is the same.
  const std::string written = files::results_json(*run);
  const auto again = files::read_results(written, "results.json", problems);
  must(again.has_value());
  must(files::results_json(*again) == written);
}

}  // namespace glow::fuzz
