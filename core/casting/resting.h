#pragma once
// How a casting will rest on one of its rough faces: the three points it really stands on, how much it rocks,
// and what cures it.
//
// Heights of the touches are taken square to the face, down positive. What it stands on is a facet of the
// lower hull of the touches: the one that the line straight down from the centroid goes through; a casting
// put down on another rolls over its edges until it lies on this one. Pressed beyond an edge of that triangle
// it tips about the edge until the next touch meets the plate: that gap is how much it rocks.

#include "casting/seat_input.h"
#include "quantity/unit.h"

#include <array>

namespace datrin::casting {

struct RestingInput {
  std::vector<Vec3> points;     ///< touches of the face, any frame, mm
  Vec3 down = -Vec3::UnitZ();   ///< unit: out of the metal
  Vec3 centroid = Vec3::Zero(); ///< of the casting, same frame
};

/// Where it tips to when pressed beyond one edge of what it stands on.
struct Rock {
  std::array<int, 2> edge{-1, -1}; ///< the two points it tips about
  int lands = -1;                  ///< the point that then meets the plate; −1: none, it would fall
  double gap = 0;                  ///< mm under that point while it stands
  double angle = 0;                ///< radians it tips by
  double lever = 0;                ///< mm from the foot of the centroid to the edge: small = easily tipped
};

enum class RestingStatus { not_run, rests, refused };

struct RestingResult {
  RestingStatus status = RestingStatus::not_run;
  std::string message;
  std::array<int, 3> stands_on{-1, -1, -1}; ///< indices into RestingInput::points
  std::array<Rock, 3> rocks;                ///< per edge of the triangle
  double tilt = 0;    ///< radians between the face's own direction and what it stands on
  double rock = 0;    ///< mm: the largest gap it can really be tipped by
  bool falls = false; ///< the centroid is beyond every triangle: it does not stand at all
  std::string cure;   ///< one sentence

  bool usable() const { return status == RestingStatus::rests; }
};

struct RestingOptions {
  double rock_that_matters = 0.05; ///< mm: less is taken up by the clamps
  Unit unit = Unit::mm;            ///< of the texts
};

RestingResult rest_on(const RestingInput& input, const RestingOptions& options = {});

} // namespace datrin::casting
