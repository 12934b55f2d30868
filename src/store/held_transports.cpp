#include "store/held_transports.hpp"

#include <algorithm>

#include "core/transport/group_light.hpp"
#include "core/transport/transport.hpp"

namespace glow::store {

std::optional<transport::TracedHits> HeldTransports::find(const std::string& key) {
  return beyond_ ? beyond_->find(key) : std::nullopt;
}

void HeldTransports::keep(const std::string& key, const transport::TracedHits& hits) {
  if (beyond_) beyond_->keep(key, hits);
}

std::shared_ptr<const transport::Transport> HeldTransports::held(const std::string& key) {
  const std::lock_guard<std::mutex> lock(mutex_);
  const auto found = held_.find(key);
  if (found == held_.end()) return nullptr;
  found->second.last_asked = ++asked_;
  return found->second.transport;
}

void HeldTransports::hold(const std::string& key,
                          const std::shared_ptr<const transport::Transport>& transport) {
  const std::size_t patches = transport->patches().patches().size();
  const std::size_t bytes =
      sizeof(std::int32_t) * transport->hits().rays() + sizeof(float) * patches * patches;
  const std::lock_guard<std::mutex> lock(mutex_);
  if (bytes > most_bytes_ || held_.count(key) > 0) return;
  while (bytes_ + bytes > most_bytes_) {
    const auto oldest = std::min_element(held_.begin(), held_.end(), [](const auto& a, const auto& b) {
      return a.second.last_asked < b.second.last_asked;
    });
    bytes_ -= oldest->second.bytes;
    held_.erase(oldest);
  }
  held_.emplace(key, Held{transport, bytes, ++asked_});
  bytes_ += bytes;
}

std::shared_ptr<const transport::GroupLight> HeldTransports::held_light(const std::string& key) {
  const std::lock_guard<std::mutex> lock(mutex_);
  const auto found = lights_.find(key);
  return found == lights_.end() ? nullptr : found->second;
}

void HeldTransports::hold_light(const std::string& key,
                                const std::shared_ptr<const transport::GroupLight>& light) {
  const std::size_t numbers =
      3 * light->direct_lx.size() +
      std::size_t(light->patch_irradiance_lx.size() + light->exitance_by_rays.size() +
                  light->on_patches.mean_lm.size() + light->on_patches.sets_lm.size());
  const std::size_t bytes = sizeof(double) * numbers;
  const std::lock_guard<std::mutex> lock(mutex_);
  if (light_bytes_ + bytes > kMostLightBytes) {  // much else has been tried since: begin anew
    lights_.clear();
    light_bytes_ = 0;
  }
  if (lights_.emplace(key, light).second) light_bytes_ += bytes;
}

}  // namespace glow::store
