#pragma once

#include <filesystem>
#include <mutex>
#include <set>

#include "core/transport/transport_store.hpp"

namespace glow::store {

/// Traced hits in a folder beside the project, one file for each content key. One object serves one run.
///
/// Safe to delete at any time. Safe when runs share it, and from several threads: a file is written aside and
/// renamed. Bounded: what was used longest ago goes first, but nothing that this run has used or written, so
/// that a building larger than the cache finds the same part of itself there every time. What is larger than
/// an eighth of the whole is not kept. A file that is damaged, or is not what its name says, counts as absent
/// and is written anew. A folder that cannot be written is as good as none.
class TransportCache : public transport::TransportStore {
 public:
  static constexpr std::uintmax_t kMostBytes = 512u << 20;

  explicit TransportCache(std::filesystem::path folder, std::uintmax_t most_bytes = kMostBytes)
      : folder_(std::move(folder)), most_bytes_(most_bytes) {}

  std::optional<transport::TracedHits> find(const std::string& key) override;
  void keep(const std::string& key, const transport::TracedHits& hits) override;

 private:
  std::filesystem::path path_of(const std::string& key) const { return folder_ / (key + ".hits"); }
  bool make_room(std::uintmax_t needed) const;

  std::filesystem::path folder_;
  std::uintmax_t most_bytes_;
  std::mutex mutex_;           ///< of what follows, and of writing
  std::set<std::string> own_;  ///< keys that this run has used or written
};

}  // namespace glow::store
