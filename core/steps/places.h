#pragma once
// What is 0 along an axis of the machine in a setup, and how far from it a place is: with the metal that has
// still to come off the face the finder touches, or the drill starts at. Drawing frame, mm.

#include "allowance/plan.h"
#include "quantity/reckoning.h"
#include "route/machine_axes.h"

#include <array>
#include <optional>
#include <string>
#include <vector>

namespace datrin::steps {

/// What places count from along an axis.
struct AxisZero {
  build::Id surface = 0;                  ///< 0: nothing locates it there
  const build::PartSurface* on = nullptr; ///< a plane square to the axis, or a round about the tool
  build::Id opposite_surface = 0;
  const build::PartSurface* opposite = nullptr; ///< the plane over against it: it counts from between them
  double sense = 0;       ///< of a plane: +1 it faces the way the axis counts, −1 against it
  double across = 0;      ///< mm, of what has a middle: as it is now, by the drawing and the metal on it
  double beside = 0;      ///< mm that middle lies up the axis from the drawing's, for the metal still on it
  bool rough = false;     ///< not cut yet, and nothing says where it is
  bool made_here = false; ///< a round cut in this setup: its middle is where the spindle is put
  bool known() const { return on != nullptr && !rough; }
  bool has_middle() const { return on != nullptr && (on->round() || opposite != nullptr); }
  bool inside() const; ///< of what has a middle: a bore, a slot; else a boss, what stands between two faces
  std::string name() const;  ///< "end A"; "left and right"
  std::string place() const; ///< where 0 is: "end A", "the middle of left and right"
  Vec3 point() const;        ///< drawing frame
};

/// Metal still to come off a face in the way, mm a side.
struct MetalOver {
  build::Id face = 0; ///< 0: none of the surfaces is there
  double mm = 0;
  bool rough = false; ///< not known
};

class Places {
public:
  Places(const build::Build& build, const build::Setup& setup,
         const std::vector<allowance::SurfacePlan>& plans);

  const route::AsHeld& held() const { return held_; }
  /// Of axis 0 X or 1 Y. A datum that is cut in this very setup is none: it moves under the zero. Of two
  /// datums over against each other the one further down the axis, with the other.
  AxisZero zero(std::size_t axis) const;
  /// Where `at` is along the axis; its lines add up to it. No lines: nothing known locates it.
  Reckoning along(std::size_t axis, const Vec3& at) const;
  /// What stands over the face that looks along `out` (unit) and holds `at`.
  MetalOver over(const Vec3& at, const Vec3& out) const;
  /// How far `at` is off the axis the part turns about; nothing where no round says where that is.
  std::optional<double> off_axis(const Vec3& at) const;

private:
  void locates(std::size_t axis, build::Id plane);
  void find_middle();
  const allowance::SurfacePlan* plan_of(build::Id surface) const;
  bool is_rough(build::Id surface) const;
  double to_come(build::Id surface) const;

  const build::Build& build_;
  const build::Setup& setup_;
  const std::vector<allowance::SurfacePlan>& plans_;
  route::AsHeld held_;
  Mat3 axes_;
  bool cast_ = true;
  std::array<build::Id, 2> datums_{0, 0}, opposite_{0, 0};
  build::Id middle_ = 0; ///< what is round about the tool
};

} // namespace datrin::steps
