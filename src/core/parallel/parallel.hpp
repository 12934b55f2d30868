#pragma once

#include <atomic>
#include <cstddef>
#include <functional>
#include <stdexcept>

namespace glow {

/// Thrown out of a long calculation after `Watch::cancel` was set.
class Cancelled : public std::runtime_error {
 public:
  Cancelled() : std::runtime_error("cancelled") {}
};

/// How a long calculation talks to whoever waits for it.
struct Watch {
  /// Told what is being done and which share of it is done (0..1); may be called from any thread. May be
  /// empty.
  std::function<void(const char* stage, double share)> progress;
  const std::atomic<bool>* cancel = nullptr;

  void report(const char* stage, double share) const {
    if (progress) progress(stage, share);
  }
  void stop_if_cancelled() const {
    if (cancel && cancel->load(std::memory_order_relaxed)) throw Cancelled();
  }
  /// For one of many works that are told of together: it tells of no progress, and is cancelled as this is.
  Watch silent() const { return {{}, cancel}; }
};

/// Calls body(i) for every i in [0, count), on all threads; each i must only write what is its own, so that
/// the result does not depend on the number of threads. Denormal numbers are flushed to zero inside `body`.
/// Reports progress under `stage` and throws Cancelled when the watch says so.
void parallel_for(std::size_t count, const Watch& watch, const char* stage,
                  const std::function<void(std::size_t)>& body);

/// Threads that calculations may use: the machine's, or fewer under a ThreadLimit.
int thread_count();

/// Limits the threads used while it lives; 0 = all of the machine's.
class ThreadLimit {
 public:
  explicit ThreadLimit(int threads);
  ~ThreadLimit();
  ThreadLimit(const ThreadLimit&) = delete;
  ThreadLimit& operator=(const ThreadLimit&) = delete;

 private:
  struct Control;
  Control* control_;
};

}  // namespace glow
