#include "cli/terminal.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <chrono>
#include <csignal>
#include <cstdlib>
#include <mutex>

#include "files/text/text_scanner.hpp"

namespace glow::cli {
namespace {

std::atomic<bool> interrupted{false};

extern "C" void on_interrupt(int signal_number) {
  interrupted.store(true);
  std::signal(signal_number, SIG_DFL);
}

constexpr std::size_t kLongestQuote = 100;  // characters of a source line

void quote(const Problem& problem, const std::string& source) {
  const auto lines = files::split_lines(source);
  if (problem.place.line < 1 || std::size_t(problem.place.line) > lines.size()) return;
  const std::string line = files::to_utf8(lines[std::size_t(problem.place.line) - 1]);
  if (line.size() > kLongestQuote || std::size_t(problem.place.column) > line.size() + 1) return;
  fmt::print(stderr, FMT_STRING("{:>5} | {}\n"), problem.place.line, line);
  if (problem.place.column > 0) fmt::print(stderr, FMT_STRING("      | {:>{}}\n"), "^", problem.place.column);
}

}  // namespace

bool colour_on_output() {
  return ::isatty(STDOUT_FILENO) && !std::getenv("NO_COLOR");
}

void print_problems(const Problems& problems, const std::map<std::string, std::string>& sources, bool quiet) {
  for (const Problem& problem : problems.all()) {
    if (quiet && problem.severity != Severity::error) continue;
    fmt::print(stderr, FMT_STRING("{}\n"), to_string(problem));
    const auto source = sources.find(problem.place.file);
    if (source != sources.end()) quote(problem, source->second);
  }
}

struct Progress::State {
  bool shown = false;
  std::mutex mutex;
  std::chrono::steady_clock::time_point last{};
  bool line_open = false;

  void clear() {
    if (line_open) fmt::print(stderr, FMT_STRING("\r\x1b[K"));
    line_open = false;
  }
};

Progress::Progress(bool quiet) : state_(new State) {
  state_->shown = !quiet && ::isatty(STDERR_FILENO);
}

Progress::~Progress() {
  state_->clear();
  delete state_;
}

Watch Progress::watch(const std::string& subject) {
  Watch watch;
  watch.cancel = &interrupted;
  if (!state_->shown) return watch;
  watch.progress = [state = state_, subject](const char* stage, double share) {
    constexpr std::chrono::milliseconds kPause(80);
    const auto now = std::chrono::steady_clock::now();
    const std::lock_guard<std::mutex> lock(state->mutex);
    if (now - state->last < kPause) return;
    state->last = now;
    state->line_open = true;
    fmt::print(stderr, FMT_STRING("\r\x1b[K  {}: {} {:.0f} %"), subject, stage, 100 * share);
    std::fflush(stderr);
  };
  return watch;
}

void catch_interrupts() {
  std::signal(SIGINT, on_interrupt);
}

}  // namespace glow::cli
