// Stating a joint and changing it: what follows, what is refused, and which pieces go together.

#include "fits/joint_edits.h"

#include "readings/pair_pieces.h"

#include "build/edit_drawing.h"
#include "build/edits.h"
#include "readings/measure.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::fits;

namespace {

class JointEdits : public testing::Test {
protected:
  LimitsOptions millimetres() const {
    LimitsOptions options;
    options.length.bare_unit = Unit::mm;
    return options;
  }
  StatedJoint state(JointPurpose purpose, const char* hole, const char* shaft, const char* thread = "") {
    return state_joint(b, {purpose, "", thread, {0, hole}, {0, shaft}}, millimetres());
  }
  Id stated(JointPurpose purpose, const char* hole, const char* shaft) {
    const auto s = state(purpose, hole, shaft);
    EXPECT_TRUE(s.added.ok()) << s.added.wrong;
    EXPECT_TRUE(b.apply(s.added.edit));
    return s.added.id;
  }
  const Joint& joint(Id id) const { return *b.find<Joint>(id); }
  void measure(Id dimension, Id piece, double value) {
    Measurement m;
    m.dimension = dimension;
    m.piece = piece;
    m.value = value;
    m.uncertainty = 0.002;
    ASSERT_TRUE(b.apply(readings::keep_measurement(b, m)));
  }
  Build b;
};

} // namespace

// ISO 286-2: H7 at 20 mm is 0 to +21, f7 −41 to −20 µm; from memory.
TEST_F(JointEdits, TypedSizesBecomePartsOfOneDimension) {
  const Id id = stated(JointPurpose::runs_freely, "20 H7", "20 f7");
  const auto& hole = *b.find<Dimension>(joint(id).hole);
  const auto& shaft = *b.find<Dimension>(joint(id).shaft);
  EXPECT_NEAR(hole.most(), 20.021, 1e-9);
  EXPECT_NEAR(shaft.least(), 19.959, 1e-9);
  EXPECT_NE(hole.part, shaft.part);
  EXPECT_EQ(b.pieces_of(hole.part).size(), 1U);
  EXPECT_LT(joint(id).least, joint(id).most);
  EXPECT_GT(joint(id).least, 0);
  EXPECT_FALSE(joint(id).name.empty()); // what it is for
}

TEST_F(JointEdits, WhatIsWrongSaysWhere) {
  EXPECT_EQ(state(JointPurpose::runs_freely, "", "20 f7").wrong_at, JointField::hole);
  EXPECT_EQ(state(JointPurpose::runs_freely, "20 Q7", "20 f7").wrong_at, JointField::hole);
  EXPECT_EQ(state(JointPurpose::runs_freely, "20 H7", "twenty").wrong_at, JointField::shaft);
  EXPECT_EQ(state(JointPurpose::bolt_clearance, "6.6", "", "M6.3").wrong_at, JointField::thread);
  const auto wrong = state(JointPurpose::runs_freely, "20 Q7", "20 f7");
  EXPECT_NE(wrong.added.wrong.find("Q7"), std::string::npos) << wrong.added.wrong;
  EXPECT_TRUE(wrong.added.edit.empty());
}

// ISO 273: M6 passes through 6.4 to 7.0; a hole over a thread has no shaft of the build.
TEST_F(JointEdits, AHoleOverAScrewHasNoShaft) {
  const auto s = state(JointPurpose::bolt_clearance, "6.6", "", "M6");
  ASSERT_TRUE(s.added.ok()) << s.added.wrong;
  ASSERT_TRUE(b.apply(s.added.edit));
  EXPECT_EQ(joint(s.added.id).shaft, 0);
  const auto other = with_thread(b, joint(s.added.id), "M5");
  ASSERT_TRUE(other.ok()) << other.wrong;
  EXPECT_EQ(other.joint.thread, "M5");
  EXPECT_FALSE(with_thread(b, joint(s.added.id), "M5.1").ok());
}

TEST_F(JointEdits, AnotherPurposeBringsItsOwnLimits) {
  const Id id = stated(JointPurpose::runs_freely, "20 H7", "20 f7");
  const auto pressed = with_purpose(b, joint(id), JointPurpose::press);
  ASSERT_TRUE(pressed.ok()) << pressed.wrong;
  EXPECT_LT(pressed.joint.most, 0);
  const auto back = with_purpose(b, pressed.joint, JointPurpose::runs_freely);
  EXPECT_NEAR(back.joint.least, joint(id).least, 1e-12);
  EXPECT_NEAR(back.joint.most, joint(id).most, 1e-12);
}

