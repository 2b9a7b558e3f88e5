#include "store/build_file.h"
#include "store/build_header.h"

#include "build/edit_drawing.h"
#include "build/edits.h"
#include "build/references.h"
#include "store/json_reader.h"
#include "store/record_json.h"
#include "store/working_copy.h"
#include "tests/core/build_file_fixture.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <gtest/gtest.h>

#include <cmath>
#include <csignal>
#include <filesystem>
#include <fstream>
#include <memory>
#include <set>

#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

using namespace datrin;
using namespace datrin::store;
namespace fs = std::filesystem;

TEST_F(BuildFileTest, WhatWasAppliedIsThereAfterOpeningAgain) {
  const auto demo = demo::mill_engine();
  { auto file = made_demo(demo); }
  EXPECT_EQ(opened().build().records(), demo.build.records());
}

TEST_F(BuildFileTest, UndoAndRedoNameThemselvesAndReachAcrossRestarts) {
  {
    auto file = made();
    EXPECT_FALSE(file.undo_label());
    ASSERT_TRUE(file.apply(build::add_part(file.build(), "Pedestal").edit).ok());
    ASSERT_TRUE(file.apply(build::add_part(file.build(), "Cylinder").edit).ok());
  }
  const auto both = opened().build().records();
  {
    auto file = opened();
    EXPECT_EQ(file.undo_label(), "Add part Cylinder");
    ASSERT_TRUE(file.undo().ok());
    EXPECT_EQ(file.build().parts().size(), 1U);
  }
  {
    auto file = opened();
    EXPECT_EQ(file.undo_label(), "Add part Pedestal");
    EXPECT_EQ(file.redo_label(), "Add part Cylinder");
    ASSERT_TRUE(file.undo().ok());
    ASSERT_TRUE(file.redo().ok());
    ASSERT_TRUE(file.redo().ok());
    EXPECT_FALSE(file.redo_label());
    EXPECT_EQ(file.build().records(), both);
    EXPECT_FALSE(file.redo().ok());
  }
}

TEST_F(BuildFileTest, ANewEditAfterUndoEndsRedoButTheLogKeepsAll) {
  auto file = made();
  ASSERT_TRUE(file.apply(build::add_part(file.build(), "One").edit).ok());
  ASSERT_TRUE(file.undo().ok());
  ASSERT_TRUE(file.apply(build::add_part(file.build(), "Two").edit).ok());
  EXPECT_FALSE(file.redo_label());
  const auto log = file.log(10);
  ASSERT_EQ(log.size(), 2U);
  EXPECT_EQ(log[0].label, "Add part Two");
  EXPECT_TRUE(log[1].undone);
  ASSERT_TRUE(file.undo().ok());
  EXPECT_TRUE(file.build().parts().empty());
}

TEST_F(BuildFileTest, IdsOfRemovedRecordsAreNotUsedAgainAfterARestart) {
  build::Id next = 0;
  {
    auto file = made();
    ASSERT_TRUE(file.apply(build::add_part(file.build(), "Gone").edit).ok());
    next = file.build().next_id();
    ASSERT_TRUE(
        file.apply(build::remove(file.build(), file.build().parts().front().first, "Remove Gone")).ok());
  }
  auto file = opened();
  EXPECT_EQ(file.build().next_id(), next);
  ASSERT_TRUE(file.apply(build::add_part(file.build(), "New").edit).ok());
  ASSERT_TRUE(file.undo().ok());
  ASSERT_TRUE(file.undo().ok()); // the removed part comes back under its own id
  EXPECT_EQ(file.build().parts().front().second.name, "Gone");
}

TEST_F(BuildFileTest, RefusesWhatIsNotABuildAndLeavesItAlone) {
  FileOutcome outcome;
  EXPECT_FALSE(BuildFile::open(path_, outcome));
  EXPECT_EQ(outcome.status, FileStatus::not_there);
  EXPECT_EQ(outcome.message, path_ + " is not there");

  std::ofstream(path_) << "a letter to the foundry";
  EXPECT_FALSE(BuildFile::open(path_, outcome));
  EXPECT_EQ(outcome.message, path_ + " is not a Datrin build; nothing was written to it");
  EXPECT_EQ(bytes(), "a letter to the foundry");

  EXPECT_FALSE(BuildFile::open(folder_.string(), outcome));
  EXPECT_EQ(outcome.status, FileStatus::not_a_build);
}

