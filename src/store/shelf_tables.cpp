#include "store/shelf_tables.hpp"

#include <fmt/format.h>

#include "core/transport/content_key.hpp"

namespace glow::store {
namespace {

using shelf::kMeasures;

// Columns of a content: key, words, then a number for each measure, and a checksum of all that.
constexpr int kTexts = 6;   // refusal, maker, name, catalogue number, lamp, distribution
constexpr int kWholes = 4;  // kind, shape, rotational, findings
constexpr int kContentColumns = kTexts + kWholes + int(kMeasures);
constexpr int kFileColumns = 6;  // path, size, modified, changed, inode, settled

std::string content_columns() {
  std::string columns =
      "refusal, maker, name, catalogue_number, lamp, distribution, kind, shape, rotational, findings";
  for (const shelf::MeasureWords& each : shelf::measures()) columns += std::string(", ") + each.column;
  return columns;
}

std::array<std::string, kTexts> texts_of(const Content& c) {
  return {c.refusal,    c.facts.maker,       c.facts.name, c.facts.catalogue_number,
          c.facts.lamp, c.facts.distribution};
}

std::array<std::int64_t, kWholes> wholes_of(const Content& c) {
  return {std::int64_t(c.facts.kind), std::int64_t(c.facts.shape), c.facts.rotational ? 1 : 0,
          std::int64_t(c.findings)};
}

/// SQLite notices damage to its pages, not to what they hold.
std::string checksum_of(const Content& content) {
  transport::ContentChecksum checksum;
  for (const std::string& text : texts_of(content)) checksum.add(text.c_str(), text.size() + 1);
  for (const std::int64_t whole : wholes_of(content)) checksum.add(&whole, sizeof whole);
  for (const std::optional<double>& value : content.facts.values) {
    const double number = value.value_or(0);
    const char known = value ? 1 : 0;
    checksum.add(&known, 1);
    checksum.add(&number, sizeof number);
  }
  return checksum.text();
}

Content content_in(const Statement& row, int first) {
  Content c;
  c.refusal = row.text(first);
  c.facts.maker = row.text(first + 1);
  c.facts.name = row.text(first + 2);
  c.facts.catalogue_number = row.text(first + 3);
  c.facts.lamp = row.text(first + 4);
  c.facts.distribution = row.text(first + 5);
  const std::int64_t kind = row.integer(first + kTexts), shape = row.integer(first + kTexts + 1);
  c.facts.kind = photometry::LightKind(kind);
  c.facts.shape = photometry::LuminousShape(shape);
  c.facts.rotational = row.integer(first + kTexts + 2) != 0;
  c.findings = std::size_t(row.integer(first + kTexts + 3));
  for (std::size_t i = 0; i < kMeasures; ++i) c.facts.values[i] = row.real(first + kTexts + kWholes + int(i));
  if (row.text(first + kContentColumns) != checksum_of(c))
    throw DatabaseError("what is kept of a file is not what was written", true);
  return c;
}

void make_tables(Database& database) {
  std::string numbers;
  for (const shelf::MeasureWords& each : shelf::measures())
    numbers += fmt::format(FMT_STRING("{} REAL, "), each.column);
  const std::string contents = fmt::format(
      FMT_STRING(
          "CREATE TABLE IF NOT EXISTS contents (key TEXT PRIMARY KEY, refusal TEXT, maker TEXT, name TEXT, "
          "catalogue_number TEXT, lamp TEXT, distribution TEXT, kind INTEGER, shape INTEGER, "
          "rotational INTEGER, findings INTEGER, {}checksum TEXT) WITHOUT ROWID"),
      numbers);
  database.run(contents.c_str());
  database.run(
      "CREATE TABLE IF NOT EXISTS files (path BLOB PRIMARY KEY, size INTEGER, modified INTEGER, "
      "changed INTEGER, inode INTEGER, settled INTEGER, key TEXT) WITHOUT ROWID");
  database.run("CREATE INDEX IF NOT EXISTS files_by_content ON files (key)");
}

std::string marks(int count) {
  std::string text = "?";
  for (int i = 1; i < count; ++i) text += ",?";
  return text;
}

}  // namespace

ShelfTables::ShelfTables(const std::filesystem::path& file) : database_(file) {
  bool made = false;
  {
    Statement tables(database_, "SELECT count(*) FROM sqlite_master WHERE name = 'files_by_content'");
    made = tables.step() && tables.integer(0) == 1;
  }
  if (made) return;
  Transaction transaction(database_);
  make_tables(database_);
  transaction.commit();
}

void ShelfTables::select(const std::string& from, const std::string& to, const Sink& sink) {
  Statement rows(database_,
                 "SELECT path, size, modified, changed, inode, settled, " + content_columns() +
                     ", checksum FROM files JOIN contents USING (key) WHERE path >= ? AND path < ?");
  rows.blob(0, from).blob(1, to);
  while (rows.step())
    sink({rows.text(0),
          {rows.integer(1), rows.integer(2), rows.integer(3), rows.integer(4)},
          rows.integer(5) != 0,
          content_in(rows, kFileColumns)});
}

std::optional<Content> ShelfTables::content(const std::string& key) {
  Statement rows(database_, "SELECT " + content_columns() + ", checksum FROM contents WHERE key = ?");
  rows.text(0, key);
  return rows.step() ? std::optional(content_in(rows, 0)) : std::nullopt;
}

void ShelfTables::keep(const std::vector<NewFile>& files) {
  Transaction transaction(database_);
  Statement of_content(database_, "INSERT OR REPLACE INTO contents (key, " + content_columns() +
                                      ", checksum) VALUES (" + marks(kContentColumns + 2) + ")");
  Statement of_file(database_,
                    "INSERT OR REPLACE INTO files (path, size, modified, changed, inode, settled, key) "
                    "VALUES (?,?,?,?,?,?,?)");
  for (const NewFile& file : files) {
    int at = 0;
    of_content.text(at++, file.key);
    for (const std::string& text : texts_of(*file.content)) of_content.text(at++, text);
    for (const std::int64_t whole : wholes_of(*file.content)) of_content.integer(at++, whole);
    for (const std::optional<double>& value : file.content->facts.values) of_content.real(at++, value);
    of_content.text(at, checksum_of(*file.content)).once();
    of_file.blob(0, file.path).integer(1, file.stamp.size).integer(2, file.stamp.modified_ns);
    of_file.integer(3, file.stamp.changed_ns).integer(4, file.stamp.inode).integer(5, file.settled ? 1 : 0);
    of_file.text(6, file.key).once();
  }
  transaction.commit();
}

void ShelfTables::forget(const std::vector<std::string>& paths) {
  Transaction transaction(database_);
  Statement file(database_, "DELETE FROM files WHERE path = ?");
  for (const std::string& path : paths) file.blob(0, path).once();
  database_.run("DELETE FROM contents WHERE NOT EXISTS (SELECT 1 FROM files WHERE files.key = contents.key)");
  transaction.commit();
}

}  // namespace glow::store
