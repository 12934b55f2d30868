#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <set>

#include "cli/commands.hpp"
#include "cli/options/arguments.hpp"
#include "cli/sheets/data_sheet.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/model/file_names.hpp"
#include "core/photometry/derived.hpp"
#include "core/units/quantity.hpp"
#include "figures/curves/intensity_figures.hpp"
#include "figures/raster/convert_svg.hpp"
#include "files/output/output_folder.hpp"
#include "files/photometry/glare_tables.hpp"
#include "files/photometry/photometric_file.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

constexpr std::size_t kMostSheets = 3;  // of more files a line each will do
constexpr double kNarrowBeam =
    20;  // degrees; below this the polar curve is a needle and the straight one is drawn too

files::Inspection look_at(const std::string& file) {
  files::Inspection inspection{file, nullptr, {}};
  Problems problems;
  if (auto photometry = files::read_photometric_file(file, problems, {file, 0, 0}))
    inspection.photometry = std::make_shared<const photometry::Photometry>(std::move(*photometry));
  inspection.findings = problems.all();
  return inspection;
}

/// Numbers of a list such as "30,45.5"; false when anything else stands there.
bool parse_numbers(const std::string& text, std::vector<double>& numbers) {
  for (std::size_t start = 0; start <= text.size();) {
    const std::size_t end = std::min(text.find(',', start), text.size());
    double value = 0;
    if (!units::parse_number(std::string_view(text).substr(start, end - start), value)) return false;
    numbers.push_back(value);
    start = end + 1;
  }
  return true;
}

bool parse_directions(const std::vector<std::string>& texts, std::vector<files::Direction>& directions) {
  for (const std::string& text : texts) {
    std::vector<double> numbers;
    if (!parse_numbers(text, numbers) || numbers.size() != 2 || numbers[1] < 0 || numbers[1] > 180) {
      say(fmt::format(
          FMT_STRING(
              "glowgrid inspect: --at \"{}\": expected C,GAMMA in degrees with gamma from 0 to 180, as in "
              "--at 90,45\n"),
          text));
      return false;
    }
    directions.push_back({numbers[0], numbers[1]});
  }
  return true;
}

class Figures {
 public:
  Figures(const fs::path& folder, figures::IntensityScale scale, double height_m, bool tables)
      : folder_(folder), scale_(std::move(scale)), height_m_(height_m), tables_(tables) {}

  void draw(const std::vector<files::Inspection>& inspections) {
    std::vector<figures::Curve> curves;
    for (const files::Inspection& i : inspections)
      if (i.photometry) curves.push_back({fs::path(i.file).filename().string(), i.photometry});
    if (curves.empty()) return;
    for (const figures::Curve& curve : curves) {
      const std::string stem = unique(model::file_name_part(fs::path(curve.name).filename().string()));
      write(stem + "--polar", figures::polar_svg({curve}, scale_));
      const auto beam = photometry::beam_edges(curve.photometry->table, 0, 0.5);
      if (beam && beam->width_deg() < kNarrowBeam) write(stem + "--beam", figures::beam_svg({curve}, scale_));
      write(stem + "--footprint", figures::footprint_svg(curve, height_m_));
      if (tables_) {
        table(stem + "--ugr.csv", files::ugr_table_csv(*curve.photometry));
        table(stem + "--utilisation.csv", files::utilisation_csv(*curve.photometry));
      }
    }
    if (curves.size() > 1) {
      write("together--polar", figures::polar_svg(curves, scale_));
      write("together--beam", figures::beam_svg(curves, scale_));
    }
    folder_.commit({});
  }
  const std::vector<std::string>& written() const { return written_; }

 private:
  std::string unique(const std::string& stem) {
    std::string name = stem;
    for (int n = 2; !stems_.insert(name).second; ++n) name = stem + "-" + std::to_string(n);
    return name;
  }
  void write(const std::string& name, const std::string& svg) {
    folder_.write(name + ".svg", svg);
    const fs::path png = folder_.staged(name + ".png");
    std::string reason;
    if (!figures::convert_svg(svg, png, reason)) {
      folder_.forget(name + ".png");
      say(fmt::format(FMT_STRING("{}.png is not written: {}\n"), name, reason));
    }
    written_.push_back((folder_.target() / (name + ".png")).string());
  }

  void table(const std::string& name, const std::string& csv) {
    folder_.write(name, csv);
    written_.push_back((folder_.target() / name).string());
  }

