#include "store/build_file.h"

#include "build/check.h"
#include "build/now.h"
#include "quantity/text.h"
#include "store/build_database.h"
#include "store/failure_words.h"
#include "store/free_path.h"
#include "store/json_reader.h"
#include "store/kept_copy.h"
#include "store/record_json.h"

#include <SQLiteCpp/Backup.h>
#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <cstdlib>
#include <exception>
#include <filesystem>

#include <unistd.h>

namespace datrin::store {

using build::Build;
using build::Edit;
using nlohmann::json;

BuildFile::BuildFile(std::string path, std::unique_ptr<BuildDatabase> database)
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
  // A link is something too, also one that leads nowhere: it would be replaced.
  if (std::filesystem::exists(std::filesystem::symlink_status(path, error))) {
    outcome = {FileStatus::refused,
               fmt::format("{} is there already; open it, or choose another name", path)};
    return std::nullopt;
  }
  const std::string part = fmt::format("{}.new-{}", path, ::getpid());
  try {
    std::filesystem::remove(part, error);
    {
      BuildDatabase database(part, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
      SQLite::Transaction transaction(database.db);
      database.make_tables();
      std::vector<build::Change> rows;
      rows.reserve(build.records().size());
      for (const auto& [id, record] : build.records()) rows.push_back({id, std::nullopt, record});
      database.write_rows(rows);
      database.write_next_id(build.next_id());
      for (const auto& line : log)
        database.write_log(as_utf8(line.at), as_utf8(line.label), "[]",
                           line.undone ? change_superseded : change_elsewhere);
      transaction.commit();
    }
    std::filesystem::rename(part, path);
    auto database = std::make_unique<BuildDatabase>(path, SQLite::OPEN_READWRITE);
    database->hold();
    BuildFile file(path, std::move(database));
    file.build_ = build;
    file.keep_copy();
    outcome = {};
    return file;
  } catch (const std::exception& error_text) {
    std::filesystem::remove(part, error);
    outcome = {FileStatus::refused,
               fmt::format("{} could not be made: {}; check the folder and the space on the disk", path,
                           failure_words(error_text))};
    return std::nullopt;
  }
}

void BuildFile::keep_copy() {
  try {
    copy_ = std::make_unique<KeptCopy>(*database_);
  } catch (const std::exception&) {
    copy_.reset(); // no room: the file itself is all there is
  }
}

/// What undo, log and copies are read from: nobody else writes there.
SQLite::Database& BuildFile::kept() const {
  return copy_ ? copy_->database().db : database_->db;
}

FileOutcome BuildFile::look_after() {
  return edited_ && read_only_.empty() ? stay_with_file() : FileOutcome{};
}

FileOutcome BuildFile::stay_with_file() {
  const bool is_there = database_->opened.is_at(path_);
  if (is_there && (!copy_ || copy_->is_as_left(*database_))) return {};
  if (is_there && copy_->holds_the_same(*database_)) {
    // Touched only. Its pages may lie in another order, though: it is read anew.
    try {
      database_.reset();
      database_ = std::make_unique<BuildDatabase>(path_, SQLite::OPEN_READWRITE);
      database_->hold();
      copy_->left(*database_);
      return {};
    } catch (const std::exception&) { // held by whoever wrote it: as if it were another's
      database_ = std::make_unique<BuildDatabase>("", SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    }
  }
  std::error_code error;
  const auto* what = is_there                                ? "was overwritten by another program"
                     : std::filesystem::exists(path_, error) ? "was replaced by another file"
                                                             : "was taken away";
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
        SQLite::Database copy(database_path(beside), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
        SQLite::Backup(copy, kept()).executeStep(-1);
      }
      auto database = std::make_unique<BuildDatabase>(beside, SQLite::OPEN_READWRITE);
      database->hold();
      database_ = std::move(database);
      path_ = beside;
      if (copy_) copy_->left(*database_);
      return {FileStatus::moved,
              fmt::format("{} {} while it was open; everything is kept, and work goes on in {}", old, what,
                          beside)};
    } catch (const std::exception& wrong) {
      why = failure_words(wrong);
      std::filesystem::remove(beside, error);
    }
  }
  return {FileStatus::refused,
          fmt::format(
              "{} {} while it was open, and no copy could be made ({}); nothing was done. Export the build "
              "before the window is closed",
              old, what, why)};
}

