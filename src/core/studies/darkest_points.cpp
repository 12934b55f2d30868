#include "core/studies/darkest_points.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/sources/direct_light.hpp"

namespace glow::studies {
namespace {

constexpr double kLowShare = 0.1;   // of a grid's points count as its low ones
constexpr double kAlongWall = 1.2;  // m from a wall: "along" it
constexpr double kHidden = 0.7;     // share of light below which things in between are worth telling
constexpr double kOnePlace = 3.0;   // m: low points farther from the lowest lie in another place

}  // namespace

std::string Words::light(double lux) const {
  const double shown = units.light(lux);
  return fmt::format(FMT_STRING("{:.{}f} {}"), shown, shown < 10 ? 1 : 0, units.light_unit());
}

std::string Words::spot(const Vec3& p) const {
  return fmt::format(FMT_STRING("({:.1f}, {:.1f})"), units.length(p.x()), units.length(p.y()));
}

std::string Words::length(double m) const {
  return fmt::format(FMT_STRING("{:.1f} {}"), units.length(m), units.length_unit());
}

DarkestPoints darkest_points(const transport::Transport& transport, const std::vector<std::size_t>& judged,
                     const std::vector<double>& lux) {
  DarkestPoints low;
  low.receivers = judged;
  std::stable_sort(low.receivers.begin(), low.receivers.end(),
                   [&](std::size_t a, std::size_t b) { return lux[a] < lux[b]; });
  low.receivers.resize(std::max<std::size_t>(1, std::size_t(std::lround(kLowShare * double(judged.size())))));
  low.lowest = transport.receivers()[low.receivers.front()].position;
  low.lowest_lx = lux[low.receivers.front()];
  low.count = low.receivers.size();
  const auto from_lowest = [&](std::size_t r) {
    return (transport.receivers()[r].position - low.lowest).norm();
  };
  low.apart = std::any_of(low.receivers.begin(), low.receivers.end(),
                          [&](std::size_t r) { return from_lowest(r) > kOnePlace; });
  low.receivers.erase(std::remove_if(low.receivers.begin(), low.receivers.end(),
                                     [&](std::size_t r) { return from_lowest(r) > kOnePlace; }),
                      low.receivers.end());
  for (const std::size_t r : low.receivers)
    low.middle += transport.receivers()[r].position / double(low.receivers.size());
  return low;
}

std::string where(const DarkestPoints& low, const space::Space& space,
                  const transport::Transport& transport) {
  const Words words_of{space.units};
  std::vector<std::string> along;
  for (std::size_t wall = 0; wall < space.wall_names.size(); ++wall) {
    const Vec2 a = space.outline[wall], b = space.outline[(wall + 1) % space.outline.size()];
    const Vec2 way = (b - a).normalized(), inwards(-way.y(), way.x());
    std::size_t count = 0;
    for (const std::size_t r : low.receivers) {
      const Vec2 p = transport.receivers()[r].position.head<2>() - a;
      count += p.dot(inwards) < kAlongWall && p.dot(way) > 0 && p.dot(way) < (b - a).norm();
    }
    if (2 * count > low.receivers.size()) along.push_back(space.wall_names[wall]);
  }
  if (low.apart)
    return fmt::format(FMT_STRING("the lowest {} points lie in several places; the least, {}, at {}"),
                       low.count, words_of.light(low.lowest_lx), words_of.spot(low.lowest));
  std::string words = low.receivers.size() == 1
                          ? std::string("the lowest point lies")
                          : fmt::format(FMT_STRING("the lowest {} points lie"), low.receivers.size());
  if (!along.empty()) words += fmt::format(FMT_STRING(" along {}"), fmt::join(along, " and "));
  if (low.receivers.size() > 1)
    words += fmt::format(FMT_STRING("{} about {}; the least,"), along.empty() ? "" : ",",
                         words_of.spot(low.middle));
  else
    words += fmt::format(FMT_STRING("{} at {}:"), along.empty() ? "" : ",", words_of.spot(low.lowest));
  words += " " + words_of.light(low.lowest_lx);
  return low.receivers.size() > 1 ? words + ", at " + words_of.spot(low.lowest) : words;
}

std::string served_by(const DarkestPoints& low, const space::Space& space,
                      const transport::Transport& transport) {
  const Words words_of{space.units};
  struct Source {
    std::size_t group = 0, number = 0;
    double distance = 1e30, lux = -1;
    double open_lx = 0;  ///< if nothing were in the way
  } nearest, best;
  for (std::size_t g = 0; g < space.groups.size(); ++g)
    for (std::size_t l = 0; l < space.groups[g].luminaires.size(); ++l) {
      const space::LuminaireGroup& group = space.groups[g];
      const sources::DirectLight source(group.luminaires[l], &transport.tracer(), &transport.occluders());
      const sources::DirectLight open(group.luminaires[l], nullptr);
      Source own{g, l, (group.luminaires[l].frame.origin - low.middle).norm(), 0, 0};
      const double share = group.dimming * group.maintenance_factor / double(low.receivers.size());
      for (const std::size_t r : low.receivers) {
        own.lux += share * source.illuminance(transport.receivers()[r]);
        own.open_lx += share * open.illuminance(transport.receivers()[r]);
      }
      if (own.distance < nearest.distance) nearest = own;
      if (own.lux > best.lux) best = own;
    }
  if (best.lux < 0) return "there are no luminaires";
  const space::LuminaireGroup& group = space.groups[nearest.group];
  const geometry::Frame& frame = group.luminaires[nearest.number].frame;
  const Vec3 way = low.middle - frame.origin;
  const double along = way.normalized().dot(frame.g0);
  const photometry::IntensityTable& table = *group.luminaires[nearest.number].table;
  const double share = table.intensity_along(way.dot(frame.c0), way.dot(frame.c90), way.dot(frame.g0)) /
                       std::max(1e-9, table.peak().candela);
  std::string words = fmt::format(
      FMT_STRING(
          "the luminaire nearest to them, {} at {}, {} away, gives {} straight: they lie {:.0f} deg off its "
          "axis, where it shines with {:.0f} % of its peak"),
      group.mark, words_of.spot(frame.origin), words_of.length(way.norm()), words_of.light(nearest.lux),
      std::acos(std::clamp(along, -1.0, 1.0)) / kDegree, 100 * share);
  if (nearest.lux < kHidden * nearest.open_lx)
    words += fmt::format(FMT_STRING("; without the things in between it would give {}"),
                         words_of.light(nearest.open_lx));
  if (best.group != nearest.group || best.number != nearest.number) {
    const space::LuminaireGroup& other = space.groups[best.group];
    words += fmt::format(FMT_STRING("; {} at {} gives most, {}"), other.mark,
                         words_of.spot(other.luminaires[best.number].frame.origin), words_of.light(best.lux));
  }
  return words;
}

}  // namespace glow::studies
