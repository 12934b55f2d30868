#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "cli/arguments.hpp"
#include "cli/commands.hpp"
#include "cli/open_project.hpp"
#include "cli/terminal.hpp"
#include "core/results/probe.hpp"
#include "core/units/quantity.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace {

constexpr std::size_t kMostShown = 20;

/// "2.5,1,0.85": three lengths, each of which may carry a unit.
std::optional<Vec3> parse_spot(const std::string& words) {
  Vec3 spot;
  std::size_t begin = 0;
  for (int k = 0; k < 3; ++k) {
    const std::size_t comma = words.find(',', begin);
    if ((comma == std::string::npos) != (k == 2)) return std::nullopt;
    const auto parsed = units::parse_quantity(words.substr(begin, comma - begin), units::Dimension::length);
    if (!parsed.ok || std::abs(parsed.value) > 1e7) return std::nullopt;
    spot[k] = parsed.value;
    begin = comma + 1;
  }
  return spot;
}

const scene::RoomScene* find_room(const OpenProject& open, const std::string& name) {
  std::vector<std::string> names;
  for (const scene::RoomScene& room : open.rooms) {
    if (room.name == name || (name.empty() && open.rooms.size() == 1)) return &room;
    names.push_back(room.name);
  }
  if (name.empty()) {
    fmt::print(stderr, FMT_STRING("glowgrid probe: which room? Give --room with one of: {}\n"),
               fmt::join(names, ", "));
    return nullptr;
  }
  const std::string near = nearest_word(name, names);
  fmt::print(stderr, FMT_STRING("glowgrid probe: there is no room \"{}\"; {}\n"), name,
             near.empty() ? fmt::format(FMT_STRING("the rooms are: {}"), fmt::join(names, ", "))
                          : fmt::format(FMT_STRING("did you mean \"{}\"?"), near));
  return nullptr;
}

/// Up, down, along a direction, or towards the middle of an object.
std::optional<Vec3> parse_facing(const std::string& words, const Vec3& at, const scene::RoomScene& room) {
  if (words == "up") return Vec3(Vec3::UnitZ());
  if (words == "down") return Vec3(-Vec3::UnitZ());
  Vec3 way = Vec3::Zero();
  std::vector<std::string> names = {"up", "down"};
  if (const auto direction = parse_spot(words)) way = *direction;
  for (const scene::PlanShape& object : room.objects) {
    names.push_back(object.name);
    if (object.name != words) continue;
    Vec2 middle = Vec2::Zero();
    for (const Vec2& p : object.outline) middle += p / double(object.outline.size());
    way = Vec3(middle.x(), middle.y(), (object.bottom_m + object.top_m) / 2) - at;
  }
  if (way.norm() > 1e-9) return Vec3(way.normalized());
  const std::string near = nearest_word(words, names);
  fmt::print(
      stderr,
      FMT_STRING("glowgrid probe: --facing is \"{}\"; {}expected up, down, a direction such as 1,0,0, or "
                 "the name of an object in \"{}\"\n"),
      words, near.empty() ? std::string() : fmt::format(FMT_STRING("did you mean \"{}\"? "), near),
      room.name);
  return std::nullopt;
}

std::string in_words(const Vec3& p) {
  return fmt::format(FMT_STRING("({:.2f}, {:.2f}, {:.2f})"), p.x(), p.y(), p.z());
}

void print_table(const scene::RoomScene& room, const Vec3& at, const std::string& facing,
                 const results::ProbeResult& result) {
  fmt::print(FMT_STRING("{} at {} m, facing {}; maintained, factor {:.2f}\n"), room.name, in_words(at),
             facing, room.maintenance_factor);
  fmt::print(
      FMT_STRING(
          "  direct          {:>9.1f} lx\n  interreflected  {:>9.1f} lx\n  total           {:>9.1f} lx, "
          "sure to +/- {:.2g} lx\n\n"),
      result.direct_lx, result.interreflected_lx, result.total_lx(), result.uncertainty_lx);
  fmt::print(FMT_STRING("  {:<10} {:<24} {:>9} {:>7} {:>9} {:>15}\n"), "luminaire", "at, m", "total lx",
             "share", "direct", "interreflected");
  results::LuminaireShare rest;
  for (std::size_t i = 0; i < result.luminaires.size(); ++i) {
    const results::LuminaireShare& l = result.luminaires[i];
    if (i >= kMostShown) {
      rest.direct_lx += l.direct_lx;
      rest.interreflected_lx += l.interreflected_lx;
      continue;
    }
    fmt::print(FMT_STRING("  {:<10} {:<24} {:>9.1f} {:>5.0f} % {:>9.1f} {:>15.1f}\n"), l.mark,
               in_words(l.position), l.total_lx(),
               result.total_lx() > 0 ? 100 * l.total_lx() / result.total_lx() : 0, l.direct_lx,
               l.interreflected_lx);
  }
  if (result.luminaires.size() > kMostShown)
    fmt::print(FMT_STRING("  {:<35} {:>9.1f} {:>5.0f} % {:>9.1f} {:>15.1f}\n"),
               fmt::format(FMT_STRING("{} others together"), result.luminaires.size() - kMostShown),
               rest.total_lx(), 100 * rest.total_lx() / result.total_lx(), rest.direct_lx,
               rest.interreflected_lx);
}

