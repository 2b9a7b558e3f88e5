#include "geometry/surface.h"

#include <Eigen/Geometry>

#include <cmath>

namespace datrin {
namespace {

Vec3 from_axis(const Surface& surface, const Vec3& at) {
  const Vec3 e = at - surface.point;
  return e - surface.direction * surface.direction.dot(e);
}

} // namespace

double stock_at(const Surface& surface, const Vec3& at) {
  switch (surface.kind) {
  case SurfaceKind::plane:
    return surface.direction.dot(at - surface.point);
  case SurfaceKind::bore:
    return surface.diameter / 2 - from_axis(surface, at).norm();
  case SurfaceKind::boss:
    return from_axis(surface, at).norm() - surface.diameter / 2;
  }
  return 0;
}

Vec3 stock_direction(const Surface& surface, const Vec3& at) {
  if (!surface.round()) return surface.direction;
  const Vec3 out = from_axis(surface, at);
  const double distance = out.norm();
  const Vec3 radial = distance > 1e-12 ? Vec3(out / distance) : across(surface.direction);
  return surface.kind == SurfaceKind::bore ? Vec3(-radial) : radial;
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

std::string_view surface_kind_name(SurfaceKind kind) {
  switch (kind) {
  case SurfaceKind::plane:
    return "plane";
  case SurfaceKind::bore:
    return "bore";
  case SurfaceKind::boss:
    return "boss";
  }
  return "plane";
}

std::optional<SurfaceKind> surface_kind_from_name(std::string_view name) {
  for (const auto kind : {SurfaceKind::plane, SurfaceKind::bore, SurfaceKind::boss})
    if (surface_kind_name(kind) == name) return kind;
  return std::nullopt;
}

} // namespace datrin
