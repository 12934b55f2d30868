#include "cli/options/arrange_choice.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "cli/streams.hpp"
#include "core/run/arrange_room.hpp"
#include "core/units/quantity.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace {

using model::LuminairePlacement;

/// What the options ask for cannot be done; `what()` says why, and what can.
class Refused : public std::runtime_error {
 public:
  using std::runtime_error::runtime_error;
};

[[noreturn]] void refuse(const std::string& words) {
  throw Refused(words);
}

/// What `choose` gives; nothing, after saying why for the command, where it refuses.
template <class Choose>
std::optional<ArrangeChoice> chosen_or_told(const char* command, const Choose& choose) {
  try {
    return choose();
  } catch (const Refused& refused) {
    say(fmt::format(FMT_STRING("glowgrid {}: {}\n"), command, refused.what()));
    return std::nullopt;
  }
}

/// "2.4" or "2.4..3.0", with or without units.
std::optional<std::pair<double, double>> range_of(const std::string& words, const units::ShownUnits& shown) {
  const auto length = [&](const std::string& one) -> std::optional<double> {
    double bare = 0;
    units::Parsed parsed = units::parse_quantity(one, units::Dimension::length);
    if (units::parse_number(one, bare)) return shown.metres_of(bare);
    return parsed.ok ? std::optional(parsed.value) : std::nullopt;
  };
  const std::size_t dots = words.find("..");
  const auto low = length(words.substr(0, dots));
  const auto high = dots == std::string::npos ? low : length(words.substr(dots + 2));
  if (!low || !high || *low > *high || *low < 0) return std::nullopt;
  return std::pair(*low, *high);
}

/// The mark to lay: of --mark, or the only one there is.
std::string mark_of(const Arguments& arguments, const OpenProject& open, const model::Room& room) {
  std::vector<std::string> marks;
  for (const auto& entry : open.project.schedule) marks.push_back(entry.mark);
  if (arguments.has("mark")) {
    const std::string mark = arguments.text("mark");
    if (open.project.find(mark)) return mark;
    const std::string near = nearest_word(mark, marks);
    refuse(near.empty() ? fmt::format(FMT_STRING("there is no luminaire {}; there are: {}"), mark,
                                      fmt::join(marks, ", "))
                        : fmt::format(FMT_STRING("there is no luminaire {}; did you mean {}?"), mark, near));
  }
  std::vector<std::string> own;
  for (const LuminairePlacement& placement : room.luminaires)
    if (std::find(own.begin(), own.end(), placement.mark) == own.end()) own.push_back(placement.mark);
  if (own.empty()) own = marks;
  if (own.size() == 1) return own.front();
  refuse(fmt::format(FMT_STRING("which luminaire in \"{}\"? Give --mark with one of: {}"), room.name,
                     fmt::join(own, ", ")));
}

/// Names of the room's placements, as results have them.
std::vector<std::string> names_of(const OpenProject& open, const OpenProject::Room& room) {
  std::vector<std::string> names;
  for (const LuminairePlacement& placement : room.written->luminaires) names.push_back(placement.mark);
  for (const space::LuminaireGroup& group : open.plan(room).space.groups)
    names[group.placement] = group.fitting.empty() ? group.name : group.fitting;
  return names;
}

/// Which placements stay: those that --keep names, or all of other marks.
std::vector<bool> stays(const Arguments& arguments, const OpenProject& open, const OpenProject::Room& room,
                        const std::string& mark) {
  const auto& placements = room.written->luminaires;
  std::vector<bool> stay(placements.size());
  for (std::size_t p = 0; p < placements.size(); ++p) stay[p] = placements[p].mark != mark;
  if (!arguments.has("keep")) return stay;
  // What is yet to be arranged has no luminaires that could stay or go.
  for (std::size_t p = 0; p < placements.size(); ++p) stay[p] = stay[p] && placements[p].arrange.has_value();
  const std::vector<std::string> names = names_of(open, room);
  for (const std::string& name : arguments.texts("keep")) {
    if (name == "none") continue;
    bool found = false;
    for (std::size_t p = 0; p < placements.size(); ++p)
      if (!placements[p].arrange && (names[p] == name || placements[p].mark == name)) found = stay[p] = true;
    if (!found)
      refuse(fmt::format(FMT_STRING("--keep {}: no such group in \"{}\"; expected none, or of: {}"), name,
                         room.name(), fmt::join(names, ", ")));
  }
  return stay;
}