void print_json(const scene::RoomScene& room, const transport::Receiver& spot,
                const results::ProbeResult& result) {
  const auto vector = [](const Vec3& v) { return nlohmann::ordered_json{v.x(), v.y(), v.z()}; };
  nlohmann::ordered_json j = {{"room", room.name},
                              {"at_m", vector(spot.position)},
                              {"facing", vector(spot.normal)},
                              {"direct_lx", result.direct_lx},
                              {"interreflected_lx", result.interreflected_lx},
                              {"total_lx", result.total_lx()},
                              {"uncertainty_lx", result.uncertainty_lx},
                              {"luminaires", nlohmann::ordered_json::array()}};
  for (const results::LuminaireShare& l : result.luminaires)
    j["luminaires"].push_back({{"mark", l.mark},
                               {"at_m", vector(l.position)},
                               {"direct_lx", l.direct_lx},
                               {"interreflected_lx", l.interreflected_lx},
                               {"total_lx", l.total_lx()}});
  fmt::print(FMT_STRING("{}\n"), j.dump(2));
}

int probe_room(const Arguments& arguments, const scene::RoomScene& room, const Vec3& at) {
  const std::string facing = arguments.text("facing");
  const auto normal = parse_facing(facing, at, room);
  if (!normal) return kBadInput;
  const transport::Receiver spot{at, *normal};
  results::ProbeResult result;
  {
    Progress progress(arguments.values.count("quiet") > 0);
    progress.subject(room.name);
    result = results::probe(room, spot, transport::Effort::fine(), progress.watch());
  }
  if (result.misplaced) {
    fmt::print(stderr, FMT_STRING("glowgrid probe: {} m, facing {}, lies {}; expected a spot in the open\n"),
               in_words(at), facing,
               result.misplaced->inside.empty()
                   ? fmt::format(FMT_STRING("outside \"{}\""), room.name)
                   : fmt::format(FMT_STRING("inside or behind \"{}\""), result.misplaced->inside));
    return kBadInput;
  }
  if (arguments.values.count("json") > 0)
    print_json(room, spot, result);
  else
    print_table(room, at, facing, result);
  return kDone;
}

}  // namespace

int command_probe(const std::vector<std::string>& words) {
  CommandLine line{
      "glowgrid probe PROJECT --at X,Y,Z [options]",
      "Light at one spot: direct, interreflected and total, and how much of it each luminaire gives,\n"
      "largest first. Writes no files.",
      "  glowgrid probe millrace.toml --room \"Throwing room\" --at 2.4,3.2,0.85\n"
      "  glowgrid probe millrace.toml --at \"2 m,10 ft,1.6\" --facing 0,1,0",
      "project",
      false,
      po::options_description()};
  line.options.add_options()("room,r", po::value<std::string>()->value_name("NAME"),
                             "the room; may be left out when there is only one")(
      "at", po::value<std::string>()->value_name("X,Y,Z"), "the spot, in the room's coordinates, m")(
      "facing,f", po::value<std::string>()->value_name("WHERE")->default_value("up"),
      "up, down, a direction X,Y,Z, or an object's name")("json", "print one JSON document");
  add_common_options(line.options);
  const ParseResult parsed = parse(line, words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  if (!arguments.has("project")) {
    fmt::print(stderr, FMT_STRING("glowgrid probe: which project? See glowgrid probe --help\n"));
    return kBadInput;
  }
  const auto at = parse_spot(arguments.text("at"));
  if (!at) {
    fmt::print(stderr,
               FMT_STRING("glowgrid probe: --at is \"{}\"; expected three lengths, such as 2.4,3.2,0.85\n"),
               arguments.text("at"));
    return kBadInput;
  }
  const ThreadLimit threads(arguments.has("threads") ? arguments.values["threads"].as<int>() : 0);
  const std::filesystem::path path = arguments.text("project");
  const OpenProject open = open_project(path);
  print_problems(open.problems, open.sources, arguments.values.count("quiet") > 0);
  if (!open.usable) {
    fmt::print(stderr, FMT_STRING("{}\n"), error_summary(open, path));
    return kBadInput;
  }
  const scene::RoomScene* room = find_room(open, arguments.text("room"));
  return room ? probe_room(arguments, *room, *at) : kBadInput;
}

}  // namespace glow::cli
