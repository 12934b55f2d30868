// Photometric files: how many are read a second, and what a look-up by direction costs against a plain
// bilinear look-up by C and gamma in the same table, with the angles found by the library's acos and atan2.
#include <fmt/format.h>

#include <fstream>
#include <map>
#include <random>
#include <sstream>

#include "bench/repeated.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "files/photometry/photometry_reader.hpp"

namespace glow::bench::photometry_bench {
namespace {

std::string content_of(const char* path) {
  std::ifstream file(path, std::ios::binary);
  std::ostringstream content;
  content << file.rdbuf();
  return content.str();
}

/// 24 x 37 values over the full circle: an ordinary table.
const photometry::IntensityTable& street_table() {
  static const photometry::IntensityTable table = [] {
    Problems problems;
    return files::read_photometry(content_of(GLOWGRID_SOURCE "/tests/photometry/valid/e05-street.ldt"),
                                  "street.ldt", problems)
        ->table;
  }();
  return table;
}

const std::vector<Vec3>& directions() {
  static const std::vector<Vec3> all = [] {
    std::mt19937 chance(1);
    std::vector<Vec3> list;
    while (list.size() < 4096) {
      const Vec3 d = Vec3(double(chance()), double(chance()), double(chance())) / 2147483648.0 - Vec3::Ones();
      if (d.squaredNorm() > 1e-6 && d.squaredNorm() < 1) list.push_back(d.normalized());
    }
    return list;
  }();
  return all;
}

/// The table as a bare array and the arithmetic of the textbook: even steps, no checks.
struct PlainTable {
  std::vector<double> values;
  double c_step = 0, gamma_step = 0;
  std::size_t row = 0;

  explicit PlainTable(const photometry::IntensityTable& t)
      : c_step(t.c_deg()[1]), gamma_step(t.gamma_deg()[1]), row(t.gamma_deg().size()) {
    for (std::size_t c = 0; c < t.c_deg().size(); ++c)
      for (std::size_t g = 0; g < row; ++g) values.push_back(t.node(c, g));
  }
  double at(double c_deg, double gamma_deg) const {
    const double x = c_deg / c_step, y = gamma_deg / gamma_step;
    const std::size_t c = std::size_t(x), g = std::min(std::size_t(y), row - 2);
    const double s = x - double(c), t = y - double(g);
    const double* a = &values[c * row + g];
    return (1 - s) * ((1 - t) * a[0] + t * a[1]) + s * ((1 - t) * a[row] + t * a[row + 1]);
  }
};

void plain_look_up(benchmark::State& state) {
  const PlainTable table(street_table());
  const double end = street_table().gamma_deg().back();
  for (auto _ : state)
    for (const Vec3& d : directions()) {
      const double gamma = std::acos(d.z()) / kDegree;
      double c = std::atan2(d.y(), d.x()) / kDegree;
      if (c < 0) c += 360;
      benchmark::DoNotOptimize(gamma > end ? 0.0 : table.at(c, gamma));
    }
  state.SetItemsProcessed(state.iterations() * std::int64_t(directions().size()));
}

void look_up(benchmark::State& state) {
  for (auto _ : state)
    for (const Vec3& d : directions())
      benchmark::DoNotOptimize(street_table().intensity_along(d.x(), d.y(), d.z()));
  state.SetItemsProcessed(state.iterations() * std::int64_t(directions().size()));
}

void read_files(benchmark::State& state) {
  std::vector<std::string> contents;
  for (const char* name :
       {"/valid/e01-panel.ldt", "/valid/e05-street.ldt", "/valid/i01-panel.ies",
        "/valid/i09-street-90-270.ies", "/valid/i05-pendant-multiplier.ies", "/valid/e02-pendant.ldt"})
    contents.push_back(content_of((std::string(GLOWGRID_SOURCE "/tests/photometry") + name).c_str()));
  for (auto _ : state)
    for (const std::string& content : contents) {
      Problems problems;
      benchmark::DoNotOptimize(files::read_photometry(content, "bench", problems));
    }
  state.SetItemsProcessed(state.iterations() * std::int64_t(contents.size()));
}

class Ratios : public benchmark::ConsoleReporter {
 public:
  void ReportRuns(const std::vector<Run>& runs) override {
    ConsoleReporter::ReportRuns(runs);
    for (const Run& run : runs)
      if (run.aggregate_name == "median")
        rate_[run.run_name.function_name] = run.counters.at("items_per_second");
  }
  void print() {
    fmt::print(
        FMT_STRING("\nlook-up by direction / plain bilinear look-up   {:.2f} times as many a second\n"),
        rate_["look_up"] / rate_["plain_look_up"]);
    fmt::print(FMT_STRING("files read                                      {:.0f} a second\n"),
               rate_["read_files"]);
  }

 private:
  std::map<std::string, double> rate_;
};

int measure(const Words& words) {
  const auto add = [](const char* name, void (*function)(benchmark::State&)) {
    benchmark::RegisterBenchmark(name, function)->Repetitions(9)->ReportAggregatesOnly(true)->MinTime(0.1);
  };
  add("plain_look_up", plain_look_up);
  add("look_up", look_up);
  add("read_files", read_files);
  Ratios reporter;
  if (!run_registered(words, &reporter)) return 1;
  reporter.print();
  return 0;
}

const Measurement known("photometry", measure);

}  // namespace
}  // namespace glow::bench::photometry_bench
