#include "geometry/surface.h"

#include "quantity/unit.h"

#include <Eigen/Geometry>
#include <fmt/format.h>

#include <array>
#include <cmath>

namespace datrin {

namespace {

/// Everything the program knows of a kind by name alone.
struct KindFacts {
  bool round, cone, hole;
  TouchAdvice touches;
};

KindFacts facts(SurfaceKind kind) {
  constexpr std::string_view around = "three places around at each of two depths";
  switch (kind) {
  case SurfaceKind::plane:
    return {false, false, false, {4, 3, "3 places, well apart"}};
  case SurfaceKind::bore:
    return {true, false, true, {5, 6, around}};
  case SurfaceKind::boss:
    return {true, false, false, {5, 6, around}};
  case SurfaceKind::taper_bore:
    return {true, true, true, {6, 6, around}};
  case SurfaceKind::taper_shank:
    return {true, true, false, {6, 6, around}};
  }
  return {};
}

constexpr std::array<std::string_view, 5> names{"plane", "bore", "boss", "taper bore", "taper shank"};
static_assert(names.size() == static_cast<std::size_t>(SurfaceKind::taper_shank) + 1);

struct FromAxis {
  Vec3 out = Vec3::Zero(); ///< from the axis to the point, at a right angle to it
  double z = 0;
};

FromAxis from_axis(const Surface& surface, const Vec3& at) {
  const Vec3 e = at - surface.point;
  const double z = surface.direction.dot(e);
  return {e - surface.direction * z, z};
}

} // namespace

bool is_round(SurfaceKind kind) {
  return facts(kind).round;
}
bool is_cone(SurfaceKind kind) {
  return facts(kind).cone;
}
bool is_hole(SurfaceKind kind) {
  return facts(kind).hole;
}
bool is_outside(SurfaceKind kind) {
  return facts(kind).round && !facts(kind).hole;
}
double metal_sign(SurfaceKind kind) {
  return is_hole(kind) ? -1 : 1;
}
TouchAdvice touch_advice(SurfaceKind kind) {
  return facts(kind).touches;
}

std::pair<const std::string_view*, std::size_t> surface_kind_words() {
  return {names.data(), names.size()};
}

std::string_view surface_kind_name(SurfaceKind kind) {
  return names[static_cast<std::size_t>(kind)];
}

std::optional<SurfaceKind> surface_kind_from_name(std::string_view name) {
  for (std::size_t k = 0; k < names.size(); ++k)
    if (names[k] == name) return static_cast<SurfaceKind>(k);
  return std::nullopt;
}

std::string shape_wrong(const Surface& s) {
  if (!s.point.allFinite() || !s.direction.allFinite()) return "has a coordinate that is not a number";
  for (const double c : s.point)
    if (!is_length(c)) return fmt::format("has a coordinate that {}", too_long);
  if (!(std::abs(s.direction.norm() - 1) <= 1e-6)) return "has a direction that is not of unit length";
  if (s.round() && !(s.diameter > 0 && is_length(s.diameter)))
    return s.diameter > 0 ? fmt::format("has a diameter that {}", too_long) : "needs a diameter above 0";
  if (is_cone(s.kind) && !(s.half_angle > 0 && s.half_angle < radians(85)))
    return "needs a half angle above 0 and below 85 degrees";
  return {};
}

double radius_at(const Surface& surface, double z) {
  return surface.diameter / 2 + (surface.half_angle == 0 ? 0.0 : z * std::tan(surface.half_angle));
}

double stock_at(const Surface& surface, const Vec3& at) {
  if (!surface.round()) return surface.direction.dot(at - surface.point);
  const auto [out, z] = from_axis(surface, at);
  return metal_sign(surface.kind) * std::cos(surface.half_angle) * (out.norm() - radius_at(surface, z));
}

void stocks_at(const Surface& surface, const Eigen::Ref<const Eigen::ArrayXd>& x,
               const Eigen::Ref<const Eigen::ArrayXd>& y, const Eigen::Ref<const Eigen::ArrayXd>& z,
               Eigen::Ref<Eigen::ArrayXd> stock) {
  const Vec3 &a = surface.direction, &p = surface.point;
  stock = (x - p.x()) * a.x() + (y - p.y()) * a.y() + (z - p.z()) * a.z();
  if (!surface.round()) return;
  const double sign = metal_sign(surface.kind), c = std::cos(surface.half_angle),
               s = std::sin(surface.half_angle);
  const double radius = surface.diameter / 2;
  stock = sign * (c * (((x - p.x() - stock * a.x()).square() + (y - p.y() - stock * a.y()).square() +
                        (z - p.z() - stock * a.z()).square())
                           .sqrt() -
                       radius) -
                  s * stock);
}

Vec3 stock_direction(const Surface& surface, const Vec3& at) {
  if (!surface.round()) return surface.direction;
  const Vec3 out = from_axis(surface, at).out;
  const double distance = out.norm();
  const Vec3 radial = distance > 1e-12 ? Vec3(out / distance) : across(surface.direction);
  return metal_sign(surface.kind) *
         (std::cos(surface.half_angle) * radial - std::sin(surface.half_angle) * surface.direction);
}

StockBend stock_bend(const Surface& surface, const Vec3& at) {
  if (!surface.round()) return {};
  const Vec3 out = from_axis(surface, at).out;
  // Along the tangent the distance to the axis grows as d²/2ρ.
  const double distance = std::max(out.norm(), 1e-9);
  return {surface.direction.cross(out / distance),
          metal_sign(surface.kind) * std::cos(surface.half_angle) / distance};
}

Surface with_stock(const Surface& surface, double stock) {
  Surface raw = surface;
  if (const auto size = size_with_stock(surface, stock))
    raw.diameter = *size;
  else
    raw.point += stock * surface.direction;
  return raw;
}

std::optional<double> size_with_stock(const Surface& surface, double stock) {
  if (!surface.round()) return std::nullopt;
  return surface.diameter + 2 * metal_sign(surface.kind) * stock / std::cos(surface.half_angle);
}

std::optional<double> stock_of_size(const Surface& surface, double size) {
  if (!surface.round()) return std::nullopt;
  return metal_sign(surface.kind) * (size - surface.diameter) / 2 * std::cos(surface.half_angle);
}

Vec3 across(const Vec3& direction) {
  int least = 0;
  for (int i = 1; i < 3; ++i)
    if (std::abs(direction[i]) < std::abs(direction[least]) - 1e-9) least = i;
  const Vec3 axis = Vec3::Unit(least);
  return (axis - direction * direction.dot(axis)).normalized();
}

PatchDirections patch_directions(const Vec3& normal) {
  const Vec3 up = std::abs(normal.z()) < 0.9 ? Vec3(Vec3::UnitZ()) : Vec3(Vec3::UnitY());
  const Vec3 height = (up - normal * normal.dot(up)).normalized();
  return {height.cross(normal), height};
}

Chart::Chart(const Surface& surface) : surface_(surface) {
  if (surface.round()) {
    u_ = across(surface.direction);
    v_ = surface.direction.cross(u_);
  } else {
    const auto [u, v] = patch_directions(surface.direction);
    u_ = u;
    v_ = v;
  }
}

Vec2 Chart::coordinates(const Vec3& at) const {
  const Vec3 e = at - surface_.point;
  if (!closes()) return {e.dot(u_), e.dot(v_)};
  const double angle = std::atan2(e.dot(v_), e.dot(u_)), z = e.dot(surface_.direction);
  if (surface_.half_angle == 0) return {angle, z};
  // The foot of a point over a cone lies back along the normal.
  return {angle, z - stock_at(surface_, at) * stock_direction(surface_, at).dot(surface_.direction)};
}

Vec3 Chart::place(const Vec2& c) const {
  if (!closes()) return surface_.point + c.x() * u_ + c.y() * v_;
  return surface_.point + c.y() * surface_.direction +
         radius_at(surface_, c.y()) * (std::cos(c.x()) * u_ + std::sin(c.x()) * v_);
}

double Chart::first_scale() const {
  return closes() ? surface_.diameter / 2 : 1;
}

bool Chart::closes() const {
  return surface_.round();
}

int lean_terms(SurfaceKind kind) {
  return is_round(kind) ? 5 : 2;
}

bool lean_moves(SurfaceKind kind, int term) {
  return is_round(kind) && term < 2;
}

void lean_row(const Chart& chart, const Surface& surface, const Vec3& at, Eigen::Ref<Eigen::VectorXd> row) {
  const Vec2 c = chart.coordinates(at);
  if (!surface.round()) {
    row << c.x(), c.y();
    return;
  }
  row << std::cos(c.x()), std::sin(c.x()), c.y(), c.y() * std::cos(c.x()), c.y() * std::sin(c.x());
}

bool same_surface(const Surface& a, const Surface& b, double near) {
  constexpr double parallel = 1e-9; // 1 less the cosine
  if (a.kind != b.kind) return false;
  const double along = a.direction.dot(b.direction);
  const Vec3 off = a.point - b.point;
  if (!a.round()) return along > 1 - parallel && std::abs(off.dot(b.direction)) < near;
  const double z = off.dot(b.direction);
  if (std::abs(along) < 1 - parallel || (off - z * b.direction).norm() > near) return false;
  if (is_cone(a.kind) && (along < 0 || std::abs(a.half_angle - b.half_angle) > near)) return false;
  return std::abs(a.diameter / 2 - radius_at(b, z)) < near;
}

bool coaxial(const Surface& a, const Surface& b, double within) {
  return a.round() && b.round() && a.direction.cross(b.direction).norm() < 1e-6 &&
         (a.point - b.point).cross(a.direction).norm() < within;
}

} // namespace datrin
