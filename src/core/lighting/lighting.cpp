#include "core/lighting/lighting.hpp"

#include "core/sources/light_key.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "core/sources/straight_light.hpp"
#include "core/transport/content_key.hpp"

namespace glow::lighting {

void RoomLight::add(const transport::GroupLight& source, const Weight& weight) {
  maintained.add(source, weight.maintained());
  initial_balance.add(source.balance, weight.output);
  for (std::size_t r = 0; r < initial_lx.size(); ++r) {
    initial_lx[r] += weight.output * source.total_lx(r);
    initial_indirect_lx[r] += weight.output * source.interreflected_lx[r];
  }
}

void RoomLight::keep_direct() {
  for (std::size_t r = 0; r < initial_lx.size(); ++r) initial_lx[r] -= initial_indirect_lx[r];
  initial_indirect_lx.assign(initial_lx.size(), 0.0);
  maintained.interreflected_lx.assign(initial_lx.size(), 0.0);
  maintained.patch_irradiance_lx.setZero();
  maintained.exitance_by_rays.setZero();
}

Lighting::Lighting(const space::Space& space, const transport::Transport& transport, const Watch& watch,
                   transport::TransportStore* store, const std::string& transport_key)
    : transport_(&transport),
      store_(store),
      transport_key_(transport_key),
      dark_(sources::relight(transport, {}, watch)) {
  for (const space::LuminaireGroup& group : space.groups)
    sources_.push_back(known(store ? sources::light_key(group.luminaires) : "",
                             [&] { return sources::relight(transport, group.luminaires, watch); }));
}

transport::GroupLight Lighting::known(const std::string& key,
                                      const std::function<transport::GroupLight()>& find) const {
  if (!store_) return find();
  const std::string whole_key = transport_key_ + "/" + key;
  if (const auto held = store_->held_light(whole_key)) return *held;
  const auto found = std::make_shared<const transport::GroupLight>(find());
  store_->hold_light(whole_key, found);
  return *found;
}

transport::GroupLight Lighting::tried(const std::string& key,
                                      const std::function<transport::GroupLight()>& find) const {
  return known("tried/" + key, find);
}

std::vector<double> Lighting::straight_at(const std::vector<readings::Receiver>& places,
                                          const std::vector<photometry::PlacedLuminaire>& luminaires,
                                          const Watch& watch) const {
  std::string key;
  if (store_) {
    transport::ContentChecksum sum;
    for (const readings::Receiver& place : places) {
      for (const Vec3& v : {place.position, place.normal, place.axis}) sum.add(v.data(), 3 * sizeof(double));
      sum.add(&place.kernel, sizeof place.kernel);
    }
    key = "at/" + sum.text() + "/" + sources::light_key(luminaires);
  }
  return known(key,
               [&] {
                 transport::GroupLight light;
                 light.direct_lx = sources::straight_light(*transport_, luminaires, places, watch);
                 return light;
               })
      .direct_lx;
}

RoomLight Lighting::weighted(const Weights& weights) const {
  RoomLight light;
  light.maintained = dark_;
  light.initial_lx.assign(dark_.direct_lx.size(), 0.0);
  light.initial_indirect_lx = light.initial_lx;
  for (std::size_t s = 0; s < sources_.size(); ++s) light.add(sources_[s], weights[s]);
  return light;
}

}  // namespace glow::lighting
