// What a foundry makes of a drawing: raw sizes by the row of the raw size, walls, small features, and the
// shrinkage found again exactly.

#include "casting/as_cast.h"
#include "casting/expect.h"
#include "casting/foundry_tables.h"
#include "casting/pattern.h"

#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::casting;

namespace {

class Foundry8062 : public test::DrawnPart {
protected:
  void SetUp() override {
    part = make(Part{"Plate", "cast iron", 1, 0});
    foundry = foundry_or_usual(b, part);
    foundry.tolerance_grade = 11;
    foundry.allowance = "G";
  }
  Id flat(const char* name, const Vec3& at, const Vec3& faces, double width, double height, bool machined) {
    auto s = plane(name, at, faces);
    s.width = width;
    s.height = height;
    s.machined = machined;
    return make(s);
  }
  Id turned(const char* name, SurfaceKind kind, double diameter, bool machined) {
    auto s = round(name, kind, Vec3::Zero(), Vec3::UnitZ(), diameter);
    s.machined = machined;
    return make(s);
  }
  Foundry foundry;
};

} // namespace

// ISO 8062-3:2007, table 2, DCTG 11, and table 7, RMAG G; from memory. A face 38.5 mm high machined on both
// sides of a casting 90 long: 38.5 + 2 · 1.4 is over 40 already, so that the row over 40 to 63 counts (4.0),
// not that of the finished size (3.6).
TEST_F(Foundry8062, TheRowIsThatOfTheRawSize) {
  const Id top = flat("top", {0, 0, 38.5}, Vec3::UnitZ(), 90, 60, true);
  flat("foot", {0, 0, 0}, -Vec3::UnitZ(), 90, 60, true);
  flat("end", {45, 0, 19}, Vec3::UnitX(), 60, 38, false);
  flat("other end", {-45, 0, 19}, -Vec3::UnitX(), 60, 38, false);
  const auto e = expect_casting(b, part, foundry);
  ASSERT_TRUE(e.usable()) << e.message;
  ASSERT_NE(e.of(top), nullptr);
  EXPECT_EQ(e.allowance, 1.4);
  EXPECT_DOUBLE_EQ(e.of(top)->tolerance, 4.0);
  EXPECT_DOUBLE_EQ(e.of(top)->raw, 38.5 + 2 * 1.4 + 4.0 / 2);
}

// A bore gets smaller: ⌀41.5 cored is 41.5 − 2.8 − CT/2, under 40: the row to 40 (3.6).
TEST_F(Foundry8062, ABoreIsReckonedDownwards) {
  flat("end", {45, 0, 19}, Vec3::UnitX(), 60, 38, false);
  flat("other end", {-45, 0, 19}, -Vec3::UnitX(), 60, 38, false);
  const Id bore = turned("bore", SurfaceKind::bore, 41.5, true);
  const auto e = expect_casting(b, part, foundry);
  ASSERT_TRUE(e.usable()) << e.message;
  EXPECT_DOUBLE_EQ(e.of(bore)->tolerance, 3.6);
  EXPECT_DOUBLE_EQ(e.of(bore)->raw, 41.5 - 2 * 1.4 - 3.6 / 2);
  EXPECT_NEAR(e.of(bore)->sum.total(), e.of(bore)->raw, 1e-12);
}

// ISO 8062-3: a wall has one grade coarser than the rest of the casting; from memory.
TEST_F(Foundry8062, WallsAreOneGradeCoarser) {
  const Id boss = turned("boss", SurfaceKind::boss, 60, false);
  const Id bore = turned("bore", SurfaceKind::bore, 36, true);
  make(Wall{part, boss, bore, 6});
  const auto e = expect_casting(b, part, foundry);
  ASSERT_TRUE(e.usable()) << e.message;
  ASSERT_EQ(e.walls.size(), 1U);
  EXPECT_NEAR(e.walls[0].nominal, 12 + (36 - e.of(bore)->raw) / 2, 1e-9);
  EXPECT_EQ(e.walls[0].tolerance, casting_tolerance(e.walls[0].nominal, 12));
  EXPECT_GT(e.walls[0].tolerance, casting_tolerance(e.walls[0].nominal, 11));
}

