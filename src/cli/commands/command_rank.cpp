#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>

#include "cli/commands.hpp"
#include "cli/crew/found_bytes.hpp"
#include "cli/options/arguments.hpp"
#include "cli/options/arrange_choice.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/options/shelf_options.hpp"
#include "cli/run_project.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "cli/write_figures.hpp"
#include "core/run/rank_luminaires.hpp"
#include "crew/crew.hpp"
#include "figures/arrangement_figure.hpp"
#include "figures/curves/small_curves.hpp"
#include "files/photometry/photometric_file.hpp"
#include "files/project/project_reader.hpp"
#include "files/results/answers/arrangement_json.hpp"
#include "store/shelf.hpp"
#include "store/transport_cache.hpp"
#include "words/text_layout.hpp"
#include "words/topics/arrangement_words.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

const std::map<std::string, run::RankBy> kOrders = {{"watts", run::RankBy::watts},
                                                    {"luminaires", run::RankBy::luminaires},
                                                    {"cost", run::RankBy::cost},
                                                    {"glare", run::RankBy::glare},
                                                    {"power", run::RankBy::power}};

/// The price that the project's schedule states for the file.
std::optional<double> price_of(const std::string& file, const OpenProject& open, const fs::path& folder) {
  std::error_code error;
  for (const model::ScheduledLuminaire& entry : open.project.schedule)
    if (entry.price && !entry.file.empty() && fs::equivalent(folder / entry.file, file, error))
      return entry.price;
  return std::nullopt;
}

/// Files of the shelf that the filters find. Nothing, after saying why on standard error.
std::optional<std::vector<std::string>> files_of_shelf(const Arguments& arguments) {
  const auto query = shelf_query(arguments, "glowgrid rank");
  if (!query) return std::nullopt;
  Progress progress(arguments.flag("quiet"));
  const store::Shelf shelf =
      store::look_at_shelf(arguments.texts("shelf"), store::shelf_database(), progress.watch("shelf"));
  std::vector<std::string> files;
  for (const std::size_t i : shelf::find(shelf.entries, *query).entries)
    files.push_back(shelf.entries[i].file);
  if (!files.empty()) return files;
  say(fmt::format(FMT_STRING("glowgrid rank: no luminaire of {} on the shelf is what the filters ask for; "
                             "glowgrid shelf shows what is there\n"),
                  shelf.entries.size()));
  return std::nullopt;
}

/// The files that can be read; the others are told with their reason and left out.
std::vector<run::Candidate> read_candidates(const std::vector<std::string>& files, const OpenProject& open,
                                            const fs::path& folder) {
  std::vector<run::Candidate> candidates;
  for (const std::string& file : files) {
    Problems problems;
    auto photometry = files::read_photometric_file(file, problems);
    if (!photometry) {
      print_problems(problems, {}, true);
      continue;
    }
    candidates.push_back({file, std::make_shared<const photometry::Photometry>(std::move(*photometry)),
                          price_of(file, open, folder)});
  }
  return candidates;
}

std::string file_of(const run::Candidate& candidate) {
  return fs::path(candidate.file).filename().string();
}

/// Its maker's name of it; its file where it has none.
std::string name_of(const run::Candidate& candidate) {
  const std::string& name = candidate.photometry->luminaire;
  return name.empty() ? file_of(candidate) : printable(name);
}

/// What was ranked, as people and programs read it.
class Ranking {
 public:
  Ranking(const OpenProject& open, const OpenProject::Room& room,
          const std::vector<run::Candidate>& candidates, const std::vector<run::RankedCandidate>& list)
      : open_(open), room_(room), candidates_(candidates), list_(list) {}

  /// At most `most` of those that can do it, and of those that cannot.
  void tell_table(std::size_t most) const;
  std::string svg() const;

 private:
  void tell_one(const run::RankedCandidate& ranked) const;
  void tell_misses(std::size_t met, std::size_t most) const;
  const run::Candidate& of(const run::RankedCandidate& ranked) const { return candidates_[ranked.candidate]; }

  const OpenProject& open_;
  const OpenProject::Room& room_;
  const std::vector<run::Candidate>& candidates_;
  const std::vector<run::RankedCandidate>& list_;
};

void tell_more(std::size_t count, std::size_t shown) {
  if (shown < count) tell(fmt::format(FMT_STRING("  {} more: --first {} shows all\n"), count - shown, count));
}

