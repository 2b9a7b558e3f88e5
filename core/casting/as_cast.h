#pragma once
// What the foundry really made, from the touches: how each surface leans, is warped and rocks, where each
// core stands and how it tapers, and the shrinkage that really happened, each with its uncertainty.
//
// Planes and cylinders are fitted by least squares in the drawing frame (at the given seat); uncertainties
// (95 %) are twice the standard deviation that the scatter about the fit leaves on the figure.

#include "casting/pattern.h"
#include "casting/seat_input.h"

namespace datrin::casting {

struct WithUncertainty {
  double value = 0;
  double uncertainty = 0; ///< 95 %
};

struct AsCastSurface {
  int surface = -1; ///< index into SeatInput::surfaces
  int touches = 0;
  bool fitted = false;   ///< enough touches to say how it lies
  WithUncertainty stock; ///< mm over the finished surface, at its middle
  WithUncertainty lean;  ///< radians: of a plane from square, of an axis from its own
  Vec3 leans_to =
      Vec3::Zero();          ///< unit: the way it rises away from the metal most (plane), or its axis leans
  double warp = 0;           ///< mm: highest less lowest about the plane (or cylinder), of the touches
  double roughness = 0;      ///< mm: standard deviation about the fit
  WithUncertainty taper;     ///< mm of diameter per mm of length (round)
  Vec3 shift = Vec3::Zero(); ///< mm: the axis off its place, across it (round)
  WithUncertainty across;    ///< its length
  WithUncertainty diameter;  ///< mm (round)
};

/// A bore's core against the boss around it.
struct CoreShift {
  int bore = -1, boss = -1;
  Vec3 shift = Vec3::Zero(); ///< mm, drawing frame
  WithUncertainty amount;
};

struct ShrinkageFound {
  bool known = false;
  WithUncertainty shrinkage; ///< of the length
  int sizes = 0;             ///< it was found from
  std::string text;          ///< what it says, against what the pattern was made for
};

struct AsCast {
  std::vector<AsCastSurface> surfaces; ///< per SeatInput::surfaces
  std::vector<CoreShift> cores;
};

AsCast as_cast(const SeatInput& input, const Pose& seat);

/// The shrinkage that happened, pattern / casting − 1: sizes of the casting (planes opposite each other,
/// diameters) against the pattern's, as a weighted mean. It says something only where the pattern is known.
/// `surface_ids` as in PieceInput; `unit` of the words.
ShrinkageFound shrinkage_found(const SeatInput& input, const AsCast& made,
                               const std::vector<build::Id>& surface_ids, const Pattern& pattern,
                               double made_for, Unit unit = Unit::mm);

} // namespace datrin::casting
