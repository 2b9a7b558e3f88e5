// Files that came to harm: every cut and many changed bytes of a build as JSON, and of surveys, are refused
// or read to something that keeps every rule; nothing crashes, and the message names the file.

#include "build/check.h"
#include "build/references.h"
#include "demo/mill_engine.h"
#include "store/build_json.h"
#include "store/chain_case.h"
#include "store/seat_case.h"
#include "store/survey_csv.h"
#include "store/targets_case.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <fstream>
#include <random>
#include <sstream>

using namespace datrin;
using namespace datrin::build;

namespace {

/// A small build with a record of most kinds: the demo's first part and what hangs on it.
std::string small_json() {
  std::ifstream file(std::string(DATRIN_TEST_CASES) + "/../fuzz/corpus/build_json/small.json");
  std::stringstream text;
  text << file.rdbuf();
  return text.str();
}

void expect_whole(const Build& b, const std::string& what) {
  EXPECT_EQ(first_dangling(b), "") << what;
  for (const auto& [id, record] : b.records()) EXPECT_FALSE(first_wrong(record)) << what << " record " << id;
}

} // namespace

TEST(Mutated, ABuildCutAnywhereIsRefusedByItsName) {
  const auto whole = small_json();
  ASSERT_GT(whole.size(), 500U);
  ASSERT_TRUE(store::read_build_json(whole, "small.json").ok);
  for (std::size_t size = 0; size + 2 < whole.size(); size += 1 + whole.size() / 400) {
    const auto read = store::read_build_json(std::string_view(whole).substr(0, size), "small.json");
    EXPECT_FALSE(read.ok) << size;
    EXPECT_EQ(read.message.rfind("small.json", 0), 0U) << read.message;
    EXPECT_EQ(read.build.records().size(), 1U) << "something was taken from a file that was refused";
  }
}

TEST(Mutated, ABuildWithChangedBytesIsRefusedOrWhole) {
  const auto whole = small_json();
  std::mt19937 random(3);
  int refused = 0, taken = 0;
  for (int round = 0; round < 1500; ++round) {
    auto text = whole;
    for (int k = static_cast<int>(random() % 3); k >= 0; --k) {
      static const std::string some = "0123456789-.eE\"{}[],:nulltruefalse \\\x7f\xff";
      text[random() % text.size()] = some[random() % some.size()];
    }
    const auto read = store::read_build_json(text, "small.json");
    if (!read.ok) {
      ++refused;
      EXPECT_FALSE(read.message.empty());
      continue;
    }
    ++taken;
    expect_whole(read.build, "round " + std::to_string(round));
  }
  EXPECT_GT(refused, 300);
  EXPECT_GT(taken, 50); // a digit for a digit: still a build
}

// A line swapped, left out or doubled, as a merge tool may leave it.
TEST(Mutated, ABuildWithLinesMixedUpIsRefusedOrWhole) {
  std::vector<std::string> lines;
  std::stringstream text(small_json());
  for (std::string line; std::getline(text, line);) lines.push_back(line);
  std::mt19937 random(4);
  for (int round = 0; round < 300; ++round) {
    auto mixed = lines;
    switch (random() % 3) {
    case 0:
      std::swap(mixed[random() % mixed.size()], mixed[random() % mixed.size()]);
      break;
    case 1:
      mixed.erase(mixed.begin() + static_cast<std::ptrdiff_t>(random() % mixed.size()));
      break;
    default:
      mixed.insert(mixed.begin() + static_cast<std::ptrdiff_t>(random() % mixed.size()),
                   mixed[random() % mixed.size()]);
    }
    std::string joined;
    for (const auto& line : mixed) joined += line + "\n";
    const auto read = store::read_build_json(joined, "merged.json");
    if (read.ok)
      expect_whole(read.build, "round " + std::to_string(round));
    else
      EXPECT_EQ(read.message.rfind("merged.json", 0), 0U) << read.message;
  }
}

TEST(Mutated, ASurveyWithChangedBytesGivesOnlyFiniteTouches) {
  const auto demo = demo::mill_engine();
  const auto piece = demo.pieces[0].piece;
  store::SurfaceNames names;
  std::vector<Touch> touches;
  for (const auto& [id, s] : demo.build.surfaces_of(demo.build.find<Piece>(piece)->part))
    names.emplace_back(id, s.name);
  for (const auto& [id, t] : demo.build.touches_of(piece)) touches.push_back(t);
  const auto whole = store::write_survey_csv(touches, names);
  std::mt19937 random(5);
  for (int round = 0; round < 400; ++round) {
    auto text = whole;
    for (int k = 0; k < 6; ++k) {
      static const std::string some = "0123456789-.,;\t\"#\n\r eEnaif\xc3\xff";
      text[random() % text.size()] = some[random() % some.size()];
    }
    const auto read = store::read_survey_csv(text, "survey.csv", names);
    EXPECT_TRUE(!read.refused || !read.message.empty());
    for (const auto& line : read.good) {
      EXPECT_TRUE(line.touch.centre.allFinite());
      EXPECT_TRUE(
          std::any_of(names.begin(), names.end(), [&](const auto& n) { return n.first == line.surface; }));
    }
    for (const auto& bad : read.bad) {
      EXPECT_EQ(bad.message.rfind("line ", 0), 0U) << bad.message;
      EXPECT_GT(bad.line, 1U);
    }
  }
}

TEST(Mutated, CasesCutAnywhereAreRefused) {
  const auto text_of = [](const char* name) {
    std::ifstream file(std::string(DATRIN_TEST_CASES) + "/" + name + ".json");
    std::stringstream text;
    text << file.rdbuf();
    return text.str();
  };
  const auto path = testing::TempDir() + "cut.json";
  const auto cut = [&](const std::string& text, auto&& read) {
    for (std::size_t size = 0; size + 3 < text.size(); size += 1 + text.size() / 60) {
      std::ofstream(path, std::ios::trunc) << text.substr(0, size);
      const auto result = read(path);
      EXPECT_FALSE(result.ok()) << size;
      EXPECT_FALSE(result.message.empty()) << size;
    }
  };
  cut(text_of("seat-1-clean"), [](const std::string& p) { return store::read_seat_case_file(p); });
  EXPECT_FALSE(store::read_seat_case_file("/nowhere/at/all.json").ok());
}