void Ranking::tell_table(std::size_t most) const {
  const std::size_t met = std::size_t(std::count_if(
      list_.begin(), list_.end(), [](const run::RankedCandidate& each) { return each.meets(); }));
  tell(fmt::format(FMT_STRING("{}: {} of {} can do it\n"), room_.name(), met,
                   words::counted(list_.size(), "luminaire")));
  if (met > 0)
    tell(fmt::format(FMT_STRING("\n  {:<38} {:>5} {:>7} {:>10}  {}\n"), "", "count", "W", "W/m2/100lx",
                     "array"));
  for (std::size_t i = 0; i < std::min(met, most); ++i) tell_one(list_[i]);
  tell_more(met, std::min(met, most));
  if (met < list_.size()) tell_misses(met, most);
}

void Ranking::tell_one(const run::RankedCandidate& ranked) const {
  const units::ShownUnits& units = open_.project.units;
  const studies::TriedField& best = *ranked.found.best;
  tell(fmt::format(FMT_STRING("  {:<38} {:>5} {:>7} {:>10}  {}\n"), words::fitted(file_of(of(ranked)), 38),
                   best.field.luminaires,
                   best.field.watts ? fmt::format(FMT_STRING("{:.0f}"), *best.field.watts) : "?",
                   ranked.w_per_m2_100lx ? fmt::format(FMT_STRING("{:.2f}"), *ranked.w_per_m2_100lx) : "?",
                   words::field_words(best.field, units)));
  tell(fmt::format(FMT_STRING("    {:<36} {}\n"),
                   words::fitted(printable(of(ranked).photometry->luminaire), 36),
                   words::key_values(best, units)));
}

void Ranking::tell_misses(std::size_t met, std::size_t most) const {
  tell("\nCannot do it:\n");
  const std::size_t count = list_.size() - met, shown = std::min(count, most);
  for (std::size_t i = met; i < met + shown; ++i)
    tell(fmt::format(FMT_STRING("  {:<38} {}\n"), words::fitted(file_of(of(list_[i])), 38),
                     words::shortcoming(list_[i].found, open_.project.units)));
  tell_more(count, shown);
}

std::string Ranking::svg() const {
  std::vector<figures::ArrangementPlan> plans;
  for (const run::RankedCandidate& ranked : list_) {
    if (!ranked.meets() || plans.size() == figures::kMostPlans) break;
    const studies::TriedField& best = *ranked.found.best;
    const photometry::Photometry& p = *of(ranked).photometry;
    figures::ArrangementPlan plan;
    plan.title = fmt::format(FMT_STRING("{}. {}"), plans.size() + 1, name_of(of(ranked)));
    plan.lines = {fmt::format(FMT_STRING("{}, {}{}"), words::counted(best.field.luminaires, "luminaire"),
                              best.field.watts ? fmt::format(FMT_STRING("{:.0f} W, "), *best.field.watts)
                                               : std::string(),
                              words::field_words(best.field, open_.project.units)),
                  words::key_values(best, open_.project.units)};
    plan.frames = best.frames;
    plan.size = {p.area.extent_c0_m, p.area.extent_c90_m};
    plan.round = photometry::is_round(p.area.shape);
    plan.best = plans.empty();
    plan.curves = figures::small_curves(p);
    plan.lines.push_back(fmt::format(FMT_STRING("{:.0f} lm each, peak {:.0f} cd/klm"), p.flux_lm(),
                                     figures::peak_of(plan.curves)));
    plans.push_back(std::move(plan));
  }
  const std::string title =
      fmt::format(FMT_STRING("{}: luminaires that meet all checks, best first"), room_.name());
  return figures::arrangement_svg(title, open_.plan(room_).space, plans);
}

CommandLine rank_line() {
  CommandLine line{
      "glowgrid rank PROJECT FILE...|--shelf FOLDER [filters] --room NAME [options]",
      "Weighs photometric files against each other: each gets its own best arrangement in the room. Those "
      "that\n"
      "meet all checks come first, in the order asked for; the others say why they cannot do it.",
      "  glowgrid rank millrace.toml photometry/*.ldt photometry/*.ies --room Showroom --figure ranking.png\n"
      "  glowgrid rank millrace.toml --room Showroom --shelf shelf --kind direct --flux 2000..4500",
      "project",
      true,
      po::options_description()};
  line.wants = "which project, and which photometric files?";
  line.options.add_options()("room,r", po::value<std::string>()->value_name("NAME"), "the room")(
      "by,b", po::value<std::string>()->value_name("WHAT")->default_value("watts"),
      "order: watts, luminaires, cost, glare or power (W/m2 for 100 lx)");
  add_arrange_options(line.options);
  line.options.add_options()("shelf",
                             po::value<std::vector<std::string>>()->value_name("FOLDER")->composing(),
                             "weigh all below this folder that the filters find; may be repeated");
  add_shelf_options(line.options);
  line.options.add_options()("first,n", po::value<std::size_t>()->value_name("N")->default_value(20),
                             "lines to show of those that can do it, and of those that cannot")(
      "figure,f", po::value<std::string>()->value_name("FILE"),
      "draw the best dozen with their curves: .svg, .png or .pdf")("json", "print one JSON document");
  add_common_options(line.options);
  return line;
}

