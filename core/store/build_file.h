#pragma once
// A build on disk: one SQLite database. Each edit is one transaction, written through to the disk before it
// counts as done; undo and redo live in the same file and so reach back across restarts.
//
//   records(id, kind, body, sum)          the build as it stands, one JSON body a record
//   changes(seq, at, label, rows, state, sum)  every edit in order: rows before and after; done, undone,
//                                         superseded, or done in the file this one was made from
//   metadata(key, value)                  format_version, next_id; "beside …": texts that say nothing of the
//                                         build itself
//
// One window at a time writes to a file: it holds SQLite's exclusive lock as long as it is open. Nothing is
// written before the first edit: a file of an earlier format stays one until then.

#include "build/build.h"

#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace SQLite {
class Database;
}

namespace datrin::store {

class BuildDatabase;
class KeptCopy;

enum class FileStatus {
  ok,
  moved, ///< done; the file was taken away, replaced or overwritten meanwhile, and work goes on in a copy:
         ///< BuildFile::path
  not_there,
  unreadable,  ///< it may not be read, or is no file
  not_a_build, ///< the file is something else, or nothing in it can be read
  damaged, ///< cut short, spoilt or tampered with; what could be read was put in a file beside it, or, where
           ///< nothing may be written, is open for reading
  newer,   ///< written by a later version; opened for reading as far as this one understands it
  held,    ///< another window has it open; opened for reading
  read_only, ///< may not be written to; opened for reading
  refused    ///< the disk or the database said no; the message says what
};

struct FileOutcome {
  FileStatus status = FileStatus::ok;
  std::string message; ///< for people: what, where, what to do; empty when there is nothing to say
  bool ok() const { return status == FileStatus::ok || status == FileStatus::moved; }
};

/// What a file is opened for.
enum class Opening {
  work,   ///< to be edited: other windows then find it held
  reading ///< to be looked at only: nothing is held, nothing made beside it, also of a damaged one
};

/// One line of the log.
struct LogLine {
  std::int64_t seq = 0;
  std::string at; ///< UTC, ISO 8601
  std::string label;
  bool undone = false;
  bool operator==(const LogLine&) const = default;
};

class BuildFile {
public:
  ~BuildFile();
  BuildFile(BuildFile&&) noexcept;
  BuildFile& operator=(BuildFile&&) noexcept;

  /// Makes a new build file; refused when there is a file already. The file appears whole or not at all.
  static std::optional<BuildFile> create(const std::string& path, const std::string& name,
                                         FileOutcome& outcome);

  /// The same, holding `build` and the lines of a log (oldest first; they cannot be undone).
  static std::optional<BuildFile> create(const std::string& path, const build::Build& build,
                                         const std::vector<LogLine>& log, FileOutcome& outcome);

  /// Opens one. Whatever is wrong with the file, it is not written over: a build comes back whenever anything
  /// can be read, and `outcome` says what was found. One that is held, newer or read-only comes back for
  /// reading (`read_only`); of a damaged one, what can be read is put in a new file beside it and that is
  /// opened. Whole is only what keeps every rule: tables exactly a build's, every record with its checksum,
  /// all that records need there.
  static std::optional<BuildFile> open(const std::string& path, FileOutcome& outcome,
                                       Opening opening = Opening::work);

  const std::string& path() const { return path_; } ///< of a damaged file: of the new one beside it
  const build::Build& build() const { return build_; }

  /// Why nothing can be changed; empty when it can.
  const std::string& read_only() const { return read_only_; }

  /// Carries out `edit` in memory and on disk, or neither. An empty edit does nothing. Where the file is no
  /// longer what its path names, or another program wrote into it, it goes on in a copy beside it, with the
  /// whole log and undo: `moved`.
  FileOutcome apply(const build::Edit& edit);

  /// The same look without an edit, for now and then and before it is closed: what was done is then in a
  /// copy, should the file have been overwritten. Nothing for one that was not edited since it was opened.
  FileOutcome look_after();

  /// What undo or redo would take back or bring back; nothing when there is none.
  std::optional<std::string> undo_label() const;
  std::optional<std::string> redo_label() const;
  FileOutcome undo();
  FileOutcome redo();

  /// The newest lines of the log, newest first.
  std::vector<LogLine> log(int most) const;

  /// A text kept beside the records that says nothing of the build itself (how its parts were last drawn);
  /// empty: there is none.
  std::string beside(const std::string& name) const;
  /// Keeps one; only in a file that was edited since it was opened, as nothing is written to one that is only
  /// looked at. Whether it is there now; where the disk refuses, nobody is the worse for it.
  bool keep_beside(const std::string& name, const std::string& text);

private:
  BuildFile(std::string path, std::unique_ptr<BuildDatabase> database);
  FileOutcome step_back_or_forth(bool back);
  FileOutcome stay_with_file();
  void keep_copy();
  void follow(const std::function<void(BuildDatabase&)>& write);
  SQLite::Database& kept() const;
  void load();
  void load_newer();
  static std::optional<BuildFile> open_newer(const std::string& path, const std::string& why,
                                             FileOutcome& outcome);
  static std::optional<BuildFile> open_copy(const std::string& path, FileStatus status,
                                            const std::string& why, FileOutcome& outcome);
  static std::optional<BuildFile> open_recovered(const std::string& path, const std::string& why,
                                                 const std::string& not_beside, FileOutcome& outcome);

  std::string path_;
  std::unique_ptr<BuildDatabase> database_;
  std::unique_ptr<KeptCopy> copy_; ///< null: it is open for reading only, or there was no room
  build::Build build_;
  std::string read_only_;
  bool edited_ = false; ///< since it was opened
};

} // namespace datrin::store
