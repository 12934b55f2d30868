#pragma once

#include <map>
#include <mutex>

#include "core/transport/transport_store.hpp"

namespace glow::store {

/// Holds whole transports for as long as a program computes one room after the other that differ in
/// luminaires only, as variants and what is watched do: nothing is read or made again. What is traced goes on
/// to another store. Bounded by the memory of what rays met and of the exchange; once full it lets go of what
/// was longest not asked for.
class HeldTransports : public transport::TransportStore {
 public:
  static constexpr std::size_t kMostBytes = std::size_t(1) << 30;
  static constexpr std::size_t kMostLightBytes = std::size_t(1) << 28;

  /// `beyond`: null, or where hits are kept.
  explicit HeldTransports(transport::TransportStore* beyond, std::size_t most_bytes = kMostBytes)
      : beyond_(beyond), most_bytes_(most_bytes) {}

  std::optional<transport::TracedHits> find(const std::string& key) override;
  void keep(const std::string& key, const transport::TracedHits& hits) override;
  std::shared_ptr<const transport::Transport> held(const std::string& key) override;
  void hold(const std::string& key, const std::shared_ptr<const transport::Transport>& transport) override;
  std::shared_ptr<const transport::GroupLight> held_light(const std::string& key) override;
  void hold_light(const std::string& key, const std::shared_ptr<const transport::GroupLight>& light) override;

 private:
  transport::TransportStore* const beyond_;
  const std::size_t most_bytes_;
  std::mutex mutex_;  ///< of what follows
  struct Held {
    std::shared_ptr<const transport::Transport> transport;
    std::size_t bytes = 0, last_asked = 0;
  };
  std::map<std::string, Held> held_;
  std::size_t asked_ = 0;
  std::map<std::string, std::shared_ptr<const transport::GroupLight>> lights_;
  std::size_t light_bytes_ = 0;
  std::size_t bytes_ = 0;
};

}  // namespace glow::store
