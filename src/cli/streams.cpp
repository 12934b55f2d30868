#include "cli/streams.hpp"

#include <fcntl.h>
#include <unistd.h>

#include <cerrno>

namespace glow::cli {

void hold_streams() {
  // open() takes the lowest number that is free: the closed one.
  for (int number = 0; number <= STDERR_FILENO; ++number)
    if (::fcntl(number, F_GETFD) < 0 && errno == EBADF)
      (void)::open("/dev/null", number == STDERR_FILENO ? O_WRONLY : O_RDONLY);
}

namespace {

bool silent = false;

}  // namespace

void keep_silent() {
  silent = true;
}

void say(const std::string& text) {
  if (silent) return;
  (void)std::fwrite(text.data(), 1, text.size(), stderr);
}

bool refused(const char* command, const std::string& words) {
  say(std::string("glowgrid ") + command + ": " + words + "\n");
  return false;
}

void tell(const std::string& text) {
  if (silent) return;
  (void)std::fwrite(text.data(), 1, text.size(), stdout);
}

bool output_failed() {
  return std::fflush(stdout) != 0 || std::ferror(stdout);
}

}  // namespace glow::cli
