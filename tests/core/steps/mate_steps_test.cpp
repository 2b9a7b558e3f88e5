// With its mate at the machine: tried in it, spotted through it.

#include "steps/mate_steps.h"

#include "tests/core/steps/on_the_mill.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::steps;
using datrin::test::OnTheMill;
using datrin::test::read_in;

// Tried in its mate at the machine: one key for how it goes, the depth, one for what tells; the joint's
// record.
TEST_F(OnTheMill, ATrialIsFeltAndKept) {
  auto drawn = round("seat", SurfaceKind::bore, {-15, 0, 5}, Vec3::UnitZ(), 5);
  drawn.body = holes, drawn.face = BodyFace::side, drawn.height = 10;
  const Id bore = make(drawn);
  const Id pin_part = make(Part{"Pin", "silver steel", 1, 1});
  const Id pin = make(Piece{pin_part, 1});
  auto outside = round("outside", SurfaceKind::boss, {0, 0, 0}, Vec3::UnitZ(), 5);
  outside.part = pin_part;
  const auto diameter = [&](Id of, Id surface) {
    Dimension d;
    d.part = of, d.name = "diameter", d.surface = surface, d.nominal = 5;
    return make(d);
  };
  Joint joint;
  joint.name = "Pin in plate";
  joint.hole = diameter(part, bore);
  joint.shaft = diameter(pin_part, make(outside));
  joint.length = 10;
  joint.most = 0.02;
  const Id in_joint = make(joint);
  Operation o = *b.find<Operation>(drill);
  o.kind = OperationKind::trial;
  o.bodies = {};
  o.surfaces = {bore};
  const auto key = "try-" + std::to_string(make(o)) + "-" + std::to_string(in_joint);
  EXPECT_NE(step(key).words.find("2 jams part-way"), std::string::npos) << step(key).words;
  for (const auto* bad : {"7", "0", "x", "2", "2+0", "2+11", "2+4+9", "1.5"})
    EXPECT_FALSE(take(step(key), bad).ok()) << bad;
  EXPECT_TRUE(b.all<Trial>().empty());
  const auto told = take(step(key), "2+4.5+1+5");
  ASSERT_TRUE(told.ok()) << told.wrong;
  ASSERT_EQ(b.all<Trial>().size(), 1U);
  const auto kept = b.all<Trial>().front().second;
  EXPECT_EQ(kept.felt, Felt::jams);
  EXPECT_NEAR(kept.depth, 4.5, 1e-9);
  EXPECT_EQ(kept.hole_piece, piece);
  EXPECT_EQ(kept.shaft_piece, pin);
  EXPECT_EQ(kept.note, "ring of dye, finger nail");
  EXPECT_FALSE(step(key).done); // until it goes
  EXPECT_NE(step(key).also.find("jams at 4.5"), std::string::npos);
  EXPECT_TRUE(take(step(key), "4").ok());
  EXPECT_TRUE(take(step(key)).ok());
  EXPECT_TRUE(step(key).done);
  // Spotted through it: as wide as the mate's is.
  o.kind = OperationKind::transfer;
  o.bodies = {holes};
  const auto spot = step("transfer-" + std::to_string(make(o)) + "-" + std::to_string(holes));
  EXPECT_NEAR(*spot.number, 5, 1e-9);
  EXPECT_NE(spot.words.find("Pin"), std::string::npos);
  EXPECT_TRUE(take(spot).ok());
  EXPECT_TRUE(step(spot.key).done);
  EXPECT_FALSE(
      b.done_of(piece, spot.operation)); // one of what it does: the operation is ticked off by its own step
}
