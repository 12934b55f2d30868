#include "core/assess/room_glare_sources.hpp"

#include <algorithm>

namespace glow::assess {

RoomGlareSources::RoomGlareSources(const space::Space& space, const transport::Transport& transport)
    : space_(space), transport_(transport) {
  std::vector<std::pair<std::size_t, std::size_t>> numbers;
  for (std::size_t g = 0; g < space.groups.size(); ++g)
    for (std::size_t l = 0; l < space.groups[g].luminaires.size(); ++l) {
      sources_.add(space.groups[g].luminaires[l], space.groups[g].dimming);
      numbers.emplace_back(g, l);
    }
  for (const glare::GlareSources::Source& source : sources_.sources()) {
    GlareSourceName& name = names_.emplace_back();
    name.position = source.middle();
    for (const auto& part : source.parts) {
      name.luminaires.push_back(numbers[part.luminaire]);
      const std::string& mark = space.groups[numbers[part.luminaire].first].mark;
      if (name.mark.find(mark) == std::string::npos) name.mark += (name.mark.empty() ? "" : " + ") + mark;
    }
  }
}

std::vector<photometry::PlacedLuminaire> RoomGlareSources::placed(const GlareSourceName& source) const {
  std::vector<photometry::PlacedLuminaire> list;
  for (const auto& [group, luminaire] : source.luminaires)
    list.push_back(space_.groups[group].luminaires[luminaire]);
  return list;
}

glare::GlareSources RoomGlareSources::with(const Change& change) const {
  glare::GlareSources sources;
  const auto& own = change.source->luminaires;
  for (std::size_t g = 0; g < space_.groups.size(); ++g)
    for (std::size_t l = 0; l < space_.groups[g].luminaires.size(); ++l) {
      const auto found = std::find(own.begin(), own.end(), std::pair{g, l});
      const double dimming = space_.groups[g].dimming;
      if (found == own.end())
        sources.add(space_.groups[g].luminaires[l], dimming);
      else
        sources.add(change.placed[std::size_t(found - own.begin())], dimming * change.share);
    }
  return sources;
}

}  // namespace glow::assess
