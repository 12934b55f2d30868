#pragma once

#include <functional>

#include "core/plans/drawing.hpp"
#include "core/problems/problems.hpp"
#include "files/plans/dxf/document.hpp"

namespace glow::files::dxf {

/// What of a document is wanted, and how it lies.
struct Wanted {
  plans::Frame frame;
  std::optional<std::pair<Vec2, Vec2>> window;         ///< drawing units: only what has its middle inside
  std::vector<bool> layers;                            ///< by number
  std::vector<bool> text_layers;                       ///< whose texts are read
  std::function<bool(const std::string& key)> blocks;  ///< wanted whatever their layers; may be empty
  std::size_t most_strokes = 2'000'000;                ///< of all blocks together
  bool must_have_all = true;  ///< false: what is too much is passed over, for a picture
};

/// The document with its blocks inserted, curves as chords, in metres. One error where a wanted block is
/// inserted too often; warnings for what is missing, goes round or is nested too deeply.
plans::Drawing expanded(const Document& document, const Wanted& wanted, const std::string& file,
                        Problems& problems);

}  // namespace glow::files::dxf
