#include "store/build_file.h"

#include "store/json_reader.h"
#include "store/record_json.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/chrono.h>
#include <fmt/format.h>

#include <chrono>
#include <filesystem>
#include <fstream>

namespace datrin::store {

using build::Build;
using build::Edit;
using nlohmann::json;

namespace {

constexpr int application_id = 0x44617472; // "Datr"
constexpr int format_version = 1;

enum State { done = 0, undone = 1, superseded = 2 };

std::string now_text() {
  return fmt::format("{:%Y-%m-%dT%H:%M:%SZ}", fmt::gmtime(std::time(nullptr)));
}

bool is_sqlite(const std::string& path) {
  std::ifstream file(path, std::ios::binary);
  char head[16] = {};
  file.read(head, sizeof head);
  return file.gcount() == sizeof head && std::string_view(head, 15) == "SQLite format 3";
}

} // namespace

struct BuildFile::Database {
  explicit Database(const std::string& path, int flags) : db(path, flags, 2000) {
    db.exec("PRAGMA synchronous = FULL");
    db.exec("PRAGMA foreign_keys = ON");
  }

  void make_tables() {
    SQLite::Transaction transaction(db);
    db.exec("CREATE TABLE records(id INTEGER PRIMARY KEY, kind TEXT NOT NULL, body TEXT NOT NULL)");
    db.exec(
        "CREATE TABLE changes(seq INTEGER PRIMARY KEY AUTOINCREMENT, at TEXT NOT NULL, label TEXT NOT NULL, "
        "rows TEXT NOT NULL, state INTEGER NOT NULL)");
    db.exec("CREATE INDEX changes_by_state ON changes(state, seq)");
    db.exec("CREATE TABLE metadata(key TEXT PRIMARY KEY, value TEXT NOT NULL)");
    db.exec(fmt::format("PRAGMA application_id = {}", application_id));
    db.exec(fmt::format("PRAGMA user_version = {}", format_version));
    db.exec(fmt::format("INSERT INTO metadata VALUES('format_version', '{}')", format_version));
    transaction.commit();
  }

  void write_rows(const std::vector<build::Change>& changes) {
    SQLite::Statement put(db, "INSERT INTO records(id, kind, body) VALUES(?, ?, ?) "
                              "ON CONFLICT(id) DO UPDATE SET kind = excluded.kind, body = excluded.body");
    SQLite::Statement drop(db, "DELETE FROM records WHERE id = ?");
    for (const auto& change : changes) {
      if (change.after) {
        put.bind(1, change.id);
        put.bind(2, std::string(record_kind(*change.after)));
        put.bind(3, record_body(*change.after).dump());
        put.exec();
        put.reset();
      } else {
        drop.bind(1, change.id);
        drop.exec();
        drop.reset();
      }
    }
  }

  void write_next_id(build::Id id) {
    SQLite::Statement put(db,
                          "INSERT INTO metadata VALUES('next_id', ?) ON CONFLICT(key) DO UPDATE SET value = "
                          "excluded.value");
    put.bind(1, std::to_string(id));
    put.exec();
  }

