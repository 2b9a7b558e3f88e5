#include "geometry/registration.h"

#include "geometry/solve.h"

#include <Eigen/Geometry>
#include <boost/math/distributions/chi_squared.hpp>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin {
namespace {

constexpr double in_line_relative = 1e-3; // narrower than this part of its length, a set of points is a line

double chi_squared_limit(int degrees, double confidence) {
  if (degrees <= 0) return 0;
  return boost::math::quantile(boost::math::chi_squared(degrees), confidence);
}

bool is_mirrored(const Mat3& m) {
  return m.col(0).cross(m.col(1)).dot(m.col(2)) < 0;
}

struct Weighed {
  Vec3 from = Vec3::Zero(), to = Vec3::Zero();
  double sigma = 1;
};

struct Fit {
  Pose pose;
  double chi_squared = 0;
  bool in_line = false;
};

Fit fit(const std::vector<Weighed>& points) {
  Fit result;
  double weight = 0;
  Vec3 from = Vec3::Zero(), to = Vec3::Zero();
  for (const auto& p : points) {
    const double w = 1 / (p.sigma * p.sigma);
    weight += w;
    from += w * p.from;
    to += w * p.to;
  }
  from /= weight;
  to /= weight;
  Mat3 cross = Mat3::Zero(), spread = Mat3::Zero();
  for (const auto& p : points) {
    const double w = 1 / (p.sigma * p.sigma);
    cross += w * (p.to - to) * (p.from - from).transpose();
    spread += w * (p.from - from) * (p.from - from).transpose();
  }
  const auto svd = singular_values(cross);
  const Mat3 u = svd.u, v = svd.v;
  Mat3 sign = Mat3::Identity();
  if (is_mirrored(u * v.transpose())) sign(2, 2) = -1;
  result.pose.rotation = u * sign * v.transpose();
  result.pose.translation = to - result.pose.rotation * from;
  const Vec3 lengths = singular_values(spread).values.cwiseSqrt();
  result.in_line = !(lengths[1] > in_line_relative * lengths[0]);
  for (const auto& p : points)
    result.chi_squared += (result.pose.apply(p.from) - p.to).squaredNorm() / (p.sigma * p.sigma);
  return result;
}

/// With three marks none can be left out; but of the three distances between them, those at a misread mark
/// are both wrong and the third is right.
int odd_one_of_three(const std::vector<Weighed>& p) {
  int right = -1, count = 0;
  for (int k = 0; k < 3; ++k) {
    const auto &a = p[static_cast<std::size_t>((k + 1) % 3)], &b = p[static_cast<std::size_t>((k + 2) % 3)];
    const double off = std::abs((a.from - b.from).norm() - (a.to - b.to).norm());
    if (off < 3 * std::hypot(a.sigma, b.sigma)) {
      right = k;
      ++count;
    }
  }
  return count == 1 ? right : -1;
}

void look_for_a_cause(const std::vector<PointPair>& pairs, const std::vector<Weighed>& points,
                      const RegistrationOptions& options, RegistrationResult& result) {
  const int n = static_cast<int>(points.size());
  double best = result.limit;
  for (int i = 0; i < n; ++i)
    for (int j = i + 1; j < n; ++j) {
      auto tried = points;
      std::swap(tried[static_cast<std::size_t>(i)].to, tried[static_cast<std::size_t>(j)].to);
      if (const double chi = fit(tried).chi_squared; chi < best) {
        best = chi;
        result.swapped = {i, j};
      }
    }
  if (result.swapped) {
    result.message = fmt::format("{} and {} are booked for each other: exchanged, all agree",
                                 pairs[static_cast<std::size_t>(result.swapped->first)].name,
                                 pairs[static_cast<std::size_t>(result.swapped->second)].name);
    return;
  }
  if (n == 3) {
    result.misread = odd_one_of_three(points);
  } else {
    std::vector<std::pair<double, int>> without;
    const double limit = chi_squared_limit(3 * (n - 1) - 6, options.confidence);
    for (int i = 0; i < n; ++i) {
      auto tried = points;
      tried.erase(tried.begin() + i);
      const auto fitted = fit(tried);
      if (!fitted.in_line && fitted.chi_squared <= limit) without.emplace_back(fitted.chi_squared, i);
    }
    std::sort(without.begin(), without.end());
    // Named only where leaving another one out explains it far worse.
    if (without.size() == 1 || (without.size() > 1 && without[1].first > 4 * without[0].first + 4))
      result.misread = without.front().second;
  }
  if (result.misread >= 0)
    result.message = fmt::format("{} is misread: without it the others agree",
                                 pairs[static_cast<std::size_t>(result.misread)].name);
  else if (n == 3)
    result.message = "one of the three marks is misread; touch a fourth to tell which";
  else
    result.message = "the marks disagree by more than they were read to; touch them again";
}

} // namespace

