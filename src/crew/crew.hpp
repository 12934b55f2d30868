#pragma once

#include <atomic>
#include <cstdint>
#include <functional>
#include <map>
#include <string>
#include <vector>

#include "core/parallel/parallel.hpp"

namespace glow::crew {

/// The processes that were started together, by `mpirun -np N glowgrid ...`, on one machine or several. One
/// leads: it reads, writes and speaks as if it were alone, and has the others do jobs. They know a job by its
/// stage ("rooms") and its number, having read the same project, and give its result as bytes.
///
/// Built without MPI there is only ever one.
class Crew {
 public:
  using Sink = std::function<void(std::size_t job, const std::string& result)>;
  /// What those who do not lead can do. Called from several threads at a time.
  using Work = std::function<std::string(const std::string& stage, std::size_t job)>;
  /// What they are told between stages.
  using News = std::function<void(const std::string& stage, const std::string& bytes)>;

  /// This process's.
  static Crew& own();

  /// To be called first. What is wrong, in words; empty: nothing.
  std::string join();
  /// To be called last, with the exit code: lets the others go. Those who do not lead wait for that.
  void leave(int code, bool interrupted);

  bool leads() const { return rank_ == 0; }
  bool is_alone() const { return size_ == 1; }
  int size() const { return size_; }
  /// Of them on this machine.
  int here() const { return here_; }

  /// For who leads: has jobs done, taken in this order as somebody gets free, by up to `hands` threads here
  /// and by the others. `sink` gets each result once, in the order of their numbers, from the calling thread;
  /// until then it lies in a temporary file. `watch` is told the share that is done. Throws Cancelled, what
  /// `work` and `sink` throw, and std::runtime_error of what went wrong elsewhere.
  void share(const std::string& stage, const std::vector<std::size_t>& order, std::size_t hands,
             const std::function<std::string(std::size_t job)>& work, const Sink& sink, const Watch& watch);
  /// For who leads: tells the others.
  void announce(const std::string& stage, const std::string& bytes);

  /// For the others: does what is asked, `hands` jobs at a time, until it is let go.
  void serve(std::size_t hands, const Work& work, const News& learn);
  /// Set when that was in the middle of jobs: they need not be finished.
  const std::atomic<bool>* dismissed() const { return &dismissed_; }
  /// Bytes that went to and fro, as far as this process saw them.
  std::uint64_t bytes_sent() const { return bytes_; }

 private:
  class Sharing;
  class Serving;

  int rank_ = 0, size_ = 1, here_ = 1;
  std::map<int, std::size_t> free_;  ///< hands of the others that have nothing to do, by rank
  std::atomic<bool> dismissed_{false};
  std::atomic<std::uint64_t> bytes_{0};
};

}  // namespace glow::crew
