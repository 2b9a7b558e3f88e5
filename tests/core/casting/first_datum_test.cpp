#include "casting/first_datum.h"

#include "quantity/unit.h"

#include <Eigen/Geometry>
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <random>

using namespace datrin;
using namespace datrin::casting;

namespace {

DatumSurface face(const char* name, const Vec3& at, const Vec3& normal, double width, double height,
                  double draft = 0) {
  DatumSurface s;
  s.name = name;
  s.shape = {SurfaceKind::plane, at, normal, 0};
  s.width = width;
  s.height = height;
  s.draft = draft;
  return s;
}

FirstDatumInput block() {
  FirstDatumInput in;
  in.surfaces = {
      face("foot", {0, 0, 0}, -Vec3::UnitZ(), 100, 60), face("front", {0, -30, 20}, -Vec3::UnitY(), 100, 40),
      face("end", {-50, 0, 20}, -Vec3::UnitX(), 60, 40), face("top", {0, 0, 40}, Vec3::UnitZ(), 100, 60)};
  in.surfaces[3].as_cast = false;
  in.surfaces[3].to_machine = true;
  DatumSurface bore;
  bore.name = "bore";
  bore.shape = {SurfaceKind::bore, {10, 0, 25}, Vec3::UnitY(), 20};
  bore.height = 60;
  bore.as_cast = false;
  bore.to_machine = true;
  in.surfaces.push_back(bore);
  return in;
}

} // namespace

// The linear spread against a simulation: contacts displaced by chance, the six equations solved with the
// turn as a true rotation (Newton), the features' places taken from the moved part.
TEST(FirstDatum, SpreadAgreesWithASimulation) {
  const auto in = block();
  const auto choice = datum_choice(in, {0, 1, 2});
  ASSERT_TRUE(choice);
  std::mt19937_64 random(3);
  std::normal_distribution<double> normal;
  std::vector<double> top_squares(4, 0.0);
  double bore_xx = 0, bore_zz = 0, bore_xz = 0;
  constexpr int runs = 20000;
  const Vec3 corners[] = {{-50, -30, 40}, {50, -30, 40}, {-50, 30, 40}, {50, 30, 40}};
  const Vec3 end = {10, -30, 25};
  for (int k = 0; k < runs; ++k) {
    std::array<double, 6> e{};
    for (auto& x : e) x = 0.15 * normal(random);
    // n · (R r + d − r) = e for every contact.
    Vec3 d = Vec3::Zero(), w = Vec3::Zero();
    for (int step = 0; step < 4; ++step) {
      const double angle = w.norm();
      const Mat3 r = angle > 0 ? Mat3(Eigen::AngleAxisd(angle, w / angle)) : Mat3(Mat3::Identity());
      std::array<double, 6> miss{};
      for (std::size_t c = 0; c < 6; ++c)
        miss[c] = e[c] - choice->targets[c].normal.dot(r * choice->targets[c].at + d - choice->targets[c].at);
      const auto more = motion_of(choice->targets, miss);
      ASSERT_TRUE(more);
      d += more->move;
      w += more->turn;
    }
    const Mat3 r = w.norm() > 0 ? Mat3(Eigen::AngleAxisd(w.norm(), w.normalized())) : Mat3(Mat3::Identity());
    for (std::size_t c = 0; c < 4; ++c)
      top_squares[c] += std::pow((r * corners[c] + d - corners[c]).z(), 2) / runs;
    const Vec3 off = r * end + d - end;
    bore_xx += off.x() * off.x() / runs;
    bore_zz += off.z() * off.z() / runs;
    bore_xz += off.x() * off.z() / runs;
  }
  const double top = 2 * std::sqrt(*std::max_element(top_squares.begin(), top_squares.end()));
  const double half = (bore_xx + bore_zz) / 2;
  const double bore =
      2 * std::sqrt(half + std::sqrt(std::pow((bore_xx - bore_zz) / 2, 2) + bore_xz * bore_xz));
  ASSERT_EQ(choice->spreads.size(), 2U);
  EXPECT_NEAR(choice->spreads[0].spread, top, 0.03 * top);
  // The other end of the bore may spread more; this one cannot be above it.
  EXPECT_GT(choice->spreads[1].spread, 0.97 * bore);
  for (const auto& s : choice->spreads) EXPECT_NEAR(s.share[0] + s.share[1] + s.share[2], 1, 1e-9);
}