/// Ranks and tells; the project is usable.
int rank_room(const Arguments& arguments, const OpenProject& open, const OpenProject::Room& room,
              const std::vector<run::Candidate>& candidates, run::RankBy by, const fs::path& path) {
  const auto choice = rank_choice(arguments, open, room);
  if (!choice) return kBadInput;
  store::TransportCache cache(cache_folder(path));
  std::vector<run::RankedCandidate> list;
  {
    Progress progress(arguments.flag("quiet"));
    crew::Crew& crew = crew::Crew::own();
    Watch watch = progress.watch(room.name());
    if (!crew.leads()) watch.cancel = crew.dismissed();
    const run::Ranker ranker(open.project, choice->kept, candidates, choice->wish, open.standards,
                             *run::Accuracy::parse("normal"), &cache, watch);
    const auto rank_one = [&](std::size_t c) { return bytes_of(ranker.rank(c)); };
    if (!crew.leads()) {
      crew.serve(1, [&](const std::string&, std::size_t c) { return rank_one(c); }, {});
      return kDone;
    }
    std::vector<std::size_t> all(candidates.size());
    std::iota(all.begin(), all.end(), 0);
    crew.share(
        "candidates", all, 1, rank_one,
        [&](std::size_t, const std::string& bytes) { list.push_back(ranked_candidate(bytes)); }, watch);
    run::put_in_order(list, by);
  }
  const Ranking ranking(open, room, candidates, list);
  if (arguments.flag("json"))
    tell(files::ranking_json(room.name(), list, candidates, open.project.units));
  else
    ranking.tell_table(arguments.values["first"].as<std::size_t>());
  if (arguments.has("figure") && list.front().meets()) {
    const fs::path figure = arguments.text("figure");
    if (const std::string fault = write_figure_file(figure, ranking.svg()); !fault.empty())
      say(fmt::format(FMT_STRING("glowgrid rank: {} is not written: {}\n"), figure.string(), fault));
  }
  return list.front().meets() ? kDone : kNotMet;
}

}  // namespace

int command_rank(const std::vector<std::string>& words) {
  const ParseResult parsed = parse(rank_line(), words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const ThreadLimit threads(arguments.threads());
  std::vector<std::string> files = arguments.texts("project");
  const auto order = kOrders.find(arguments.text("by"));
  if (order == kOrders.end()) {
    say(fmt::format(
        FMT_STRING("glowgrid rank: --by is \"{}\"; expected watts, luminaires, cost, glare or power\n"),
        arguments.text("by")));
    return kBadInput;
  }
  const fs::path path = files.front();
  files.erase(files.begin());
  const auto open = open_project(path);
  print_problems(open->problems, open->sources, arguments.flag("quiet"));
  if (!open->usable) {
    say(fmt::format(FMT_STRING("{}\n"), error_summary(*open, path)));
    return kBadInput;
  }
  const OpenProject::Room* room = only_room(*open, arguments.text("room"), "rank");
  if (!room) return kBadInput;
  if (arguments.has("shelf")) {
    const auto found = files_of_shelf(arguments);
    if (!found) return kBadInput;
    files.insert(files.end(), found->begin(), found->end());
  } else if (const auto query = shelf_query(arguments, "glowgrid rank"); !query || !query->is_open()) {
    if (query) say("glowgrid rank: filters choose from a shelf; say which with --shelf FOLDER\n");
    return kBadInput;
  }
  const std::vector<run::Candidate> candidates = read_candidates(files, *open, path.parent_path());
  if (candidates.empty()) {
    say("glowgrid rank: none of the photometric files can be read; give some that can\n");
    return kBadInput;
  }
  const bool priced = std::any_of(candidates.begin(), candidates.end(),
                                  [](const run::Candidate& each) { return each.price.has_value(); });
  if (order->second == run::RankBy::cost && !priced) {
    say("glowgrid rank: --by cost needs prices: give [luminaires.MARK] with these files a price\n");
    return kBadInput;
  }
  return rank_room(arguments, *open, *room, candidates, order->second, path);
}

}  // namespace glow::cli
