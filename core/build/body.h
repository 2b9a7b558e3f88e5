#pragma once
// The records a part is a solid of: bodies with their sizes, where they are put and how they are repeated.

#include "build/id.h"

#include <string>
#include <tuple>
#include <vector>

namespace datrin::build {

/// What a body is: metal added to a part or taken from it. Its own frame has z up from the middle of what it
/// stands on (of a hole, slot, pocket or groove out of the metal), x along its length, y along its width.
enum class BodyShape {
  block,    ///< length, width, height; corner: upright edges rounded
  round,    ///< diameter, height
  cone,     ///< diameter below, top diameter above, height
  tube,     ///< diameter, bore, height
  prism,    ///< across the flats, height; as many sides as stated
  rib,      ///< length, height, thickness: a triangle standing on its length, upright at its low end
  spokes,   ///< bars from inside diameter to outside diameter, width by height, as many as stated
  hole,     ///< diameter, depth; point angle; mouth diameter and depth, or angle
  slot,     ///< length over its round ends, width, depth
  pocket,   ///< length, width, depth; corner
  groove,   ///< round a boss: diameter outside and at its bottom, width
  chamfer,  ///< of the edges of a face: height
  fillet,   ///< the same, rounded
  imported, ///< as another program drew it, where it drew it; length: how far it reaches from the origin
  scribed,  ///< a line scribed on a face: length; no metal
  pop,      ///< a centre pop; no metal
  turned    ///< a profile turned about the axis: what is no stack of rounds and cones
};

/// A face of a body. Seen from outside, `along` runs to the right on it and `across` up.
enum class BodyFace {
  middle, ///< no face: the body's own middle, and its own frame
  bottom,
  top,
  left,
  right,
  front,
  back,
  side,   ///< the round of it, the wall of a hole; to the right is along its axis, at its middle
  inside, ///< the bore of a tube
  floor,  ///< of a blind hole, a slot or pocket
  mouth,  ///< the wall of a counterbore or countersink
  seat    ///< the floor of a counterbore
};

/// Which face of a body: of what is turned by a profile the side from the place before to `profile_place`
/// (counted from 1, so from 2 on); of a pattern of which copy.
struct FaceOf {
  BodyFace face = BodyFace::middle;
  int profile_place = 0;
  int copy = 0;
  FaceOf(BodyFace of = BodyFace::middle, int place = 0, int which = 0)
      : face(of), profile_place(place), copy(which) {}
  bool operator==(const FaceOf&) const = default;
  bool operator<(const FaceOf& other) const {
    return std::tie(face, profile_place, copy) < std::tie(other.face, other.profile_place, other.copy);
  }
};

/// What a size of a body says.
enum class BodyRole {
  length,
  width,
  height,
  diameter,
  bore,
  top_diameter,
  flats,
  thickness,
  corner,
  depth,
  point_angle,
  mouth_diameter,
  mouth_depth,
  mouth_angle,
  taper, ///< whole angle of a cone; where it is stated the top diameter follows from it
  inside_diameter,
  outside_diameter,
  along,  ///< from where it is put, to the right
  across, ///< and up the face
  off,    ///< away from the face
  turn,   ///< about the normal of the face; on a round side: about its axis
  tilt,   ///< then about its own length
  pitch,  ///< between the copies of a row, a pair or along a grid
  pitch_across,
  circle ///< diameter of a bolt circle
};

/// One size of a body: a dimension says it; where none does, it is `value`.
struct BodySize {
  BodyRole role = BodyRole::length;
  Id dimension = 0;
  double value = 0; ///< mm (an angle: radians): as the dimension last said
  int profile_place =
      0; ///< of what is turned by a profile: of which place, from 1 (length: how far it lies from where the
         ///< profile starts; corner: radius of the arc to it, without sign); 0: of the body
  bool operator==(const BodySize&) const = default;
};

/// Which way the own z of a body lies on the face it is put on.
enum class BodyLie { up, along, across };

/// Where on a face a place is counted from.
enum class PlaceFrom {
  middle,      ///< from the middle of the face to the middle of the body
  low_edge,    ///< from the left (lower) edge, inwards
  high_edge,   ///< from the right (upper) edge, inwards
  low_to_edge, ///< the same to the body's own edge: 0 is flush
  high_to_edge
};

enum class HoleMouth { plain, counterbored, countersunk, spot_faced };
enum class HoleMaking { drilled, reamed, bored, tapped, cored };

enum class BodyPattern {
  single,
  row,    ///< along the face, `pitch` apart
  grid,   ///< rows, `pitch_across` apart
  circle, ///< evenly round a circle about the middle of the face
  pair,   ///< two, `pitch` apart, the same to both sides of its place
  mirror  ///< this, and its like on the other side of the middle of the face
};

/// A place on a turned profile: so far from where it starts, so wide, and how it is reached from the place
/// before.
struct ProfilePoint {
  double at = 0, diameter = 0; ///< mm
  double arc = 0; ///< mm: radius of the arc to here; above 0: bulging, below 0: hollow; 0: straight
  bool operator==(const ProfilePoint&) const = default;
};

/// Metal added to a part, or taken from it.
struct Body {
  Id part = 0;
  std::string name;
  BodyShape shape = BodyShape::block;
  bool cut = false; ///< taken away
  Id on = 0;        ///< body it is put on; 0: the drawing's own frame
  BodyFace face = BodyFace::top;
  BodyLie lie = BodyLie::up;
  PlaceFrom from_along = PlaceFrom::middle, from_across = PlaceFrom::middle;
  std::vector<BodySize> sizes;
  int sides = 6;        ///< of a prism; how many spokes
  bool through = false; ///< a cut goes through all there is; else as deep as stated
  HoleMouth mouth = HoleMouth::plain;
  HoleMaking making = HoleMaking::drilled;
  std::string thread; ///< of a tapped hole, or cut on a round: "M6"
  BodyPattern pattern = BodyPattern::single;
  int count = 1, count_across = 1; ///< of a row, grid or circle
  std::string step;                ///< of what is imported: a STEP file (ISO 10303-21), in mm
  double order = 0;                ///< in which they are added and taken away
  Id surface = 0; ///< put on a surface that is no face of a body: stated, or taken from what was imported
  std::vector<ProfilePoint> profile; ///< of what is turned, from where it starts
  int on_profile_place = 0;          ///< put on the side of what is turned: of which place
  bool operator==(const Body&) const = default;

  const BodySize* size(BodyRole role, int profile_place = 0) const;
  void set_size(const BodySize& size); ///< in place of the one of that role and place
  FaceOf stands_on() const { return {face, on_profile_place, 0}; }
};

} // namespace datrin::build
