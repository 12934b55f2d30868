#include "core/assess/glare_origins.hpp"

#include <algorithm>
#include <map>

namespace glow::assess {

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

std::vector<int> GlareOrigins::in_places_of(const GlareOrigins& other) const {
  std::map<std::pair<std::size_t, std::size_t>, int> known;
  for (std::size_t s = 0; s < other.names_.size(); ++s)
    known[other.names_[s].luminaires.front()] = static_cast<int>(s);
  std::vector<int> places;
  for (std::size_t s = 0; s < names_.size(); ++s) {
    const auto found = known.find(names_[s].luminaires.front());
    places.push_back(-1);
    if (found == known.end()) continue;
    const auto& mine = sources_.sources()[s].parts.front().placed;
    const auto& theirs = other.sources_.sources()[std::size_t(found->second)].parts.front().placed;
    const bool same = mine.frame.origin == theirs.frame.origin && mine.frame.c0 == theirs.frame.c0 &&
                      mine.frame.g0 == theirs.frame.g0 && mine.owner == theirs.owner &&
                      mine.area.shape == theirs.area.shape &&
                      mine.area.extent_c0_m == theirs.area.extent_c0_m &&
                      mine.area.extent_c90_m == theirs.area.extent_c90_m;
    if (same) places.back() = found->second;
  }
  return places;
}

}  // namespace glow::assess