TEST_F(BuildFileTest, RefusesToMakeOneWhereSomethingIs) {
  std::ofstream(path_) << "precious";
  FileOutcome outcome;
  EXPECT_FALSE(BuildFile::create(path_, "x", outcome));
  EXPECT_EQ(outcome.status, FileStatus::refused);
  EXPECT_EQ(bytes(), "precious");
  EXPECT_FALSE(BuildFile::create((folder_ / "no" / "such" / "folder.datrin").string(), "x", outcome));
  EXPECT_EQ(outcome.status, FileStatus::refused);
}

// A link that leads nowhere was replaced by the new build.
TEST_F(BuildFileTest, ALinkThatLeadsNowhereIsLeftAsItIs) {
  const auto away = (folder_ / "not-mounted" / "engine.datrin").string();
  std::filesystem::create_symlink(away, path_);
  FileOutcome outcome;
  EXPECT_FALSE(BuildFile::create(path_, "x", outcome));
  EXPECT_EQ(outcome.status, FileStatus::refused);
  EXPECT_EQ(std::filesystem::read_symlink(path_).string(), away);
}

TEST_F(BuildFileTest, ANewerFormatIsOpenedForReadingAndLeftUnwritten) {
  {
    auto file = made();
    ASSERT_TRUE(file.apply(build::add_part(file.build(), "Pedestal").edit).ok());
  }
  auto whole = bytes();
  whole[63] =
      static_cast<char>(build_format_version +
                        1); // user_version, big-endian at byte 60: SQLite database file format, section 1.3
  std::ofstream(path_, std::ios::binary) << whole;
  FileOutcome outcome;
  auto file = BuildFile::open(path_, outcome);
  ASSERT_TRUE(file);
  EXPECT_EQ(outcome.status, FileStatus::newer);
  EXPECT_EQ(outcome.message, path_ + " was written by a newer version of Datrin (format " +
                                 std::to_string(build_format_version + 1) + ", this one reads up to " +
                                 std::to_string(build_format_version) + "); it is open for reading only");
  EXPECT_EQ(file->build().parts().size(), 1U);
  EXPECT_FALSE(file->apply(build::add_part(file->build(), "Another").edit).ok());
  EXPECT_EQ(file->build().parts().size(), 1U);
  EXPECT_FALSE(file->undo_label());
  EXPECT_FALSE(file->undo().ok());
  EXPECT_EQ(bytes(), whole);
}

TEST_F(BuildFileTest, CutShortAtPagesAllAlongItIsLeftAndWhatCanBeReadIsOpenedBesideIt) {
  const auto demo = demo::mill_engine();
  { auto file = made_demo(demo); }
  const auto whole = bytes();
  std::size_t most = 0;
  // Some dozen places between pages, and each of the last.
  const std::size_t page = 4096, stride = page * std::max<std::size_t>(1, whole.size() / page / 10);
  for (std::size_t size = 0; size<whole.size(); size += size + 5 * page> whole.size() ? page : stride) {
    const auto cut = whole.substr(0, size);
    std::ofstream(path_, std::ios::binary | std::ios::trunc) << cut;
    FileOutcome outcome;
    auto file = BuildFile::open(path_, outcome);
    EXPECT_EQ(bytes(), cut) << size;
    if (!file) {
      EXPECT_EQ(outcome.status, FileStatus::not_a_build) << size << outcome.message;
      continue;
    }
    EXPECT_EQ(outcome.status, FileStatus::damaged) << size;
    EXPECT_NE(file->path(), path_);
    EXPECT_NE(outcome.message.find("cut short: "), std::string::npos) << outcome.message;
    EXPECT_EQ(build::first_dangling(file->build()), "") << size;
    // Everything that came back is as it was entered.
    std::size_t same = 0;
    for (const auto& [id, record] : demo.build.records()) {
      const auto found = file->build().records().find(id);
      same += found != file->build().records().end() && found->second == record ? 1 : 0;
    }
    EXPECT_GE(same, most) << size; // a longer stump never gives less
    most = std::max(most, same);
    ASSERT_TRUE(file->apply(build::add_part(file->build(), "Goes on").edit).ok());
    const auto beside = file->path();
    file.reset();
    fs::remove(beside);
  }
  EXPECT_GT(most, demo.build.records().size() * 9 / 10); // all but what was in the last page
}