  files::OutputFolder folder_;
  figures::IntensityScale scale_;
  double height_m_;
  bool tables_;
  std::set<std::string> stems_;
  std::vector<std::string> written_;
};

CommandLine inspect_line() {
  CommandLine line{
      "glowgrid inspect FILE... [options]",
      "Shows what photometric files (IES LM-63, EULUMDAT) hold, what is doubtful or wrong in them, and with\n"
      "-o their curves: polar, straight for narrow beams, an isolux footprint, and several files together.\n"
      "Of more than three files a line each.\n"
      "Exits with 2 when a file is refused, after all were looked at.",
      "  glowgrid inspect photometry/tarnfell-p1.ldt photometry/quillon-d2.ies -o curves",
      "file",
      true,
      po::options_description()};
  line.wants = "which files?";
  line.options.add_options()("output,o", po::value<std::string>()->value_name("FOLDER"),
                             "draw the curves into this folder (SVG and PNG)")(
      "at", po::value<std::vector<std::string>>()->value_name("C,GAMMA")->composing(),
      "also give the intensity in this direction, degrees; may be repeated")(
      "planes", po::value<std::string>()->value_name("C,..."), "draw these C planes too, degrees")(
      "per-klm", "draw in cd per 1000 lm of lamp flux instead of cd")(
      "height", po::value<std::string>()->value_name("H"),
      "height of the footprint's plane below; default 2.5 m")(
      "tables", "also give the table of UGR (CIE 190) and utilisation factors; with -o as CSV, too")(
      "table", "a line for each file")("sheets", "all of each file, however many there are")(
      "json", "print one JSON document instead of the sheets")("quiet,q", "no warnings")("help,h",
                                                                                         "show this help");
  return line;
}

void print_findings(const std::vector<files::Inspection>& inspections, bool quiet) {
  for (const files::Inspection& inspection : inspections)
    for (const Problem& problem : inspection.findings)
      if (!quiet || problem.severity == Severity::error)
        say(fmt::format(FMT_STRING("{}\n"), to_string(problem)));
}

}  // namespace

int command_inspect(const std::vector<std::string>& words) {
  const ParseResult parsed = parse(inspect_line(), words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const std::vector<std::string> names = arguments.texts("file");
  std::vector<files::Direction> directions;
  figures::IntensityScale scale;
  const bool tables = arguments.flag("tables");
  scale.per_klm = arguments.flag("per-klm");
  const units::Parsed height = units::parse_quantity(
      arguments.has("height") ? arguments.text("height") : "2.5", units::Dimension::length);
  if (!parse_directions(arguments.texts("at"), directions)) return kBadInput;
  if (arguments.has("planes") && !parse_numbers(arguments.text("planes"), scale.more_planes)) {
    say(fmt::format(
        FMT_STRING("glowgrid inspect: --planes wants C planes in degrees, as in --planes 30,60\n")));
    return kBadInput;
  }
  if (!height.ok || height.value <= 0) {
    say(fmt::format(FMT_STRING("glowgrid inspect: --height: {}\n"),
                    height.ok ? "expected a height above 0" : height.problem));
    return kBadInput;
  }
  std::vector<files::Inspection> inspections;
  for (const std::string& name : names) inspections.push_back(look_at(name));
  std::vector<std::string> written;
  if (arguments.has("output")) {
    Figures drawn(arguments.text("output"), scale, height.value, tables);
    drawn.draw(inspections);
    written = drawn.written();
  }
  if (arguments.flag("json")) {
    tell(fmt::format(FMT_STRING("{}"), files::inspection_json(inspections, directions, tables)));
  } else {
    const bool lines =
        arguments.flag("table") ||
        (inspections.size() > kMostSheets && !arguments.flag("sheets") && !tables && directions.empty());
    if (lines) tell(data_table(inspections));
    for (std::size_t i = 0; i < inspections.size() && !lines; ++i)
      tell(fmt::format(FMT_STRING("{}{}"), i ? "\n" : "", data_sheet(inspections[i], directions, tables)));
    for (const std::string& path : written)
      tell(fmt::format(FMT_STRING("{}{}\n"), &path == &written[0] ? "\nDrawn:\n  " : "  ", path));
  }
  std::fflush(stdout);
  if (!arguments.flag("json")) print_findings(inspections, arguments.flag("quiet"));
  const bool refused =
      std::any_of(inspections.begin(), inspections.end(), [](const auto& i) { return !i.photometry; });
  return refused ? kBadInput : kDone;
}

}  // namespace glow::cli
