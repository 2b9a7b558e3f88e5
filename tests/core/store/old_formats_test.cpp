// Files as earlier versions of Datrin wrote them, one of each format version (tests/formats; kept as they
// were written, only compacted). What is in them is counted and summed by SQLite's own JSON functions, apart
// from this program's reader.
#include "build/check.h"
#include "build/edits.h"
#include "build/references.h"
#include "store/build_file.h"
#include "store/build_header.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <filesystem>

#include <unistd.h>

using namespace datrin;
using namespace datrin::store;
namespace fs = std::filesystem;

namespace {

class OldFormat : public testing::TestWithParam<unsigned> {
protected:
  void SetUp() override {
    path_ = (fs::temp_directory_path() /
             ("datrin-old-" + std::to_string(::getpid()) + "-" + std::to_string(GetParam()) + ".datrin"))
                .string();
    fs::copy_file(fs::path(DATRIN_TEST_FORMATS) / ("format-" + std::to_string(GetParam()) + ".datrin"), path_,
                  fs::copy_options::overwrite_existing);
    fs::permissions(path_, fs::perms::owner_all);
    SQLite::Database raw(path_, SQLite::OPEN_READONLY);
    const auto number = [&](const char* sql) { return raw.execAndGet(sql).getDouble(); };
    ASSERT_EQ(raw.execAndGet("PRAGMA user_version").getInt(), static_cast<int>(GetParam()));
    records_ = static_cast<std::size_t>(number("SELECT count(*) FROM records"));
    edits_ = static_cast<int>(number("SELECT count(*) FROM changes"));
    touches_ = static_cast<std::size_t>(number("SELECT count(*) FROM records WHERE kind = 'touch'"));
    // The database's own json_extract reads numbers by the locale.
    SQLite::Statement bodies(raw, "SELECT kind, body FROM records WHERE kind IN ('touch', 'surface')");
    while (bodies.executeStep()) {
      const auto body = nlohmann::json::parse(bodies.getColumn(1).getString());
      if (bodies.getColumn(0).getString() == "touch")
        heights_ += body["centre"][2].get<double>();
      else
        allowances_ += body["required"].get<double>();
    }
  }
  void TearDown() override { fs::remove(path_); }

  BuildFile opened() {
    FileOutcome outcome;
    auto file = BuildFile::open(path_, outcome);
    EXPECT_TRUE(file && outcome.ok()) << outcome.message;
    return std::move(*file);
  }

  std::string path_;
  std::size_t records_ = 0, touches_ = 0;
  int edits_ = 0;
  double heights_ = 0, allowances_ = 0;
};

} // namespace

TEST_P(OldFormat, OpensWithEverythingThatIsInIt) {
  const auto file = opened();
  const auto& b = file.build();
  EXPECT_EQ(b.records().size(), records_);
  EXPECT_EQ(build::first_dangling(b), "");
  for (const auto& [id, record] : b.records()) {
    const auto wrong = build::first_wrong(record);
    EXPECT_FALSE(wrong) << "record " << id << ": " << wrong->field << " " << wrong->rule;
  }
  double heights = 0, allowances = 0;
  for (const auto& [id, t] : b.all<build::Touch>()) heights += t.centre.z();
  for (const auto& [id, s] : b.all<build::PartSurface>()) {
    allowances += s.required;
    EXPECT_EQ(s.half_angle, 0); // there were no cones yet
  }
  EXPECT_EQ(b.all<build::Touch>().size(), touches_);
  EXPECT_NEAR(heights, heights_, 1e-9 * std::abs(heights_));
  EXPECT_NEAR(allowances, allowances_, 1e-9);
}

TEST_P(OldFormat, IsWorkedOnAndTakenBackToItsFirstEdit) {
  std::map<build::Id, build::Record> before;
  {
    auto file = opened();
    before = file.build().records();
    const auto part = file.build().parts().front().first;
    auto surface = file.build().surfaces_of(part).front();
    auto changed = surface.second;
    changed.required += 0.25;
    ASSERT_TRUE(file.apply(build::replace(file.build(), surface.first, changed, "More metal")).ok());
    EXPECT_EQ(read_build_header(path_).user_version, build_format_version);
  }
  auto file = opened(); // as of today's format now
  EXPECT_EQ(file.undo_label(), "More metal");
  ASSERT_TRUE(file.undo().ok());
  EXPECT_EQ(file.build().records(), before);
  int undone = 0;
  while (file.undo_label()) {
    ASSERT_TRUE(file.undo().ok()) << "after " << undone;
    ++undone;
  }
  EXPECT_EQ(undone, edits_);
  EXPECT_EQ(file.build().records().size(), 1u); // the build itself
  for (int k = 0; k < edits_; ++k) ASSERT_TRUE(file.redo().ok());
  EXPECT_EQ(file.build().records(), before);
}

INSTANTIATE_TEST_SUITE_P(EveryVersion, OldFormat, testing::Range(1u, build_format_version),
                         [](const auto& version) { return "version" + std::to_string(version.param); });
