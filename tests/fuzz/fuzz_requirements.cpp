#include "files/requirements/requirement_table_reader.hpp"
#include "fuzz_target.hpp"

namespace glow::fuzz {

void read(std::string_view bytes) {
  Problems problems;
  must(files::read_requirement_table(bytes, "fuzz.csv", problems).has_value() == !problems.has_errors());
}

}  // namespace glow::fuzz
