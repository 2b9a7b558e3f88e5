#pragma once
// A surface with its extents: how far it reaches. One way of finding them where the drawing does not state
// them, and of asking for corners and boxes.

#include "geometry/surface.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace datrin {

struct Patch {
  Surface shape;                ///< a plane's point is its middle; a round surface's lies at mid-length
  double width = 0, height = 0; ///< mm: of a plane level × upright; height is the length of a round surface;
                                ///< 0: as far as the other surfaces let it
};

/// `patches` with every extent filled in: a plane without one reaches to where the planes crossing it cut it
/// off, a round surface without a length to the planes across its axis; its point moves to the middle.
std::vector<Patch> with_extents(std::vector<Patch> patches);

/// The four corners of a plane, in order around it; of a round surface the corners of the rectangle it is
/// seen as from the side that `across(direction)` points to.
std::vector<Vec3> corners(const Patch& patch);

/// Whether the place on the surface over which `at` stands is within its extents, `margin` mm inside.
bool reaches(const Patch& patch, const Vec3& at, double margin = 0);

/// How far beyond its edges the place on the surface is over which `at` stands, mm; 0 within them, and where
/// an extent is not known.
double beyond_edge(const Patch& patch, const Vec3& at);

/// The same for one surface and many places: what does not change with the place is worked out once.
class Edges {
public:
  explicit Edges(const Patch& patch);
  double beyond(const Vec3& at) const {
    const Vec3 off = at - shape_.point;
    // The foot of a place over a cone lies back along the normal.
    const double up = off.dot(height_) - (lean_ == 0 ? 0 : lean_ * stock_at(shape_, at));
    return std::max({0.0, std::abs(off.dot(width_)) - half_width_, std::abs(up) - half_height_});
  }

private:
  Surface shape_;
  Vec3 width_ = Vec3::Zero(), height_; ///< a round surface goes on round its axis: no width
  double half_width_, half_height_;    ///< mm; as far as one likes where an extent is not known
  double lean_ = 0;                    ///< of a cone: how far its normal leans along its axis
};

/// The wider end's radius of a round surface; 0 of a plane.
double largest_radius(const Patch& patch);

struct Box {
  Vec3 low = Vec3::Constant(1e300), high = Vec3::Constant(-1e300); ///< low above high: nothing in it

  bool empty() const { return low.x() > high.x(); }
  void take(const Vec3& at);
  Vec3 size() const { return empty() ? Vec3(Vec3::Zero()) : Vec3(high - low); }
};

/// The box around `patches`, extents as they are.
Box box_of(const std::vector<Patch>& patches);

} // namespace datrin
