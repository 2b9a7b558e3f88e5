// What another datum would give: told by trying it, here against the same setups stated that way by hand.

#include "route/other_datum.h"

#include "build/edit_route.h"
#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::route;

namespace {

class OtherDatums : public test::DrawnPart {
protected:
  OtherDatums() {
    part = make(Part{"Block", "cast iron", 1, 0});
    foot = face("foot", {0, 0, 0}, -Vec3::UnitZ(), 60, 40);
    top = face("top", {0, 0, 20}, Vec3::UnitZ(), 60, 40);
    rough_top = plane("rough top", {0, 0, 26}, Vec3::UnitZ());
    rough_top.machined = false;
    raw = make(rough_top);
    end_a = face("end A", {-30, 0, 10}, -Vec3::UnitX(), 40, 20);
    end_b = face("end B", {30, 0, 10}, Vec3::UnitX(), 40, 20);
  }
  const DimensionSpread& worst(const PartSpread& s) const { return s.dimensions.front(); }

  PartSurface rough_top;
  Id foot = 0, top = 0, raw = 0, end_a = 0, end_b = 0;
};

// Footed on the raw top though the top is cut: to stand it on that is what helps.
TEST_F(OtherDatums, TheCutFaceInsteadOfTheRawOne) {
  limited("thick", foot, top, 20);
  setup("top up", {foot}, {top}, 0);
  const Id second = setup("foot up", {raw}, {foot}, 1);
  const auto before = part_spread(b, part);
  const auto other = other_datum(b, part, worst(before));
  ASSERT_TRUE(other);
  EXPECT_EQ(other->setup, second);
  EXPECT_EQ(other->instead_of, raw);
  EXPECT_EQ(other->datum, top);
  EXPECT_EQ(other->text, "stand the part in \"foot up\" on top instead of rough top");
  ASSERT_TRUE(b.apply(other->edit));
  const auto after = part_spread(b, part);
  EXPECT_NEAR(worst(after).sigma, other->sigma, 1e-12);
  EXPECT_LT(other->sigma, 0.1 * worst(before).sigma);
  EXPECT_FALSE(other_datum(b, part, worst(after))); // nothing better is left
}

// Nothing locates it along its length: a face that is cut does, as one more.
TEST_F(OtherDatums, OneMoreWhereNothingLocates) {
  limited("long", end_a, end_b, 60);
  setup("end A", {foot}, {end_a}, 0);
  const Id second = setup("end B", {foot}, {end_b}, 1);
  const auto other = other_datum(b, part, worst(part_spread(b, part)));
  ASSERT_TRUE(other);
  EXPECT_EQ(other->setup, second);
  EXPECT_EQ(other->instead_of, 0);
  EXPECT_EQ(other->datum, end_a);
  EXPECT_EQ(other->text, "put the part in \"end B\" against end A as well");
}

TEST_F(OtherDatums, CandidatesAreThereByThenAndLookTheRightWay) {
  setup("top up", {foot}, {top}, 0);
  const Id second = setup("foot up", {top}, {foot}, 1);
  EXPECT_TRUE(datum_candidates(b, second, 0).empty()); // end faces look aside, the foot is cut there
  const auto more = datum_candidates(b, second, 1);
  EXPECT_TRUE(more.empty()); // the ends are not cut by then, and it does not stand on raw metal
  setup("ends", {foot}, {end_a}, 0.5);
  EXPECT_EQ(datum_candidates(b, second, 1), std::vector<Id>{end_a});
  EXPECT_TRUE(datum_candidates(b, second, 7).empty());
  EXPECT_TRUE(datum_candidates(b, 999, 0).empty());
}

TEST_F(OtherDatums, TheSearchTakesAllThatHelp) {
  limited("thick", foot, top, 20);
  limited("long", end_a, end_b, 60);
  setup("top up", {foot}, {top, end_a}, 0);
  setup("foot up", {raw}, {foot, end_b}, 1);
  const auto before = part_spread(b, part);
  const auto said = better_datums(b, part);
  EXPECT_EQ(said.size(), 2U);
  const auto after = part_spread(b, part);
  EXPECT_LT(worst(after).expected() / worst(after).allowed,
            0.2 * worst(before).expected() / worst(before).allowed);
  EXPECT_TRUE(better_datums(b, part).empty());
}

// A hole bored from the foot and an end: its place from these is what the locators and the cut leave, along
// each: the root of their squares, by the setups' own sums (see part_spread_test). The one turned over is
// farther off.
TEST_F(OtherDatums, PositionIsHeldToItsZone) {
  const Id bore = make(round("bore", SurfaceKind::bore, {0, 0, 10}, Vec3::UnitY(), 10));
  setup("foot", {top, end_b}, {foot, end_a}, 0);
  setup("bore", {foot, end_a}, {bore}, 1);
  GeometricTolerance t;
  t.surface = bore;
  t.datums = {foot, end_a};
  t.within = 0.2;
  const auto added = add_tolerance(b, t);
  ASSERT_TRUE(added.ok());
  ASSERT_TRUE(b.apply(added.edit));
  const auto spread = part_spread(b, part);
  ASSERT_FALSE(spread.dimensions.empty());
  const auto& d = spread.dimensions.front();
  EXPECT_EQ(d.of, SpreadOf::position);
  EXPECT_EQ(d.tolerance, added.id);
  EXPECT_NEAR(d.allowed, 0.1, 1e-12);
  EXPECT_EQ(spread_name(b, d), "place of bore from foot");
  // Three locators on the foot leave 3/8 of a variance at its middle, the cut one more.
  const double up = std::sqrt(0.01 * 0.01 * (1.0 / 16 + 1.0 / 16 + 1.0 / 4) + 0.01 * 0.01);
  EXPECT_GE(d.sigma, up - 1e-9);
  EXPECT_LT(d.sigma, 2 * up);
  EXPECT_TRUE(d.fits());
}

TEST_F(OtherDatums, SquareAndCoaxialAreHeldToTheirs) {
  const Id one = make(round("one", SurfaceKind::boss, {-40, 0, 10}, Vec3::UnitX(), 10));
  const Id two = make(round("two", SurfaceKind::boss, {40, 0, 10}, Vec3::UnitX(), 10));
  setup("first", {end_a}, {one, foot}, 0);
  setup("second", {foot}, {two, end_b}, 1);
  const auto free = part_spread(b, part);
  for (const auto& d : free.dimensions) EXPECT_EQ(d.allowed, 0);
  const auto rows = free.dimensions.size();
  GeometricTolerance t;
  t.what = Characteristic::coaxial;
  t.surface = two;
  t.datums = {one};
  t.within = 0.03;
  ASSERT_TRUE(b.apply(add_tolerance(b, t).edit));
  t.what = Characteristic::square;
  t.surface = end_b;
  t.datums = {foot};
  t.within = 0.02;
  ASSERT_TRUE(b.apply(add_tolerance(b, t).edit));
  const auto held = part_spread(b, part);
  EXPECT_EQ(held.dimensions.size(), rows); // each once
  int found = 0;
  for (const auto& d : held.dimensions) {
    if (d.tolerance == 0) continue;
    ++found;
    EXPECT_NEAR(d.allowed, d.of == SpreadOf::coaxial ? 0.015 : 0.02, 1e-12);
    // Runout is twice how far the axes lie apart: within the zone when that is.
    if (d.of == SpreadOf::coaxial) {
      EXPECT_EQ(d.fits(), d.tir() <= 0.03);
    }
  }
  EXPECT_EQ(found, 2);
  EXPECT_NE(add_tolerance(b, {part, Characteristic::square, end_b, {}, 0.1, 0}).wrong.find("taken from"),
            std::string::npos);
  EXPECT_NE(add_tolerance(b, {part, Characteristic::square, end_b, {foot}, 0, 0}).wrong.find("above 0"),
            std::string::npos);
  EXPECT_NE(add_tolerance(b, {part, Characteristic::square, end_b, {end_b}, 1, 0}).wrong.find("from itself"),
            std::string::npos);
}

} // namespace
