// All measurements as one program, so that what they share is compiled and linked once.
//
//   glowgrid_bench NAME [WORDS]   each file says which words it takes; without a name: which there are
#include "bench/benches.hpp"

#include <fmt/format.h>

#include <map>

namespace glow::bench {
namespace {

std::map<std::string, int (*)(const Words&)>& measurements() {
  static std::map<std::string, int (*)(const Words&)> known;
  return known;
}

}  // namespace

Measurement::Measurement(const char* name, int (*measure)(const Words&)) {
  measurements()[name] = measure;
}

}  // namespace glow::bench

int main(int argc, char** argv) {
  const auto& known = glow::bench::measurements();
  const auto chosen = argc > 1 ? known.find(argv[1]) : known.end();
  if (chosen != known.end()) return chosen->second({argc - 2, argv + 2});
  for (const auto& [name, measure] : known) fmt::print(FMT_STRING("{}\n"), name);
  return 2;
}
