// What follows from a record's description, for every kind there is: writing and reading, the index, the
// rules, and the words.

#include "build/build.h"
#include "build/descriptions.h"
#include "build/edits.h"
#include "build/references.h"
#include "build/words.h"
#include "store/build_json.h"
#include "store/build_schema.h"
#include "store/json_reader.h"
#include "store/record_json.h"
#include "tests/core/random_records.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <set>

using namespace datrin;
using namespace datrin::build;
using nlohmann::json;

namespace {

/// A build with about `count` records of every kind, each with what it needs.
Build random_build(unsigned seed, int rounds) {
  test::RandomRecords random(seed);
  Build b;
  for (int round = 0; round < rounds; ++round)
    for (int kind = 1; kind < kind_count; ++kind)
      if (auto record = random.make(kind, b)) {
        const auto edit = add(b, std::move(*record), "add");
        EXPECT_TRUE(b.apply(edit));
      }
  return b;
}

/// The plain walk: ids of the records of `kind` that need `owner` (0: all of the kind), by place, then by id.
std::vector<Id> walked(const Build& b, int kind, Id owner) {
  std::vector<std::pair<double, Id>> found;
  for (const auto& [id, record] : b.records()) {
    if (record.kind() != kind) continue;
    const auto needed = needs(record);
    if (owner != 0 && std::find(needed.begin(), needed.end(), owner) == needed.end()) continue;
    const bool by_id = owner == 0 && !needed.empty();
    found.emplace_back(by_id ? 0 : record.description().place_of(record.value().get()), id);
  }
  std::stable_sort(found.begin(), found.end());
  std::vector<Id> ids;
  ids.reserve(found.size());
  for (const auto& [place, id] : found) ids.push_back(id);
  return ids;
}

template <class T>
std::vector<Id> ids_of(const List<T>& list) {
  std::vector<Id> ids;
  for (const auto& [id, record] : list) ids.push_back(id);
  return ids;
}

template <class T>
void expect_indexed(const Build& b, Id owner) {
  EXPECT_EQ(ids_of(b.of<T>(owner)), walked(b, kind_of<T>, owner))
      << description(kind_of<T>).name << " of " << owner;
}

template <std::size_t... K>
void expect_index_is_the_walk(const Build& b, std::index_sequence<K...>) {
  for (const auto& [id, record] : b.records())
    (expect_indexed<std::tuple_element_t<K, RecordTypes>>(b, id), ...);
  (..., [&] {
    using T = std::tuple_element_t<K, RecordTypes>;
    auto all = ids_of(b.all<T>()), plain = walked(b, kind_of<T>, 0);
    std::sort(all.begin(), all.end());
    std::sort(plain.begin(), plain.end());
    EXPECT_EQ(all, plain) << description(kind_of<T>).name;
  }());
}

} // namespace

TEST(Described, EveryKindIsMadeHasANameOfItsOwnAndAMeaning) {
  std::set<std::string> names;
  for (int kind = 0; kind < kind_count; ++kind) {
    const auto& d = description(kind);
    EXPECT_TRUE(names.insert(d.name).second) << d.name;
    EXPECT_EQ(kind_called(d.name), kind);
    EXPECT_GT(std::string(d.meaning).size(), 8U) << d.name;
    std::set<std::string> fields;
    for (const auto& f : d.fields) EXPECT_TRUE(fields.insert(f.name).second) << d.name << " " << f.name;
  }
  EXPECT_EQ(kind_called("widget"), -1);
  const auto b = random_build(3, 6);
  std::set<int> made;
  for (const auto& [id, record] : b.records()) made.insert(record.kind());
  EXPECT_EQ(static_cast<int>(made.size()), kind_count) << "some kind was never made: the tests below miss it";
}

class DescribedRound : public testing::TestWithParam<unsigned> {};

