// Opening a build file: what it is, whether it is whole, and what is done when it is not.

#include "build/now.h"
#include "build/references.h"
#include "quantity/text.h"
#include "store/build_database.h"
#include "store/build_file.h"
#include "store/build_header.h"
#include "store/build_recovery.h"
#include "store/failure_words.h"
#include "store/free_path.h"
#include "store/json_reader.h"
#include "store/kept_copy.h"
#include "store/record_json.h"
#include "store/temporary_folder.h"
#include "store/working_copy.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <sqlite3.h>

#include <algorithm>
#include <exception>
#include <filesystem>
#include <future>
#include <stdexcept>
#include <thread>

#include <fcntl.h>
#include <unistd.h>

namespace datrin::store {

using build::Build;
using nlohmann::json;

namespace {

/// A row of the table of records.
struct StoredRow {
  build::Id id = 0;
  std::string kind, body;
  std::int64_t sum = 0;
  std::optional<build::Record> record;
};

enum class Rules {
  newer, ///< of a later format: what is not understood is left out
  early, ///< written before there were checksums
  today
};

build::Record understood(const StoredRow& row, Rules rules) {
  if (rules == Rules::today && record_sum(row.id, row.kind, row.body) != row.sum)
    throw std::runtime_error(fmt::format("record {} is not as it was written", row.id));
  try {
    return record_from_json(row.kind, parse_stored(row.body));
  } catch (const std::exception& why) {
    throw std::runtime_error(fmt::format("record {}: {}", row.id, failure_words(why)));
  }
}

/// Makes records of `rows`, on all processors where there are many. Throws for the first that breaks a rule.
void understand(std::vector<StoredRow>& rows, Rules rules) {
  const auto some = [&rows, rules](std::size_t from, std::size_t to) {
    for (std::size_t k = from; k < to; ++k) {
      auto& row = rows[k];
      try {
        row.record = understood(row, rules);
      } catch (const std::exception&) {
        if (rules != Rules::newer) throw;
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

/// Every line of the log is as it was written, and can be shown.
void check_log(SQLite::Database& db, Rules rules) {
  SQLite::Statement line(db, rules == Rules::today
                                 ? "SELECT seq, at, label, state, rows, sum FROM changes ORDER BY seq"
                                 : "SELECT seq, at, label, state FROM changes ORDER BY seq");
  const auto text = [&line](int column) {
    const auto value = line.getColumn(column);
    return std::string_view(value.getText(), static_cast<std::size_t>(value.getBytes()));
  };
  while (line.executeStep()) {
    const auto seq = line.getColumn(0).getInt64();
    const int state = line.getColumn(3).getInt();
    const bool as_written = rules != Rules::today ||
                            change_sum(seq, text(1), text(2), text(4), state) == line.getColumn(5).getInt64();
    if (!as_written || state < change_done || state > change_elsewhere || !is_utf8(text(1)) ||
        !is_utf8(text(2)))
      throw std::runtime_error(fmt::format("line {} of its log is not as it was written", seq));
  }
}

bool may_write(const std::string& path) {
  return ::faccessat(AT_FDCWD, path.c_str(), W_OK, AT_EACCESS) == 0;
}

/// Why nothing can be written to the build at `path`; empty when it can. A link's target decides: the
/// database makes its journal there.
std::string not_writable(const std::string& path) {
  std::error_code error;
  const auto real = std::filesystem::canonical(path, error);
  if (error || !may_write(real.string())) return "may not be written to";
  if (!may_write(real.parent_path().string())) return "is in a folder that may not be written to";
  return {};
}

constexpr const char* only_to_read = "was opened to be read";

std::string open_to_read(const std::string& path, const std::string& why) {
  return fmt::format("{} {}; it is open for reading only", path, why);
}

/// "a, b, c and 12 more".
std::string some_of(const std::vector<std::string>& names) {
  constexpr std::size_t shown = 5;
  std::string text;
  for (std::size_t k = 0; k < std::min(shown, names.size()); ++k) text += (k > 0 ? ", " : "") + names[k];
  return names.size() > shown ? fmt::format("{} and {} more", text, names.size() - shown) : text;
}

} // namespace

void BuildFile::load() {
  auto& db = database_->db;
  const BuildDatabase::Bound bound(*database_);
  database_->check();
  const auto rules = database_->version() < first_with_sums ? Rules::early : Rules::today;
  std::vector<StoredRow> read;
  SQLite::Statement rows(db, rules == Rules::today ? "SELECT id, kind, body, sum FROM records ORDER BY id"
                                                   : "SELECT id, kind, body, 0 FROM records ORDER BY id");
  while (rows.executeStep()) {
    if (read.size() == Build::most_records)
      throw std::runtime_error(fmt::format("it has more than {} records", grouped(Build::most_records)));
    read.push_back({rows.getColumn(0).getInt64(),
                    rows.getColumn(1).getString(),
                    rows.getColumn(2).getString(),
                    rows.getColumn(3).getInt64(),
                    {}});
  }
  understand(read, rules);
  for (const auto& row : read)
    if ((row.id == Build::info_id) != (row.record->as<build::Info>() != nullptr) || row.id <= 0)
      throw std::runtime_error(fmt::format("record {} stands where a {} cannot", row.id, row.kind));
  if (read.empty() || read.front().id != Build::info_id)
    throw std::runtime_error("the record of the build itself is missing");
  for (auto& row : read) build_.load(row.id, std::move(*row.record));
  if (const auto dangling = build::first_dangling(build_); !dangling.empty())
    throw std::runtime_error(dangling);
  check_log(db, rules);
  SQLite::Statement next(db, "SELECT value FROM metadata WHERE key = 'next_id'");
  if (next.executeStep()) {
    const auto id = whole_from(next.getColumn(0).getString());
    if (!id) throw std::runtime_error("the number for the next record is none");
    build_.reserve(*id);
  }
}

void BuildFile::load_newer() {
  const BuildDatabase::Bound bound(*database_);
  std::vector<StoredRow> read;
  SQLite::Statement rows(database_->db, "SELECT id, kind, body FROM records ORDER BY id");
  while (rows.executeStep())
    read.push_back(
        {rows.getColumn(0).getInt64(), rows.getColumn(1).getString(), rows.getColumn(2).getString(), 0, {}});
  understand(read, Rules::newer);
  for (auto& row : read)
    if (row.record && (row.id == Build::info_id) == (row.record->as<build::Info>() != nullptr))
      build_.load(row.id, std::move(*row.record));
  // What needs something this version does not understand cannot be shown.
  for (bool more = true; more;) {
    more = false;
    for (const auto& [id, record] : std::map(build_.records()))
      if (!build::dangling(id, record, [this](build::Id other) -> const build::Record* {
             const auto found = build_.records().find(other);
             return found == build_.records().end() ? nullptr : &found->second;
           }).empty()) {
        (void)build_.apply({{}, {{id, record, std::nullopt}}});
        more = true;
      }
  }
}

std::optional<BuildFile> BuildFile::open_newer(const std::string& path, const std::string& why,
                                               FileOutcome& outcome) {
  try {
    const WorkingCopy copy(path); // the database stays usable when the copy's name is gone
    BuildFile file(path, std::make_unique<BuildDatabase>(copy.path(), SQLite::OPEN_READWRITE));
    file.database_->hold();
    file.load_newer();
    file.read_only_ = open_to_read(path, why);
    outcome = {FileStatus::newer, file.read_only_};
    return file;
  } catch (const std::exception& error) {
    outcome = {FileStatus::newer,
               fmt::format("{} {}, and cannot be read here ({}); nothing was written to it", path, why,
                           failure_words(error))};
    return std::nullopt;
  }
}

std::optional<BuildFile> BuildFile::open_copy(const std::string& path, FileStatus status,
                                              const std::string& why, FileOutcome& outcome) {
  std::string wrong;
  try {
    const WorkingCopy copy(path);
    BuildFile file(path, std::make_unique<BuildDatabase>(copy.path(), SQLite::OPEN_READWRITE));
    file.database_->hold();
    try {
      file.load();
      file.read_only_ = open_to_read(path, why);
      outcome = {status, status == FileStatus::ok ? "" : file.read_only_};
      return file;
    } catch (const std::exception& error) {
      wrong = failure_words(error);
    }
  } catch (const std::exception& error) {
    wrong = failure_words(error);
  }
  return open_recovered(path, wrong, why, outcome);
}

std::optional<BuildFile> BuildFile::open_recovered(const std::string& path, const std::string& why,
                                                   const std::string& not_beside, FileOutcome& outcome) {
  RecoveredBuild recovered;
  try {
    const WorkingCopy copy(path);
    recovered = recover_build(copy.path());
  } catch (const std::exception& error) {
    recovered.message = failure_words(error);
  }
  if (recovered.records == 0) {
    outcome = {
        FileStatus::not_a_build,
        fmt::format("{} is not a Datrin build that can be read ({}); nothing was written to it", path, why)};
    return std::nullopt;
  }
  if (auto info = recovered.build.info(); info.name.empty()) {
    info.name = std::filesystem::path(path).stem().string();
    recovered.build.load(Build::info_id, info);
  }
  std::string found = fmt::format("{} of its records could be read", recovered.records);
  if (!recovered.lost.empty()) found += fmt::format("; lost: {}", some_of(recovered.lost));
  if (!recovered.doubtful.empty())
    found += fmt::format("; to be checked, not as written: {}", some_of(recovered.doubtful));
  recovered.log.push_back(
      {0, build::utc_now(),
       fmt::format("Recovered from {} ({}): {}", std::filesystem::path(path).filename().string(), why, found),
       false});
  const auto damaged = fmt::format("{} is damaged ({}) and was left as it is; {}", path, why, found);
  auto why_not = not_beside;
  if (why_not.empty()) {
    const auto beside = free_path_beside(path, "recovered");
    if (auto made = create(beside, recovered.build, recovered.log, outcome)) {
      outcome = {FileStatus::damaged, fmt::format("{}. They are now in {}", damaged, beside)};
      return made;
    }
    why_not = "has no room beside it for them";
  }
  const TemporaryFolder folder;
  auto file = create(folder.path() + "/recovered.datrin", recovered.build, recovered.log, outcome);
  if (!file) return std::nullopt;
  file->path_ = path;
  file->read_only_ = open_to_read(path, "is damaged");
  outcome = {
      FileStatus::damaged,
      why_not == only_to_read
          ? damaged
          : fmt::format("{}. It {}; it is open for reading only, and can be exported", damaged, why_not)};
  return file;
}

std::optional<BuildFile> BuildFile::open(const std::string& path, FileOutcome& outcome, Opening opening) {
  std::error_code error;
  const auto refuse = [&](FileStatus status, const std::string& what) {
    outcome = {status, fmt::format("{} {}", path, what)};
    return std::nullopt;
  };
  const auto not_a_build = [&](const std::string& what) {
    return refuse(FileStatus::not_a_build,
                  fmt::format("is not a Datrin build{}; nothing was written to it", what));
  };
  const auto kind = std::filesystem::status(path, error);
  if (kind.type() == std::filesystem::file_type::not_found)
    return refuse(FileStatus::not_there, "is not there");
  if (std::filesystem::is_directory(kind)) return not_a_build(", it is a folder");
  if (kind.type() == std::filesystem::file_type::none ||
      ::faccessat(AT_FDCWD, path.c_str(), R_OK, AT_EACCESS) != 0)
    return refuse(FileStatus::unreadable, "may not be read; see to whom it and its folder belong");
  if (!std::filesystem::is_regular_file(kind)) return not_a_build(", it is a device or a pipe");
  const auto header = read_build_header(path);
  if (!header.database) return not_a_build(header.size == 0 ? ", it is empty" : "");
  if (header.application_id != build_application_id) return not_a_build(", but another program's database");
  if (header.user_version > build_format_version)
    return open_newer(
        path,
        fmt::format("was written by a newer version of Datrin (format {}, this one reads up to {})",
                    header.user_version, build_format_version),
        outcome);
  auto status = FileStatus::ok;
  std::string not_here; // why nothing is written to it or made beside it
  if (opening == Opening::reading)
    not_here = only_to_read;
  else if (not_here = not_writable(path); !not_here.empty())
    status = FileStatus::read_only;
  // With a journal beside it a file may be short because its writer was killed in the middle: then SQLite
  // puts it right from the journal, and what is wrong all the same shows in the check below.
  const auto real = std::filesystem::canonical(path, error).string();
  if (header.cut_short() && !std::filesystem::exists(real + "-journal", error))
    return open_recovered(path,
                          fmt::format("cut short: {} of {} bytes are there", header.size, header.stated_size),
                          not_here, outcome);
  if (header.write_ahead)
    return open_recovered(path, "another program changed how it is kept", not_here, outcome);
  if (!not_here.empty()) return open_copy(path, status, not_here, outcome);
  std::string wrong;
  try {
    BuildFile file(path, std::make_unique<BuildDatabase>(path, SQLite::OPEN_READWRITE));
    file.database_->hold();
    file.load();
    file.keep_copy();
    outcome = {};
    return file;
  } catch (const SQLite::Exception& why) {
    if (why.getErrorCode() == SQLITE_BUSY)
      return open_copy(path, FileStatus::held, "is open in another window", outcome);
    wrong = failure_words(why);
  } catch (const std::exception& why) {
    wrong = failure_words(why);
  }
  return open_recovered(path, wrong, {}, outcome);
}

} // namespace datrin::store
