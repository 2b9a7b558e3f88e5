#include "store/build_file.h"

#include "build/check.h"
#include "build/now.h"
#include "quantity/text.h"
#include "store/build_header.h"
#include "store/build_recovery.h"
#include "store/json_reader.h"
#include "store/opened_file.h"
#include "store/record_json.h"
#include "store/working_copy.h"

#include <SQLiteCpp/Backup.h>
#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/chrono.h>
#include <fmt/format.h>
#include <sqlite3.h>

#include <chrono>
#include <cstdlib>
#include <exception>
#include <filesystem>
#include <future>
#include <stdexcept>
#include <thread>

#include <fcntl.h>
#include <unistd.h>

namespace datrin::store {

using build::Build;
using build::Edit;
using nlohmann::json;

namespace {

enum State { done = 0, undone = 1, superseded = 2, elsewhere = 3 }; // elsewhere: done, in another file

bool is_undone(int state) {
  return state == undone || state == superseded;
}

bool may_write(const std::string& path) {
  return ::faccessat(AT_FDCWD, path.c_str(), W_OK, AT_EACCESS) == 0;
}

/// A path beside `path` at which nothing is: "engine-recovered.datrin", "engine-recovered-2.datrin" …
std::string free_path_beside(const std::string& path, const std::string& word) {
  const std::filesystem::path whole(path);
  for (int n = 1;; ++n) {
    auto beside =
        whole.parent_path() / fmt::format("{}-{}{}{}", whole.stem().string(), word,
                                          n > 1 ? fmt::format("-{}", n) : "", whole.extension().string());
    std::error_code error;
    if (!std::filesystem::exists(beside, error)) return beside.string();
  }
}

} // namespace

namespace {

/// A row of the table of records.
struct Row {
  build::Id id = 0;
  std::string kind, body;
  std::optional<build::Record> record;
};

/// Makes records of `rows`, on all processors where there are many. Throws for the first that is not
/// understood, or leaves those out.
void understand(std::vector<Row>& rows, bool skip_unknown) {
  const auto some = [&rows, skip_unknown](std::size_t from, std::size_t to) {
    for (std::size_t k = from; k < to; ++k) {
      auto& row = rows[k];
      try {
        row.record = record_from_json(row.kind, json::parse(row.body));
      } catch (const std::exception&) {
        if (!skip_unknown) throw;
      }
      row.body.clear();
      row.body.shrink_to_fit();
    }
  };
  constexpr std::size_t worth_sharing = 2000;
  const std::size_t parts =
      rows.size() < worth_sharing ? 1 : std::max<std::size_t>(1, std::thread::hardware_concurrency());
  std::vector<std::future<void>> shares;
  for (std::size_t k = 1; k < parts; ++k)
    shares.push_back(
        std::async(std::launch::async, some, rows.size() * k / parts, rows.size() * (k + 1) / parts));
  std::exception_ptr first;
  const auto keep_first = [&first](const auto& work) {
    try {
      work();
    } catch (...) {
      if (!first) first = std::current_exception();
    }
  };
  keep_first([&] { some(0, rows.size() / parts); });
  for (auto& share : shares) keep_first([&] { share.get(); });
  if (first) std::rethrow_exception(first);
}

} // namespace

struct BuildFile::Database {
  explicit Database(const std::string& path, int flags) : opened(path), db(path, flags, 100) {
    db.exec("PRAGMA synchronous = FULL");
  }

  /// Keeps every other window from writing until this one closes.
  void hold() {
    const WritersTurn turn(opened); // what a killed writer left half done is put right here
    db.exec("PRAGMA locking_mode = EXCLUSIVE");
    db.exec("BEGIN EXCLUSIVE");
    db.exec("COMMIT");
  }

