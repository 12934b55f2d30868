#include "core/assess/colour_reader.hpp"

#include <algorithm>

namespace glow::assess {
namespace {

void add(std::vector<double>& xy, const std::optional<colour::Chromaticity>& c) {
  xy.push_back(c ? c->x : 0);
  xy.push_back(c ? c->y : 0);
}

class ColourReader {
 public:
  ColourReader(const lighting::RoomColour& light, const lighting::Weights& weights,
               const lighting::SourceColours& colours, bool direct_only)
      : light_(light), weights_(weights), colours_(colours), direct_only_(direct_only) {}

  std::optional<GridColour> of_grid(const std::vector<std::size_t>& receivers,
                                    const GridReading& reading) const {
    // A finer pass may have found more points inside things: then the two do not go together.
    if (receivers.size() != reading.total_lx.size()) return std::nullopt;
    GridColour found;
    std::vector<colour::Part> parts;
    double known = 0, all = 0;
    for (std::size_t i = 0; i < receivers.size(); ++i) {
      const lighting::ReceivedColour at = at_receiver(receivers[i]);
      add(found.direct_xy, at.direct);
      add(found.total_xy, at.total);
      known += at.known_lx;
      all += reading.total_lx[i];
      if (!at.total) continue;
      parts.push_back({*at.total, at.known_lx});
      const auto temperature = colour::correlated(*at.total);
      if (!temperature) ++found.without;
      if (!temperature) continue;
      found.warmest_k = std::min(found.warmest_k.value_or(temperature->kelvin), temperature->kelvin);
      found.coolest_k = std::max(found.coolest_k.value_or(temperature->kelvin), temperature->kelvin);
    }
    const auto mean = colour::mixed(parts);
    if (!mean) return std::nullopt;
    found.mean = *mean;
    found.mean_temperature = colour::correlated(*mean);
    found.known_share = all > 0 ? std::min(1.0, known / all) : 0;
    return found;
  }

  std::optional<PointColour> of_point(std::size_t receiver, double total_lx) const {
    const lighting::ReceivedColour at = at_receiver(receiver);
    if (!at.total) return std::nullopt;
    return PointColour{at.direct, at.total, colour::correlated(*at.total),
                       total_lx > 0 ? std::min(1.0, at.known_lx / total_lx) : 0};
  }

 private:
  lighting::ReceivedColour at_receiver(std::size_t receiver) const {
    lighting::ReceivedColour at = light_.at(receiver, weights_, colours_);
    if (direct_only_) at.total = at.direct, at.known_lx = at.direct_lx;
    return at;
  }

  const lighting::RoomColour& light_;
  const lighting::Weights& weights_;
  const lighting::SourceColours& colours_;
  bool direct_only_;
};

}  // namespace

void read_colours(const Setting& setting, const lighting::RoomColour& light, const lighting::Weights& weights,
                  const lighting::SourceColours& colours, bool direct_only, Assessment& assessment) {
  const ColourReader reader(light, weights, colours, direct_only);
  for (std::size_t g = 0; g < assessment.grids.size(); ++g)
    assessment.grids[g].colour = reader.of_grid(setting.readable()[g], assessment.grids[g]);
  for (std::size_t i = 0; i < assessment.points.size(); ++i) {
    PointReading& point = assessment.points[i];
    if (!point.misplaced) point.colour = reader.of_point(setting.plan().points[i], point.total_lx());
  }
}

}  // namespace glow::assess
