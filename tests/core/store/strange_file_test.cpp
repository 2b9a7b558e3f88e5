// Files that open as a database and are no whole build: changed by another program, made to harm, or with a
// bit flipped by a tired disk. None aborts the program, carries anything out, or is taken for what it was.

#include "build/edit_drawing.h"
#include "build/references.h"
#include "store/build_database.h"
#include "store/build_header.h"
#include "tests/core/build_file_fixture.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <gtest/gtest.h>

#include <cstdio>
#include <memory>
#include <random>
#include <set>

#include <sys/resource.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

using namespace datrin;
using namespace datrin::store;
namespace fs = std::filesystem;

namespace {

class StrangeFile : public BuildFileTest {
protected:
  /// A few records of several kinds, and something undone.
  void make_small() {
    auto file = made();
    ASSERT_TRUE(file.apply(build::add_part(file.build(), "Pedestal").edit).ok());
    ASSERT_TRUE(file.apply(build::add_part(file.build(), "Cylinder").edit).ok());
    build::Machine lathe;
    lathe.name = "Lathe with a gap bed";
    ASSERT_TRUE(file.apply(build::add_all(file.build(), {lathe}, "Add machine")).ok());
    ASSERT_TRUE(file.undo().ok());
    whole_ = file.build().records();
    log_ = file.log(100);
  }

  /// Lets another program write to the file, and takes note of what it is then.
  void changed_by(const std::string& sql) {
    {
      SQLite::Database raw(path_, SQLite::OPEN_READWRITE);
      raw.exec(sql);
    }
    strange_ = bytes();
  }

  std::set<std::string> names_in_folder() const {
    std::set<std::string> names;
    for (const auto& entry : fs::directory_iterator(folder_)) names.insert(entry.path().filename().string());
    return names;
  }

  std::map<build::Id, build::Record> whole_;
  std::vector<LogLine> log_;
  std::string strange_;
};

} // namespace

TEST_F(StrangeFile, OpeningAndLookingWritesNothing) {
  std::vector<fs::path> files;
  for (unsigned version = 1; version < build_format_version; ++version)
    files.push_back(fs::path(DATRIN_TEST_FORMATS) / ("format-" + std::to_string(version) + ".datrin"));
  make_small();
  files.emplace_back(path_);
  for (const auto& from : files) {
    path_ = (folder_ / ("look-" + from.filename().string())).string();
    fs::copy_file(from, path_);
    fs::permissions(path_, fs::perms::owner_all);
    const auto before = bytes();
    const auto written = fs::last_write_time(path_);
    {
      auto file = opened();
      EXPECT_FALSE(file.log(5).empty());
      EXPECT_TRUE(file.undo_label());
    }
    EXPECT_EQ(bytes(), before) << from;
    EXPECT_EQ(fs::last_write_time(path_), written) << from;
    // The first edit brings it up to date, and all that is in it stays.
    std::size_t records = 0;
    {
      auto file = opened();
      records = file.build().records().size();
      ASSERT_TRUE(file.apply(build::add_part(file.build(), "New").edit).ok());
    }
    EXPECT_EQ(read_build_header(path_).user_version, build_format_version);
    EXPECT_GT(opened().build().records().size(), records);
    fs::remove(path_);
  }
}

