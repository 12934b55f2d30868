#include <fmt/format.h>

#include "cli/arguments.hpp"
#include "cli/commands.hpp"
#include "cli/open_project.hpp"
#include "cli/terminal.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace {

void describe(const scene::RoomScene& room) {
  std::size_t luminaires = 0;
  for (const auto& group : room.groups) luminaires += group.luminaires.size();
  const readings::PlaneGrid& grid = room.grid;
  fmt::print(FMT_STRING("{}\n  {:.2f} m2, {:.2f} m high, {} luminaires, maintenance factor {:.2f}\n"),
             room.name, room.floor_area_m2, room.height_m, luminaires, room.maintenance_factor);
  fmt::print(FMT_STRING("  reflectance: ceiling {:.2f}, walls {:.2f}, floor {:.2f}\n"),
             room.reflectances.ceiling, room.reflectances.walls, room.reflectances.floor);
  if (!room.objects.empty() || !room.openings.empty())
    fmt::print(FMT_STRING("  objects: {}; openings: {}\n"), room.objects.size(), room.openings.size());
  fmt::print(FMT_STRING("  {} at {:.2f} m ({})\n"), room.grid_name, grid.height_m, room.plane_height_source);
  fmt::print(FMT_STRING("  {} points, {:.3f} x {:.3f} m, {:.2f} m along the walls left out\n"),
             grid.points.size(), grid.cell.x(), grid.cell.y(), grid.inset_m);
  if (!room.requirement) {
    fmt::print(FMT_STRING("  no task: nothing will be held against a requirement\n"));
    return;
  }
  const standards::Requirement& r = *room.requirement;
  fmt::print(FMT_STRING("  {}: mean {} lx, U0 {} ({}; certainty of the values: {})\n"), r.key,
             r.em_lx ? fmt::format(FMT_STRING("{:g}"), *r.em_lx) : "-",
             r.uo ? fmt::format(FMT_STRING("{:.2f}"), *r.uo) : "-", r.source(), r.certainty);
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
  line.options.add_options()("quiet,q", "errors only")("help,h", "show this help");
  const ParseResult parsed = parse(line, words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  if (!parsed.arguments.has("project")) {
    fmt::print(stderr, FMT_STRING("glowgrid check: which project? See glowgrid check --help\n"));
    return kBadInput;
  }
  const bool quiet = parsed.arguments.values.count("quiet") > 0;
  const std::filesystem::path path = parsed.arguments.text("project");
  const OpenProject open = open_project(path);
  print_problems(open.problems, open.sources, quiet);
  if (!open.usable) {
    fmt::print(stderr, FMT_STRING("{}\n"), error_summary(open, path));
    return kBadInput;
  }
  if (quiet) return kDone;
  for (const scene::RoomScene& room : open.rooms) describe(room);
  const std::size_t remarks = open.problems.all().size();
  const std::string counted = remarks == 0   ? "no warnings"
                              : remarks == 1 ? "1 warning or note"
                                             : fmt::format(FMT_STRING("{} warnings and notes"), remarks);
  fmt::print(FMT_STRING("{}: no errors, {}\n"), path.string(), counted);
  return kDone;
}

}  // namespace glow::cli
