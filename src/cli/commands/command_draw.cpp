#include <fmt/format.h>

#include <algorithm>

#include "cli/commands.hpp"
#include "cli/open_results.hpp"
#include "cli/options/figure_options.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "cli/write_figures.hpp"
#include "files/output/output_folder.hpp"
#include "files/results/drawn_list.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

std::string lower(std::string words) {
  for (char& c : words)
    if (c >= 'A' && c <= 'Z') c = char(c - 'A' + 'a');
  return words;
}

/// Figures whose name or title holds one of the words; all without words.
std::vector<figures::Figure> chosen(std::vector<figures::Figure> list,
                                    const std::vector<std::string>& words) {
  if (words.empty() || list.empty()) return list;
  std::vector<figures::Figure> result;
  for (figures::Figure& figure : list) {
    const std::string name = lower(figure.base + " " + figure.what);
    if (std::any_of(words.begin(), words.end(),
                    [&](const std::string& word) { return name.find(lower(word)) != std::string::npos; }))
      result.push_back(std::move(figure));
  }
  if (!result.empty()) return result;
  say(fmt::format(FMT_STRING("glowgrid draw: no figure is called {}; there are:\n"),
                  fmt::join(words, " or ")));
  for (const figures::Figure& figure : list)
    say(fmt::format(FMT_STRING("  {:<44} {}\n"), figure.base, figure.what));
  return {};
}

/// "open, closing": what each room that has both has more in the first.
std::vector<figures::Figure> differences(const std::string& words, const record::RunRecord& run) {
  const auto trimmed = [](std::string name) {
    name.erase(0, name.find_first_not_of(' '));
    name.erase(name.find_last_not_of(' ') + 1);
    return name;
  };
  std::vector<figures::Figure> list;
  const std::size_t comma = words.find(',');
  if (comma != std::string::npos)
    for (const record::RoomRecord& room : run.rooms)
      for (figures::Figure& figure : figures::differences_of(
               room, trimmed(words.substr(0, comma)), trimmed(words.substr(comma + 1)), run.style, run.units))
        list.push_back(std::move(figure));
  if (!list.empty()) return list;
  std::set<std::string> names;
  for (const record::RoomRecord& room : run.rooms)
    for (const record::SceneRecord& scene : room.scenes) names.insert(scene.name);
  say(fmt::format(
      FMT_STRING("glowgrid draw: --difference is \"{}\"; expected two scenes of one room, such as "
                 "\"open, closing\"; there are: as placed{}{}\n"),
      words, names.empty() ? "" : ", ", fmt::join(names, ", ")));
  return {};
}

int draw(const Arguments& arguments, OpenResults& source, const std::set<FigureFormat>& formats, bool quiet) {
  const std::vector<figures::Figure> list =
      chosen(arguments.has("difference") ? differences(arguments.text("difference"), source.run)
                                         : figures::figures_of(source.run),
             arguments.texts("only"));
  if (list.empty()) return kBadInput;
  const bool own_folder = !arguments.has("output");
  files::OutputFolder folder(own_folder ? source.file.parent_path() / "figures"
                                        : fs::path(arguments.text("output")));
  Problems found;
  {
    Progress progress(quiet);
    write_figures(
        list, [&](const figures::Figure&) { return formats; }, "", folder, found,
        progress.watch(source.run.project));
    progress.watch(source.run.project).stop_if_cancelled();
  }
  print_problems(found, {}, quiet);
  // The next run takes away what it did not write itself, so that no picture outlives its results.
  if (own_folder) folder.write(files::kDrawnList, files::drawn_list(folder.target(), folder.names()));
  folder.commit({});
  // Something that was asked for is not there.
  const bool whole = found.all().empty();
  if (quiet) return whole ? kDone : kFailure;
  tell(fmt::format(FMT_STRING("Written to {}:\n"), fs::proximate(folder.target()).string()));
  for (const figures::Figure& figure : list)
    tell(fmt::format(FMT_STRING("  {:<44} {}\n"), figure.base, figure.what));
  return whole ? kDone : kFailure;
}

CommandLine draw_line() {
  CommandLine line{
      "glowgrid draw RESULTS|PROJECT [options]",
      "Makes the figures of a run again from its results.json, without computing: all of them, or\n"
      "those whose name or title holds one of the words of --only. Given the project, its [figures]\n"
      "settings count as they are now; options count more.",
      "  glowgrid draw millrace.toml --only columns --only showroom\n"
      "  glowgrid draw millrace-results --limits 100,1000 --scale log --format pdf,script",
      "source",
      false,
      po::options_description()};
  line.wants = "which results, or which project?";
  line.options.add_options()("only", po::value<std::vector<std::string>>()->value_name("WORD")->composing(),
                             "only figures with this word; may be given several times")(
      "format,f", po::value<std::string>()->value_name("LIST")->default_value("svg,png"),
      "any of svg, png, pdf and script (gnuplot, with its data)")(
      "difference", po::value<std::string>()->value_name("SCENE,SCENE"),
      "what grids have more in the first of two scenes; \"as placed\" is one of them")(
      "output,o", po::value<std::string>()->value_name("FOLDER"), "default: figures/ beside results.json");
  add_figure_options(line.options);
  add_common_options(line.options);
  return line;
}

}  // namespace

int command_draw(const std::vector<std::string>& words) {
  const ParseResult parsed = parse(draw_line(), words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const auto formats = parse_formats(arguments.text("format"));
  if (!formats) {
    say(fmt::format(
        FMT_STRING("glowgrid draw: --format is \"{}\"; expected any of svg, png, pdf and script, with "
                   "commas between\n"),
        arguments.text("format")));
    return kBadInput;
  }
  const ThreadLimit threads(arguments.threads());
  const bool quiet = arguments.flag("quiet");
  Problems problems;
  auto source = open_results(arguments.text("source"), problems);
  print_problems(problems, {}, quiet);
  if (!source || problems.has_errors()) return kBadInput;
  if (!apply_units_option(arguments, "draw", source->run.units) ||
      !apply_figure_options(arguments, "draw", source->run.units, source->run.style))
    return kBadInput;
  return draw(arguments, *source, *formats, quiet);
}

}  // namespace glow::cli
