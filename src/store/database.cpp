#include "store/database.hpp"

#include <sqlite3.h>

namespace glow::store {
namespace {

constexpr int kPatience = 10000;  // ms

[[noreturn]] void fail(sqlite3* handle, int code) {
  const int plain = code & 0xff;
  throw DatabaseError(handle ? sqlite3_errmsg(handle) : sqlite3_errstr(code),
                      plain == SQLITE_CORRUPT || plain == SQLITE_NOTADB || plain == SQLITE_FORMAT ||
                          plain == SQLITE_ERROR);  // such as tables of another make
}

}  // namespace

Database::Database(const std::filesystem::path& file) {
  std::error_code ignored;  // opening tells
  std::filesystem::create_directories(file.parent_path(), ignored);
  const int code =
      sqlite3_open_v2(file.c_str(), &handle_, SQLITE_OPEN_READWRITE | SQLITE_OPEN_CREATE, nullptr);
  if (code != SQLITE_OK) {
    const std::string words = handle_ ? sqlite3_errmsg(handle_) : "no memory";
    sqlite3_close(handle_);
    throw DatabaseError(words, (code & 0xff) == SQLITE_NOTADB);
  }
  sqlite3_busy_timeout(handle_, kPatience);
}

Database::~Database() {
  sqlite3_close(handle_);
}

void Database::run(const char* sql) {
  const int code = sqlite3_exec(handle_, sql, nullptr, nullptr, nullptr);
  if (code != SQLITE_OK) fail(handle_, code);
}

Transaction::Transaction(Database& database) : database_(database) {
  database_.run("BEGIN IMMEDIATE");
}

Transaction::~Transaction() {
  if (!open_) return;
  try {
    database_.run("ROLLBACK");
  } catch (const DatabaseError&) {  // then there is nothing to take back
  }
}

void Transaction::commit() {
  database_.run("COMMIT");
  open_ = false;
}

Statement::Statement(const Database& database, const std::string& sql) {
  const int code = sqlite3_prepare_v2(database.handle(), sql.data(), int(sql.size()), &handle_, nullptr);
  if (code != SQLITE_OK) fail(database.handle(), code);
}

Statement::~Statement() {
  sqlite3_finalize(handle_);
}

void Statement::check(int code) const {
  if (code != SQLITE_OK) fail(sqlite3_db_handle(handle_), code);
}

Statement& Statement::text(int parameter, const std::string& value) {
  check(sqlite3_bind_text(handle_, parameter + 1, value.data(), int(value.size()), SQLITE_TRANSIENT));
  return *this;
}

Statement& Statement::blob(int parameter, std::string_view bytes) {
  check(sqlite3_bind_blob(handle_, parameter + 1, bytes.data(), int(bytes.size()), SQLITE_TRANSIENT));
  return *this;
}

Statement& Statement::integer(int parameter, std::int64_t value) {
  check(sqlite3_bind_int64(handle_, parameter + 1, value));
  return *this;
}

Statement& Statement::real(int parameter, const std::optional<double>& value) {
  check(value ? sqlite3_bind_double(handle_, parameter + 1, *value)
              : sqlite3_bind_null(handle_, parameter + 1));
  return *this;
}

bool Statement::step() {
  const int code = sqlite3_step(handle_);
  if (code == SQLITE_ROW) return true;
  sqlite3_reset(handle_);
  if (code != SQLITE_DONE) fail(sqlite3_db_handle(handle_), code);
  return false;
}

void Statement::once() {
  while (step()) {
  }
}

std::string Statement::text(int column) const {
  const auto* bytes = static_cast<const char*>(sqlite3_column_blob(handle_, column));
  return bytes ? std::string(bytes, std::size_t(sqlite3_column_bytes(handle_, column))) : std::string();
}

std::int64_t Statement::integer(int column) const {
  return sqlite3_column_int64(handle_, column);
}

std::optional<double> Statement::real(int column) const {
  if (sqlite3_column_type(handle_, column) == SQLITE_NULL) return std::nullopt;
  return sqlite3_column_double(handle_, column);
}

}  // namespace glow::store
