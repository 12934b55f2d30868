#include <fmt/format.h>

#include "cli/commands.hpp"
#include "cli/open_project.hpp"
#include "cli/options/arguments.hpp"
#include "cli/options/figure_options.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "words/text_layout.hpp"
#include "words/topics/glare_words.hpp"
#include "words/topics/room_words.hpp"
#include "words/values.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace {

constexpr std::size_t kMostListed = 12;

/// "  word: a; b; c", wrapped.
void list(const char* word, const std::vector<std::string>& entries) {
  if (entries.empty()) return;
  std::string words = std::string(word) + ": ";
  for (std::size_t i = 0; i < std::min(entries.size(), kMostListed); ++i)
    words += (i ? "; " : "") + entries[i];
  if (entries.size() > kMostListed)
    words += fmt::format(FMT_STRING("; and {} more"), entries.size() - kMostListed);
  std::string text;
  words::wrap(text, "  ", words, 4);
  tell(fmt::format(FMT_STRING("{}"), text));
}

std::string plane_source(const space::Brief& brief) {
  if (brief.tasks.empty()) return words::plane_height_words(brief.plane_height, "", "");
  const standards::Requirement& row = brief.tasks.front().row;
  return words::plane_height_words(brief.plane_height, row.key, row.plane_note);
}

void describe_grids(const space::PlannedRoom& planned, const units::ShownUnits& units) {
  const space::Space& room = planned.space;
  const char* m = units.length_unit();
  if (!room.work_plane()) tell("  no work plane\n");
  if (const readings::PlaneGrid* grid = room.work_plane()) {
    std::string text;
    words::wrap(text, "  ",
                fmt::format(FMT_STRING("{} at {:.2f} {} ({})"), room.grids.front().name,
                            units.length(grid->plane.origin.z()), m, plane_source(planned.brief)),
                4);
    tell(text);
    tell(fmt::format(FMT_STRING("  {} points, {:.3f} x {:.3f} {}, {:.2f} {} along the edges left out\n"),
                     grid->points.size(), units.length(grid->cell.x()), units.length(grid->cell.y()), m,
                     units.length(grid->inset_m), m));
  }
  std::vector<std::string> wanted;
  std::size_t walls = 0, points = 0;
  for (const space::Grid& each : room.grids) {
    if (each.role == space::GridRole::requested)
      wanted.push_back(fmt::format(FMT_STRING("{} ({} points)"), each.name, each.grid.points.size()));
    if (each.role != space::GridRole::floor && each.role != space::GridRole::ceiling &&
        each.role != space::GridRole::wall)
      continue;
    walls += each.role == space::GridRole::wall;
    points += each.grid.points.size();
  }
  list("grids", wanted);
  if (points > 0)
    tell(room.outdoors ? fmt::format(FMT_STRING("  also read: ground, {} points\n"), points)
                       : fmt::format(FMT_STRING("  also read: floor, ceiling and {} walls, {} points\n"),
                                     walls, points));
  std::vector<std::string> points_by_name;
  for (const space::Point& point : room.points) points_by_name.push_back(point.name);
  list("points", points_by_name);
}

void describe_eyes(const space::PlannedRoom& planned, const units::ShownUnits& units) {
  const space::Space& room = planned.space;
  std::vector<std::string> sets;
  for (const space::EyeSet& set : room.eyes)
    sets.push_back(
        fmt::format(FMT_STRING("{} ({}at {:.1f} {}, {}{})"), set.name,
                    set.cell_m ? fmt::format(FMT_STRING("{} places "), set.positions.size()) : std::string(),
                    units.length(set.height_m), units.length_unit(), set.posture,
                    set.directions() == 1 ? ", looking " + set.looking[0]
                                          : fmt::format(FMT_STRING(", {} directions"), set.directions())));
  list("eyes", sets);
  if (room.eyes.empty() || planned.room->eyes != model::Eyes::by_task || planned.brief.tasks.empty()) return;
  const bool seated = planned.brief.glare.table_eye_m == standards::kSeatedEye;
  std::string text;
  words::wrap(text, "    ",
              fmt::format(FMT_STRING("people are {} for {}; posture = \"{}\" in the room says otherwise"),
                          seated ? "seated" : "standing", planned.brief.tasks.front().row.key,
                          seated ? "standing" : "seated"),
              6);
  tell(text);
}

