#include "steps/zeroing.h"

#include <algorithm>
#include <cmath>

namespace datrin::steps {

namespace {

/// 95 % of a mean of touches `apart` from each other, read to a last figure.
double mean_within(double apart, double resolution) {
  return 2 * std::sqrt(apart * apart / 4 + resolution * resolution / 12);
}

} // namespace

Zero find_zero(const ZeroInput& in, const ZeroOptions& options) {
  Zero zero;
  const auto all_real = [](const std::vector<double>& touches) {
    return std::all_of(touches.begin(), touches.end(), [](double t) { return std::isfinite(t); });
  };
  if (!(in.finder >= 0) || !(in.resolution >= 0) || !(in.size >= 0) || !all_real(in.touches) ||
      !all_real(in.other)) {
    zero.status = ZeroStatus::refused;
    zero.message = "touches, finder, size and last figure must be numbers, none but touches below 0";
    return zero;
  }
  if (in.both_sides) {
    if (in.touches.empty() || in.other.empty()) return zero;
    const double first = in.touches.back(), second = in.other.back(), moved = std::abs(second - first);
    zero.across = in.inside ? moved + in.finder : moved - in.finder;
    if (zero.across <= 0) {
      zero.status = ZeroStatus::refused;
      zero.message = "both touches are nearer than the finder is across: were they on one side?";
      return zero;
    }
    zero.shows = (first + second) / 2;
    zero.uncertainty =
        mean_within(in.size > 0 ? std::abs(zero.across - in.size) : options.agree, in.resolution);
    zero.status = ZeroStatus::found;
    return zero;
  }
  if (in.touches.size() < 2) return zero;
  const double last = in.touches.back(), before = in.touches[in.touches.size() - 2];
  zero.apart = std::abs(last - before);
  zero.status =
      zero.apart > std::max(options.agree, 2 * in.resolution) ? ZeroStatus::apart : ZeroStatus::found;
  zero.shows = (last + before) / 2 + in.towards * in.finder / 2;
  zero.uncertainty = mean_within(zero.apart, in.resolution);
  return zero;
}

} // namespace datrin::steps
