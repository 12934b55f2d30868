#include "report/inline_figure.hpp"

#include <pugixml.hpp>
#include <sstream>
#include <stdexcept>

#include "figures/raster/png_bytes.hpp"

namespace glow::report {
namespace {

void rename(pugi::xml_node node, const std::string& prefix) {
  for (pugi::xml_attribute attribute : node.attributes()) {
    std::string value = attribute.value();
    const std::string name = attribute.name();
    if (name == "id") value = prefix + value;
    if (name == "href" && value.rfind('#', 0) == 0) value = "#" + prefix + value.substr(1);
    if (const std::size_t at = value.find("url(#"); at != std::string::npos) value.insert(at + 5, prefix);
    attribute = value.c_str();
  }
  for (pugi::xml_node child : node.children()) rename(child, prefix);
}

}  // namespace

std::string inline_figure(const std::string& svg, const std::string& prefix, const std::string& words) {
  pugi::xml_document document;
  if (!document.load_string(svg.c_str(), pugi::parse_default | pugi::parse_ws_pcdata))
    throw std::runtime_error("a drawing cannot be read again");
  pugi::xml_node root = document.document_element();
  rename(root, prefix);
  root.remove_attribute("width");
  root.remove_attribute("height");
  root.append_attribute("role") = "img";
  root.append_attribute("aria-label") = words.c_str();
  std::ostringstream out;
  root.print(out, "", pugi::format_raw);
  return out.str();
}

std::string data_address(const std::string& bytes, const std::string& kind) {
  return "data:image/" + kind + ";base64," + figures::base64(bytes);
}

}  // namespace glow::report
