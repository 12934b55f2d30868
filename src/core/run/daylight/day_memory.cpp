#include "core/run/daylight/day_memory.hpp"

namespace glow::run {

std::shared_ptr<const DayMemory::Days> DayMemory::find(const std::string& key) const {
  const std::lock_guard<std::mutex> lock(mutex_);
  const auto found = days_.find(key);
  return found == days_.end() ? nullptr : found->second;
}

void DayMemory::keep(const std::string& key, Days days) {
  const std::lock_guard<std::mutex> lock(mutex_);
  if (!days_.emplace(key, std::make_shared<const Days>(std::move(days))).second) return;
  order_.push_back(key);
  if (order_.size() <= kMost) return;
  days_.erase(order_.front());
  order_.erase(order_.begin());
}

}  // namespace glow::run
