#include "files/plans/model_reader.hpp"

#include <fmt/format.h>

#include <filesystem>

#include "files/plans/gbxml/gbxml_reader.hpp"
#include "files/plans/ifc/ifc_reader.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::files {

bool is_model(const std::string& name) {
  const std::string ending = in_capitals(std::filesystem::path(name).extension().string());
  return ending == ".IFC" || ending == ".XML" || ending == ".GBXML";
}

std::optional<plans::Model> read_model(std::string bytes, const std::string& name,
                                       std::optional<double> unit_m, Problems& problems) {
  const std::size_t first = bytes.find_first_not_of(" \t\r\n\xEF\xBB\xBF");
  const bool is_xml = first != std::string::npos && (bytes[first] == '<' || bytes[first] == '\xFF' ||
                                                     bytes[first] == '\xFE' || bytes[first] == '\0');
  if (is_xml) return gbxml::read_gbxml(std::move(bytes), name, unit_m, problems);
  return ifc::read_ifc(std::move(bytes), name, unit_m, problems);
}

void tell_doubts(const std::vector<plans::Doubt>& doubts, const std::string& file, Problems& problems) {
  for (const plans::Doubt& doubt : doubts) {
    std::string where;
    if (doubt.has_place)
      where = fmt::format(FMT_STRING(" at ({:.2f}, {:.2f}) m"), doubt.at.x(), doubt.at.y());
    if (!doubt.drawn.empty()) where += ", " + printable(doubt.drawn);
    problems.warning(doubt.code, {file, int(doubt.line), 0}, doubt.text + (where.empty() ? "" : ":" + where));
  }
}

}  // namespace glow::files
