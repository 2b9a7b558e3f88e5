#pragma once
// The domain's value types: plain data, one struct a record. Records refer to each other by id.

#include "geometry/surface.h"
#include "quantity/unit.h"

#include <array>
#include <cstdint>
#include <string>
#include <variant>

namespace datrin::build {

using Id = std::int64_t; ///< unique within a build, never used again; 0 means none

/// The build itself; there is one, with id 1.
struct Info {
  std::string name = "New build";
  Unit unit = Unit::mm;     ///< unit of the dial: of numbers typed without one, and shown first
  bool third_angle = false; ///< how the three views are laid out; else first angle
  bool operator==(const Info&) const = default;
};

struct Part {
  std::string name;
  std::string material;
  int quantity = 1;
  double order = 0; ///< place in lists
  bool operator==(const Part&) const = default;
};

/// One surface of a part's drawing.
struct PartSurface {
  Id part = 0;
  std::string name;
  SurfaceKind kind = SurfaceKind::plane;
  Vec3 point = Vec3::Zero();      ///< mm, drawing frame: the middle of a plane; on the axis at mid-length
  Vec3 direction = Vec3::UnitZ(); ///< unit: out of the metal; along the axis
  double diameter = 0;            ///< mm, round surfaces
  double width = 0, height = 0;   ///< mm: extents of a plane (level × upright); height = length of a round
                                ///< surface; 0 = as far as the neighbours let it
  bool machined = true;
  double required = 0; ///< mm of stock every touch must have, skin and least cut
  double order = 0;
  bool operator==(const PartSurface&) const = default;

  Surface shape() const { return {kind, point, direction, diameter}; }
  bool round() const { return kind != SurfaceKind::plane; }
};

/// A wall to keep: as-cast surface `from` stays at least this far from finished surface `to`, on its metal
/// side.
struct Wall {
  Id part = 0;
  Id from = 0, to = 0;
  double least = 0; ///< mm
  bool operator==(const Wall&) const = default;
};

/// One of the quantity of a part: one casting on the bench.
struct Piece {
  Id part = 0;
  int number = 1;
  bool operator==(const Piece&) const = default;
};

/// One touch on a rough piece.
struct Touch {
  Id piece = 0;
  Id surface = 0;
  Vec3 centre = Vec3::Zero(); ///< mm, survey frame: centre of the tip (the point itself when the radius is 0)
  double tip_radius = 0;      ///< mm
  Vec3 toward = Vec3::Zero(); ///< direction the tip travelled when it touched; zero: not stated
  double uncertainty = 0;     ///< mm, 95 %
  std::string setting;        ///< how the casting stood
  std::string note;
  double order = 0;
  bool operator==(const Touch&) const = default;
};

/// Where the finished part sits in a piece.
struct Seat {
  Id piece = 0;
  Pose pose;         ///< survey frame → drawing frame
  bool best = false; ///< found by the search; false: moved by hand since
  bool operator==(const Seat& o) const {
    return piece == o.piece && best == o.best && pose.rotation == o.pose.rotation &&
           pose.translation == o.pose.translation;
  }
};

/// How a piece is marked out.
struct Marking {
  Id piece = 0;
  Vec3 up = Vec3::UnitZ();          ///< drawing direction that points up
  Id reference = 0;                 ///< surface that stands at base_height; 0: the lowest jack
  double base_height = 25;          ///< mm above the plate
  std::array<Id, 3> jacks{0, 0, 0}; ///< touches; 0: chosen by the program
  bool operator==(const Marking&) const = default;
};

using Record = std::variant<Info, Part, PartSurface, Wall, Piece, Touch, Seat, Marking>;

} // namespace datrin::build
