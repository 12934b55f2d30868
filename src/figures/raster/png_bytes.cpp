#include "figures/raster/png_bytes.hpp"

#include <glib.h>
#include <png.h>

namespace glow::figures {

std::string png_bytes(const std::vector<std::uint8_t>& rgb, int columns, int rows) {
  png_image image{};
  image.version = PNG_IMAGE_VERSION;
  image.width = png_uint_32(columns);
  image.height = png_uint_32(rows);
  image.format = PNG_FORMAT_RGB;
  image.flags = PNG_IMAGE_FLAG_FAST;
  png_alloc_size_t size = PNG_IMAGE_PNG_SIZE_MAX(image);
  std::string bytes(size, '\0');
  if (!png_image_write_to_memory(&image, bytes.data(), &size, 0, rgb.data(), 0, nullptr)) return {};
  bytes.resize(size);
  return bytes;
}

std::string base64(const std::string& bytes) {
  gchar* letters = g_base64_encode(reinterpret_cast<const guchar*>(bytes.data()), bytes.size());
  std::string text = letters;
  g_free(letters);
  return text;
}

}  // namespace glow::figures