/// How luminaires of the mark hang in the room, or in another of the project; what gives light upwards is not
/// put into a ceiling.
LuminairePlacement hung_as(const OpenProject& open, const model::Room& room, const std::string& mark) {
  std::vector<const model::Room*> rooms = {&room};
  for (const model::Room& other : open.project.rooms) rooms.push_back(&other);
  for (const model::Room* each : rooms)
    for (const LuminairePlacement& placement : each->luminaires)
      if (placement.mark == mark && !placement.on_wall) {
        LuminairePlacement own = placement;
        if (each != &room) own.array.reset();
        return own;
      }
  const auto& photometry = open.project.find(mark)->photometry;
  return photometry ? run::hung({}, *photometry) : LuminairePlacement();
}

/// A placement whose luminaires hang the same, without its places, name and dimming.
LuminairePlacement without_places(LuminairePlacement base) {
  base.name.clear();
  if (!base.array) base.array.emplace();
  base.array->spacing.reset();
  base.array->staggered = false;
  base.at.reset();
  base.row.reset();
  base.ring.reset();
  base.along.reset();
  base.over.reset();
  base.arrange.reset();
  base.aim.reset();
  base.tilt_deg = 0;
  base.dimming = 1;
  if (base.on != "ceiling") base.on.clear();
  return base;
}

LuminairePlacement base_of(const OpenProject& open, const model::Room& room, const std::string& mark) {
  LuminairePlacement base = without_places(hung_as(open, room, mark));
  base.mark = mark;
  return base;
}

void apply_limits(const Arguments& arguments, const units::ShownUnits& units,
                  studies::ArrangementWish& wish) {
  if (arguments.has("least")) {
    const auto least = model::least_of(arguments.text("least"));
    if (!least) {
      refuse(fmt::format(FMT_STRING("--least is \"{}\"; expected luminaires, watts or cost"),
                         arguments.text("least")));
    }
    wish.least = *least;
  }
  if (arguments.has("height")) {
    const auto range = range_of(arguments.text("height"), units);
    if (!range) {
      refuse(fmt::format(FMT_STRING("--height is \"{}\"; expected a height, or two such as 2.4..3.0"),
                         arguments.text("height")));
    }
    wish.heights_m = run::heights_between(range->first, range->second);
  }
  if (arguments.has("dimming")) wish.least_dimming = arguments.values["dimming"].as<double>();
  if (arguments.has("most")) wish.most = arguments.values["most"].as<int>();
  if (wish.least_dimming <= 0 || wish.least_dimming > 1 || wish.most < 0 ||
      wish.most > studies::ArrangementWish::kMostLuminaires) {
    refuse(fmt::format(FMT_STRING("--dimming is a share above 0, at most 1; --most at most {} luminaires"),
                       studies::ArrangementWish::kMostLuminaires));
  }
}

}  // namespace

void add_arrange_options(po::options_description& options) {
  options.add_options()("mark,m", po::value<std::string>()->value_name("M"),
                        "the luminaire to lay, by its mark")(
      "least,l", po::value<std::string>()->value_name("WHAT"),
      "what is to be saved: luminaires (the default), watts or cost")(
      "keep,k", po::value<std::vector<std::string>>()->value_name("NAME")->composing(),
      "groups that stay and are counted, or none; without it all of other marks stay")(
      "height", po::value<std::string>()->value_name("LOW..HIGH"), "mounting heights to search, m")(
      "dimming", po::value<double>()->value_name("SHARE"), "may be dimmed down to this share of full output")(
      "most", po::value<int>()->value_name("N"), "no more luminaires than this");
}

