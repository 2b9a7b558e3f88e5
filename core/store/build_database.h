#pragma once
// The database in a build file: its tables, its rows, and the guard at it. Any file may be handed to it, also
// one made to harm: nothing stored in a file is carried out (no view, no trigger, no function), nothing in it
// may be larger than `largest_file`, no search goes on without end, and before a row is taken for one of a
// build the tables must be exactly a build's.

#include "build/build.h"
#include "store/opened_file.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <cstdint>
#include <string>
#include <string_view>

namespace datrin::store {

/// How a line of the log stands.
enum ChangeState : int {
  change_done = 0,
  change_undone = 1,
  change_superseded = 2, ///< undone, and then something else was done
  change_elsewhere = 3   ///< done, in the file this one was made from
};

/// From this format version on each record and each line of the log has a checksum.
inline constexpr std::uint32_t first_with_sums = 6;

/// CRC-32 (RFC 1952, section 8) over what makes a record: id (eight bytes, least first), kind, a zero, body.
std::int64_t record_sum(std::int64_t id, std::string_view kind, std::string_view body);

/// The same over number, time, label and rows of a line of the log, times four, plus its state.
std::int64_t change_sum(std::int64_t seq, std::string_view at, std::string_view label, std::string_view rows,
                        int state);

/// The path as the database takes it: a file, whatever it is called (":memory:", "file:x"); empty: one
/// without a name.
std::string database_path(const std::string& path);

class BuildDatabase {
public:
  enum class For {
    work,
    recovery ///< reads files whose end is missing; give it a copy
  };

  /// Throws SQLite::Exception when there is none or it cannot be opened; `flags` as SQLite::Database has
  /// them.
  BuildDatabase(const std::string& path, int flags, For purpose = For::work);

  /// Keeps every other window from writing until this one closes. Puts right what a killed writer left half
  /// done; writes nothing else.
  void hold();

  /// Makes the tables of a new build, of today's format.
  void make_tables();

  /// Throws std::runtime_error, in words, unless the pages fit together and the tables are exactly those of a
  /// build of the version it states.
  void check();

  /// While it lives, a search that goes on out of all proportion to the file ends with SQLITE_INTERRUPT.
  class Bound {
  public:
    explicit Bound(BuildDatabase& database);
    ~Bound();
    Bound(const Bound&) = delete;
    Bound& operator=(const Bound&) = delete;

  private:
    static int step(void* bound);
    sqlite3* handle_;
    std::int64_t left_;
  };

  std::uint32_t version(); ///< of the format, as the file states it

  /// Brings a file of an earlier format up to today's, inside the caller's transaction; nothing for one that
  /// is.
  void bring_up_to_date();

  void write_rows(const std::vector<build::Change>& changes);
  void write_log(const std::string& at, const std::string& label, const std::string& rows, ChangeState state);
  void write_next_id(build::Id id);

  /// Lines that stand as `from` stand as `to` from now on: all, or the one numbered `seq`.
  void change_state(ChangeState from, ChangeState to);
  void change_state(std::int64_t seq, ChangeState to);

  OpenedFile opened; ///< closed last
  mutable SQLite::Database db;

private:
  void write_sums();
};

} // namespace datrin::store