// Killed between two pages of a transaction, the file can be shorter than its first page says. With the
// journal beside it nothing is lost, and it is no damaged file: SQLite puts it back (its file format, section
// 3).
TEST_F(BuildFileTest, ShortBecauseItsWriterWasKilledItIsPutRightFromTheJournal) {
  { made_demo(demo::mill_engine()); }
  const auto before = bytes();
  const auto records = opened().build().records();
  // A large transaction, stopped when its pages are on disk and before it counts: the child is gone then.
  const pid_t child = ::fork();
  ASSERT_GE(child, 0);
  if (child == 0) {
    SQLite::Database db(path_, SQLite::OPEN_READWRITE);
    db.exec("PRAGMA cache_size = 2");
    db.exec("PRAGMA cache_spill = 1");
    db.exec("BEGIN IMMEDIATE");
    for (int n = 0; n < 400; ++n)
      db.exec("INSERT INTO metadata VALUES('x" + std::to_string(n) + "', '" + std::string(900, 'y') + "')");
    ::_exit(0); // no commit, no clean-up
  }
  int status = 0;
  ::waitpid(child, &status, 0);
  ASSERT_TRUE(fs::exists(path_ + "-journal"));
  ASSERT_NE(bytes(), before); // it was in the middle of writing
  // The first page as that transaction would leave it, the end not written yet.
  auto torn = bytes();
  torn[29] = 1; // some 65,000 pages stated
  torn.replace(92, 4, torn.substr(24, 4));
  std::ofstream(path_, std::ios::binary | std::ios::trunc) << torn;
  FileOutcome outcome;
  const auto file = BuildFile::open(path_, outcome);
  ASSERT_TRUE(file) << outcome.message;
  EXPECT_TRUE(outcome.ok()) << outcome.message;
  EXPECT_EQ(file->path(), path_);
  EXPECT_EQ(file->build().records(), records);
}

TEST_F(BuildFileTest, ASpoiltPageCostsWhatWasInItAndTheLogGivesItBack) {
  const auto demo = demo::mill_engine();
  { auto file = made_demo(demo); }
  auto whole = bytes();
  const auto place = whole.find("\"name\":\"foot\""); // some page of the records
  ASSERT_NE(place, std::string::npos);
  for (std::size_t k = place / 4096 * 4096; k < (place / 4096 + 1) * 4096; ++k) whole[k] = 'x';
  std::ofstream(path_, std::ios::binary | std::ios::trunc) << whole;
  FileOutcome outcome;
  auto file = BuildFile::open(path_, outcome);
  ASSERT_TRUE(file) << outcome.message;
  EXPECT_EQ(outcome.status, FileStatus::damaged);
  EXPECT_EQ(bytes(), whole);
  std::size_t lost = 0;
  for (const auto& [id, record] : demo.build.records())
    if (const auto found = file->build().records().find(id);
        found == file->build().records().end() || !(found->second == record))
      ++lost;
  EXPECT_EQ(lost, 0U);
}

TEST_F(BuildFileTest, ASecondWindowReadsAndDoesNotWrite) {
  auto first = made();
  ASSERT_TRUE(first.apply(build::add_part(first.build(), "Pedestal").edit).ok());
  {
    FileOutcome outcome;
    auto second = BuildFile::open(path_, outcome);
    ASSERT_TRUE(second) << outcome.message;
    EXPECT_EQ(outcome.status, FileStatus::held);
    EXPECT_EQ(outcome.message, path_ + " is open in another window; it is open for reading only");
    EXPECT_EQ(second->build().records(), first.build().records());
    EXPECT_EQ(second->apply(build::add_part(second->build(), "x").edit).message,
              path_ + " is open in another window; it is open for reading only; \"Add part x\" was not done");
    EXPECT_EQ(second->log(10).size(), 1U);
  }
  ASSERT_TRUE(first.apply(build::add_part(first.build(), "Cylinder").edit).ok()); // the first goes on
}

// 9 of 120 copies were torn that a second window made while the first was writing. Here every edit gives all
// machines one name, and is the line of the log with that number.
class CopyOfABusyBuild : public BuildFileTest {
protected:
  /// A process of its own that makes edit after edit.
  void begin_to_write();
  void TearDown() override {
    ::kill(writer_, SIGKILL);
    ::waitpid(writer_, nullptr, 0);
    EXPECT_EQ(torn_, 0);
    EXPECT_GT(names_.size(), 5U); // it was writing all the time
    BuildFileTest::TearDown();
  }
  void look_at(const BuildFile& copy) {
    const auto last = copy.log(1).front().label;
    for (const auto& [id, machine] : copy.build().machines())
      torn_ += last == "1" || machine.name == last ? 0 : 1;
    names_.insert(last);
  }

