#include "store/text_file.h"

#include <gtest/gtest.h>

#include <csignal>
#include <filesystem>
#include <fstream>

#include <sys/resource.h>
#include <unistd.h>

using namespace datrin::store;
namespace fs = std::filesystem;

TEST(TextFile, IsThereWholeOrNotAtAll) {
  const auto folder = fs::temp_directory_path() / ("datrin-text-" + std::to_string(::getpid()));
  fs::create_directories(folder);
  const auto path = (folder / "a.json").string();
  const auto read = [&] {
    std::ifstream file(path);
    return std::string{std::istreambuf_iterator<char>(file), {}};
  };
  EXPECT_EQ(write_text_file(path, "first"), "");
  EXPECT_EQ(read(), "first");
  EXPECT_EQ(write_text_file(path, "second, longer"), "");
  EXPECT_EQ(read(), "second, longer");

  // A full disk: the old file stays, and nothing half written beside it.
  rlimit old{};
  ASSERT_EQ(::getrlimit(RLIMIT_FSIZE, &old), 0);
  std::signal(SIGXFSZ, SIG_IGN);
  rlimit full = old;
  full.rlim_cur = 1000;
  ASSERT_EQ(::setrlimit(RLIMIT_FSIZE, &full), 0);
  const auto wrong = write_text_file(path, std::string(100000, 'x'));
  ASSERT_EQ(::setrlimit(RLIMIT_FSIZE, &old), 0);
  EXPECT_EQ(wrong, path + " could not be written; check the folder and the space on the disk");
  EXPECT_EQ(read(), "second, longer");
  EXPECT_EQ(std::distance(fs::directory_iterator(folder), fs::directory_iterator()), 1);
  EXPECT_EQ(write_text_file("/nowhere/at/all.json", "x"),
            "/nowhere/at/all.json could not be written; check the folder and the space on the disk");
  fs::remove_all(folder);
}
