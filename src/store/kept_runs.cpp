#include "store/kept_runs.hpp"

#include <algorithm>
#include <nlohmann/json.hpp>

#include "core/transport/content_key.hpp"
#include "files/text/json_text.hpp"
#include "store/packed_bytes.hpp"

namespace glow::store {
namespace {

using json = nlohmann::ordered_json;

constexpr int kFormat = 1;

std::string key_of(std::string_view bytes) {
  transport::ContentChecksum checksum;
  checksum.add(bytes.data(), bytes.size());
  return checksum.text();
}

std::string summary_of(const KeptRun& run) {
  json rooms = json::array();
  for (const KeptRun::Room& room : run.rooms) {
    json inputs = json::array();
    for (const model::InputPart& part : room.inputs) inputs.push_back({part.what, part.print});
    rooms.push_back({{"name", room.name}, {"inputs", inputs}});
  }
  return files::json_line({{"met", run.met}, {"judged", run.judged}, {"rooms", rooms}});
}

/// False where it is none of ours.
bool take_summary(const std::string& text, KeptRun& run) {
  const json summary = files::parsed_json(text);
  if (!summary.is_object() || !summary.contains("rooms")) return false;
  try {
    if (!summary.at("met").is_number_unsigned() || !summary.at("judged").is_number_unsigned()) return false;
    run.met = summary.at("met").get<std::size_t>();
    run.judged = summary.at("judged").get<std::size_t>();
    for (const json& each : summary.at("rooms")) {
      KeptRun::Room room{each.at("name").get<std::string>(), {}};
      for (const json& part : each.at("inputs"))
        room.inputs.push_back({part.at(0).get<std::string>(), part.at(1).get<std::string>()});
      run.rooms.push_back(std::move(room));
    }
  } catch (const json::exception&) {
    return false;
  }
  return true;
}

}  // namespace

KeptRuns::KeptRuns(const std::filesystem::path& file) : path_(file), database_(file) {
  Transaction all(database_);
  Statement version(database_, "PRAGMA user_version");
  version.step();
  const auto format = version.integer(0);
  while (version.step()) {
  }
  if (format > kFormat) throw DatabaseError("it was written by a later version of this program", false);
  if (format == 0)
    database_.run(
        "CREATE TABLE IF NOT EXISTS blobs(key TEXT PRIMARY KEY, size INTEGER NOT NULL, bytes BLOB NOT NULL);"
        "CREATE TABLE IF NOT EXISTS runs(id INTEGER PRIMARY KEY AUTOINCREMENT, name TEXT NOT NULL UNIQUE,"
        " named INTEGER NOT NULL, made_at INTEGER NOT NULL, summary TEXT NOT NULL, print TEXT NOT NULL);"
        "CREATE TABLE IF NOT EXISTS files(run INTEGER NOT NULL, place INTEGER NOT NULL, name TEXT NOT NULL,"
        " key TEXT NOT NULL, PRIMARY KEY(run, place));"
        "PRAGMA user_version = 1");
  all.commit();
}

bool KeptRuns::keep(const KeptRun& run, const std::vector<KeptFile>& files, std::size_t most_unnamed) {
  Transaction all(database_);
  Statement known(database_, "SELECT 1 FROM runs WHERE name = ?1");
  if (known.text(0, run.name).step()) return false;
  const std::string summary = summary_of(run);
  Statement insert(database_,
                   "INSERT INTO runs(name, named, made_at, summary, print) VALUES(?1, ?2, ?3, ?4, ?5)");
  insert.text(0, run.name).integer(1, run.named ? 1 : 0).integer(2, run.made_at).text(3, summary);
  insert.text(4, key_of(run.name + '\n' + summary)).once();
  Statement number(database_, "SELECT last_insert_rowid()");
  number.step();
  const std::int64_t id = number.integer(0);
  Statement has(database_, "SELECT 1 FROM blobs WHERE key = ?1");
  Statement blob(database_, "INSERT INTO blobs(key, size, bytes) VALUES(?1, ?2, ?3)");
  Statement file(database_, "INSERT INTO files(run, place, name, key) VALUES(?1, ?2, ?3, ?4)");
  for (std::size_t k = 0; k < files.size(); ++k) {
    const std::string key = key_of(files[k].bytes);
    has.text(0, key);
    const bool there = has.step();
    while (there && has.step()) {
    }
    if (!there)
      blob.text(0, key)
          .integer(1, std::int64_t(files[k].bytes.size()))
          .blob(2, packed_bytes(files[k].bytes))
          .once();
    file.integer(0, id).integer(1, std::int64_t(k)).text(2, files[k].name).text(3, key).once();
  }
  if (most_unnamed > 0) {
    Statement beyond(database_,
                     "DELETE FROM runs WHERE named = 0 AND id NOT IN"
                     " (SELECT id FROM runs WHERE named = 0 ORDER BY id DESC LIMIT ?1)");
    beyond.integer(0, std::int64_t(most_unnamed)).once();
    forget_unused();
  }
  all.commit();
  return true;
}

void KeptRuns::forget_unused() {
  database_.run(
      "DELETE FROM files WHERE run NOT IN (SELECT id FROM runs);"
      "DELETE FROM blobs WHERE key NOT IN (SELECT key FROM files)");
}

std::vector<KeptRun> KeptRuns::list() {
  std::vector<KeptRun> runs;
  Statement select(database_, "SELECT name, named, made_at, summary, print FROM runs ORDER BY id");
  while (select.step()) {
    KeptRun run;
    run.name = select.text(0);
    run.named = select.integer(1) != 0;
    run.made_at = select.integer(2);
    const std::string summary = select.text(3);
    if (select.text(4) != key_of(run.name + '\n' + summary) || !take_summary(summary, run))
      run.damage = "its entry is damaged";
    runs.push_back(std::move(run));
  }
  return runs;
}

std::optional<std::string> KeptRuns::blob(const std::string& key) {
  Statement select(database_, "SELECT size, bytes FROM blobs WHERE key = ?1");
  if (!select.text(0, key).step()) return std::nullopt;
  auto bytes = unpacked_bytes(select.text(1), std::size_t(std::max<std::int64_t>(0, select.integer(0))));
  return bytes && key_of(*bytes) == key ? bytes : std::nullopt;
}

std::optional<std::vector<KeptFile>> KeptRuns::files(const std::string& name, std::string& fault) {
  Statement select(
      database_,
      "SELECT files.name, files.key FROM files JOIN runs ON runs.id = files.run WHERE runs.name = ?1"
      " ORDER BY files.place");
  std::vector<KeptFile> files;
  std::vector<std::string> keys;
  select.text(0, name);
  while (select.step()) {
    files.push_back({select.text(0), {}});
    keys.push_back(select.text(1));
  }
  if (files.empty()) return std::nullopt;
  for (std::size_t k = 0; k < files.size(); ++k) {
    auto bytes = blob(keys[k]);
    if (!bytes) {
      fault = "its file \"" + files[k].name + "\" is damaged";
      return std::nullopt;
    }
    files[k].bytes = std::move(*bytes);
  }
  return files;
}

std::optional<std::string> KeptRuns::file(const std::string& name, const std::string& of,
                                          std::string& fault) {
  Statement select(database_,
                   "SELECT files.key FROM files JOIN runs ON runs.id = files.run WHERE runs.name = ?1 AND "
                   "files.name = ?2");
  if (!select.text(0, name).text(1, of).step()) return std::nullopt;
  auto bytes = blob(select.text(0));
  if (!bytes) fault = "its file \"" + of + "\" is damaged";
  return bytes;
}

bool KeptRuns::drop(const std::string& name) {
  Transaction all(database_);
  Statement known(database_, "SELECT 1 FROM runs WHERE name = ?1");
  if (!known.text(0, name).step()) return false;
  while (known.step()) {
  }
  Statement remove(database_, "DELETE FROM runs WHERE name = ?1");
  remove.text(0, name).once();
  forget_unused();
  all.commit();
  database_.run("VACUUM");
  return true;
}

std::string KeptRuns::free_name() {
  Statement last(database_, "SELECT COALESCE(MAX(seq), 0) FROM sqlite_sequence WHERE name = 'runs'");
  std::int64_t number = last.step() ? last.integer(0) : 0;
  Statement known(database_, "SELECT COUNT(*) FROM runs WHERE name = ?1");
  while (true) {
    std::string name = "run " + std::to_string(++number);
    known.text(0, name).step();
    const bool is_free = known.integer(0) == 0;
    while (known.step()) {
    }
    if (is_free) return name;
  }
}

std::uintmax_t KeptRuns::size() const {
  std::error_code error;
  const auto size = std::filesystem::file_size(path_, error);
  return error ? 0 : size;
}

}  // namespace glow::store
