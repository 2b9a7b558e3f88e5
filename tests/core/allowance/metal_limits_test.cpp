// How much metal may be left on a surface by the drawing: a round one by its own size, a plane by its
// distance, on whichever side the metal is.

#include "allowance/plan.h"

#include "quantity/unit.h"
#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::allowance;

namespace {

class MetalLimits : public test::DrawnPart {
protected:
  void SetUp() override {
    part = make(Part{"Slide", "cast iron", 1, 0});
    Piece p;
    p.part = part;
    piece = make(p);
  }
  Id surface(const char* name, SurfaceKind kind, const Vec3& at, const Vec3& direction, double diameter = 0) {
    auto s = is_round(kind) ? round(name, kind, at, direction, diameter) : plane(name, at, direction);
    s.half_angle = is_cone(kind) ? std::atan(0.05) : 0;
    return make(s);
  }
  Id limits(DimensionKind kind, Id from, Id to, double nominal, double lower, double upper) {
    auto d = dimension(kind, from, to, nominal);
    d.lower = lower;
    d.upper = upper;
    return make(d);
  }
  SurfacePlan plan(Id surface) {
    const auto input = casting::piece_input(b, piece);
    for (const auto& p : surface_plans(b, piece, input, Pose{}))
      if (p.surface == surface) return p;
    ADD_FAILURE() << surface;
    return {};
  }
  void expect_metal(Id surface, double low, double high) {
    const auto p = plan(surface);
    EXPECT_NEAR(p.low, low, 1e-12) << p.drawn.name;
    EXPECT_NEAR(p.high, high, 1e-12) << p.drawn.name;
  }
  Id piece = 0;
};

} // namespace

// By hand: outside faces 20 +0.1/0 apart: what is left on one makes it more.
TEST_F(MetalLimits, OfAFaceWithTheMetalBetween) {
  const Id left = surface("left", SurfaceKind::plane, {-10, 0, 0}, -Vec3::UnitX());
  const Id right = surface("right", SurfaceKind::plane, {10, 0, 0}, Vec3::UnitX());
  limits(DimensionKind::distance, left, right, 20, 0, 0.1);
  expect_metal(left, 0, 0.1);
  expect_metal(right, 0, 0.1);
}

// By hand: the walls of a slot 20 +0.1/0 wide: what is left on one makes it less.
TEST_F(MetalLimits, OfAFaceAcrossAGap) {
  const Id left = surface("left wall", SurfaceKind::plane, {-10, 0, 0}, Vec3::UnitX());
  const Id right = surface("right wall", SurfaceKind::plane, {10, 0, 0}, -Vec3::UnitX());
  limits(DimensionKind::distance, left, right, 20, 0, 0.1);
  expect_metal(left, -0.1, 0);
  expect_metal(right, -0.1, 0);
}

// By hand: a step, both faces looking up, 12 ±0.05 apart: metal on the upper makes it more, on the lower
// less.
TEST_F(MetalLimits, OfAStepFollowFromWhichFaceItIs) {
  const Id low = surface("lower", SurfaceKind::plane, {0, 0, 0}, Vec3::UnitZ());
  const Id high = surface("upper", SurfaceKind::plane, {0, 0, 12}, Vec3::UnitZ());
  limits(DimensionKind::distance, low, high, 12, -0.02, 0.08);
  expect_metal(high, -0.02, 0.08);
  expect_metal(low, -0.08, 0.02);
}

// By hand: ⌀20 +0.021/0: a bore with metal left is small, half the tolerance a side; a boss is large.
TEST_F(MetalLimits, OfARoundSurfaceAreThoseOfItsOwnSize) {
  const Id bore = surface("bore", SurfaceKind::bore, {0, 0, 0}, Vec3::UnitY(), 20);
  const Id foot = surface("foot", SurfaceKind::plane, {0, 0, -15}, -Vec3::UnitZ());
  limits(DimensionKind::distance, foot, bore, 15, -0.3, 0.3); // stated first; no say in its size
  limits(DimensionKind::size, bore, 0, 20, 0, 0.021);
  expect_metal(bore, -0.0105, 0);
  const Id boss = surface("boss", SurfaceKind::boss, {60, 0, 0}, Vec3::UnitY(), 30);
  limits(DimensionKind::distance, foot, boss, 15, -0.3, 0.3);
  limits(DimensionKind::size, boss, 0, 30, -0.04, 0);
  expect_metal(boss, -0.02, 0);
}

// Without a size of its own a round surface has the usual limits, whatever distances it takes part in.
TEST_F(MetalLimits, ADistanceSaysNothingOfASize) {
  const Id bore = surface("bore", SurfaceKind::bore, {0, 0, 0}, Vec3::UnitY(), 20);
  const auto before = plan(bore);
  const Id foot = surface("foot", SurfaceKind::plane, {0, 0, -15}, -Vec3::UnitZ());
  limits(DimensionKind::distance, foot, bore, 15, -0.3, 0.3);
  expect_metal(bore, before.low, before.high);
}

// By hand: on a taper of 1 in 10 a millimetre a side is 2/cos α on the diameter.
TEST_F(MetalLimits, OfATaperAreCountedAtARightAngleToItsSide) {
  const Id shank = surface("shank", SurfaceKind::taper_shank, {0, 0, 0}, Vec3::UnitX(), 20);
  limits(DimensionKind::size, shank, 0, 20, -0.02, 0.04);
  const double cosine = std::cos(std::atan(0.05));
  expect_metal(shank, -0.01 * cosine, 0.02 * cosine);
}
