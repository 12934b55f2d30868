#include "cli/options/arguments.hpp"

#include <fmt/format.h>

#include <iostream>
#include <sstream>
#include "cli/streams.hpp"

namespace glow::cli {
namespace po = boost::program_options;

void add_common_options(po::options_description& options) {
  options.add_options()("threads", po::value<int>()->value_name("N"),
                        "threads to use; default: all of the machine's. Results are the same for any number")(
      "quiet,q", "no progress, no warnings")("help,h", "show this help");
}

ParseResult parse(const CommandLine& line, const std::vector<std::string>& words) {
  ParseResult result;
  po::options_description hidden;
  po::positional_options_description positional;
  if (!line.positional_name.empty()) {
    if (line.many)
      hidden.add_options()(line.positional_name.c_str(), po::value<std::vector<std::string>>());
    else
      hidden.add_options()(line.positional_name.c_str(), po::value<std::string>());
    positional.add(line.positional_name.c_str(), line.many ? -1 : 1);
  }
  po::options_description all;
  all.add(line.options).add(hidden);
  const std::string command = line.usage.substr(0, line.usage.find(' ', line.usage.find(' ') + 1));
  try {
    using namespace po::command_line_style;
    const int style = allow_long | allow_short | allow_dash_for_short | long_allow_next |
                      long_allow_adjacent | short_allow_next |
                      short_allow_adjacent;  // no guessing of shortened options
    po::store(po::command_line_parser(words).options(all).positional(positional).style(style).run(),
              result.arguments.values);
    po::notify(result.arguments.values);
    if (result.arguments.has("threads") && result.arguments.values["threads"].as<int>() < 1)
      throw po::error("--threads wants a whole number of 1 or more");
  } catch (const po::too_many_positional_options_error&) {
    say(fmt::format(FMT_STRING("{}: one argument too many; see {} --help\n"), command, command));
    result.exit_code = kBadInput;
    return result;
  } catch (const po::error& error) {
    say(fmt::format(FMT_STRING("{}: {}; see {} --help\n"), command, error.what(), command));
    result.exit_code = kBadInput;
    return result;
  }
  if (result.arguments.values.count("help")) {
    std::ostringstream options;
    options << line.options;
    tell(fmt::format(FMT_STRING("Usage: {}\n\n{}\n\nOptions:\n{}\nExample:\n{}\n"), line.usage, line.about,
                     options.str(), line.example));
    result.exit_code = kDone;
  } else if (!line.wants.empty() && !result.arguments.has(line.positional_name.c_str())) {
    say(fmt::format(FMT_STRING("{}: {} See {} --help\n"), command, line.wants, command));
    result.exit_code = kBadInput;
  }
  return result;
}

}  // namespace glow::cli
