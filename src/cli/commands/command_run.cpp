#include <fmt/format.h>

#include <cstdlib>

#include "cli/commands.hpp"
#include "cli/crew/shared_rooms.hpp"
#include "cli/options/arguments.hpp"
#include "cli/options/figure_options.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/run_project.hpp"
#include "cli/streams.hpp"
#include "cli/watch/watch_project.hpp"
#include "core/parallel/parallel.hpp"
#include "crew/crew.hpp"

namespace glow::cli {
namespace po = boost::program_options;

namespace {

CommandLine run_line() {
  CommandLine line{"glowgrid run PROJECT [options]",
                   "Computes every room of the project, holds it against its task's requirements and writes\n"
                   "results.json, a CSV for each grid, and figures.",
                   "  glowgrid run millrace.toml -o out --strict\n"
                   "  mpirun -np 4 glowgrid run millrace.toml    (by four processes)",
                   "project",
                   false,
                   po::options_description()};
  line.wants = "which project?";
  line.options.add_options()("output,o", po::value<std::string>()->value_name("FOLDER"),
                             "folder to write to; default: PROJECT-results beside the project file")(
      "accuracy,a", po::value<std::string>()->value_name("HOW")->default_value("normal"),
      "draft, normal (means to about 1 %, minima to 3 %), fine, or per cent for means, such as 0.5")(
      "no-cache", "trace everything anew, and keep nothing in PROJECT-cache")(
      "spread", "also tell how surely built rooms meet each check, given the deviations in [spread]")(
      "no-views", "make no pictures of rooms")("hours", po::value<std::string>()->value_name("csv|binary"),
                                               "also write all hours of the year of daylight at every point")(
      "variant", po::value<std::string>()->value_name("NAME"),
      "compute this variant only; without it the project and all of them")(
      "keep", po::value<std::string>()->value_name("NAME"),
      "keep the run, files and results, under this name (glowgrid runs)")(
      "then", po::value<std::string>()->value_name("COMMAND"),
      "run this by the shell when all is done; $GLOWGRID_EXIT is the exit code")(
      "watch", "run again whenever the project or a file that it names is saved, until Ctrl-C")(
      "strict", "exit with 1 when a requirement is not surely met")(
      "json", "print results.json instead of the table");
  add_room_option(line.options, "compute");
  add_units_option(line.options);
  add_common_options(line.options);
  return line;
}

/// What the user wants done when a long run has ended; what becomes of it is theirs, and told.
void run_then(const std::string& command, int code) {
  ::setenv("GLOWGRID_EXIT", std::to_string(code).c_str(), 1);
  const int status = std::system(command.c_str());
  if (status != 0) say(fmt::format(FMT_STRING("--then \"{}\" ended with status {}\n"), command, status));
}

}  // namespace

int command_run(const std::vector<std::string>& words) {
  const ParseResult parsed = parse(run_line(), words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const ThreadLimit threads(arguments.threads());
  RunOptions options;
  const auto accuracy = run::Accuracy::parse(arguments.text("accuracy"));
  if (!accuracy) {
    say(fmt::format(
        FMT_STRING("glowgrid run: --accuracy is \"{}\"; expected draft, normal, fine, or per cent from "
                   "0.1 to 20\n"),
        arguments.text("accuracy")));
    return kBadInput;
  }
  options.accuracy = *accuracy;
  if (arguments.has("units")) {
    options.units.emplace();
    if (!apply_units_option(arguments, "run", *options.units)) return kBadInput;
  }
  options.spread = arguments.flag("spread");
  options.wish = room_wish(arguments);
  options.use_cache = !arguments.flag("no-cache");
  options.pictures = !arguments.flag("no-views");
  if (arguments.has("hours")) {
    const std::string format = arguments.text("hours");
    if (format != "csv" && format != "binary") {
      say(fmt::format(FMT_STRING("glowgrid run: --hours is \"{}\"; expected csv or binary\n"), format));
      return kBadInput;
    }
    options.hours = format == "csv" ? files::HoursFormat::csv : files::HoursFormat::binary;
  }
  options.variant = arguments.text("variant");
  options.keep = arguments.text("keep");
  if (arguments.has("keep") && (options.keep.empty() || options.keep.find('#') != std::string::npos)) {
    say("glowgrid run: --keep wants a name without #, such as --keep \"wide beams\"\n");
    return kBadInput;
  }
  options.output = arguments.text("output");
  options.strict = arguments.flag("strict");
  options.json = arguments.flag("json");
  options.quiet = arguments.flag("quiet");
  const crew::Crew& crew = crew::Crew::own();
  if (!crew.leads()) return serve_run(arguments.text("project"), options);
  if (arguments.flag("watch") && !crew.is_alone()) {
    say("glowgrid run: --watch is for one process: it waits for you, not for work\n");
    return kBadInput;
  }
  if (arguments.flag("watch")) {
    for (const char* other : {"keep", "then", "strict", "json", "spread"})
      if (arguments.flag(other)) {
        say(fmt::format(FMT_STRING("glowgrid run: --watch has no end, and so no --{}\n"), other));
        return kBadInput;
      }
    return watch_project(arguments.text("project"), options);
  }
  const int code = run_project(arguments.text("project"), options);
  if (arguments.has("then")) run_then(arguments.text("then"), code);
  return code;
}

}  // namespace glow::cli
