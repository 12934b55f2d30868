#pragma once

#include <map>
#include <memory>
#include <mutex>
#include <string>
#include <vector>

#include "core/record/record.hpp"
#include "core/studies/energy/room_energy.hpp"

namespace glow::run {

/// What was found of moments in which daylight alone shines, for as long as a program computes rooms that
/// differ in luminaires only, as variants and what is watched do: luminaires change nothing of it but which
/// there are. Safe to call from any thread.
class DayMemory {
 public:
  struct Days {
    bool tells_colour = false;
    int refinements = 0;                       ///< of the room that they were found with
    std::vector<record::SceneRecord> scenes;   ///< whole
    std::shared_ptr<studies::DayHours> hours;  ///< of the year, where energy asked for them
  };
  /// Null: not known. `key`: all that such moments depend on.
  std::shared_ptr<const Days> find(const std::string& key) const;
  /// Of very many keys the ones that were kept first are let go.
  void keep(const std::string& key, Days days);

 private:
  static constexpr std::size_t kMost = 400;  // rooms
  mutable std::mutex mutex_;
  std::map<std::string, std::shared_ptr<const Days>> days_;
  std::vector<std::string> order_;
};

}  // namespace glow::run
