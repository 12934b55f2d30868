#include "cli/terminal.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <chrono>
#include <csignal>
#include <cstdlib>
#include <mutex>

#include "cli/streams.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::cli {
namespace {

std::atomic<bool> interrupted{false};

extern "C" void on_interrupt(int signal_number) {
  interrupted.store(true);
  std::signal(signal_number, SIG_DFL);
}

constexpr std::size_t kLongestQuote = 100;  // characters of a source line
constexpr std::size_t kMostTold = 100;      // problems of each severity that are told one by one

/// Lines of the files that problems are about.
class Quotes {
 public:
  explicit Quotes(const std::map<std::string, std::string>& sources) {
    for (const auto& [file, text] : sources) lines_.emplace(file, files::split_lines(text));
  }

  std::string of(const Place& place) const {
    const auto found = lines_.find(place.file);
    if (found == lines_.end() || place.line < 1 || std::size_t(place.line) > found->second.size()) return {};
    const std::string line = printable(files::to_utf8(found->second[std::size_t(place.line) - 1]));
    if (line.size() > kLongestQuote || std::size_t(place.column) > line.size() + 1) return {};
    const std::string quote = fmt::format(FMT_STRING("{:>5} | {}\n"), place.line, line);
    return place.column > 0 ? quote + fmt::format(FMT_STRING("      | {:>{}}\n"), "^", place.column) : quote;
  }

 private:
  std::map<std::string, std::vector<std::string_view>> lines_;
};

}  // namespace

bool colour_on_output() {
  return ::isatty(STDOUT_FILENO) && !std::getenv("NO_COLOR");
}

void print_problems(const Problems& problems, const std::map<std::string, std::string>& sources, bool quiet) {
  const Quotes quotes(sources);
  std::map<Severity, std::size_t> told;
  for (const Problem& problem : problems.all()) {
    if (quiet && problem.severity != Severity::error) continue;
    if (++told[problem.severity] > kMostTold) continue;
    say(fmt::format(FMT_STRING("{}\n"), to_string(problem)) + quotes.of(problem.place));
  }
  for (const auto& [severity, count] : told)
    if (count > kMostTold)
      say(fmt::format(FMT_STRING("{} more {}s\n"), count - kMostTold, to_string(severity)));
}

struct Progress::State {
  bool shown = false;
  const std::atomic<bool>* cancel = &interrupted;
  std::mutex mutex;
  std::chrono::steady_clock::time_point last{};
  bool line_open = false;
  std::optional<std::chrono::steady_clock::time_point> end;  ///< as far as it is known

  /// ", about 20 s left"; empty for what is nearly done.
  std::string left(std::chrono::steady_clock::time_point now) const {
    constexpr double kSoon = 2;
    const double seconds = end ? std::chrono::duration<double>(*end - now).count() : 0;
    return seconds < kSoon ? std::string() : ", about " + duration_words(seconds) + " left";
  }

  void clear() {
    if (line_open) say(fmt::format(FMT_STRING("\r\x1b[K")));
    line_open = false;
  }
};

Progress::Progress(bool quiet, const std::atomic<bool>* cancel) : state_(new State) {
  if (cancel) state_->cancel = cancel;
  state_->shown = !quiet && ::isatty(STDERR_FILENO);
}

Progress::~Progress() {
  state_->clear();
  delete state_;
}

Watch Progress::watch(const std::string& subject) {
  Watch watch;
  watch.cancel = state_->cancel;
  if (!state_->shown) return watch;
  watch.progress = [state = state_, subject](const char* stage, double share) {
    constexpr std::chrono::milliseconds kPause(80);
    const auto now = std::chrono::steady_clock::now();
    const std::lock_guard<std::mutex> lock(state->mutex);
    if (now - state->last < kPause) return;
    state->last = now;
    state->line_open = true;
    say(fmt::format(FMT_STRING("\r\x1b[K  {}: {} {:.0f} %{}"), subject, stage, 100 * share,
                    state->left(now)));
    std::fflush(stderr);
  };
  return watch;
}

bool is_interrupted() {
  return interrupted.load();
}

void Progress::expect(double seconds) {
  const std::lock_guard<std::mutex> lock(state_->mutex);
  state_->end =
      std::chrono::steady_clock::now() + std::chrono::duration_cast<std::chrono::steady_clock::duration>(
                                             std::chrono::duration<double>(std::max(0.0, seconds)));
}

std::string duration_words(double seconds) {
  constexpr double kMinute = 60, kHour = 3600;
  const auto whole = [](double value) { return fmt::format(FMT_STRING("{:.0f}"), value); };
  if (seconds < kMinute) return whole(seconds < 10 ? seconds : std::round(seconds / 5) * 5) + " s";
  if (seconds < kHour) return whole(seconds / kMinute) + " min";
  return fmt::format(FMT_STRING("{:.1f} h"), seconds / kHour);
}

void catch_interrupts() {
  for (const int signal_number : {SIGINT, SIGTERM, SIGHUP}) std::signal(signal_number, on_interrupt);
  // What cannot be written is told by the one who writes it.
  for (const int signal_number : {SIGPIPE, SIGXFSZ}) std::signal(signal_number, SIG_IGN);
}

}  // namespace glow::cli
