#include "report/pdf.hpp"

#include <fcntl.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <vector>

#include "files/output/output_folder.hpp"

namespace glow::report {
namespace fs = std::filesystem;
namespace {

constexpr const char* kProgram = "weasyprint";

/// What the program has for an environment, with a fixed time for dates in the document.
std::vector<std::string> environment() {
  std::vector<std::string> list = {"SOURCE_DATE_EPOCH=1577836800"};
  for (char** each = environ; *each; ++each)
    if (std::strncmp(*each, "SOURCE_DATE_EPOCH=", 18) != 0) list.emplace_back(*each);
  return list;
}

}  // namespace

std::string write_pdf(const fs::path& html, const fs::path& pdf) {
  const fs::path aside = pdf.string() + "." + std::to_string(::getpid()) + ".part";
  std::vector<std::string> words = {kProgram, "--quiet", html.string(), aside.string()},
                           variables = environment();
  std::vector<char*> arguments, settings;
  for (std::string& word : words) arguments.push_back(word.data());
  for (std::string& variable : variables) settings.push_back(variable.data());
  arguments.push_back(nullptr);
  settings.push_back(nullptr);
  posix_spawn_file_actions_t actions;
  posix_spawn_file_actions_init(&actions);
  posix_spawn_file_actions_addopen(&actions, STDIN_FILENO, "/dev/null", O_RDONLY, 0);
  posix_spawn_file_actions_addopen(&actions, STDERR_FILENO, "/dev/null", O_WRONLY, 0);
  pid_t child = 0;
  const int error = ::posix_spawnp(&child, kProgram, &actions, nullptr, arguments.data(), settings.data());
  posix_spawn_file_actions_destroy(&actions);
  if (error == ENOENT)
    return "PDF is made by WeasyPrint, which is not installed: install the package weasyprint, or print the "
           "HTML from a "
           "browser";
  if (error != 0) return std::string("WeasyPrint cannot be started: ") + std::strerror(error);
  int status = 0;
  while (::waitpid(child, &status, 0) < 0 && errno == EINTR) {
  }
  std::error_code ignored;
  if (!WIFEXITED(status) || WEXITSTATUS(status) != 0 || !fs::exists(aside, ignored)) {
    fs::remove(aside, ignored);
    return "WeasyPrint ended without a PDF; the HTML is there";
  }
  std::error_code moved;
  fs::rename(aside, pdf, moved);
  if (moved) {
    fs::remove(aside, ignored);
    return "cannot write " + pdf.string() + ": " + moved.message();
  }
  return {};
}

}  // namespace glow::report
