#include "cli/room_pictures.hpp"

#include <algorithm>

#include "core/model/file_names.hpp"
#include "figures/pictures/picture_figure.hpp"
#include "files/pictures/picture_exr.hpp"

namespace glow::cli {

std::string picture_base(const views::Picture& picture, const std::string& use) {
  std::string base = model::file_name_part(picture.room) + "--" + model::file_name_part(picture.view);
  if (!use.empty()) base += "--" + model::file_name_part(use);
  return base;
}

const views::PictureUse& usual_use(const views::Picture& picture) {
  for (const views::PictureUse& use : picture.uses)
    if (std::any_of(use.weights.begin(), use.weights.end(), [](double weight) { return weight > 0; }))
      return use;
  return picture.uses.front();
}

void write_picture(const views::Picture& picture, const views::PictureUse& use, files::OutputFolder& folder,
                   const std::string& prefix) {
  const std::filesystem::path path = folder.staged(prefix + picture_base(picture) + ".exr");
  try {
    files::write_exr(picture, use, path);
  } catch (const std::exception& error) {
    throw files::OutputError(path.filename().string() + " cannot be written: " + error.what());
  }
}

std::string natural_figure(const views::Picture& picture) {
  return figures::picture_figure(picture, usual_use(picture), {});
}

}  // namespace glow::cli
