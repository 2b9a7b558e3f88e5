#pragma once
// The surfaces a finished part is stated in, all in the drawing frame (mm), and what each knows of its own
// geometry: on which side the metal is, how much of it stands over the surface at a place, which way that
// grows and bends, its size with metal left on, and how a point on it is told by two coordinates.
//
// The set of shapes is closed. Every question of kind is answered here, in switches without a default: a new
// kind is added to the enumeration, and the compiler names each place that has forgotten it.
//
// A round surface lies about an axis: `point` is on it, z counts along `direction` from there, ρ is the
// distance from it. A cone's diameter is that at `point` and grows along `direction`:  r(z) = D/2 + z tan α,
// α the half angle (0: a cylinder).
//
//   stock over a plane           n·(x − p)
//   stock over a round surface   σ cos α (ρ − r(z)),  σ = +1 with the metal inside (boss), −1 with it outside
//   (bore)
//
// The stock is counted at a right angle to the surface, positive where metal stands over it.

#include "geometry/pose.h"

#include <Eigen/Core>

#include <optional>
#include <string>
#include <string_view>
#include <utility>

namespace datrin {

using Vec2 = Eigen::Vector2d;

enum class SurfaceKind {
  plane,      ///< `direction` is the normal, pointing out of the metal
  bore,       ///< a hole: metal outside; `direction` is the axis, either way
  boss,       ///< a round outside: metal inside; `direction` is the axis, either way
  taper_bore, ///< a conical hole; `direction` is the axis, the way it gets wider
  taper_shank ///< a conical outside; `direction` is the axis, the way it gets wider
};

bool is_round(SurfaceKind kind); ///< lies about an axis, and has a diameter
bool is_cone(SurfaceKind kind);
bool is_hole(SurfaceKind kind);    ///< round, the metal outside
bool is_outside(SurfaceKind kind); ///< round, the metal inside

/// +1: the surface moves out (a plane along its normal, a round one from its axis) with metal left on; −1:
/// in.
double metal_sign(SurfaceKind kind);

/// Touches without which it cannot be said how such a surface lies, and how many to take for a first survey,
/// with how they are best spread.
struct TouchAdvice {
  int least = 0, usual = 0;
  std::string_view spread; ///< "3 places, well apart"
};
TouchAdvice touch_advice(SurfaceKind kind);

/// Words of the kinds, in the file, on screen and at the command line, in the order of the enumeration.
std::pair<const std::string_view*, std::size_t> surface_kind_words();
std::string_view
surface_kind_name(SurfaceKind kind); ///< "plane", "bore", "boss", "taper bore", "taper shank"
std::optional<SurfaceKind> surface_kind_from_name(std::string_view name);

struct Surface {
  SurfaceKind kind = SurfaceKind::plane;
  Vec3 point = Vec3::Zero();      ///< on the plane, or on the axis
  Vec3 direction = Vec3::UnitZ(); ///< unit length
  double diameter = 0;            ///< mm; 0 for a plane
  double half_angle = 0;          ///< radians; cones only

  bool round() const { return is_round(kind); }
};

/// What is wrong with a shape as such ("needs a diameter above 0"); empty when nothing.
std::string shape_wrong(const Surface& surface);

/// Metal standing over the finished surface at `at`, mm. Negative: metal is missing there.
double stock_at(const Surface& surface, const Vec3& at);

/// The same at many places, given by their coordinates, written to `stock`.
void stocks_at(const Surface& surface, const Eigen::Ref<const Eigen::ArrayXd>& x,
               const Eigen::Ref<const Eigen::ArrayXd>& y, const Eigen::Ref<const Eigen::ArrayXd>& z,
               Eigen::Ref<Eigen::ArrayXd> stock);

/// The direction in which `at` must move for the stock to grow by 1 mm a mm (unit length). On the very axis
/// of a round surface every direction across it is as good; one is chosen.
Vec3 stock_direction(const Surface& surface, const Vec3& at);

/// How the stock bends: moving `d` along `tangent` changes it by per_mm d² / 2, to second order; in no other
/// direction does it bend. A plane does not bend: per_mm 0.
struct StockBend {
  Vec3 tangent = Vec3::Zero(); ///< unit length, around the axis
  double per_mm = 0;           ///< 1/mm
};
StockBend stock_bend(const Surface& surface, const Vec3& at);

/// The surface with `stock` mm of metal left on it everywhere: what was there before that was cut.
Surface with_stock(const Surface& surface, double stock);

/// The diameter at `point` with `stock` mm of metal left a side; nothing for a plane.
std::optional<double> size_with_stock(const Surface& surface, double stock);
/// The metal a side that a diameter of `size` at `point` leaves; nothing for a plane.
std::optional<double> stock_of_size(const Surface& surface, double size);

/// Half the diameter `z` mm along the axis from `point`; 0 for a plane.
double radius_at(const Surface& surface, double z);

/// Across `direction` (unit): some unit vector at a right angle to it, the same one every time.
Vec3 across(const Vec3& direction);

/// In-plane directions of a plane with unit normal `normal`: width runs level (at a right angle to z where
/// there is a choice), height as upright as it goes.
struct PatchDirections {
  Vec3 width, height;
};
PatchDirections patch_directions(const Vec3& normal);

/// A surface unrolled: a place on it by two coordinates. Of a plane mm along its width and height from
/// `point`; of a round surface the angle about its axis (radians, from `u` towards `v`) and mm along it.
class Chart {
public:
  explicit Chart(const Surface& surface);

  Vec2 coordinates(const Vec3& at) const; ///< of the place on the surface that `at` stands over
  Vec3 place(const Vec2& coordinates) const;
  Vec3 foot(const Vec3& at) const { return place(coordinates(at)); }
  /// Millimetres on the surface per unit of the first coordinate (of the second it is 1).
  double first_scale() const;
  bool closes() const; ///< the first coordinate comes round again after 2π

  const Vec3& u() const { return u_; } ///< of a plane along its width; else across the axis
  const Vec3& v() const {
    return v_;
  } ///< of a plane along its height; else across the axis, a quarter turn on

private:
  Surface surface_;
  Vec3 u_, v_;
};

/// How many components the lean of such a surface has, and what each does to the stock at a place: of a plane
/// two slopes; of a round surface two of moving across its axis (mm), a taper and two leans of the axis
/// (radians).
int lean_terms(SurfaceKind kind);
/// Of each of them 1 for moving (mm), 0 for a slope (radians).
bool lean_moves(SurfaceKind kind, int term);
void lean_row(const Chart& chart, const Surface& surface, const Vec3& at, Eigen::Ref<Eigen::VectorXd> row);

/// Whether the two are of one plane, cylinder or cone with the metal on the same side, wherever on it they
/// lie: nowhere further off than `near` mm.
bool same_surface(const Surface& a, const Surface& b, double near = 1e-5);

/// Whether two round surfaces lie about the same line: directions within 1e-6, apart less than `within` mm.
bool coaxial(const Surface& a, const Surface& b, double within = 0.01);

} // namespace datrin
