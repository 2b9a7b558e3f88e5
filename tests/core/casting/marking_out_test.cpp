#include "casting/marking_out.h"

#include "casting/explain.h"
#include "casting/seat.h"
#include "casting/survey_gaps.h"
#include "quantity/unit.h"
#include "sim/pedestal.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::casting;

namespace {

/// A slab with its foot at z = 0, a bore along y at z = 40, and four touches under the foot at the corners of
/// a rectangle 80 × 30, on a raw underside that is flat in the survey frame.
MarkingInput slab(const Pose& seat, double raw = -2) {
  MarkingInput input;
  input.part.surfaces = {{"foot", {SurfaceKind::plane, Vec3::Zero(), -Vec3::UnitZ(), 0}, true, 0.5},
                         {"top", {SurfaceKind::plane, {0, 0, 60}, Vec3::UnitZ(), 0}, true, 0.5},
                         {"end", {SurfaceKind::plane, {45, 0, 30}, Vec3::UnitX(), 0}, true, 0.5},
                         {"bore", {SurfaceKind::bore, {0, 0, 40}, Vec3::UnitY(), 20}, true, 0.5}};
  for (const double x : {-40.0, 40.0})
    for (const double y : {-15.0, 15.0}) {
      input.part.points.push_back({0, {x, y, raw}, 0});
      input.part.points.push_back({1, {x, y, 62}, 0.02});
    }
  input.seat = seat;
  input.reference = 0;
  input.base_height = 25;
  return input;
}

double height_of(const MarkingResult& result, int surface) {
  for (const auto& line : result.lines)
    if (line.surface == surface) return line.height;
  return std::nan("");
}

} // namespace

TEST(MarkingOut, LinesStandWhereTheDrawingSaysAboveTheBase) {
  const auto result = mark_out(slab({}));
  ASSERT_TRUE(result.usable()) << result.message;
  EXPECT_DOUBLE_EQ(height_of(result, 0), 25);
  EXPECT_DOUBLE_EQ(height_of(result, 1), 85);
  EXPECT_DOUBLE_EQ(height_of(result, 3), 65);
  for (const auto& jack : result.jacks) EXPECT_DOUBLE_EQ(jack.height, 23);
  ASSERT_EQ(result.not_scribed.size(), 1U);
  EXPECT_EQ(result.not_scribed[0].surface, 2);
  EXPECT_TRUE(result.stands);
  EXPECT_TRUE(result.caution.empty()) << result.caution;
}

// Closed form: where the raw underside lies tilted in the drawing by t, jacks a span s apart differ by s ·
// sin t.
TEST(MarkingOut, TiltedBaseDiffersBySpanTimesSine) {
  const double tilt = radians(1.5);
  const auto result = mark_out(slab({rotation_from_vector({0, tilt, 0}), Vec3::Zero()}));
  ASSERT_TRUE(result.usable());
  double low = 1e9, high = -1e9;
  for (const auto& jack : result.jacks) {
    low = std::min(low, jack.height);
    high = std::max(high, jack.height);
  }
  EXPECT_NEAR(high - low, 80 * std::sin(tilt), 1e-9);
  EXPECT_DOUBLE_EQ(height_of(result, 3) - height_of(result, 0), 40); // the drawing itself stands true
}

TEST(MarkingOut, UpsideDown) {
  auto input = slab({});
  input.up = -Vec3::UnitZ();
  input.reference = 1;
  const auto result = mark_out(input);
  ASSERT_TRUE(result.usable()) << result.message;
  EXPECT_DOUBLE_EQ(height_of(result, 1), 25);
  EXPECT_DOUBLE_EQ(height_of(result, 0), 85);
  EXPECT_DOUBLE_EQ(height_of(result, 3), 45);
}

TEST(MarkingOut, TheLowestJackMayCarryTheBaseHeight) {
  auto input = slab({rotation_from_vector({0, 0.02, 0}), Vec3::Zero()});
  input.reference = -1;
  const auto result = mark_out(input);
  double low = 1e9;
  for (const auto& jack : result.jacks) low = std::min(low, jack.height);
  EXPECT_NEAR(low, 25, 1e-12);
}

