#include "casting/as_cast.h"

#include "geometry/best_fit.h"
#include "geometry/between.h"
#include "geometry/solve.h"
#include "quantity/length_text.h"

#include <Eigen/Geometry>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::casting {

namespace {

/// Least squares with the covariance of its answer; `floor` is the least scatter to believe in.
struct Fit {
  Vector x, residuals;
  Matrix covariance; ///< for the scatter found
  double scatter = 0;
  bool ok = false;
};

Fit solve(const Matrix& a, const Vector& b, double floor) {
  Fit fit;
  // A direction the touches hardly see gives no figure worth showing.
  const auto found = least_squares(a, b, 1e-3);
  if (!found) return fit;
  const double freedom = std::max<double>(1, static_cast<double>(a.rows() - a.cols()));
  fit.x = found->x;
  fit.residuals = found->residuals;
  fit.scatter = std::max(floor, std::sqrt(fit.residuals.squaredNorm() / freedom));
  fit.covariance = found->covariance * (fit.scatter * fit.scatter);
  fit.ok = true;
  return fit;
}

void fit_plane(AsCastSurface& out, const Surface& s, const std::vector<Vec3>& at, double floor) {
  const auto [u, v] = patch_directions(s.direction);
  double length = 1;
  for (const auto& p : at)
    length = std::max({length, std::abs((p - s.point).dot(u)), std::abs((p - s.point).dot(v))});
  Matrix a(at.size(), 3);
  Vector b(at.size());
  for (std::size_t i = 0; i < at.size(); ++i) {
    const Vec3 d = at[i] - s.point;
    a.row(static_cast<Eigen::Index>(i)) << 1, d.dot(u) / length, d.dot(v) / length;
    b[static_cast<Eigen::Index>(i)] = d.dot(s.direction);
  }
  const auto fit = solve(a, b, floor);
  if (!fit.ok) return;
  out.fitted = true;
  out.stock = {fit.x[0], 2 * std::sqrt(fit.covariance(0, 0))};
  const Vec2 slope(fit.x[1] / length, fit.x[2] / length);
  out.lean.value = std::atan(slope.norm());
  const Vec2 way = slope.norm() > 1e-12 ? Vec2(slope.normalized()) : Vec2(1, 0);
  const Vec2 g = way / length;
  out.lean.uncertainty = 2 * std::sqrt(g.dot(Eigen::Matrix2d(fit.covariance.block<2, 2>(1, 1)) * g));
  out.leans_to = way.x() * u + way.y() * v;
  out.warp = fit.residuals.maxCoeff() - fit.residuals.minCoeff();
  out.roughness = fit.scatter;
}

void fit_round(AsCastSurface& out, const Surface& s, const std::vector<Vec3>& at, double floor) {
  const Vec3 u = across(s.direction), v = s.direction.cross(u);
  double half = 1;
  for (const auto& p : at) half = std::max(half, std::abs((p - s.point).dot(s.direction)));
  // Unknown: centre (2), tilt at the ends (2), radius, taper at the ends; Gauss–Newton on the radial
  // distances.
  for (const int unknowns : {6, 5, 3}) {
    Vector x = Vector::Zero(6);
    x[4] = s.diameter / 2;
    Fit fit;
    for (int step = 0; step < 8; ++step) {
      Matrix a(at.size(), 6);
      Vector b(at.size());
      for (std::size_t i = 0; i < at.size(); ++i) {
        const Vec3 d = at[i] - s.point;
        const double z = d.dot(s.direction) / half;
        const Vec2 off(d.dot(u) - x[0] - x[2] * z, d.dot(v) - x[1] - x[3] * z);
        const double r = std::max(1e-9, off.norm());
        const Vec2 n = off / r;
        a.row(static_cast<Eigen::Index>(i)) << n.x(), n.y(), n.x() * z, n.y() * z, 1, z;
        b[static_cast<Eigen::Index>(i)] = r - x[4] - x[5] * z;
      }
      Matrix used = a.leftCols(unknowns);
      if (unknowns == 3) used.col(2) = a.col(4);
      fit = solve(used, b, floor);
      if (!fit.ok) break;
      if (unknowns == 3) {
        x[0] += fit.x[0];
        x[1] += fit.x[1];
        x[4] += fit.x[2];
      } else {
        x.head(unknowns) += fit.x;
      }
      if (fit.x.norm() < 1e-10) break;
    }
    if (!fit.ok) continue;
    out.fitted = true;
    const int radius = unknowns == 3 ? 2 : 4;
    out.shift = x[0] * u + x[1] * v;
    const Vec2 c(x[0], x[1]);
    const Vec2 way = c.norm() > 1e-12 ? Vec2(c.normalized()) : Vec2(1, 0);
    out.across = {c.norm(), 2 * std::sqrt(way.dot(Eigen::Matrix2d(fit.covariance.block<2, 2>(0, 0)) * way))};
    out.diameter = {2 * x[4], 4 * std::sqrt(fit.covariance(radius, radius))};
    out.stock = {stock_of_size(s, 2 * x[4]).value_or(0), 2 * std::sqrt(fit.covariance(radius, radius))};
    if (unknowns >= 5) {
      const Vec2 t(x[2] / half, x[3] / half);
      const Vec2 to = t.norm() > 1e-12 ? Vec2(t.normalized()) : Vec2(1, 0);
      out.lean = {std::atan(t.norm()),
                  2 * std::sqrt(to.dot(Eigen::Matrix2d(fit.covariance.block<2, 2>(2, 2)) * to)) / half};
      out.leans_to = to.x() * u + to.y() * v;
    }
    if (unknowns == 6) out.taper = {2 * x[5] / half, 4 * std::sqrt(fit.covariance(5, 5)) / half};
    out.warp = fit.residuals.maxCoeff() - fit.residuals.minCoeff();
    out.roughness = fit.scatter;
    return;
  }
}

} // namespace

