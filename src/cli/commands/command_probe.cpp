#include <fmt/format.h>

#include <cmath>

#include "cli/commands.hpp"
#include "cli/open_project.hpp"
#include "cli/options/arguments.hpp"
#include "cli/options/figure_options.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/space/facing.hpp"
#include "core/studies/probe.hpp"
#include "files/results/answers/probe_json.hpp"
#include "words/text_layout.hpp"
#include "words/topics/colour_words.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace {

constexpr std::size_t kMostShown = 20;

/// Up, down, along a direction, or towards the middle of an object.
std::optional<Vec3> facing_of(const std::string& words, const Vec3& at, const space::Space& room) {
  const space::Facing facing = space::parse_facing(words, at, room.objects);
  if (!facing.direction)
    say(fmt::format(FMT_STRING("glowgrid probe: --facing is \"{}\"; {} in \"{}\"\n"), words, facing.expected,
                    room.name));
  return facing.direction;
}

std::string in_words(const Vec3& p, const units::ShownUnits& units) {
  return fmt::format(FMT_STRING("({:.2f}, {:.2f}, {:.2f})"), units.length(p.x()), units.length(p.y()),
                     units.length(p.z()));
}

/// The mixture, and each group where there are several.
std::string colour_lines(const studies::ProbedColour& colour) {
  std::string text = "  colour          " +
                     words::colour_words(*colour.mixture.total, colour.mixture.temperature) +
                     words::known_words(colour.mixture.known_share) + "\n";
  for (const studies::GroupColour& group : colour.groups)
    if (colour.groups.size() > 1)
      text += fmt::format(FMT_STRING("    {:<13} {}\n"), words::fitted(group.name, 13),
                          words::colour_words(group.chromaticity, group.temperature));
  return text;
}

void print_table(const space::Space& room, double maintenance, const Vec3& at, const std::string& facing,
                 const studies::ProbeResult& result, const units::ShownUnits& units) {
  const auto light = [&](double lux) { return units.light(lux); };
  const std::string lx = units.light_unit();
  tell(fmt::format(FMT_STRING("{} at {} {}, facing {}; maintained, factor {:.2f}\n"), room.name,
                   in_words(at, units), units.length_unit(), facing, maintenance));
  tell(fmt::format(
      FMT_STRING(
          "  direct          {0:>9.1f} {4}\n  interreflected  {1:>9.1f} {4}\n  total           {2:>9.1f} "
          "{4}, sure to +/- {3:.2g} {4}\n"),
      light(result.direct_lx), light(result.interreflected_lx), light(result.total_lx()),
      light(result.uncertainty_lx), lx));
  if (result.colour) tell(colour_lines(*result.colour));
  tell("\n");
  tell(fmt::format(FMT_STRING("  {:<10} {:<24} {:>9} {:>7} {:>9} {:>15}\n"), "luminaire",
                   fmt::format(FMT_STRING("at, {}"), units.length_unit()), "total " + lx, "share", "direct",
                   "interreflected"));
  studies::LuminaireShare rest;
  for (std::size_t i = 0; i < result.luminaires.size(); ++i) {
    const studies::LuminaireShare& l = result.luminaires[i];
    if (i >= kMostShown) {
      rest.direct_lx += l.direct_lx;
      rest.interreflected_lx += l.interreflected_lx;
      continue;
    }
    tell(fmt::format(FMT_STRING("  {:<10} {:<24} {:>9.1f} {:>5.0f} % {:>9.1f} {:>15.1f}\n"), l.mark,
                     in_words(l.position, units), light(l.total_lx()),
                     result.total_lx() > 0 ? 100 * l.total_lx() / result.total_lx() : 0, light(l.direct_lx),
                     light(l.interreflected_lx)));
  }
  if (result.luminaires.size() > kMostShown)
    tell(fmt::format(FMT_STRING("  {:<35} {:>9.1f} {:>5.0f} % {:>9.1f} {:>15.1f}\n"),
                     fmt::format(FMT_STRING("{} others together"), result.luminaires.size() - kMostShown),
                     light(rest.total_lx()), 100 * rest.total_lx() / result.total_lx(), light(rest.direct_lx),
                     light(rest.interreflected_lx)));
}

