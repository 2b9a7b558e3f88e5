// Killed at any moment, a build opens with everything that was shown (common practice for a logbook: what is
// written is written).

#include "build/edit_drawing.h"
#include "store/build_file.h"

#include <gtest/gtest.h>

#include <filesystem>
#include <random>

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
