#pragma once
// One opening of a file, kept as long as the database in it: whether its path still names it, and turns at it
// between windows.

#include <cstdint>
#include <string>

namespace datrin::store {

/// How a file looks from outside. The counter is the database's own: each commit adds to it.
struct FileStamp {
  std::int64_t size = -1, seconds = 0, nanoseconds = 0;
  std::uint32_t changes = 0;
  bool operator==(const FileStamp&) const = default;
};

/// Closing any opening of a file lets go of the process's locks on it: declare it so that it goes last.
class OpenedFile {
public:
  explicit OpenedFile(const std::string& path);
  ~OpenedFile();
  OpenedFile(const OpenedFile&) = delete;
  OpenedFile& operator=(const OpenedFile&) = delete;

  /// Whether `path` names this very file.
  bool is_at(const std::string& path) const;

  FileStamp stamp() const;
  std::string bytes() const; ///< all of it; empty: it cannot be read

  /// A turn at the file, beside the database's own locks: a writer's for one transaction, a copier's for one
  /// copy. False when none came within two seconds, or the disk knows no such locks.
  bool lock_to_write() const;
  bool lock_to_copy() const;
  void unlock() const;

private:
  bool lock(int how) const;
  int file_;
};

/// A writer's turn, as long as this lives. Where there is none to be had it writes all the same: a copier
/// then looks whether anything moved (store/working_copy.h).
class WritersTurn {
public:
  explicit WritersTurn(const OpenedFile& file) : file_(file), mine_(file.lock_to_write()) {}
  ~WritersTurn() {
    if (mine_) file_.unlock();
  }
  WritersTurn(const WritersTurn&) = delete;
  WritersTurn& operator=(const WritersTurn&) = delete;

private:
  const OpenedFile& file_;
  bool mine_;
};

} // namespace datrin::store
