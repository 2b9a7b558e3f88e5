#include "demo/mill_engine.h"

#include "casting/seat.h"
#include "casting/survey.h"

#include <gtest/gtest.h>

using namespace datrin;

namespace {

casting::SeatResult seated(const demo::DemoBuild& demo, std::size_t k) {
  const auto input = casting::piece_input(demo.build, demo.pieces[k].piece);
  casting::SeatOptions options;
  options.start = casting::seat_or_start(demo.build, demo.pieces[k].piece, input);
  return casting::seat(input.seat, options);
}

} // namespace

TEST(MillEngine, IsTheSameEveryTime) {
  const auto a = demo::mill_engine(), b = demo::mill_engine();
  EXPECT_EQ(a.build.records(), b.build.records());
  EXPECT_EQ(a.build.parts().size(), 32U);
}

TEST(MillEngine, EditsMakeIt) {
  const auto demo = demo::mill_engine();
  build::Build again;
  for (const auto& edit : demo.edits) ASSERT_TRUE(again.apply(edit)) << edit.label;
  EXPECT_EQ(again.records(), demo.build.records());
}

// The castings lie in poses the generator knows; the seat finds them within what stock, draft and roughness
// allow.
TEST(MillEngine, SeatsAreNearTheTruePoses) {
  const auto demo = demo::mill_engine();
  ASSERT_EQ(demo.pieces.size(), 3U);
  for (std::size_t k = 0; k < demo.pieces.size(); ++k) {
    const auto result = seated(demo, k);
    ASSERT_TRUE(result.usable()) << result.message;
    EXPECT_TRUE(result.check.holds) << result.check.message;
    EXPECT_TRUE(result.undetermined.empty());
    const Vec3 turn = vector_from_rotation(result.pose.rotation * demo.pieces[k].truth.rotation.transpose());
    EXPECT_LT(turn.norm(), radians(1.5)) << k;
    const Vec3 middle(0, 0, 30);
    const Vec3 off = result.pose.apply(demo.pieces[k].truth.inverse().apply(middle)) - middle;
    EXPECT_LT(off.norm(), 0.6 + demo.pieces[k].core_drift.norm()) << k;
  }
}

// The second pedestal's core drifted badly: its seat gives way to it, and it has less room than the first.
TEST(MillEngine, TheDriftedCoreCostsRoom) {
  const auto demo = demo::mill_engine();
  const auto first = seated(demo, 0), second = seated(demo, 1);
  EXPECT_TRUE(first.cleans_up());
  EXPECT_TRUE(second.cleans_up());
  EXPECT_LT(second.margins.least, first.margins.least - 0.3);
  const auto off = [&](const casting::SeatResult& r, std::size_t k) {
    const Vec3 centre(0, 0, 46);
    return Vec3(r.pose.apply(demo.pieces[k].truth.inverse().apply(centre)) - centre);
  };
  EXPECT_LT(off(second, 1).dot(demo.pieces[1].core_drift), -0.2); // the part moved with the core
}
