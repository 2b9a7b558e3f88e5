#pragma once
// Rigid motions. A pose maps one frame to another: x_to = rotation * x_from + translation (mm).

#include <Eigen/Core>

namespace datrin {

using Vec3 = Eigen::Vector3d;
using Mat3 = Eigen::Matrix3d;

struct Pose {
  Mat3 rotation = Mat3::Identity(); ///< proper orthogonal
  Vec3 translation = Vec3::Zero();  ///< mm

  Vec3 apply(const Vec3& point) const { return rotation * point + translation; }
  Vec3 turn(const Vec3& direction) const { return rotation * direction; }
  Pose inverse() const { return {rotation.transpose(), -(rotation.transpose() * translation)}; }
};

/// First `first`, then `second`.
Pose then(const Pose& first, const Pose& second);

/// The rotation by |v| radians about v (Rodrigues).
Mat3 rotation_from_vector(const Vec3& vector);

/// The inverse: axis times angle in radians, angle in [0, pi].
Vec3 vector_from_rotation(const Mat3& rotation);

/// `pose` followed by turning about `centre` (in the frame the pose maps to) by `turn` (radians, axis times
/// angle) and then moving by `move` (mm). The rotation stays orthogonal to machine accuracy however often
/// this is applied.
Pose moved(const Pose& pose, const Vec3& centre, const Vec3& move, const Vec3& turn);

} // namespace datrin
