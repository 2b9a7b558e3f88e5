#pragma once
// The domain's value types: plain data, one struct a record. Records refer to each other by id.

#include "geometry/surface.h"
#include "quantity/unit.h"

#include <array>
#include <cstdint>
#include <map>
#include <memory>
#include <string>
#include <variant>
#include <vector>

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

/// What becomes of a touch.
enum class TouchStanding {
  counted,   ///< looked at for mistakes, and used
  confirmed, ///< looks like a mistake, but the person says it is right: used, not asked about again
  set_aside  ///< kept, not used
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
  TouchStanding standing = TouchStanding::counted;
  std::string corrected; ///< what it was before a mistake was put right, and which; empty: as booked
  bool operator==(const Touch&) const = default;
};

/// Which frame the readings of a setting are in.
enum class SettingFrame {
  survey, ///< the survey's own: the casting was not moved, or its coordinates were carried over
  own,    ///< a frame of its own, joined to the survey by reference marks
  heights ///< heights above the plate only (z; x and y say nothing), joined by the marks' heights
};

/// A way the casting stood while it was touched. Touches name it by `name`; one that is named and has no
/// record is in the survey frame.
struct Setting {
  Id piece = 0;
  std::string name;
  SettingFrame frame = SettingFrame::own;
  double order = 0;
  bool operator==(const Setting&) const = default;
};

/// A reference mark (a centre pop), read in one setting.
struct Mark {
  Id piece = 0;
  std::string setting;    ///< empty: the survey frame
  std::string name;       ///< "A"
  Vec3 at = Vec3::Zero(); ///< mm, in the setting's frame; only z where it gives heights only
  double uncertainty = 0; ///< mm, 95 %
  double order = 0;
  bool operator==(const Mark&) const = default;
};

/// A size read across the rough piece, without coordinates: a calliper thickness between two planes
/// (`other` ≠ 0), or the diameter of a bore or boss (`other` = 0).
struct SizeReading {
  Id piece = 0;
  Id surface = 0, other = 0;
  double size = 0;        ///< mm
  double uncertainty = 0; ///< mm, 95 %
  std::string note;
  double order = 0;
  bool operator==(const SizeReading&) const = default;
};

enum class SpotKind { draft, flash, pore, chill, defect, repair };

/// Something seen on a rough piece, at a place.
struct Spot {
  Id piece = 0;
  Id surface = 0; ///< 0: on none in particular
  SpotKind kind = SpotKind::defect;
  Vec3 at = Vec3::Zero(); ///< mm, survey frame
  double size = 0;        ///< mm across, or deep; 0: not measured
  std::string note;
  bool operator==(const Spot&) const = default;
};

/// Points of a scan, in the scan's own frame, each given to a surface or to none.
struct ScanPoints {
  std::vector<std::array<float, 3>> at; ///< mm
  std::vector<std::uint16_t> surface;   ///< per point: index into `surfaces`; no_surface: given to none
  std::vector<Id> surfaces;
  static constexpr std::uint16_t no_surface = 0xFFFF;
  bool operator==(const ScanPoints&) const = default;
};

/// A scan of a rough piece.
struct Scan {
  Id piece = 0;
  std::string name;                         ///< of the file it came from
  Pose pose;                                ///< scan frame → survey frame
  double uncertainty = 0;                   ///< mm, 95 %, of every point
  std::shared_ptr<const ScanPoints> points; ///< never changed once made
  bool operator==(const Scan& o) const {
    return piece == o.piece && name == o.name && pose.rotation == o.pose.rotation &&
           pose.translation == o.pose.translation && uncertainty == o.uncertainty &&
           (points == o.points || (points && o.points && *points == *o.points));
  }
};

/// What the person wants of the seat of a piece, beside the most room everywhere.
struct Judgement {
  Id piece = 0;
  std::array<bool, 6> locked{}; ///< moving along x, y, z, turning about x, y, z (drawing frame): not allowed
  std::map<Id, double> favour;  ///< mm of room a surface is to have before any other has some
  Id central_bore = 0;          ///< this bore is kept central in the rough boss around it; 0: none
  bool operator==(const Judgement&) const = default;
};

/// A change to the drawing that was decided on, with what it was for.
struct Decision {
  Id part = 0;
  Id piece = 0; ///< the casting it saves; 0: all
  Id surface = 0;
  std::string what;   ///< "bore moved 0.42 along x"
  std::string reason; ///< "did not clean up by 0.31"
  std::string at;     ///< UTC, ISO 8601
  bool operator==(const Decision&) const = default;
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

using Record = std::variant<Info, Part, PartSurface, Wall, Piece, Touch, Seat, Marking, Setting, Mark,
                            SizeReading, Spot, Scan, Judgement, Decision>;

} // namespace datrin::build
