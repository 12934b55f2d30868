#include "store/held_transports.hpp"

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
  return found == held_.end() ? nullptr : found->second;
}

void HeldTransports::hold(const std::string& key,
                          const std::shared_ptr<const transport::Transport>& transport) {
  const std::size_t patches = transport->patches().patches().size();
  const std::size_t bytes =
      sizeof(std::int32_t) * transport->hits().rays() + sizeof(float) * patches * patches;
  const std::lock_guard<std::mutex> lock(mutex_);
  if (bytes_ + bytes > most_bytes_ || !held_.emplace(key, transport).second) return;
  bytes_ += bytes;
}

}  // namespace glow::store