  pid_t writer_ = 0;
  int torn_ = 0;
  std::set<std::string> names_;
};

void CopyOfABusyBuild::begin_to_write() {
  constexpr int machines = 30; // several pages
  auto first = std::make_unique<BuildFile>(made());
  ASSERT_TRUE(
      first
          ->apply(build::add_all(first->build(), std::vector<build::Record>(machines, build::Machine{}), "1"))
          .ok());
  first.reset();
  writer_ = ::fork();
  ASSERT_GE(writer_, 0);
  if (writer_ == 0) {
    FileOutcome outcome;
    auto file = BuildFile::open(path_, outcome);
    std::ofstream(folder_ / "begun") << "now";
    for (int edit = 2; file && outcome.ok() && edit < 3000; ++edit) {
      build::Edit rename{std::to_string(edit), {}};
      for (const auto& [id, machine] : file->build().machines()) {
        auto renamed = machine;
        renamed.name = rename.label;
        rename.changes.push_back({id, machine, renamed});
      }
      outcome = file->apply(rename);
    }
    ::_exit(0);
  }
  for (int wait = 0; wait < 5000 && !fs::exists(folder_ / "begun"); ++wait) ::usleep(1000);
}

TEST_F(CopyOfABusyBuild, IsWhole) {
  begin_to_write();
  for (int round = 0; round < 20; ++round) {
    FileOutcome outcome;
    const auto second = BuildFile::open(path_, outcome);
    ASSERT_TRUE(second && outcome.status == FileStatus::held) << outcome.message;
    look_at(*second);
    ::usleep(10000);
  }
}

// Where the disk knows no turns, the copier looks whether anything moved meanwhile.
TEST_F(CopyOfABusyBuild, IsWholeWhereTheDiskKnowsNoTurns) {
  begin_to_write();
  for (int round = 0; round < 20; ++round) {
    const WorkingCopy copy(path_, WorkingCopy::Turns::none);
    FileOutcome outcome;
    const auto second = BuildFile::open(copy.path(), outcome, Opening::reading);
    ASSERT_TRUE(second && outcome.ok()) << outcome.message;
    look_at(*second);
    ::usleep(10000);
  }
}

TEST_F(BuildFileTest, AFileThatMayNotBeWrittenIsOpenedForReading) {
  { made(); }
  using fs::perms;
  fs::permissions(folder_, perms::owner_all | perms::group_read | perms::group_exec | perms::others_read |
                               perms::others_exec);
  fs::permissions(path_, perms::owner_read | perms::group_read | perms::others_read);
  auto nobody = std::make_unique<AsNobody>();
  FileOutcome outcome;
  auto file = BuildFile::open(path_, outcome);
  EXPECT_TRUE(file) << outcome.message;
  EXPECT_EQ(outcome.message, path_ + " may not be written to; it is open for reading only");
  if (file) {
    EXPECT_FALSE(file->apply(build::add_part(file->build(), "x").edit).ok());
  }
  nobody.reset();
}

TEST_F(BuildFileTest, AFullDiskRefusesTheEditAndKeepsEverything) {
  auto file = made();
  ASSERT_TRUE(file.apply(build::add_part(file.build(), "Pedestal").edit).ok());
  const auto before = file.build().records();
  rlimit old{};
  ASSERT_EQ(::getrlimit(RLIMIT_FSIZE, &old), 0);
  std::signal(SIGXFSZ, SIG_IGN);
  rlimit full = old;
  full.rlim_cur = fs::file_size(path_); // no file may grow beyond this: the disk is full
  ASSERT_EQ(::setrlimit(RLIMIT_FSIZE, &full), 0);
  const auto outcome = file.apply(build::add_part(file.build(), std::string(100000, 'x')).edit);
  ASSERT_EQ(::setrlimit(RLIMIT_FSIZE, &old), 0);
  EXPECT_EQ(outcome.status, FileStatus::refused);
  EXPECT_NE(outcome.message.find("could not be kept in " + path_), std::string::npos) << outcome.message;
  EXPECT_EQ(file.build().records(), before);
  ASSERT_TRUE(file.apply(build::add_part(file.build(), "Room again").edit).ok());
}

