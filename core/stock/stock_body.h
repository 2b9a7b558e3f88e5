#pragma once
// A piece of stock as a body: bar, plate, tube or block, with the finished part in it. Lengths mm, drawing
// frame.

#include "build/records.h"
#include "geometry/patch.h"
#include "geometry/pose.h"

#include <optional>
#include <string>
#include <vector>

namespace datrin::stock {

using build::Stock;
using build::StockForm;

/// Whether touches are needed to know the metal over it.
bool is_raw(StockForm form);      ///< casting and forging
bool is_bar_like(StockForm form); ///< sold by its section: round, square, hexagon, flat, tube

/// Along its length, its width, its thickness.
struct StockAxes {
  Vec3 along = Vec3::UnitX(), across = Vec3::UnitY(), through = Vec3::UnitZ();
};
StockAxes axes_of(const Stock& stock);

/// The box around the finished part in those directions.
struct FinishedBox {
  Vec3 low = Vec3::Zero(), high = Vec3::Zero(); ///< along, across, through
  bool known = false;                           ///< the part has surfaces with extents
  Vec3 size() const { return high - low; }
  Vec3 middle() const { return (low + high) / 2; }
};
FinishedBox finished_box(const std::vector<Patch>& patches, const StockAxes& axes);

/// What is wrong with the sizes of a stock, as "a round bar needs its diameter"; empty: nothing.
std::string sizes_wrong(const Stock& stock);

/// Metal over a surface of the finished part, a side.
struct MetalOver {
  double least = 0, most = 0; ///< below 0: the stock does not hold it
};

class StockBody {
public:
  /// The stock with its middle where `stock.shift` puts it, from the middle of the finished part.
  StockBody(const Stock& stock, const FinishedBox& box);

  /// How far it is from `at` along unit `way` to the outside of the stock; below 0 when `at` stands out of
  /// it.
  double to_outside(const Vec3& at, const Vec3& way) const;
  /// The shortest way from `at` to the outside, mm: square to a flat side, to a round one outwards from its
  /// axis; below 0 when `at` stands out of it.
  double depth(const Vec3& at) const;
  /// The metal between the bore of a tube and a hole along it that takes the bore in; nothing for any other
  /// hole: that is made from solid.
  std::optional<MetalOver> over_bore(const Surface& hole) const;
  double volume() const; ///< mm³
  /// Places on its outline, of which it is the convex hull (of round bar many round its ends).
  const std::vector<Vec3>& outline() const { return outline_; }
  double reach(const Vec3& way) const; ///< the most of way · x in it, mm

private:
  struct Side {
    Vec3 normal; ///< unit, out of the metal
    double at;   ///< mm: normal · x
  };
  std::vector<Side> sides_; ///< flat ones
  Vec3 axis_point_ = Vec3::Zero(), axis_ = Vec3::UnitX();
  double radius_ = 0, bore_ = 0; ///< of round bar and tube
  double volume_ = 0;
  std::vector<Vec3> outline_;
};

/// Places on the edge of a face: its corners; of one that closes a round (its middle on the axis, as wide as
/// high and no larger than that) places round it.
std::vector<Vec3> edge_of(const Patch& face, const std::vector<Patch>& part);

/// Whether the part goes on beyond a face: a shoulder, which comes about when what stands on it is cut.
bool is_shoulder(const Patch& face, const std::vector<Patch>& part);

/// Over the places of a face, round a round one; nothing for a hole that is made from solid.
std::optional<MetalOver> metal_over(const StockBody& body, const Patch& patch,
                                    const std::vector<Patch>& part);

/// Places round a round surface at both its ends, or on the edge of a face: what the stock must hold.
std::vector<Vec3> outline_of(const Patch& patch, const std::vector<Patch>& part);

} // namespace datrin::stock
