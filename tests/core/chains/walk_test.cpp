#include "chains/walk.h"

#include "build/edit_drawing.h"
#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::build;
using chains::walk;
using chains::WalkStep;

namespace {

/// Two blocks face to face along x, the second drawn the other way round; a lever with a hole across.
class Walk : public test::DrawnPart {
protected:
  Id part_called(const char* name) {
    const Id id = b.next_id();
    EXPECT_TRUE(b.apply(add_part(b, name).edit));
    return id;
  }
  Id surface(Id of, const char* name, SurfaceKind kind, const Vec3& at, const Vec3& direction,
             double diameter = 0) {
    part = of;
    return make(is_round(kind) ? round(name, kind, at, direction, diameter) : plane(name, at, direction));
  }
  Id stated(Id of, DimensionKind kind, Id from, Id to, double nominal) {
    part = of;
    return make(dimension(kind, from, to, nominal));
  }
  double coefficient(const chains::WalkResult& result, Id dimension) const {
    for (const auto& t : result.terms)
      if (t.dimension == dimension) return t.coefficient;
    return 0;
  }
};

} // namespace

TEST_F(Walk, SignsComeFromTheDrawingsEvenWhenOneIsTurnedRound) {
  const Id first = part_called("first"), second = part_called("second");
  const Id a = surface(first, "left", SurfaceKind::plane, {0, 0, 0}, -Vec3::UnitX());
  const Id m = surface(first, "step", SurfaceKind::plane, {30, 0, 0}, Vec3::UnitX());
  const Id e = surface(first, "right", SurfaceKind::plane, {50, 0, 0}, Vec3::UnitX());
  const Id whole = stated(first, DimensionKind::distance, a, e, 50),
           back = stated(first, DimensionKind::distance, e, m, 20);
  // The second is drawn with its seat looking along +y.
  const Id seat = surface(second, "seat", SurfaceKind::plane, {0, 12, 0}, Vec3::UnitY());
  const Id far = surface(second, "far", SurfaceKind::plane, {0, 0, 0}, -Vec3::UnitY());
  const Id thick = stated(second, DimensionKind::distance, far, seat, 12);
  // From the left of the first to its step, which the second stands on; through the second.
  const auto result = walk(b, {Vec3::UnitX(), {{first, {a}, {m}}, {second, {seat}, {far}}}});
  ASSERT_TRUE(result.ok) << result.message;
  EXPECT_EQ(coefficient(result, whole), 1);
  EXPECT_EQ(coefficient(result, back), -1);
  EXPECT_EQ(coefficient(result, thick), 1);
  EXPECT_NEAR(result.nominal, 30 + 12, 1e-12);
  // There and back again is nothing.
  const auto none = walk(b, {Vec3::UnitX(), {{first, {a}, {m}}, {first, {m}, {a}}}});
  EXPECT_FALSE(none.ok);
}

TEST_F(Walk, HalfDiametersAnglesAndAxes) {
  const Id lever = part_called("lever");
  const Id hole = surface(lever, "hole", SurfaceKind::bore, {0, 0, 0}, Vec3::UnitZ(), 8);
  const Id eye = surface(lever, "eye", SurfaceKind::bore, {30, 40, 0}, Vec3::UnitZ(), 6);
  const Id slope = surface(lever, "slope", SurfaceKind::plane, {60, 0, 0}, {1, 1, 0});
  const Id centres = stated(lever, DimensionKind::distance, hole, eye, 50),
           size = stated(lever, DimensionKind::size, eye, 0, 6),
           to_slope = stated(lever, DimensionKind::distance, hole, slope, 60 / std::sqrt(2.0));
  // Along x the centres count by cos of their slope, 30/50; the flank of the eye by half its diameter.
  auto result = walk(b, {Vec3::UnitX(), {{lever, {hole}, {eye, chains::Flank::far}}}});
  ASSERT_TRUE(result.ok) << result.message;
  EXPECT_NEAR(coefficient(result, centres), 0.6, 1e-12);
  EXPECT_NEAR(coefficient(result, size), 0.5, 1e-12);
  EXPECT_NEAR(result.nominal, 30 + 3, 1e-12);
  // A plane at 45 degrees to the way: 1/cos 45 of its distance.
  result = walk(b, {Vec3::UnitX(), {{lever, {hole}, {slope}}}});
  ASSERT_TRUE(result.ok) << result.message;
  EXPECT_NEAR(coefficient(result, to_slope), std::sqrt(2.0), 1e-12);
  EXPECT_NEAR(result.nominal, 60, 1e-9);
}

TEST_F(Walk, SaysWhichDimensionIsMissing) {
  const Id block = part_called("block");
  const Id a = surface(block, "left", SurfaceKind::plane, {0, 0, 0}, -Vec3::UnitX());
  const Id e = surface(block, "right", SurfaceKind::plane, {50, 0, 0}, Vec3::UnitX());
  EXPECT_EQ(
      walk(b, {Vec3::UnitX(), {{block, {a}, {e}}}}).message,
      "block: no dimension leads from left to right; add the distance between them in the Drawing step");
  EXPECT_EQ(walk(b, {Vec3::Zero(), {{block, {a}, {e}}}}).message, "say which way the gap is counted");
  EXPECT_EQ(walk(b, {Vec3::UnitX(), {}}).message, "choose the first feature of the chain");
  EXPECT_EQ(walk(b, {Vec3::UnitX(), {{block, {a}, {999}}}}).message,
            "stretch 1: choose a part and two of its surfaces");
}
