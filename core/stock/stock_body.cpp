#include "stock/stock_body.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace datrin::stock {

bool is_raw(StockForm form) {
  return form == StockForm::casting || form == StockForm::forging;
}

bool is_bar_like(StockForm form) {
  return form == StockForm::round || form == StockForm::square || form == StockForm::hexagon ||
         form == StockForm::flat || form == StockForm::tube;
}

StockAxes axes_of(const Stock& stock) {
  return {stock.along, stock.across, stock.along.cross(stock.across)};
}

FinishedBox finished_box(const std::vector<Patch>& patches, const StockAxes& axes) {
  FinishedBox box;
  const auto take = [&](const Vec3& at) {
    const Vec3 there(at.dot(axes.along), at.dot(axes.across), at.dot(axes.through));
    box.low = box.known ? Vec3(box.low.cwiseMin(there)) : there;
    box.high = box.known ? Vec3(box.high.cwiseMax(there)) : there;
    box.known = true;
  };
  for (const auto& p : patches) {
    const auto& s = p.shape;
    if (!s.round()) {
      for (const auto& at : edge_of(p, patches)) take(at);
      continue;
    }
    if (is_hole(s.kind)) continue; // lies within what it is a hole of
    for (const double end : {-0.5, 0.5}) {
      const Vec3 middle = s.point + end * p.height * s.direction;
      for (const Vec3& way : {axes.along, axes.across, axes.through}) {
        // The disc at its end reaches this far along each.
        const Vec3 in_disc = way - way.dot(s.direction) * s.direction;
        if (in_disc.norm() < 1e-9) {
          take(middle);
          continue;
        }
        for (const double side : {-1.0, 1.0}) take(middle + side * largest_radius(p) * in_disc.normalized());
      }
    }
  }
  return box;
}

std::string sizes_wrong(const Stock& s) {
  const auto positive = [](double mm) { return mm > 0 && std::isfinite(mm); };
  if (is_raw(s.form) || s.form == StockForm::bought) return {};
  const bool round = s.form == StockForm::round || s.form == StockForm::tube;
  if (!positive(s.width))
    return round                                              ? "it needs its diameter"
           : is_bar_like(s.form) && s.form != StockForm::flat ? "it needs its size across the flats"
                                                              : "it needs its width";
  const bool flat = s.form == StockForm::flat || s.form == StockForm::plate || s.form == StockForm::sheet ||
                    s.form == StockForm::block;
  if (flat && !positive(s.thick)) return "it needs its thickness";
  if (!positive(s.length)) return "it needs the length it is sawn to";
  if (s.form == StockForm::tube && !(s.bore > 0 && s.bore < s.width))
    return "a tube needs a bore smaller than its outside";
  return {};
}

namespace {

/// Places round a circle about `axis`, with the corners of square and hexagon among them.
std::vector<Vec3> circle(const Vec3& middle, const Vec3& axis, double radius) {
  constexpr int round = 24;
  std::vector<Vec3> out;
  const Vec3 u = across(axis), v = axis.cross(u);
  for (int k = 0; k < round; ++k) {
    const double turn = 2 * std::numbers::pi * k / round;
    out.push_back(middle + radius * (std::cos(turn) * u + std::sin(turn) * v));
  }
  return out;
}

} // namespace

StockBody::StockBody(const Stock& s, const FinishedBox& box) {
  const auto axes = axes_of(s);
  const Vec3 middle = box.middle() + s.shift; // in the stock's own directions
  const auto pair = [&](const Vec3& way, double centre, double size) {
    sides_.push_back({way, centre + size / 2});
    sides_.push_back({-way, -(centre - size / 2)});
  };
  pair(axes.along, middle.x(), s.length);
  double area = 0;
  std::vector<Vec3> section; // its outline across its length, at no place along it
  const auto corner = [&](double y, double z) {
    section.push_back((middle.y() + y) * axes.across + (middle.z() + z) * axes.through);
  };
  switch (s.form) {
  case StockForm::round:
  case StockForm::tube:
    radius_ = s.width / 2;
    bore_ = s.form == StockForm::tube ? s.bore : 0;
    axis_ = axes.along;
    axis_point_ = middle.y() * axes.across + middle.z() * axes.through;
    area = std::numbers::pi / 4 * (s.width * s.width - bore_ * bore_);
    section = circle(axis_point_, axes.along, radius_);
    break;
  case StockForm::hexagon:
    for (int k = 0; k < 3; ++k) {
      const double turn = k * std::numbers::pi / 3;
      const Vec3 way = std::cos(turn) * axes.across + std::sin(turn) * axes.through;
      pair(way, middle.y() * std::cos(turn) + middle.z() * std::sin(turn), s.width);
    }
    for (int k = 0; k < 6; ++k) {
      const double turn = (k + 0.5) * std::numbers::pi / 3, r = s.width / std::sqrt(3.0);
      corner(r * std::cos(turn), r * std::sin(turn));
    }
    area = std::sqrt(3.0) / 2 * s.width * s.width;
    break;
  default: {
    const double thick = s.form == StockForm::square ? s.width : s.thick;
    pair(axes.across, middle.y(), s.width);
    pair(axes.through, middle.z(), thick);
    for (const double y : {-s.width / 2, s.width / 2})
      for (const double z : {-thick / 2, thick / 2}) corner(y, z);
    area = s.width * thick;
    break;
  }
  }
  volume_ = area * s.length;
  for (const double end : {-s.length / 2, s.length / 2})
    for (const auto& at : section) outline_.push_back(at + (middle.x() + end) * axes.along);
}

