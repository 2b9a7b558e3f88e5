// Killed at any moment, a build opens with everything that was shown (common practice for a logbook: what is
// written is written).

#include "build/edit_drawing.h"
#include "quantity/text.h"
#include "store/build_file.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <random>

#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

using namespace datrin;
using namespace datrin::store;
namespace fs = std::filesystem;

namespace {

/// Applies edits one after the other and says the number of each as soon as it counts as done: that is when
/// the window would show it.
[[noreturn]] void work(const std::string& path, int say) {
  FileOutcome outcome;
  auto file = BuildFile::open(path, outcome);
  if (!outcome.ok()) ::_exit(3);
  for (;;) {
    const int number = static_cast<int>(file->build().parts().size()) + 1;
    const auto edit = build::add_part(file->build(), "Part " + std::to_string(number)).edit;
    if (!file->apply(edit).ok()) ::_exit(4);
    if (::write(say, &number, sizeof number) != sizeof number) ::_exit(5);
  }
}

} // namespace

TEST(Kill, NothingShownIsLostInAThousandEditsKilledAtRandomMoments) {
  const auto folder = fs::temp_directory_path() / ("datrin-kill-" + std::to_string(::getpid()));
  fs::create_directories(folder);
  const auto path = (folder / "engine.datrin").string();
  FileOutcome outcome;
  { ASSERT_TRUE(BuildFile::create(path, "Engine", outcome)) << outcome.message; }
  std::mt19937 random(20260101);
  std::uniform_int_distribution<int> wait_us(0, 6000);
  int shown = 0, kills = 0;
  while (shown < 1000 && kills < 3000) {
    int ends[2];
    ASSERT_EQ(::pipe(ends), 0);
    const pid_t child = ::fork();
    ASSERT_GE(child, 0);
    if (child == 0) {
      ::close(ends[0]);
      work(path, ends[1]);
    }
    ::close(ends[1]);
    int number = 0;
    if (::read(ends[0], &number, sizeof number) == sizeof number) shown = std::max(shown, number);
    ::usleep(static_cast<useconds_t>(wait_us(random)));
    ::kill(child, SIGKILL);
    ++kills;
    while (::read(ends[0], &number, sizeof number) == sizeof number) shown = std::max(shown, number);
    ::close(ends[0]);
    int status = 0;
    ::waitpid(child, &status, 0);
    ASSERT_TRUE(WIFSIGNALED(status)) << WEXITSTATUS(status);
    auto file = BuildFile::open(path, outcome);
    ASSERT_TRUE(outcome.ok()) << outcome.message << " after " << kills << " kills";
    const auto there = static_cast<int>(file->build().parts().size());
    ASSERT_GE(there, shown) << "an edit that was shown is lost";
    ASSERT_LE(there, shown + 1); // at most the one that was being written
    EXPECT_EQ(file->undo_label(), "Add part Part " + std::to_string(there));
    shown = there;
  }
  EXPECT_GE(shown, 1000);
  RecordProperty("kills", kills);
  fs::remove_all(folder);
}

namespace {

/// How many processes are killed: a few every day, a thousand when asked for (docs/reliability.md).
int kills_asked() {
  const char* asked = std::getenv("DATRIN_KILLS");
  return std::max(40, asked != nullptr ? static_cast<int>(whole_from(asked).value_or(0)) : 0);
}

/// Opens the build again and again, as other windows do; says how often it was not whole.
[[noreturn]] void look_on(const std::string& path) {
  for (int looks = 0;; ++looks) {
    FileOutcome outcome;
    const auto file = BuildFile::open(path, outcome, Opening::reading);
    if (!file || !outcome.ok()) {
      std::fprintf(stderr, "a second opener found: %s\n", outcome.message.c_str());
      ::_exit(3);
    }
    if (looks % 4 == 0) ::usleep(500);
  }
}

} // namespace

// The same with another process that reads it all the time, and a disk that fills up under every second
// writer.
TEST(Kill, NothingShownIsLostBesideASecondOpenerAndOnAFullDisk) {
  const auto folder = fs::temp_directory_path() / ("datrin-kill-more-" + std::to_string(::getpid()));
  fs::create_directories(folder);
  const auto path = (folder / "engine.datrin").string();
  FileOutcome outcome;
  { ASSERT_TRUE(BuildFile::create(path, "Engine", outcome)) << outcome.message; }
  std::mt19937 random(20260102);
  std::uniform_int_distribution<int> wait_us(0, 12000), room(0, 16000);
  const int kills = kills_asked();
  int shown = 0, full = 0;
  for (int kill = 0; kill < kills; ++kill) {
    int ends[2];
    ASSERT_EQ(::pipe(ends), 0);
    const bool disk_fills_up = kill % 2 == 1;
    const auto limit = fs::file_size(path) + static_cast<std::uintmax_t>(room(random));
    const pid_t writer = ::fork();
    ASSERT_GE(writer, 0);
    if (writer == 0) {
      ::close(ends[0]);
      if (disk_fills_up) {
        std::signal(SIGXFSZ, SIG_IGN);
        const struct rlimit most { limit, limit };
        ::setrlimit(RLIMIT_FSIZE, &most);
      }
      work(path, ends[1]);
    }
    const pid_t reader = ::fork();
    ASSERT_GE(reader, 0);
    if (reader == 0) {
      ::close(ends[0]); // or the parent would wait for its end
      ::close(ends[1]);
      ::setenv("TMPDIR", folder.c_str(), 1); // what it leaves when it is killed goes with the rest
      look_on(path);
    }
    ::close(ends[1]);
    int number = 0;
    if (::read(ends[0], &number, sizeof number) == sizeof number) shown = std::max(shown, number);
    ::usleep(static_cast<useconds_t>(kill % 4 == 3 ? 40000 : wait_us(random))); // or until it is full
    ::kill(writer, SIGKILL);
    while (::read(ends[0], &number, sizeof number) == sizeof number) shown = std::max(shown, number);
    ::close(ends[0]);
    int status = 0;
    ::waitpid(writer, &status, 0);
    full += WIFEXITED(status) && WEXITSTATUS(status) == 4 ? 1 : 0; // its edit was refused
    ASSERT_TRUE(WIFSIGNALED(status) || (disk_fills_up && WEXITSTATUS(status) == 4)) << WEXITSTATUS(status);
    ASSERT_EQ(::waitpid(reader, &status, WNOHANG), 0) << "the second opener gave up";
    ::kill(reader, SIGKILL);
    ::waitpid(reader, &status, 0);
    auto file = BuildFile::open(path, outcome);
    ASSERT_TRUE(outcome.ok()) << outcome.message << " after " << kill << " kills";
    const auto there = static_cast<int>(file->build().parts().size());
    ASSERT_GE(there, shown) << "an edit that was shown is lost";
    ASSERT_LE(there, shown + 1);
    shown = there;
  }
  EXPECT_GE(full, kills / 20); // the disk was full often enough
  EXPECT_GT(shown, kills);
  fs::remove_all(folder);
}
