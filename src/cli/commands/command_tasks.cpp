#include <fmt/format.h>

#include <algorithm>

#include "cli/commands.hpp"
#include "cli/open_project.hpp"
#include "cli/options/arguments.hpp"
#include "cli/sheets/task_sheet.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/standards/task_search.hpp"
#include "files/project/project_reader.hpp"
#include "files/project/project_tables.hpp"
#include "files/project/project_text.hpp"
#include "files/requirements/requirement_json.hpp"
#include "files/requirements/requirement_table_reader.hpp"
#include "files/text/input_file.hpp"
#include "words/text_layout.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace {

constexpr std::size_t kMostSheets = 3;
constexpr std::size_t kMostListed = 60;

using Rows = std::vector<const standards::Requirement*>;

/// The table to look in: of --standard, else the project's, else the program's first.
std::optional<standards::RequirementTable> chosen_table(const Arguments& arguments) {
  model::Project project;
  Problems problems;
  std::filesystem::path folder;
  if (arguments.has("project")) {
    const std::filesystem::path path = arguments.text("project");
    folder = path.parent_path();
    if (const auto text = files::ProjectText::read(path, problems)) {
      if (auto read = files::read_project(text->text(), path.string(), problems)) project = std::move(*read);
      text->place(problems);
    }
  }
  if (arguments.has("standard")) project.standard = arguments.text("standard");
  project.also_verify.clear();
  if (problems.has_errors()) {
    print_problems(problems, {}, true);
    return std::nullopt;
  }
  Problems found;
  auto tables = files::requirement_tables(project, folder, found);
  print_problems(found, {}, true);
  if (tables.empty()) return std::nullopt;
  return std::move(tables.front());
}

/// Areas of the table, each with the number of its tasks.
void print_areas(const standards::RequirementTable& table) {
  std::vector<std::pair<std::string, int>> areas;
  for (const standards::Requirement& row : table.rows()) {
    const auto same =
        std::find_if(areas.begin(), areas.end(), [&](const auto& a) { return a.first == row.area; });
    if (same == areas.end())
      areas.emplace_back(row.area, 1);
    else
      ++same->second;
  }
  tell(fmt::format(FMT_STRING("{}: {} tasks\n"), table.name(), table.rows().size()));
  for (const auto& [area, count] : areas) tell(fmt::format(FMT_STRING("  {:<36} {:>3}\n"), area, count));
  std::string others;
  for (const std::string& name : files::built_in_standards())
    if (name != table.name()) others += (others.empty() ? "" : ", ") + name;
  tell(fmt::format(FMT_STRING("Look for one: glowgrid tasks WORDS. Other standards: {}\n"), others));
}

void print_found(const standards::RequirementTable& table, const Rows& rows, const std::string& said) {
  tell(
      fmt::format(FMT_STRING("{}: {} with {}\n\n"), table.name(), words::counted(rows.size(), "task"), said));
  if (rows.size() <= kMostSheets) {
    for (std::size_t i = 0; i < rows.size(); ++i)
      tell(fmt::format(FMT_STRING("{}{}"), i ? "\n" : "", task_sheet(*rows[i])));
  } else {
    const Rows first(rows.begin(), rows.begin() + std::ptrdiff_t(std::min(rows.size(), kMostListed)));
    tell(fmt::format(FMT_STRING("{}"), task_list(first)));
    if (rows.size() > kMostListed)
      tell(fmt::format(FMT_STRING("  and {} more; add a word\n"), rows.size() - kMostListed));
    tell(fmt::format(
        FMT_STRING("* held with less than full certainty; ? not held; - no value set. All of one task:\n"
                   "glowgrid tasks {}\n"),
        rows.front()->key));
  }
  tell(fmt::format(
      FMT_STRING("\nValues are held from general knowledge of the standards, not copied from a print:\n"
                 "check the edition that binds your project.\n")));
}

std::string joined_words(const std::vector<std::string>& words) {
  std::string text;
  for (const std::string& word : words) text += (text.empty() ? "\"" : " ") + word;
  return text + "\"";
}

/// What other editions and standards have where the chosen one has nothing.
void print_elsewhere(const standards::RequirementTable& table, const std::vector<std::string>& words) {
  for (const std::string& name : files::built_in_standards()) {
    const auto found = standards::find_tasks(*files::built_in_table(name), words);
    if (name == table.name() || found.empty()) continue;
    Rows rows;
    for (const standards::FoundTask& task : found) rows.push_back(task.row);
    rows.resize(std::min(rows.size(), kMostListed));
    tell(fmt::format(FMT_STRING("{} has none with all of {}. {} has:\n{}"), table.name(), joined_words(words),
                     name, task_list(rows)));
    tell(fmt::format(FMT_STRING("glowgrid tasks {} --standard \"{}\" shows all of it.\n\n"),
                     rows.front()->key, name));
    return;
  }
}

int show(const standards::RequirementTable& table, const std::vector<std::string>& words, bool json) {
  std::vector<standards::FoundTask> found = standards::find_tasks(table, words);
  const bool near = found.empty();
  if (near) found = standards::nearest_tasks(table, words);
  if (near && (json || found.empty())) {
    if (json) tell(fmt::format(FMT_STRING("{}"), files::requirements_json(table, {})));
    say(fmt::format(FMT_STRING("glowgrid tasks: {} has no task with {}\n"), table.name(),
                    joined_words(words)));
    return kBadInput;
  }
  if (near) print_elsewhere(table, words);
  Rows rows;
  for (const standards::FoundTask& task : found) rows.push_back(task.row);
  if (!near && words.size() == 1 && rows.size() > 1 && rows.front()->key == words[0]) rows.resize(1);
  if (json)
    tell(fmt::format(FMT_STRING("{}"), files::requirements_json(table, rows)));
  else
    print_found(table, rows, (near ? "some words of " : "") + joined_words(words));
  return kDone;
}

}  // namespace

int command_tasks(const std::vector<std::string>& words) {
  CommandLine line{
      "glowgrid tasks [WORDS] [options]",
      "Finds tasks in a standard's requirement table and shows all that it asks for: levels,\n"
      "uniformity, glare, colour rendering, surfaces, and the plane that counts. Each value that is\n"
      "held with less than full certainty is marked. Without words: the areas of the table.",
      "  glowgrid tasks evening class\n  glowgrid tasks corridor --standard \"EN 12464-1:2011\"",
      "words",
      true,
      po::options_description()};
  line.options.add_options()("standard,s", po::value<std::string>()->value_name("NAME"),
                             "standard and edition; default: the project's, or EN 12464-1:2021")(
      "project,p", po::value<std::string>()->value_name("PROJECT"),
      "take the project's standard and its own tables")("json", "print every value as JSON")(
      "help,h", "show this help");
  const ParseResult parsed = parse(line, words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const auto table = chosen_table(parsed.arguments);
  if (!table) return kBadInput;
  const bool json = parsed.arguments.flag("json");
  std::vector<std::string> asked = parsed.arguments.texts("words");
  asked.erase(std::remove(asked.begin(), asked.end(), ""), asked.end());
  if (!asked.empty() || json) return show(*table, asked, json);
  print_areas(*table);
  return kDone;
}

}  // namespace glow::cli
