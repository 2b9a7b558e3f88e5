#pragma once
// A build on disk: one SQLite database. Each edit is one transaction, written through to the disk before it
// counts as done; undo and redo live in the same file and so reach back across restarts.
//
//   records(id, kind, body)           the build as it stands, one JSON body a record
//   changes(seq, at, label, rows, state)  every edit in order: rows before and after; done, undone or
//   superseded metadata(key, value)              format_version, next_id

#include "build/build.h"

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace datrin::store {

enum class FileStatus {
  ok,
  not_there,
  not_a_build, ///< the file is something else, or cut short
  newer,       ///< written by a later version of the program
  refused      ///< the disk or the database said no; the message says what
};

struct FileOutcome {
  FileStatus status = FileStatus::ok;
  std::string message; ///< for people: what, where, what to do; empty when ok
  bool ok() const { return status == FileStatus::ok; }
};

/// One line of the log.
struct LogLine {
  std::int64_t seq = 0;
  std::string at; ///< UTC, ISO 8601
  std::string label;
  bool undone = false;
};

class BuildFile {
public:
  ~BuildFile();
  BuildFile(BuildFile&&) noexcept;
  BuildFile& operator=(BuildFile&&) noexcept;

  /// Makes a new build file; refused when there is a file already.
  static std::optional<BuildFile> create(const std::string& path, const std::string& name,
                                         FileOutcome& outcome);

  /// Opens one. A file that is not a build, or from a newer version, is not written to.
  static std::optional<BuildFile> open(const std::string& path, FileOutcome& outcome);

  const std::string& path() const { return path_; }
  const build::Build& build() const { return build_; }

  /// Carries out `edit` in memory and on disk, or neither. An empty edit does nothing.
  FileOutcome apply(const build::Edit& edit);

  /// What undo or redo would take back or bring back; nothing when there is none.
  std::optional<std::string> undo_label() const;
  std::optional<std::string> redo_label() const;
  FileOutcome undo();
  FileOutcome redo();

  /// The newest lines of the log, newest first.
  std::vector<LogLine> log(int most) const;

private:
  struct Database;
  BuildFile(std::string path, std::unique_ptr<Database> database);
  FileOutcome step_back_or_forth(bool back);

  std::string path_;
  std::unique_ptr<Database> database_;
  build::Build build_;
};

} // namespace datrin::store
