#include "cli/arrange_choice.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "cli/streams.hpp"
#include "core/run/arrange_room.hpp"
#include "core/units/quantity.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace {

using model::LuminairePlacement;

std::nullopt_t refuse(const std::string& words) {
  say("glowgrid: " + words + "\n");
  return std::nullopt;
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
std::optional<std::string> mark_of(const Arguments& arguments, const OpenProject& open,
                                   const model::Room& room) {
  std::vector<std::string> marks;
  for (const auto& entry : open.project.schedule) marks.push_back(entry.mark);
  if (arguments.has("mark")) {
    const std::string mark = arguments.text("mark");
    if (open.project.find(mark)) return mark;
    const std::string near = nearest_word(mark, marks);
    return refuse(
        near.empty()
            ? fmt::format(FMT_STRING("there is no luminaire {}; there are: {}"), mark, fmt::join(marks, ", "))
            : fmt::format(FMT_STRING("there is no luminaire {}; did you mean {}?"), mark, near));
  }
  std::vector<std::string> own;
  for (const LuminairePlacement& placement : room.luminaires)
    if (std::find(own.begin(), own.end(), placement.mark) == own.end()) own.push_back(placement.mark);
  if (own.empty()) own = marks;
  if (own.size() == 1) return own.front();
  return refuse(fmt::format(FMT_STRING("which luminaire in \"{}\"? Give --mark with one of: {}"), room.name,
                            fmt::join(own, ", ")));
}

/// Names of the room's placements, as results have them.
std::vector<std::string> names_of(const OpenProject& open, const OpenProject::Room& room) {
  std::vector<std::string> names(room.written->luminaires.size());
  for (const space::LuminaireGroup& group : open.plan(room).space.groups)
    names[group.placement] = group.fitting.empty() ? group.name : group.fitting;
  return names;
}

/// Which placements stay: those that --keep names, or all of other marks.
std::optional<std::vector<bool>> stays(const Arguments& arguments, const OpenProject& open,
                                       const OpenProject::Room& room, const std::string& mark) {
  const auto& placements = room.written->luminaires;
  std::vector<bool> stay(placements.size());
  for (std::size_t p = 0; p < placements.size(); ++p)
    stay[p] = placements[p].mark != mark && !placements[p].arrange;
  if (!arguments.has("keep")) return stay;
  stay.assign(placements.size(), false);
  const std::vector<std::string> names = names_of(open, room);
  for (const std::string& name : arguments.texts("keep")) {
    if (name == "none") continue;
    bool found = false;
    for (std::size_t p = 0; p < placements.size(); ++p)
      if (!placements[p].arrange && (names[p] == name || placements[p].mark == name)) found = stay[p] = true;
    if (!found)
      return refuse(fmt::format(FMT_STRING("--keep {}: no such group in \"{}\"; expected none, or of: {}"),
                                name, room.name(), fmt::join(names, ", ")));
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
  constexpr double kUplight = 0.1;    // share of its light
  constexpr double kSuspended = 0.5;  // m
  LuminairePlacement base;
  const auto& photometry = open.project.find(mark)->photometry;
  if (photometry && photometry->table.upward_flux() > kUplight * photometry->flux_lm()) {
    base.mounting = model::Mounting::suspended;
    base.suspension_m = kSuspended;
  }
  return base;
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

bool apply_limits(const Arguments& arguments, const units::ShownUnits& units,
                  studies::ArrangementWish& wish) {
  if (arguments.has("least")) {
    const auto least = model::least_of(arguments.text("least"));
    if (!least) {
      refuse(fmt::format(FMT_STRING("--least is \"{}\"; expected luminaires, watts or cost"),
                         arguments.text("least")));
      return false;
    }
    wish.least = *least;
  }
  if (arguments.has("height")) {
    const auto range = range_of(arguments.text("height"), units);
    if (!range) {
      refuse(fmt::format(FMT_STRING("--height is \"{}\"; expected a height, or two such as 2.4..3.0"),
                         arguments.text("height")));
      return false;
    }
    wish.heights_m = run::heights_between(range->first, range->second);
  }
  if (arguments.has("dimming")) wish.least_dimming = arguments.values["dimming"].as<double>();
  if (arguments.has("most")) wish.most = arguments.values["most"].as<int>();
  if (wish.least_dimming <= 0 || wish.least_dimming > 1 || wish.most < 0 ||
      wish.most > studies::ArrangementWish::kMostLuminaires) {
    refuse(fmt::format(FMT_STRING("--dimming is a share above 0, at most 1; --most at most {} luminaires"),
                       studies::ArrangementWish::kMostLuminaires));
    return false;
  }
  return true;
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

std::optional<ArrangeChoice> arrange_choice(const Arguments& arguments, const OpenProject& open,
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
    const auto chosen = mark_of(arguments, open, written);
    if (!chosen) return std::nullopt;
    mark = *chosen;
    choice.wish.base = base_of(open, written, mark);
  }
  const model::ScheduledLuminaire* entry = open.project.find(mark);
  if (entry && !entry->parts.empty())
    return refuse(
        fmt::format(FMT_STRING("{} is a fitting of several luminaires; arrange one of them"), mark));
  if (!apply_limits(arguments, open.project.units, choice.wish)) return std::nullopt;
  if (choice.wish.least == model::Least::cost && entry && !entry->price)
    return refuse(
        fmt::format(FMT_STRING("--least cost needs a price of {}; give [luminaires.{}] one"), mark, mark));
  const auto stay = stays(arguments, open, room, mark);
  if (!stay) return std::nullopt;
  choice.kept = written;
  choice.kept.luminaires.clear();
  for (std::size_t p = 0; p < written.luminaires.size(); ++p) {
    if ((*stay)[p]) {
      choice.kept.luminaires.push_back(written.luminaires[p]);
    } else if (!choice.instead && written.luminaires[p].mark == mark) {
      choice.instead = p;
    } else {
      choice.taken_out.push_back(p);
    }
  }
  return choice;
}

bool is_asked_for(const space::Brief& brief) {
  return std::any_of(brief.grids.begin(), brief.grids.end(),
                     [](const space::GridBrief& grid) { return !grid.demands.empty(); });
}

nlohmann::ordered_json json_of(const studies::TriedField& tried) {
  const studies::Field& field = tried.field;
  nlohmann::ordered_json j = {{"luminaires", field.luminaires}, {"rows", field.rows},
                              {"columns", field.columns},       {"turned", field.turned},
                              {"staggered", field.staggered},   {"dimming", field.dimming}};
  if (field.height_m) j["mounting_height_m"] = *field.height_m;
  if (field.watts) j["watts_w"] = *field.watts;
  j["meets"] = tried.meets;
  j["checks"] = nlohmann::ordered_json::array();
  for (const standards::Check& check : tried.checks) {
    nlohmann::ordered_json own = {{"quantity", standards::to_string(check.demand.quantity)},
                                  {"required", check.demand.required}};
    if (std::isfinite(check.actual)) own["actual"] = check.actual;
    j["checks"].push_back(std::move(own));
  }
  return j;
}

std::optional<ArrangeChoice> rank_choice(const Arguments& arguments, const OpenProject& open,
                                         const OpenProject::Room& room) {
  const model::Room& written = *room.written;
  if (!is_asked_for(open.plan(room).brief))
    return refuse(
        fmt::format(FMT_STRING("nothing is asked of the light in \"{}\"; give the room a task (glowgrid "
                               "tasks finds it)"),
                    room.name()));
  ArrangeChoice choice;
  choice.room = std::size_t(&written - open.project.rooms.data());
  if (!apply_limits(arguments, open.project.units, choice.wish)) return std::nullopt;
  choice.kept = written;
  choice.kept.luminaires.clear();
  choice.wish.base.array.emplace();
  const auto first = std::find_if(written.luminaires.begin(), written.luminaires.end(),
                                  [](const auto& placement) { return placement.array || placement.arrange; });
  if (first != written.luminaires.end()) choice.wish.base = without_places(*first);
  if (!arguments.has("keep")) return choice;
  const auto stay = stays(arguments, open, room, {});
  if (!stay) return std::nullopt;
  for (std::size_t p = 0; p < written.luminaires.size(); ++p)
    if ((*stay)[p]) choice.kept.luminaires.push_back(written.luminaires[p]);
  return choice;
}

}  // namespace glow::cli
