#include "casting/first_datum.h"

#include "geometry/between.h"
#include "geometry/solve.h"
#include "quantity/length_text.h"

#include <Eigen/Geometry>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::casting {

namespace {

using Matrix6 = Eigen::Matrix<double, 6, 6>;

Matrix6 contacts(const std::array<DatumTarget, 6>& targets, const Vec3& about) {
  Matrix6 g;
  for (int k = 0; k < 6; ++k) {
    const auto& t = targets[static_cast<std::size_t>(k)];
    // n · (w × r) = w · (r × n)
    g.block<1, 3>(k, 0) = t.normal.transpose();
    g.block<1, 3>(k, 3) = (t.at - about).cross(t.normal).transpose();
  }
  return g;
}

/// Scale of turns: so that a row of turning is about as long as one of moving.
std::optional<Matrix6> inverse_of(const Matrix6& g, double size) {
  Matrix6 scaled = g;
  scaled.rightCols<3>() /= size;
  const auto found = datrin::inverse(scaled);
  if (!(found.condition >= 1e-4)) return std::nullopt; // also when it is singular
  Matrix6 inverse = found.inverse;
  inverse.bottomRows<3>() /= size;
  return inverse;
}

double size_of(const FirstDatumInput& in) {
  double size = 1;
  for (const auto& s : in.surfaces)
    for (const auto& t : in.surfaces) size = std::max(size, (s.shape.point - t.shape.point).norm());
  return size;
}

Vec3 middle_of(const FirstDatumInput& in) {
  Vec3 sum = Vec3::Zero();
  for (const auto& s : in.surfaces) sum += s.shape.point;
  return sum / std::max<double>(1, static_cast<double>(in.surfaces.size()));
}

Patch patch_of(const DatumSurface& s) {
  return {s.shape, s.width, s.height};
}

/// How far a plane reaches to each side of its middle along a unit direction in it.
double reach(const DatumSurface& s, const Vec3& along) {
  const auto [u, v] = patch_directions(s.shape.direction);
  const double a = std::abs(along.dot(u)), b = std::abs(along.dot(v));
  const double by_u = a > 1e-9 ? s.width / 2 / a : 1e300, by_v = b > 1e-9 ? s.height / 2 / b : 1e300;
  return std::min(by_u, by_v);
}

/// How far a part reaches from an axis, mm.
double radius_about(const FirstDatumInput& in, const Surface& axis) {
  double most = axis.diameter / 2;
  for (const auto& s : in.surfaces) {
    const auto consider = [&](const Vec3& at) {
      most = std::max(most, (at - axis.point).cross(axis.direction).norm());
    };
    if (s.shape.round())
      consider(s.shape.point);
    else
      for (const auto& corner : corners(patch_of(s))) consider(corner);
  }
  return most;
}

/// Whether jaws get at it all round: nothing of the part reaches out beside it, as the foot below a boss
/// does.
bool free_all_round(const FirstDatumInput& in, int round) {
  const auto& grip = in.surfaces[static_cast<std::size_t>(round)];
  const Vec3 axis = grip.shape.direction;
  for (std::size_t k = 0; k < in.surfaces.size(); ++k) {
    const auto& s = in.surfaces[k];
    if (static_cast<int>(k) == round || s.shape.round()) continue;
    for (const auto& corner : corners(patch_of(s))) {
      const Vec3 at = corner - grip.shape.point;
      const bool beside = std::abs(at.dot(axis)) < 0.45 * grip.height;
      if (beside && at.cross(axis).norm() > 0.55 * grip.shape.diameter) return false;
    }
  }
  return true;
}

/// In a chuck or V-blocks on the first, its axis held in two directions at two places along it; the second,
/// an end face, against the jaws or a stop; the third stops the turning.
bool makes_grip(const FirstDatumInput& in, const std::array<int, 3>& chosen, const FirstDatumOptions& o,
                std::array<DatumTarget, 6>& out) {
  const auto& grip = in.surfaces[static_cast<std::size_t>(chosen[0])];
  const auto& end = in.surfaces[static_cast<std::size_t>(chosen[1])];
  const Vec3 axis = grip.shape.direction;
  constexpr double square = 0.95; // cosine: the face stands across the axis
  if (is_hole(grip.shape.kind) || grip.height < o.least_grip * grip.shape.diameter || end.shape.round() ||
      std::abs(end.shape.direction.dot(axis)) < square)
    return false;
  const Vec3 u = across(axis), v = axis.cross(u);
  const double half = (0.5 - o.inset) * grip.height;
  int k = 0;
  for (const double place : {-half, half})
    for (const Vec3& side : {u, v}) {
      const Vec3 at = grip.shape.point + place * axis + grip.shape.diameter / 2 * side;
      out[static_cast<std::size_t>(k++)] = {chosen[0], at, side};
    }
  out[4] = {chosen[1], end.shape.point, end.shape.direction};
  if (chosen[2] < 0) {
    out[5] = {-1, grip.shape.point + radius_about(in, grip.shape) * u, v};
    return true;
  }
  const auto& stop = in.surfaces[static_cast<std::size_t>(chosen[2])];
  const Vec3 arm = stop.shape.point - grip.shape.point;
  const Vec3 radial = arm - arm.dot(axis) * axis;
  if (stop.shape.round()) { // a boss beside the axis, from its side
    if (radial.norm() < stop.shape.diameter || std::abs(stop.shape.direction.dot(axis)) < square)
      return false;
    const Vec3 way = axis.cross(radial.normalized());
    out[5] = {chosen[2], stop.shape.point + stop.shape.diameter / 2 * way, way};
    return true;
  }
  // A flat at its end farthest from the axis: how far its normal passes the axis is what turns it.
  if (std::abs(stop.shape.direction.dot(axis)) > o.least_independent) return false;
  const Vec3 along = axis.cross(stop.shape.direction).normalized();
  out[5] = {chosen[2], stop.shape.point + (1 - o.inset) * reach(stop, along) * along, stop.shape.direction};
  return std::abs((out[5].at - grip.shape.point).cross(out[5].normal).dot(axis)) > 0.05 * grip.shape.diameter;
}

bool makes_targets(const FirstDatumInput& in, const std::array<int, 3>& chosen, const FirstDatumOptions& o,
                   std::array<DatumTarget, 6>& out) {
  const auto& s1 = in.surfaces[static_cast<std::size_t>(chosen[0])];
  const auto& s2 = in.surfaces[static_cast<std::size_t>(chosen[1])];
  const auto& s3 = in.surfaces[static_cast<std::size_t>(chosen[2])];
  const Vec3 n1 = s1.shape.direction, n2 = s2.shape.direction;
  if (n1.cross(n2).norm() < o.least_independent) return false;
  const auto [u, v] = patch_directions(n1);
  const double keep = 0.5 - o.inset;
  // Three on the first: two at one long edge, one in the middle of the other.
  const bool wide = s1.width >= s1.height;
  const Vec3 along = wide ? u : v, over = wide ? v : u;
  const double half_long = keep * (wide ? s1.width : s1.height),
               half_short = keep * (wide ? s1.height : s1.width);
  out[0] = {chosen[0], s1.shape.point - half_long * along - half_short * over, n1};
  out[1] = {chosen[0], s1.shape.point + half_long * along - half_short * over, n1};
  out[2] = {chosen[0], s1.shape.point + half_short * over, n1};
  // Two on the second, as far apart as it lets, square to the first's normal: they stop the turning about it.
  const Vec3 level = n1.cross(n2).normalized();
  const Vec3 in_plane = (level - level.dot(n2) * n2).normalized();
  const double half_two = 2 * keep * reach(s2, in_plane);
  out[3] = {chosen[1], s2.shape.point - half_two * in_plane, n2};
  out[4] = {chosen[1], s2.shape.point + half_two * in_plane, n2};
  // One on the third.
  if (s3.shape.round()) {
    if (std::abs(level.dot(s3.shape.direction)) > 1 - o.least_independent) return false;
    const Vec3 side = (level - level.dot(s3.shape.direction) * s3.shape.direction).normalized();
    const Vec3 at = s3.shape.point + s3.shape.diameter / 2 * side;
    out[5] = {chosen[2], at, stock_direction(s3.shape, at)};
  } else {
    if (std::abs(s3.shape.direction.dot(level)) < o.least_independent) return false;
    out[5] = {chosen[2], s3.shape.point, s3.shape.direction};
  }
  return true;
}

} // namespace