/// "closing (display wall 20 %, table ring 50 %; office.writing)".
void describe_scenes(const space::PlannedRoom& planned) {
  std::vector<std::string> scenes;
  for (const space::PlannedScene& scene : planned.scenes) {
    std::string shares;
    for (std::size_t g = 0; g < scene.shares.size(); ++g) {
      const bool is_free = !scene.is_free.empty() && scene.is_free[g];
      shares +=
          fmt::format(FMT_STRING("{}{} {}"), shares.empty() ? "" : ", ", planned.space.groups[g].name,
                      is_free ? "to be found" : fmt::format(FMT_STRING("{:g} %"), 100 * scene.shares[g]));
    }
    const std::string asked = scene.moment                ? "; " + scene.moment->sky_words
                              : scene.emergency           ? "; emergency lighting, direct light only"
                              : scene.asks_as_room        ? ""
                              : scene.brief.tasks.empty() ? "; nothing asked"
                                                          : "; " + scene.brief.tasks.front().row.key;
    const std::string told = shares.empty() && asked.size() > 2 ? asked.substr(2) : shares + asked;
    scenes.push_back(fmt::format(FMT_STRING("{} ({})"), scene.name, told));
  }
  list("scenes", scenes);
}

/// Where daylight comes in, where there are moments.
void describe_daylight(const space::PlannedRoom& planned) {
  std::vector<std::string> names;
  if (std::none_of(planned.scenes.begin(), planned.scenes.end(),
                   [](const space::PlannedScene& scene) { return scene.moment.has_value(); }))
    return;
  for (const space::Opening& opening : planned.space.openings)
    if (opening.lets_daylight_in()) names.push_back(opening.name);
  list("daylight comes in by", names);
}

/// "pendants (P1, dimmed by daylight at the point that needs it most, keeps 300 lx)".
void describe_energy(const space::PlannedRoom& planned, const units::ShownUnits& units) {
  if (!planned.energy) return;
  const words::Values values{units};
  std::vector<std::string> zones;
  for (const space::PlannedZone& zone : planned.energy->zones) {
    std::string told;
    for (const std::size_t g : zone.groups) told += planned.space.groups[g].name + ", ";
    const bool by_day = zone.wish && zone.wish->kind != model::ControlKind::none;
    if (!by_day)
      told += "on in all hours of use";
    else
      told += fmt::format(FMT_STRING("{} by daylight at {}, keeps {}"),
                          zone.wish->kind == model::ControlKind::dimmed ? "dimmed" : "switched",
                          zone.sensors.empty()
                              ? "the point of the plane that has least"
                              : fmt::format(FMT_STRING("\"{}\""), fmt::join(zone.wish->sensors, "\" and \"")),
                          values.light(zone.target_lx));
    zones.push_back(fmt::format(FMT_STRING("{} ({})"), zone.name, told));
  }
  list("energy", zones);
}

