#include "cli/import/model_list.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "core/plans/drawing_units.hpp"
#include "core/problems/problems.hpp"
#include "words/text_layout.hpp"

namespace glow::cli {
namespace {

std::string site_words(const plans::FoundSite& site) {
  std::string words;
  if (site.latitude_deg && site.longitude_deg)
    words = fmt::format(FMT_STRING("{:.4f}, {:.4f}"), *site.latitude_deg, *site.longitude_deg);
  if (site.elevation_m)
    words += fmt::format(FMT_STRING("{}{:g} m above the sea"), words.empty() ? "" : ", ", *site.elevation_m);
  if (site.north_deg)
    words +=
        fmt::format(FMT_STRING("{}+y points to {:g} degrees"), words.empty() ? "" : ", ", *site.north_deg);
  return words.empty() ? "not stated" : words;
}

}  // namespace

std::string model_list(const plans::Model& model, const std::string& file) {
  const auto on = [](const auto& things, int storey) {
    return std::count_if(things.begin(), things.end(),
                         [&](const auto& thing) { return thing.storey == storey; });
  };
  std::string text =
      fmt::format(FMT_STRING("{}: building model in {}, {}, {}, {}\nplace: {}\n\n"), printable(file),
                  plans::unit_name(model.metres_per_unit), words::counted(model.spaces.size(), "space"),
                  words::counted(model.openings.size(), "opening"),
                  words::counted(model.lights.size(), "luminaire"), site_words(model.site));
  text += fmt::format(FMT_STRING("{:<28} {:>8} {:>7} {:>9}\n"), "storey", "level m", "spaces", "openings");
  for (std::size_t s = 0; s < model.storeys.size(); ++s)
    text += fmt::format(FMT_STRING("{:<28} {:>8.2f} {:>7} {:>9}\n"),
                        words::fitted(printable(model.storeys[s].entity.name), 28), model.storeys[s].level_m,
                        on(model.spaces, int(s)), on(model.openings, int(s)));
  if (const auto lost = on(model.spaces, -1))
    text +=
        fmt::format(FMT_STRING("{:<28} {:>8} {:>7} {:>9}\n"), "(none)", "-", lost, on(model.openings, -1));
  std::map<std::string, std::size_t> types;
  std::map<std::string, std::size_t> materials;
  for (const plans::ModelLight& light : model.lights) ++types[light.type];
  for (const plans::ModelBody& body : model.bodies)
    if (!body.material.empty()) ++materials[body.material];
  const auto add = [&](const char* title, const std::map<std::string, std::size_t>& counts) {
    if (counts.empty()) return;
    text += fmt::format(FMT_STRING("\n{:<36} {:>7}\n"), title, "number");
    for (const auto& [name, count] : counts)
      text += fmt::format(FMT_STRING("{:<36} {:>7}\n"), words::fitted(printable(name), 36), count);
  };
  add("type of luminaire", types);
  add("material", materials);
  text += fmt::format(FMT_STRING("\n{:<28} {:>7}\n"), "kind", "number");
  for (const plans::ModelKind& kind : model.kinds)
    if (kind.count > 0)
      text += fmt::format(FMT_STRING("{:<28} {:>7}{}\n"), words::fitted(printable(kind.name), 28), kind.count,
                          kind.looked_at ? "" : "  not looked at");
  return text;
}

}  // namespace glow::cli
