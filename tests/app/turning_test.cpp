#include "sheets/turning.h"

#include "app/casting/piece_state.h"
#include "demo/mill_engine.h"

#include <Eigen/LU>
#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::sheets;

namespace {

/// A cube of 20 mm about the origin, each face machined.
SceneInput cube() {
  SceneInput input;
  for (int k = 0; k < 3; ++k)
    for (const double s : {-1.0, 1.0}) {
      SceneSurface face;
      face.name = std::string(s < 0 ? "-" : "+") + "xyz"[k];
      face.shape = {SurfaceKind::plane, s * 10 * Vec3::Unit(k), s * Vec3::Unit(k), 0};
      face.width = face.height = 20;
      input.surfaces.push_back(face);
    }
  return input;
}

double area(const std::vector<Vec2>& loop) {
  double sum = 0;
  for (std::size_t k = 0; k < loop.size(); ++k) {
    const auto &p = loop[k], &q = loop[(k + 1) % loop.size()];
    sum += p.x() * q.y() - p.y() * q.x();
  }
  return std::abs(sum) / 2;
}

double area_of(const TurnedScene& scene, const SceneInput& input, const std::string& name) {
  double sum = 0;
  for (const auto& face : scene.faces)
    if (input.surfaces[static_cast<std::size_t>(face.surface)].name == name &&
        face.role == TurnedFace::Role::finished)
      sum += area(face.outline);
  return sum;
}

} // namespace

TEST(Turning, TheEyeLooksFromTheFrontAndGoesRound) {
  const auto front = turned_axes(0, 0);
  EXPECT_LT((front.toward - Vec3(0, -1, 0)).norm(), 1e-12); // as the front view: seen from −y, x right, z up
  EXPECT_LT((front.right - Vec3::UnitX()).norm(), 1e-12);
  EXPECT_LT((front.up - Vec3::UnitZ()).norm(), 1e-12);
  for (const double yaw : {-2.0, 0.3, 1.4, 3.0})
    for (const double pitch : {-1.5, -0.4, 0.0, 0.9, 1.5}) {
      const auto axes = turned_axes(yaw, pitch);
      Mat3 m;
      m << axes.right, axes.up, axes.toward;
      EXPECT_LT((m.transpose() * m - Mat3::Identity()).norm(), 1e-12);
      EXPECT_NEAR(m.determinant(), 1, 1e-12); // right-handed: nothing is seen mirrored
      EXPECT_NEAR(axes.right.z(), 0, 1e-12);  // upright stays upright
    }
  EXPECT_LT((turned_axes(0.7, pi / 2).toward - Vec3::UnitZ()).norm(), 1e-12); // the plan
}

TEST(Turning, AnIsometricCubeIsForeshortenedByRootTwoThirds) {
  // ISO 5456-3 (isometric projection): each axis is shortened by √(2/3); the three faces are alike.
  const auto input = cube();
  const auto axes = turned_axes(pi / 4, std::asin(1 / std::sqrt(3.0)));
  for (int k = 0; k < 3; ++k) EXPECT_NEAR(axes.on_paper(Vec3::Unit(k)).norm(), std::sqrt(2.0 / 3), 1e-12);
  const auto scene = make_turned(input, axes);
  for (const char* name : {"+x", "-y", "+z"})
    EXPECT_NEAR(area_of(scene, input, name), 400 / std::sqrt(3.0), 1e-9) << name;
}

TEST(Turning, FacesComeBackToFront) {
  const auto scene = make_turned(cube(), turned_axes(0.5, 0.4));
  ASSERT_EQ(scene.faces.size(), 6U);
  for (std::size_t k = 1; k < scene.faces.size(); ++k)
    EXPECT_LE(scene.faces[k - 1].depth, scene.faces[k].depth);
  // The first three look away, and are in the dark.
  for (std::size_t k = 0; k < 6; ++k) EXPECT_EQ(scene.faces[k].light == 0.12, k < 3) << k;
}

