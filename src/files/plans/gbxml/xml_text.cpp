#include "files/plans/gbxml/xml_text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cstring>
#include <memory>

#include "files/text/text_scanner.hpp"

namespace glow::files::gbxml {
namespace {

constexpr int kDeepestElement = 100;

/// The element nested deepest, without recursion.
pugi::xml_node too_deep(const pugi::xml_node& root) {
  int depth = 0;
  for (pugi::xml_node node = root; node;) {
    if (depth > kDeepestElement) return node;
    if (node.first_child()) {
      node = node.first_child();
      ++depth;
      continue;
    }
    while (node && node != root && !node.next_sibling()) {
      node = node.parent();
      --depth;
    }
    if (!node || node == root) break;
    node = node.next_sibling();
  }
  return {};
}

}  // namespace

std::optional<XmlText> XmlText::read(std::string bytes, const std::string& name, Problems& problems) {
  XmlText text;
  for (std::size_t k = 0; k < bytes.size(); ++k)
    if (bytes[k] == '\n') text.breaks_.push_back(k);
  const auto fail = [&](const char* code, int line, std::string words) {
    problems.error(code, {name, line, 0}, std::move(words));
    return std::nullopt;
  };
  if (bytes.find_first_not_of(" \t\r\n") == std::string::npos)
    return fail("empty", 0, "the file is empty; export the model again");
  if (bytes.compare(0, 2, "PK") == 0) return fail("is-zip", 0, "this is a zipped file; unpack it first");
  const std::size_t entity = bytes.find("<!ENTITY");
  if (entity != std::string::npos)
    return fail("entities", text.line_at(std::ptrdiff_t(entity)),
                "the file declares entities of its own, which a building model has no need of; they are not "
                "expanded. "
                "Have it exported without");
  text.document_ = std::make_unique<pugi::xml_document>();
  const pugi::xml_parse_result result =
      text.document_->load_buffer(bytes.data(), bytes.size(), pugi::parse_default | pugi::parse_trim_pcdata);
  if (!result)
    return fail("not-well-formed", text.line_at(result.offset),
                fmt::format(FMT_STRING("this is not well-formed XML: {}"), result.description()));
  if (const pugi::xml_node deep = too_deep(text.root()))
    return fail("too-deep", text.line_of(deep),
                fmt::format(FMT_STRING("elements nest deeper than {}"), kDeepestElement));
  return text;
}

int XmlText::line_at(std::ptrdiff_t offset) const {
  if (offset < 0) return 0;
  return 1 + int(std::lower_bound(breaks_.begin(), breaks_.end(), std::size_t(offset)) - breaks_.begin());
}

int XmlText::line_of(const pugi::xml_node& node) const {
  return line_at(node.offset_debug());
}

std::string local_name(const pugi::xml_node& node) {
  const char* colon = std::strrchr(node.name(), ':');
  return colon ? colon + 1 : node.name();
}

pugi::xml_node child(const pugi::xml_node& node, const char* name) {
  for (const pugi::xml_node& one : node.children())
    if (local_name(one) == name) return one;
  return {};
}

std::vector<pugi::xml_node> children(const pugi::xml_node& node, const char* name) {
  std::vector<pugi::xml_node> found;
  for (const pugi::xml_node& one : node.children())
    if (local_name(one) == name) found.push_back(one);
  return found;
}

std::string child_text(const pugi::xml_node& node, const char* name) {
  return std::string(trimmed(child(node, name).text().get()));
}

}  // namespace glow::files::gbxml
