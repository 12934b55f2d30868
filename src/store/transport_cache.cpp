#include "store/transport_cache.hpp"

#include <algorithm>
#include <cstring>
#include <fstream>

#include "core/transport/content_key.hpp"
#include "files/output/output_folder.hpp"

namespace glow::files {
namespace {

namespace fs = std::filesystem;

constexpr std::string_view kMagic = "Glow Grid hits 2";
constexpr std::size_t kChecksum = 32;  // characters at the end
constexpr std::uintmax_t kLargestFile = std::uintmax_t{4} << 30;

template <class Number>
void append(std::string& bytes, const std::vector<Number>& numbers) {
  const std::uint64_t count = numbers.size();
  bytes.append(reinterpret_cast<const char*>(&count), sizeof count);
  bytes.append(reinterpret_cast<const char*>(numbers.data()), numbers.size() * sizeof(Number));
}

/// Takes numbers off the front of `bytes`; false when there are fewer than it says.
template <class Number>
bool take(std::string_view& bytes, std::vector<Number>& numbers) {
  std::uint64_t count = 0;
  if (bytes.size() < sizeof count) return false;
  std::memcpy(&count, bytes.data(), sizeof count);
  bytes.remove_prefix(sizeof count);
  if (count > bytes.size() / sizeof(Number)) return false;
  numbers.resize(count);
  if (count > 0) std::memcpy(numbers.data(), bytes.data(), count * sizeof(Number));
  bytes.remove_prefix(count * sizeof(Number));
  return true;
}

std::optional<std::string> read_file(const fs::path& path) {
  std::error_code error;
  const std::uintmax_t size = fs::file_size(path, error);
  if (error || size > kLargestFile) return std::nullopt;
  std::ifstream file(path, std::ios::binary);
  std::string bytes(size, '\0');
  file.read(bytes.data(), std::streamsize(size));
  if (!file) return std::nullopt;
  return bytes;
}

}  // namespace

std::optional<transport::TracedHits> TransportCache::find(const std::string& key) {
  const std::optional<std::string> file = read_file(path_of(key));
  if (!file || file->size() < kMagic.size() + key.size() + kChecksum) return std::nullopt;
  std::string_view bytes(*file);
  const std::string_view checksum = bytes.substr(bytes.size() - kChecksum);
  bytes.remove_suffix(kChecksum);
  if (transport::content_checksum(bytes.data(), bytes.size()) != checksum) return std::nullopt;
  if (bytes.substr(0, kMagic.size()) != kMagic || bytes.substr(kMagic.size(), key.size()) != key)
    return std::nullopt;
  bytes.remove_prefix(kMagic.size() + key.size());
  transport::TracedHits hits;
  if (!take(bytes, hits.patch_begin) || !take(bytes, hits.of_patches) || !take(bytes, hits.receiver_begin) ||
      !take(bytes, hits.of_receivers) || !bytes.empty())
    return std::nullopt;
  std::error_code ignored;  // only keeps it from being the next to go
  fs::last_write_time(path_of(key), fs::file_time_type::clock::now(), ignored);
  return hits;
}

void TransportCache::keep(const std::string& key, const transport::TracedHits& hits) {
  std::string bytes(kMagic);
  bytes += key;
  append(bytes, hits.patch_begin);
  append(bytes, hits.of_patches);
  append(bytes, hits.receiver_begin);
  append(bytes, hits.of_receivers);
  bytes += transport::content_checksum(bytes.data(), bytes.size());
  if (bytes.size() > most_bytes_) return;
  try {
    write_whole(path_of(key), bytes);
  } catch (const OutputError&) {
    return;
  }
  make_room();
}

void TransportCache::make_room() const {
  struct Entry {
    fs::file_time_type used;
    std::uintmax_t size;
    fs::path path;
  };
  std::vector<Entry> entries;
  std::uintmax_t sum = 0;
  std::error_code error;
  for (fs::directory_iterator file(folder_, error), end; !error && file != end; file.increment(error)) {
    if (file->path().extension() != ".hits") continue;
    std::error_code gone;  // another run may just have removed it
    const std::uintmax_t size = file->file_size(gone);
    const auto used = file->last_write_time(gone);
    if (gone) continue;
    entries.push_back({used, size, file->path()});
    sum += size;
  }
  std::sort(entries.begin(), entries.end(), [](const Entry& a, const Entry& b) { return a.used < b.used; });
  for (const Entry& entry : entries) {
    if (sum <= most_bytes_) break;
    std::error_code gone;
    fs::remove(entry.path, gone);
    sum -= entry.size;
  }
}

}  // namespace glow::files
