#include "drawing/contradictions.h"

#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::drawing;

class Contradicting : public test::DrawnPart {
protected:
  void SetUp() override { part = make(Part{"Slide", "iron", 1, 0}); }
  Id flat(const char* name, const Vec3& at, const Vec3& normal, double width = 40, double height = 40) {
    auto s = plane(name, at, normal);
    s.width = width;
    s.height = height;
    return make(s);
  }
  Id turned(const char* name, SurfaceKind kind, const Vec3& at, const Vec3& axis, double diameter,
            double length = 20) {
    auto s = round(name, kind, at, axis, diameter);
    s.height = length;
    return make(s);
  }
  Id stated(const char* name, DimensionKind kind, double nominal, Id surface = 0, Id other = 0,
            const char* sum = "") {
    auto d = dimension(kind, surface, other, nominal);
    d.name = name;
    d.sum = sum;
    return make(d);
  }
  std::vector<std::string> texts() {
    std::vector<std::string> all;
    for (const auto& c : contradictions(b, part)) all.push_back(c.text);
    return all;
  }
};

// Common practice: 5 + 2 × 1/8 = 5 1/4 in over all; two of 0.225 are not 0.400.
TEST_F(Contradicting, SumsThatDoNotAddUp) {
  stated("barrel", DimensionKind::length, 5 * 25.4);
  stated("flange", DimensionKind::length, 25.4 / 8);
  stated("over all", DimensionKind::length, 5.25 * 25.4, 0, 0, "barrel + 2 x flange");
  EXPECT_TRUE(texts().empty());
  stated("lug", DimensionKind::length, 0.225 * 25.4);
  stated("both lugs", DimensionKind::length, 0.400 * 25.4, 0, 0, "2 x lug");
  EXPECT_EQ(texts(),
            std::vector<std::string>{"both lugs is 10.160\u202Fmm, but 2 x lug makes 11.430\u202Fmm"});
}

// Common practice: a full-round edge on 3/8 in is 3/16 in.
TEST_F(Contradicting, EdgeRadiusThatIsNotHalfTheThickness) {
  const Id top = flat("top", {0, 0, 9.525}, {0, 0, 1}), foot = flat("foot", {0, 0, 0}, {0, 0, -1});
  stated("round edge", DimensionKind::edge_radius, 9.525 / 2, top, foot);
  EXPECT_TRUE(texts().empty());
  stated("other edge", DimensionKind::edge_radius, 6.35, top, foot);
  EXPECT_EQ(texts(), std::vector<std::string>{"other edge is 6.350\u202Fmm, but a full round between top and "
                                              "foot is half their distance, 4.763\u202Fmm"});
}

TEST_F(Contradicting, LoopsThatMissAndWhatTheSurfacesSay) {
  const Id a = flat("A", {0, 0, 0}, {-1, 0, 0}), m = flat("step", {20, 0, 0}, {1, 0, 0}),
           z = flat("B", {50, 0, 0}, {1, 0, 0});
  stated("first", DimensionKind::distance, 20, a, m);
  stated("second", DimensionKind::distance, 30, m, z);
  stated("whole", DimensionKind::distance, 50, z, a);
  EXPECT_TRUE(texts().empty());
  for (const auto& [id, d] : b.dimensions_of(part))
    if (d.name == "second") {
      auto changed = d;
      changed.nominal = 30.25;
      ASSERT_TRUE(b.apply(replace(b, id, changed, "x")));
    }
  const auto found = texts();
  ASSERT_EQ(found.size(), 2U);
  EXPECT_EQ(found[0], "second is 30.250\u202Fmm, but the surfaces are drawn apart by 30.000\u202Fmm");
  EXPECT_TRUE(found[1].ends_with("go round in a loop and miss by 0.250\u202Fmm")) << found[1];
}

// Common practice: a cutter corner of 0.030 in, 0.762 mm, suits a corner called 1.0 mm.
TEST_F(Contradicting, CuttersCorner) {
  const Id id = stated("corner", DimensionKind::corner_radius, 1.0);
  auto d = *b.find<Dimension>(id);
  d.cutter = 0.762;
  ASSERT_TRUE(b.apply(replace(b, id, d, "x")));
  EXPECT_TRUE(texts().empty());
  d.cutter = 1.2;
  ASSERT_TRUE(b.apply(replace(b, id, d, "x")));
  EXPECT_EQ(texts(), std::vector<std::string>{
                         "corner allows a corner of 1.000\u202Fmm, the cutter leaves 1.200\u202Fmm"});
}

// Common practice: over 7 mm 30° climbs 4.041, 60° climbs 12.124 mm.
TEST_F(Contradicting, AnglesThatWereMeantAsTheirComplement) {
  const auto legs = angle_legs(radians(30), 7);
  EXPECT_NEAR(legs.leg, 4.041, 5e-4);
  EXPECT_NEAR(legs.other_leg, 12.124, 5e-4);
  const Id id = stated("bevel", DimensionKind::angle, radians(60));
  auto d = *b.find<Dimension>(id);
  d.run = 7;
  d.rise = 4.041;
  ASSERT_TRUE(b.apply(replace(b, id, d, "x")));
  const auto found = texts();
  ASSERT_EQ(found.size(), 1U);
  EXPECT_TRUE(found[0].find("its complement was probably meant (60.00\u00B0 over 7.000\u202Fmm climbs "
                            "12.124\u202Fmm, 30.00\u00B0 climbs 4.041\u202Fmm)") != std::string::npos)
      << found[0];
  d.rise = 12.124;
  ASSERT_TRUE(b.apply(replace(b, id, d, "x")));
  EXPECT_TRUE(texts().empty());
}

TEST_F(Contradicting, WallsAndEdgesThatVanish) {
  flat("edge", {10, 0, 0}, {1, 0, 0}, 40, 40);
  turned("bore", SurfaceKind::bore, {0, 0, 0}, Vec3::UnitZ(), 18);
  EXPECT_EQ(texts(), std::vector<std::string>{
                         "only 1.000\u202Fmm is left between bore and edge, a tenth of the bore or less"});
  turned("pin hole", SurfaceKind::bore, {0, 10, 0}, Vec3::UnitZ(), 3);
  const auto found = texts();
  ASSERT_EQ(found.size(), 2U);
  EXPECT_EQ(found[0], "no metal is left between bore and pin hole (\u22120.500\u202Fmm)");
}

TEST_F(Contradicting, AThousandDimensionsTakeNoTime) {
  std::vector<Id> planes;
  for (int k = 0; k <= 1000; ++k)
    planes.push_back(flat(("p" + std::to_string(k)).c_str(), {1.0 * k, 0, 0}, {1, 0, 0}));
  for (std::size_t k = 1; k < planes.size(); ++k)
    stated("d", DimensionKind::distance, 1, planes[k - 1], planes[k]);
  EXPECT_TRUE(texts().empty());
}
