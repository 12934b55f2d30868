#include "files/project/project_reader.hpp"
#include "fuzz_target.hpp"

namespace glow::fuzz {

void read(std::string_view bytes) {
  Problems problems;
  const auto project = files::read_project(bytes, "fuzz.toml", problems);
  must(project.has_value() || problems.has_errors());
}

}  // namespace glow::fuzz
