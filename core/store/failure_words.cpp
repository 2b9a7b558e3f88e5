#include "store/failure_words.h"

#include "store/system_error.h"

#include <SQLiteCpp/Exception.h>
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <sqlite3.h>

#include <new>

namespace datrin::store {

std::string database_words(int code) {
  switch (code & 0xff) {
  case SQLITE_CORRUPT:
  case SQLITE_FORMAT:
    return "its pages do not fit together";
  case SQLITE_NOTADB:
    return "it does not begin as a build does";
  case SQLITE_FULL:
    return "the disk is full";
  case SQLITE_IOERR:
    return "the disk could not be read or written";
  case SQLITE_CANTOPEN:
    return "it could not be opened";
  case SQLITE_READONLY:
  case SQLITE_PERM:
  case SQLITE_AUTH:
    return "it may not be written to";
  case SQLITE_BUSY:
  case SQLITE_LOCKED:
    return "another program has it open";
  case SQLITE_TOOBIG:
    return "one of its records is larger than 256 MiB";
  case SQLITE_NOMEM:
    return "there is not enough memory";
  case SQLITE_INTERRUPT:
    return "reading it does not come to an end";
  case SQLITE_ERROR:
  case SQLITE_SCHEMA:
    return "its tables are not those of a build";
  case SQLITE_CONSTRAINT:
  case SQLITE_MISMATCH:
    return "one of its rows is not as it must be";
  default:
    return fmt::format("the database refused it, error {}", code);
  }
}

std::string failure_words(const std::exception& error) {
  if (const auto* database = dynamic_cast<const SQLite::Exception*>(&error))
    return database_words(database->getErrorCode());
  if (const auto* system = dynamic_cast<const std::system_error*>(&error))
    return system_words(system->code());
  if (dynamic_cast<const std::bad_alloc*>(&error) != nullptr) return "there is not enough memory";
  if (dynamic_cast<const nlohmann::json::exception*>(&error) != nullptr) return "it is not well-formed JSON";
  return error.what();
}

} // namespace datrin::store
