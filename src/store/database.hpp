#pragma once

#include <cstdint>
#include <filesystem>
#include <optional>
#include <stdexcept>
#include <string>
#include <string_view>

struct sqlite3;
struct sqlite3_stmt;

namespace glow::store {

/// Something is wrong with a database; `what()` says what.
class DatabaseError : public std::runtime_error {
 public:
  DatabaseError(const std::string& words, bool damaged) : std::runtime_error(words), damaged_(damaged) {}
  /// Whether the file is not a database, or not a sound one: then it helps to make it anew.
  bool damaged() const { return damaged_; }

 private:
  bool damaged_;
};

/// One SQLite file, shared with other processes: whoever finds it busy waits up to ten seconds. From one
/// thread.
class Database {
 public:
  /// Opens, or makes, with its folder. Throws DatabaseError.
  explicit Database(const std::filesystem::path& file);
  ~Database();
  Database(const Database&) = delete;
  Database& operator=(const Database&) = delete;

  /// Statements without parameters and results. Throws DatabaseError.
  void run(const char* sql);
  /// The connection, for Statement.
  sqlite3* handle() const { return handle_; }

 private:
  sqlite3* handle_ = nullptr;
};

/// All of what happens while it lives, or nothing of it unless `commit` is reached.
class Transaction {
 public:
  /// Nobody else may write until it ends.
  explicit Transaction(Database& database);
  ~Transaction();
  Transaction(const Transaction&) = delete;
  Transaction& operator=(const Transaction&) = delete;
  void commit();

 private:
  Database& database_;
  bool open_ = true;
};

/// A prepared statement. Parameters and columns count from 0. All throw DatabaseError.
class Statement {
 public:
  Statement(const Database& database, const std::string& sql);
  ~Statement();
  Statement(const Statement&) = delete;
  Statement& operator=(const Statement&) = delete;

  Statement& text(int parameter, const std::string& value);
  Statement& blob(int parameter, std::string_view bytes);
  Statement& integer(int parameter, std::int64_t value);
  Statement& real(int parameter, const std::optional<double>& value);

  /// The next row; false when there is none, and the statement is ready to be used again.
  bool step();
  /// For statements that give no rows.
  void once();

  std::string text(int column) const;  ///< or the bytes of a blob
  std::int64_t integer(int column) const;
  std::optional<double> real(int column) const;  ///< nothing where it is null

 private:
  void check(int code) const;
  sqlite3_stmt* handle_ = nullptr;
};

}  // namespace glow::store
