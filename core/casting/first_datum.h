#pragma once
// The first datums of a raw casting: three targets on one as-cast surface, two on a second, one on a third;
// or of a round one four where a chuck or V-blocks grip it, one on an end face, one that stops the turning or
// none; and how well the part repeats when it is put back on them.
//
// The six contacts hold the part: a contact at r with normal n allows n · (d + w × r) = e, where e is how far
// the surface there differs from what it was, d and w the small motion of the part (mm, radians). With the
// six rows as the matrix G, the motion is G⁻¹ e, and its covariance G⁻¹ S G⁻ᵀ with S = diag(s²): by linear
// propagation.
//
//   s² = roughness² + (place · tan draft)²     place: how well the target is hit again, mm
//
// A chuck takes the middle of opposite jaws: half of s² across its axis.
//
// The spread of a feature (95 %, twice the standard deviation) is that of its own place: a plane at the
// corner that moves most along its normal, a round one at the end that moves most across its axis.

#include "geometry/surface.h"
#include "quantity/unit.h"

#include <optional>

#include <array>
#include <string>
#include <vector>

namespace datrin::casting {

struct DatumSurface {
  std::string name;
  Surface shape;                ///< drawing frame
  double width = 0, height = 0; ///< mm: extents of a plane; height = length of a round one
  bool as_cast = true;          ///< can be a first datum: raw now
  bool to_machine = false;      ///< its spread counts
  double roughness = 0.15;      ///< mm, standard deviation
  double draft = 0;             ///< radians it leans by
  bool flash = false;           ///< flash was noted on it
};

struct FirstDatumInput {
  std::vector<DatumSurface> surfaces;
  Unit unit = Unit::mm; ///< of the texts
};

struct FirstDatumOptions {
  double place = 1.5;       ///< mm: how far off a target may be met again
  double inset = 0.1;       ///< of the extents: targets stay this far from the edge
  double by_eye = 0.0087;   ///< radians, standard deviation: how well a part is turned by eye (half a degree)
  double least_grip = 0.25; ///< of its diameter: shorter is no grip for a chuck (common practice)
  double least_independent = 0.3; ///< sine between normals below which two surfaces do not locate each other
  std::size_t most = 40;          ///< choices kept, best first
};

struct DatumTarget {
  int surface = -1; ///< −1: none, turned by eye
  Vec3 at = Vec3::Zero();
  Vec3 normal = Vec3::UnitZ(); ///< out of the metal
};

struct FeatureSpread {
  int surface = -1;
  double spread = 0;             ///< mm, 95 %
  std::array<double, 3> share{}; ///< of its variance, by first, second, third surface
};

/// How the first surface of a choice holds the part.
enum class Holding {
  stands,  ///< on three targets, against two, against one
  gripped, ///< a round one in a chuck or V-blocks: four; an end face: one; what stops the turning: one
};

struct DatumChoice {
  Holding holding = Holding::stands;
  std::array<int, 3> surfaces{-1, -1, -1}; ///< first, second, third; gripped, a third of −1: turned by eye
  std::array<DatumTarget, 6> targets;
  std::vector<FeatureSpread> spreads; ///< of surfaces to be machined that are not datums here, in input order
  double worst = 0;                   ///< mm
  int worst_surface = -1;
};

enum class FirstDatumStatus { not_run, found, refused };

struct FirstDatumResult {
  FirstDatumStatus status = FirstDatumStatus::not_run;
  std::string message;
  std::vector<DatumChoice> choices;  ///< best first
  int tried = 0;                     ///< choices that hold the part
  DatumChoice tempting;              ///< the largest face first, the largest that locates it next, and so on
  int tempting_place = 0;            ///< its place in order, from 1
  std::string text;                  ///< why the best is better than the tempting one
  std::vector<std::string> warnings; ///< flash on a target, targets close together

  bool usable() const { return status == FirstDatumStatus::found; }
};

FirstDatumResult first_datums(const FirstDatumInput& input, const FirstDatumOptions& options = {});

/// The spreads of one choice; nothing when its contacts do not hold the part.
std::optional<DatumChoice> datum_choice(const FirstDatumInput& input, const std::array<int, 3>& surfaces,
                                        const FirstDatumOptions& options = {});

/// The small motion (mm; radians, about the origin) of a part whose six contacts differ by `e` mm: G⁻¹ e, the
/// linear part. Nothing when they do not hold it.
struct SmallMotion {
  Vec3 move = Vec3::Zero(), turn = Vec3::Zero();
};
std::optional<SmallMotion> motion_of(const std::array<DatumTarget, 6>& targets,
                                     const std::array<double, 6>& e);

} // namespace datrin::casting