std::optional<SmallMotion> motion_of(const std::array<DatumTarget, 6>& targets,
                                     const std::array<double, 6>& e) {
  double size = 1;
  for (const auto& t : targets) size = std::max(size, t.at.norm());
  const auto inverse = inverse_of(contacts(targets, Vec3::Zero()), size);
  if (!inverse) return std::nullopt;
  const Eigen::Matrix<double, 6, 1> x = *inverse * Eigen::Map<const Eigen::Matrix<double, 6, 1>>(e.data());
  return SmallMotion{x.head<3>(), x.tail<3>()};
}

std::optional<DatumChoice> datum_choice(const FirstDatumInput& in, const std::array<int, 3>& surfaces,
                                        const FirstDatumOptions& o) {
  DatumChoice choice;
  choice.surfaces = surfaces;
  const bool gripped = in.surfaces[static_cast<std::size_t>(surfaces[0])].shape.round();
  choice.holding = gripped ? Holding::gripped : Holding::stands;
  if (!(gripped ? makes_grip(in, surfaces, o, choice.targets)
                : makes_targets(in, surfaces, o, choice.targets)))
    return std::nullopt;
  const Vec3 about = middle_of(in);
  const auto inverse = inverse_of(contacts(choice.targets, about), size_of(in));
  if (!inverse) return std::nullopt;
  Eigen::Matrix<double, 6, 1> deviation;
  for (int k = 0; k < 6; ++k) {
    const int of = choice.targets[static_cast<std::size_t>(k)].surface;
    if (of < 0) { // turned by eye
      const auto& grip = in.surfaces[static_cast<std::size_t>(surfaces[0])].shape;
      deviation[k] = o.by_eye * radius_about(in, grip);
      continue;
    }
    const auto& s = in.surfaces[static_cast<std::size_t>(of)];
    deviation[k] = std::hypot(s.roughness, o.place * std::tan(s.draft));
    if (gripped && k < 4) deviation[k] /= std::sqrt(2.0);
  }
  const Matrix6 spread = *inverse * deviation.asDiagonal(); // column k: motion by one deviation at contact k
  for (std::size_t f = 0; f < in.surfaces.size(); ++f) {
    const auto& s = in.surfaces[f];
    const int index = static_cast<int>(f);
    if (!s.to_machine || std::find(surfaces.begin(), surfaces.end(), index) != surfaces.end()) continue;
    FeatureSpread worst{index, 0, {}};
    const auto consider = [&](const Vec3& at, const Vec3& direction) {
      Eigen::Matrix<double, 6, 1> row;
      row.head<3>() = direction;
      row.tail<3>() = (at - about).cross(direction);
      const Eigen::Matrix<double, 6, 1> by = spread.transpose() * row;
      const double variance = by.squaredNorm();
      if (2 * std::sqrt(variance) < worst.spread) return;
      worst.spread = 2 * std::sqrt(variance);
      for (std::size_t k = 0; k < 3; ++k) worst.share[k] = 0;
      for (int k = 0; k < 6; ++k)
        worst.share[k < (gripped ? 4 : 3) ? 0U
                    : k < 5               ? 1U
                                          : 2U] += variance > 0 ? by[k] * by[k] / variance : 0;
    };
    if (s.shape.round()) {
      const Vec3 u = across(s.shape.direction), v = s.shape.direction.cross(u);
      for (const double end : {-0.5, 0.5}) {
        const Vec3 at = s.shape.point + end * s.height * s.shape.direction;
        // The direction across the axis in which it spreads most.
        Eigen::Matrix<double, 6, 2> rows;
        rows.col(0) << u, (at - about).cross(u);
        rows.col(1) << v, (at - about).cross(v);
        const Eigen::Matrix2d covariance =
            (spread.transpose() * rows).transpose() * (spread.transpose() * rows);
        const double turn = 0.5 * std::atan2(2 * covariance(0, 1), covariance(0, 0) - covariance(1, 1));
        const Eigen::Vector2d way(std::cos(turn), std::sin(turn));
        consider(at, way.x() * u + way.y() * v);
      }
    } else {
      for (const auto& corner : corners(patch_of(s))) consider(corner, s.shape.direction);
    }
    choice.spreads.push_back(worst);
    if (worst.spread > choice.worst) {
      choice.worst = worst.spread;
      choice.worst_surface = index;
    }
  }
  return choice;
}

