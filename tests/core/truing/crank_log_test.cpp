// The record of a crank being trued. Common practice: 0.5 mm of runout brought to 0.02.

#include "truing/crank_log.h"

#include "build/edits.h"
#include "truing/runout.h"

#include <gtest/gtest.h>

#include <cmath>
#include <limits>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::truing;

namespace {

class CrankInTheBuild : public testing::Test {
protected:
  CrankInTheBuild() {
    const Id crank = take(Part{"Crank", "steel", 1, 0});
    piece = take(Piece{crank, 1});
  }
  Id take(Record record) {
    const Id id = b.next_id();
    EXPECT_TRUE(b.apply(add(b, std::move(record), "x")));
    return id;
  }
  /// Read with an offset of `left` and `right` towards the pin, mm.
  CrankEdit read(double left, double right, Unit unit = Unit::mm) {
    CrankTyped typed;
    const double in = unit == Unit::mm ? 1 : 1 / 25.4;
    typed.left = std::to_string(left * in) + " 0 " + std::to_string(-left * in) + " 0";
    typed.right = "0:" + std::to_string(right * in) + " 90:0 180:" + std::to_string(-right * in) + " 270:0";
    for (auto* text : {&typed.left, &typed.right})
      for (auto& c : *text)
        if (c == ',') c = '.'; // to_string writes as the locale does
    typed.shaft = 60;
    typed.rim = 30;
    auto kept = read_crank(b, piece, typed, unit, "2026-11-27T10:00:00Z");
    EXPECT_TRUE(!kept.ok() || b.apply(kept.edit));
    return kept;
  }
  Build b;
  Id piece = 0;
};

} // namespace

TEST_F(CrankInTheBuild, ReadStruckReadAgainTeachesHowItAnswers) {
  EXPECT_FALSE(crank_log(b, piece).any());
  EXPECT_FALSE(strike_crank(b, piece, CrankMove::open, 0.1, {}).ok());
  ASSERT_TRUE(read(0.25, 0.25).ok());
  auto log = crank_log(b, piece);
  ASSERT_EQ(log.rows.size(), 1U);
  EXPECT_NEAR(log.rows[0].left, 0.5, 1e-9); // the indicator shows twice what it lies off
  EXPECT_EQ(log.advice.move, CrankMove::open);
  EXPECT_NEAR(log.advice.amount, 0.5, 1e-9);
  EXPECT_NEAR(log.advice.at_rim, 0.25, 1e-9); // a kink of 0.5 in 60, 30 from the pin
  const auto blow = strike_crank(b, piece, CrankMove::open, log.advice.amount, "wedge");
  ASSERT_TRUE(blow.ok() && b.apply(blow.edit));
  EXPECT_NE(strike_crank(b, piece, CrankMove::open, 0.1, {}).wrong.find("read it again"), std::string::npos);
  ASSERT_TRUE(read(0.15, 0.15).ok()); // it did 0.2 of 0.5
  log = crank_log(b, piece);
  EXPECT_TRUE(log.rows[0].answered);
  EXPECT_NEAR(log.rows[0].did, 0.2, 1e-9);
  EXPECT_NEAR(log.advice.strength, 2.5, 1e-9);
  EXPECT_NEAR(log.asked(), 0.15 * 2.5, 1e-9); // what is left at the wedge, by how it answers
  const auto sum = advice_sum(log, Unit::mm);
  EXPECT_NEAR(sum.total(), 0.3, 1e-9);
  EXPECT_EQ(sum.lines.back().figure, "40\u202F%");
  // True: it says stop.
  ASSERT_TRUE(b.apply(strike_crank(b, piece, CrankMove::open, 0.3, {}).edit));
  ASSERT_TRUE(read(0.005, 0.005).ok());
  EXPECT_EQ(crank_log(b, piece).advice.move, CrankMove::none);
  EXPECT_TRUE(advice_sum(crank_log(b, piece), Unit::mm).lines.empty());
  // Taken back one by one: the reading, then the blow before it.
  ASSERT_TRUE(b.apply(take_back_reading(b, piece)));
  EXPECT_EQ(crank_log(b, piece).rows.size(), 2U);
  EXPECT_EQ(crank_log(b, piece).rows.back().move, CrankMove::open);
  ASSERT_TRUE(b.apply(take_back_reading(b, piece)));
  EXPECT_EQ(crank_log(b, piece).rows.back().move, CrankMove::none);
}

TEST_F(CrankInTheBuild, InchesAreKeptAsWhatTheyAre) {
  ASSERT_TRUE(read(0.25, 0.25, Unit::inch).ok());
  EXPECT_NEAR(crank_log(b, piece).rows[0].left, 0.5, 1e-4);
}

TEST_F(CrankInTheBuild, WhatCannotBeIsRefused) {
  CrankTyped typed;
  typed.left = "0.05 0 -0.05 0";
  typed.right = "0.05 0";
  typed.shaft = 60;
  EXPECT_NE(read_crank(b, piece, typed, Unit::mm, "").wrong.find("right web"), std::string::npos);
  typed.right = "0:0.05 0:0.04 180:0";
  EXPECT_FALSE(read_crank(b, piece, typed, Unit::mm, "").ok());
  typed.right = typed.left;
  typed.shaft = 0;
  EXPECT_FALSE(read_crank(b, piece, typed, Unit::mm, "").ok());
  ASSERT_TRUE(read(0.1, 0.1).ok());
  EXPECT_FALSE(strike_crank(b, piece, CrankMove::open, std::numeric_limits<double>::quiet_NaN(), {}).ok());
}

// Readings alone stand evenly round, the first at 0.
TEST(Readings, WithoutAnglesTheyStandEvenlyRound) {
  const auto read = parse_readings("0.05 0 -0.05 0", Unit::mm);
  ASSERT_TRUE(read.ok()) << read.wrong;
  ASSERT_EQ(read.readings.size(), 4U);
  EXPECT_NEAR(read.readings[1].at, std::acos(-1) / 2, 1e-12);
  EXPECT_NEAR(parse_readings("1 2 3", Unit::mm).readings[2].at, 4 * std::acos(-1) / 3, 1e-12);
  EXPECT_FALSE(parse_readings("0.05 0", Unit::mm).ok()); // two say nothing of a round
  EXPECT_FALSE(parse_readings("0:0.05 0.02 0.03", Unit::mm).ok());
}
