#include "cli/crew/shared_rooms.hpp"

#include <algorithm>
#include <map>
#include <mutex>

#include "cli/crew/found_bytes.hpp"
#include "cli/options/arguments.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/runs/variant_runs.hpp"
#include "cli/write_figures.hpp"
#include "core/run/arrange_room.hpp"
#include "crew/crew.hpp"
#include "crew/messages.hpp"
#include "files/results/record_json.hpp"
#include "store/held_transports.hpp"
#include "store/transport_cache.hpp"

namespace glow::cli {
namespace {

constexpr int kPictureColumns = 400;

/// Jobs are rooms by their numbers in the project; stages name the variant.
const std::string kRooms = "rooms:", kArrange = "arrange:", kArranged = "arranged:";

/// Rooms that a process computes at a time: as many as have threads, and memory.
std::size_t hands_of(const run::RunPlan& plan) {
  double most = 1;
  for (const run::RoomJob& room : plan.rooms) most = std::max(most, memory_of(room.work, plan.accuracy));
  const auto fit = std::size_t(std::max(1.0, std::min(1e3, plan.memory_bytes / most)));
  return std::min(std::size_t(thread_count()), fit);
}

std::size_t number_of(const OpenProject& open, const OpenProject::Room& room) {
  return std::size_t(&room - open.rooms.data());
}

std::vector<std::size_t> largest_first(const OpenProject& open, std::vector<std::size_t> rooms,
                                       const run::Accuracy& accuracy) {
  std::stable_sort(rooms.begin(), rooms.end(), [&](std::size_t a, std::size_t b) {
    return rays_of(open.rooms[a].work, accuracy) > rays_of(open.rooms[b].work, accuracy);
  });
  return rooms;
}

/// A room computed and drawn, as bytes: all that can be done away from who leads.
std::string computed(const OpenProject& open, const PlannedRun& run, std::size_t room, const Watch& watch) {
  run::FinishedRoom finished = compute_job(run.plan, room, watch);
  if (run.draws && finished.fault.empty()) try {
      const record::RoomRecord record = files::as_written(finished.record);
      finished.drawn.emplace();
      for (const figures::Figure& figure : usual_figures(record, open.project.figures, run.units, {}))
        finished.drawn->emplace_back(figure.base, figure.svg());
    } catch (const std::runtime_error&) {  // who leads will find the same, and tell it
      finished.drawn.reset();
    }
  return bytes_of(finished);
}

/// A project, or one of its variants, as a process has it that does not lead.
class Served {
 public:
  Served(std::unique_ptr<OpenProject> open, RunOptions options, transport::TransportStore* store)
      : open_(std::move(open)), options_(std::move(options)), store_(store) {}

  const OpenProject& open() const { return *open_; }

  std::string arrange(std::size_t number, const Watch& watch) const {
    return bytes_of(run::find_fields(open_->project, *open_->rooms.at(number).written, open_->standards,
                                     options_.accuracy, store_, watch));
  }
  void lay(std::size_t number, const std::string& fields) {
    Problems told;  // by who leads
    OpenProject::Room& room = open_->rooms.at(number);
    model::Room& written = open_->project.rooms[std::size_t(room.written - open_->project.rooms.data())];
    if (!run::lay_fields(settled_fields(fields), written, told)) room.fault = told.all().back().text;
  }
  std::string compute(std::size_t number, const Watch& watch) {
    {
      const std::lock_guard<std::mutex> lock(mutex_);  // when all rooms are arranged
      if (!run_) run_ = planned_run(*open_, options_, store_);
    }
    const auto room = std::find(run_->rooms.begin(), run_->rooms.end(), &open_->rooms.at(number));
    if (room == run_->rooms.end()) throw std::runtime_error("is asked for a room that it cannot compute");
    return computed(*open_, *run_, std::size_t(room - run_->rooms.begin()), watch);
  }

