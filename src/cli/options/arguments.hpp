#pragma once

#include <boost/program_options.hpp>
#include <string>
#include <vector>

namespace glow::cli {

/// Exit codes of the program; documented in docs/results.md.
enum ExitCode : int {
  kDone = 0,
  kNotMet = 1,        ///< --strict, and some requirement is not met
  kBadInput = 2,      ///< the call or an input is wrong
  kFailure = 3,       ///< ours or the machine's
  kInterrupted = 130  ///< Ctrl-C
};

/// What a command line says after the command's name.
struct Arguments {
  boost::program_options::variables_map values;
  bool has(const char* option) const { return values.count(option) > 0 && !values[option].empty(); }
  /// Whether an option without a value was given.
  bool flag(const char* option) const { return values.count(option) > 0; }
  /// Of --threads; 0: all of the machine's.
  int threads() const { return has("threads") ? values["threads"].as<int>() : 0; }
  std::vector<std::string> texts(const char* option) const {
    return has(option) ? values[option].as<std::vector<std::string>>() : std::vector<std::string>();
  }
  std::string text(const char* option) const {
    return has(option) ? values[option].as<std::string>() : std::string();
  }
};

/// How one command is called.
struct CommandLine {
  std::string usage;            ///< "glowgrid run PROJECT [options]"
  std::string about;            ///< what it does, a few lines
  std::string example;          ///< lines that end the help
  std::string positional_name;  ///< the option that takes the bare argument
  bool many = false;            ///< any number of bare arguments, read with `texts`
  boost::program_options::options_description options;
  std::string wants = {};  ///< what is asked for when the bare argument is missing; empty: it may be
};

/// Parses; on `--help` prints it and on a fault says what is wrong. Then `exit_code` is set and the call is
/// over.
struct ParseResult {
  Arguments arguments;
  int exit_code = -1;  ///< -1: go on
};
ParseResult parse(const CommandLine& line, const std::vector<std::string>& words);

/// Options of commands that read a project: --quiet, --threads and --help.
void add_common_options(boost::program_options::options_description& options);

}  // namespace glow::cli