// Shrinkage "nan", a touch at 1e308, a quantity that is none: each was kept, and the next opening called the
// file damaged.
TEST_F(BuildFileTest, WhatCouldNotBeReadBackIsNotWritten) {
  const auto demo = demo::mill_engine();
  auto file = made_demo(demo);
  const auto before = file.log(1);
  const auto refused = [&](build::Record record, const std::string& why) {
    const auto outcome = file.apply(build::add(file.build(), std::move(record), "Nonsense"));
    EXPECT_EQ(outcome.status, FileStatus::refused);
    EXPECT_EQ(outcome.message, "\"Nonsense\" was not done. " + why);
  };
  const auto part = demo.build.parts().front().first;
  const auto piece = demo.build.pieces_of(part).front().first;
  build::Foundry foundry;
  foundry.part = part;
  foundry.shrinkage = std::nan("");
  refused(foundry, "foundry: shrinkage must be a finite number");
  build::Touch touch;
  touch.piece = piece;
  touch.surface = demo.build.surfaces_of(part).front().first;
  touch.centre = {0, 1e308, 0};
  refused(touch, "touch: centre must be at most 10 km");
  touch.centre = Vec3::Zero();
  touch.piece = 987654321;
  const auto next = std::to_string(file.build().next_id());
  refused(touch, "touch: record " + next + " needs record 987654321, which is not there");
  touch.piece = part;
  refused(touch, "touch: record " + next + " needs record " + std::to_string(part) +
                     " as its piece, but that is a part");
  // A part that goes and leaves its surfaces behind.
  const build::Edit orphans{"Orphans", {{part, demo.build.records().at(part), std::nullopt}}};
  EXPECT_EQ(file.apply(orphans).status, FileStatus::refused);

  EXPECT_EQ(file.log(1), before);
  EXPECT_TRUE(file.build().records() == demo.build.records());
  EXPECT_TRUE(file.undo().ok());
  EXPECT_TRUE(file.redo().ok());
  { auto gone = std::move(file); }
  EXPECT_TRUE(opened().build().records() == demo.build.records());
}

// Edits were acknowledged and went into a file no path named any more.
TEST_F(BuildFileTest, AFileTakenAwayOrReplacedIsKeptInACopyBesideIt) {
  for (const bool replaced : {false, true}) {
    fs::remove_all(folder_);
    fs::create_directories(folder_);
    auto file = made();
    EXPECT_TRUE(file.apply(build::add_part(file.build(), "First").edit).ok());
    fs::remove(path_);
    if (replaced) std::ofstream(path_) << "somebody else's";
    const auto outcome = file.apply(build::add_part(file.build(), "Second").edit);
    EXPECT_EQ(outcome.status, FileStatus::moved);
    const auto beside = (folder_ / "engine-kept.datrin").string();
    EXPECT_EQ(outcome.message, path_ + (replaced ? " was replaced by another file" : " was taken away") +
                                   " while it was open; everything is kept, and work goes on in " + beside);
    EXPECT_EQ(file.path(), beside);
    EXPECT_EQ(file.build().parts().size(), 2U);
    EXPECT_EQ(file.apply(build::add_part(file.build(), "Third").edit).status, FileStatus::ok); // said once
    EXPECT_TRUE(file.undo().ok() && file.undo().ok() && file.undo().ok()); // back to before it was taken away
    EXPECT_TRUE(file.redo().ok() && file.redo().ok());
    if (replaced) {
      EXPECT_EQ(bytes(), "somebody else's");
    }
    { auto gone = std::move(file); }
    EXPECT_EQ(fs::exists(path_), replaced);
    path_ = beside;
    EXPECT_EQ(opened().build().parts().size(), 2U);
    EXPECT_EQ(opened().redo_label(), "Add part Third");
    path_ = (folder_ / "engine.datrin").string();
  }
  // Undo as the first thing that finds it gone, and a file renamed under the window.
  fs::remove_all(folder_);
  fs::create_directories(folder_);
  auto file = made();
  EXPECT_TRUE(file.apply(build::add_part(file.build(), "First").edit).ok());
  fs::rename(path_, folder_ / "elsewhere.datrin");
  EXPECT_EQ(file.undo().status, FileStatus::moved);
  EXPECT_TRUE(file.build().parts().empty());
  EXPECT_TRUE(fs::exists(folder_ / "elsewhere.datrin"));
}

