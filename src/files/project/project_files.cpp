// The part of reading a project that opens files.
#include <fmt/format.h>

#include "core/photometry/transform.hpp"
#include "files/photometry/photometric_file.hpp"
#include "files/project/project_reader.hpp"
#include "files/text/input_file.hpp"

namespace glow::files {

namespace {

/// Another flux than the file's is usual (a dimmer version, an older lamp); one far from it is usually a
/// slip.
void warn_of_flux(const model::ScheduledLuminaire& entry, double file_flux, Problems& problems) {
  constexpr double kFar = 2;  // times, either way
  const double ratio = *entry.flux_lm / file_flux;
  if (ratio < kFar && ratio > 1 / kFar) return;
  problems.warning(
      "P062", entry.place,
      fmt::format(FMT_STRING("luminaire {} is given {:.0f} lm, its file has {:.0f} lm; check the flux, and "
                             "whether it is the lamps' or the luminaire's"),
                  entry.mark, *entry.flux_lm, file_flux));
}

}  // namespace

void load_photometry(model::Project& project, const std::filesystem::path& folder, Problems& problems) {
  for (model::ScheduledLuminaire& entry : project.schedule) {
    if (entry.file.empty()) continue;
    const auto named = named_path(folder, entry.file, project.files_outside, entry.file_place, problems);
    if (!named) continue;
    auto photometry = read_photometric_file(*named, problems, entry.file_place);
    if (!photometry) continue;
    const double flux = photometry->flux_lm();
    if (entry.flux_lm && flux > 0) warn_of_flux(entry, flux, problems);
    if (entry.flux_lm && flux > 0) *photometry = photometry::scaled(*photometry, *entry.flux_lm / flux);
    entry.photometry = std::make_shared<const photometry::Photometry>(std::move(*photometry));
  }
}

}  // namespace glow::files
