#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <filesystem>

#include "cli/commands.hpp"
#include "cli/options/arguments.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/photometry/transform.hpp"
#include "core/units/quantity.hpp"
#include "files/output/output_folder.hpp"
#include "files/photometry/photometric_file.hpp"
#include "files/photometry/photometry_writer.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

using photometry::Photometry;

int complain(const std::string& text) {
  say(fmt::format(FMT_STRING("glowgrid convert: {}\n"), text));
  return kBadInput;
}

CommandLine convert_line() {
  CommandLine line{
      "glowgrid convert IN... -o OUT [options]",
      "Converts photometric files between IES LM-63 (.ies) and EULUMDAT (.ldt), keeping the light, and says\n"
      "what the target cannot carry. One IN, or several with --merge, make the file OUT; several without\n"
      "--merge go to the folder OUT, and --to names the format.",
      "  glowgrid convert photometry/tarnfell-p1.ldt -o tarnfell-p1.ies\n"
      "  glowgrid convert up.ies down.ldt --merge -o pendant.ldt --flux 5200",
      "in",
      true,
      po::options_description()};
  line.options.add_options()("output,o", po::value<std::string>()->value_name("OUT"),
                             "file or folder to write")("to", po::value<std::string>()->value_name("FORMAT"),
                                                        "ies or ldt; default: by the suffix of OUT")(
      "scale", po::value<std::string>()->value_name("F"), "multiply all light, and the lamps' flux")(
      "flux", po::value<std::string>()->value_name("LM"), "scale so that the luminaire gives this flux, lm")(
      "turn", po::value<std::string>()->value_name("DEG"),
      "turn about the vertical, counter-clockwise from above")(
      "merge", "make one luminaire at one place out of all files")("quiet,q", "do not say what is lost")(
      "help,h", "show this help");
  return line;
}

/// What is done to the light on the way; 0 = not asked for.
struct Changes {
  double scale = 0, flux_lm = 0, turn_deg = 0;
};

bool read_number(const Arguments& arguments, const char* option, bool positive, double& value) {
  if (!arguments.has(option)) return true;
  const bool read = units::parse_number(arguments.text(option), value);
  if (read && (!positive || value > 0)) return true;
  complain(fmt::format(FMT_STRING("--{} \"{}\": expected a number{}"), option, arguments.text(option),
                       positive ? " above 0" : ""));
  return false;
}

Photometry changed(Photometry p, const Changes& changes, std::vector<std::string>& losses) {
  if (changes.turn_deg != 0) p = photometry::turned(p, changes.turn_deg, losses);
  if (changes.scale > 0) p = photometry::scaled(p, changes.scale);
  if (changes.flux_lm > 0) p = photometry::scaled(p, changes.flux_lm / p.flux_lm());
  return p;
}

bool is_ies(const std::string& format) {
  return format == "ies";
}

/// Format by --to or the suffix; empty when neither tells.
std::string format_of(const Arguments& arguments, const fs::path& out) {
  std::string format = arguments.has("to") ? arguments.text("to") : out.extension().string();
  if (!format.empty() && format[0] == '.') format.erase(0, 1);
  std::transform(format.begin(), format.end(), format.begin(),
                 [](unsigned char c) { return std::tolower(c); });
  return format == "ies" || format == "ldt" ? format : std::string();
}

void write(const Photometry& p, const fs::path& out, const std::string& format,
           std::vector<std::string> losses, bool quiet) {
  const std::string bytes = is_ies(format) ? files::write_ies(p, losses)
                                           : files::write_eulumdat(p, out.filename().string(), losses);
  files::write_whole(out, bytes);
  tell(fmt::format(FMT_STRING("{}: {}, {:.1f} lm\n"), out.string(),
                   is_ies(format) ? "IES LM-63-2002" : "EULUMDAT", p.flux_lm()));
  if (!quiet)
    for (const std::string& loss : losses) say(fmt::format(FMT_STRING("{}: note: {}\n"), out.string(), loss));
}

/// Why the targets cannot all be written: two alike, or one that is also read. Empty when they can.
std::string clash_between(const std::vector<std::string>& names, const std::vector<fs::path>& targets,
                          bool to_folder) {
  for (std::size_t i = 0; i < targets.size(); ++i) {
    for (std::size_t k = 0; k < i; ++k)
      if (to_folder && targets[i] == targets[k])
        return fmt::format(FMT_STRING("\"{}\" and \"{}\" would both become \"{}\"; convert them apart"),
                           names[k], names[i], targets[i].string());
    for (const std::string& name : names) {
      std::error_code error;
      if (fs::equivalent(name, targets[i], error))
        return fmt::format(FMT_STRING("\"{}\" is one of the files to read; write to another place"),
                           targets[i].string());
    }
  }
  return {};
}

}  // namespace

int command_convert(const std::vector<std::string>& words) {
  const ParseResult parsed = parse(convert_line(), words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const std::vector<std::string> names = arguments.texts("in");
  if (names.empty() || !arguments.has("output"))
    return complain("which file, and where to? See glowgrid convert --help");
  Changes changes;
  if (!read_number(arguments, "scale", true, changes.scale) ||
      !read_number(arguments, "flux", true, changes.flux_lm) ||
      !read_number(arguments, "turn", false, changes.turn_deg))
    return kBadInput;
  const fs::path out = arguments.text("output");
  const bool merge = arguments.flag("merge"), to_folder = names.size() > 1 && !merge;
  const bool quiet = arguments.flag("quiet");
  const std::string format = format_of(arguments, to_folder ? fs::path() : out);
  if (format.empty())
    return complain("to which format? Give OUT the suffix .ies or .ldt, or say --to ies or --to ldt");

  std::vector<fs::path> targets;
  for (const std::string& name : names)
    targets.push_back(to_folder ? out / (fs::path(name).stem().string() + "." + format) : out);
  if (const std::string clash = clash_between(names, targets, to_folder); !clash.empty())
    return complain(clash);

  Problems problems;
  std::vector<Photometry> parts;
  for (const std::string& name : names) {
    if (auto p = files::read_photometric_file(name, problems, {name, 0, 0})) parts.push_back(std::move(*p));
  }
  print_problems(problems, {}, quiet);
  if (problems.has_errors()) return complain("nothing was written");

  std::vector<std::string> losses;
  if (!to_folder) {
    const Photometry whole = photometry::merged(parts, losses);
    write(changed(whole, changes, losses), out, format, losses, quiet);
    return kDone;
  }
  for (std::size_t i = 0; i < parts.size(); ++i) {
    losses.clear();
    write(changed(parts[i], changes, losses), targets[i], format, losses, quiet);
  }
  return kDone;
}

}  // namespace glow::cli
