#pragma once
// A fixture, jig or holder and the part it is made for: what play each of its locators leaves, whether every
// piece goes in, what turns the part under the cut and what holds against that, and whether it was tried
// before good pieces go in. Lengths mm, forces N, moments N·mm.

#include "build/build.h"

#include <map>
#include <string>
#include <vector>

namespace datrin::route {

struct FixtureOptions {
  double feed = 0.1;   ///< mm a turn of the drill
  double by_hand = 30; ///< N a hand holds against a drill that grabs (common practice: clamp what needs more)
  double wants_arm = 50; ///< mm: the arm a stop is asked for at where there is none
};

/// How one piece sits at a locator.
struct LocatorPiece {
  build::Id piece = 0;
  int number = 0;
  double size = 0; ///< mm as it was read
  double play = 0; ///< mm across; below 0: it does not go
  bool goes = true;
};

struct LocatorCheck {
  build::Id locator = 0;
  std::string takes;          ///< the dimension or surface it takes hold of
  double least = 0, most = 0; ///< mm: what that may measure, by its limits; as drawn where it has none
  double least_play = 0, most_play = 0; ///< mm across, by those; of a collet what is left of its range
  bool goes = true;                     ///< whatever the limits allow
  std::vector<LocatorPiece> pieces;     ///< those that were read
  std::string leaves;                   ///< "play 0.01 to 0.14 mm"
  std::string text;                     ///< "pin 8.19 mm in bore 8.2 to 8.33 mm: play 0.01 to 0.14 mm"
};

/// What a cut that turns does to the part.
struct TorqueCheck {
  build::Id operation = 0;
  double moment = 0; ///< N·mm
  double arm = 0;    ///< mm to what holds against it; 0: nothing does
  double force = 0;  ///< N there; without an arm at FixtureOptions::wants_arm
  bool held = false;
  std::string text;
};

struct FixtureCheck {
  build::Id part = 0;                ///< it holds; 0: none yet
  std::vector<build::Id> operations; ///< that need it
  std::vector<LocatorCheck> locators;
  std::vector<TorqueCheck> torques;
  bool tried = false; ///< a good trial was noted
  std::vector<std::string> remarks;
};

FixtureCheck fixture_check(const build::Build& build, build::Id fixture, const FixtureOptions& options = {});

/// Parts that operations of others need: fixtures, jigs, gauges, form tools; in the order of the parts.
std::vector<build::Id> shop_made(const build::Build& build);

/// Those the operations of a setup need.
std::vector<build::Id> fixtures_of(const build::Build& build, build::Id setup);

/// How far the locators of a setup's fixtures let each of its datums lie off, a standard deviation, mm: play
/// is taken up anywhere between its ends, play / (2 √3); in a V-block of 90° the axis of a round rises by
/// 1/√2 of what its diameter is over.
std::map<build::Id, double> play_at_datums(const build::Build& build, const build::Setup& setup,
                                           build::Id setup_id);

} // namespace datrin::route