RegistrationResult register_points(const std::vector<PointPair>& pairs, const RegistrationOptions& options) {
  RegistrationResult result;
  std::vector<Weighed> points;
  for (const auto& pair : pairs) {
    if (!pair.from.allFinite() || !pair.to.allFinite() || !(pair.uncertainty >= 0)) {
      result.status = RegistrationStatus::refused;
      result.message = fmt::format("{} needs finite coordinates and an uncertainty of 0 or more", pair.name);
      return result;
    }
    points.push_back({pair.from, pair.to, std::max(pair.uncertainty, options.least_uncertainty) / 2});
  }
  if (points.size() < 3) {
    result.status = RegistrationStatus::too_few;
    result.message = fmt::format("three marks read in both are needed; there {} {}",
                                 points.size() == 1 ? "is" : "are", points.size());
    return result;
  }
  const auto fitted = fit(points);
  if (fitted.in_line) {
    result.status = RegistrationStatus::in_line;
    result.message = "the marks lie on one line; one more, well off it, is needed";
    return result;
  }
  result.pose = fitted.pose;
  result.chi_squared = fitted.chi_squared;
  result.limit = chi_squared_limit(3 * static_cast<int>(points.size()) - 6, options.confidence);
  double squares = 0;
  Mat6 information = Mat6::Zero();
  for (const auto& p : points) result.centre += p.to / static_cast<double>(points.size());
  for (const auto& p : points) {
    const double off = (result.pose.apply(p.from) - p.to).norm();
    result.residual.push_back(off);
    squares += off * off;
    const Vec3 d = p.to - result.centre;
    Eigen::Matrix<double, 3, 6> rate;
    rate.leftCols<3>().setIdentity();
    rate.rightCols<3>() << 0, d.z(), -d.y(), -d.z(), 0, d.x(), d.y(), -d.x(), 0;
    information += rate.transpose() * rate / (p.sigma * p.sigma);
  }
  result.covariance = inverse(information).inverse;
  result.rms = std::sqrt(squares / static_cast<double>(points.size()));
  if (result.chi_squared <= result.limit) {
    result.status = RegistrationStatus::registered;
    return result;
  }
  result.status = RegistrationStatus::doubtful;
  look_for_a_cause(pairs, points, options, result);
  return result;
}

double registration_spread(const RegistrationResult& registration, const Vec3& at) {
  const Vec3 d = at - registration.centre;
  Eigen::Matrix<double, 3, 6> rate;
  rate.leftCols<3>().setIdentity();
  rate.rightCols<3>() << 0, d.z(), -d.y(), -d.z(), 0, d.x(), d.y(), -d.x(), 0;
  const Mat3 spread = rate * registration.covariance * rate.transpose();
  return 2 * std::sqrt(std::max(0.0, singular_values(spread).values[0]));
}