/// What light that goes astray outdoors is held against, beside the illuminances on neighbours.
void describe_spill(const space::PlannedRoom& planned) {
  if (!planned.brief.spill) return;
  const space::SpillBrief& spill = *planned.brief.spill;
  std::vector<std::string> told;
  const auto add = [&](const standards::Demand& demand, const std::string& of) {
    told.push_back(fmt::format(
        FMT_STRING("{}{} at most {:g}{} ({}; {})"), standards::to_string(demand.quantity),
        of.empty() ? "" : " at " + of, demand.required,
        standards::unit_of(demand.quantity).empty() ? "" : " " + standards::unit_of(demand.quantity),
        demand.source, demand.certainty));
  };
  for (std::size_t n = 0; n < spill.glare_values.size(); ++n)
    for (const standards::Demand& demand : spill.glare_values[n])
      add(demand, planned.space.neighbours[n].name);
  for (const standards::ZoneStandard standard : spill.of_intensity)
    if (standard == standards::ZoneStandard::en12464_2) {
      if (const auto demand = standards::intensity_demand(standard, spill.zone, spill.lit, 1, 1))
        add(*demand, "");
    } else {
      told.push_back("intensities by luminous area and distance (" + standards::to_string(standard) + ")");
    }
  for (const standards::Demand& demand : spill.installation) add(demand, "");
  for (const standards::Demand& demand : spill.road_users) add(demand, "");
  list("light that goes astray", told);
}

/// What limits glare, and what verifies it.
void describe_glare(const space::GlareBrief& glare, std::string& text) {
  using model::GlareMethod;
  const char* method = glare.method == GlareMethod::eyes    ? "eyes"
                       : glare.method == GlareMethod::table ? "the tabular method"
                                                            : "the tabular method where it holds, else eyes";
  for (const auto& limits : {glare.limits, glare.screen_limits})
    for (const standards::Demand& d : limits) {
      const bool ugr = d.quantity == standards::Quantity::unified_glare;
      std::string words =
          fmt::format(FMT_STRING("{} at most {:g}{}{} ({}; {})"), to_string(d.quantity), d.required,
                      unit_of(d.quantity).empty() ? "" : " ", unit_of(d.quantity), d.source, d.certainty);
      if (ugr) words += fmt::format(FMT_STRING(", by {}"), method);
      if (!d.reason.empty()) words += "; " + d.reason;
      words::wrap(text, "    ", words, 6);
    }
}

/// "  task area bench: mean 500 lx, U0 0.60 (EN 12464-1:2021, 17.4; agreed)".
void describe_demands(const std::vector<standards::Demand>& demands, const std::string& name,
                      const units::ShownUnits& units, std::string& text) {
  std::string words, source;
  for (std::size_t i = 0; i < demands.size(); ++i) {
    const standards::Demand& d = demands[i];
    const bool light = !standards::unit_of(d.quantity).empty();
    words +=
        (i ? ", " : "") + (light ? fmt::format(FMT_STRING("{} {} {}"), to_string(d.quantity),
                                               units::light_words(units, d.required), units.light_unit())
                                 : fmt::format(FMT_STRING("{} {:.2f}"), to_string(d.quantity), d.required));
    if (!d.reason.empty()) words += fmt::format(FMT_STRING(" ({})"), d.reason);
    const bool last = i + 1 == demands.size() || demands[i + 1].source != d.source;
    if (last) words += fmt::format(FMT_STRING(" ({}; {})"), d.source, d.certainty);
  }
  if (!words.empty()) words::wrap(text, "    ", fmt::format(FMT_STRING("{}: {}"), name, words), 6);
}

