#include "figures/convert_svg.hpp"

#include <spawn.h>
#include <sys/wait.h>

#include <cerrno>
#include <cstring>
#include <vector>

extern char** environ;

namespace glow::figures {

bool convert_svg(const std::filesystem::path& svg, const std::filesystem::path& target, std::string& reason) {
  std::string program = "rsvg-convert", format = "--format=" + target.extension().string().substr(1),
              option = "-o", to = target.string(), from = svg.string();
  std::vector<char*> arguments = {program.data(), format.data(), option.data(),
                                  to.data(),      from.data(),   nullptr};
  // A PDF carries the time it was made, unless it is told one.
  std::string epoch = "SOURCE_DATE_EPOCH=0";
  std::vector<char*> environment;
  for (char** entry = environ; *entry; ++entry) environment.push_back(*entry);
  environment.push_back(epoch.data());
  environment.push_back(nullptr);
  pid_t child = 0;
  const int failed =
      ::posix_spawnp(&child, program.c_str(), nullptr, nullptr, arguments.data(), environment.data());
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
