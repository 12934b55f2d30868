#include <fmt/format.h>

#include <filesystem>
#include <fstream>
#include <sstream>

#include "cli/commands.hpp"
#include "cli/options/arguments.hpp"
#include "cli/run_project.hpp"
#include "cli/streams.hpp"
#include "core/parallel/parallel.hpp"
#include "files/output/embedded_files.hpp"
#include "files/output/output_folder.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

constexpr const char* kDefaultFolder = "millrace-demo";
constexpr const char* kProject = "millrace.toml";

std::string content_of(const fs::path& path) {
  std::ifstream file(path, std::ios::binary);
  std::ostringstream content;
  content << file.rdbuf();
  return content.str();
}

/// A file that somebody changed is theirs now: it is not written over.
bool changed_by_hand(const fs::path& folder) {
  bool changed = false;
  for (const files::EmbeddedFile& file : files::embedded_demo()) {
    std::error_code error;
    if (!fs::exists(folder / file.name, error) || content_of(folder / file.name) == file.bytes) continue;
    say(fmt::format(FMT_STRING("\"{}\" is not as the demo wrote it and is left alone\n"),
                    (folder / file.name).string()));
    changed = true;
  }
  return changed;
}

}  // namespace

int command_demo(const std::vector<std::string>& words) {
  CommandLine line{
      "glowgrid demo [FOLDER] [options]",
      "Writes the example project, Millrace Pottery, to a folder (default: millrace-demo), runs all of\n"
      "it and says what to open.",
      "  glowgrid demo my-first-project",
      "folder",
      false,
      po::options_description()};
  add_common_options(line.options);
  const ParseResult parsed = parse(line, words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const ThreadLimit threads(parsed.arguments.threads());
  const fs::path folder = parsed.arguments.has("folder") ? parsed.arguments.text("folder") : kDefaultFolder;
  if (changed_by_hand(folder)) {
    say(fmt::format(
        FMT_STRING("glowgrid demo: name another folder, or run your own version: glowgrid run {}\n"),
        (folder / kProject).string()));
    return kBadInput;
  }
  {
    files::OutputFolder output(folder);
    for (const files::EmbeddedFile& file : files::embedded_demo()) output.write(file.name, file.bytes);
    output.commit({});
  }
  tell(fmt::format(FMT_STRING("The example project is {}\n\n"), (folder / kProject).string()));
  RunOptions options;
  options.quiet = parsed.arguments.flag("quiet");
  const int code = run_project(folder / kProject, options);
  if (code != kDone) return code;
  tell("\nThe report that a client gets (glowgrid report), and its short form as PDF:\n");
  if (const int report = command_report({(folder / kProject).string(), "-q"}); report != kDone) return report;
  // Where the PDF cannot be made, that is said; the rest is there. In full it takes longer than all the rest.
  const int pdf = command_report({(folder / kProject).string(), "-q", "--form", "short", "--format", "pdf"});
  if (pdf != kDone && pdf != kFailure) return pdf;
  tell(fmt::format(
      FMT_STRING("\nChange {} and look again: glowgrid run {}\n"
                 "The mill as a plan drawing and as a building model: glowgrid import {} --list,\n"
                 "glowgrid import {} --list\n"),
      kProject, (folder / kProject).string(), (folder / "plans/millrace.dxf").string(),
      (folder / "plans/millrace.ifc").string()));
  return kDone;
}

}  // namespace glow::cli
