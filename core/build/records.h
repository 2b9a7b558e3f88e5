#pragma once
// The domain's value types: plain data, one struct a record. Records refer to each other by id. What their
// members are called in the file, which rules they keep and what they refer to is said in
// build/descriptions.h.

#include "build/body.h"
#include "build/route_records.h"
#include "build/shop_records.h"
#include "geometry/patch.h"
#include "quantity/unit.h"

#include <array>
#include <cstdint>
#include <memory>
#include <string>
#include <utility>
#include <vector>

namespace datrin::build {

/// The build itself; there is one, with id 1.
struct Info {
  std::string name = "New build";
  Unit unit = Unit::mm;      ///< unit of the dial: of numbers typed without one, and shown first
  bool third_angle = false;  ///< how the three views are laid out; else first angle
  double setup_minutes = 20; ///< to make one setup ready (common practice; a beginning)
  double tool_minutes = 2;   ///< to change a tool (the same)
  bool operator==(const Info&) const = default;
};

struct Part {
  std::string name;
  std::string material;
  int quantity = 1;
  double order = 0;        ///< place in lists
  std::string condition{}; ///< of the material: a name in data/conditions.csv; empty: as it usually comes
  std::string drawn_material{};  ///< what the drawing says, where another is taken
  std::string material_reason{}; ///< why
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
  double half_angle = 0;   ///< radians, cones: the diameter grows along `direction`, and is stated at `point`
  bool from_solid = false; ///< made from solid metal: nothing of it is there to be touched before it is cut
  Id body = 0;             ///< the body it is a face of, which says where it lies; 0: it was stated as it is
  BodyFace face = BodyFace::side; ///< which face of it
  int copy = 0;                   ///< of a pattern: which of the copies, from 0
  int profile_place = 0;          ///< of what is turned by a profile: see FaceOf
  bool operator==(const PartSurface&) const = default;

  Surface shape() const { return {kind, point, direction, diameter, half_angle}; }
  Patch patch() const { return {shape(), width, height}; }
  bool round() const { return is_round(kind); }
  FaceOf face_of() const { return {face, profile_place, copy}; } ///< of `body`
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
  std::string rejected{}; ///< why it is not made further; empty: it is
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
  std::string corrected;    ///< what it was before a mistake was put right, and which; empty: as booked
  double right = 0, up = 0; ///< mm: of a height alone: where on its face (level and upright from its middle)
                            ///< it was touched; both 0: not said
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

enum class SpotKind {
  draft,
  flash,
  pore,
  chill,
  defect,
  repair,
  parting,
  short_fill,
  warp,
  inclusion,
  hard_skin,
  mismatch
};

/// What is to be done about it.
enum class SpotCure { undecided, dress_off, cut_round, fill, watch, reject, leave };

/// Something seen on a rough piece, at a place.
struct Spot {
  Id piece = 0;
  Id surface = 0; ///< 0: on none in particular
  SpotKind kind = SpotKind::defect;
  Vec3 at = Vec3::Zero(); ///< mm, survey frame
  double size = 0;        ///< mm across, or deep; 0: not measured
  std::string note;
  SpotCure cure = SpotCure::undecided;
  bool done = false; ///< that was done
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

/// A surface that is to have some room before any other has.
struct Favour {
  Id surface = 0;
  double by = 0; ///< mm
  bool operator==(const Favour&) const = default;
};

/// What the person wants of the seat of a piece, beside the most room everywhere.
struct Judgement {
  Id piece = 0;
  std::array<bool, 6> locked{}; ///< moving along x, y, z, turning about x, y, z (drawing frame): not allowed
  std::vector<Favour> favours;  ///< a surface at most once
  Id central_bore = 0;          ///< this bore is kept central in the rough boss around it; 0: none
  bool operator==(const Judgement&) const = default;

