#include "crew/crew.hpp"

#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <optional>
#include <set>
#include <stdexcept>
#include <thread>

#include "crew/messages.hpp"
#include "crew/results.hpp"

namespace glow::crew {
namespace {

/// Between looks for messages: short beside any job, and long enough to leave the processor to them.
constexpr std::chrono::microseconds kPause{500};

}  // namespace

Crew& Crew::own() {
  static Crew crew;
  return crew;
}

std::string Crew::join() {
  const Membership own = join_messages();
  rank_ = own.rank;
  size_ = own.size;
  here_ = own.here;
  return own.fault;
}

void Crew::leave(int code, bool interrupted) {
  if (is_alone()) return leave_messages();
  if (leads())
    for (int rank = 1; rank < size_; ++rank) send(rank, Tag::dismissal, {});
  // Somebody may be gone for good, and would be waited for.
  if (interrupted) {
    std::fflush(stdout);
    std::_Exit(code);
  }
  if (!leads() && !dismissed_) serve(0, {}, {});
  leave_messages();
}

void Crew::announce(const std::string& stage, const std::string& bytes) {
  for (int rank = 1; rank < size_; ++rank) send(rank, Tag::news, numbered(stage.size(), stage) + bytes);
}

/// One stage, for who leads.
class Crew::Sharing {
 public:
  Sharing(Crew& crew, const std::string& stage, const std::vector<std::size_t>& order,
          const std::function<std::string(std::size_t)>& work, const Sink& sink, const Watch& watch)
      : crew_(crew), stage_(stage), order_(order), work_(work), sink_(sink), watch_(watch) {
    due_.insert(order.begin(), order.end());
  }

  void run(std::size_t hands) {
    std::vector<std::thread> threads;
    for (std::size_t h = 0; h < hands; ++h) threads.emplace_back([this] { work(); });
    while (!due_.empty() && !failure_) {
      bool delivered = false;
      try {
        listen();
        hand_out();
        for (const Done& done : outbox_.take()) take(done);
        delivered = deliver();
        watch_.report(stage_.c_str(), double(finished_) / double(order_.size()));
        watch_.stop_if_cancelled();
      } catch (...) {
        failure_ = std::current_exception();
      }
      if (!delivered) std::this_thread::sleep_for(kPause);
    }
    stopped_ = true;
    for (std::thread& thread : threads) thread.join();
    if (failure_) std::rethrow_exception(failure_);
  }

 private:
  std::optional<std::size_t> next() {
    const std::size_t place = started_++;
    if (stopped_ || place >= order_.size()) return std::nullopt;
    return order_[place];
  }
  void work() {
    while (const auto job = next()) outbox_.put(done_by(*job, [&] { return work_(*job); }));
  }
  void listen() {
    while (auto message = receive()) {
      crew_.bytes_ += message->bytes.size();
      if (message->tag == Tag::hello) crew_.free_[message->rank] += take_number(message->bytes);
      if (message->tag == Tag::result) {
        const std::size_t job = take_number(message->bytes);
        take({job, std::move(message->bytes), nullptr});
        ++crew_.free_[message->rank];
      }
      if (message->tag == Tag::failure)
        throw std::runtime_error("in process " + std::to_string(message->rank) + ": " + message->bytes);
    }
  }
  void hand_out() {
    for (auto& [rank, free] : crew_.free_)
      while (free > 0) {
        const auto job = next();
        if (!job) return;
        --free;
        const std::string bytes = numbered(*job, stage_);
        crew_.bytes_ += bytes.size();
        send(rank, Tag::job, bytes);
      }
  }
  void take(const Done& done) {
    if (done.failure) std::rethrow_exception(done.failure);
    spool_.put(done.job, done.result);
    ++finished_;
  }
  /// One result at a time, so that nobody waits for work while many are written.
  bool deliver() {
    const auto result = spool_.take(*due_.begin());
    if (!result) return false;
    sink_(*due_.begin(), *result);
    due_.erase(due_.begin());
    return true;
  }

  Crew& crew_;
  const std::string& stage_;
  const std::vector<std::size_t>& order_;
  const std::function<std::string(std::size_t)>& work_;
  const Sink& sink_;
  const Watch& watch_;
  std::set<std::size_t> due_;  ///< jobs that the sink has not got
  std::atomic<std::size_t> started_{0};
  std::size_t finished_ = 0;
  std::atomic<bool> stopped_{false};
  Outbox outbox_;
  Spool spool_;
  std::exception_ptr failure_;
};

void Crew::share(const std::string& stage, const std::vector<std::size_t>& order, std::size_t hands,
                 const std::function<std::string(std::size_t)>& work, const Sink& sink, const Watch& watch) {
  Sharing(*this, stage, order, work, sink, watch).run(hands);
}

/// Until it is let go, for the others.
class Crew::Serving {
 public:
  Serving(Crew& crew, const Work& work, const News& learn) : crew_(crew), work_(work), learn_(learn) {}

  void run(std::size_t hands) {
    if (hands > 0) send(0, Tag::hello, numbered(hands, {}));
    while (!crew_.dismissed_) {
      while (auto message = receive()) hear(*message);
      for (const Done& done : outbox_.take()) tell(done);
      std::this_thread::sleep_for(kPause);
    }
    for (auto& [job, thread] : threads_) thread.join();
  }

 private:
  void hear(Message& message) {
    if (message.tag == Tag::dismissal) crew_.dismissed_ = true;
    if (message.tag == Tag::news && learn_) {
      const std::size_t length = take_number(message.bytes);
      learn_(message.bytes.substr(0, length), message.bytes.substr(std::min(length, message.bytes.size())));
    }
    if (message.tag != Tag::job) return;
    const std::size_t job = take_number(message.bytes);
    threads_[job] = std::thread([this, job, stage = std::move(message.bytes)] {
      outbox_.put(done_by(job, [&] { return work_(stage, job); }));
    });
  }
  void tell(const Done& done) {
    threads_.at(done.job).join();
    threads_.erase(done.job);
    if (!done.failure) return send(0, Tag::result, numbered(done.job, done.result));
    try {
      std::rethrow_exception(done.failure);
    } catch (const Cancelled&) {  // it was let go
    } catch (const std::exception& error) {
      send(0, Tag::failure, error.what());
    }
  }

  Crew& crew_;
  const Work& work_;
  const News& learn_;
  Outbox outbox_;
  std::map<std::size_t, std::thread> threads_;  ///< by what they do
};

void Crew::serve(std::size_t hands, const Work& work, const News& learn) {
  Serving(*this, work, learn).run(hands);
}

}  // namespace glow::crew
