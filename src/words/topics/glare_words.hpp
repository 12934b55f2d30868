#pragma once

#include <string>

#include "core/assess/glare/room_glare.hpp"
#include "core/record/record.hpp"

namespace glow::words {

/// What the number of the worst view does not say, in a sentence.
std::string remark_words(const assess::GlareRemark& remark);

/// "the room is not a rectangle", ...
std::string against_words(assess::TableGlare::Against reason);
/// The same of all reasons, with semicolons between.
std::string why_not_words(const assess::TableGlare& table);
/// A remark on the tabular values of a room.
std::string table_remark_words(const assess::TableGlare::Remark& remark, const record::RoomRecord& room);
/// "x", "y", "wall 2".
std::string along_words(const assess::TableGlare::Value& value);
/// "70/50/20".
std::string reflectances_words(const assess::TableGlare& table);

/// What is asked and not verified, and why: "glare UGR 19 (there are no eyes to rate it at)".
std::string not_verified_words(const standards::NotVerified& item, const assess::TableGlare& table);

}  // namespace glow::words