  mutable SQLite::Database db;
};

BuildFile::BuildFile(std::string path, std::unique_ptr<Database> database)
    : path_(std::move(path)), database_(std::move(database)) {}
BuildFile::~BuildFile() = default;
BuildFile::BuildFile(BuildFile&&) noexcept = default;
BuildFile& BuildFile::operator=(BuildFile&&) noexcept = default;

std::optional<BuildFile> BuildFile::create(const std::string& path, const std::string& name,
                                           FileOutcome& outcome) {
  std::error_code error;
  if (std::filesystem::exists(path, error)) {
    outcome = {FileStatus::refused,
               fmt::format("{} is there already; open it, or choose another name", path)};
    return std::nullopt;
  }
  try {
    auto database = std::make_unique<Database>(path, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    database->make_tables();
    BuildFile file(path, std::move(database));
    build::Info info;
    info.name = name;
    file.build_.load(Build::info_id, info);
    file.database_->write_rows({{Build::info_id, std::nullopt, build::Record(info)}});
    file.database_->write_next_id(file.build_.next_id());
    outcome = {};
    return file;
  } catch (const std::exception& error_text) {
    outcome = {FileStatus::refused,
               fmt::format("{} could not be made: {}; check the folder and the space on the disk", path,
                           error_text.what())};
    return std::nullopt;
  }
}

std::optional<BuildFile> BuildFile::open(const std::string& path, FileOutcome& outcome) {
  std::error_code error;
  if (!std::filesystem::exists(path, error)) {
    outcome = {FileStatus::not_there, fmt::format("{} is not there", path)};
    return std::nullopt;
  }
  const auto not_a_build = [&](const std::string& why) {
    outcome = {FileStatus::not_a_build,
               fmt::format("{} is not a Datrin build{}; nothing was written to it", path, why)};
    return std::nullopt;
  };
  if (std::filesystem::is_directory(path, error)) return not_a_build(", it is a folder");
  if (!is_sqlite(path)) return not_a_build("");
  try {
    { // Looked at without the right to write first, so that a file of someone else's is left as it is.
      SQLite::Database look(path, SQLite::OPEN_READONLY);
      const int id = look.execAndGet("PRAGMA application_id").getInt();
      const int version = look.execAndGet("PRAGMA user_version").getInt();
      if (id != application_id) return not_a_build(", but another program's database");
      if (version > format_version) {
        outcome = {FileStatus::newer,
                   fmt::format("{} was written by a newer version of Datrin (format {}, this one "
                               "reads up to {}); nothing was written to it",
                               path, version, format_version)};
        return std::nullopt;
      }
    }
    auto database = std::make_unique<Database>(path, SQLite::OPEN_READWRITE);
    BuildFile file(path, std::move(database));
    auto& db = file.database_->db;
    if (const std::string check = db.execAndGet("PRAGMA quick_check(1)").getString(); check != "ok")
      return not_a_build(fmt::format(" that can be read whole ({})", check));
    SQLite::Statement rows(db, "SELECT id, kind, body FROM records");
    while (rows.executeStep())
      file.build_.load(
          rows.getColumn(0).getInt64(),
          record_from_json(rows.getColumn(1).getString(), json::parse(rows.getColumn(2).getString())));
    SQLite::Statement next(db, "SELECT value FROM metadata WHERE key = 'next_id'");
    if (next.executeStep()) file.build_.reserve(std::stoll(next.getColumn(0).getString()));
    outcome = {};
    return file;
  } catch (const std::exception& error_text) {
    return not_a_build(fmt::format(" that can be read whole ({})", error_text.what()));
  }
}

FileOutcome BuildFile::apply(const Edit& edit) {
  if (edit.empty()) return {};
  // In memory first, without a copy of the whole; taken back there should the disk refuse.
  if (!build_.apply(edit)) return {FileStatus::refused, "the build has changed meanwhile; nothing was done"};
  try {
    auto& db = database_->db;
    SQLite::Transaction transaction(db);
    database_->write_rows(edit.changes);
    SQLite::Statement supersede(db, "UPDATE changes SET state = ? WHERE state = ?");
    supersede.bind(1, superseded);
    supersede.bind(2, undone);
    supersede.exec();
    SQLite::Statement log(db, "INSERT INTO changes(at, label, rows, state) VALUES(?, ?, ?, ?)");
    log.bind(1, now_text());
    log.bind(2, edit.label);
    log.bind(3, changes_json(edit.changes).dump());
    log.bind(4, done);
    log.exec();
    database_->write_next_id(build_.next_id());
    transaction.commit();
  } catch (const std::exception& error) {
    build_.apply(reversed(edit));
    return {FileStatus::refused, fmt::format("\"{}\" could not be kept in {}: {}; nothing was changed",
                                             edit.label, path_, error.what())};
  }
  return {};
}

namespace {

constexpr const char* newest_done =
    "SELECT seq, label, rows FROM changes WHERE state = 0 ORDER BY seq DESC LIMIT 1";
constexpr const char* oldest_undone =
    "SELECT seq, label, rows FROM changes WHERE state = 1 ORDER BY seq ASC LIMIT 1";

} // namespace

std::optional<std::string> BuildFile::undo_label() const {
  SQLite::Statement newest(database_->db, newest_done);
  if (!newest.executeStep()) return std::nullopt;
  return newest.getColumn(1).getString();
}

std::optional<std::string> BuildFile::redo_label() const {
  SQLite::Statement oldest(database_->db, oldest_undone);
  if (!oldest.executeStep()) return std::nullopt;
  return oldest.getColumn(1).getString();
}

FileOutcome BuildFile::step_back_or_forth(bool back) {
  Edit taken;
  try {
    auto& db = database_->db;
    SQLite::Transaction transaction(db);
    SQLite::Statement step(db, back ? newest_done : oldest_undone);
    if (!step.executeStep())
      return {FileStatus::refused, back ? "there is nothing to undo" : "there is nothing to redo"};
    const auto seq = step.getColumn(0).getInt64();
    Edit edit{step.getColumn(1).getString(), changes_from_json(json::parse(step.getColumn(2).getString()))};
    step.reset();
    if (back) edit = reversed(edit);
    if (!build_.apply(edit))
      return {FileStatus::refused,
              fmt::format("\"{}\" does not fit the build as it stands; nothing was done", edit.label)};
    taken = edit;
    database_->write_rows(edit.changes);
    SQLite::Statement mark(db, "UPDATE changes SET state = ? WHERE seq = ?");
    mark.bind(1, back ? undone : done);
    mark.bind(2, seq);
    mark.exec();
    transaction.commit();
    return {};
  } catch (const std::exception& error) {
    if (!taken.empty()) build_.apply(reversed(taken));
    return {FileStatus::refused, fmt::format("{}: {}; nothing was changed", path_, error.what())};
  }
}

FileOutcome BuildFile::undo() {
  return step_back_or_forth(true);
}
FileOutcome BuildFile::redo() {
  return step_back_or_forth(false);
}

std::vector<LogLine> BuildFile::log(int most) const {
  std::vector<LogLine> lines;
  SQLite::Statement rows(database_->db,
                         "SELECT seq, at, label, state FROM changes ORDER BY seq DESC LIMIT ?");
  rows.bind(1, most);
  while (rows.executeStep())
    lines.push_back({rows.getColumn(0).getInt64(), rows.getColumn(1).getString(),
                     rows.getColumn(2).getString(), rows.getColumn(3).getInt() != done});
  return lines;
}

} // namespace datrin::store