TEST(MarkingOut, ChecksReadWhatTheTouchesSay) {
  const auto result = mark_out(slab({}));
  ASSERT_EQ(result.checks.size(), 4U);
  for (const auto& check : result.checks) {
    EXPECT_DOUBLE_EQ(check.height, 87); // the raw top, 62 above the foot's line at 25
    EXPECT_DOUBLE_EQ(check.uncertainty, 0.02);
  }
}

TEST(MarkingOut, EveryHeightShowsItsSum) {
  const auto pedestal = sim::random_pedestal({.seed = 8});
  MarkingInput input;
  input.part = pedestal.input;
  input.seat = seat(pedestal.input).pose;
  input.reference = 0;
  const auto result = mark_out(input);
  ASSERT_TRUE(result.usable()) << result.message;
  for (const auto& jack : result.jacks) EXPECT_NEAR(jack.reckoning.total(), jack.height, 1e-12);
  for (const auto& line : result.lines) EXPECT_NEAR(line.reckoning.total(), line.height, 1e-12);
  EXPECT_NEAR(height_of(result, 5) - height_of(result, 0), 34, 1e-12);
}

TEST(MarkingOut, SaysWhyItCannotStand) {
  auto input = slab({});
  input.part.points.resize(3); // one touch under the foot, two on top
  input.jacks = {-1, -1, -1};
  auto result = mark_out(input);
  EXPECT_EQ(result.status, MarkingStatus::too_few_underneath);
  EXPECT_EQ(result.message, "only 2 of the touches are on the underside this way up; touch at least three "
                            "places there, well apart, for the jacks to stand under");

  input = slab({});
  for (auto& point : input.part.points) point.xyz.y() = 0;
  EXPECT_EQ(mark_out(input).status, MarkingStatus::jacks_in_line);

  input = slab({});
  input.up = {0, 0, 2};
  EXPECT_EQ(mark_out(input).message, "the upward direction is not of unit length");
  input = slab({});
  input.reference = 2;
  EXPECT_EQ(mark_out(input).message, "the reference surface does not lie level this way up");
}

TEST(MarkingOut, CautionsAboutJacksThatCannotBe) {
  auto input = slab({});
  input.base_height = 1.5;
  EXPECT_EQ(mark_out(input).caution, "a jack would have to stand below the plate: raise the base height");
  input.base_height = 25;
  input.jacks = {0, 2, 4}; // two at one end and one at the other: the middle is on the edge
  EXPECT_TRUE(mark_out(input).stands);
  input.part.points.push_back({1, {400, 0, 62}, 0}); // something heavy far out
  EXPECT_FALSE(mark_out(input).stands);
  EXPECT_NE(mark_out(input).caution.find("may tip"), std::string::npos);
}

TEST(MarkingOut, WaysUpAreNamedByWhatFacesDown) {
  const auto ways = ways_up(slab({}).part);
  ASSERT_EQ(ways.size(), 6U);
  EXPECT_EQ(ways[0].name, "foot down");
  EXPECT_EQ(ways[1].name, "top down");
  EXPECT_EQ(ways[3].name, "end down");
  EXPECT_EQ(ways[2].name, "+x up");
}

TEST(SurveyGaps, SaysWhatToTouch) {
  auto part = slab({}).part;
  const auto gaps = survey_gaps(part);
  ASSERT_EQ(gaps.size(), 2U);
  EXPECT_EQ(gaps[0].text, "end: touch 3 places, well apart (0 so far)");
  EXPECT_EQ(gaps[1].text, "bore: touch three places around at each of two depths (0 so far)");
}

TEST(Explain, TheSumIsTheMargin) {
  const auto pedestal = sim::random_pedestal({.seed = 2});
  auto input = pedestal.input;
  for (auto& point : input.points) point.uncertainty = 0.05;
  const auto margins = margins_at(input, pedestal.truth);
  for (const auto& group : margins.groups) {
    const auto why = explain_margin(input, group);
    EXPECT_NEAR(why.total(), group.margin, 1e-12);
    EXPECT_EQ(why.lines.size(), 3U);
  }
  EXPECT_EQ(group_name(input, margins.groups.back()), "wall at boss");
  input.walls.push_back({6, 0, 3});
  EXPECT_EQ(group_name(input, margins.groups.back()), "wall boss to bore");
}
