#include <fmt/format.h>

#include <algorithm>
#include <cstdlib>
#include <new>

#include "cli/commands.hpp"
#include "cli/options/arguments.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/parallel/parallel.hpp"
#include "core/problems/problems.hpp"
#include "core/version.hpp"
#include "crew/crew.hpp"
#include "files/output/output_folder.hpp"

namespace glow::cli {
namespace {

struct Command {
  const char* name;
  const char* about;
  int (*run)(const std::vector<std::string>&);
  bool is_shared = false;  ///< by the processes of a crew; of others who leads does all
};

constexpr Command kCommands[] = {
    {"demo", "write the example project, run it, say what to open", command_demo},
    {"new", "a first project file from one line, ready to run", command_new},
    {"import", "rooms from plan drawings and building models", command_import},
    {"export", "results into an architect's drawing, and as tables", command_export},
    {"weather", "a weather file: sun and sky of the year, what is wrong with it", command_weather},
    {"inspect", "a photometric file: what it holds, what is wrong with it, its curve", command_inspect},
    {"convert", "photometric files between IES and EULUMDAT; scale, turn, merge", command_convert},
    {"shelf", "search photometric files by their numbers, thousands at once", command_shelf},
    {"tasks", "find a task in the standards and see what it asks for", command_tasks},
    {"catalogue", "everyday finishes and furniture with their values", command_catalogue},
    {"check", "read a project and report errors and doubts; compute nothing", command_check},
    {"probe", "light at one point, and which luminaires give it", command_probe},
    {"arrange", "find the even array of luminaires that meets all checks of a room", command_arrange, true},
    {"rank", "weigh luminaires against each other, each in its own best arrangement", command_rank, true},
    {"run", "compute a project, verify it, write results and figures", command_run, true},
    {"runs", "runs that were kept: what they were, and what changed since", command_runs},
    {"report", "a document of results: HTML and PDF", command_report},
    {"compare", "results of several runs side by side", command_compare},
    {"show", "results as tables: checks, grids, glare, the luminaire schedule", command_show},
    {"view", "pictures of rooms: as they look, or in false colours", command_view},
    {"draw", "make figures again from results: other colours, levels, formats", command_draw},
};

void print_help(void (*write)(const std::string&)) {
  write(fmt::format(FMT_STRING("glowgrid {}: lighting of rooms, computed and held against standards\n\n"
                               "Usage: glowgrid COMMAND [ARGUMENTS]\n\n"),
                    kVersion));
  for (const Command& command : kCommands)
    write(fmt::format(FMT_STRING("  {:<9} {}\n"), command.name, command.about));
  write(
      fmt::format(FMT_STRING("\nglowgrid COMMAND --help tells more; glowgrid --version names the version.\n"
                             "\nExample:\n  glowgrid demo\n")));
}

int dispatch(const std::vector<std::string>& words) {
  if (words.empty()) {
    print_help(say);
    return kBadInput;
  }
  if (words[0] == "--help" || words[0] == "-h" || words[0] == "help") {
    print_help(tell);
    return kDone;
  }
  if (words[0] == "--version") {
    tell(fmt::format(FMT_STRING("glowgrid {}\n"), kVersion));
    return kDone;
  }
  std::vector<std::string> names;
  for (const Command& command : kCommands) {
    if (words[0] == command.name && !command.is_shared && !crew::Crew::own().leads()) return kDone;
    if (words[0] == command.name) return command.run({words.begin() + 1, words.end()});
    names.emplace_back(command.name);
  }
  const std::string near = nearest_word(words[0], names);
  say(fmt::format(FMT_STRING("glowgrid: there is no command \"{}\"; {}\n"), words[0],
                  near.empty() ? std::string("see glowgrid --help")
                               : fmt::format(FMT_STRING("did you mean \"{}\"?"), near)));
  return kBadInput;
}

/// Turns everything that can go wrong into one line and an exit code.
int guarded(const std::vector<std::string>& words) {
  try {
    const int code = dispatch(words);
    if (!output_failed()) return code;
    say(fmt::format(FMT_STRING("glowgrid: standard output could not be written\n")));
  } catch (const Cancelled&) {
    say(fmt::format(FMT_STRING("glowgrid: interrupted; nothing was written\n")));
    return kInterrupted;
  } catch (const files::OutputError& error) {
    say(fmt::format(FMT_STRING("glowgrid: {}\n"), error.what()));
  } catch (const std::bad_alloc&) {
    say(fmt::format(FMT_STRING("glowgrid: not enough memory\n")));
  } catch (const std::exception& error) {
    say(fmt::format(FMT_STRING("glowgrid: internal failure: {}\n"), error.what()));
  }
  return kFailure;
}

}  // namespace
}  // namespace glow::cli

int main(int argc, char** argv) {
  using namespace glow;
  cli::hold_streams();
  crew::Crew& crew = crew::Crew::own();
  const std::string fault = crew.join();
  cli::catch_interrupts();
  if (!fault.empty()) {
    cli::say("glowgrid: " + fault + "\n");
    return cli::kFailure;
  }
  if (!crew.leads()) cli::keep_silent();
  if (!crew.is_alone()) ::setenv("NO_COLOR", "1", 0);  // a terminal is made up for each, whoever reads it
  // Processes on one machine share its threads.
  const int share = std::max(1, thread_count() / crew.here());
  const ThreadLimit threads(crew.is_alone() ? 0 : share);
  const int code = cli::guarded({argv + 1, argv + argc});
  crew.leave(code, cli::is_interrupted());
  return crew.leads() ? code : cli::kDone;
}