TEST_F(StrangeFile, WhatOtherProgramsChangedIsLeftAndComesBackBesideIt) {
  struct Case {
    const char* sql;
    const char* says;
    bool all; ///< every record comes back
  };
  const Case cases[] = {
      {"CREATE VIEW v AS SELECT 1", "its \"v\" is none of a build's tables", true},
      {"CREATE TABLE notes(text)", "its \"notes\" is none of a build's tables", true},
      {"CREATE TRIGGER t AFTER INSERT ON changes BEGIN DELETE FROM records; END",
       "its \"t\" is none of a build's tables", true},
      {"DROP TABLE changes", "its table \"changes\" is missing or another", true},
      {"ALTER TABLE changes RENAME COLUMN label TO caption", "none of a build's tables", true},
      {"ALTER TABLE records ADD COLUMN colour TEXT", "its \"records\" is none of a build's tables", true},
      {"ALTER TABLE records RENAME TO hidden; CREATE VIEW records AS WITH RECURSIVE n(id) AS (SELECT 1 UNION "
       "ALL "
       "SELECT id FROM n) SELECT id, 'part' AS kind, '{}' AS body FROM n",
       "none of a build's tables", false}, // the log has all but the first
      {"UPDATE records SET kind = 'part', body = (SELECT body FROM records WHERE kind = 'part' LIMIT 1) "
       "WHERE id = 1",
       "record 1 is not as it was written", false},
      {"DELETE FROM records WHERE id = 1", "the record of the build itself is missing", false},
      {"UPDATE records SET body = replace(body, 'Pedestal', 'Cylinder')", " is not as it was written", true},
      {"DELETE FROM records WHERE kind = 'part'", "which is not there", true},
      {"UPDATE changes SET label = CAST(x'ff41' AS TEXT) WHERE seq = 2",
       "line 2 of its log is not as it was written", true},
      {"UPDATE changes SET state = 7 WHERE seq = 1", "line 1 of its log is not as it was written", true},
      {"PRAGMA journal_mode = WAL", "another program changed how it is kept", true},
  };
  for (const auto& c : cases) {
    SCOPED_TRACE(c.sql);
    fs::remove_all(folder_);
    fs::create_directories(folder_);
    make_small();
    changed_by(c.sql);
    FileOutcome outcome;
    {
      auto file = BuildFile::open(path_, outcome);
      ASSERT_TRUE(file) << outcome.message;
      EXPECT_EQ(outcome.status, FileStatus::damaged);
      EXPECT_NE(outcome.message.find(c.says), std::string::npos) << outcome.message;
      EXPECT_EQ(bytes(), strange_);
      EXPECT_EQ(file->path(), (folder_ / "engine-recovered.datrin").string());
      EXPECT_EQ(build::first_dangling(file->build()), "");
      for (const auto& [id, record] : whole_)
        if (c.all || id != build::Build::info_id) {
          EXPECT_TRUE(file->build().records().contains(id) && file->build().records().at(id) == record) << id;
        }
      EXPECT_NE(file->log(1).front().label.find("Recovered from engine.datrin"), std::string::npos);
      ASSERT_TRUE(file->apply(build::add_part(file->build(), "Goes on").edit).ok());
    }
    auto again = BuildFile::open((folder_ / "engine-recovered.datrin").string(), outcome);
    ASSERT_TRUE(again && outcome.ok()) << outcome.message;
    EXPECT_GE(again->build().parts().size(), 3U);
  }
}

// 3 of 100 single-bit flips changed a record unseen. Every bit of the file has an equal chance here.
TEST_F(StrangeFile, AFlippedBitIsNeverTakenForWhatWasWritten) {
  make_small();
  const auto whole = bytes();
  const auto records_at = whole.find("\"name\":\"Pedestal\""), log_at = whole.find("Add part Cylinder");
  ASSERT_NE(records_at, std::string::npos);
  ASSERT_NE(log_at, std::string::npos);
  std::mt19937 random(11);
  int seen = 0;
  for (int round = 0; round < 700; ++round) {
    auto flipped = whole;
    // Anywhere; and more often where something is written.
    const auto at = round % 3 == 0   ? random() % whole.size()
                    : round % 3 == 1 ? records_at - 200 + random() % 400
                                     : log_at - 200 + random() % 400;
    flipped[at] = static_cast<char>(flipped[at] ^ (1 << random() % 8));
    for (const auto& entry : fs::directory_iterator(folder_)) fs::remove(entry.path());
    std::ofstream(path_, std::ios::binary) << flipped;
    FileOutcome outcome;
    const auto file = BuildFile::open(path_, outcome, Opening::reading);
    if (outcome.status == FileStatus::ok) {
      EXPECT_TRUE(file->build().records() == whole_) << "byte " << at;
      EXPECT_EQ(file->log(100), log_) << "byte " << at;
      continue;
    }
    ++seen;
    EXPECT_FALSE(outcome.message.empty());
    if (!file || outcome.status != FileStatus::damaged) continue;
    // What came back is as it was, or named.
    for (const auto& [id, record] : file->build().records())
      if (const auto was = whole_.find(id); was != whole_.end() && !(record == was->second)) {
        EXPECT_TRUE(outcome.message.find("to be checked") != std::string::npos ||
                    outcome.message.find("lost: ") != std::string::npos)
            << outcome.message;
      }
  }
  EXPECT_GT(seen, 300);
}

TEST_F(StrangeFile, ARecordOutOfAllProportionIsRefusedInBoundedMemory) {
  if (::access("/dev/shm", W_OK) == 0)
    path_ = "/dev/shm/" + folder_.filename().string() + ".datrin"; // in memory
  make_small();
  changed_by("UPDATE records SET body = hex(zeroblob(160000000)) WHERE id = 2"); // 320 MB
  const auto child = ::fork();
  ASSERT_GE(child, 0);
  if (child == 0) {
    struct rlimit most {};
    most.rlim_cur = most.rlim_max = rlim_t{1} << 30; // of address space, the program itself included
    ::setrlimit(RLIMIT_AS, &most);
    FileOutcome outcome;
    const auto file = BuildFile::open(path_, outcome, Opening::reading);
    const bool right = file && outcome.status == FileStatus::damaged &&
                       outcome.message.find("larger than 256 MiB") != std::string::npos &&
                       file->build().parts().size() == 2;
    if (!right) std::fprintf(stderr, "%s\n", outcome.message.c_str());
    ::_exit(right ? 0 : 1);
  }
  int status = 0;
  ::waitpid(child, &status, 0);
  EXPECT_TRUE(WIFEXITED(status) && WEXITSTATUS(status) == 0) << status;
  fs::remove(path_);
}

