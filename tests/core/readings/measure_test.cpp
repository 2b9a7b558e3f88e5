#include "readings/measure.h"

#include "build/edits.h"
#include "chains/build_targets.h"
#include "demo/mill_engine.h"
#include "quantity/unit.h"
#include "readings/size_now.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::readings;
using chains::build_targets;

class Measure : public testing::Test {
protected:
  void SetUp() override {
    mm.bare_unit = Unit::mm;
    for (const auto& [id, j] : b.joints())
      if (j.name == "Eccentric on shaft") {
        const auto pair = chains::joint_pairs(b, j).front();
        hole = {j.hole, pair.first};
        shaft = {j.shaft, pair.second};
        joint = id;
      }
    micrometer = b.instruments().front().first; // shows 0.002 too much, \u00B10.003
  }
  Measured take(const Made& made, const char* text, Id instrument = 0, std::optional<Place> place = {}) {
    MeasureInput in;
    in.made = made;
    in.mate = made == hole ? shaft : hole;
    in.text = text;
    in.instrument = instrument;
    in.place = place;
    in.at = "2026-11-25T10:00:00Z";
    return measure(b, in, mm);
  }
  void keep(const Measured& read) {
    ASSERT_TRUE(read.ok) << read.message;
    ASSERT_TRUE(b.apply(keep_measurement(b, read.measurement)));
  }
  Build b = demo::mill_engine().build;
  LengthOptions mm;
  Made hole, shaft;
  Id joint = 0, micrometer = 0;
};

TEST_F(Measure, TheInstrumentsErrorIsTakenOffAndWhatWasTypedKept) {
  const auto read = take(hole, "17.012", micrometer);
  ASSERT_TRUE(read.ok) << read.message;
  EXPECT_NEAR(read.measurement.value, 17.010, 1e-12);
  EXPECT_NEAR(read.measurement.uncertainty, 0.003, 1e-12);
  EXPECT_EQ(read.measurement.read, "17.012");
  const auto bare = take(hole, "17.012 \u00B10.001");
  EXPECT_EQ(bare.measurement.value, 17.012);
  EXPECT_EQ(bare.measurement.uncertainty, 0.001);
  EXPECT_TRUE(bare.measurement.read.empty());
  EXPECT_TRUE(bare.measurement.instrument.empty());
  // What was typed stands above what the shop says of the instrument.
  EXPECT_EQ(take(hole, "17.012 \u00B10.001", micrometer).measurement.uncertainty, 0.001);
}

TEST_F(Measure, AComparisonNeedsItsMateAndIsSurerThanTwoSizes) {
  EXPECT_EQ(take(shaft, "mate -0.022").message, "its mate is not read yet: there is nothing to compare with");
  keep(take(hole, "17.010 \u00B10.008"));
  keep(take(shaft, "mate -0.022 \u00B10.002"));
  auto targets = build_targets(b);
  const auto c = static_cast<std::size_t>(targets.tightest_of_joint(joint));
  EXPECT_NEAR(targets.result.conditions[c].expected, 0.022, 1e-12);
  EXPECT_NEAR(targets.result.conditions[c].spread, 0.002, 1e-12); // not 0.008 + 0.002 + 0.008
  // The mate is read again: the shaft goes with it, the clearance stays what was compared.
  keep(take(hole, "17.014 \u00B10.001"));
  targets = build_targets(b);
  EXPECT_NEAR(*targets.input.dimensions[static_cast<std::size_t>(targets.index_of(shaft))].measured, 16.992,
              1e-12);
  EXPECT_NEAR(targets.result.conditions[c].expected, 0.022, 1e-12);
}

TEST_F(Measure, SeveralPlacesKeepWhatWasReadBefore) {
  keep(take(hole, "17.012 \u00B10.002"));
  keep(take(hole, "17.006", micrometer, Place{20, pi / 2}));
  auto m = *size_now(b, hole).measurement;
  ASSERT_EQ(m.places.size(), 2U);
  EXPECT_EQ(m.places[0].value, 17.012); // the plain reading, as taken
  EXPECT_NEAR(m.value, 17.004, 1e-12);  // the smallest of a hole, the micrometer's error off
  EXPECT_NEAR(m.uncertainty, 0.003, 1e-12);
  keep(take(hole, "17.020", micrometer, Place{5, 0}));
  EXPECT_NEAR(size_now(b, hole).value, 17.004, 1e-12);
  keep(take(shaft, "16.980", 0, Place{0, 0}));
  keep(take(shaft, "16.986", 0, Place{10, 0}));
  EXPECT_EQ(size_now(b, shaft).value, 16.986); // the largest of a shaft
  EXPECT_EQ(take(hole, "go 17 no-go 17.02", 0, Place{5, 0}).message,
            "at one place of several a plain size is read, like 24.013");
}

TEST_F(Measure, WhatCannotBeIsRefusedAndNothingKept) {
  EXPECT_NE(take(hole, "432").message.find("is the unit right?"), std::string::npos);
  EXPECT_NE(take(hole, "17 in").message.find("is the unit right?"), std::string::npos);
  EXPECT_FALSE(take(hole, "").ok);
  EXPECT_FALSE(take(hole, "seventeen").ok);
  EXPECT_FALSE(take({hole.dimension, 0}, "17").ok);
  EXPECT_EQ(take({999999, hole.piece}, "17").message, "there is no such dimension of a piece any more");
  EXPECT_FALSE(size_now(b, hole).read());
}

TEST_F(Measure, TheEditSaysWhatItDoes) {
  const auto first = take(hole, "17.012");
  EXPECT_EQ(keep_measurement(b, first.measurement).label, "Measure Eccentric sheave, bore: 17.012\u202Fmm");
  keep(first);
  EXPECT_EQ(keep_measurement(b, take(hole, "17.013").measurement).label,
            "Measure Eccentric sheave, bore again: 17.013\u202Fmm, was 17.012\u202Fmm");
  EXPECT_EQ(keep_measurement(b, take(hole, "17.013", 0, Place{3, 0}).measurement).label,
            "Read Eccentric sheave, bore at another place: 17.012\u202Fmm");
}