  double favour_of(Id surface) const;     ///< mm; 0: none
  void set_favour(Id surface, double by); ///< 0 takes it away
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

/// What a dimension measures.
enum class DimensionKind {
  size,          ///< diameter of round surface `surface`
  distance,      ///< between `surface` and `other` (planes, or axes), at a right angle to them
  edge_radius,   ///< full round of an edge between planes `surface` and `other`: half their distance
  corner_radius, ///< left in a corner by the cutter, whose own is `cutter`
  angle,         ///< between planes `surface` and `other`, or over a length `run`; radians
  length         ///< any other length
};

enum class DimensionClass { critical, fit, free, looks };
enum class DimensionSource { drawing, mate, chosen, borrowed, assumed };

/// What a dimension was before it was changed.
struct OldValue {
  std::string was; ///< as it was shown: "12 H7"
  std::string at;  ///< UTC, ISO 8601
  bool operator==(const OldValue&) const = default;
};

/// A dimension of a part's drawing, with its limits.
struct Dimension {
  Id part = 0;
  std::string name;
  DimensionKind kind = DimensionKind::length;
  Id surface = 0, other = 0;
  double nominal = 0;          ///< mm (angle: radians)
  double lower = 0, upper = 0; ///< deviations from the nominal, as `nominal`
  std::string tolerance;       ///< where the limits came from: "H7", "ISO 2768-m"; empty: typed
  DimensionClass importance = DimensionClass::free;
  DimensionSource source = DimensionSource::drawing;
  std::string reason;
  double capability = 0; ///< mm: the ± its maker can hold; 0: not stated
  double cutter = 0;     ///< mm: corner radius of the cutter (corner_radius)
  double run = 0;        ///< mm: length the angle is taken over (angle); 0: none
  double rise = 0;       ///< mm: what the drawing says it climbs over `run`; 0: does not say
  std::string sum;       ///< what it adds up from: "barrel + 2 x flange"; empty: nothing
  std::vector<OldValue> history;
  double order = 0;
  bool operator==(const Dimension&) const = default;

