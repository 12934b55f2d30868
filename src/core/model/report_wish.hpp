#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/units/shown_units.hpp"

namespace glow::model {

/// How a designer wants the report.
struct ReportWish {
  std::string client, author;
  std::string date;  ///< as written: never the clock's
  std::string logo;  ///< a PNG, JPEG or SVG file, relative to the project's folder; empty: none
  std::string language = "en";
  std::string words;                              ///< own table of words for headings; empty: none
  std::optional<units::ShownUnits> units;         ///< instead of the project's
  std::string page = "A4";                        ///< or "Letter"
  std::vector<std::string> contents;              ///< in order; empty: all
  std::vector<std::string> room_contents;         ///< likewise, of each room
  std::vector<std::string> pictures;              ///< names of views; empty: all
  std::string template_file, style;               ///< the designer's own; empty: the program's
  std::string notes;                              ///< Markdown, of the whole
  std::map<std::string, std::string> room_notes;  ///< Markdown, by the room's name
};

/// Parts of a report, in the order that they have where nothing is said.
inline const std::vector<std::string>& report_parts() {
  static const std::vector<std::string> parts = {
      "cover", "notes", "summary", "rooms", "luminaires", "maintenance", "assumptions", "method", "files"};
  return parts;
}
/// Parts of what is told of a room.
inline const std::vector<std::string>& report_room_parts() {
  static const std::vector<std::string> parts = {"facts",   "plan",  "checks",   "mends",      "views",
                                                 "notes",   "areas", "surfaces", "glare",      "scenes",
                                                 "moments", "year",  "energy",   "neighbours", "grids"};
  return parts;
}

}  // namespace glow::model
