#include "files/project/materials_reader.hpp"

#include <fmt/format.h>
#include <toml++/toml.h>

#include <sstream>

#include "core/colour/bands.hpp"
#include "files/output/embedded_files.hpp"
#include "files/project/colour_of_finish.hpp"
#include "files/project/ranges.hpp"

namespace glow::files {
namespace {

using units::Dimension;

constexpr double kMostTogether = 0.995;
constexpr double kUsualRoughness = 0.2;

model::Finish read_shares(TomlTable& table, const std::string& name) {
  model::Finish finish;
  finish.name = name;
  geometry::Material& material = finish.material;
  const auto share = [&](const char* key, double& value) {
    if (const auto given = table.quantity(key, Dimension::ratio, range::kShare)) value = *given;
  };
  share("reflectance", material.diffuse);
  share("mirror", material.mirror);
  share("transmittance", material.clear);
  share("scattering", material.scattering);
  share("gloss", material.gloss);
  material.roughness = kUsualRoughness;
  share("roughness", material.roughness);
  finish.colour = read_colour(table, material.diffuse);
  material.diffuse += material.gloss;
  const double sum = material.diffuse + material.mirror + material.clear + material.scattering;
  if (sum > kMostTogether)
    table.problems().error(
        "P031", table.place(),
        fmt::format(FMT_STRING("reflectance, gloss, mirror, transmittance and scattering add up to {:.3f}; "
                               "expected at most {}: every surface keeps some of the light"),
                    sum, kMostTogether));
  if (table.has("roughness") && material.gloss <= 0)
    table.problems().error("P007", table.place_of("roughness"),
                           "\"roughness\" says how wide a gloss is; give \"gloss\", the share that is "
                           "thrown back so, or take it out");
  if (finish.colour) finish.material.tint = colour::tint_of(*finish.colour);
  return finish;
}

std::map<std::string, model::Finish> read_finishes(TomlTable& root) {
  std::map<std::string, model::Finish> finishes;
  for (auto& [name, table] : root.named_tables("materials")) {
    finishes[name] = read_shares(table, name);
    table.finish();
  }
  return finishes;
}

}  // namespace

const model::Finish* Materials::find(const std::string& name) const {
  const auto own = own_.find(name);
  if (own != own_.end()) return &own->second;
  const auto everyday = everyday_finishes().find(name);
  return everyday == everyday_finishes().end() ? nullptr : &everyday->second;
}

std::vector<std::string> Materials::names() const {
  std::vector<std::string> names;
  for (const auto& [name, finish] : own_) names.push_back(name);
  for (const auto& [name, finish] : everyday_finishes()) names.push_back(name);
  return names;
}

Materials read_materials(TomlTable& root) {
  return Materials(read_finishes(root));
}

const std::map<std::string, model::Finish>& everyday_finishes() {
  static const std::map<std::string, model::Finish> finishes = [] {
    const EmbeddedFile* file = embedded_table("finishes.toml");
    const toml::table document = toml::parse(file->bytes, file->name);
    Problems problems;
    TomlTable root(document, "finishes", file->name, problems);
    return read_finishes(root);
  }();
  return finishes;
}

namespace {

constexpr std::size_t kMostNamed = 6;

bool share_a_word(const std::string& a, const std::string& b) {
  std::istringstream words(a);
  for (std::string word; words >> word;)
    if (word.size() > 2 && (" " + b + " ").find(" " + word + " ") != std::string::npos) return true;
  return false;
}

/// The one that was probably misspelt, or those that share a word with it.
std::string likely_names(const std::string& name, const std::vector<std::string>& known) {
  const std::string near = nearest_word(name, known);
  if (!near.empty()) return fmt::format(FMT_STRING("did you mean \"{}\"?"), near);
  std::vector<std::string> alike;
  for (const std::string& other : known)
    if (share_a_word(name, other) && alike.size() < kMostNamed) alike.push_back("\"" + other + "\"");
  if (alike.empty()) return "expected one such as \"white paint\" or \"light wood\"";
  return fmt::format(FMT_STRING("there are {}"), fmt::join(alike, ", "));
}

}  // namespace

std::optional<model::Finish> read_finish(TomlTable& table, const Materials& materials) {
  const auto name = table.text("material");
  const auto reflectance = table.quantity("reflectance", Dimension::ratio, Range{0, 0.98});
  if (name && reflectance)
    table.problems().error("P007", table.place_of("material"),
                           "both \"material\" and \"reflectance\" are given; keep one of them");
  if (name) {
    if (const model::Finish* found = materials.find(*name)) return *found;
    table.problems().error(
        "P030", table.place_of("material"),
        fmt::format(
            FMT_STRING("unknown material \"{}\"; {}. All of them: glowgrid catalogue finishes; others "
                       "want a [materials.NAME] table"),
            *name, likely_names(*name, materials.names())));
  }
  if (!reflectance) return std::nullopt;
  model::Finish finish;
  finish.material.diffuse = *reflectance;
  return finish;
}

}  // namespace glow::files
