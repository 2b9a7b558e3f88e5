#include "geometry/registration.h"

#include <Eigen/Geometry>
#include <gtest/gtest.h>

#include <random>

using namespace datrin;

namespace {

const Pose truth{rotation_from_vector({0.3, -1.2, 0.7}), {40, -12, 5}};

std::vector<PointPair> marks(int n, double noise, unsigned seed, double uncertainty = 0.04) {
  std::mt19937 random(seed);
  std::normal_distribution<double> normal(0, noise);
  const Vec3 at[] = {{0, 0, 0}, {80, 5, 3}, {10, 60, -4}, {70, 55, 20}, {35, 30, 40}};
  std::vector<PointPair> pairs;
  for (int i = 0; i < n; ++i) {
    const Vec3 off(normal(random), normal(random), normal(random));
    pairs.push_back(
        {std::string(1, static_cast<char>('A' + i)), at[i], truth.apply(at[i]) + off, uncertainty});
  }
  return pairs;
}

double turned_by(const Pose& a, const Pose& b) {
  return vector_from_rotation(a.rotation * b.rotation.transpose()).norm();
}

} // namespace

TEST(Registration, FindsThePoseExactlyAndAgreesWithEigensUmeyama) {
  const auto pairs = marks(5, 0.3, 7);
  const auto result = register_points(pairs, {.least_uncertainty = 2});
  ASSERT_EQ(result.status, RegistrationStatus::registered);
  // Reference: Eigen::umeyama, the general-purpose implementation of Umeyama 1991.
  Eigen::Matrix<double, 3, Eigen::Dynamic> from(3, 5), to(3, 5);
  for (int i = 0; i < 5; ++i) {
    from.col(i) = pairs[static_cast<std::size_t>(i)].from;
    to.col(i) = pairs[static_cast<std::size_t>(i)].to;
  }
  const Eigen::Matrix4d reference = Eigen::umeyama(from, to, false);
  EXPECT_LT((result.pose.rotation - reference.topLeftCorner<3, 3>()).norm(), 1e-12);
  EXPECT_LT((result.pose.translation - reference.topRightCorner<3, 1>()).norm(), 1e-9);

  const auto exact = register_points(marks(3, 0, 1));
  EXPECT_LT(turned_by(exact.pose, truth), 1e-12);
  EXPECT_LT(exact.rms, 1e-10);
}

TEST(Registration, NeverMirrors) {
  auto pairs = marks(4, 0, 1);
  for (auto& pair : pairs) pair.to.x() = -pair.to.x();
  const auto result = register_points(pairs);
  EXPECT_NEAR(result.pose.rotation.determinant(), 1, 1e-12);
  EXPECT_EQ(result.status, RegistrationStatus::doubtful);
}

TEST(Registration, GoodReadingsPassAndTheStatedSpreadHolds) {
  int passed = 0, within = 0;
  for (unsigned seed = 0; seed < 300; ++seed) {
    const auto result = register_points(marks(4, 0.02, seed)); // standard deviation half the 95 % uncertainty
    passed += result.status == RegistrationStatus::registered ? 1 : 0;
    const Vec3 far(120, -40, 60);
    const double off = (result.pose.apply(far) - truth.apply(far)).norm();
    within += off < 1.5 * registration_spread(result, truth.apply(far)) ? 1 : 0;
  }
  EXPECT_GE(passed, 290); // 99 % are to pass
  EXPECT_GE(within, 285);
}

TEST(Registration, ASwappedPairIsNamed) {
  auto pairs = marks(4, 0.015, 3);
  std::swap(pairs[1].to, pairs[3].to);
  const auto result = register_points(pairs);
  EXPECT_EQ(result.status, RegistrationStatus::doubtful);
  EXPECT_EQ(result.message, "B and D are booked for each other: exchanged, all agree");
  EXPECT_EQ(result.swapped, std::make_pair(1, 3));
}

TEST(Registration, AMisreadMarkIsNamed) {
  for (const int n : {3, 4, 5})
    for (int wrong = 0; wrong < n; ++wrong) {
      auto pairs = marks(n, 0.01, static_cast<unsigned>(n + wrong));
      pairs[static_cast<std::size_t>(wrong)].to += truth.turn({2.54, 0.3, 0});
      const auto result = register_points(pairs);
      EXPECT_EQ(result.status, RegistrationStatus::doubtful) << n << wrong;
      // Of three, two distances must change for the third to tell; a slip across one of them does not.
      if (n > 3) {
        EXPECT_EQ(result.misread, wrong) << n << " " << result.message;
      } else if (result.misread < 0) {
        EXPECT_EQ(result.message, "one of the three marks is misread; touch a fourth to tell which");
      } else {
        EXPECT_EQ(result.misread, wrong);
      }
    }
}

TEST(Registration, SaysWhatIsMissing) {
  EXPECT_EQ(register_points(marks(2, 0, 1)).message, "three marks read in both are needed; there are 2");
  auto line = marks(3, 0, 1);
  for (int i = 0; i < 3; ++i) {
    line[static_cast<std::size_t>(i)].from = Vec3(10.0 * i, 5.0 * i, 0);
    line[static_cast<std::size_t>(i)].to = truth.apply(line[static_cast<std::size_t>(i)].from);
  }
  EXPECT_EQ(register_points(line).status, RegistrationStatus::in_line);
  auto broken = marks(3, 0, 1);
  broken[1].to.z() = std::nan("");
  EXPECT_EQ(register_points(broken).status, RegistrationStatus::refused);
}

TEST(Registration, HeightsGiveWhichWayIsUp) {
  const Vec3 up = Vec3(0.2, -0.5, 0.84).normalized();
  std::vector<HeightPair> pairs;
  for (const auto& mark : marks(5, 0, 1))
    pairs.push_back({mark.name, mark.from, up.dot(mark.from) + 31.5, 0.03});
  const auto result = register_heights(pairs);
  ASSERT_EQ(result.status, RegistrationStatus::registered) << result.message;
  EXPECT_LT((result.up - up).norm(), 1e-9);
  EXPECT_NEAR(result.offset, 31.5, 1e-9);
  EXPECT_FALSE(result.other_up);

  pairs.resize(3); // three lie in a plane: up, or up mirrored in it
  const auto flat = register_heights(pairs);
  ASSERT_TRUE(flat.usable());
  ASSERT_TRUE(flat.other_up);
  EXPECT_LT(std::min((flat.up - up).norm(), (*flat.other_up - up).norm()), 1e-9);
  pairs.resize(2);
  EXPECT_EQ(register_heights(pairs).message, "the heights of three marks are needed; there are 2");
}