// ISO 8062-3:2007, annex: sand cast and moulded by hand, features to 25 mm can usually be held finer.
TEST_F(Foundry8062, SmallFeaturesInHandMadeSandGetANote) {
  flat("end", {45, 0, 19}, Vec3::UnitX(), 60, 38, false);
  flat("other end", {-45, 0, 19}, -Vec3::UnitX(), 60, 38, false);
  const Id boss = turned("boss", SurfaceKind::boss, 18, true);
  const auto by_hand = by_process(foundry, "sand by hand");
  const auto e = expect_casting(b, part, by_hand);
  ASSERT_TRUE(e.usable()) << e.message;
  ASSERT_NE(e.of(boss), nullptr);
  const auto small = [](const Expectation& of) {
    return std::any_of(of.remarks.begin(), of.remarks.end(),
                       [](const auto& r) { return r.find("moulded by hand in sand") != std::string::npos; });
  };
  EXPECT_TRUE(small(e));
  const auto machine = by_process(foundry, "sand by machine");
  EXPECT_FALSE(small(expect_casting(b, part, machine)));
}

// A perfect casting: every size of it is the pattern's over 1 + s. Found is exactly what was put in.
TEST(Shrinkage, APerfectCastingFindsWhatWasPutIn) {
  for (const double s : {0.0, 0.008, 0.010, 0.021, 0.026}) {
    Pattern pattern;
    pattern.status = ExpectStatus::expected;
    pattern.scale = 1 + s;
    SeatInput in;
    std::vector<Id> ids;
    const auto surface = [&](SurfaceKind kind, const Vec3& at, const Vec3& direction, double diameter) {
      in.surfaces.push_back({
          "s",
          {kind, at, direction, diameter},
          true,
          0,
      });
      PatternSurface p;
      p.surface = static_cast<Id>(10 + ids.size());
      p.shape.point = at * (1 + s);
      p.shape.diameter = diameter * (1 + s);
      ids.push_back(p.surface);
      pattern.surfaces.push_back(p);
    };
    surface(SurfaceKind::plane, {50, 0, 0}, Vec3::UnitX(), 0);
    surface(SurfaceKind::plane, {-50, 0, 0}, -Vec3::UnitX(), 0);
    surface(SurfaceKind::boss, {0, 0, 0}, Vec3::UnitZ(), 70);
    for (int k = 0; k < 12; ++k) {
      const double a = k * 0.52, y = 20 * std::sin(a), z = 15 * std::cos(1.7 * a);
      in.points.push_back({0, {50, y, z}, 0.01});
      in.points.push_back({1, {-50, z, y}, 0.01});
      in.points.push_back({2, {35 * std::cos(a), 35 * std::sin(a), z}, 0.01});
    }
    const auto found = shrinkage_found(in, as_cast(in, {}), ids, pattern, s);
    ASSERT_TRUE(found.known) << s;
    EXPECT_NEAR(found.shrinkage.value, s, 1e-9) << s;
  }
}

// ISO 8062-3:2007, table 2: grades rise by about √2, and every row by its size; where both are stated.
TEST(FoundryTables, GradesAndRowsOnlyRise) {
  const double sizes[] = {8, 14, 20, 30, 50, 80, 130, 200, 300, 500, 800};
  for (const double size : sizes)
    for (int grade = 1; grade < 15; ++grade) {
      const auto a = casting_tolerance(size, grade), next = casting_tolerance(size, grade + 1);
      if (!a || !next) continue;
      EXPECT_GT(*next / *a, 1.15) << size << " " << grade;
      EXPECT_LT(*next / *a, 1.65) << size << " " << grade;
    }
  for (std::size_t k = 0; k + 1 < std::size(sizes); ++k)
    for (int grade = 1; grade <= 15; ++grade) {
      const auto a = casting_tolerance(sizes[k], grade), next = casting_tolerance(sizes[k + 1], grade);
      if (a && next) {
        EXPECT_GT(*next, *a) << sizes[k] << " " << grade;
      }
    }
  for (const double largest : {30.0, 60.0, 90.0, 150.0, 240.0, 390.0, 600.0}) {
    double before = 0;
    for (const char* grade : {"A", "B", "C", "D", "E", "F", "G", "H", "J", "K"}) {
      const auto rma = machining_allowance(largest, grade);
      ASSERT_TRUE(rma) << grade;
      EXPECT_GE(*rma, before) << grade << largest;
      before = *rma;
    }
  }
}