TEST(Turning, ACutTakesAwayWhatLiesBeyondAndLeavesItsOutline) {
  const auto input = cube();
  const auto whole = make_turned(input, turned_axes(0.5, 0.4));
  const SectionPlane cut{-Vec3::UnitY(), -2}; // what lies before y = 2 goes
  const auto scene = make_turned(input, turned_axes(0.5, 0.4), cut);
  EXPECT_NEAR(area_of(scene, input, "-y"), 0, 1e-12);
  EXPECT_NEAR(area_of(scene, input, "+z") / area_of(whole, input, "+z"), 8.0 / 20, 1e-9);
  ASSERT_EQ(scene.cut.size(), 4U); // a square
  double round = 0;
  for (const auto& [a, b] : make_turned(input, turned_axes(0, 0), cut).cut) round += (a - b).norm();
  EXPECT_NEAR(round, 80, 1e-9);
}

TEST(Turning, RoughMetalStandsOverWhereItWasTouched) {
  auto input = cube();
  for (const double x : {-8.0, 8.0})
    for (const double y : {-8.0, 8.0}) input.touches.push_back({5, {x, y, 12 + 0.05 * x}}); // +z leans
  const auto scene = make_turned(input, turned_axes(0.5, 0.4));
  const auto rough = std::find_if(scene.faces.begin(), scene.faces.end(),
                                  [](const TurnedFace& f) { return f.role == TurnedFace::Role::rough; });
  ASSERT_NE(rough, scene.faces.end());
  EXPECT_NEAR(rough->stock, 2, 1e-6);
  ASSERT_EQ(scene.figures.size(), 1U);
  EXPECT_NEAR(scene.figures[0].stock, 2, 1e-6);
  EXPECT_EQ(scene.figures[0].surface, 5);
  EXPECT_EQ(scene.pips.size(), 4U);
  // From below that face is not seen, nor its figure.
  EXPECT_TRUE(make_turned(input, turned_axes(0.5, -0.4)).figures.empty());
}

TEST(Turning, ABoreIsAHoleInTheFacesItComesOutAt) {
  auto input = cube();
  SceneSurface bore;
  bore.name = "bore";
  bore.shape = {SurfaceKind::bore, Vec3::Zero(), Vec3::UnitY(), 8};
  bore.height = 20;
  input.surfaces.push_back(bore);
  const auto count = [&](double yaw) {
    int holes = 0;
    for (const auto& face : make_turned(input, turned_axes(yaw, 0.3)).faces)
      holes += face.role == TurnedFace::Role::hole ? 1 : 0;
    return holes;
  };
  EXPECT_EQ(count(0.4), 1); // the end that looks this way
  EXPECT_EQ(count(0.4 + pi), 1);
  EXPECT_EQ(count(pi / 2), 0); // side on, none
  // Cut along its axis the hole is seen from inside.
  const auto cut = make_turned(input, turned_axes(0.4, 0.3), SectionPlane{Vec3::UnitZ(), 0});
  int strips = 0;
  for (const auto& face : cut.faces) strips += face.surface == 6 ? 1 : 0;
  EXPECT_GE(strips, 18);
}

TEST(Turning, EveryDemoPartTurnsWithoutTrouble) {
  const auto demo = demo::mill_engine();
  for (const auto& [part, record] : demo.build.parts())
    for (const auto& [piece, one] : demo.build.pieces_of(part)) {
      const auto state = app::piece_state(demo.build, piece);
      const auto input = app::piece_scene(demo.build, state, state.pose);
      for (double yaw = -3; yaw < 3; yaw += 0.7)
        for (const double pitch : {-1.5, 0.2, 1.5})
          for (int axis = -1; axis < 3; ++axis) {
            std::optional<SectionPlane> cut;
            if (axis >= 0) cut = SectionPlane{Vec3::Unit(axis), 3.0};
            const auto scene = make_turned(input, turned_axes(yaw, pitch), cut);
            EXPECT_FALSE(scene.faces.empty());
            for (const auto& face : scene.faces)
              for (const auto& at : face.outline) ASSERT_TRUE(at.allFinite()) << record.name;
          }
    }
}
