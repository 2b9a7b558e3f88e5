// Each size once: a dimension changed carries the body, its faces, what stands on it; a surface that is moved
// carries the dimension.

#include "bodies.h"

#include "drawing/dimension_limits.h"
#include "solid/body_edits.h"
#include "solid/follow.h"
#include "solid/quick_start.h"

#include <gtest/gtest.h>

namespace datrin::solid_test {
namespace {

class Follow : public testing::Test {
protected:
  void draw(QuickShape shape) {
    std::vector<double> sizes;
    for (const auto& size : quick_starts()[static_cast<std::size_t>(shape)].sizes) sizes.push_back(size.mm);
    const auto made = add_quick_part(build, "Part", quick_drawing(shape, sizes));
    part = made.id;
    ASSERT_TRUE(build.apply(made.edit));
  }
  void apply(const Edit& edit) {
    ASSERT_FALSE(edit.empty());
    const auto before = build.records();
    ASSERT_TRUE(build.apply(edit));
    auto back = build;
    ASSERT_TRUE(back.apply(reversed(edit)));
    EXPECT_EQ(back.records(), before) << edit.label;
  }
  Id dimension(const std::string& name) const {
    for (const auto& [id, d] : build.dimensions_of(part))
      if (d.name == name) return id;
    ADD_FAILURE() << name;
    return 0;
  }
  double nominal(const std::string& name) const { return build.find<Dimension>(dimension(name))->nominal; }
  Id body(const std::string& name) const {
    for (const auto& [id, b] : build.bodies_of(part))
      if (b.name == name) return id;
    ADD_FAILURE() << name;
    return 0;
  }
  Id surface_id(const std::string& name) const {
    for (const auto& [id, s] : build.surfaces_of(part))
      if (s.name == name) return id;
    ADD_FAILURE() << name;
    return 0;
  }
  PartSurface surface(const std::string& name) const { return *build.find<PartSurface>(surface_id(name)); }
  void set(const std::string& name, double value) {
    auto d = *build.find<Dimension>(dimension(name));
    d.nominal = value;
    apply(followed(build, replace(build, dimension(name), d, "Nominal of " + name)));
  }
  Build build;
  Id part = 0;
};

TEST_F(Follow, ADimensionCarriesTheSolidAndItsSurfaces) {
  draw(QuickShape::pedestal);
  set("centre height", 46);
  EXPECT_DOUBLE_EQ(surface("bore").point.z(), 46);
  EXPECT_DOUBLE_EQ(surface("boss").point.z(), 46);
  EXPECT_DOUBLE_EQ(surface("cheek front").point.z(), 46);
  set("foot, length", 100);
  EXPECT_DOUBLE_EQ(surface("end A").point.x(), -50);
  EXPECT_DOUBLE_EQ(surface("end B").point.x(), 50);
  EXPECT_DOUBLE_EQ(surface("foot").width, 100);
  set("bore", 22);
  EXPECT_DOUBLE_EQ(surface("bore").diameter, 22);
  const auto solid = make_solid(place_bodies(build, part));
  EXPECT_EQ(solid.message, "");
  EXPECT_NEAR(solid.box.size().x(), 100, 1e-6);
  EXPECT_NEAR(solid.box.high.z(), 46 + 17, 1e-6);
}

/// What follows once has followed: nothing is moved twice.
TEST_F(Follow, FollowingAgainChangesNothing) {
  draw(QuickShape::pedestal);
  for (const auto& edit : {set_body_size(build, body("boss"), BodyRole::off, 47, ""),
                           set_body_size(build, body("foot"), BodyRole::length, 90, "")}) {
    const auto again = followed(build, edit);
    ASSERT_EQ(again.changes.size(), edit.changes.size());
    for (const auto& change : edit.changes)
      EXPECT_TRUE(std::find(again.changes.begin(), again.changes.end(), change) != again.changes.end());
  }
}

TEST_F(Follow, WhatIsNamedAfterABodyTakesItsNewName) {
  draw(QuickShape::flange);
  auto b = *build.find<Body>(body("bolt hole"));
  b.name = "stud";
  apply(set_body(build, body("bolt hole"), b, "Name"));
  EXPECT_TRUE(surface("stud 6").from_solid);
  EXPECT_EQ(nominal("stud, bolt circle"), 36);
  EXPECT_EQ(nominal("stud"), 4.5);
}

TEST_F(Follow, SizesAreDimensionsOfTheirFaces) {
  draw(QuickShape::pedestal);
  const auto* bore = build.find<Dimension>(dimension("bore"));
  EXPECT_EQ(bore->kind, DimensionKind::size);
  EXPECT_EQ(bore->surface, surface_id("bore"));
  const auto* length = build.find<Dimension>(dimension("foot, length"));
  EXPECT_EQ(length->kind, DimensionKind::distance);
  EXPECT_EQ(length->surface, surface_id("end A"));
  EXPECT_EQ(length->other, surface_id("end B"));
}

TEST_F(Follow, APlaceIsADistanceBetweenSurfaces) {
  const auto between = [&](const char* name) {
    const auto* d = build.find<Dimension>(dimension(name));
    if (d->kind != DimensionKind::distance) return std::string("none");
    return build.find<PartSurface>(d->surface)->name + " to " + build.find<PartSurface>(d->other)->name;
  };
  draw(QuickShape::pedestal);
  EXPECT_EQ(between("centre height"), "foot to bore");
  draw(QuickShape::axlebox);
  EXPECT_EQ(between("bore above the bottom"), "bottom to bore");
  draw(QuickShape::connecting_rod);
  EXPECT_EQ(between("centres"), "big end bore to small end bore");
  draw(QuickShape::eccentric_sheave);
  EXPECT_EQ(between("throw"), "sheave to bore");
}

TEST_F(Follow, ALimitChangesNothingThatLies) {
  draw(QuickShape::pedestal);
  auto d = *build.find<Dimension>(dimension("bore"));
  d.upper = 0.021;
  d.tolerance = "H7";
  const auto edit = followed(build, drawing::set_limits(build, dimension("bore"), d, "2026-11-27T00:00:00Z"));
  EXPECT_EQ(edit.changes.size(), 1U);
}

/// As a rescue does: the bore goes to where there is metal for it.
TEST_F(Follow, AMovedBoreCarriesItsPlaceAndItsSize) {
  draw(QuickShape::axlebox);
  auto s = surface("bore");
  s.point += Vec3(0.3, 0, 0.5);
  s.diameter += 0.4;
  apply(followed(build, replace(build, surface_id("bore"), s, "Move bore")));
  EXPECT_NEAR(nominal("bore above the bottom"), 24.5, 1e-12);
  EXPECT_NEAR(nominal("bore"), 18.4, 1e-12);
  EXPECT_NEAR(build.find<Body>(body("bore"))->size(BodyRole::along)->value, 0.3, 1e-12);
  EXPECT_NEAR(surface("bore").point.x(), 0.3, 1e-12);
  EXPECT_NEAR(surface("bore").point.z(), 24.5, 1e-12);
  EXPECT_EQ(build.find<Dimension>(dimension("bore above the bottom"))->history.size(), 1U);
}

TEST_F(Follow, AMovedFaceMakesTheBodyLongerThereAndNowhereElse) {
  draw(QuickShape::plain_block);
  for (const char* name : {"left", "right", "front", "back", "top", "bottom"}) {
    std::map<std::string, Vec3> before;
    for (const auto& [id, s] : build.surfaces_of(part)) before[s.name] = s.point;
    auto s = surface(name);
    s.point += 1.5 * s.direction;
    apply(followed(build, replace(build, surface_id(name), s, "Move")));
    for (const auto& [id, other] : build.surfaces_of(part)) {
      const double moved = (other.point - before[other.name]).dot(other.direction);
      EXPECT_NEAR(moved, other.name == name ? 1.5 : 0, 1e-9) << name << " " << other.name;
    }
  }
  EXPECT_NEAR(nominal("block, length"), 63, 1e-9);
  EXPECT_NEAR(nominal("block, height"), 33, 1e-9);
}

TEST_F(Follow, ExtentsTypedOnAFaceAreSizesOfItsBody) {
  draw(QuickShape::plain_block);
  auto top = surface("top");
  EXPECT_EQ(top.width, 60);
  top.width = 62;
  apply(followed(build, replace(build, surface_id("top"), top, "Width")));
  EXPECT_NEAR(nominal("block, length"), 62, 1e-12);
  EXPECT_NEAR(surface("front").width, 62, 1e-12);
  auto left = surface("left");
  left.height = 33;
  apply(followed(build, replace(build, surface_id("left"), left, "Height")));
  EXPECT_NEAR(nominal("block, height"), 33, 1e-12);
  auto bottom = surface("bottom");
  bottom.height = 44;
  apply(followed(build, replace(build, surface_id("bottom"), bottom, "Height")));
  EXPECT_NEAR(nominal("block, width"), 44, 1e-12);
}

TEST_F(Follow, EveryHoleOfAPatternIsASurface) {
  draw(QuickShape::flange);
  const auto count = [&] { return build.of<PartSurface>(body("bolt hole")).size(); };
  EXPECT_EQ(count(), 6U);
  EXPECT_TRUE(surface("bolt hole 6").from_solid);
  auto b = *build.find<Body>(body("bolt hole"));
  b.count = 8;
  apply(set_body(build, body("bolt hole"), b, "Number"));
  EXPECT_EQ(count(), 8U);
  b = *build.find<Body>(body("bolt hole"));
  b.count = 4;
  apply(set_body(build, body("bolt hole"), b, "Number"));
  EXPECT_EQ(count(), 4U);
  EXPECT_NEAR(surface("bolt hole 2").point.head<2>().norm(), 18, 1e-12);
  EXPECT_NEAR(surface("bolt hole 2").point.y(), 18, 1e-12);
}

TEST_F(Follow, ABodyIsDrawnChangedAndRemoved) {
  draw(QuickShape::plain_block);
  const auto before = build.records();
  const auto hole = add_body(build, part, {BodyShape::hole, true, body("block"), BodyFace::top, ""});
  apply(hole.edit);
  EXPECT_EQ(nominal("hole, depth"), 12);
  EXPECT_TRUE(surface("hole").from_solid);
  apply(set_body_size(build, hole.id, BodyRole::along, 10, ""));
  EXPECT_EQ(nominal("hole, right of the middle"), 10);
  EXPECT_EQ(surface("hole").point.x(), 10);
  auto b = *build.find<Body>(hole.id);
  b.through = true;
  apply(set_body(build, hole.id, b, "Depth"));
  for (const auto& [id, d] : build.dimensions_of(part)) EXPECT_NE(d.name, "hole, depth");
  b = *build.find<Body>(hole.id);
  b.mouth = HoleMouth::counterbored;
  apply(set_body(build, hole.id, b, "Mouth"));
  EXPECT_EQ(nominal("hole, mouth diameter"), 11);
  apply(set_body_size(build, hole.id, BodyRole::diameter, 7, ""));
  EXPECT_EQ(surface("hole").diameter, 7);
  apply(remove_body(build, hole.id));
  EXPECT_EQ(build.records(), before);
}

TEST_F(Follow, WhatStandsOnABodyGoesWithIt) {
  draw(QuickShape::bush);
  const auto edit = remove_body(build, body("flange"));
  EXPECT_EQ(edit.label, "Remove flange and what stands on it (2)");
  apply(edit);
  EXPECT_TRUE(build.bodies_of(part).empty());
  EXPECT_TRUE(build.surfaces_of(part).empty());
  EXPECT_TRUE(build.dimensions_of(part).empty());
}

/// A size two bodies share stays as long as one of them is sized by it.
TEST_F(Follow, ASharedDimensionStaysWithWhoStillNeedsIt) {
  draw(QuickShape::pedestal);
  const Id centre = dimension("centre height");
  apply(remove_body(build, body("pillar")));
  ASSERT_TRUE(build.find<Dimension>(centre));
  EXPECT_EQ(build.find<Body>(body("boss"))->size(BodyRole::off)->dimension, centre);
  set("centre height", 44);
  EXPECT_DOUBLE_EQ(surface("bore").point.z(), 44);
}

TEST_F(Follow, ACopysSurfaceThatIsRemovedStaysRemoved) {
  draw(QuickShape::flange);
  apply(followed(build, take_away(build, surface_id("bolt hole 3"))));
  EXPECT_EQ(build.of<PartSurface>(body("bolt hole")).size(), 5U);
  set("bolt hole", 5);
  EXPECT_EQ(build.of<PartSurface>(body("bolt hole")).size(), 5U);
  EXPECT_EQ(surface("bolt hole 4").diameter, 5);
}

TEST_F(Follow, TheCopyPointedAtIsTheOneThatIsNamed) {
  draw(QuickShape::plain_block);
  const auto boss = add_body(build, part, {BodyShape::round, false, body("block"), BodyFace::top, "boss"});
  apply(boss.edit);
  auto b = *build.find<Body>(boss.id);
  b.pattern = BodyPattern::pair;
  apply(set_body(build, boss.id, b, "Pattern"));
  const auto named = name_face(build, boss.id, {BodyFace::top, 0, 1}, "", true);
  apply(named.edit);
  EXPECT_GT(build.find<PartSurface>(named.id)->point.x(), 0); // the second of the pair
}

/// What a drill's point usually is needs no dimension, until someone says another.
TEST_F(Follow, APointAngleIsADimensionOnceItIsSaid) {
  draw(QuickShape::plain_block);
  const auto hole = add_body(build, part, {BodyShape::hole, true, body("block"), BodyFace::top, ""});
  apply(hole.edit);
  EXPECT_NEAR(build.find<Body>(hole.id)->size(BodyRole::point_angle)->value, 118 * pi / 180, 1e-12);
  EXPECT_EQ(build.find<Body>(hole.id)->size(BodyRole::point_angle)->dimension, 0);
  apply(set_body_size(build, hole.id, BodyRole::point_angle, pi / 2, ""));
  EXPECT_NEAR(nominal("hole, point angle"), pi / 2, 1e-12);
}

TEST_F(Follow, AFaceOfWhatIsCutIsFromSolid) {
  draw(QuickShape::plain_block);
  const auto slot = add_body(build, part, {BodyShape::slot, true, body("block"), BodyFace::top, ""});
  apply(slot.edit);
  apply(name_face(build, slot.id, BodyFace::floor, "", true).edit);
  EXPECT_TRUE(surface("floor of slot").from_solid);
}

TEST_F(Follow, AFaceBecomesASurfaceAndItsSizeADistance) {
  draw(QuickShape::plug);
  const auto named = name_face(build, body("head"), BodyFace::front, "", true);
  apply(named.edit);
  EXPECT_NEAR(surface("front of head").point.y(), -7, 1e-12);
  EXPECT_NEAR(surface("front of head").width, 14 / std::sqrt(3),
              1e-12); // side of a hexagon 14 across its flats
  apply(name_face(build, body("head"), BodyFace::back, "flat", true).edit);
  EXPECT_EQ(build.find<Dimension>(dimension("head, across flats"))->other, surface_id("flat"));
  EXPECT_EQ(name_face(build, body("head"), BodyFace::front, "", true).wrong,
            "it is a surface already: front of head");
}

/// An old drawing of loose surfaces is given its bodies later: surfaces and dimensions stay the ones they
/// were.
TEST_F(Follow, BodiesDrawnLaterTakeOverSurfacesAndDimensions) {
  draw(QuickShape::axlebox);
  const auto stated = build;
  Build old;
  old.load(part, *stated.find<Part>(part));
  for (const auto& [id, s] : stated.surfaces_of(part)) {
    auto loose = s;
    loose.body = 0;
    old.load(id, loose);
  }
  for (const auto& [id, d] : stated.dimensions_of(part)) old.load(id, d);
  build = old;
  const Id bottom = surface_id("bottom"), bore = surface_id("bore"), width = dimension("box, width");
  const auto box = add_body(build, part, {BodyShape::block, false, 0, BodyFace::top, "body"});
  apply(box.edit);
  EXPECT_EQ(surface("bottom").body, box.id); // lies at the origin already
  for (const auto& [role, value] :
       {std::pair{BodyRole::length, 40.0}, {BodyRole::width, 28.0}, {BodyRole::height, 48.0}})
    apply(set_body_size(build, box.id, role, value, ""));
  for (const char* name : {"top", "side A", "side B", "front", "back"})
    EXPECT_EQ(surface(name).body, box.id) << name;
  EXPECT_EQ(surface_id("bottom"), bottom);
  EXPECT_EQ(build.find<Body>(box.id)->size(BodyRole::width)->dimension, width); // the one there was
  const auto hole = add_body(build, part, {BodyShape::hole, true, box.id, BodyFace::front, "eye"});
  apply(hole.edit);
  auto b = *build.find<Body>(hole.id);
  b.through = true;
  b.from_across = PlaceFrom::low_edge;
  apply(set_body(build, hole.id, b, "Place"));
  apply(set_body_size(build, hole.id, BodyRole::across, 24, ""));
  apply(set_body_size(build, hole.id, BodyRole::diameter, 18, ""));
  EXPECT_EQ(nominal("bore above the bottom"), 24);
  EXPECT_EQ(surface_id("bore"), bore);
  EXPECT_EQ(surface("bore").body, hole.id);
}

TEST_F(Follow, ASizeThatIsADimensionNoMoreKeepsItsValue) {
  draw(QuickShape::plain_block);
  apply(followed(build, take_away(build, dimension("block, height"))));
  EXPECT_EQ(build.find<Body>(body("block"))->size(BodyRole::height)->dimension, 0);
  EXPECT_EQ(surface("top").point.z(), 30);
  apply(set_body_size(build, body("block"), BodyRole::height, 32, ""));
  EXPECT_EQ(nominal("block, height"), 32);
  EXPECT_EQ(surface("top").point.z(), 32);
}

} // namespace
} // namespace datrin::solid_test
