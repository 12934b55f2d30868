#include "core/sources/received_light.hpp"

#include <algorithm>

namespace glow::sources {
namespace {

constexpr double kOfEven =
    0.01;  // of what luminaires would give if they shone evenly: less is as good as none
constexpr double kLeastDistance = 0.1;  // m
constexpr double kFew = 0.3;  // of what is allowed: so much may be left to luminaires that are not divided

/// lx at the receiver, facing each luminaire, if they shone evenly all around.
double even_light(const std::vector<const DirectLight*>& sources, const readings::Receiver& receiver) {
  double lux = 0;
  for (const DirectLight* source : sources) {
    const photometry::PlacedLuminaire& luminaire = source->luminaire();
    const double distance = std::max((luminaire.frame.origin - receiver.position).norm(), kLeastDistance);
    lux += luminaire.table->flux() / (4 * kPi * distance * distance);
  }
  return lux;
}

}  // namespace

DirectLux received(const std::vector<const DirectLight*>& sources, const readings::Receiver& receiver,
                   double tolerance) {
  std::vector<DirectLux> each;
  DirectLux sum;
  for (const DirectLight* source : sources) sum += each.emplace_back(source->with_error(receiver));
  if (sum.error <= tolerance * sum.lux) return sum;
  const double allowed = tolerance * std::max(sum.lux, kOfEven * even_light(sources, receiver));
  if (sum.error <= allowed) return sum;
  std::vector<std::size_t> rising(sources.size());
  for (std::size_t i = 0; i < rising.size(); ++i) rising[i] = i;
  std::stable_sort(rising.begin(), rising.end(),
                   [&](std::size_t a, std::size_t b) { return each[a].error < each[b].error; });
  double left = 0;
  std::size_t few = 0;
  while (left + each[rising[few]].error <= kFew * allowed) left += each[rising[few++]].error;
  const double allowed_each = (allowed - left) / double(rising.size() - few);
  for (std::size_t i = few; i < rising.size(); ++i)
    each[rising[i]] = sources[rising[i]]->with_error(receiver, allowed_each);
  sum = {};
  for (const DirectLux& light : each) sum += light;
  return sum;
}

}  // namespace glow::sources
