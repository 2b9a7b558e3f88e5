#include "store/build_database.h"

#include "store/build_header.h"
#include "store/failure_words.h"
#include "store/json_reader.h"
#include "store/record_json.h"

#include <fmt/format.h>
#include <sqlite3.h>
#include <zlib.h>

#include <array>
#include <filesystem>
#include <set>
#include <stdexcept>
#include <utility>

namespace datrin::store {

namespace {

// The texts as the database keeps them. A file of today's format may have been made with them, or have come
// to them from an earlier one by ALTER TABLE, which writes a new column where these have it.
constexpr const char* records_table =
    "CREATE TABLE records(id INTEGER PRIMARY KEY, kind TEXT NOT NULL, body TEXT NOT NULL{})";
constexpr const char* changes_table =
    "CREATE TABLE changes(seq INTEGER PRIMARY KEY AUTOINCREMENT, at TEXT NOT NULL, label TEXT NOT NULL, "
    "rows TEXT NOT NULL, state INTEGER NOT NULL{})";
constexpr const char* metadata_table = "CREATE TABLE metadata(key TEXT PRIMARY KEY, value TEXT NOT NULL)";
constexpr const char* changes_index = "CREATE INDEX changes_by_state ON changes(state, seq)";
constexpr const char* sum_column = "sum INTEGER NOT NULL DEFAULT 0";

std::string with_sum(const char* table, bool sums) {
  return fmt::format(fmt::runtime(table), sums ? fmt::format(", {}", sum_column) : "");
}

/// Every thing in the database of a build: its name and the text that made it.
std::set<std::pair<std::string, std::string>> tables_of(std::uint32_t version) {
  const bool sums = version >= first_with_sums;
  return {{"records", with_sum(records_table, sums)},
          {"changes", with_sum(changes_table, sums)},
          {"metadata", metadata_table},
          {"changes_by_state", changes_index},
          {"sqlite_sequence", "CREATE TABLE sqlite_sequence(name,seq)"},
          {"sqlite_autoindex_metadata_1", ""}};
}

template <class... Bytes>
std::uint32_t crc32_of(const Bytes&... parts) {
  auto sum = ::crc32_z(0, nullptr, 0);
  ((sum = ::crc32_z(sum, reinterpret_cast<const Bytef*>(std::data(parts)), std::size(parts))), ...);
  return static_cast<std::uint32_t>(sum);
}

std::array<unsigned char, 8> least_first(std::int64_t number) {
  std::array<unsigned char, 8> bytes{};
  for (std::size_t k = 0; k < 8; ++k)
    bytes[k] = static_cast<unsigned char>(static_cast<std::uint64_t>(number) >> (8 * k));
  return bytes;
}

constexpr std::string_view between("\0", 1);

void guard(sqlite3* handle, BuildDatabase::For purpose) {
  const auto set = [handle](int what, int on) { sqlite3_db_config(handle, what, on, nullptr); };
  set(SQLITE_DBCONFIG_ENABLE_TRIGGER, 0);
  set(SQLITE_DBCONFIG_ENABLE_VIEW, 0);
  set(SQLITE_DBCONFIG_TRUSTED_SCHEMA, 0);
  if (purpose == BuildDatabase::For::work) set(SQLITE_DBCONFIG_DEFENSIVE, 1);
  sqlite3_limit(handle, SQLITE_LIMIT_LENGTH, static_cast<int>(largest_file));
  sqlite3_limit(handle, SQLITE_LIMIT_SQL_LENGTH, 100000);
  sqlite3_limit(handle, SQLITE_LIMIT_COLUMN, 100);
  sqlite3_limit(handle, SQLITE_LIMIT_ATTACHED, 0);
}

} // namespace

std::int64_t record_sum(std::int64_t id, std::string_view kind, std::string_view body) {
  return crc32_of(least_first(id), kind, between, body);
}

std::int64_t change_sum(std::int64_t seq, std::string_view at, std::string_view label, std::string_view rows,
                        int state) {
  return std::int64_t{crc32_of(least_first(seq), at, between, label, between, rows)} * 4 + state;
}

std::string database_path(const std::string& path) {
  return path.empty() ? path : std::filesystem::absolute(path).string();
}

BuildDatabase::BuildDatabase(const std::string& path, int flags, For purpose)
    : opened(path), db(database_path(path), flags, 100) {
  guard(db.getHandle(), purpose);
  if (purpose == For::recovery) db.exec("PRAGMA writable_schema = ON"); // reads on where a page is missing
  db.exec("PRAGMA cell_size_check = ON");
  db.exec("PRAGMA synchronous = FULL");
}

void BuildDatabase::hold() {
  const WritersTurn turn(opened);
  db.exec("PRAGMA locking_mode = EXCLUSIVE");
  db.exec("BEGIN EXCLUSIVE");
  db.exec("COMMIT");
}

void BuildDatabase::make_tables() {
  for (const auto& text : {with_sum(records_table, true), with_sum(changes_table, true),
                           std::string(changes_index), std::string(metadata_table)})
    db.exec(text);
  db.exec(fmt::format("PRAGMA application_id = {}", build_application_id));
  db.exec(fmt::format("PRAGMA user_version = {}", build_format_version));
  db.exec(fmt::format("INSERT INTO metadata VALUES('format_version', '{}')", build_format_version));
}

std::uint32_t BuildDatabase::version() {
  return static_cast<std::uint32_t>(db.execAndGet("PRAGMA user_version").getInt64());
}

void BuildDatabase::check() {
  auto wanted = tables_of(version());
  SQLite::Statement there(db, "SELECT name, sql FROM sqlite_schema");
  while (there.executeStep()) {
    const auto name = there.getColumn(0).getString();
    if (wanted.erase({name, there.getColumn(1).getString()}) == 0)
      throw std::runtime_error(fmt::format("its \"{}\" is none of a build's tables", name.substr(0, 40)));
  }
  if (!wanted.empty())
    throw std::runtime_error(fmt::format("its table \"{}\" is missing or another", wanted.begin()->first));
  if (db.execAndGet("PRAGMA quick_check(1)").getString() != "ok")
    throw std::runtime_error(database_words(SQLITE_CORRUPT));
}

BuildDatabase::Bound::Bound(BuildDatabase& database) : handle_(database.db.getHandle()) {
  // Reading a row takes some ten steps of the database's own machine, and a row some thirty bytes.
  constexpr std::int64_t enough = 10'000'000, a_byte = 100, at_a_time = 1000;
  std::error_code error;
  const auto size = std::filesystem::file_size(database.db.getFilename(), error);
  left_ = (enough + (error ? 0 : static_cast<std::int64_t>(size) * a_byte)) / at_a_time;
  sqlite3_progress_handler(handle_, at_a_time, &Bound::step, this);
}

BuildDatabase::Bound::~Bound() {
  sqlite3_progress_handler(handle_, 0, nullptr, nullptr);
}

int BuildDatabase::Bound::step(void* bound) {
  return --static_cast<Bound*>(bound)->left_ < 0 ? 1 : 0;
}

void BuildDatabase::bring_up_to_date() {
  const auto stated = version();
  if (stated >= build_format_version) return;
  if (stated < first_with_sums) {
    db.exec(fmt::format("ALTER TABLE records ADD COLUMN {}", sum_column));
    db.exec(fmt::format("ALTER TABLE changes ADD COLUMN {}", sum_column));
    write_sums();
  }
  db.exec(fmt::format("PRAGMA user_version = {0}", build_format_version));
  db.exec(
      fmt::format("UPDATE metadata SET value = '{0}' WHERE key = 'format_version'", build_format_version));
}

void BuildDatabase::write_sums() {
  const auto every_row = [this](const char* rows, const char* table, const char* key, auto&& sum_of) {
    SQLite::Statement row(db, rows);
    std::vector<std::pair<std::int64_t, std::int64_t>> sums;
    while (row.executeStep()) sums.emplace_back(row.getColumn(0).getInt64(), sum_of(row));
    SQLite::Statement put(db, fmt::format("UPDATE {} SET sum = ? WHERE {} = ?", table, key));
    for (const auto& [id, sum] : sums) {
      put.bind(1, sum);
      put.bind(2, id);
      put.exec();
      put.reset();
    }
  };
  every_row("SELECT id, kind, body FROM records", "records", "id", [](SQLite::Statement& row) {
    return record_sum(row.getColumn(0).getInt64(), row.getColumn(1).getString(),
                      row.getColumn(2).getString());
  });
  every_row("SELECT seq, at, label, rows, state FROM changes", "changes", "seq", [](SQLite::Statement& row) {
    return change_sum(row.getColumn(0).getInt64(), row.getColumn(1).getString(), row.getColumn(2).getString(),
                      row.getColumn(3).getString(), row.getColumn(4).getInt());
  });
}

void BuildDatabase::write_rows(const std::vector<build::Change>& changes) {
  SQLite::Statement put(db, "INSERT INTO records(id, kind, body, sum) VALUES(?, ?, ?, ?) "
                            "ON CONFLICT(id) DO UPDATE SET kind = excluded.kind, body = excluded.body, "
                            "sum = excluded.sum");
  SQLite::Statement drop(db, "DELETE FROM records WHERE id = ?");
  for (const auto& change : changes) {
    if (change.after) {
      const std::string kind(record_kind(*change.after)), body = record_body(*change.after).dump();
      put.bind(1, change.id);
      put.bind(2, kind);
      put.bind(3, body);
      put.bind(4, record_sum(change.id, kind, body));
      put.exec();
      put.reset();
    } else {
      drop.bind(1, change.id);
      drop.exec();
      drop.reset();
    }
  }
}

void BuildDatabase::write_log(const std::string& at, const std::string& label, const std::string& rows,
                              ChangeState state) {
  const auto seq = db.execAndGet("SELECT coalesce(max(seq), 0) + 1 FROM changes").getInt64();
  SQLite::Statement log(db, "INSERT INTO changes(seq, at, label, rows, state, sum) VALUES(?, ?, ?, ?, ?, ?)");
  log.bind(1, seq);
  log.bind(2, at);
  log.bind(3, label);
  log.bind(4, rows);
  log.bind(5, state);
  log.bind(6, change_sum(seq, at, label, rows, state));
  log.exec();
}

void BuildDatabase::write_next_id(build::Id id) {
  SQLite::Statement put(db,
                        "INSERT INTO metadata VALUES('next_id', ?) ON CONFLICT(key) DO UPDATE SET value = "
                        "excluded.value");
  put.bind(1, std::to_string(id));
  put.exec();
}

void BuildDatabase::change_state(ChangeState from, ChangeState to) {
  SQLite::Statement all(db, "UPDATE changes SET sum = sum - state + ?1, state = ?1 WHERE state = ?2");
  all.bind(1, to);
  all.bind(2, from);
  all.exec();
}

void BuildDatabase::change_state(std::int64_t seq, ChangeState to) {
  SQLite::Statement one(db, "UPDATE changes SET sum = sum - state + ?1, state = ?1 WHERE seq = ?2");
  one.bind(1, to);
  one.bind(2, seq);
  one.exec();
}

} // namespace datrin::store
