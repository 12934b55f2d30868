#include "cli/write_figures.hpp"

#include <fmt/format.h>

#include "figures/raster/convert_svg.hpp"

namespace glow::cli {
namespace {

constexpr std::array<std::pair<FigureFormat, const char*>, 4> kNames = {{{FigureFormat::svg, "svg"},
                                                                         {FigureFormat::png, "png"},
                                                                         {FigureFormat::pdf, "pdf"},
                                                                         {FigureFormat::script, "script"}}};

/// The files of one figure, made on one thread. `staged` gives each its place.
struct Job {
  const figures::Figure* figure = nullptr;
  std::set<FigureFormat> formats;
  std::filesystem::path svg, png, pdf, script, data;
  std::string fault;

  void run() {
    const bool drawn = !formats.empty() && *formats.begin() != FigureFormat::script;
    const std::string drawing = drawn ? figure->svg() : std::string();
    if (formats.count(FigureFormat::svg)) files::write_staged(svg, drawing);
    for (const auto& [format, target] :
         {std::pair(FigureFormat::png, png), std::pair(FigureFormat::pdf, pdf)})
      if (formats.count(format) && fault.empty()) figures::convert_svg(drawing, target, fault);
    if (!formats.count(FigureFormat::script)) return;
    const figures::PlotScript plot = figure->script();
    files::write_staged(script, plot.script);
    files::write_staged(data, plot.data);
  }
};

}  // namespace

std::optional<std::set<FigureFormat>> parse_formats(const std::string& words) {
  std::set<FigureFormat> formats;
  for (std::size_t begin = 0; begin <= words.size();) {
    const std::size_t end = std::min(words.find(',', begin), words.size());
    const std::string word = words.substr(begin, end - begin);
    const auto found =
        std::find_if(kNames.begin(), kNames.end(), [&](const auto& n) { return n.second == word; });
    if (found == kNames.end()) return std::nullopt;
    formats.insert(found->first);
    begin = end + 1;
  }
  return formats;
}

void write_figures(const std::vector<figures::Figure>& list,
                   const std::function<std::set<FigureFormat>(const figures::Figure&)>& formats_of,
                   const std::string& prefix, files::OutputFolder& folder, Problems& problems,
                   const Watch& watch) {
  std::vector<Job> jobs;
  for (const figures::Figure& figure : list) {
    Job job{&figure, formats_of(figure), {}, {}, {}, {}, {}, {}};
    if (!figure.script) job.formats.erase(FigureFormat::script);
    const auto stage = [&](const char* suffix) { return folder.staged(prefix + figure.base + suffix); };
    if (job.formats.count(FigureFormat::svg)) job.svg = stage(".svg");
    if (job.formats.count(FigureFormat::png)) job.png = stage(".png");
    if (job.formats.count(FigureFormat::pdf)) job.pdf = stage(".pdf");
    if (job.formats.count(FigureFormat::script)) {
      job.script = stage(".gp");
      job.data = stage(".dat");
    }
    jobs.push_back(std::move(job));
  }
  parallel_for(jobs.size(), watch, "figures", [&](std::size_t i) { jobs[i].run(); });
  bool warned = false;
  for (const Job& job : jobs) {
    if (job.fault.empty()) continue;
    for (const auto& [path, suffix] : {std::pair(job.png, ".png"), std::pair(job.pdf, ".pdf")})
      if (!path.empty() && !std::filesystem::exists(path)) folder.forget(prefix + job.figure->base + suffix);
    if (!warned)
      problems.warning("E002", {prefix + job.figure->base, 0, 0},
                       fmt::format(FMT_STRING("figures were not converted: {}"), job.fault));
    warned = true;
  }
}

std::string write_figure_file(const std::filesystem::path& file, const std::string& svg) {
  const std::string suffix = file.extension().string();
  if (suffix == ".svg") {
    files::write_whole(file, svg);
    return {};
  }
  if (suffix != ".png" && suffix != ".pdf") return "expected a name that ends in .svg, .png or .pdf";
  std::filesystem::path aside = file;
  aside.replace_filename("." + file.stem().string() + ".part" + suffix);
  std::string reason;
  std::error_code error;
  if (figures::convert_svg(svg, aside, reason)) {
    std::filesystem::rename(aside, file, error);
    if (error) reason = error.message();
  }
  if (!reason.empty()) std::filesystem::remove(aside, error);
  return reason;
}

}  // namespace glow::cli
