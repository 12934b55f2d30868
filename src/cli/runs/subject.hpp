#pragma once

#include <optional>
#include <string>

#include "cli/open_results.hpp"

namespace glow::cli {

/// Results of a run by the words that people name them with: a results folder or file, a project (its latest
/// results), PROJECT@NAME of a kept run; with #SCENE behind it, the rooms as they are in that scene or at
/// that moment.
struct Subject {
  std::string words;
  std::string told;  ///< "millrace.toml@wide beams, kept 2026-03-01 14:05 UTC"
  OpenResults results;
  std::optional<std::string> text;  ///< of the project, where it is at hand
};

/// Nothing, and problems, where there is no such thing.
std::optional<Subject> open_subject(const std::string& words, Problems& problems);

/// "millrace.toml@wide beams" in its project and the run's name; nothing for other words.
std::optional<std::pair<std::filesystem::path, std::string>> kept_run_named(const std::string& words);

}  // namespace glow::cli