AsCast as_cast(const SeatInput& input, const Pose& seat) {
  AsCast out;
  std::vector<std::vector<Vec3>> at(input.surfaces.size());
  std::vector<double> reading(input.surfaces.size(), 0.0);
  // A scan has far more points than a fit needs; every k-th is taken.
  const std::size_t stride = std::max<std::size_t>(1, input.points.size() / 20000);
  for (std::size_t i = 0; i < input.points.size(); i += stride) {
    const auto& p = input.points[i];
    const auto k = static_cast<std::size_t>(p.surface);
    at[k].push_back(seat.apply(p.xyz));
    reading[k] = std::max(reading[k], p.uncertainty / 2);
  }
  for (std::size_t k = 0; k < input.surfaces.size(); ++k) {
    AsCastSurface s;
    s.surface = static_cast<int>(k);
    s.touches = static_cast<int>(at[k].size());
    const auto& shape = input.surfaces[k].shape;
    const double floor = std::max(1e-6, reading[k]);
    if (static_cast<int>(at[k].size()) >= touch_advice(shape.kind).least)
      (shape.round() ? fit_round : fit_plane)(s, shape, at[k], floor);
    out.surfaces.push_back(s);
  }
  for (const auto& bore : out.surfaces) {
    const auto& b = input.surfaces[static_cast<std::size_t>(bore.surface)].shape;
    if (!bore.fitted || !is_hole(b.kind)) continue;
    for (const auto& boss : out.surfaces) {
      const auto& o = input.surfaces[static_cast<std::size_t>(boss.surface)].shape;
      if (!boss.fitted || !is_outside(o.kind) || !coaxial(o, b, 1e-6) || o.diameter <= b.diameter) continue;
      CoreShift core{bore.surface, boss.surface, bore.shift - boss.shift, {}};
      core.amount = {core.shift.norm(), std::hypot(bore.across.uncertainty, boss.across.uncertainty)};
      out.cores.push_back(core);
    }
  }
  return out;
}

ShrinkageFound shrinkage_found(const SeatInput& input, const AsCast& made, const std::vector<build::Id>& ids,
                               const Pattern& pattern, double made_for, Unit unit) {
  ShrinkageFound out;
  if (!pattern.usable()) return out;
  double weight = 0, weighed = 0, squares = 0;
  std::vector<std::pair<double, double>> found; // shrinkage, its standard deviation
  const auto take = [&](double pattern_size, double casting_size, double uncertainty) {
    if (pattern_size < 10 || !(casting_size > 0)) return; // a small size says little
    // The pattern is made × (1 + shrinkage): this finds just what was put in.
    found.emplace_back(pattern_size / casting_size - 1,
                       std::max(1e-6, uncertainty / 2 * pattern_size / (casting_size * casting_size)));
  };
  for (const auto& p : pattern.surfaces) {
    const auto at = std::find(ids.begin(), ids.end(), p.surface);
    if (at == ids.end()) continue;
    const auto k = static_cast<std::size_t>(at - ids.begin());
    const auto& s = made.surfaces[k];
    if (!s.fitted || p.solid) continue;
    if (input.surfaces[k].shape.round()) {
      take(p.shape.diameter, s.diameter.value, s.diameter.uncertainty);
      continue;
    }
    for (const auto& q : pattern.surfaces) {
      const auto other = std::find(ids.begin(), ids.end(), q.surface);
      if (other == ids.end() || q.surface <= p.surface) continue;
      const auto o = static_cast<std::size_t>(other - ids.begin());
      const auto& t = made.surfaces[o];
      const auto &a = input.surfaces[k].shape, &b = input.surfaces[o].shape;
      if (!t.fitted || !faces(b, -a.direction, 0.999)) continue;
      const double apart = std::abs((p.shape.point - q.shape.point).dot(a.direction));
      const double finished = std::abs((a.point - b.point).dot(a.direction));
      take(apart, finished + s.stock.value + t.stock.value,
           std::hypot(s.stock.uncertainty, t.stock.uncertainty));
    }
  }
  if (found.empty()) return out;
  for (const auto& [value, deviation] : found) {
    const double w = 1 / (deviation * deviation);
    weight += w;
    weighed += w * value;
  }
  out.shrinkage.value = weighed / weight;
  for (const auto& [value, deviation] : found)
    squares += (value - out.shrinkage.value) * (value - out.shrinkage.value) / (deviation * deviation);
  // Where the sizes disagree by more than their touches explain, that counts (Birge ratio).
  const double birge =
      found.size() > 1 ? std::max(1.0, std::sqrt(squares / static_cast<double>(found.size() - 1))) : 1.0;
  out.shrinkage.uncertainty = 2 * birge / std::sqrt(weight);
  out.sizes = static_cast<int>(found.size());
  out.known = true;
  const auto percent = [](double v) { return number_text(100 * v, 2) + " %"; };
  out.text = fmt::format("shrunk by {} \u00B1{}; the pattern was made for {}", percent(out.shrinkage.value),
                         percent(out.shrinkage.uncertainty), percent(made_for));
  if (std::abs(out.shrinkage.value - made_for) > out.shrinkage.uncertainty)
    out.text += fmt::format(
        ". Next time a size of {} wants {} {}.", unit == Unit::mm ? "100 mm" : "4 in",
        length_text((unit == Unit::mm ? 100 : 4 * mm_per_inch) * std::abs(out.shrinkage.value - made_for),
                    unit, {.decimals_inch = 3, .show_unit = true}),
        out.shrinkage.value > made_for ? "more" : "less");
  else
    out.text += ", which agrees.";
  return out;
}

} // namespace datrin::casting
