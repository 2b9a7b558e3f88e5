#pragma once
// The surfaces a finished part is stated in, all in the drawing frame (mm).

#include "geometry/pose.h"

#include <optional>
#include <string_view>

namespace datrin {

enum class SurfaceKind {
  plane, ///< `direction` is the normal, pointing out of the metal
  bore,  ///< a hole: metal outside; `direction` is the axis, either way
  boss   ///< a round outside: metal inside; `direction` is the axis, either way
};

struct Surface {
  SurfaceKind kind = SurfaceKind::plane;
  Vec3 point = Vec3::Zero();      ///< on the plane, or on the axis
  Vec3 direction = Vec3::UnitZ(); ///< unit length
  double diameter = 0;            ///< mm; 0 for a plane

  bool round() const { return kind != SurfaceKind::plane; }
};

/// Metal standing over the finished surface at `at`, mm: plane n·(x−p); bore D/2 − distance to the axis; boss
/// distance to the axis − D/2. Negative: metal is missing there.
double stock_at(const Surface& surface, const Vec3& at);

/// The direction in which `at` must move for the stock to grow by 1 mm a mm (unit length). On the very axis
/// of a round surface every direction across it is as good; one is chosen.
Vec3 stock_direction(const Surface& surface, const Vec3& at);

/// Across `direction` (unit): some unit vector at a right angle to it, the same one every time.
Vec3 across(const Vec3& direction);

/// In-plane directions of a plane with unit normal `normal`: width runs level (at a right angle to z where
/// there is a choice), height as upright as it goes.
struct PatchDirections {
  Vec3 width, height;
};
PatchDirections patch_directions(const Vec3& normal);

std::string_view surface_kind_name(SurfaceKind kind); ///< "plane", "bore", "boss"
std::optional<SurfaceKind> surface_kind_from_name(std::string_view name);

} // namespace datrin