  void make_tables() {
    db.exec("CREATE TABLE records(id INTEGER PRIMARY KEY, kind TEXT NOT NULL, body TEXT NOT NULL)");
    db.exec(
        "CREATE TABLE changes(seq INTEGER PRIMARY KEY AUTOINCREMENT, at TEXT NOT NULL, label TEXT NOT NULL, "
        "rows TEXT NOT NULL, state INTEGER NOT NULL)");
    db.exec("CREATE INDEX changes_by_state ON changes(state, seq)");
    db.exec("CREATE TABLE metadata(key TEXT PRIMARY KEY, value TEXT NOT NULL)");
    db.exec(fmt::format("PRAGMA application_id = {}", build_application_id));
    db.exec(fmt::format("PRAGMA user_version = {}", build_format_version));
    db.exec(fmt::format("INSERT INTO metadata VALUES('format_version', '{}')", build_format_version));
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

  void write_log(const std::string& at, const std::string& label, const std::string& rows, State state) {
    SQLite::Statement log(db, "INSERT INTO changes(at, label, rows, state) VALUES(?, ?, ?, ?)");
    log.bind(1, at);
    log.bind(2, label);
    log.bind(3, rows);
    log.bind(4, state);
    log.exec();
  }

  void write_next_id(build::Id id) {
    SQLite::Statement put(db,
                          "INSERT INTO metadata VALUES('next_id', ?) ON CONFLICT(key) DO UPDATE SET value = "
                          "excluded.value");
    put.bind(1, std::to_string(id));
    put.exec();
  }

  OpenedFile opened; ///< closed last
  mutable SQLite::Database db;
};

BuildFile::BuildFile(std::string path, std::unique_ptr<Database> database)
    : path_(std::move(path)), database_(std::move(database)) {}
BuildFile::~BuildFile() = default;
BuildFile::BuildFile(BuildFile&&) noexcept = default;
BuildFile& BuildFile::operator=(BuildFile&&) noexcept = default;

std::optional<BuildFile> BuildFile::create(const std::string& path, const std::string& name,
                                           FileOutcome& outcome) {
  Build build;
  auto info = build.info();
  info.name = name;
  build.load(Build::info_id, info);
  return create(path, build, {}, outcome);
}

std::optional<BuildFile> BuildFile::create(const std::string& path, const Build& build,
                                           const std::vector<LogLine>& log, FileOutcome& outcome) {
  std::error_code error;
  if (std::filesystem::exists(path, error)) {
    outcome = {FileStatus::refused,
               fmt::format("{} is there already; open it, or choose another name", path)};
    return std::nullopt;
  }
  const std::string part = fmt::format("{}.new-{}", path, ::getpid());
  try {
    std::filesystem::remove(part, error);
    {
      Database database(part, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
      SQLite::Transaction transaction(database.db);
      database.make_tables();
      std::vector<build::Change> rows;
      rows.reserve(build.records().size());
      for (const auto& [id, record] : build.records()) rows.push_back({id, std::nullopt, record});
      database.write_rows(rows);
      database.write_next_id(build.next_id());
      for (const auto& line : log)
        database.write_log(line.at, line.label, "[]", line.undone ? superseded : elsewhere);
      transaction.commit();
    }
    std::filesystem::rename(part, path);
    auto database = std::make_unique<Database>(path, SQLite::OPEN_READWRITE);
    database->hold();
    BuildFile file(path, std::move(database));
    file.build_ = build;
    outcome = {};
    return file;
  } catch (const std::exception& error_text) {
    std::filesystem::remove(part, error);
    outcome = {FileStatus::refused,
               fmt::format("{} could not be made: {}; check the folder and the space on the disk", path,
                           error_text.what())};
    return std::nullopt;
  }
}

void BuildFile::load(bool skip_unknown) {
  auto& db = database_->db;
  std::vector<Row> read;
  SQLite::Statement rows(db, "SELECT id, kind, body FROM records ORDER BY id");
  while (rows.executeStep())
    read.push_back(
        {rows.getColumn(0).getInt64(), rows.getColumn(1).getString(), rows.getColumn(2).getString(), {}});
  understand(read, skip_unknown);
  for (auto& row : read)
    if (row.record) build_.load(row.id, std::move(*row.record));
  SQLite::Statement next(db, "SELECT value FROM metadata WHERE key = 'next_id'");
  if (next.executeStep()) {
    const auto id = whole_from(next.getColumn(0).getString());
    if (!id) throw std::runtime_error("the number for the next record is none");
    build_.reserve(*id);
  }
}

std::optional<BuildFile> BuildFile::open_for_reading(const std::string& path, FileStatus status,
                                                     const std::string& why, FileOutcome& outcome) {
  try {
    const WorkingCopy copy(path); // the database stays usable when the copy's name is gone
    BuildFile file(path, std::make_unique<Database>(copy.path(), SQLite::OPEN_READWRITE));
    file.database_->hold();
    file.load(true);
    file.read_only_ = fmt::format("{} {}; it is open for reading only", path, why);
    outcome = {status, file.read_only_};
    return file;
  } catch (const std::exception& error) {
    outcome = {status, fmt::format("{} {}, and cannot be read here ({}); nothing was written to it", path,
                                   why, error.what())};
    return std::nullopt;
  }
}

std::optional<BuildFile> BuildFile::open_recovered(const std::string& path, const std::string& why,
                                                   FileOutcome& outcome) {
  RecoveredBuild recovered;
  try {
    const WorkingCopy copy(path);
    recovered = recover_build(copy.path());
  } catch (const std::exception& error) {
    recovered.message = error.what();
  }
  if (recovered.records == 0) {
    outcome = {
        FileStatus::not_a_build,
        fmt::format("{} is not a Datrin build that can be read ({}); nothing was written to it", path, why)};
    return std::nullopt;
  }
  const auto beside = free_path_beside(path, "recovered");
  auto file = create(beside, recovered.build, recovered.log, outcome);
  if (!file) return std::nullopt;
  outcome = {FileStatus::damaged,
             fmt::format("{} is damaged ({}) and was left as it is; {} of its records could be read and are "
                         "now in {}",
                         path, why, recovered.records, beside)};
  return file;
}

std::optional<BuildFile> BuildFile::open(const std::string& path, FileOutcome& outcome) {
  std::error_code error;
  if (!std::filesystem::exists(path, error)) {
    outcome = {FileStatus::not_there, fmt::format("{} is not there", path)};
    return std::nullopt;
  }
  const auto not_a_build = [&](const std::string& what) {
    outcome = {FileStatus::not_a_build,
               fmt::format("{} is not a Datrin build{}; nothing was written to it", path, what)};
    return std::nullopt;
  };
  if (std::filesystem::is_directory(path, error)) return not_a_build(", it is a folder");
  const auto header = read_build_header(path);
  if (!header.database) return not_a_build(header.size == 0 ? ", it is empty" : "");
  if (header.application_id != build_application_id) return not_a_build(", but another program's database");
  if (header.user_version > build_format_version)
    return open_for_reading(path, FileStatus::newer,
                            fmt::format("was written by a newer version of Datrin (format {}, this one reads "
                                        "up to {})",
                                        header.user_version, build_format_version),
                            outcome);
  if (!may_write(path) || !may_write(std::filesystem::absolute(path, error).parent_path().string()))
    return open_for_reading(path, FileStatus::read_only, "may not be written to", outcome);
  // With a journal beside it a file may be short because its writer was killed in the middle: then SQLite
  // puts it right from the journal, and what is wrong all the same shows in the check below.
  if (header.cut_short() && !std::filesystem::exists(path + "-journal", error))
    return open_recovered(
        path, fmt::format("cut short: {} of {} bytes are there", header.size, header.stated_size), outcome);
  try {
    BuildFile file(path, std::make_unique<Database>(path, SQLite::OPEN_READWRITE));
    file.database_->hold();
    if (const std::string check = file.database_->db.execAndGet("PRAGMA quick_check(1)").getString();
        check != "ok")
      throw std::runtime_error(check);
    file.load(false);
    if (header.user_version < build_format_version)
      file.database_->db.exec(fmt::format(
          "PRAGMA user_version = {0}; UPDATE metadata SET value = '{0}' WHERE key = 'format_version'",
          build_format_version));
    outcome = {};
    return file;
  } catch (const SQLite::Exception& why) {
    if (why.getErrorCode() == SQLITE_BUSY)
      return open_for_reading(path, FileStatus::held, "is open in another window", outcome);
    return open_recovered(path, why.what(), outcome);
  } catch (const std::exception& why) {
    return open_recovered(path, why.what(), outcome);
  }
}

FileOutcome BuildFile::stay_with_file() {
  if (database_->opened.is_at(path_)) return {};
  std::error_code error;
  const auto* what =
      std::filesystem::exists(path_, error) ? "was replaced by another file" : "was taken away";
  const auto old = path_;
  std::string why;
  std::vector<std::string> places{path_};
  const auto name = std::filesystem::path(path_).filename().string();
  if (const char* home = std::getenv("HOME")) places.push_back((std::filesystem::path(home) / name).string());
  places.push_back((std::filesystem::temp_directory_path(error) / name).string());
  for (const auto& place : places) {
    const auto beside = free_path_beside(place, "kept");
    try {
      {
        SQLite::Database copy(beside, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
        SQLite::Backup(copy, database_->db).executeStep(-1);
      }
      auto database = std::make_unique<Database>(beside, SQLite::OPEN_READWRITE);
      database->hold();
      database_ = std::move(database);
      path_ = beside;
      return {FileStatus::moved,
              fmt::format("{} {} while it was open; everything is kept, and work goes on in {}", old, what,
                          beside)};
    } catch (const std::exception& wrong) {
      why = wrong.what();
      std::filesystem::remove(beside, error);
    }
  }
  return {FileStatus::refused,
          fmt::format(
              "{} {} while it was open, and no copy could be made ({}); nothing was done. Export the build "
              "before the window is closed",
              old, what, why)};
}

FileOutcome BuildFile::apply(const Edit& edit) {
  if (edit.empty()) return {};
  if (!read_only_.empty())
    return {FileStatus::read_only, fmt::format("{}; \"{}\" was not done", read_only_, edit.label)};
  if (const auto wrong = build::edit_wrong(build_, edit); !wrong.empty())
    return {FileStatus::refused, fmt::format("\"{}\" was not done. {}", edit.label, wrong)};
  auto stayed = stay_with_file();
  if (!stayed.ok()) return stayed;
  // In memory first, without a copy of the whole; taken back there should the disk refuse.
  if (!build_.apply(edit)) return {FileStatus::refused, "the build has changed meanwhile; nothing was done"};
  try {
    auto& db = database_->db;
    const WritersTurn turn(database_->opened);
    SQLite::Transaction transaction(db);
    database_->write_rows(edit.changes);
    SQLite::Statement supersede(db, "UPDATE changes SET state = ? WHERE state = ?");
    supersede.bind(1, superseded);
    supersede.bind(2, undone);
    supersede.exec();
    database_->write_log(build::utc_now(), edit.label, changes_json(edit.changes).dump(), done);
    database_->write_next_id(build_.next_id());
    transaction.commit();
  } catch (const std::exception& error) {
    build_.apply(reversed(edit));
    return {FileStatus::refused, fmt::format("\"{}\" could not be kept in {}: {}; nothing was changed",
                                             edit.label, path_, error.what())};
  }
  return stayed;
}

namespace {

constexpr const char* newest_done =
    "SELECT seq, label, rows FROM changes WHERE state = 0 ORDER BY seq DESC LIMIT 1";
constexpr const char* oldest_undone =
    "SELECT seq, label, rows FROM changes WHERE state = 1 ORDER BY seq ASC LIMIT 1";

} // namespace

std::optional<std::string> BuildFile::undo_label() const {
  if (!read_only_.empty()) return std::nullopt;
  SQLite::Statement newest(database_->db, newest_done);
  if (!newest.executeStep()) return std::nullopt;
  return newest.getColumn(1).getString();
}

std::optional<std::string> BuildFile::redo_label() const {
  if (!read_only_.empty()) return std::nullopt;
  SQLite::Statement oldest(database_->db, oldest_undone);
  if (!oldest.executeStep()) return std::nullopt;
  return oldest.getColumn(1).getString();
}

FileOutcome BuildFile::step_back_or_forth(bool back) {
  Edit taken;
  if (!read_only_.empty()) return {FileStatus::read_only, read_only_};
  auto stayed = stay_with_file();
  if (!stayed.ok()) return stayed;
  try {
    auto& db = database_->db;
    const WritersTurn turn(database_->opened);
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
    return stayed;
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
                     rows.getColumn(2).getString(), is_undone(rows.getColumn(3).getInt())});
  return lines;
}

} // namespace datrin::store
