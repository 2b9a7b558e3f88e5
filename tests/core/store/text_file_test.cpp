#include "store/text_file.h"

#include <gtest/gtest.h>

#include <csignal>
#include <filesystem>
#include <fstream>

#include <sys/resource.h>
#include <sys/stat.h>
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
  EXPECT_EQ(wrong,
            path + " could not be written (File too large); check the folder and the space on the disk");
  EXPECT_EQ(read(), "second, longer");
  EXPECT_EQ(std::distance(fs::directory_iterator(folder), fs::directory_iterator()), 1);
  EXPECT_EQ(
      write_text_file("/nowhere/at/all.json", "x"),
      "/nowhere/at/all.json could not be written (No such file or directory); check the folder and the space "
      "on the disk");
  fs::remove_all(folder);
}

// What was there was written over whatever it was, and lost its permissions.
TEST(TextFile, WritesOverOrdinaryFilesOnlyAndKeepsWhoMayReadThem) {
  const auto folder = fs::temp_directory_path() / ("datrin-over-" + std::to_string(::getpid()));
  fs::remove_all(folder);
  fs::create_directories(folder);
  const auto at = [&](const char* name) { return (folder / name).string(); };
  const auto read = [&](const std::string& path) {
    std::ifstream file(path);
    return std::string{std::istreambuf_iterator<char>(file), {}};
  };
  EXPECT_EQ(write_text_file(at("a"), "first", Existing::refuse), "");
  EXPECT_EQ(write_text_file(at("a"), "second", Existing::refuse),
            at("a") + " is there already; choose another name");
  EXPECT_EQ(read(at("a")), "first");

  fs::permissions(at("a"), fs::perms::owner_read | fs::perms::owner_write);
  fs::create_symlink("a", folder / "link");
  EXPECT_EQ(write_text_file(at("link"), "through the link"), "");
  EXPECT_TRUE(fs::is_symlink(at("link")));
  EXPECT_EQ(read(at("a")), "through the link");
  EXPECT_EQ(fs::status(at("a")).permissions(), fs::perms::owner_read | fs::perms::owner_write);

  fs::create_symlink("nothing", folder / "dangling");
  ASSERT_EQ(::mkfifo(at("pipe").c_str(), 0600), 0);
  fs::create_directory(folder / "sub");
  for (const char* name : {"dangling", "pipe", "sub"}) {
    EXPECT_NE(write_text_file(at(name), "x"), "") << name;
    EXPECT_NE(write_text_file(at(name), "x", Existing::refuse), "") << name;
  }
  EXPECT_TRUE(fs::is_fifo(at("pipe")));
  EXPECT_TRUE(fs::is_directory(at("sub")));
  EXPECT_EQ(fs::read_symlink(at("dangling")), "nothing");
  EXPECT_EQ(write_text_file("/dev/null", "x"),
            "/dev/null is a device or a pipe, not an ordinary file; choose another name");
  EXPECT_TRUE(fs::is_character_file("/dev/null"));
  EXPECT_EQ(std::distance(fs::directory_iterator(folder), fs::directory_iterator()), 5); // nothing beside
  fs::remove_all(folder);
}
