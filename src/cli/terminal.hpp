#pragma once

#include <map>
#include <string>

#include "core/parallel/parallel.hpp"
#include "core/problems/problems.hpp"

namespace glow::cli {

/// Whether colours may be used on standard output: a terminal, and NO_COLOR is not set.
bool colour_on_output();

/// Writes problems to standard error, those of the project with the line that they are about. `quiet` leaves
/// out warnings and notes. `sources`: text of the files that may be quoted.
void print_problems(const Problems& problems, const std::map<std::string, std::string>& sources, bool quiet);

/// Shows what is being done on one line of standard error, when that is a terminal. Takes the line away at
/// the end.
class Progress {
 public:
  /// `cancel`: what stops calculations; null: Ctrl-C.
  explicit Progress(bool quiet, const std::atomic<bool>* cancel = nullptr);
  ~Progress();
  Progress(const Progress&) = delete;
  Progress& operator=(const Progress&) = delete;

  /// To hand to a long calculation; also carries Ctrl-C. `subject`: what its stages belong to ("Throwing
  /// room"); several may be under way at once.
  Watch watch(const std::string& subject);

  /// What is told to be left until the end, from now on.
  void expect(double seconds);

 private:
  struct State;
  State* state_;
};

/// As far as it matters: "7 s", "35 s", "12 min", "1.5 h".
std::string duration_words(double seconds);

/// Whether Ctrl-C or a signal like it has come.
bool is_interrupted();

/// From now on Ctrl-C asks calculations to stop; a second one ends the program at once.
void catch_interrupts();

}  // namespace glow::cli
