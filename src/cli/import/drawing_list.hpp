#pragma once

#include <string>

#include "files/plans/dxf/document.hpp"

namespace glow::cli {

/// What a drawing holds, for a person who has to say which part of it is what.
std::string drawing_list(const files::dxf::Document& document, const std::string& file);

/// Which layers are likely to hold rooms: "ROOM holds 5 closed outlines"; empty: none.
std::string likely_rooms(const files::dxf::Document& document);

}  // namespace glow::cli
