#include "core/assess/glare/glare_origins.hpp"

#include <algorithm>
#include <map>

namespace glow::assess {

namespace {

/// Whether two luminaires hide behind the same, and are turned the same way.
bool in_one_place(const photometry::PlacedLuminaire& a, const photometry::PlacedLuminaire& b) {
  return a.frame.origin == b.frame.origin && a.frame.c0 == b.frame.c0 && a.frame.g0 == b.frame.g0 &&
         a.owner == b.owner && a.area == b.area;
}

}  // namespace

GlareOrigins::GlareOrigins(const std::vector<space::LuminaireGroup>& groups,
                           const lighting::Weights& weights) {
  std::vector<std::pair<std::size_t, std::size_t>> numbers;
  for (std::size_t g = 0; g < groups.size(); ++g)
    for (std::size_t l = 0; l < groups[g].luminaires.size(); ++l) {
      sources_.add(groups[g].luminaires[l], weights[g].output);
      numbers.emplace_back(g, l);
    }
  for (const glare::GlareSources::Source& source : sources_.sources()) {
    GlareSourceName& name = names_.emplace_back();
    name.position = source.middle();
    for (const auto& part : source.parts) {
      name.luminaires.push_back(numbers[part.luminaire]);
      const std::string& mark = groups[numbers[part.luminaire].first].mark;
      if (name.mark.find(mark) == std::string::npos) name.mark += (name.mark.empty() ? "" : " + ") + mark;
    }
  }
}

SamePlaces GlareOrigins::in_places_of(const GlareOrigins& other) const {
  using Part = glare::GlareSources::Part;
  std::map<std::pair<std::size_t, std::size_t>, const Part*> parts;  // of the other, by group and number
  std::map<const Part*, int> leads;                                  // its sources, by their first parts
  for (std::size_t s = 0; s < other.names_.size(); ++s) {
    const std::vector<Part>& theirs = other.sources_.sources()[s].parts;
    leads[&theirs.front()] = static_cast<int>(s);
    for (std::size_t p = 0; p < theirs.size(); ++p) parts[other.names_[s].luminaires[p]] = &theirs[p];
  }
  SamePlaces same{std::vector<int>(names_.size(), -1), std::vector<int>(sources_.luminaires(), -1)};
  for (std::size_t s = 0; s < names_.size(); ++s) {
    const std::vector<Part>& mine = sources_.sources()[s].parts;
    for (std::size_t p = 0; p < mine.size(); ++p) {
      const auto found = parts.find(names_[s].luminaires[p]);
      if (found == parts.end() || !in_one_place(mine[p].placed, found->second->placed)) continue;
      if (mine[p].placed.table == found->second->placed.table)
        same.luminaires[mine[p].luminaire] = int(found->second->luminaire);
      const auto lead = leads.find(found->second);
      if (p == 0 && lead != leads.end()) same.sources[s] = lead->second;
    }
  }
  return same;
}

}  // namespace glow::assess
