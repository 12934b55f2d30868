#pragma once

#include <memory>
#include <optional>
#include <pugixml.hpp>
#include <string>
#include <vector>

#include "core/problems/problems.hpp"

namespace glow::files::gbxml {

/// An XML document whose elements know their line. Names are compared without their prefix.
class XmlText {
 public:
  /// Nothing and one error for what is not well formed, declares entities, or nests deeper than anyone means.
  static std::optional<XmlText> read(std::string bytes, const std::string& name, Problems& problems);

  pugi::xml_node root() const { return document_->document_element(); }
  int line_of(const pugi::xml_node& node) const;

 private:
  int line_at(std::ptrdiff_t offset) const;
  std::vector<std::size_t> breaks_;  ///< places of line breaks
  std::unique_ptr<pugi::xml_document> document_;
};

/// Without its namespace's prefix.
std::string local_name(const pugi::xml_node& node);
/// The first child of a name; an empty one where there is none.
pugi::xml_node child(const pugi::xml_node& node, const char* name);
std::vector<pugi::xml_node> children(const pugi::xml_node& node, const char* name);
/// The text of that child, blanks at its ends taken off.
std::string child_text(const pugi::xml_node& node, const char* name);

}  // namespace glow::files::gbxml
