// Joining two settings by their marks: what must hold for any marks, moved any way.

#include "geometry/registration.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <random>

using namespace datrin;

namespace {

struct Draw {
  std::mt19937 random;
  explicit Draw(unsigned seed) : random(seed) {}
  double within(double reach) { return std::uniform_real_distribution<double>(-reach, reach)(random); }
  Vec3 place(double reach) { return {within(reach), within(reach), within(reach)}; }
  Pose pose() { return {rotation_from_vector(place(1.7)), place(80)}; }
};

} // namespace

class AnyMarks : public testing::TestWithParam<unsigned> {};

TEST_P(AnyMarks, AreJoinedExactlyWhereTheyWereReadExactly) {
  Draw draw(GetParam());
  for (int round = 0; round < 30; ++round) {
    const Pose truth = draw.pose();
    std::vector<PointPair> pairs;
    const int count = 3 + round % 4;
    for (int k = 0; k < count; ++k) {
      const Vec3 at = draw.place(50);
      pairs.push_back({std::string(1, static_cast<char>('A' + k)), at, truth.apply(at), 0.02});
    }
    const auto found = register_points(pairs);
    if (found.status == RegistrationStatus::in_line) continue;
    ASSERT_EQ(found.status, RegistrationStatus::registered) << found.message;
    EXPECT_LT((found.pose.rotation - truth.rotation).norm(), 1e-9);
    EXPECT_LT((found.pose.translation - truth.translation).norm(), 1e-7);
    EXPECT_LT(found.rms, 1e-7);
    EXPECT_GT(found.pose.rotation.determinant(), 0);
    // Told the other way round it is the same motion back.
    for (auto& p : pairs) std::swap(p.from, p.to);
    const auto back = register_points(pairs);
    EXPECT_LT((then(found.pose, back.pose).rotation - Mat3::Identity()).norm(), 1e-8);
  }
}

// The order the marks were read in, and their names, mean nothing.
TEST_P(AnyMarks, AreJoinedTheSameInAnyOrder) {
  Draw draw(GetParam() + 50);
  const Pose truth = draw.pose();
  std::vector<PointPair> pairs;
  for (int k = 0; k < 6; ++k) {
    const Vec3 at = draw.place(50);
    pairs.push_back(
        {std::string(1, static_cast<char>('A' + k)), at, Vec3(truth.apply(at) + draw.place(0.015)), 0.02});
  }
  const auto one = register_points(pairs);
  std::shuffle(pairs.begin(), pairs.end(), draw.random);
  const auto two = register_points(pairs);
  EXPECT_LT((one.pose.translation - two.pose.translation).norm(), 1e-9);
  EXPECT_NEAR(one.rms, two.rms, 1e-12);
  EXPECT_EQ(one.status, two.status);
}

// What is stated as the spread of a place far from the marks is larger than among them.
TEST_P(AnyMarks, SpreadGrowsAwayFromTheMarks) {
  Draw draw(GetParam() + 90);
  std::vector<PointPair> pairs;
  for (int k = 0; k < 5; ++k) {
    const Vec3 at = draw.place(40);
    pairs.push_back({std::string(1, static_cast<char>('A' + k)), at, at, 0.02});
  }
  const auto found = register_points(pairs);
  ASSERT_EQ(found.status, RegistrationStatus::registered) << found.message;
  const double near = registration_spread(found, found.centre);
  const Vec3 way = draw.place(1).normalized();
  double before = near;
  for (const double reach : {50.0, 200.0, 800.0}) {
    const double spread = registration_spread(found, found.centre + reach * way);
    EXPECT_GT(spread, before);
    before = spread;
  }
}

INSTANTIATE_TEST_SUITE_P(Seeds, AnyMarks, testing::Values(1U, 2U, 3U));