HeightRegistration register_heights(const std::vector<HeightPair>& pairs,
                                    const RegistrationOptions& options) {
  HeightRegistration result;
  const auto n = static_cast<int>(pairs.size());
  if (n < 3) {
    result.status = RegistrationStatus::too_few;
    result.message =
        fmt::format("the heights of three marks are needed; there {} {}", n == 1 ? "is" : "are", n);
    return result;
  }
  Matrix at(n, 3);
  Vector height(n), sigma(n);
  for (int i = 0; i < n; ++i) {
    const auto& pair = pairs[static_cast<std::size_t>(i)];
    if (!pair.point.allFinite() || !std::isfinite(pair.height) || !(pair.uncertainty >= 0)) {
      result.status = RegistrationStatus::refused;
      result.message = fmt::format("{} needs finite numbers and an uncertainty of 0 or more", pair.name);
      return result;
    }
    at.row(i) = pair.point.transpose();
    height[i] = pair.height;
    sigma[i] = std::max(pair.uncertainty, options.least_uncertainty) / 2;
  }
  const Vec3 middle = at.colwise().mean().transpose();
  const double mean = height.mean();
  const Matrix centred = at.rowwise() - middle.transpose();
  const Vector above = height.array() - mean;
  const auto svd = singular_values(centred);
  const auto& lengths = svd.values;
  if (!(lengths[1] > in_line_relative * lengths[0])) {
    result.status = RegistrationStatus::in_line;
    result.message = "the marks lie on one line; one more, well off it, is needed";
    return result;
  }
  const Vector along = transposed_product(svd.u, above);
  const Mat3 axes = svd.v;
  const auto rms_of = [&](const Vec3& up) {
    return std::sqrt((product(centred, up) - above).squaredNorm() / n);
  };
  // In the plane of the marks their heights say how it leans; across it only the unit length does.
  const auto leaning = [&](double across_sign) {
    Vec3 parts(along[0] / lengths[0], along[1] / lengths[1], 0);
    const double rest = 1 - parts.squaredNorm();
    if (rest > 0)
      parts[2] = across_sign * std::sqrt(rest);
    else
      parts.normalize();
    Vec3 up = axes * parts;
    for (int step = 0; step < 20; ++step) { // Gauss–Newton on the sphere
      Eigen::Matrix<double, 3, 2> t;
      const Vec3 a = std::abs(up.x()) < 0.8 ? Vec3::UnitX() : Vec3::UnitY();
      t.col(0) = up.cross(a).normalized();
      t.col(1) = up.cross(Vec3(t.col(0)));
      const Matrix rate = product(centred, t);
      const Eigen::Matrix2d normal =
          Eigen::Matrix2d(transposed_product(rate, rate)) + 1e-12 * Eigen::Matrix2d::Identity();
      const Eigen::Vector2d right = transposed_product(rate, above - Vector(product(centred, up)));
      const Eigen::Vector2d d = Eigen::Matrix2d(inverse(normal).inverse) * right;
      up = (up + t * d).normalized();
      if (d.norm() < 1e-14) break;
    }
    return up;
  };
  Vec3 one = leaning(1), two = leaning(-1);
  if (rms_of(two) < rms_of(one)) std::swap(one, two);
  result.up = one;
  result.offset = mean - one.dot(middle);
  const bool flat = lengths.size() < 3 || lengths[2] < 0.02 * lengths[0];
  if (flat && (one - two).norm() > 1e-6) {
    result.other_up = two;
    result.other_offset = mean - two.dot(middle);
  }
  for (int i = 0; i < n; ++i) {
    const double off = one.dot(at.row(i).transpose()) + result.offset - height[i];
    result.residual.push_back(std::abs(off));
    result.chi_squared += off * off / (sigma[i] * sigma[i]);
  }
  result.rms = rms_of(one);
  result.limit = chi_squared_limit(n - 3, options.confidence);
  const bool within = n == 3 ? result.rms < 3 * sigma.maxCoeff() : result.chi_squared <= result.limit;
  result.status = within ? RegistrationStatus::registered : RegistrationStatus::doubtful;
  if (!within) {
    const auto worst = std::max_element(result.residual.begin(), result.residual.end());
    result.message = fmt::format("the heights of the marks disagree; look at {} again",
                                 pairs[static_cast<std::size_t>(worst - result.residual.begin())].name);
  }
  return result;
}

} // namespace datrin