void describe(const OpenProject& open, const space::PlannedRoom& planned, const units::ShownUnits& units) {
  const space::Space& room = planned.space;
  const space::Brief& brief = planned.brief;
  std::size_t luminaires = 0;
  for (const auto& group : room.groups) luminaires += group.luminaires.size();
  const char* m = units.length_unit();
  tell(fmt::format(FMT_STRING("{}\n  {:.2f} {}2, {:.2f} {} high, {}, maintenance factor {:.2f}\n"), room.name,
                   units.length(units.length(room.floor_area_m2)), m, units.length(room.height_m), m,
                   words::counted(luminaires, "luminaire"),
                   lighting::mean_maintenance(room, open.weights_of(planned),
                                              planned.room->maintenance_factor.value_or(1))));
  for (const model::LuminairePlacement& placement : planned.room->luminaires)
    if (placement.arrange)
      tell(fmt::format(FMT_STRING("  {}: run finds how many and where\n"), placement.mark));
  if (planned.space.outdoors)
    tell(fmt::format(FMT_STRING("  reflectance: ground {:.2f}\n"), planned.space.reflectances.floor));
  else
    tell(fmt::format(FMT_STRING("  reflectance: ceiling {:.2f}, walls {:.2f}, floor {:.2f}\n"),
                     room.reflectances.ceiling, room.reflectances.walls, room.reflectances.floor));
  std::vector<std::string> names;
  for (const space::PlanShape& object : room.objects) names.push_back(object.name);
  list("objects", names);
  names.clear();
  for (const space::Opening& opening : room.openings) names.push_back(opening.name);
  list("openings", names);
  names.clear();
  for (const space::Meeting& meeting : room.meetings) names.push_back(words::meeting_words(meeting));
  list("touching", names);
  list("assumed, since the project does not say", planned.room->assumed);
  describe_grids(planned, units);
  describe_eyes(planned, units);
  describe_scenes(planned);
  describe_daylight(planned);
  describe_energy(planned, units);
  describe_spill(planned);
  if (brief.verified_as == space::VerifiedAs::nothing) {
    tell(fmt::format(FMT_STRING("  no task: nothing will be held against a requirement\n")));
    return;
  }
  std::string text;
  words::wrap(text, "  ", "to be verified: " + words::verified_as_words(brief.verified_as), 4);
  bool wall_told = false;  // of all walls the same is asked
  for (std::size_t g = 0; g < room.grids.size(); ++g) {
    const space::Grid& grid = room.grids[g];
    const bool wall = grid.role == space::GridRole::wall;
    if (!wall || !wall_told)
      describe_demands(brief.grids[g].demands, wall ? "each wall" : grid.name, units, text);
    wall_told = wall_told || wall;
  }
  describe_glare(brief.glare, text);
  tell(fmt::format(FMT_STRING("{}"), text));
  names.clear();
  for (const standards::NotVerified& item : brief.not_verified)
    names.push_back(words::not_verified_words(item, {}));
  list("not verified", names);
}

}  // namespace

int command_check(const std::vector<std::string>& words) {
  CommandLine line{"glowgrid check PROJECT [options]",
                   "Reads the project and all that it names and computes nothing. Reports every error, and\n"
                   "warnings about what would make results wrong; then says how each room was understood.",
                   "  glowgrid check millrace.toml",
                   "project",
                   false,
                   po::options_description()};
  line.wants = "which project?";
  add_room_option(line.options, "describe");
  add_units_option(line.options);
  line.options.add_options()("quiet,q", "errors only")("help,h", "show this help");
  const ParseResult parsed = parse(line, words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const bool quiet = parsed.arguments.flag("quiet");
  const std::filesystem::path path = parsed.arguments.text("project");
  const auto opened = open_project(path);
  const OpenProject& open = *opened;
  print_problems(open.problems, open.sources, quiet);
  if (!open.usable) {
    say(fmt::format(FMT_STRING("{}\n"), error_summary(open, path)));
    return kBadInput;
  }
  if (quiet) return kDone;
  units::ShownUnits units = open.project.units;
  if (!apply_units_option(parsed.arguments, "check", units)) return kBadInput;
  const auto chosen = chosen_rooms(room_wish(parsed.arguments), "check", known_rooms(open));
  if (!chosen) return kBadInput;
  for (const OpenProject::Room& room : open.rooms)
    if (is_chosen(*chosen, room.name())) describe(open, open.plan(room), units);
  const std::size_t remarks = open.problems.all().size();
  const std::string counted = remarks == 0   ? "no warnings"
                              : remarks == 1 ? "1 warning or note"
                                             : fmt::format(FMT_STRING("{} warnings and notes"), remarks);
  tell(fmt::format(FMT_STRING("{}: no errors, {}\n"), path.string(), counted));
  return kDone;
}

}  // namespace glow::cli