// The database gives names like these a meaning of its own.
TEST_F(StrangeFile, WhateverItIsCalledItIsAFile) {
  const auto here = fs::current_path();
  fs::current_path(folder_);
  for (const char* name : {":memory:", "file:x", "file:x?mode=memory", "-x", "100 %", "a'b\"c"}) {
    FileOutcome outcome;
    {
      auto file = BuildFile::create(name, "Engine", outcome);
      ASSERT_TRUE(file) << outcome.message;
      EXPECT_TRUE(file->apply(build::add_part(file->build(), "Pedestal").edit).ok());
    }
    EXPECT_TRUE(fs::is_regular_file(fs::path(name))) << name;
    EXPECT_EQ(names_in_folder(), std::set<std::string>{name});
    auto file = BuildFile::open(name, outcome);
    ASSERT_TRUE(file && outcome.ok()) << outcome.message;
    EXPECT_EQ(file->build().parts().size(), 1U);
    fs::remove(name);
  }
  fs::current_path(here);
}

TEST_F(StrangeFile, WhereNothingMayBeWrittenItOpensForReading) {
  make_small();
  const auto link = (folder_ / "link.datrin").string();
  const auto closed = folder_ / "closed";
  fs::create_directories(closed);
  const auto whole = (closed / "whole.datrin").string(), spoilt = (closed / "spoilt.datrin").string(),
             hidden = (closed / "hidden.datrin").string(), folder_link = (folder_ / "into.datrin").string();
  fs::copy_file(path_, whole);
  fs::copy_file(path_, hidden);
  changed_by("UPDATE records SET body = replace(body, 'Pedestal', 'Cylinder')");
  fs::copy_file(path_, spoilt);
  fs::create_symlink(whole, folder_link);
  fs::permissions(folder_, fs::perms::all);
  for (const auto& file : {whole, spoilt}) fs::permissions(file, static_cast<fs::perms>(0666));
  fs::permissions(hidden, fs::perms::none);
  fs::permissions(closed, static_cast<fs::perms>(0555));
  auto nobody = std::make_unique<AsNobody>();
  FileOutcome outcome;
  auto file = BuildFile::open(spoilt, outcome);
  EXPECT_TRUE(file) << outcome.message;
  EXPECT_EQ(outcome.status, FileStatus::damaged);
  EXPECT_NE(outcome.message.find("in a folder that may not be written to; it is open for reading only"),
            std::string::npos)
      << outcome.message;
  if (file) {
    EXPECT_EQ(file->path(), spoilt);
    EXPECT_TRUE(file->build().records() == whole_);
    EXPECT_EQ(file->apply(build::add_part(file->build(), "x").edit).status, FileStatus::read_only);
  }
  file = BuildFile::open(folder_link, outcome);
  EXPECT_TRUE(file) << outcome.message;
  EXPECT_EQ(outcome.status, FileStatus::read_only) << outcome.message;
  file = BuildFile::open(hidden, outcome);
  EXPECT_FALSE(file);
  EXPECT_EQ(outcome.message, hidden + " may not be read; see to whom it and its folder belong");
  nobody.reset();
  fs::permissions(closed, fs::perms::all);
  ASSERT_EQ(::mkfifo(link.c_str(), 0600), 0);
  EXPECT_FALSE(BuildFile::open(link, outcome)); // and does not wait for somebody to write into it
  EXPECT_EQ(outcome.message,
            link + " is not a Datrin build, it is a device or a pipe; nothing was written to it");
}

TEST_F(StrangeFile, WhereNothingFitsBesideItItOpensForReading) {
  make_small();
  const auto longest =
      (folder_ / (std::string(240, 'n') + ".datrin")).string(); // 247 of the 255 a name may have
  changed_by("CREATE VIEW v AS SELECT 1");
  fs::rename(path_, longest);
  FileOutcome outcome;
  const auto file = BuildFile::open(longest, outcome);
  ASSERT_TRUE(file) << outcome.message;
  EXPECT_EQ(outcome.status, FileStatus::damaged);
  EXPECT_NE(outcome.message.find("It has no room beside it for them; it is open for reading only"),
            std::string::npos)
      << outcome.message;
  EXPECT_TRUE(file->build().records() == whole_);
  EXPECT_EQ(names_in_folder().size(), 1U);
}

// What zlib.crc32 of Python's standard library says of the same bytes (RFC 1952, section 8).
TEST(BuildSums, AreThePublishedChecksum) {
  EXPECT_EQ(record_sum(7, "part", R"({"name":"Pedestal"})"), 3881519631);
  EXPECT_EQ(change_sum(3, "2026-01-01T00:00:00Z", "Add part", "[]", change_undone), 10998481821);
  EXPECT_NE(record_sum(1, "part", "{}"), record_sum(1, "par", "t{}"));
}