// Three targets over one foot of a square stance: by symmetry the height over the middle of the triangle
// spreads by roughness / √3 (three independent readings averaged).
TEST(FirstDatum, OverTheMiddleOfTheTargetsTheSpreadIsThatOfAMean) {
  auto in = block();
  in.surfaces[3] = face("spot", {0, 0, 40}, Vec3::UnitZ(), 1e-6, 1e-6);
  in.surfaces[3].as_cast = false;
  in.surfaces[3].to_machine = true;
  const auto choice = datum_choice(in, {0, 1, 2});
  ASSERT_TRUE(choice);
  Vec3 middle = Vec3::Zero();
  for (int k = 0; k < 3; ++k) middle += choice->targets[static_cast<std::size_t>(k)].at / 3;
  in.surfaces[3].shape.point = {middle.x(), middle.y(), 40};
  EXPECT_NEAR(datum_choice(in, {0, 1, 2})->spreads[0].spread, 2 * 0.15 / std::sqrt(3.0), 1e-6);
}

TEST(FirstDatum, ADraftedFaceIsWorseAndItIsSaidWhy) {
  auto in = block();
  in.surfaces[0].draft = radians(10); // the largest, but it runs out
  in.surfaces.push_back(face("back of the foot", {0, 30, 20}, Vec3::UnitY(), 90, 36));
  const auto found = first_datums(in);
  ASSERT_TRUE(found.usable()) << found.message;
  EXPECT_GT(found.tempting_place, 1);
  EXPECT_EQ(found.tempting.surfaces[0], 0);
  EXPECT_LT(found.choices.front().worst, found.tempting.worst);
  EXPECT_TRUE(found.text.starts_with("Standing on foot (the largest)")) << found.text;
  EXPECT_TRUE(found.text.find("on a draft of 10.0\u00B0") != std::string::npos) << found.text;
  for (std::size_t k = 1; k < found.choices.size(); ++k)
    EXPECT_LE(found.choices[k - 1].worst, found.choices[k].worst);
}

TEST(FirstDatum, WhatDoesNotHoldThePartIsNotOffered) {
  auto in = block();
  EXPECT_FALSE(datum_choice(in, {0, 3, 1})); // foot and top face one way
  in.surfaces.erase(in.surfaces.begin() + 2);
  EXPECT_EQ(first_datums(in).message, "three as-cast surfaces are needed, two of them flat, to stand and "
                                      "locate the casting on; or a round one to "
                                      "grip and an end face");
  in = block();
  in.surfaces[0].flash = true;
  const auto found = first_datums(in);
  ASSERT_TRUE(found.usable());
  ASSERT_EQ(found.warnings.size(), 1U);
  EXPECT_TRUE(found.warnings[0].starts_with("Flash was noted on foot"));
}

// A flanged bush in the chuck on its raw outside: jaws at z = +16 and -16 (0.8 of 40 long), each taking the
// middle of two raw sides: s = 0.15/sqrt 2 across. An end of the bore at z = 20 beyond the middle moves
// across by (a + b)/2 + 20/32 (a - b): s sqrt(0.5 + 2 (20/32)^2 x ...) = s sqrt(1.125^2 + 0.125^2). The
// flange face, square to the axis, 30 from it: the back face alone and the tilt.
TEST(FirstDatum, ARoundPartIsGrippedInAChuck) {
  FirstDatumInput in;
  DatumSurface outside;
  outside.name = "outside";
  outside.shape = {SurfaceKind::boss, {0, 0, 0}, Vec3::UnitZ(), 50};
  outside.height = 40;
  DatumSurface bore;
  bore.name = "bore";
  bore.shape = {SurfaceKind::bore, {0, 0, 0}, Vec3::UnitZ(), 20};
  bore.height = 40;
  bore.as_cast = false;
  bore.to_machine = true;
  in.surfaces = {outside, face("back", {0, 0, -20}, -Vec3::UnitZ(), 50, 50), bore};
  const auto found = first_datums(in);
  ASSERT_TRUE(found.usable()) << found.message;
  const auto& best = found.choices.front();
  EXPECT_EQ(best.holding, Holding::gripped);
  EXPECT_EQ(best.surfaces, (std::array<int, 3>{0, 1, -1})); // nothing needs a stop
  const double s = 0.15 / std::sqrt(2.0);
  EXPECT_NEAR(best.worst, 2 * s * std::hypot(1.125, 0.125), 1e-9);
  EXPECT_TRUE(found.text.starts_with("Gripped on outside, against back, turned by eye")) << found.text;
  // A keyway's floor beside the axis needs the turn: half a degree by eye at 15 from it.
  auto keyed = in;
  auto floor = face("floor", {15, 0, 10}, Vec3::UnitX(), 6, 10);
  floor.as_cast = false;
  floor.to_machine = true;
  keyed.surfaces.push_back(floor);
  const auto by_eye = datum_choice(keyed, {0, 1, -1});
  ASSERT_TRUE(by_eye);
  EXPECT_GT(by_eye->spreads[1].share[2], 0.0);
  // What is too short to grip is not.
  in.surfaces[0].height = 10;
  EXPECT_FALSE(first_datums(in).usable());
}
