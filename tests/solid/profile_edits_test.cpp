// Each size of a turned profile once: its places are dimensions, the sides between them surfaces, and each
// carries the other. The profile: a round 30 across and 10 high, a neck 20 across up to 25, a cone to 10
// across at 40.

#include "solid/body_edits.h"
#include "solid/follow.h"
#include "solid/place.h"
#include "solid/profile.h"
#include "solid/solid.h"

#include <gtest/gtest.h>

namespace datrin::solid_test {
namespace {

using namespace build;
using namespace solid;

class ProfileEdits : public testing::Test {
protected:
  ProfileEdits() {
    build.load(2, Part{"Handle", "brass", 1, 0});
    const auto made = add_body(build, 2, {BodyShape::turned, false, 0, BodyFace::middle, "handle"});
    id = made.id;
    EXPECT_TRUE(build.apply(made.edit));
    set({{0, 30, 0}, {10, 30, 0}, {10, 20, 0}, {25, 20, 0}, {40, 10, 0}});
  }
  void apply(const Edit& edit) {
    ASSERT_FALSE(edit.empty());
    const auto before = build.records();
    ASSERT_TRUE(build.apply(edit));
    auto back = build;
    ASSERT_TRUE(back.apply(reversed(edit)));
    EXPECT_EQ(back.records(), before) << edit.label;
  }
  void set(const std::vector<ProfilePoint>& profile) { apply(set_profile(build, id, profile, "")); }
  const Body& body() const { return *build.find<Body>(id); }
  ProfilePoint place(int k) const { return form_of(body()).profile[static_cast<std::size_t>(k - 1)]; }
  Id dimension(BodyRole role, int k) const {
    const auto* size = body().size(role, k);
    return size ? size->dimension : 0;
  }
  std::size_t dimensions() const { return build.dimensions_of(2).size(); }
  void say(Id dimension, double value, double upper = 0) {
    auto d = *build.find<Dimension>(dimension);
    d.nominal = value;
    d.upper = upper;
    apply(followed(build, replace(build, dimension, d, "Dimension")));
  }
  Id name(const FaceOf& face) {
    const auto named = name_face(build, id, face, "", true);
    EXPECT_TRUE(named.ok()) << named.wrong;
    apply(named.edit);
    return named.id;
  }
  const PartSurface& surface(Id s) const { return *build.find<PartSurface>(s); }
  Build build;
  Id id = 0;
};

TEST_F(ProfileEdits, ACylinderHasOneDiameterAndAShoulderOneLength) {
  EXPECT_EQ(dimension(BodyRole::diameter, 1), dimension(BodyRole::diameter, 2));
  EXPECT_EQ(dimension(BodyRole::diameter, 3), dimension(BodyRole::diameter, 4));
  EXPECT_EQ(dimension(BodyRole::length, 2), dimension(BodyRole::length, 3));
  EXPECT_EQ(dimensions(), 6U); // three diameters, three lengths
  EXPECT_EQ(build.find<Dimension>(dimension(BodyRole::diameter, 5))->name, "handle, diameter at place 5");
}

TEST_F(ProfileEdits, ADimensionCarriesTheProfile) {
  say(dimension(BodyRole::diameter, 3), 18);
  EXPECT_EQ(place(3).diameter, 18);
  EXPECT_EQ(place(4).diameter, 18);
  EXPECT_EQ(body().profile[3].diameter, 18); // the record says the same
  say(dimension(BodyRole::length, 2), 12);
  EXPECT_EQ(place(2).at, 12);
  EXPECT_EQ(place(3).at, 12);
}

TEST_F(ProfileEdits, OneEndTypedMakesACone) {
  auto profile = body().profile;
  profile[3].diameter = 16;
  set(profile);
  EXPECT_EQ(place(3).diameter, 20);
  EXPECT_EQ(place(4).diameter, 16);
  EXPECT_EQ(dimensions(), 7U);
  profile[2].diameter = 16; // and the other end the same: a cylinder again, with one size
  set(profile);
  EXPECT_EQ(dimension(BodyRole::diameter, 3), dimension(BodyRole::diameter, 4));
  EXPECT_EQ(dimensions(), 6U);
}

TEST_F(ProfileEdits, ACylinderWithLimitsStaysOne) {
  say(dimension(BodyRole::diameter, 3), 20, 0.05);
  auto profile = body().profile;
  profile[3].diameter = 16;
  set(profile);
  EXPECT_EQ(place(3).diameter, 16);
  EXPECT_EQ(place(4).diameter, 16);
  EXPECT_EQ(dimensions(), 6U);
}

TEST_F(ProfileEdits, SidesAreSurfacesAndSizesLieBetweenThem) {
  const Id neck = name({BodyFace::side, 4}), shoulder = name({BodyFace::side, 3}),
           foot = name(BodyFace::bottom);
  EXPECT_EQ(surface(neck).kind, SurfaceKind::boss);
  EXPECT_EQ(surface(neck).diameter, 20);
  EXPECT_NEAR(surface(neck).point.z(), 17.5, 1e-9);
  EXPECT_EQ(surface(shoulder).kind, SurfaceKind::plane);
  EXPECT_EQ(surface(shoulder).direction, Vec3::UnitZ()); // it gets narrower: it faces on
  EXPECT_EQ(surface(neck).name, "side up to place 4 of handle");
  EXPECT_EQ(surface(shoulder).name, "shoulder at place 3 of handle");
  const auto& d = *build.find<Dimension>(dimension(BodyRole::diameter, 4));
  EXPECT_EQ(d.kind, DimensionKind::size);
  EXPECT_EQ(d.surface, neck);
  const auto& l = *build.find<Dimension>(dimension(BodyRole::length, 3));
  EXPECT_EQ(l.kind, DimensionKind::distance);
  EXPECT_EQ(l.surface, foot);
  EXPECT_EQ(l.other, shoulder);
  // A cone is one too: (20 - 10) over 15 along, half its angle.
  const Id cone = name({BodyFace::side, 5});
  EXPECT_EQ(surface(cone).kind, SurfaceKind::taper_shank);
  EXPECT_NEAR(std::tan(surface(cone).half_angle), 5.0 / 15, 1e-12);
}

TEST_F(ProfileEdits, ASurfaceMovedCarriesItsPlaces) {
  const Id neck = name({BodyFace::side, 4}), shoulder = name({BodyFace::side, 3}), end = name(BodyFace::top);
  const auto change = [&](Id s, auto how) {
    auto changed = surface(s);
    how(changed);
    apply(followed(build, replace(build, s, changed, "Surface")));
  };
  change(neck, [](PartSurface& s) { s.diameter = 19.5; });
  EXPECT_NEAR(place(3).diameter, 19.5, 1e-12);
  EXPECT_NEAR(place(4).diameter, 19.5, 1e-12);
  EXPECT_NEAR(build.find<Dimension>(dimension(BodyRole::diameter, 4))->nominal, 19.5, 1e-12);
  change(shoulder, [](PartSurface& s) { s.point.z() += 0.25; });
  EXPECT_NEAR(place(2).at, 10.25, 1e-12);
  EXPECT_NEAR(place(3).at, 10.25, 1e-12);
  EXPECT_NEAR(surface(neck).height, 25 - 10.25, 1e-9);
  change(end, [](PartSurface& s) { s.point.z() -= 1; });
  EXPECT_NEAR(place(5).at, 39, 1e-12);
  EXPECT_NEAR(surface(end).point.z(), 39, 1e-9);
}

TEST_F(ProfileEdits, WhereItStartsMovedKeepsTheOtherEnd) {
  const Id foot = name(BodyFace::bottom), end = name(BodyFace::top);
  auto changed = surface(foot);
  changed.point.z() -= 2; // two longer below
  apply(followed(build, replace(build, foot, changed, "Foot")));
  EXPECT_NEAR(surface(foot).point.z(), -2, 1e-9);
  EXPECT_NEAR(surface(end).point.z(), 40, 1e-9);
  EXPECT_NEAR(place(5).at, 42, 1e-12);
}

TEST_F(ProfileEdits, SizesAndSurfacesGoWithTheirPlaces) {
  const Id neck = name({BodyFace::side, 4}), cone = name({BodyFace::side, 5});
  say(dimension(BodyRole::diameter, 4), 20, 0.02);
  const Id fitted = dimension(BodyRole::diameter, 4);
  auto profile = body().profile;
  profile.insert(profile.begin() + 1, {5, 32, 0}); // the foot bulges
  set(profile);
  EXPECT_EQ(dimension(BodyRole::diameter, 5), fitted);
  EXPECT_EQ(surface(neck).profile_place, 5);
  EXPECT_EQ(surface(neck).diameter, 20);
  EXPECT_EQ(surface(cone).profile_place, 6);
  profile.pop_back(); // the cone goes: its surface stays as it lies, stated
  set(profile);
  EXPECT_EQ(surface(cone).body, 0);
  EXPECT_EQ(surface(cone).kind, SurfaceKind::taper_shank);
  EXPECT_EQ(dimension(BodyRole::diameter, 6), 0);
}

TEST_F(ProfileEdits, ThingsArePutOnItsSides) {
  const auto hole = add_body(build, 2, {BodyShape::hole, true, id, {BodyFace::side, 4}, "cross hole"});
  ASSERT_TRUE(hole.ok()) << hole.wrong;
  apply(hole.edit);
  const auto placed = place_bodies(build, 2);
  ASSERT_EQ(placed.size(), 2U);
  ASSERT_TRUE(placed[1].wrong.empty()) << placed[1].wrong;
  // It starts on the neck, square to the axis, at mid-length.
  const auto& pose = placed[1].copies.front();
  EXPECT_NEAR(pose.translation.z(), 17.5, 1e-9);
  EXPECT_NEAR(pose.translation.head<2>().norm(), 10, 1e-9);
  EXPECT_NEAR(pose.turn(Vec3::UnitZ()).z(), 0, 1e-12);
  const auto solid = make_solid(placed);
  EXPECT_EQ(solid.status, SolidStatus::made) << solid.message;
  int walls = 0;
  for (const auto& face : solid.faces)
    if (face.body == hole.id) walls += face.face == BodyFace::side;
  EXPECT_EQ(walls, 1);
}

TEST_F(ProfileEdits, ACutProfileIsABore) {
  auto cut = body();
  cut.cut = true;
  build.load(id, cut);
  const auto faces = faces_of(form_of(cut));
  const auto neck =
      std::find_if(faces.begin(), faces.end(), [](const auto& f) { return f.profile_place == 4; });
  ASSERT_NE(neck, faces.end());
  EXPECT_EQ(neck->shape.kind, SurfaceKind::bore);
  EXPECT_NEAR(neck->shape.point.z(), -17.5, 1e-12);
  const auto step =
      std::find_if(faces.begin(), faces.end(), [](const auto& f) { return f.profile_place == 3; });
  ASSERT_NE(step, faces.end());
  EXPECT_EQ(step->shape.direction, Vec3::UnitZ()); // the metal below the wider mouth faces up, out of it
}

// Written before places had dimensions: they are begun with the first change, values as they were.
TEST_F(ProfileEdits, AnOlderProfileGetsItsSizesLater) {
  auto old = body();
  old.sizes.clear();
  build.load(id, old);
  auto profile = old.profile;
  profile[4].at = 42;
  set(profile);
  EXPECT_NE(dimension(BodyRole::diameter, 1), 0);
  EXPECT_EQ(build.find<Dimension>(dimension(BodyRole::length, 5))->nominal, 42);
}

TEST_F(ProfileEdits, ItsDimensionsGoWithIt) {
  apply(remove_body(build, id));
  EXPECT_EQ(dimensions(), 0U);
}

} // namespace
} // namespace datrin::solid_test
