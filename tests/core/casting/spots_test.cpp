// What is seen on a casting is decided, done, and asked for at the gate. Cures: common practice.

#include "casting/spots.h"

#include "allowance/plan.h"
#include "casting/survey.h"
#include "route/gate.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::build;
using casting::usual_cure;

TEST(Spots, FlashIsDressedOffHardSkinIsWatched) {
  EXPECT_EQ(usual_cure(SpotKind::flash), SpotCure::dress_off);
  EXPECT_EQ(usual_cure(SpotKind::parting), SpotCure::dress_off);
  EXPECT_EQ(usual_cure(SpotKind::hard_skin), SpotCure::watch);
  EXPECT_EQ(usual_cure(SpotKind::short_fill), SpotCure::fill);
  EXPECT_EQ(usual_cure(SpotKind::draft), SpotCure::leave);
}

TEST(Spots, TheGateAsksForWhatIsOpenOnItsFacesOnly) {
  Build b;
  const auto put = [&b](Record record) {
    const Id id = b.next_id();
    EXPECT_TRUE(b.apply(add(b, std::move(record), "Make")));
    return id;
  };
  const Id part = put(Part{"Bracket", "cast iron", 1, 0});
  const Id piece = put(Piece{part, 1});
  const auto face = [&](const char* name, double z) {
    PartSurface s;
    s.part = part;
    s.name = name;
    s.point = {0, 0, z};
    s.direction = {0, 0, z > 0 ? 1.0 : -1.0};
    s.width = s.height = 40;
    return put(s);
  };
  const Id foot = face("foot", 0), top = face("top", 20);
  build::Setup setup;
  setup.part = part;
  setup.name = "first";
  setup.datums = {foot};
  const Id first = put(setup);
  setup.name = "second";
  setup.datums = {top};
  const Id second = put(setup);
  Spot spot;
  spot.piece = piece;
  spot.surface = foot;
  spot.kind = SpotKind::flash;
  spot.size = 1.2;
  spot.cure = usual_cure(spot.kind);
  const Id flash = put(spot);
  const auto asked = [&](Id of) {
    std::vector<std::string> out;
    for (const auto& item : route::unclamp_gate(b, piece, of, {}).items)
      if (item.kind == route::GateKind::spot && !item.done) out.push_back(item.text);
    return out;
  };
  EXPECT_EQ(asked(first), std::vector<std::string>{"flash on foot, 1.20\u202Fmm: dress off first"});
  EXPECT_TRUE(asked(second).empty());
  const auto done = casting::mark_spot_done(b, flash, true);
  EXPECT_EQ(done.label, "flash on foot, 1.20\u202Fmm: dress off first, done");
  ASSERT_TRUE(b.apply(done));
  EXPECT_TRUE(asked(first).empty());
  EXPECT_TRUE(casting::mark_spot_done(b, flash, true).empty());           // it is already
  ASSERT_TRUE(b.apply(casting::decide_spot(b, flash, SpotCure::reject))); // decided anew, it is open again
  EXPECT_EQ(asked(first).size(), 1U);
  ASSERT_TRUE(b.apply(casting::decide_spot(b, flash, SpotCure::leave)));
  EXPECT_TRUE(asked(first).empty());
}
