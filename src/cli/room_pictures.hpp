#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "core/views/picture.hpp"
#include "files/output/output_folder.hpp"

namespace glow::cli {

/// Where pictures lie below a folder of results: OpenEXR files that `view` develops anew.
inline constexpr const char* kPicturesFolder = "views";

/// "throwing-room--from-the-door": of the files of a picture; in a use of a name that is added.
std::string picture_base(const views::Picture& picture, const std::string& use = {});

/// What is shown of a picture when nobody says: the room as placed; where no luminaire shines, its first
/// moment.
const views::PictureUse& usual_use(const views::Picture& picture);

/// Writes a picture's OpenEXR file into the folder, as `usual_use` or `use` has it. Throws OutputError.
void write_picture(const views::Picture& picture, const views::PictureUse& use, files::OutputFolder& folder,
                   const std::string& prefix);

/// The natural picture as a figure: what `run` draws of each view.
std::string natural_figure(const views::Picture& picture);

}  // namespace glow::cli