FirstDatumResult first_datums(const FirstDatumInput& in, const FirstDatumOptions& o) {
  FirstDatumResult out;
  const auto refuse = [&](std::string why) {
    out.status = FirstDatumStatus::refused;
    out.message = std::move(why);
    return out;
  };
  std::vector<int> planes, last,
      grips; // that can be first or second; that can be third; that a chuck can hold
  for (std::size_t k = 0; k < in.surfaces.size(); ++k) {
    const auto& s = in.surfaces[k];
    if (!(s.roughness >= 0) || !std::isfinite(s.draft))
      return refuse(fmt::format("{}: roughness and draft must be numbers of 0 or more", s.name));
    if (!s.as_cast) continue;
    const bool flat = !s.shape.round();
    if (flat ? seen_area(patch_of(s)) > 0 : s.shape.diameter > 0) last.push_back(static_cast<int>(k));
    if (flat && seen_area(patch_of(s)) > 0) planes.push_back(static_cast<int>(k));
    if (s.shape.kind == SurfaceKind::boss && s.height > 0 && s.shape.diameter > 0)
      if (free_all_round(in, static_cast<int>(k))) grips.push_back(static_cast<int>(k));
  }
  if ((planes.size() < 2 || last.size() < 3) && (grips.empty() || planes.empty()))
    return refuse("three as-cast surfaces are needed, two of them flat, to stand and locate the casting on; "
                  "or a round one to grip and "
                  "an end face");
  if (std::none_of(in.surfaces.begin(), in.surfaces.end(), [](const auto& s) { return s.to_machine; }))
    return refuse("no surface is to be machined yet");
  const auto area = [&](int k) { return seen_area(patch_of(in.surfaces[static_cast<std::size_t>(k)])); };
  double tempting_first = -1, tempting_second = -1, tempting_third = -1;
  for (const int a : planes)
    for (const int b : planes) {
      if (a == b) continue;
      for (const int c : last) {
        if (c == a || c == b) continue;
        const auto choice = datum_choice(in, {a, b, c}, o);
        if (!choice || choice->spreads.empty()) continue;
        ++out.tried;
        const auto sizes = std::tuple(area(a), area(b), area(c));
        if (sizes > std::tuple(tempting_first, tempting_second, tempting_third)) {
          std::tie(tempting_first, tempting_second, tempting_third) = sizes;
          out.tempting = *choice;
        }
        out.choices.push_back(*choice);
      }
    }
  for (const int grip : grips)
    for (const int end : planes) {
      auto thirds = last;
      thirds.insert(thirds.begin(), -1); // where nothing needs a stop, none
      for (const int third : thirds) {
        if (third == grip || third == end) continue;
        const auto choice = datum_choice(in, {grip, end, third}, o);
        if (!choice || choice->spreads.empty()) continue;
        ++out.tried;
        out.choices.push_back(*choice);
      }
    }
  if (out.choices.empty())
    return refuse("no three as-cast surfaces face ways different enough to locate the casting");
  std::stable_sort(out.choices.begin(), out.choices.end(),
                   [](const auto& x, const auto& y) { return x.worst < y.worst; });
  const bool tempts = out.tempting.surfaces[0] >= 0; // gripped ones only: no largest face to stand on
  if (!tempts) out.tempting = out.choices.front();
  out.tempting_place =
      1 + static_cast<int>(std::find_if(out.choices.begin(), out.choices.end(),
                                        [&](const auto& c) { return c.surfaces == out.tempting.surfaces; }) -
                           out.choices.begin());
  if (out.choices.size() > o.most) out.choices.resize(o.most);
  const auto name = [&](int k) {
    return k < 0 ? std::string("by eye") : in.surfaces[static_cast<std::size_t>(k)].name;
  };
  const auto mm = [&in](double v) { return length_text(v, in.unit, {.show_unit = true}); };
  const auto& best = out.choices.front();
  if (!tempts) {
    out.text = fmt::format("Gripped on {}, against {}, {}: {} repeats worst, to {}.", name(best.surfaces[0]),
                           name(best.surfaces[1]),
                           best.surfaces[2] < 0 ? "turned by eye" : "stopped by " + name(best.surfaces[2]),
                           name(best.worst_surface), mm(best.worst));
  } else if (out.tempting_place == 1) {
    out.text = fmt::format("The largest face is also the best to stand on: {} repeats worst, to {}.",
                           name(best.worst_surface), mm(best.worst));
  } else {
    const auto& t = out.tempting;
    const auto spread = std::find_if(t.spreads.begin(), t.spreads.end(),
                                     [&](const auto& s) { return s.surface == t.worst_surface; });
    const auto from = static_cast<std::size_t>(std::max_element(spread->share.begin(), spread->share.end()) -
                                               spread->share.begin());
    const auto& source = in.surfaces[static_cast<std::size_t>(t.surfaces[from])];
    out.text = fmt::format("Standing on {} (the largest), against {} and {}, {} repeats only to {}; here the "
                           "worst, {}, repeats to {}. ",
                           name(t.surfaces[0]), name(t.surfaces[1]), name(t.surfaces[2]),
                           name(t.worst_surface), mm(t.worst), name(best.worst_surface), mm(best.worst));
    const double apart = from == 1   ? (t.targets[3].at - t.targets[4].at).norm()
                         : from == 0 ? (t.targets[0].at - t.targets[2].at).norm()
                                     : 0;
    out.text += fmt::format("{} % of it comes from {}",
                            static_cast<int>(std::lround(100 * spread->share[from])), source.name);
    if (from < 2) out.text += fmt::format(", whose targets are {} apart", mm(apart));
    if (source.draft > radians(0.5))
      out.text += fmt::format(" on a draft of {}\u00B0", number_text(degrees(source.draft), 1));
    out.text += ".";
  }
  for (const int k : best.surfaces)
    if (k >= 0 && in.surfaces[static_cast<std::size_t>(k)].flash)
      out.warnings.push_back(fmt::format("Flash was noted on {}: dress it off first; a burr there is worth "
                                         "0.5 to 0.8\u202Fmm (20 to 30 thou).",
                                         name(k)));
  out.status = FirstDatumStatus::found;
  return out;
}

} // namespace datrin::casting
