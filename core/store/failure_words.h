#pragma once
// Why something failed, in this program's words: what a library says of itself ("database disk image is
// malformed", "std::bad_alloc") helps nobody at the bench.

#include <exception>
#include <string>

namespace datrin::store {

/// Of an exception caught from the database, the JSON reader, the file system or this program itself; without
/// a full stop.
std::string failure_words(const std::exception& error);

/// Of a result code of the database (sqlite3.h), extended or not.
std::string database_words(int code);

} // namespace datrin::store
