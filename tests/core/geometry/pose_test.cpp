#include "geometry/pose.h"

#include <Eigen/Geometry>
#include <gtest/gtest.h>

using namespace datrin;

TEST(Pose, RotationVectorAgreesWithEigenAndComesBack) {
  for (const Vec3& v :
       {Vec3(0, 0, 0), Vec3(1e-9, 0, 0), Vec3(0.3, -0.2, 0.9), Vec3(0, 3.1, 0), Vec3(-2, 1, 1.5)}) {
    const Mat3 r = rotation_from_vector(v);
    if (v.norm() > 0) {
      EXPECT_TRUE(r.isApprox(Eigen::AngleAxisd(v.norm(), v.normalized()).toRotationMatrix(), 1e-14));
    }
    EXPECT_NEAR((vector_from_rotation(r) - v).norm(), 0, 1e-12) << v.transpose();
  }
}

TEST(Pose, InverseAndThen) {
  const Pose a{rotation_from_vector({0.1, 0.2, -0.3}), {1, 2, 3}},
      b{rotation_from_vector({-0.4, 0, 0.2}), {-5, 0, 2}};
  const Vec3 p(7, -1, 4);
  EXPECT_NEAR((a.inverse().apply(a.apply(p)) - p).norm(), 0, 1e-13);
  EXPECT_NEAR((then(a, b).apply(p) - b.apply(a.apply(p))).norm(), 0, 1e-13);
}

TEST(Pose, MovedTurnsAboutTheCentreAndStaysOrthogonal) {
  const Vec3 centre(10, 0, 5);
  Pose pose;
  for (int k = 0; k < 10000; ++k) pose = moved(pose, centre, Vec3::Zero(), {0.001, -0.002, 0.0015});
  EXPECT_NEAR((pose.apply(centre) - centre).norm(), 0, 1e-9);
  EXPECT_NEAR((pose.rotation * pose.rotation.transpose() - Mat3::Identity()).norm(), 0, 1e-13);
  EXPECT_NEAR((moved(Pose{}, centre, {1, 2, 3}, Vec3::Zero()).apply(centre) - centre - Vec3(1, 2, 3)).norm(),
              0, 1e-14);
}