TEST_P(DescribedRound, EveryRecordIsReadAsItWasWritten) {
  const auto b = random_build(GetParam(), 8);
  for (const auto& [id, record] : b.records()) {
    const auto body = store::record_body(record);
    EXPECT_EQ(store::record_from_json(store::record_kind(record), body), record) << body.dump();
    // Through text too: numbers come back to the last bit.
    EXPECT_EQ(store::record_from_json(store::record_kind(record), json::parse(body.dump())), record);
  }
}

TEST_P(DescribedRound, AWholeBuildIsReadAsItWasWritten) {
  const auto b = random_build(GetParam() + 100, 8);
  const auto text = store::write_build_json(b, {});
  const auto read = store::read_build_json(text, "random");
  ASSERT_TRUE(read.ok) << read.message;
  EXPECT_EQ(read.build.records(), b.records());
  EXPECT_EQ(read.build.next_id(), b.next_id());
  EXPECT_EQ(store::write_build_json(read.build, {}), text);
}

TEST_P(DescribedRound, TheIndexIsTheWalkAfterRandomEditsAndUndo) {
  test::RandomRecords random(GetParam() + 200);
  auto b = random_build(GetParam() + 300, 4);
  const auto at_first = b.records();
  std::vector<Edit> done;
  const auto check = [&] { expect_index_is_the_walk(b, std::make_index_sequence<kind_count>()); };
  check();
  for (int n = 0; n < 60; ++n) {
    std::vector<Id> ids;
    for (const auto& [id, record] : b.records()) ids.push_back(id);
    const Id id = ids[random.below(ids.size())];
    Edit edit;
    if (random.one_in(3)) {
      edit = remove(b, id, "remove");
    } else if (random.one_in(2)) {
      if (auto record = random.make(b.records().at(id).kind(), b); record && id != Build::info_id)
        edit = replace(b, id, std::move(*record), "replace");
    } else if (auto record = random.make(1 + static_cast<int>(random.below(kind_count - 1)), b)) {
      edit = add(b, std::move(*record), "add");
    }
    if (edit.empty()) continue;
    // A record may come to need itself by chance, or what needs it: no build has that.
    auto after = b;
    if (!after.apply(edit) || !first_dangling(after).empty()) continue;
    b = after;
    done.push_back(edit);
    if (n % 10 == 0) check();
  }
  check();
  for (auto edit = done.rbegin(); edit != done.rend(); ++edit) ASSERT_TRUE(b.apply(reversed(*edit)));
  EXPECT_EQ(b.records(), at_first);
  check();
}

TEST_P(DescribedRound, RemovingARecordLeavesNothingDangling) {
  const auto b = random_build(GetParam() + 400, 4);
  ASSERT_EQ(first_dangling(b), "");
  for (const auto& [id, record] : b.records()) {
    if (id == Build::info_id) continue;
    auto less = b;
    ASSERT_TRUE(less.apply(remove(b, id, "remove")));
    EXPECT_EQ(first_dangling(less), "") << "without " << name_of(record);
    EXPECT_FALSE(less.records().contains(id));
    for (const auto& [other, left] : less.records()) {
      const auto needed = needs(left);
      EXPECT_EQ(std::find(needed.begin(), needed.end(), id), needed.end());
    }
  }
}

INSTANTIATE_TEST_SUITE_P(Seeds, DescribedRound, testing::Values(1U, 2U, 3U, 4U));

// What may not stand in a file: a wrong word, a number of the wrong kind, one outside its rule; each refused
// with the field named.
TEST(Described, EveryFieldRefusesWhatItIsNot) {
  test::RandomRecords random(9);
  const auto b = random_build(10, 6);
  int refused = 0;
  for (int kind = 1; kind < kind_count; ++kind) {
    const auto record = random.make(kind, b);
    ASSERT_TRUE(record) << description(kind).name;
    const auto body = store::record_body(*record);
    for (const auto& f : description(kind).fields) {
      if (f.type == FieldType::points) continue;
      auto wrong = body;
      switch (f.type) {
      case FieldType::text:
        wrong[f.name] = 7;
        break;
      case FieldType::number:
      case FieldType::whole:
        wrong[f.name] = "seven";
        break;
      default:
        wrong[f.name] = {{"no", "such"}};
      }
      try {
        (void)store::record_from_json(description(kind).name, wrong);
        ADD_FAILURE() << description(kind).name << "." << f.name << " took " << wrong[f.name].dump();
      } catch (const store::Refusal& refusal) {
        ++refused;
        EXPECT_NE(std::string(refusal.what()).find(f.name), std::string::npos)
            << description(kind).name << "." << f.name << ": " << refusal.what();
      }
    }
  }
  EXPECT_GT(refused, 100);
}

