#include "figures/rasterise.hpp"

#include <spawn.h>
#include <sys/wait.h>

#include <cerrno>
#include <cstring>
#include <vector>

extern char** environ;

namespace glow::figures {

bool rasterise(const std::filesystem::path& svg, const std::filesystem::path& png, std::string& reason) {
  std::string program = "rsvg-convert", format = "--format=png", option = "-o", to = png.string(),
              from = svg.string();
  std::vector<char*> arguments = {program.data(), format.data(), option.data(),
                                  to.data(),      from.data(),   nullptr};
  pid_t child = 0;
  const int failed = ::posix_spawnp(&child, program.c_str(), nullptr, nullptr, arguments.data(), environ);
  if (failed != 0) {
    reason =
        "rsvg-convert (package librsvg2-bin) could not be started: " + std::string(std::strerror(failed));
    return false;
  }
  int status = 0;
  while (::waitpid(child, &status, 0) < 0) {
    if (errno == EINTR) continue;
    reason = std::strerror(errno);
    return false;
  }
  if (WIFEXITED(status) && WEXITSTATUS(status) == 0) return true;
  reason = "rsvg-convert failed";
  return false;
}

}  // namespace glow::figures
