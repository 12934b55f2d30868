#include "figures/raster/convert_svg.hpp"

#include <cairo-pdf.h>
#include <librsvg/rsvg.h>
#include <png.h>

#include <cstdint>
#include <cstdio>
#include <memory>
#include <vector>

namespace glow::figures {
namespace {

constexpr double kPointsPerPixel = 72.0 / 96.0;
constexpr int kCompression = 1;  // of zlib, up to 9

struct Release {
  void operator()(RsvgHandle* handle) const { g_object_unref(handle); }
  void operator()(GInputStream* stream) const { g_object_unref(stream); }
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

/// Drawings are flat areas: without filters and with little effort they compress nearly as well, in a fifth
/// of the time.
bool write_png(cairo_surface_t* image, const std::filesystem::path& target, std::string& reason) {
  const int width = cairo_image_surface_get_width(image), height = cairo_image_surface_get_height(image);
  const int stride = cairo_image_surface_get_stride(image);
  const unsigned char* pixels = cairo_image_surface_get_data(image);
  const auto fail = [&](const char* words) {
    reason = words;
    return false;
  };
  const std::unique_ptr<FILE, int (*)(FILE*)> file(std::fopen(target.c_str(), "wb"), std::fclose);
  if (!file) return fail("the PNG cannot be written");
  std::vector<unsigned char> row(3 * std::size_t(width));
  png_structp writer = png_create_write_struct(PNG_LIBPNG_VER_STRING, nullptr, nullptr, nullptr);
  png_infop info = writer ? png_create_info_struct(writer) : nullptr;
  if (!info) return fail("not enough memory for a PNG");
  if (setjmp(png_jmpbuf(writer))) {  // libpng's way to tell a fault
    png_destroy_write_struct(&writer, &info);
    return fail("the PNG cannot be written");
  }
  png_init_io(writer, file.get());
  png_set_IHDR(writer, info, png_uint_32(width), png_uint_32(height), 8, PNG_COLOR_TYPE_RGB,
               PNG_INTERLACE_NONE, PNG_COMPRESSION_TYPE_DEFAULT, PNG_FILTER_TYPE_DEFAULT);
  png_set_filter(writer, 0, PNG_FILTER_NONE);
  png_set_compression_level(writer, kCompression);
  png_write_info(writer, info);
  for (int y = 0; y < height; ++y) {
    const auto* from = reinterpret_cast<const std::uint32_t*>(pixels + std::ptrdiff_t(y) * stride);
    for (int x = 0; x < width; ++x)
      for (int k = 0; k < 3; ++k)
        row[std::size_t(3 * x + k)] = static_cast<unsigned char>(from[x] >> (16 - 8 * k));
    png_write_row(writer, row.data());
  }
  png_write_end(writer, info);
  png_destroy_write_struct(&writer, &info);
  return std::fflush(file.get()) == 0 || fail("the PNG cannot be written");
}

bool check(cairo_status_t status, std::string& reason) {
  if (status == CAIRO_STATUS_SUCCESS) return true;
  reason = cairo_status_to_string(status);
  return false;
}

}  // namespace

bool convert_svg(const std::string& svg, const std::filesystem::path& target, std::string& reason) {
  GError* error = nullptr;
  const Owned<GInputStream> bytes(
      g_memory_input_stream_new_from_data(svg.data(), gssize(svg.size()), nullptr));
  // Pictures of rooms are long texts in it.
  const Owned<RsvgHandle> drawing(
      rsvg_handle_new_from_stream_sync(bytes.get(), nullptr, RSVG_HANDLE_FLAG_UNLIMITED, nullptr, &error));
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
  cairo_surface_flush(image.get());
  return write_png(image.get(), target, reason);
}

}  // namespace glow::figures