double StockBody::reach(const Vec3& way) const {
  double most = -1e300;
  if (radius_ > 0) {                  // of a round exactly
    for (const auto& side : sides_) { // its two ends
      const Vec3 flat = way - way.dot(axis_) * axis_;
      most = std::max(most, way.dot(axis_) * axis_.dot(side.normal) * side.at + way.dot(axis_point_) +
                                radius_ * flat.norm());
    }
    return most;
  }
  for (const auto& at : outline_) most = std::max(most, way.dot(at));
  return most;
}

double StockBody::to_outside(const Vec3& at, const Vec3& way) const {
  double least = 1e300;
  constexpr double level = 1e-9; // cosine: the side is never met
  for (const auto& side : sides_) {
    const double room = side.at - side.normal.dot(at), cosine = side.normal.dot(way);
    if (room < 0)
      least = std::min(least, room); // out of it, however one goes
    else if (cosine > level)
      least = std::min(least, room / cosine);
  }
  if (radius_ > 0) {
    const auto flat = [&](const Vec3& v) { return Vec3(v - v.dot(axis_) * axis_); };
    const Vec3 p = flat(at - axis_point_), d = flat(way);
    const double out = p.norm() - radius_;
    if (out > 0) return std::min(least, -out);
    if (const double dd = d.squaredNorm(); dd > level) {
      const double pd = p.dot(d);
      least = std::min(least, (-pd + std::sqrt(pd * pd + dd * (radius_ * radius_ - p.squaredNorm()))) / dd);
    }
  }
  return least;
}

double StockBody::depth(const Vec3& at) const {
  double least = 1e300;
  for (const auto& side : sides_) least = std::min(least, side.at - side.normal.dot(at));
  if (radius_ > 0) {
    const Vec3 off = at - axis_point_;
    least = std::min(least, radius_ - (off - off.dot(axis_) * axis_).norm());
  }
  return least;
}

std::optional<MetalOver> StockBody::over_bore(const Surface& hole) const {
  if (!(bore_ > 0) || std::abs(hole.direction.dot(axis_)) < 0.999) return std::nullopt;
  const Vec3 off = hole.point - axis_point_;
  const double apart = (off - off.dot(axis_) * axis_).norm();
  if (apart >= (hole.diameter + bore_) / 2) return std::nullopt; // beside it, in the wall
  const double even = (hole.diameter - bore_) / 2;
  return MetalOver{even - apart, even + apart};
}

double StockBody::volume() const {
  return volume_;
}

std::vector<Vec3> edge_of(const Patch& face, const std::vector<Patch>& part) {
  constexpr double alike = 1.01;
  const double across_it = std::min(face.width, face.height);
  for (const auto& p : part) {
    const auto& s = p.shape;
    if (!s.round() || is_hole(s.kind) || std::abs(s.direction.dot(face.shape.direction)) < 0.999) continue;
    const Vec3 off = face.shape.point - s.point;
    if ((off - off.dot(s.direction) * s.direction).norm() > 0.01 * s.diameter) continue;
    if (std::max(face.width, face.height) > alike * across_it || across_it > alike * 2 * largest_radius(p))
      continue;
    return circle(face.shape.point, s.direction, across_it / 2);
  }
  return corners(face);
}

std::vector<Vec3> outline_of(const Patch& patch, const std::vector<Patch>& part) {
  const auto& s = patch.shape;
  if (!s.round()) return edge_of(patch, part);
  std::vector<Vec3> out;
  for (const double end : {-0.5, 0.5}) {
    const auto round = circle(s.point + end * patch.height * s.direction, s.direction, largest_radius(patch));
    out.insert(out.end(), round.begin(), round.end());
  }
  return out;
}

bool is_shoulder(const Patch& face, const std::vector<Patch>& part) {
  if (face.shape.round()) return false;
  constexpr double beyond = 0.01; // mm
  const Vec3 way = face.shape.direction;
  const auto stands_out = [&](const Vec3& at) { return (at - face.shape.point).dot(way) > beyond; };
  for (const auto& p : part) {
    if (is_hole(p.shape.kind)) continue;
    if (p.shape.round()) {
      const double along = std::abs(p.shape.direction.dot(way));
      const double reach =
          along * p.height / 2 + std::sqrt(std::max(0.0, 1 - along * along)) * largest_radius(p);
      if ((p.shape.point - face.shape.point).dot(way) + reach > beyond) return true;
      continue;
    }
    for (const auto& at : corners(p))
      if (stands_out(at)) return true;
  }
  return false;
}

std::optional<MetalOver> metal_over(const StockBody& body, const Patch& patch,
                                    const std::vector<Patch>& part) {
  const auto& s = patch.shape;
  if (is_hole(s.kind)) return body.over_bore(s);
  MetalOver out{1e300, -1e300};
  const auto take = [&](double metal) {
    out.least = std::min(out.least, metal);
    out.most = std::max(out.most, metal);
  };
  if (!s.round()) {
    for (const auto& at : edge_of(patch, part)) take(body.to_outside(at, s.direction));
    take(body.to_outside(s.point, s.direction));
    return out;
  }
  for (const double end : {-0.5, 0.0, 0.5}) {
    const Vec3 middle = s.point + end * patch.height * s.direction;
    for (const auto& at : circle(middle, s.direction, s.diameter / 2))
      take(body.to_outside(at, (at - middle).normalized()));
  }
  return out;
}

} // namespace datrin::stock
