#include "core/run/run_rooms.hpp"

#include <algorithm>
#include <condition_variable>
#include <exception>
#include <map>
#include <mutex>
#include <thread>

namespace glow::run {
namespace {

/// Rooms may be done so many places before the one that the sink waits for.
constexpr std::size_t kMostAhead = 8;

class Jobs {
 public:
  Jobs(const RunPlan& plan, const std::function<Watch(const std::string&)>& watch_of, const RoomSink& sink)
      : plan_(plan), watch_of_(watch_of), sink_(sink) {}

  void run() {
    const std::size_t count = std::min(plan_.rooms.size(), std::size_t(thread_count()));
    std::vector<std::thread> others;
    for (std::size_t t = 1; t < count; ++t) others.emplace_back([this] { work(); });
    work();
    for (std::thread& other : others) other.join();
    if (failure_) std::rethrow_exception(failure_);
  }

 private:
  void work();
  std::optional<std::size_t> next();
  void hand_over(std::size_t number, FinishedRoom finished);

  const RunPlan& plan_;
  const std::function<Watch(const std::string&)>& watch_of_;
  const RoomSink& sink_;
  std::mutex mutex_;
  std::condition_variable changed_;
  std::size_t started_ = 0, delivered_ = 0, running_ = 0;
  double memory_ = 0;
  bool delivering_ = false;  ///< somebody is with the sink
  std::map<std::size_t, FinishedRoom> waiting_;
  std::exception_ptr failure_;
};

/// The next room, when there is memory for it; nothing when there is none left.
std::optional<std::size_t> Jobs::next() {
  std::unique_lock<std::mutex> lock(mutex_);
  for (;;) {
    if (failure_ || started_ == plan_.rooms.size()) return std::nullopt;
    const double need = memory_of(plan_.rooms[started_].work, plan_.accuracy);
    const bool fits = running_ == 0 || memory_ + need <= plan_.memory_bytes;
    if (fits && started_ < delivered_ + kMostAhead) {
      memory_ += need;
      ++running_;
      return started_++;
    }
    changed_.wait(lock);
  }
}

/// Gives the sink what it waits for. Whoever brings the room that is due hands over those after it as well.
void Jobs::hand_over(std::size_t number, FinishedRoom finished) {
  std::unique_lock<std::mutex> lock(mutex_);
  memory_ -= memory_of(plan_.rooms[number].work, plan_.accuracy);
  --running_;
  waiting_.emplace(number, std::move(finished));
  changed_.notify_all();
  if (delivering_) return;
  delivering_ = true;
  for (auto due = waiting_.find(delivered_); due != waiting_.end() && !failure_;
       due = waiting_.find(delivered_)) {
    FinishedRoom room = std::move(due->second);
    waiting_.erase(due);
    lock.unlock();
    std::exception_ptr failure;
    try {
      sink_(delivered_, std::move(room));
    } catch (...) {
      failure = std::current_exception();
    }
    lock.lock();
    if (failure) failure_ = failure;
    ++delivered_;
    changed_.notify_all();
  }
  delivering_ = false;
}

void Jobs::work() {
  while (const auto number = next()) {
    try {
      hand_over(*number, compute_job(plan_, *number, watch_of_(plan_.rooms[*number].name)));
    } catch (...) {
      const std::lock_guard<std::mutex> lock(mutex_);
      if (!failure_) failure_ = std::current_exception();
      changed_.notify_all();
    }
  }
}

}  // namespace

FinishedRoom compute_job(const RunPlan& plan, std::size_t number, const Watch& watch) {
  FinishedRoom finished;
  try {
    const space::PlannedRoom room = plan.rooms[number].plan();
    ComputedRoom computed =
        compute_room(*plan.project, room, plan.accuracy,
                     Memory(plan.store, plan.days, plan.rooms[number].day_key), watch, plan.studies);
    finished.record = std::move(computed.record);
    finished.reused = computed.reused;
    finished.pictures = std::move(computed.pictures);
    finished.hours = std::move(computed.hours);
  } catch (const Cancelled&) {
    throw;
  } catch (const std::bad_alloc&) {
    finished.fault = "there is not enough memory for it";
  } catch (const std::exception& error) {
    finished.fault = error.what();
  }
  return finished;
}

void run_rooms(const RunPlan& plan, const std::function<Watch(const std::string& room)>& watch_of,
               const RoomSink& sink) {
  Jobs(plan, watch_of, sink).run();
}

}  // namespace glow::run
