#include <fmt/format.h>

#include <algorithm>

#include "cli/commands.hpp"
#include "cli/options/arguments.hpp"
#include "cli/options/shelf_options.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "cli/write_figures.hpp"
#include "figures/curves/shelf_figure.hpp"
#include "figures/curves/small_curves.hpp"
#include "files/photometry/facts_text.hpp"
#include "files/photometry/photometric_file.hpp"
#include "store/shelf.hpp"
#include "words/tables/facts_table.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace {

constexpr const char* kCommand = "glowgrid shelf";
constexpr std::size_t kMostRefusals = 8;  // told one by one

CommandLine shelf_line() {
  CommandLine line{
      "glowgrid shelf FOLDER|FILE... [filters] [options]",
      "Searches photometric files, and all that lie below folders, by their numbers. What they hold is kept "
      "in\n"
      "the user's cache, so that only new and changed files are read again. Ranges A..B may be open on one\n"
      "side and carry units: --flux 2..4.5klm, --ra 80.., --ugr ..19. What a file does not state is not "
      "found\n"
      "by it.",
      "  glowgrid shelf photometry --kind direct --flux 2000..4500 --ugr ..19 --sort efficacy --falling",
      "path",
      true,
      po::options_description()};
  line.wants = "which folder, or which files?";
  add_shelf_options(line.options);
  line.options.add_options()("sort,s", po::value<std::string>()->value_name("KEY")->default_value("file"),
                             "order: file, maker, name or a filter's name, from small to large")(
      "falling", "from large to small")("first,n",
                                        po::value<std::size_t>()->value_name("N")->default_value(20),
                                        "lines to show")("refused", "list all files that cannot be read")(
      "figure,f", po::value<std::string>()->value_name("FILE"),
      "draw the first eighteen found with their curves: .svg, .png or .pdf")(
      "json", "print one JSON document with all that was found")("csv",
                                                                 "print a table with all that was found");
  add_common_options(line.options);
  return line;
}

std::string files_words(std::size_t count) {
  return fmt::format(FMT_STRING("{} {}"), count, count == 1 ? "file" : "files");
}

/// What a search found, as people and programs read it.
class Findings {
 public:
  Findings(const Arguments& arguments, const store::Shelf& shelf, const shelf::Query& query)
      : arguments_(arguments), shelf_(shelf), query_(query), found_(shelf::find(shelf.entries, query)) {}

  bool any() const { return !found_.entries.empty(); }
  void tell_table() const;
  void tell_document() const;
  std::string svg() const;

 private:
  const shelf::Entry& entry(std::size_t i) const { return shelf_.entries[found_.entries[i]]; }
  void tell_unknown() const;
  void tell_refused() const;

  const Arguments& arguments_;
  const store::Shelf& shelf_;
  const shelf::Query& query_;
  shelf::Found found_;
};

/// The folder that all of these lie below, as it was named, with its last slash; empty: there is none.
std::string common_folder(const std::vector<words::FactsRow>& rows) {
  if (rows.empty()) return "";
  std::string common = rows.front().file.substr(0, rows.front().file.rfind('/') + 1);
  for (const words::FactsRow& row : rows)
    while (row.file.compare(0, common.size(), common) != 0) {
      common.pop_back();
      common.erase(common.rfind('/') + 1);
    }
  return common;
}

void Findings::tell_table() const {
  const std::size_t most = arguments_.values["first"].as<std::size_t>();
  const std::size_t count = found_.entries.size(), shown = std::min(most, count);
  std::vector<words::FactsRow> rows;
  for (std::size_t i = 0; i < shown; ++i) rows.push_back({entry(i).file, &entry(i).facts, entry(i).findings});
  const std::string folder = common_folder(rows);
  for (words::FactsRow& row : rows) row.file.erase(0, folder.size());
  if (shelf_.entries.empty() && shelf_.refusals.empty())
    return tell("no photometric file (.ies, .ldt, .eul) is there\n");
  tell(fmt::format(FMT_STRING("{} of {} found{}\n"), count, files_words(shelf_.entries.size()),
                   folder.empty() ? "" : ", in " + printable(folder)));
  std::vector<std::string> more = limited_keys(query_);
  const std::vector<std::string> keys = shelf::measure_keys();
  if (std::find(keys.begin(), keys.end(), query_.sort) != keys.end()) more.push_back(query_.sort);
  if (shown > 0) tell("\n" + words::facts_table(rows, more, true));
  if (shown < count)
    tell(fmt::format(FMT_STRING("{} more: --first {} shows all, --csv gives all as a table\n"), count - shown,
                     count));
  tell_unknown();
  tell_refused();
}

void Findings::tell_unknown() const {
  for (const auto& [key, number] : found_.unknown)
    tell(fmt::format(FMT_STRING("\n{} left out: --{} is not known of {}\n"), files_words(number), key,
                     number == 1 ? "it" : "them"));
}

void Findings::tell_refused() const {
  const std::size_t count = shelf_.refusals.size();
  if (count == 0) return;
  tell(fmt::format(FMT_STRING("\n{} cannot be read:\n"), files_words(count)));
  const std::size_t shown = arguments_.flag("refused") ? count : std::min(count, kMostRefusals);
  for (std::size_t i = 0; i < shown; ++i)
    tell(
        fmt::format(FMT_STRING("  {}: {}\n"), printable(shelf_.refusals[i].file), shelf_.refusals[i].reason));
  if (shown < count) tell(fmt::format(FMT_STRING("  {} more: --refused lists all\n"), count - shown));
}

