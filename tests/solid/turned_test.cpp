// What is turned by a profile, cones by their taper, bodies on surfaces that are no face of a body, threads
// as they are drawn. Volumes by closed forms: spheres, Pappus' second theorem, frustums (any handbook of
// mensuration; formulas from memory).

#include "bodies.h"

#include "quantity/angle.h"
#include "solid/body_edits.h"
#include "solid/follow.h"
#include "solid/views.h"

#include <gtest/gtest.h>

#include <cmath>

namespace datrin::solid_test {
namespace {

using R = BodyRole;
using S = BodyShape;

class Turned : public testing::Test {
protected:
  Body& profile(std::vector<ProfilePoint> points, Id on = 0) {
    auto& body = b.add("knob", S::turned, {}, on);
    body.profile = std::move(points);
    return body;
  }
  double volume() {
    const auto s = b.made();
    EXPECT_EQ(s.status, SolidStatus::made) << s.message;
    EXPECT_TRUE(s.closed);
    return s.volume;
  }
  std::string wrong() {
    const auto s = b.made();
    return s.problems.empty() ? "" : s.problems.front().words;
  }
  Bodies b;
};

TEST_F(Turned, StepsAndConesAreAStackOfThem) {
  profile({{0, 30, 0}, {10, 30, 0}, {10, 20, 0}, {25, 20, 0}, {40, 10, 0}});
  EXPECT_NEAR(volume(), pi * (225 * 10 + 100 * 15 + 15.0 / 3 * (100 + 50 + 25)), 1e-5);
}

TEST_F(Turned, ABulgingArcIsHalfABall) {
  profile({{0, 20, 0}, {10, 0, 10}});
  EXPECT_NEAR(volume(), 2.0 / 3 * pi * 1000, 1e-5);
}

TEST_F(Turned, AWholeBallOfTwoArcs) {
  profile({{0, 0, 0}, {10, 20, 10}, {20, 0, 10}});
  EXPECT_NEAR(volume(), 4.0 / 3 * pi * 1000, 1e-5);
}

TEST_F(Turned, AHollowIsByPappus) {
  // A quarter of a disc, 10 in radius, out of the corner of a round 40 across: its centroid lies 4r/3π in
  // from the disc's middle, which is at 20 from the axis.
  profile({{0, 40, 0}, {10, 20, -10}});
  const double removed = 2 * pi * (20 - 40 / (3 * pi)) * 25 * pi;
  EXPECT_NEAR(volume(), pi * 400 * 10 - removed, 1e-5);
}

TEST_F(Turned, AProfileTakenAwayGoesDown) {
  b.add("block", S::block, {{R::length, 60}, {R::width, 60}, {R::height, 30}});
  profile({{0, 20, 0}, {10, 0, 10}}, Bodies::id(0)).cut = true;
  EXPECT_NEAR(volume(), 60 * 60 * 30 - 2.0 / 3 * pi * 1000, 1e-5);
}

TEST_F(Turned, ItsFacesAreOfItAndItsEndsCanBeStoodOn) {
  profile({{0, 30, 0}, {10, 30, 0}, {10, 20, 0}, {25, 20, 0}});
  b.add("peg", S::round, {{R::diameter, 8}, {R::height, 5}}, Bodies::id(0));
  const auto s = b.made();
  ASSERT_EQ(s.bodies, 1) << s.message;
  EXPECT_NEAR(s.box.high.z(), 30, 1e-9);
  int sides = 0;
  for (const auto& face : s.faces) {
    EXPECT_NE(face.body, 0) << face_kind_name(face.kind) << " at " << face.shape.point.transpose();
    if (face.body == Bodies::id(0) && face.face == BodyFace::side) ++sides;
  }
  EXPECT_EQ(sides, 3); // two cylinders and the shoulder between them
}

TEST_F(Turned, WhatItsProfileCannotBeIsSaid) {
  auto& body = profile({{0, 30, 0}});
  const auto said = [&](std::vector<ProfilePoint> points) {
    body.profile = std::move(points);
    return wrong();
  };
  EXPECT_EQ(said({{0, 30, 0}}), "knob: its profile needs two places at least");
  EXPECT_EQ(said({{1, 30, 0}, {5, 30, 0}}), "knob: its profile starts at 0");
  EXPECT_EQ(said({{0, 30, 0}, {5, 30, 0}, {4, 20, 0}}),
            "knob: place 3 of its profile lies before the one above it");
  EXPECT_EQ(said({{0, 30, 0}, {5, 30, 0}, {5, 30, 0}}), "knob: places 2 and 3 of its profile are the same");
  EXPECT_EQ(said({{0, 0, 0}, {5, 0, 0}}), "knob: between places 1 and 2 of its profile there is nothing");
  EXPECT_EQ(said({{0, 30, 0}, {8, 30, 3}}),
            "knob: the arc to place 2 of its profile is too small to reach it: at least 4 mm");
  EXPECT_EQ(said({{0, 4, 0}, {20, 4, -10.5}}),
            "knob: the hollow to place 2 of its profile goes through the axis");
}

TEST_F(Turned, AConeByItsTaper) {
  // 1 in 10 on the diameter: over 30 mm it loses 3.
  const auto taper = parse_angle("1 in 10", {.taper = TaperOf::cone});
  ASSERT_TRUE(taper.ok);
  b.add("cone", S::cone,
        {{R::diameter, 20}, {R::top_diameter, 5}, {R::taper, taper.radian}, {R::height, 30}});
  EXPECT_NEAR(volume(), pi * 30 / 12 * (20 * 20 + 20 * 17 + 17 * 17), 1e-6);
}

TEST_F(Turned, ATaperThatComesToAPointTooSoonIsSaid) {
  b.add("cone", S::cone, {{R::diameter, 10}, {R::taper, pi / 2}, {R::height, 30}});
  EXPECT_EQ(wrong(), "cone: it comes to a point before it is as long: less taper, or shorter");
}

TEST_F(Turned, ATaperHoleThroughAndThroughEndsWhereTheMetalDoes) {
  b.add("block", S::block, {{R::length, 60}, {R::width, 60}, {R::height, 20}});
  const double taper = 2 * std::atan(1.0 / 20);
  auto& hole = b.add("socket", S::cone, {{R::diameter, 16}, {R::taper, taper}}, Bodies::id(0));
  hole.cut = hole.through = true;
  EXPECT_NEAR(volume(), 60 * 60 * 20 - pi * 20 / 12 * (16 * 16 + 16 * 14 + 14 * 14), 1e-5);
}

// ISO 6410-1: a thread is a thin line beside the outline: of a tapped hole at its outside, of a screw at its
// bottom. The bottom of an M6 screw is 4.773 (ISO 724, d3).
TEST_F(Turned, ThreadsAreThinLines) {
  b.add("block", S::block, {{R::length, 60}, {R::width, 60}, {R::height, 20}});
  auto& hole = b.add("hole", S::hole, {{R::diameter, 5}, {R::depth, 12}, {R::along, 10}}, Bodies::id(0));
  hole.thread = "M6";
  hole.making = HoleMaking::tapped;
  auto& stud = b.add("stud", S::round, {{R::diameter, 6}, {R::height, 15}, {R::along, -10}}, Bodies::id(0));
  stud.thread = "M6";
  const auto s = b.made();
  ASSERT_EQ(s.threads.size(), 2U);
  for (const auto& thread : s.threads) {
    EXPECT_NEAR(thread.diameter, thread.inside ? 6 : 4.773, 1e-3);
    EXPECT_NEAR((thread.to - thread.from).norm(), thread.inside ? 12 : 15, 1e-9);
    EXPECT_NEAR(thread.from.x(), thread.inside ? 10 : -10, 1e-9);
  }
}

/// A part with one stated surface, level, 30 up, and a build to change.
class OnASurface : public testing::Test {
protected:
  OnASurface() {
    build.load(2, Part{"Part", "cast iron", 1, 0});
    PartSurface s;
    s.part = 2;
    s.name = "pad";
    s.point = {5, 0, 30};
    s.direction = Vec3::UnitZ();
    s.width = 40;
    s.height = 20;
    pad = put(s);
  }
  Id put(Record record) {
    const Id id = build.next_id();
    EXPECT_TRUE(build.apply(add(build, std::move(record), "x")));
    return id;
  }
  Id hole() {
    NewBody begun{S::hole, true, 0, BodyFace::top, "oil hole"};
    begun.surface = pad;
    const auto made = add_body(build, 2, begun);
    EXPECT_TRUE(made.ok()) << made.wrong;
    EXPECT_TRUE(build.apply(made.edit));
    return made.id;
  }
  const PartSurface* wall() const {
    for (const auto& [id, s] : build.surfaces_of(2))
      if (s.name == "oil hole") return &s;
    return nullptr;
  }
  Build build;
  Id pad = 0;
};

TEST_F(OnASurface, AHoleIsDrilledWhereTheSurfaceIsAndGoesWithIt) {
  const Id id = hole();
  ASSERT_TRUE(build.apply(set_body_size(build, id, R::along, 10, "")));
  ASSERT_TRUE(wall());
  EXPECT_NEAR(std::abs(wall()->point.x() - 5), 10, 1e-9);
  EXPECT_LT(wall()->point.z(), 30);
  auto moved = *build.find<PartSurface>(pad);
  moved.point.z() = 36;
  ASSERT_TRUE(build.apply(followed(build, replace(build, pad, moved, "Place"))));
  const double depth = build.find<Body>(id)->size(R::depth)->value;
  EXPECT_NEAR(wall()->point.z(), 36 - depth / 2, 1e-9);
}

TEST_F(OnASurface, ItGoesWhenTheSurfaceGoes) {
  hole();
  ASSERT_TRUE(build.apply(remove(build, pad, "Remove pad")));
  EXPECT_TRUE(build.bodies_of(2).empty());
}

TEST_F(OnASurface, ASurfaceOfAnotherPartOrOfABodyIsRefused) {
  build.load(90, Part{"Other", "steel", 1, 1});
  NewBody begun{S::hole, true, 0, BodyFace::top, ""};
  begun.surface = pad;
  EXPECT_EQ(add_body(build, 90, begun).wrong, "what it is to be put on is not there");
  hole();
  for (const auto& [id, s] : build.surfaces_of(2))
    if (s.body != 0) begun.surface = id;
  EXPECT_FALSE(add_body(build, 2, begun).ok());
}

// The far end of a cone is said one way: typing the other takes the first away, with its dimension.
TEST_F(OnASurface, AConeIsSaidByItsTaperOrByItsEnd) {
  const auto made = add_body(build, 2, {S::cone, false, 0, BodyFace::middle, "plug"});
  ASSERT_TRUE(build.apply(made.edit));
  const Id id = made.id;
  const auto dimensions = [&] { return build.dimensions_of(2).size(); };
  const auto before = dimensions();
  ASSERT_TRUE(build.apply(set_body_size(build, id, R::height, 24, "")));
  ASSERT_TRUE(build.apply(set_body_size(build, id, R::taper, 2 * std::atan(1.0 / 24), "")));
  EXPECT_EQ(dimensions(), before);                                         // one went, one came
  EXPECT_NEAR(top_diameter(form_of(*build.find<Body>(id))), 20 - 2, 1e-9); // 24 long at 1 in 12
  ASSERT_TRUE(build.apply(set_body_size(build, id, R::diameter, 30, "")));
  EXPECT_NEAR(top_diameter(form_of(*build.find<Body>(id))), 28, 1e-9); // the taper stays
  ASSERT_TRUE(build.apply(set_body_size(build, id, R::taper, 0, "")));
  EXPECT_EQ(build.find<Body>(id)->size(R::top_diameter)->value, 28); // and when it goes, the end does
  EXPECT_EQ(build.find<Body>(id)->size(R::taper)->value, 0);
  EXPECT_EQ(dimensions(), before);
}

// The tapping drill of M6 is 5.0 (ISO 2306), the outside of its screw 6.
TEST_F(OnASurface, AThreadGivesTheSizeOfTheHole) {
  const Id id = hole();
  auto tapped = *build.find<Body>(id);
  tapped.making = HoleMaking::tapped;
  ASSERT_TRUE(build.apply(set_body(build, id, tapped, "Making")));
  ASSERT_TRUE(build.apply(set_thread(build, id, "M6", "")));
  EXPECT_NEAR(build.find<Body>(id)->size(R::diameter)->value, 5, 1e-9);
  EXPECT_NEAR(wall()->diameter, 5, 1e-9);
  EXPECT_EQ(build.find<Body>(id)->thread, "M6");
  EXPECT_TRUE(set_thread(build, id, "M6", "").empty());
}

} // namespace
} // namespace datrin::solid_test
