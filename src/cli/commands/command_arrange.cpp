#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "cli/commands.hpp"
#include "cli/crew/found_bytes.hpp"
#include "cli/options/arguments.hpp"
#include "cli/options/arrange_choice.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/run_project.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "cli/write_figures.hpp"
#include "core/model/file_names.hpp"
#include "core/run/arrange_room.hpp"
#include "crew/crew.hpp"
#include "figures/arrangement_figure.hpp"
#include "files/output/output_folder.hpp"
#include "files/project/writers/placement_writer.hpp"
#include "files/results/answers/arrangement_json.hpp"
#include "files/text/json_text.hpp"
#include "store/transport_cache.hpp"
#include "words/text_layout.hpp"
#include "words/topics/arrangement_words.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

using studies::TriedField;

/// One call of the command: rooms one after the other.
class Arranging {
 public:
  Arranging(const Arguments& arguments, const OpenProject& open, const fs::path& path)
      : arguments_(arguments),
        open_(open),
        path_(path),
        text_(open.text->text()),
        cache_(cache_folder(path)) {}

  int run(const std::vector<const OpenProject::Room*>& rooms) {
    several_ = rooms.size() > 1;
    int code = kDone;
    std::vector<Asked> asked;
    for (const OpenProject::Room* room : rooms) {
      if (!is_asked_for(open_.plan(*room).brief)) {
        if (!several_) {
          say_unasked("arrange", *room);
          return kBadInput;
        }
        say(fmt::format(FMT_STRING("{}: nothing is asked of its light; passed over\n"), room->name()));
        continue;
      }
      const auto choice = arrange_choice(arguments_, open_, *room);
      if (!choice) {
        code = kBadInput;  // the other rooms are told; nothing is written
        continue;
      }
      asked.push_back({room, *choice});
    }
    crew::Crew& crew = crew::Crew::own();
    if (!crew.leads()) return serve(asked);
    if (crew.is_alone()) {
      for (const Asked& each : asked) {
        const run::ArrangedRoom arranged = find(each, nullptr);
        if (arranged.found.stopped) return stop(each, arranged);
        code = std::max(code, take(*each.room, each.choice, arranged));
      }
    } else {
      code = std::max(code, share(asked));
    }
    if (arguments_.flag("json")) tell(files::json_text(json_));
    if (arguments_.flag("write") && changed_ && code != kBadInput) {
      for (const auto& [file, own] : open_.text->changed(text_)) {
        files::write_whole(file, own);
        say(fmt::format(FMT_STRING("Written into {}\n"), file.string()));
      }
    } else if (several_ && !arguments_.flag("json")) {
      say("More of a room, and the lines to paste: --room NAME; --write puts all into the project\n");
    }
    return code;
  }

 private:
  /// A room with what is wanted in it.
  struct Asked {
    const OpenProject::Room* room;
    ArrangeChoice choice;
  };

  run::ArrangedRoom find(const Asked& asked, const std::atomic<bool>* cancel);
  int share(const std::vector<Asked>& asked);
  int serve(const std::vector<Asked>& asked);
  int stop(const Asked& asked, const run::ArrangedRoom& arranged) const;
  int take(const OpenProject::Room& room, const ArrangeChoice& choice, const run::ArrangedRoom& arranged);
  void tell_room(const OpenProject::Room& room, const ArrangeChoice& choice,
                 const run::ArrangedRoom& arranged);
  void write_figure(const OpenProject::Room& room, const ArrangeChoice& choice,
                    const run::ArrangedRoom& arranged);

  const Arguments& arguments_;
  const OpenProject& open_;
  const fs::path path_;
  std::string text_;
  store::TransportCache cache_;
  bool changed_ = false, several_ = false;
  files::json json_ = files::json::array();
};

/// `cancel`: null: Ctrl-C.
run::ArrangedRoom Arranging::find(const Asked& asked, const std::atomic<bool>* cancel) {
  Progress progress(arguments_.flag("quiet"), cancel);
  return run::arrange_room(open_.project, asked.choice.kept, asked.choice.wish, open_.standards,
                           *run::Accuracy::parse("normal"), &cache_, progress.watch(asked.room->name()));
}

