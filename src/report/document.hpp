#pragma once

#include <string>
#include <vector>

#include "words/data/data_table.hpp"

namespace glow::report {

/// A piece of a document: what it is depends on what of it is filled.
struct Block {
  std::string heading;                                     ///< above it; empty: none
  std::vector<std::string> paragraphs;                     ///< plain words
  std::string html;                                        ///< made of a designer's Markdown; safe
  std::vector<std::pair<std::string, std::string>> facts;  ///< name and value
  struct Point {
    std::string words, kind;  ///< kind: "about", "cause", "mend", or empty
  };
  std::vector<Point> points;  ///< a list
  std::vector<words::DataTable> tables;
  struct Figure {
    std::string svg;    ///< a drawing, inline; its ids are its own
    std::string image;  ///< or a picture as a data address
    std::string words;  ///< what it shows: caption, and instead of it for those who do not see
    std::string plan;   ///< JSON for the value under the pointer; empty: none
    bool half = false;  ///< of the page's width
  };
  std::vector<Figure> figures;
};

/// A part with a heading of its own.
struct Section {
  std::string id, title;
  std::string verdict;  ///< "met", ... beside the title; empty: none
  bool stale = false;
  bool on_new_page = false;
  std::vector<Block> blocks;
  std::vector<Section> parts;  ///< one level below
};

struct Document {
  std::string title, client, author, date, logo, language, standards, notes_html;
  std::string stale;  ///< what of the results is older than the project; empty: nothing
  std::string form;   ///< "full", "room-page", "short": for the style sheet
  bool has_cover = true, has_contents = true;
  std::vector<Section> sections;
};

}  // namespace glow::report
