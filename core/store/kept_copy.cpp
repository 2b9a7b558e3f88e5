#include "store/kept_copy.h"

#include <SQLiteCpp/Backup.h>
#include <sqlite3.h>

#include <algorithm>

namespace datrin::store {

namespace {

/// A file without a name, in memory as far as there is room, then on the disk: gone with whoever opened it.
constexpr const char* nameless = "";

bool same_rows(SQLite::Database& a, SQLite::Database& b, const char* rows) {
  SQLite::Statement one(a, rows), other(b, rows);
  for (;;) {
    const bool more = one.executeStep();
    if (other.executeStep() != more) return false;
    if (!more) return true;
    for (int k = 0; k < one.getColumnCount(); ++k)
      if (one.getColumn(k).getString() != other.getColumn(k).getString()) return false;
  }
}

} // namespace

KeptCopy::KeptCopy(const BuildDatabase& of)
    : copy_(nameless, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE), stamp_(stamp_of(of)) {
  SQLite::Backup(copy_.db, of.db).executeStep(-1);
}

bool KeptCopy::is_as_left(const BuildDatabase& file) const {
  return stamp_of(file) == stamp_;
}

bool KeptCopy::holds_the_same(const BuildDatabase& file) const {
  // Read through the opening there is: to close another would let go of the locks on it.
  const auto bytes = file.opened.bytes();
  if (bytes.empty()) return false;
  try {
    SQLite::Database there(":memory:", SQLite::OPEN_READWRITE);
    auto* taken = static_cast<unsigned char*>(sqlite3_malloc64(bytes.size()));
    if (!taken) return false;
    std::copy(bytes.begin(), bytes.end(), taken);
    const auto size = static_cast<sqlite3_int64>(bytes.size());
    if (sqlite3_deserialize(there.getHandle(), "main", taken, size, size,
                            SQLITE_DESERIALIZE_FREEONCLOSE | SQLITE_DESERIALIZE_READONLY) != SQLITE_OK)
      return false;
    return there.execAndGet("PRAGMA quick_check(1)").getString() == "ok" &&
           same_rows(copy_.db, there, "SELECT key, value FROM metadata ORDER BY key") &&
           same_rows(copy_.db, there, "SELECT id, kind, body FROM records ORDER BY id") &&
           same_rows(copy_.db, there, "SELECT seq, at, label, rows, state FROM changes ORDER BY seq");
  } catch (const SQLite::Exception&) {
    return false;
  }
}

void KeptCopy::follow(const BuildDatabase& file, const std::function<void(BuildDatabase&)>& what) {
  left(file);
  SQLite::Transaction transaction(copy_.db);
  what(copy_);
  transaction.commit();
}

} // namespace datrin::store