// The file of an open window was written over in place: edits were acknowledged, and the file ended as a
// mixture.
TEST_F(BuildFileTest, AFileOverwrittenInPlaceIsKeptInACopyBesideIt) {
  const auto over = [&](const std::string& with) {
    std::ofstream file(path_, std::ios::binary | std::ios::trunc | std::ios::in);
    file << with;
  };
  const auto beside = (folder_ / "engine-kept.datrin").string();
  enum { older, longer, cut, spoilt, all };
  for (int what = 0; what < all; ++what) {
    fs::remove_all(folder_);
    fs::create_directories(folder_);
    std::string older_copy, other;
    {
      auto file = made();
      EXPECT_TRUE(file.apply(build::add_part(file.build(), "First").edit).ok());
    }
    older_copy = bytes();
    {
      auto file = opened();
      for (int k = 0; k < 40; ++k)
        EXPECT_TRUE(file.apply(build::add_part(file.build(), "Other " + std::to_string(k)).edit).ok());
    }
    other = bytes();
    over(older_copy);
    auto file = opened();
    EXPECT_TRUE(file.apply(build::add_part(file.build(), "Second").edit).ok());
    EXPECT_EQ(file.look_after().status, FileStatus::ok);
    const auto mine = bytes();
    std::string put;
    if (what == older) put = older_copy;
    if (what == longer) put = other;
    if (what == cut) put = mine.substr(0, mine.size() / 2);
    if (what == spoilt) put = mine.substr(0, mine.size() - 100) + std::string(100, 'x');
    over(put);
    const auto outcome = what == longer ? file.look_after() // without an edit, and before it is closed
                                        : file.apply(build::add_part(file.build(), "Third").edit);
    EXPECT_EQ(outcome.status, FileStatus::moved) << what << outcome.message;
    EXPECT_EQ(outcome.message, path_ +
                                   " was overwritten by another program while it was open; everything is "
                                   "kept, and work goes on in " +
                                   beside);
    EXPECT_EQ(file.path(), beside);
    if (what == longer) {
      EXPECT_TRUE(file.apply(build::add_part(file.build(), "Third").edit).ok());
    }
    EXPECT_EQ(file.log(10).size(), 3U);
    EXPECT_TRUE(file.undo().ok() && file.undo().ok() && file.redo().ok());
    EXPECT_EQ(file.redo_label(), "Add part Third");
    { auto gone = std::move(file); }
    EXPECT_TRUE(bytes() == put); // nothing was written to it
    path_ = beside;
    EXPECT_EQ(opened().build().parts().size(), 2U) << what;
    path_ = (folder_ / "engine.datrin").string();
  }
}

// Touched, or written anew with the same in it: nothing is lost, and no copy is needed.
TEST_F(BuildFileTest, AFileOnlyTouchedStaysTheSame) {
  auto file = made();
  EXPECT_TRUE(file.apply(build::add_part(file.build(), "First").edit).ok());
  fs::last_write_time(path_, fs::file_time_type::clock::now() + std::chrono::hours(1));
  EXPECT_EQ(file.apply(build::add_part(file.build(), "Second").edit).status, FileStatus::ok);
  const auto same = bytes();
  std::ofstream(path_, std::ios::binary | std::ios::in | std::ios::trunc) << same;
  EXPECT_EQ(file.apply(build::add_part(file.build(), "Third").edit).status, FileStatus::ok);
  FileOutcome outcome; // it still holds it against other windows
  (void)BuildFile::open(path_, outcome);
  EXPECT_EQ(outcome.status, FileStatus::held);
  { auto gone = std::move(file); }
  EXPECT_EQ(opened().build().parts().size(), 3U);
}

// Looked at only: an overwritten file is somebody else's newer one, and nothing is made beside it.
TEST_F(BuildFileTest, AFileOnlyLookedAtIsNotCopied) {
  { auto file = made(); }
  auto file = opened();
  std::ofstream(path_, std::ios::binary | std::ios::in | std::ios::trunc) << "another";
  EXPECT_EQ(file.look_after().status, FileStatus::ok);
  EXPECT_FALSE(fs::exists(folder_ / "engine-kept.datrin"));
  EXPECT_EQ(file.apply(build::add_part(file.build(), "First").edit).status, FileStatus::moved);
}