TEST(Described, NumbersOutsideTheirRuleAreFoundByTheirField) {
  test::RandomRecords random(11);
  const auto b = random_build(12, 6);
  int found = 0;
  for (int kind = 1; kind < kind_count; ++kind)
    for (const auto& f : description(kind).fields) {
      if (f.type != FieldType::number) continue;
      const auto record = random.make(kind, b);
      ASSERT_TRUE(record);
      auto copy = description(kind).copy(record->value().get());
      for (const double bad :
           {std::numeric_limits<double>::quiet_NaN(), std::numeric_limits<double>::infinity()}) {
        *static_cast<double*>(f.at(copy.get())) = bad;
        const auto wrong = first_wrong(description(kind), copy.get());
        ASSERT_TRUE(wrong) << description(kind).name << "." << f.name;
        EXPECT_NE(wrong->field.find(f.name), std::string::npos) << wrong->field;
        ++found;
      }
      if (f.rule == Rule::positive || f.rule == Rule::not_negative) {
        *static_cast<double*>(f.at(copy.get())) = -1;
        EXPECT_TRUE(first_wrong(description(kind), copy.get())) << description(kind).name << "." << f.name;
      }
      if (f.rule == Rule::positive) {
        *static_cast<double*>(f.at(copy.get())) = 0;
        EXPECT_TRUE(first_wrong(description(kind), copy.get())) << description(kind).name << "." << f.name;
      }
    }
  EXPECT_GT(found, 60);
}

namespace {

template <class E>
void expect_words(const char* of) {
  const auto [words, count] = words_of<E>();
  const auto [shown, shown_count] = shown_words_of<E>();
  ASSERT_EQ(count, shown_count) << of;
  std::set<std::string> in_file, on_screen;
  for (std::size_t k = 0; k < count; ++k) {
    EXPECT_TRUE(in_file.insert(std::string(words[k])).second) << of << " " << words[k];
    EXPECT_TRUE(on_screen.insert(std::string(shown[k])).second) << of << " " << shown[k];
    EXPECT_FALSE(words[k].empty()) << of;
    EXPECT_EQ(std::string(words[k]).find('_'), std::string::npos) << words[k];
    EXPECT_EQ(shown_word(static_cast<E>(k)), shown[k]);
  }
}

} // namespace

// File and screen speak of the same things in the same order, each by a word of its own.
TEST(Words, OfFileAndScreenGoTogether) {
  expect_words<SurfaceKind>("surface");
  expect_words<SpotKind>("spot");
  expect_words<DimensionKind>("dimension");
  expect_words<DimensionClass>("class");
  expect_words<DimensionSource>("source");
  expect_words<ToolKind>("tool");
  expect_words<LastStep>("last step");
  expect_words<JointPurpose>("purpose");
}

// The schema names every word a file may hold.
TEST(Words, StandInTheSchema) {
  const auto schema = store::build_schema();
  int words = 0;
  for (int kind = 0; kind < kind_count; ++kind)
    for (const auto& f : description(kind).fields) {
      if (f.type != FieldType::word) continue;
      for (std::size_t k = 0; k < f.words.second; ++k, ++words)
        EXPECT_NE(schema.find('"' + std::string(f.words.first[k]) + '"'), std::string::npos)
            << description(kind).name << "." << f.name << " " << f.words.first[k];
    }
  EXPECT_GT(words, 40);
}
