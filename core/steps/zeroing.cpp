#include "steps/zeroing.h"

#include "geometry/best_fit.h"
#include "quantity/refused.h"
#include "quantity/unit.h"

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

Middle find_middle(const RoundInput& in, const ZeroOptions& options) {
  Middle out;
  const bool real =
      std::all_of(in.touches.begin(), in.touches.end(), [](const Vec2& t) { return t.allFinite(); });
  if (!real || !(in.finder >= 0) || !(in.resolution >= 0) || !(in.size >= 0))
    return refused_as<Middle>(
        "touches, finder, size and last figure must be numbers, none but touches below 0");
  if (in.touches.size() < 3) return out;
  const auto circle = fit_circle(in.touches);
  if (!circle)
    return refused_as<Middle>("the touches lie in one line and make no circle: was one read twice?");
  out.across = 2 * circle->radius + (in.inside ? in.finder : -in.finder);
  if (out.across <= 0)
    return refused_as<Middle>("the touches are nearer to each other than the finder is across");
  for (const auto& t : in.touches)
    out.off = std::max(out.off, std::abs((t - circle->centre).norm() - circle->radius));
  const bool checked = in.touches.size() > 3;
  out.shows = circle->centre;
  const double unsure = in.size > 0 ? std::abs(out.across - in.size) : checked ? 0 : options.agree;
  out.uncertainty = mean_within(std::max(unsure, 2 * out.off), in.resolution);
  out.status = out.off > std::max(options.agree, 2 * in.resolution) ? ZeroStatus::apart : ZeroStatus::found;
  return out;
}

Corner find_corner(const AskewInput& in, const ZeroOptions& options) {
  Corner out;
  for (const auto* two : {&in.on_x, &in.on_y})
    if (!(*two)[0].allFinite() || !(*two)[1].allFinite())
      return refused_as<Corner>("touches must be numbers");
  if (!(in.finder_x >= 0) || !(in.finder_y >= 0) || !(in.resolution >= 0))
    return refused_as<Corner>("finder and last figure must not be below 0");
  const Vec2 up = in.on_x[1] - in.on_x[0], right = in.on_y[1] - in.on_y[0];
  constexpr double too_near = 2; // mm: a turn from so short an edge says nothing
  if (up.norm() < too_near || right.norm() < too_near)
    return refused_as<Corner>("the two touches of a face are one place, or nearly: one at each end of it");
  // As each would lie along its axis: how far it is turned from there.
  const double by_x = std::atan(-up.x() / up.y()), by_y = std::atan(right.y() / right.x());
  if (std::abs(up.x()) > std::abs(up.y()) || std::abs(right.y()) > std::abs(right.x()))
    return refused_as<Corner>("it lies turned by more than 45\u00B0: which face is which?");
  const double x2 = up.squaredNorm(), y2 = right.squaredNorm();
  out.turn = (by_x * x2 + by_y * y2) / (x2 + y2);
  out.apart = std::abs(by_x - by_y) * std::sqrt(std::min(x2, y2));
  const Vec2 out_x = in.sense_x * Vec2(std::cos(out.turn), std::sin(out.turn));
  const Vec2 out_y = in.sense_y * Vec2(-std::sin(out.turn), std::cos(out.turn));
  const auto face = [](const std::array<Vec2, 2>& two, const Vec2& normal, double finder) {
    return normal.dot((two[0] + two[1]) / 2) - finder / 2;
  };
  out.shows = face(in.on_x, out_x, in.finder_x) * out_x + face(in.on_y, out_y, in.finder_y) * out_y;
  out.uncertainty = mean_within(out.apart, in.resolution);
  out.turn_within = out.uncertainty / std::sqrt(std::max(x2, y2));
  out.status = out.apart > std::max(options.agree, 2 * in.resolution) ? ZeroStatus::apart : ZeroStatus::found;
  return out;
}

} // namespace datrin::steps
