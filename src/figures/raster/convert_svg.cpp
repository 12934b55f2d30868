#include "figures/raster/convert_svg.hpp"

#include <cairo-pdf.h>
#include <librsvg/rsvg.h>

#include <memory>

namespace glow::figures {
namespace {

constexpr double kPointsPerPixel = 72.0 / 96.0;

struct Release {
  void operator()(RsvgHandle* handle) const { g_object_unref(handle); }
  void operator()(cairo_surface_t* surface) const { cairo_surface_destroy(surface); }
  void operator()(cairo_t* context) const { cairo_destroy(context); }
  void operator()(GError* error) const { g_error_free(error); }
};
template <class T>
using Owned = std::unique_ptr<T, Release>;

std::string words_of(GError* error, const char* otherwise) {
  const Owned<GError> owned(error);
  return error ? std::string(error->message) : std::string(otherwise);
}

/// `scale`: units of the surface for a pixel of the drawing.
bool render(RsvgHandle* drawing, cairo_surface_t* surface, double scale, double width, double height,
            std::string& reason) {
  const Owned<cairo_t> context(cairo_create(surface));
  cairo_scale(context.get(), scale, scale);
  const RsvgRectangle page = {0, 0, width, height};
  GError* error = nullptr;
  if (!rsvg_handle_render_document(drawing, context.get(), &page, &error)) {
    reason = words_of(error, "cannot be drawn");
    return false;
  }
  return true;
}

bool check(cairo_status_t status, std::string& reason) {
  if (status == CAIRO_STATUS_SUCCESS) return true;
  reason = cairo_status_to_string(status);
  return false;
}

}  // namespace

bool convert_svg(const std::string& svg, const std::filesystem::path& target, std::string& reason) {
  GError* error = nullptr;
  const Owned<RsvgHandle> drawing(
      rsvg_handle_new_from_data(reinterpret_cast<const guint8*>(svg.data()), svg.size(), &error));
  double width = 0, height = 0;
  if (!drawing || !rsvg_handle_get_intrinsic_size_in_pixels(drawing.get(), &width, &height)) {
    reason = words_of(error, "is no drawing of a stated size");
    return false;
  }
  if (target.extension() == ".pdf") {
    const Owned<cairo_surface_t> page(
        cairo_pdf_surface_create(target.c_str(), width * kPointsPerPixel, height * kPointsPerPixel));
    // It would carry the time it was made otherwise.
    cairo_pdf_surface_set_metadata(page.get(), CAIRO_PDF_METADATA_CREATE_DATE, "1970-01-01T00:00:00Z");
    if (!render(drawing.get(), page.get(), kPointsPerPixel, width, height, reason)) return false;
    cairo_surface_finish(page.get());
    return check(cairo_surface_status(page.get()), reason);
  }
  const Owned<cairo_surface_t> image(
      cairo_image_surface_create(CAIRO_FORMAT_RGB24, int(width + 0.5), int(height + 0.5)));
  if (!render(drawing.get(), image.get(), 1, width, height, reason)) return false;
  return check(cairo_surface_write_to_png(image.get(), target.c_str()), reason);
}

}  // namespace glow::figures