TEST_F(JointEdits, TypedClearanceHasNoBasisAndMustBeInOrder) {
  const Id id = stated(JointPurpose::runs_freely, "20 H7", "20 f7");
  EXPECT_FALSE(joint(id).basis.empty());
  const auto typed = with_clearance(joint(id), 0.01, 0.03);
  ASSERT_TRUE(typed.ok());
  EXPECT_TRUE(typed.joint.basis.empty());
  EXPECT_FALSE(with_clearance(joint(id), 0.03, 0.01).ok());
}

// ISO 286-2 and ANSI B4.1 at 20 mm (0.787 in): H7/g6 7 to 41 µm; RC4 0.8 to 2.8 thou; from memory.
TEST_F(JointEdits, AFitByItsCode) {
  const Id id = stated(JointPurpose::runs_freely, "20 H7", "20 f7");
  const auto iso = with_fit(b, joint(id), "H7/g6");
  ASSERT_TRUE(iso.ok()) << iso.wrong;
  EXPECT_NEAR(iso.joint.least, 0.007, 1e-9);
  EXPECT_NEAR(iso.joint.most, 0.041, 1e-9);
  const auto american = with_fit(b, joint(id), "RC4");
  ASSERT_TRUE(american.ok()) << american.wrong;
  EXPECT_NEAR(american.joint.least / mm_per_thou, 0.8, 1e-9);
  EXPECT_NEAR(american.joint.most / mm_per_thou, 2.8, 1e-9);
  EXPECT_FALSE(with_fit(b, joint(id), "H7/q6").ok());
}

TEST_F(JointEdits, AnotherHoleTakesTheSameClassAtItsSize) {
  const Id id = stated(JointPurpose::slides, "20 H7", "20 g6");
  const Id other = stated(JointPurpose::slides, "50 H7", "50 g6");
  const auto changed = with_hole(b, joint(id), joint(other).hole);
  ASSERT_TRUE(changed.ok()) << changed.wrong;
  EXPECT_EQ(changed.joint.hole, joint(other).hole);
  EXPECT_NEAR(changed.joint.least, joint(other).least, 1e-12);
  EXPECT_TRUE(changed.joint.pairs.empty());
}

// By hand: holes 20.005 and 20.015, shafts 19.970 and 19.980: crosswise the clearances are alike, 0.025 and
// 0.045 − 0.01 = 0.035 … straight 0.035 both. The middle decides.
TEST_F(JointEdits, PiecesArePairedByTheirReadings) {
  const Id id = stated(JointPurpose::runs_freely, "20 H7", "20 f7");
  const auto hole = joint(id).hole, shaft = joint(id).shaft;
  const Id hole_part = b.find<Dimension>(hole)->part, shaft_part = b.find<Dimension>(shaft)->part;
  ASSERT_TRUE(b.apply(set_quantity(b, hole_part, 3)));
  ASSERT_TRUE(b.apply(set_quantity(b, shaft_part, 2)));
  EXPECT_FALSE(
      readings::pair_pieces(b, joint(id), PairingGoal::all_pairs).wrong.empty()); // nothing is read yet
  const double holes[] = {20.000, 20.010, 20.020}, shafts[] = {19.960, 19.980};
  for (std::size_t k = 0; k < 3; ++k) measure(hole, b.pieces_of(hole_part)[k].first, holes[k]);
  for (std::size_t k = 0; k < 2; ++k) measure(shaft, b.pieces_of(shaft_part)[k].first, shafts[k]);
  const auto paired = readings::pair_pieces(b, joint(id), PairingGoal::worst_pair);
  ASSERT_TRUE(paired.wrong.empty()) << paired.wrong;
  ASSERT_EQ(paired.left.size(), 1U);
  EXPECT_TRUE(paired.left[0].hole);
  // Every way there is, tried: none has a better worst pair.
  const double middle = (joint(id).least + joint(id).most) / 2;
  double best = 1e9;
  for (int a = 0; a < 3; ++a)
    for (int c = 0; c < 3; ++c)
      if (a != c)
        best = std::min(
            best, std::max(std::abs(holes[a] - shafts[0] - middle), std::abs(holes[c] - shafts[1] - middle)));
  EXPECT_NEAR(paired.worst, best, 1e-9);
  // The mate the one left over would want.
  EXPECT_NEAR(paired.left[0].mate, holes[paired.left[0].number - 1] - middle, 1e-9);
}