/// After a commit: the copy does the same. One that cannot is worth nothing any more.
void BuildFile::follow(const std::function<void(BuildDatabase&)>& write) {
  if (!copy_) return;
  try {
    copy_->follow(*database_, write);
  } catch (const std::exception&) {
    copy_.reset();
  }
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
    const auto write = [&, at = build::utc_now(),
                        rows = changes_json(edit.changes).dump()](BuildDatabase& database) {
      database.bring_up_to_date();
      database.write_rows(edit.changes);
      database.change_state(change_undone, change_superseded);
      database.write_log(at, edit.label, rows, change_done);
      database.write_next_id(build_.next_id());
    };
    const WritersTurn turn(database_->opened);
    SQLite::Transaction transaction(db);
    write(*database_);
    transaction.commit();
    edited_ = true;
    follow(write);
  } catch (const std::exception& error) {
    build_.apply(reversed(edit));
    return {FileStatus::refused, fmt::format("\"{}\" could not be kept in {}: {}; nothing was changed",
                                             edit.label, path_, failure_words(error))};
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
  SQLite::Statement newest(kept(), newest_done);
  if (!newest.executeStep()) return std::nullopt;
  return newest.getColumn(1).getString();
}

std::optional<std::string> BuildFile::redo_label() const {
  if (!read_only_.empty()) return std::nullopt;
  SQLite::Statement oldest(kept(), oldest_undone);
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
    SQLite::Statement step(kept(), back ? newest_done : oldest_undone);
    if (!step.executeStep())
      return {FileStatus::refused, back ? "there is nothing to undo" : "there is nothing to redo"};
    const auto seq = step.getColumn(0).getInt64();
    Edit edit{step.getColumn(1).getString(), changes_from_json(parse_stored(step.getColumn(2).getString()))};
    step.reset();
    if (back) edit = reversed(edit);
    if (const auto wrong = build::edit_wrong(build_, edit); !wrong.empty())
      return {FileStatus::refused,
              fmt::format("\"{}\" does not fit the build as it stands ({}); nothing was done",
                          one_line(edit.label), wrong)};
    if (!build_.apply(edit))
      return {FileStatus::refused, fmt::format("\"{}\" does not fit the build as it stands; nothing was done",
                                               one_line(edit.label))};
    taken = edit;
    const auto write = [&](BuildDatabase& database) {
      database.bring_up_to_date();
      database.write_rows(edit.changes);
      database.change_state(seq, back ? change_undone : change_done);
    };
    write(*database_);
    transaction.commit();
    edited_ = true;
    follow(write);
    return stayed;
  } catch (const std::exception& error) {
    if (!taken.empty()) build_.apply(reversed(taken));
    return {FileStatus::refused, fmt::format("{}: {}; nothing was changed", path_, failure_words(error))};
  }
}

namespace {

constexpr std::size_t most_beside = 8 << 20; // bytes

std::string beside_key(const std::string& name) {
  return "beside " + name;
}

} // namespace

std::string BuildFile::beside(const std::string& name) const {
  try {
    SQLite::Statement row(kept(), "SELECT value FROM metadata WHERE key = ? AND length(value) <= ?");
    row.bind(1, beside_key(name));
    row.bind(2, static_cast<std::int64_t>(most_beside));
    return row.executeStep() ? row.getColumn(0).getString() : std::string();
  } catch (const std::exception&) {
    return {}; // a file of an earlier kind, or one that cannot be read: it is worked out anew
  }
}

bool BuildFile::keep_beside(const std::string& name, const std::string& text) {
  if (!edited_ || !read_only_.empty() || text.size() > most_beside) return false;
  if (!database_->opened.is_at(path_) || (copy_ && !copy_->is_as_left(*database_)))
    return false; // no longer ours: not worth a copy of the whole
  if (beside(name) == text) return true;
  try {
    const auto write = [&](BuildDatabase& database) {
      SQLite::Statement put(database.db,
                            "INSERT INTO metadata VALUES(?, ?) ON CONFLICT(key) DO UPDATE SET value = "
                            "excluded.value");
      put.bind(1, beside_key(name));
      put.bind(2, text);
      put.exec();
    };
    const WritersTurn turn(database_->opened);
    SQLite::Transaction transaction(database_->db);
    write(*database_);
    transaction.commit();
    follow(write);
    return true;
  } catch (const std::exception&) {
    return false;
  }
}

FileOutcome BuildFile::undo() {
  return step_back_or_forth(true);
}
FileOutcome BuildFile::redo() {
  return step_back_or_forth(false);
}

namespace {

bool is_undone(int state) {
  return state == change_undone || state == change_superseded;
}

} // namespace

std::vector<LogLine> BuildFile::log(int most) const {
  std::vector<LogLine> lines;
  SQLite::Statement rows(kept(), "SELECT seq, at, label, state FROM changes ORDER BY seq DESC LIMIT ?");
  rows.bind(1, most);
  while (rows.executeStep())
    lines.push_back({rows.getColumn(0).getInt64(), as_utf8(rows.getColumn(1).getString()),
                     as_utf8(rows.getColumn(2).getString()), is_undone(rows.getColumn(3).getInt())});
  return lines;
}

} // namespace datrin::store
