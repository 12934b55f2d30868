#pragma once

#include <map>
#include <set>

#include "core/shelf/luminaire_facts.hpp"

namespace glow::shelf {

/// What is looked for: all of it must hold.
struct Query {
  std::vector<std::string> words;         ///< each in the file's path, maker, name, number or lamps; any case
  std::set<photometry::LightKind> kinds;  ///< one of these; empty: any
  std::set<std::string> shapes;           ///< one of shape_names
  std::map<std::string, units::Range> ranges;  ///< by key of measures(); of two planes both lie in it
  std::string sort;                            ///< key of measures(), "maker", "name" or "file"
  bool falling = false;                        ///< from large to small

  /// Whether everything is found.
  bool is_open() const { return words.empty() && kinds.empty() && shapes.empty() && ranges.empty(); }
};

/// What was found.
struct Found {
  std::vector<std::size_t>
      entries;  ///< numbers, in the order asked for; what is not known last, then by file
  /// How many were left out for a number alone that is not known of them, by key.
  std::map<std::string, std::size_t> unknown;
};
Found find(const std::vector<Entry>& entries, const Query& query);

/// Keys of measures(), each once.
std::vector<std::string> measure_keys();
/// What `sort` may be.
std::vector<std::string> sort_keys();

}  // namespace glow::shelf
