#pragma once

#include <benchmark/benchmark.h>

#include "bench/benches.hpp"

namespace glow::bench {

/// Runs what has been registered, with options of the benchmark library. False: it does not know a word.
inline bool run_registered(const Words& words, benchmark::BenchmarkReporter* reporter = nullptr) {
  std::vector<std::string> all = words.all();
  all.insert(all.begin(), "glowgrid_bench");
  std::vector<char*> arguments;
  for (std::string& word : all) arguments.push_back(word.data());
  int count = int(arguments.size());
  benchmark::Initialize(&count, arguments.data());
  if (benchmark::ReportUnrecognizedArguments(count, arguments.data())) return false;
  benchmark::RunSpecifiedBenchmarks(reporter);
  return true;
}

}  // namespace glow::bench