  double least() const { return nominal + lower; }
  double most() const { return nominal + upper; }
  /// Whether it has limits at all; one without is free: its joints, or a general tolerance, decide. The one
  /// rule for this, wherever it is asked.
  bool has_limits() const { return lower != 0 || upper != 0 || !tolerance.empty(); }
  /// Whether a size of `value` is within them; without limits every size is.
  bool allows(double value) const {
    return !has_limits() || (value >= least() - 1e-9 && value <= most() + 1e-9);
  }
};

/// What is toleranced of where a surface lies, beside its distances.
enum class Characteristic { position, coaxial, square, parallel };

/// A geometrical tolerance: how wide the zone is that a surface, or its axis, must lie in (ISO 1101).
struct GeometricTolerance {
  Id part = 0;
  Characteristic what = Characteristic::position;
  Id surface = 0;
  std::vector<Id> datums{}; ///< surfaces it is taken from, one to three
  double within = 0;        ///< mm: of position and coaxiality the diameter of the zone, else its width
  double order = 0;
  bool operator==(const GeometricTolerance&) const = default;
};

/// One of several readings of a bore or shaft.
struct PlaceReading {
  double depth = 0;     ///< mm from the end it is read from
  double direction = 0; ///< radians about the axis
  double value = 0;     ///< mm
  bool operator==(const PlaceReading&) const = default;
};

/// What a reading says of a size: that it is this, or only that it is below or above it (a gauge that did not
/// go, one that went and should not).
enum class Bound { exact, below, above };

/// A dimension as measured on a piece.
struct Measurement {
  Id piece = 0, dimension = 0;
  double value = 0; ///< mm (angle: radians), corrected; of several places the one that matters to its mate
  double uncertainty = 0; ///< mm, 95 %
  std::string instrument;
  std::string at;              ///< UTC, ISO 8601
  std::string read{};          ///< as it was typed, when the value is not simply that: "go 3.15 no-go 3.2"
  Id mate = 0, mate_piece = 0; ///< a comparison: the instrument was zeroed on that dimension of that piece
  double difference = 0;       ///< mm: then what it showed; `value` is the mate's size and this
  std::vector<PlaceReading> places{};
  double off_centre = 0; ///< mm: of one width read from two sides, half their difference; 0: not read so
  Bound bound = Bound::exact;
  bool operator==(const Measurement&) const = default;
};

/// How a part is cast.
struct Foundry {
  Id part = 0;
  std::string metal;           ///< a name in data/metals.csv
  std::string process;         ///< a name in data/casting_grades.csv
  int tolerance_grade = 11;    ///< ISO 8062-3 DCTG
  std::string allowance = "F"; ///< ISO 8062-3 RMAG
  double shrinkage = 0.01;     ///< of the metal, as the pattern is made for it: 0.01 = 1 %
  double draft = 0.026;        ///< radians, of the pattern's sides
  Vec3 draw = Vec3::UnitZ();   ///< direction the pattern is drawn out in, drawing frame
  bool own_pattern = false;    ///< the pattern is known: made with this shrinkage and draft; else only usual
  bool operator==(const Foundry&) const = default;
};

/// What a joint is for. In the order of data/joint_purposes.csv.
enum class JointPurpose {
  runs_freely,
  runs_true,
  slides,
  locates,
  slip_compound,
  light_press,
  press,
  shrink,
  spring_taper,
  bearing_housing,
  bearing_shaft,
  bolt_clearance,
  shoulder_clearance,
  key,
  tongue,
  thread
};

using PiecePair = std::pair<Id, Id>; ///< of the hole, and of the shaft

/// Two features that mate, and what the fit between them is for.
struct Joint {
  std::string name;
  JointPurpose purpose = JointPurpose::runs_freely;
  Id hole = 0, shaft = 0;                 ///< dimensions; a thread or a bolt's hole has no shaft
  double least = 0, most = 0;             ///< mm of clearance across (on the diameter); below 0: interference
  std::string basis;                      ///< where the limits came from: "ISO 286 H7/f7"; empty: typed
  std::string thread;                     ///< of a thread or bolt: "M6"
  double length = 0;                      ///< mm engaged; 0: not stated
  double hub_outside = 0, shaft_bore = 0; ///< mm; 0: not stated, solid
  double temperature = 20;                ///< °C at work
  bool comes_apart = false, through = false, looks = false;
  std::string method;           ///< how it is held, when that was decided: "press"
  std::vector<PiecePair> pairs; ///< which piece goes with which; empty: in order
  std::string reason;
  double order = 0;
  bool operator==(const Joint&) const = default;
};

/// How two pieces went together by hand, tightest first.
enum class Felt { will_not_start, jams, tight, push, slides, loose };

/// Two pieces of a joint tried in each other.
struct Trial {
  Id joint = 0, hole_piece = 0, shaft_piece = 0;
  Felt felt = Felt::jams;
  double depth = 0;           ///< mm it went in; of what went all the way the length engaged, where stated
  double hole = 0, shaft = 0; ///< mm: what they read then; 0: not read
  std::string note;
  std::string at; ///< UTC, ISO 8601
  double order = 0;
  bool operator==(const Trial&) const = default;
};

/// One link of a chain.
struct ChainTerm {
  Id dimension = 0, piece = 0; ///< piece 0: the part's first
  double coefficient = 1;
  std::string why; ///< where the coefficient is from: "against the way", "half the diameter", "2 x throw"
  bool operator==(const ChainTerm&) const = default;
};

/// A loop of dimensions that must close with a stated gap.
struct Chain {
  std::string name;
  std::vector<ChainTerm> terms;
  double least = 0, most = 0; ///< mm the gap may be
  std::string reason;
  double order = 0;
  bool operator==(const Chain&) const = default;
};

/// What the last of the metal over a surface is kept for.
enum class LastStep { none, ream, lap, trial };

/// How the metal over one surface of a piece is spent.
struct Allowance {
  Id piece = 0, surface = 0;
  Id machine = 0, tool = 0;
  double skin = 0.7;   ///< mm under the raw surface that must come off in the first cut
  double rough = 1.5;  ///< mm: most a roughing pass takes, a side
  double semi = 0;     ///< mm a side: before the finishing cut; 0: none
  double finish = 0.3; ///< mm a side: the finishing cut
  double last = 0;     ///< mm a side: left for reaming, lapping or fitting by trial
  LastStep last_step = LastStep::none;
  bool even = false;     ///< roughing passes all alike; else the first takes what the others leave
  bool batch = false;    ///< the same heights for every piece of the part
  double spare_end = 0;  ///< mm of trial metal at the end, faced away when the fit is made
  std::string announced; ///< the passes as they were announced: "0.1 + 0.15 + 0.04"; empty: none
  bool operator==(const Allowance&) const = default;
};

/// A cut taken, with what it was to leave and what it left.
struct Cut {
  Id piece = 0, surface = 0;
  double planned = 0;     ///< mm of metal a side the plan said would be left
  double left = 0;        ///< mm of metal a side measured; below 0: cut too deep
  double uncertainty = 0; ///< mm, 95 %
  std::string read;       ///< the reading as it was typed
  std::string note;
  std::string at; ///< UTC, ISO 8601
  double order = 0;
  Vec3 place = Vec3::Zero(); ///< mm, survey frame: on the face as cut (planes): it stays where it is when the
                             ///< seat moves
  bool operator==(const Cut&) const = default;
};

} // namespace datrin::build
