#include "store/transport_cache.hpp"

#include <algorithm>
#include <cstring>
#include <fstream>

#include "core/transport/content_key.hpp"
#include "files/output/output_folder.hpp"

namespace glow::store {
namespace {

namespace fs = std::filesystem;

constexpr std::string_view kMagic = "Glow Grid hits 3";
constexpr std::size_t kChecksum = 32;  // characters at the end
constexpr std::uintmax_t kLargestFile = std::uintmax_t{4} << 30;
constexpr std::size_t kTogether = 1 << 16;  // numbers that are turned over at once
constexpr std::uintmax_t kShare = 8;        // nothing larger than the cache over this is kept

/// Numbers of patches fit two bytes where there are not too many of them.
bool is_narrow(const transport::TracedHits& hits) {
  return hits.patch_begin.size() <= 32767;
}

/// How many bytes a file of these hits has.
std::uintmax_t size_of(const transport::TracedHits& hits, const std::string& key) {
  return kMagic.size() + key.size() + kChecksum + 1 + 4 * sizeof(std::uint64_t) +
         sizeof(std::uint64_t) * (hits.patch_begin.size() + hits.receiver_begin.size()) +
         (is_narrow(hits) ? 2u : 4u) * std::uintmax_t(hits.rays());
}

/// Writes bytes with their checksum behind them.
class CheckedWriter {
 public:
  explicit CheckedWriter(std::ostream& out) : out_(out) {}

  void bytes(const void* data, std::size_t count) {
    checksum_.add(data, count);
    out_.write(static_cast<const char*>(data), std::streamsize(count));
  }
  template <class Stored, class Number>
  void list(const std::vector<Number>& numbers) {
    const std::uint64_t count = numbers.size();
    bytes(&count, sizeof count);
    std::vector<Stored> part;
    for (std::size_t i = 0; i < numbers.size(); i += kTogether) {
      part.assign(numbers.begin() + std::ptrdiff_t(i),
                  numbers.begin() + std::ptrdiff_t(std::min(numbers.size(), i + kTogether)));
      bytes(part.data(), part.size() * sizeof(Stored));
    }
  }
  void finish() { out_ << checksum_.text(); }

 private:
  std::ostream& out_;
  transport::ContentChecksum checksum_;
};

/// Reads them back; throws nothing, says at the end whether all was as it should be.
class CheckedReader {
 public:
  CheckedReader(std::istream& in, std::uintmax_t size) : in_(in), left_(size - kChecksum) {}

  bool bytes(void* data, std::size_t count) {
    if (count > left_ || !in_.read(static_cast<char*>(data), std::streamsize(count))) return false;
    left_ -= count;
    checksum_.add(data, count);
    return true;
  }
  bool text(std::string_view expected) {
    std::string found(expected.size(), '\0');
    return bytes(found.data(), found.size()) && found == expected;
  }
  template <class Stored, class Number>
  bool list(std::vector<Number>& numbers) {
    std::uint64_t count = 0;
    if (!bytes(&count, sizeof count) || count > left_ / sizeof(Stored)) return false;
    numbers.reserve(count);
    std::vector<Stored> part;
    while (numbers.size() < count) {
      part.resize(std::min<std::size_t>(kTogether, count - numbers.size()));
      if (!bytes(part.data(), part.size() * sizeof(Stored))) return false;
      numbers.insert(numbers.end(), part.begin(), part.end());
    }
    return true;
  }
  bool finish() {
    std::string found(kChecksum, '\0');
    return left_ == 0 && in_.read(found.data(), kChecksum) && found == checksum_.text();
  }

 private:
  std::istream& in_;
  std::uintmax_t left_;
  transport::ContentChecksum checksum_;
};

void write(std::ostream& out, const std::string& key, const transport::TracedHits& hits) {
  CheckedWriter writer(out);
  writer.bytes(kMagic.data(), kMagic.size());
  writer.bytes(key.data(), key.size());
  const char narrow = is_narrow(hits) ? 1 : 0;
  writer.bytes(&narrow, 1);
  writer.list<std::uint64_t>(hits.patch_begin);
  writer.list<std::uint64_t>(hits.receiver_begin);
  for (const auto* numbers : {&hits.of_patches, &hits.of_receivers})
    narrow ? writer.list<std::int16_t>(*numbers) : writer.list<std::int32_t>(*numbers);
  writer.finish();
}

std::optional<transport::TracedHits> read(std::istream& in, std::uintmax_t size, const std::string& key) {
  CheckedReader reader(in, size);
  transport::TracedHits hits;
  char narrow = 0;
  if (!reader.text(kMagic) || !reader.text(key) || !reader.bytes(&narrow, 1) ||
      !reader.list<std::uint64_t>(hits.patch_begin) || !reader.list<std::uint64_t>(hits.receiver_begin))
    return std::nullopt;
  for (auto* numbers : {&hits.of_patches, &hits.of_receivers})
    if (!(narrow ? reader.list<std::int16_t>(*numbers) : reader.list<std::int32_t>(*numbers)))
      return std::nullopt;
  if (!reader.finish()) return std::nullopt;
  return hits;
}

}  // namespace

std::optional<transport::TracedHits> TransportCache::find(const std::string& key) {
  std::error_code error;
  const std::uintmax_t size = fs::file_size(path_of(key), error);
  if (error || size > kLargestFile || size < kMagic.size() + key.size() + kChecksum) return std::nullopt;
  std::ifstream file(path_of(key), std::ios::binary);
  auto hits = read(file, size, key);
  if (!hits) return std::nullopt;
  std::error_code ignored;  // only keeps it from being the next to go
  fs::last_write_time(path_of(key), fs::file_time_type::clock::now(), ignored);
  const std::lock_guard<std::mutex> lock(mutex_);
  own_.insert(key);
  return hits;
}

void TransportCache::keep(const std::string& key, const transport::TracedHits& hits) {
  const std::lock_guard<std::mutex> lock(mutex_);
  const std::uintmax_t size = size_of(hits, key);
  if (size > most_bytes_ / kShare) return;
  if (!make_room(size)) return;
  try {
    files::write_whole(path_of(key), [&](std::ostream& out) { write(out, key, hits); });
    own_.insert(key);
  } catch (const files::OutputError&) {
    return;
  }
}

/// Takes away what other runs used longest ago until the new file fits. False when it does not.
bool TransportCache::make_room(std::uintmax_t needed) const {
  struct Entry {
    fs::file_time_type used;
    std::uintmax_t size;
    fs::path path;
  };
  std::vector<Entry> entries;
  std::uintmax_t sum = needed;
  std::error_code error;
  for (fs::directory_iterator file(folder_, error), end; !error && file != end; file.increment(error)) {
    // What another run is writing, or was when it was killed, takes room as well.
    const bool unfinished = file->path().filename().string().find(".hits.unfinished-") != std::string::npos;
    if (file->path().extension() != ".hits" && !unfinished) continue;
    std::error_code gone;  // another run may just have removed it
    const std::uintmax_t size = file->file_size(gone);
    const auto used = file->last_write_time(gone);
    if (gone) continue;
    sum += size;
    if (!own_.count(file->path().stem().string())) entries.push_back({used, size, file->path()});
  }
  std::sort(entries.begin(), entries.end(), [](const Entry& a, const Entry& b) { return a.used < b.used; });
  for (const Entry& entry : entries) {
    if (sum <= most_bytes_) break;
    std::error_code gone;
    fs::remove(entry.path, gone);
    sum -= entry.size;
  }
  return sum <= most_bytes_;
}

}  // namespace glow::store