namespace {

ArrangeChoice choose_array(const Arguments& arguments, const OpenProject& open,
                           const OpenProject::Room& room) {
  const model::Room& written = *room.written;
  ArrangeChoice choice;
  choice.room = std::size_t(&written - open.project.rooms.data());
  const auto yet = std::find_if(written.luminaires.begin(), written.luminaires.end(),
                                [](const auto& placement) { return placement.arrange.has_value(); });
  std::string mark;
  if (yet != written.luminaires.end() && !arguments.has("mark")) {
    choice.wish = run::wish_of(*yet);
    mark = yet->mark;
  } else {
    mark = mark_of(arguments, open, written);
    choice.wish.base = base_of(open, written, mark);
  }
  const model::ScheduledLuminaire* entry = open.project.find(mark);
  if (entry && !entry->parts.empty())
    refuse(fmt::format(FMT_STRING("{} is a fitting of several luminaires; arrange one of them"), mark));
  apply_limits(arguments, open.project.units, choice.wish);
  if (written.outdoors && choice.wish.heights_m.empty() && !choice.wish.base.mounting_height_m)
    refuse(fmt::format(FMT_STRING("\"{}\" has no ceiling to hang from; say --height 4..8, or give {} a "
                                  "mounting_height"),
                       written.name, mark));
  if (choice.wish.least == model::Least::cost && entry && !entry->price)
    refuse(fmt::format(FMT_STRING("--least cost needs a price of {}; give [luminaires.{}] one"), mark, mark));
  const std::vector<bool> stay = stays(arguments, open, room, mark);
  choice.kept = written;
  choice.kept.luminaires.clear();
  choice.kept.scenes.clear();  // they may name what is taken out
  for (std::size_t p = 0; p < written.luminaires.size(); ++p) {
    if (stay[p]) {
      choice.kept.luminaires.push_back(written.luminaires[p]);
    } else if (!choice.instead && written.luminaires[p].mark == mark) {
      choice.instead = p;
    } else {
      choice.taken_out.push_back(p);
    }
  }
  return choice;
}

}  // namespace

std::optional<ArrangeChoice> arrange_choice(const Arguments& arguments, const OpenProject& open,
                                            const OpenProject::Room& room) {
  return chosen_or_told("arrange", [&] { return choose_array(arguments, open, room); });
}

bool is_asked_for(const space::Brief& brief) {
  return std::any_of(brief.grids.begin(), brief.grids.end(),
                     [](const space::GridBrief& grid) { return !grid.demands.empty(); });
}

void say_unasked(const char* command, const OpenProject::Room& room) {
  say(fmt::format(FMT_STRING("glowgrid {}: nothing is asked of the light in \"{}\"; give the room a task "
                             "(glowgrid tasks finds it)\n"),
                  command, room.name()));
}

namespace {

ArrangeChoice choose_kept(const Arguments& arguments, const OpenProject& open,
                          const OpenProject::Room& room) {
  const model::Room& written = *room.written;
  ArrangeChoice choice;
  choice.room = std::size_t(&written - open.project.rooms.data());
  apply_limits(arguments, open.project.units, choice.wish);
  choice.kept = written;
  choice.kept.luminaires.clear();
  choice.kept.scenes.clear();  // they may name what is taken out
  choice.wish.base.array.emplace();
  const auto first = std::find_if(written.luminaires.begin(), written.luminaires.end(),
                                  [](const auto& placement) { return placement.array || placement.arrange; });
  if (first != written.luminaires.end()) choice.wish.base = without_places(*first);
  if (!arguments.has("keep")) return choice;
  const std::vector<bool> stay = stays(arguments, open, room, {});
  for (std::size_t p = 0; p < written.luminaires.size(); ++p)
    if (stay[p]) choice.kept.luminaires.push_back(written.luminaires[p]);
  return choice;
}

}  // namespace

std::optional<ArrangeChoice> rank_choice(const Arguments& arguments, const OpenProject& open,
                                         const OpenProject::Room& room) {
  if (!is_asked_for(open.plan(room).brief)) {
    say_unasked("rank", room);
    return std::nullopt;
  }
  return chosen_or_told("rank", [&] { return choose_kept(arguments, open, room); });
}

}  // namespace glow::cli
