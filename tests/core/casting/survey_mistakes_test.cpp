#include "casting/survey_mistakes.h"

#include "build/edits.h"
#include "casting/rescue_edit.h"
#include "casting/seat.h"
#include "demo/mill_engine.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::casting;

namespace {

/// The demo's bracket: short of metal, two slips in its survey.
struct Bracket {
  build::Build build = demo::mill_engine().build;
  build::Id part = build.parts()[3].first;
  build::Id piece = build.pieces_of(part).front().first;

  std::vector<FlaggedTouch> flagged() const {
    const auto input = piece_input(build, piece);
    return flagged_touches(build, piece, input, seat_or_start(build, piece, input));
  }
};

} // namespace

TEST(SurveyMistakes, BothSlipsAreFlaggedThroughTheirSettings) {
  const Bracket bracket;
  const auto flagged = bracket.flagged();
  ASSERT_EQ(flagged.size(), 2U);
  EXPECT_EQ(flagged[0].mistake.kind, MistakeKind::dial_turn);
  EXPECT_EQ(flagged[1].mistake.kind, MistakeKind::sign);
  EXPECT_EQ(flagged[0].number, 23);
  EXPECT_EQ(flagged[1].number, 42);
}

TEST(SurveyMistakes, PutRightTheOldValueStaysInTheRecord) {
  Bracket bracket;
  const auto one = bracket.flagged()[0];
  const auto before = *bracket.build.find<build::Touch>(one.touch);
  const auto edit = accept_suggestion(bracket.build, one);
  EXPECT_EQ(edit.label, "Put touch 23 right: y is one turn of the dial (1 mm) too much");
  ASSERT_TRUE(bracket.build.apply(edit));
  const auto* after = bracket.build.find<build::Touch>(one.touch);
  EXPECT_NEAR(before.centre.y() - after->centre.y(), 1, 1e-12);
  EXPECT_EQ(after->corrected.rfind("y was ", 0), 0U);
  EXPECT_EQ(bracket.flagged().size(), 1U);
  ASSERT_TRUE(bracket.build.apply(build::reversed(edit)));
  EXPECT_EQ(*bracket.build.find<build::Touch>(one.touch), before);
}

TEST(SurveyMistakes, ConfirmedIsNotAskedAgainAndStillUsed) {
  Bracket bracket;
  const auto used = piece_input(bracket.build, bracket.piece).seat.points.size();
  for (const auto& one : bracket.flagged())
    ASSERT_TRUE(bracket.build.apply(set_standing(bracket.build, one.touch, build::TouchStanding::confirmed)));
  EXPECT_TRUE(bracket.flagged().empty());
  EXPECT_EQ(piece_input(bracket.build, bracket.piece).seat.points.size(), used);
}

TEST(SurveyMistakes, SetAsideIsNotUsedAndCanBeCountedAgain) {
  Bracket bracket;
  const auto used = piece_input(bracket.build, bracket.piece).seat.points.size();
  const auto one = bracket.flagged()[1];
  ASSERT_TRUE(bracket.build.apply(set_standing(bracket.build, one.touch, build::TouchStanding::set_aside)));
  const auto input = piece_input(bracket.build, bracket.piece);
  EXPECT_EQ(input.seat.points.size(), used - 1);
  EXPECT_EQ(input.set_aside, 1);
  EXPECT_EQ(input.touch_index(one.touch), -1);
  ASSERT_TRUE(bracket.build.apply(set_standing(bracket.build, one.touch, build::TouchStanding::counted)));
  EXPECT_EQ(piece_input(bracket.build, bracket.piece).seat.points.size(), used);
}

TEST(SurveyMistakes, NothingIsSuggestedForWhatIsUnexplained) {
  Bracket bracket;
  auto one = bracket.flagged()[0];
  one.mistake.kind = MistakeKind::unexplained;
  EXPECT_TRUE(accept_suggestion(bracket.build, one).empty());
  one.touch = 999999;
  EXPECT_TRUE(accept_suggestion(bracket.build, one).empty());
  EXPECT_TRUE(set_standing(bracket.build, 999999, build::TouchStanding::set_aside).empty());
}

TEST(RescueEdit, EveryKindOfRescueMakesTheDrawingCleanUpAndKeepsItsReason) {
  Bracket bracket;
  for (const auto& one : bracket.flagged())
    ASSERT_TRUE(bracket.build.apply(accept_suggestion(bracket.build, one)));
  const auto input = piece_input(bracket.build, bracket.piece);
  const auto found = find_rescues(input.seat);
  ASSERT_EQ(found.status, RescueStatus::found) << found.message;
  for (const auto& rescue : found.rescues) {
    auto changed = bracket.build;
    const auto edit =
        take_rescue(changed, bracket.piece, input, rescue, found.short_by, "2020-01-01T00:00:00Z");
    EXPECT_EQ(edit.label, "Rescue: " + rescue.what);
    ASSERT_TRUE(changed.apply(edit)) << rescue.what;
    const auto after = piece_input(changed, bracket.piece);
    const auto margins = margins_at(after.seat, seat_or_start(changed, bracket.piece, after));
    EXPECT_GE(margins.least, -1e-6) << rescue.what;
    const auto decisions = changed.decisions_of(bracket.part);
    ASSERT_EQ(decisions.size(), rescue.changes.size());
    for (const auto& [id, decision] : decisions) {
      EXPECT_FALSE(decision.what.empty());
      EXPECT_EQ(decision.reason.rfind("did not clean up by ", 0), 0U);
      EXPECT_EQ(decision.piece, bracket.piece);
    }
    ASSERT_TRUE(changed.apply(build::reversed(edit)));
    EXPECT_EQ(changed.records(), bracket.build.records());
  }
}

TEST(RescueEdit, AShiftAndASleeveAreWrittenIntoTheDrawing) {
  Bracket bracket;
  const auto input = piece_input(bracket.build, bracket.piece);
  int bore = -1;
  for (std::size_t i = 0; i < input.seat.surfaces.size(); ++i)
    if (input.seat.surfaces[i].id == "bore") bore = static_cast<int>(i);
  ASSERT_GE(bore, 0);
  const auto id = input.surface_ids[static_cast<std::size_t>(bore)];
  const auto before = *bracket.build.find<build::PartSurface>(id);
  Rescue rescue;
  rescue.what = "shift and sleeve";
  rescue.changes = {{RescueKind::shift_bore, bore, 0.5, {0.3, 0, -0.4}},
                    {RescueKind::sleeve, bore, 0.6, Vec3::Zero()}};
  ASSERT_TRUE(bracket.build.apply(
      take_rescue(bracket.build, bracket.piece, input, rescue, 0.4, "2020-01-01T00:00:00Z")));
  const auto after = *bracket.build.find<build::PartSurface>(id);
  EXPECT_LT((after.point - before.point - Vec3(0.3, 0, -0.4)).norm(), 1e-12);
  EXPECT_NEAR(after.required, before.required - 0.6, 1e-12);
  EXPECT_EQ(after.diameter, before.diameter); // sleeved back to size
  const auto decisions = bracket.build.decisions_of(bracket.part);
  ASSERT_EQ(decisions.size(), 2U);
  EXPECT_EQ(decisions[0].second.what, "bore shifted by +0.30, 0.00, \u22120.40 mm");
  EXPECT_EQ(decisions[1].second.what, "bore opened to 16.20 mm and sleeved back");
}