TEST_F(BuildFileTest, AnEditThatDoesNotFitChangesNothing) {
  auto file = made();
  auto edit = build::add_part(file.build(), "One").edit;
  ASSERT_TRUE(file.apply(edit).ok());
  EXPECT_FALSE(file.apply(edit).ok()); // the same ids are taken now
  EXPECT_EQ(file.build().parts().size(), 1U);
  EXPECT_EQ(file.log(10).size(), 1U);
}

TEST(RecordJson, EveryKindComesBackTheSame) {
  using namespace build;
  const Pose pose{rotation_from_vector({0.1, 0.2, 0.3}), {1, 2, 3}};
  const std::vector<Record> records{
      Info{"Engine", Unit::inch, true},
      Part{"Pedestal", "iron", 2, 1.5},
      PartSurface{7, "bore", SurfaceKind::bore, {1, 2, 3}, Vec3::UnitY(), 24.5, 0, 40, true, 0.75, 3},
      Wall{7, 8, 9, 5.5},
      Piece{7, 2},
      Touch{3,
            8,
            {1, 2, 3},
            1.5,
            {0, 0, -1},
            0.02,
            "on its foot",
            "a \"note\"",
            4,
            TouchStanding::set_aside,
            "x was 4"},
      Setting{3, "on its side", SettingFrame::heights, 1},
      Mark{3, "on its side", "A", {1, 2, 3}, 0.02, 2},
      SizeReading{3, 8, 9, 38.25, 0.05, "calliper", 1},
      Spot{3, 8, SpotKind::pore, {1, 2, 3}, 0.8, "near the edge"},
      Scan{3, "scan.ply", pose, 0.05,
           std::make_shared<ScanPoints>(
               ScanPoints{{{1.5F, 2, 3}, {4, 5, 6}}, {0, ScanPoints::no_surface}, {8}})},
      Judgement{3, {true, false, false, false, false, true}, {{8, 0.25}}, 9},
      Decision{2, 3, 8, "bore moved", "short by 0.3", "2020-01-01T00:00:00Z"},
      Seat{3, pose, true},
      Marking{3, -Vec3::UnitX(), 8, 25.4, {1, 0, 2}}};
  for (const auto& record : records)
    EXPECT_EQ(record_from_json(record_kind(record), record_body(record)), record) << record_kind(record);
}

// What is kept beside the records is written with a file that was edited, never with one that is looked at,
// and leaves the build, its log and its undo as they are.
TEST_F(BuildFileTest, ATextBesideTheRecordsIsKeptOnceTheFileWasEdited) {
  {
    auto file = made();
    EXPECT_FALSE(file.keep_beside("pictures", "one"));
    ASSERT_TRUE(file.apply(build::add_part(file.build(), "Pedestal").edit).ok());
    EXPECT_TRUE(file.keep_beside("pictures", "one"));
    EXPECT_EQ(file.beside("pictures"), "one");
    EXPECT_FALSE(file.keep_beside("pictures", std::string(9 << 20, 'x'))); // too much for what it is worth
  }
  auto file = opened();
  EXPECT_EQ(file.beside("pictures"), "one");
  EXPECT_EQ(file.beside("others"), "");
  EXPECT_FALSE(file.keep_beside("pictures", "two"));
  EXPECT_EQ(file.undo_label(), "Add part Pedestal");
  ASSERT_TRUE(file.undo().ok());
  EXPECT_TRUE(file.keep_beside("pictures", "two"));
  EXPECT_EQ(file.beside("pictures"), "two");
  EXPECT_TRUE(file.build().parts().empty());
}

TEST(RecordJson, NamesTheFieldThatIsOff) {
  const auto message = [](const char* kind, const char* body) {
    try {
      record_from_json(kind, nlohmann::json::parse(body));
    } catch (const Refusal& refusal) {
      return std::string(refusal.what());
    }
    return std::string("accepted");
  };
  EXPECT_EQ(message("wall", R"({"part":1,"from":2,"to":3})"), "wall: /least: is missing");
  EXPECT_EQ(message("wall", R"({"part":1.5,"from":2,"to":3,"least":1})"),
            "wall: /part: must be a whole number");
  EXPECT_EQ(message("piece", R"({"part":1,"number":0})"),
            "piece: /number: must be a whole number from 1 to 1000000000");
  EXPECT_EQ(message("wheel", "{}"), "there is no kind of record called \"wheel\"");
}