/// By all processes of the crew.
int Arranging::share(const std::vector<Asked>& asked) {
  std::vector<std::size_t> all(asked.size());
  std::iota(all.begin(), all.end(), 0);
  int code = kDone;
  Progress progress(arguments_.flag("quiet"));
  crew::Crew::own().share(
      "arrange", all, 1, [&](std::size_t k) { return bytes_of(find(asked[k], nullptr)); },
      [&](std::size_t k, const std::string& bytes) {
        run::ArrangedRoom arranged = arranged_room(bytes);
        if (arranged.placement)
          arranged.placement = arranged.found.best->field.placement(asked[k].choice.wish.base);
        code = std::max(code, take(*asked[k].room, asked[k].choice, arranged));
      },
      progress.watch("crew"));
  return code;
}

int Arranging::serve(const std::vector<Asked>& asked) {
  crew::Crew& crew = crew::Crew::own();
  crew.serve(1,
             [&](const std::string&, std::size_t k) { return bytes_of(find(asked.at(k), crew.dismissed())); },
             {});
  return kDone;
}

int Arranging::stop(const Asked& asked, const run::ArrangedRoom& arranged) const {
  say(fmt::format(FMT_STRING("glowgrid arrange: interrupted; nothing was written\n")));
  if (arranged.found.best)
    say(fmt::format(FMT_STRING("Best so far in \"{}\": {} {}, {}\n"), asked.room->name(),
                    arranged.found.best->field.luminaires, asked.choice.wish.base.mark,
                    words::field_words(arranged.found.best->field, open_.project.units)));
  return kInterrupted;
}

int Arranging::take(const OpenProject::Room& room, const ArrangeChoice& choice,
                    const run::ArrangedRoom& arranged) {
  tell_room(room, choice, arranged);
  if (arguments_.has("figure")) write_figure(room, choice, arranged);
  if (!arranged.placement) return kNotMet;
  if (!arguments_.flag("write")) {
    if (!arguments_.flag("json") && !several_)
      tell(fmt::format(FMT_STRING("\n  To paste into the project, or --write:\n\n{}"),
                       files::placement_text(*arranged.placement, open_.project.units,
                                             open_.project.rooms[choice.room].outdoors)));
    return kDone;
  }
  auto text = files::with_placement(text_, choice.room, *arranged.placement, choice.instead, choice.taken_out,
                                    open_.project.units);
  // What comes from [[settings]] gives way to a room's own, all of it at once.
  const std::size_t replaced = choice.taken_out.size() + (choice.instead ? 1 : 0);
  if (!text && replaced == open_.project.rooms[choice.room].luminaires.size())
    text = files::with_placement(text_, choice.room, *arranged.placement, {}, {}, open_.project.units);
  if (!text) {
    say(fmt::format(
        FMT_STRING("glowgrid arrange: the luminaires of \"{}\" are not written as [[rooms.luminaires]] "
                   "tables; paste the lines yourself\n{}"),
        room.name(),
        files::placement_text(*arranged.placement, open_.project.units,
                              open_.project.rooms[choice.room].outdoors)));
    return kBadInput;
  }
  text_ = *text;
  changed_ = true;
  return kDone;
}

void Arranging::tell_room(const OpenProject::Room& room, const ArrangeChoice& choice,
                          const run::ArrangedRoom& arranged) {
  if (!arguments_.flag("json")) {
    std::string area;
    if (room.written->task)
      if (const auto* row = open_.standards.front().find(*room.written->task)) area = row->area;
    std::vector<std::string> grids;
    for (const space::Grid& grid : open_.plan(room).space.grids) grids.push_back(grid.name);
    tell(
        words::arrangement_answer({arranged.found, choice.wish, arranged.record ? &*arranged.record : nullptr,
                                   grids, room.name(), area, arranged.overruled, several_},
                                  open_.project.units));
    return;
  }
  json_.push_back(files::arrangement_json(room.name(), choice.wish.base.mark, arranged.found));
}

