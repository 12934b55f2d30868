#include "files/photometry/photometry_reader.hpp"
#include "files/photometry/photometry_writer.hpp"
#include "fuzz_target.hpp"

namespace glow::fuzz {
namespace {

/// What was read must be writable, and readable again.
void check_photometry(const std::optional<photometry::Photometry>& p, const Problems& problems) {
  must(p.has_value() == !problems.has_errors());
  if (!p) return;
  must(p->flux_lm() >= 0);
  std::vector<std::string> losses;
  Problems again;
  must(files::read_ies(files::write_ies(*p, losses), "again.ies", again).has_value());
}

}  // namespace

void read(std::string_view bytes) {
  Problems problems;
#ifdef GLOWGRID_FUZZ_EULUMDAT
  check_photometry(files::read_eulumdat(bytes, "fuzz.ldt", problems), problems);
#else
  check_photometry(files::read_ies(bytes, "fuzz.ies", problems), problems);
#endif
}

}  // namespace glow::fuzz
