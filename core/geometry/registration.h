#pragma once
// Rigid registration: the pose that carries points of one frame onto the same points read in another.
//
// Method: weighted least squares in closed form by a singular value decomposition (K. S. Arun, T. S. Huang,
// S. D. Blostein, "Least-squares fitting of two 3-D point sets", 1987; the reflection handled after
// S. Umeyama, 1991). Judged by the sum of squares over its standard deviations, which is chi-squared with
// 3 n − 6 degrees of freedom when every point was read as well as it says.

#include "geometry/pose.h"

#include <Eigen/Core>

#include <optional>
#include <string>
#include <vector>

namespace datrin {

using Mat6 = Eigen::Matrix<double, 6, 6>;

struct PointPair {
  std::string name;
  Vec3 from = Vec3::Zero(), to = Vec3::Zero(); ///< mm
  double uncertainty = 0;                      ///< mm, 95 %, per coordinate, of both readings together
};

struct RegistrationOptions {
  double least_uncertainty = 0.02; ///< mm, 95 %: no reading is trusted further than this
  double confidence = 0.99;        ///< of the judgement: this many good registrations pass
};

enum class RegistrationStatus {
  not_run,
  registered, ///< and within what the readings promise
  doubtful,   ///< registered, but off by more; the message names the mark to look at where that can be told
  too_few,    ///< fewer than three pairs
  in_line,    ///< the points lie on one line: turning about it is free
  refused     ///< a number that is not finite, or a negative uncertainty
};

struct RegistrationResult {
  RegistrationStatus status = RegistrationStatus::not_run;
  std::string message;
  Pose pose;                    ///< from → to
  std::vector<double> residual; ///< mm, per pair: distance left
  double rms = 0;               ///< mm
  double chi_squared = 0, limit = 0;
  std::optional<std::pair<int, int>> swapped; ///< booked for each other, by the numbers
  int misread = -1;                           ///< read wrongly, by the numbers
  Vec3 centre = Vec3::Zero();                 ///< middle of the points, `to` frame
  Mat6 covariance = Mat6::Zero();             ///< of moving and turning about `centre`, mm and radians

  bool usable() const {
    return status == RegistrationStatus::registered || status == RegistrationStatus::doubtful;
  }
};

/// Registers `pairs`. Throws nothing.
RegistrationResult register_points(const std::vector<PointPair>& pairs,
                                   const RegistrationOptions& options = {});

/// 95 % uncertainty that the registration adds to a point at `at` (`to` frame), in its worst direction, mm.
double registration_spread(const RegistrationResult& registration, const Vec3& at);

/// A setting of which only heights are known: height = up · point + offset.
struct HeightPair {
  std::string name;
  Vec3 point = Vec3::Zero(); ///< mm, survey frame
  double height = 0;         ///< mm above the plate
  double uncertainty = 0;    ///< mm, 95 %
};

struct HeightRegistration {
  RegistrationStatus status = RegistrationStatus::not_run;
  std::string message;
  Vec3 up = Vec3::UnitZ();      ///< unit, survey frame
  double offset = 0;            ///< mm
  std::optional<Vec3> other_up; ///< where the points lie in one plane the mirrored answer fits as well …
  double other_offset = 0;      ///< … with this offset
  std::vector<double> residual; ///< mm, per pair
  double rms = 0, chi_squared = 0, limit = 0;
  bool usable() const {
    return status == RegistrationStatus::registered || status == RegistrationStatus::doubtful;
  }
};

/// Least squares over the direction `up` (unit length) and the offset.
HeightRegistration register_heights(const std::vector<HeightPair>& pairs,
                                    const RegistrationOptions& options = {});

} // namespace datrin