 private:
  std::unique_ptr<OpenProject> open_;
  RunOptions options_;
  transport::TransportStore* store_;
  std::mutex mutex_;
  std::optional<PlannedRun> run_;
};

}  // namespace

PlannedRun planned_run(const OpenProject& open, const RunOptions& options, transport::TransportStore* cache) {
  PlannedRun run;
  run::RunPlan& plan = run.plan;
  plan.project = &open.project;
  plan.accuracy = options.accuracy;
  if (options.spread) plan.studies.tolerance = open.project.spread;
  plan.studies.hours = options.hours.has_value();
  if (options.pictures) plan.studies.pictures = {views::Quality::small(), {}, {}, kPictureColumns, false};
  plan.after = options.followed_by;
  plan.store = options.store ? options.store : options.use_cache ? cache : nullptr;
  plan.days = options.days;
  run.draws = options.figures && !open.project.figures.common_scale;
  run.units = options.units.value_or(open.project.units);
  for (const OpenProject::Room& room : open.rooms) {
    if (!is_chosen(options.rooms, room.name())) continue;
    if (!room.fault.empty()) {
      run.has_faults = true;
      continue;
    }
    run.rooms.push_back(&room);
    plan.rooms.push_back({room.name(), room.work, [&open, &room] { return open.plan(room); }, room.day_key});
  }
  return run;
}

RunOptions options_of_variants(const RunOptions& options) {
  RunOptions own = options;
  own.pictures = own.figures = false;
  return own;
}

void share_rooms(const OpenProject& open, const PlannedRun& run,
                 const std::function<Watch(const std::string&)>& watch_of, const run::RoomSink& sink,
                 const std::function<void(double)>& done) {
  std::map<std::size_t, std::size_t> places;  // in the plan, by numbers in the project
  std::vector<std::size_t> jobs;
  for (std::size_t k = 0; k < run.rooms.size(); ++k) {
    jobs.push_back(number_of(open, *run.rooms[k]));
    places[jobs.back()] = k;
  }
  crew::Crew::own().share(
      kRooms + open.variant, largest_first(open, jobs, run.plan.accuracy), hands_of(run.plan),
      [&](std::size_t job) {
        const std::size_t k = places.at(job);
        return computed(open, run, k, watch_of(run.plan.rooms[k].name));
      },
      [&](std::size_t job, const std::string& bytes) { sink(places.at(job), finished_room(bytes)); },
      Watch{[&](const char*, double share) { done(share); }, watch_of("crew").cancel});
}

void share_arrangements(const OpenProject& open, const std::vector<std::size_t>& rooms,
                        const std::function<run::SettledFields(std::size_t)>& find,
                        const std::function<void(std::size_t, const run::SettledFields&)>& lay,
                        const Watch& watch) {
  if (rooms.empty()) return;
  crew::Crew& crew = crew::Crew::own();
  std::map<std::size_t, std::string> found;
  crew.share(
      kArrange + open.variant, rooms, 1, [&](std::size_t room) { return bytes_of(find(room)); },
      [&](std::size_t room, const std::string& bytes) { found[room] = bytes; }, watch);
  for (const auto& [room, bytes] : found) {  // when nobody reads the project any more
    crew.announce(kArranged + open.variant, crew::numbered(room, bytes));
    lay(room, settled_fields(bytes));
  }
}

int serve_run(const std::filesystem::path& path, const RunOptions& asked) {
  crew::Crew& crew = crew::Crew::own();
  RunOptions options = asked;
  auto base = open_project(path, options.variant);
  if (!base->usable) return kBadInput;  // who leads says why
  const auto chosen = chosen_rooms(options.wish, "run", known_rooms(*base));
  if (!chosen) return kBadInput;
  options.rooms = *chosen;
  store::TransportCache cache(cache_folder(path));
  store::HeldTransports held(options.use_cache ? &cache : nullptr);
  run::DayMemory days;
  const std::vector<std::string> names =
      options.variant.empty() ? base->project.variants : std::vector<std::string>();
  transport::TransportStore* store = options.use_cache ? &cache : nullptr;
  if (!names.empty()) store = options.store = &held, options.days = &days;
  std::map<std::string, std::unique_ptr<Served>> served;
  for (const std::string& name : names) {
    auto open = open_project(path, name);
    if (!open->usable) return kBadInput;
    RunOptions own = options_of_variants(options);
    own.rooms = rooms_that_differ(*open, *base, options.rooms);
    served[name] = std::make_unique<Served>(std::move(open), own, store);
  }
  const std::size_t hands = hands_of(planned_run(*base, options, store).plan);
  served[options.variant] = std::make_unique<Served>(std::move(base), options, store);
  const Watch watch{{}, crew.dismissed()};
  const auto of = [&](const std::string& stage) -> Served& {
    return *served.at(stage.substr(stage.find(':') + 1));
  };
  crew.serve(
      hands,
      [&](const std::string& stage, std::size_t job) {
        return stage.rfind(kArrange, 0) == 0 ? of(stage).arrange(job, watch) : of(stage).compute(job, watch);
      },
      [&](const std::string& stage, std::string bytes) {
        const std::size_t room = crew::take_number(bytes);
        of(stage).lay(room, bytes);
      });
  return kDone;
}

}  // namespace glow::cli
