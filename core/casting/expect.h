#pragma once
// What to expect before a casting is touched: raw sizes and the metal over each surface to be machined, from
// the drawing and the grades alone.
//
//   one face machined      raw = finished + RMA + CT/2
//   two faces, or a boss   raw = finished + 2 RMA + CT/2
//   a bore                 raw = finished − 2 RMA − CT/2
//
// RMA: required machining allowance, by the largest dimension of the finished part; CT: whole casting
// tolerance of the raw size itself, which is found by going round until its row of the table stands. A wall
// has one grade coarser. ISO 8062-3:2007.

#include "build/build.h"
#include "quantity/reckoning.h"

#include <string>
#include <vector>

namespace datrin::casting {

struct RawSize {
  build::Id surface = 0; ///< the surface to be machined
  build::Id other = 0;   ///< the plane opposite, which the size is taken to; 0: a diameter
  std::string name;      ///< "bore", "foot to cheek"
  double finished = 0;   ///< mm
  double raw = 0;        ///< mm: the basic raw size
  double tolerance = 0;  ///< mm: whole width about it
  double stock_least = 0, stock = 0, stock_most = 0; ///< mm a side over this surface
  Reckoning sum;                                     ///< of `raw`
};

/// A wall to keep, as the foundry makes it.
struct RawWall {
  build::Id wall = 0;
  std::string name;     ///< "boss to bore"
  double nominal = 0;   ///< mm: as drawn, with the metal that is to be machined off
  double tolerance = 0; ///< mm: whole width about it, one grade coarser than the casting's
};

/// How a part is cast, of that metal, or by that process: what is usual for them follows (shrinkage, draft
/// and grades with the metal; grades with the process).
build::Foundry of_metal(build::Foundry foundry, const std::string& metal);
build::Foundry by_process(build::Foundry foundry, const std::string& process);

enum class ExpectStatus { not_run, expected, refused };

struct Expectation {
  ExpectStatus status = ExpectStatus::not_run;
  std::string message;
  double largest = 0;   ///< mm: largest dimension of the part, as finished
  double allowance = 0; ///< mm: RMA a side
  std::vector<RawSize> sizes;
  std::vector<RawWall> walls;
  std::vector<std::string>
      remarks; ///< sizes the tables do not cover, and what a foundry can usually do better

  bool usable() const { return status == ExpectStatus::expected; }
  const RawSize* of(build::Id surface) const;
};

/// How the part is cast: as kept, or usual grades for its material, cast in sand by hand.
build::Foundry foundry_or_usual(const build::Build& build, build::Id part);

Expectation expect_casting(const build::Build& build, build::Id part, const build::Foundry& foundry);

/// The plane facing the other way across the metal from `surface`, the farthest; 0 when there is none.
build::Id opposite_plane(const build::Build& build, build::Id surface);

} // namespace datrin::casting
