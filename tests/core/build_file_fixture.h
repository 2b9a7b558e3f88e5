#pragma once
// A folder of its own with a build file in it, for each test.

#include "demo/mill_engine.h"
#include "store/build_file.h"

#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <string>

#include <unistd.h>

namespace datrin {

/// As long as it lives, the test is a user that owns nothing: root may write everything.
class AsNobody {
public:
  AsNobody() : was_root_(::geteuid() == 0) {
    if (was_root_) {
      EXPECT_EQ(::seteuid(65534), 0);
    }
  }
  ~AsNobody() {
    if (was_root_) {
      EXPECT_EQ(::seteuid(0), 0);
    }
  }
  AsNobody(const AsNobody&) = delete;
  AsNobody& operator=(const AsNobody&) = delete;

private:
  bool was_root_;
};

class BuildFileTest : public testing::Test {
protected:
  void SetUp() override {
    folder_ = std::filesystem::temp_directory_path() /
              ("datrin-test-" + std::to_string(::getpid()) + "-" +
               testing::UnitTest::GetInstance()->current_test_info()->name());
    std::filesystem::remove_all(folder_);
    std::filesystem::create_directories(folder_);
    path_ = (folder_ / "engine.datrin").string();
  }
  void TearDown() override { std::filesystem::remove_all(folder_); }

  store::BuildFile made() {
    store::FileOutcome outcome;
    auto file = store::BuildFile::create(path_, "Engine", outcome);
    EXPECT_TRUE(outcome.ok()) << outcome.message;
    return std::move(*file);
  }
  store::BuildFile made_demo(const demo::DemoBuild& demo) {
    auto file = made();
    for (auto edit : demo.edits) {
      for (auto& change : edit.changes)
        if (change.id == build::Build::info_id) change.before = file.build().records().at(change.id);
      EXPECT_TRUE(file.apply(edit).ok());
    }
    return file;
  }
  store::BuildFile opened() {
    store::FileOutcome outcome;
    auto file = store::BuildFile::open(path_, outcome);
    EXPECT_TRUE(outcome.ok()) << outcome.message;
    return std::move(*file);
  }
  std::string bytes() const {
    std::ifstream file(path_, std::ios::binary);
    std::string all(std::filesystem::file_size(path_), '\0');
    file.read(all.data(), static_cast<std::streamsize>(all.size()));
    return all;
  }

  std::filesystem::path folder_;
  std::string path_;
};

} // namespace datrin