void Arranging::write_figure(const OpenProject::Room& room, const ArrangeChoice& choice,
                             const run::ArrangedRoom& arranged) {
  const model::ScheduledLuminaire& entry = *open_.project.find(choice.wish.base.mark);
  const photometry::LuminousArea& area = entry.photometry->area;
  std::vector<figures::ArrangementPlan> plans;
  const auto add = [&](const TriedField& tried, bool best) {
    figures::ArrangementPlan plan;
    plan.title = words::field_words(tried.field, open_.project.units);
    plan.lines.push_back(fmt::format(
        FMT_STRING("{}{}"), words::counted(tried.field.luminaires, "luminaire"),
        tried.field.watts ? fmt::format(FMT_STRING(", {:.0f} W"), *tried.field.watts) : std::string()));
    plan.lines.push_back(words::key_values(tried, open_.project.units));
    plan.frames = tried.frames;
    plan.size = {area.extent_c0_m, area.extent_c90_m};
    plan.round = photometry::is_round(area.shape);
    plan.best = best;
    plans.push_back(std::move(plan));
  };
  if (arranged.found.best) add(*arranged.found.best, true);
  for (const TriedField& other : arranged.found.runners_up) add(other, false);
  if (!arranged.found.best && arranged.found.nearest) add(*arranged.found.nearest, false);
  if (plans.empty()) return;
  const std::string title = fmt::format(
      FMT_STRING("{}: {} {}"), room.name(), choice.wish.base.mark,
      arranged.found.best ? "laid so that all checks are met" : "meets not all checks; the nearest");
  const std::string svg = figures::arrangement_svg(title, open_.plan(room).space, plans);
  fs::path file = arguments_.text("figure");
  if (several_) file.replace_filename(model::file_name_part(room.name()) + "--" + file.filename().string());
  if (const std::string fault = write_figure_file(file, svg); !fault.empty())
    say(fmt::format(FMT_STRING("glowgrid arrange: {} is not written: {}\n"), file.string(), fault));
}

}  // namespace

int command_arrange(const std::vector<std::string>& words) {
  CommandLine line{
      "glowgrid arrange PROJECT [options]",
      "Finds the even array of luminaires that meets all checks of a room, glare included, with the fewest\n"
      "luminaires or watts, says why nothing smaller will do, and what else would. What it says is met is\n"
      "calculated as a run does it. Where nothing meets all: what stands in the way, and what would open it.",
      "  glowgrid arrange millrace.toml --room Showroom --mark P1\n"
      "  glowgrid arrange millrace.toml --room Showroom --mark P1 --least watts --dimming 0.5 --write",
      "project",
      false,
      po::options_description()};
  line.wants = "which project?";
  add_room_option(line.options, "arrange");
  add_arrange_options(line.options);
  line.options.add_options()("figure,f", po::value<std::string>()->value_name("FILE"),
                             "draw the arrangement and the others as small plans: .svg, .png or .pdf")(
      "write,w", "put it into the project file; all else there stays byte for byte")(
      "json", "print one JSON document");
  add_common_options(line.options);
  const ParseResult parsed = parse(line, words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const ThreadLimit threads(arguments.threads());
  const fs::path path = arguments.text("project");
  const auto open = open_project(path);
  print_problems(open->problems, open->sources, arguments.flag("quiet"));
  if (!open->usable) {
    say(fmt::format(FMT_STRING("{}\n"), error_summary(*open, path)));
    return kBadInput;
  }
  const auto chosen = chosen_rooms(room_wish(arguments), "arrange", known_rooms(*open));
  if (!chosen) return kBadInput;
  std::vector<const OpenProject::Room*> rooms;
  for (const OpenProject::Room& room : open->rooms)
    if (is_chosen(*chosen, room.name())) rooms.push_back(&room);
  return Arranging(arguments, *open, path).run(rooms);
}

}  // namespace glow::cli
