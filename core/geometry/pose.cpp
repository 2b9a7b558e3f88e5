#include "geometry/pose.h"

#include <Eigen/Geometry>

#include <cmath>

namespace datrin {

Pose then(const Pose& first, const Pose& second) {
  return {second.rotation * first.rotation, second.rotation * first.translation + second.translation};
}

Mat3 rotation_from_vector(const Vec3& vector) {
  const double angle = vector.norm();
  if (angle < 1e-300) return Mat3::Identity();
  return Eigen::AngleAxisd(angle, vector / angle).toRotationMatrix();
}

Vec3 vector_from_rotation(const Mat3& rotation) {
  // By way of the quaternion: accurate for small angles, where the trace alone is not.
  Eigen::Quaterniond q(rotation);
  q.normalize();
  if (q.w() < 0) q.coeffs() = -q.coeffs();
  const double sine = q.vec().norm();
  const double angle = 2 * std::atan2(sine, q.w());
  return sine < 1e-300 ? Vec3(2 * q.vec()) : Vec3(q.vec() * (angle / sine));
}

Pose moved(const Pose& pose, const Vec3& centre, const Vec3& move, const Vec3& turn) {
  const Mat3 r = rotation_from_vector(turn);
  Eigen::Quaterniond q(r * pose.rotation);
  q.normalize();
  return {q.toRotationMatrix(), r * (pose.translation - centre) + centre + move};
}

} // namespace datrin