void Findings::tell_document() const {
  std::vector<const shelf::Entry*> entries;
  for (std::size_t i = 0; i < found_.entries.size(); ++i) entries.push_back(&entry(i));
  std::vector<std::pair<std::string, std::string>> refused;
  for (const store::Refusal& each : shelf_.refusals) refused.emplace_back(each.file, each.reason);
  tell(arguments_.flag("json") ? files::facts_json(entries, refused) : files::facts_csv(entries));
}

/// "3602 lm, 32 W", of what is known; the key, and the words with the value in place of {}.
std::string known_of(const shelf::LuminaireFacts& facts,
                     const std::vector<std::pair<const char*, std::string>>& parts) {
  std::string text;
  for (const auto& [key, words] : parts) {
    const std::string value = words::key_text(facts, key);
    if (value == "-") continue;
    text += (text.empty() ? "" : ", ") + std::string(words).replace(words.find("{}"), 2, value);
  }
  return text;
}

std::string Findings::svg() const {
  std::vector<figures::ShelfCard> cards;
  for (std::size_t i = 0; i < found_.entries.size() && cards.size() < figures::kMostCards; ++i) {
    Problems ignored;  // it could be read a moment ago
    const auto photometry = files::read_photometric_file(entry(i).file, ignored);
    if (!photometry) continue;
    const shelf::LuminaireFacts& f = entry(i).facts;
    const std::string file = entry(i).file.substr(entry(i).file.rfind('/') + 1);
    figures::ShelfCard card;
    card.title = f.name.empty() ? file : f.name;
    for (const std::string& line :
         {f.maker.empty() || f.name.empty() ? f.maker : f.maker + ", " + file,
          known_of(f, {{"flux", "{} lm"}, {"watts", "{} W"}, {"efficacy", "{} lm/W"}}),
          known_of(f, {{"beam", "beam {} deg"}, {"peak", "peak {} cd"}}),
          known_of(f, {{"ugr", "UGR {}"}, {"cct", "{} K"}, {"ra", "Ra {}"}}), f.distribution})
      if (!line.empty()) card.lines.push_back(line);
    card.curves = figures::small_curves(*photometry);
    cards.push_back(std::move(card));
  }
  const std::size_t count = found_.entries.size();
  return figures::shelf_svg(cards.size() < count ? fmt::format(FMT_STRING("The first {} of {} found"),
                                                               cards.size(), files_words(count))
                                                 : fmt::format(FMT_STRING("{} found"), files_words(count)),
                            cards);
}

void tell_of_store(const store::Shelf& shelf) {
  if (shelf.gone > 0)
    say(fmt::format(FMT_STRING("glowgrid shelf: {} gone since the last look\n"), files_words(shelf.gone)));
  if (!shelf.why_not_kept.empty())
    say(fmt::format(
        FMT_STRING("glowgrid shelf: what was read is not kept, and is read again the next time: {}\n"),
        shelf.why_not_kept));
}

}  // namespace

int command_shelf(const std::vector<std::string>& words) {
  const ParseResult parsed = parse(shelf_line(), words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const ThreadLimit threads(arguments.threads());
  auto query = shelf_query(arguments, kCommand);
  if (!query) return kBadInput;
  query->sort = arguments.text("sort");
  query->falling = arguments.flag("falling");
  const std::vector<std::string> keys = shelf::sort_keys();
  if (std::find(keys.begin(), keys.end(), query->sort) == keys.end()) {
    const std::string near = nearest_word(query->sort, keys);
    say(fmt::format(FMT_STRING("{}: --sort is \"{}\"; {}\n"), kCommand, query->sort,
                    near.empty() ? "expected file, maker, name or a filter's name such as flux"
                                 : "did you mean \"" + near + "\"?"));
    return kBadInput;
  }
  store::Shelf shelf;
  {
    Progress progress(arguments.flag("quiet"));
    shelf = store::look_at_shelf(arguments.texts("path"), store::shelf_database(), progress.watch("shelf"));
  }
  const Findings findings(arguments, shelf, *query);
  if (arguments.flag("json") || arguments.flag("csv"))
    findings.tell_document();
  else
    findings.tell_table();
  if (!arguments.flag("quiet")) tell_of_store(shelf);
  if (arguments.has("figure") && findings.any())
    if (const std::string fault = write_figure_file(arguments.text("figure"), findings.svg());
        !fault.empty()) {
      say(fmt::format(FMT_STRING("{}: {} is not written: {}\n"), kCommand, arguments.text("figure"), fault));
      return kFailure;
    }
  // A file below a folder may be broken; what the call names must be there.
  const std::vector<std::string> named = arguments.texts("path");
  const bool lacking =
      std::any_of(shelf.refusals.begin(), shelf.refusals.end(), [&](const store::Refusal& each) {
        return std::find(named.begin(), named.end(), each.file) != named.end();
      });
  return lacking || shelf.entries.empty() ? kBadInput : kDone;
}

}  // namespace glow::cli