int probe_room(const Arguments& arguments, const space::PlannedRoom& planned,
               const lighting::Weights& weights, const Vec3& at, const units::ShownUnits& units) {
  const space::Space& room = planned.space;
  const std::string facing = arguments.text("facing");
  const auto normal = facing_of(facing, at, room);
  if (!normal) return kBadInput;
  const readings::Receiver point{room.ground.raised(at), *normal};
  studies::ProbeResult result;
  {
    Progress progress(arguments.flag("quiet"));
    result = studies::probe(room, weights, point, transport::Effort::fine(), progress.watch(room.name));
  }
  if (result.misplaced) {
    say(fmt::format(FMT_STRING("glowgrid probe: {} m, facing {}, lies {}; expected a point in the open\n"),
                    in_words(at, {}), facing,
                    result.misplaced->inside.empty()
                        ? fmt::format(FMT_STRING("outside \"{}\""), room.name)
                        : fmt::format(FMT_STRING("inside or behind \"{}\""), result.misplaced->inside)));
    return kBadInput;
  }
  if (arguments.flag("json"))
    tell(files::probe_json(room.name, point, result));
  else
    print_table(room, lighting::mean_maintenance(room, weights, planned.room->maintenance_factor.value_or(1)),
                at, facing, result, units);
  return kDone;
}

}  // namespace

int command_probe(const std::vector<std::string>& words) {
  CommandLine line{
      "glowgrid probe PROJECT --at X,Y,Z [options]",
      "Light at one point: direct, interreflected and total, and how much of it each luminaire gives,\n"
      "largest first. Writes no files.",
      "  glowgrid probe millrace.toml --room \"Throwing room\" --at 2.4,3.2,0.85\n"
      "  glowgrid probe millrace.toml --at \"2 m,10 ft,1.6\" --facing 0,1,0",
      "project",
      false,
      po::options_description()};
  line.wants = "which project?";
  line.options.add_options()("room,r", po::value<std::string>()->value_name("NAME"),
                             "the room; may be left out when there is only one")(
      "at", po::value<std::string>()->value_name("X,Y,Z"),
      "the point, in the room's coordinates, m; Z above floor or ground")(
      "facing,f", po::value<std::string>()->value_name("WHERE")->default_value("up"),
      "up, down, a direction X,Y,Z, or an object's name")("json", "print one JSON document");
  add_units_option(line.options);
  add_common_options(line.options);
  const ParseResult parsed = parse(line, words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const ThreadLimit threads(arguments.threads());
  const std::filesystem::path path = arguments.text("project");
  const auto opened = open_project(path);
  const OpenProject& open = *opened;
  print_problems(open.problems, open.sources, arguments.flag("quiet"));
  if (!open.usable) {
    say(fmt::format(FMT_STRING("{}\n"), error_summary(open, path)));
    return kBadInput;
  }
  units::ShownUnits units = open.project.units;
  if (!apply_units_option(arguments, "probe", units)) return kBadInput;
  const auto at = space::parse_point(arguments.text("at"), units);
  if (!at) {
    say(fmt::format(
        FMT_STRING("glowgrid probe: --at is \"{}\"; expected three lengths, such as 2.4,3.2,0.85\n"),
        arguments.text("at")));
    return kBadInput;
  }
  const OpenProject::Room* room = only_room(open, arguments.text("room"), "probe");
  if (!room) return kBadInput;
  const space::PlannedRoom planned = open.plan(*room);
  return probe_room(arguments, planned, open.weights_of(planned), *at, units);
}

}  // namespace glow::cli
