#pragma once
// The records of a route: the setups of a part, the operations done in them, and how far a piece is.

#include "build/id.h"
#include "geometry/pose.h"

#include <string>
#include <vector>

namespace datrin::build {

/// What holds the part in a setup.
enum class Workholding {
  not_stated,
  vise,
  soft_rod, ///< vise, a soft rod at the moving jaw
  three_jaw,
  four_jaw,
  six_jaw,
  collet,
  faceplate,
  mandrel,
  stub, ///< a stub turned to fit, left in the chuck
  centres,
  v_blocks,
  angle_plate,
  clamps, ///< on the table
  fixture,
  tape ///< double-sided, or glued
};

/// A way a part is held while surfaces of it are machined.
struct Setup {
  Id part = 0;
  std::string name;
  std::vector<Id> datums; ///< surfaces it is located from: three targets, two, one
  std::vector<Id> cuts;   ///< surfaces finished in it
  std::vector<Id> sizes;  ///< dimensions to be measured before it is unclamped
  std::vector<Id> marks;  ///< surfaces cut or scribed in it only as references for later setups
  double order = 0;
  Id machine = 0;
  Workholding holding = Workholding::not_stated;
  double grip = 0;         ///< mm of it held; 0: not stated
  double overhang = 0;     ///< mm it stands out of what holds it; 0: not stated
  std::string packing{};   ///< parallels, shims, spacers
  Vec3 way = Vec3::Zero(); ///< drawing frame, out of the part: the tool comes against it; zero: by the datums
  bool stop = false;       ///< against a stop: each piece comes to the same place
  bool operator==(const Setup&) const = default;
};

/// A piece was taken out of a setup.
struct Release {
  Id piece = 0, setup = 0;
  std::string at;      ///< UTC, ISO 8601
  std::string missing; ///< what was not there, when it was released all the same
  std::string left{};  ///< what was left on the machine: "vise trammed, stop set"
  bool operator==(const Release&) const = default;
};

/// Where a person stands at the machine with a piece in a setup: found again after weeks.
struct BenchPlace {
  Id piece = 0, setup = 0;
  std::string step;   ///< the key of the step it stands at
  std::string passed; ///< keys of the steps behind it that leave no other trace, parted by spaces
  std::string dials;  ///< what dials and read-out showed, what stands on the machine, as it was left
  double finder = 0;  ///< mm across the edge finder in the spindle; 0: not said
  double block = 0;   ///< mm: what lies between tool and work when Z is set
  std::string at;     ///< UTC, ISO 8601
  bool operator==(const BenchPlace&) const = default;
};

/// An axis of a machine, as a person stands before it.
enum class MachineAxis { x, y, z };

/// Where a datum was found along an axis in a setup of a piece. The last that is not lost holds.
struct BenchZero {
  Id piece = 0, setup = 0;
  MachineAxis axis = MachineAxis::x;
  Id datum = 0;              ///< the surface it was found on; 0: none that is drawn
  Id operation = 0;          ///< of Z: with whose tool; every tool is as long as it is
  std::string touches;       ///< what was read at each touch, mm, parted by spaces, in order
  std::string other_touches; ///< the same on the other side, of what has a middle
  bool both_axes = false;    ///< at each touch X and Y are read: it lies askew, or is touched round about
  std::string across;        ///< then: what the other of the two axes read at each
  double turn = 0;           ///< radians it lies turned, counter-clockwise as the tool sees it
  double finder = 0;         ///< mm across, at the touches
  double shows = 0;          ///< mm the read-out shows at the datum
  double uncertainty = 0;    ///< mm, ± 95 %
  bool found = false;        ///< the touches are enough, and agree
  bool lost = false;         ///< given up since
  std::string at;            ///< UTC, ISO 8601
  std::string checked;       ///< when a touch last said that it still holds; empty: not since
  bool operator==(const BenchZero&) const = default;
};

/// What is done to a pressed crank to bring it true.
enum class CrankMove {
  none,        ///< nothing: within the limit
  open,        ///< a wedge between the webs, opposite the pin
  close,       ///< the webs pressed together, opposite the pin
  twist_right, ///< the right web struck so that its shaft moves the way across it lies less
  press_anew   ///< what is left is in the pressing
};

/// A crank read on both sides, and what was done to it then. The next one says what came of it.
struct CrankRound {
  Id piece = 0;
  std::string left, right;          ///< beside each web, "0:0.02 90:0.05 …": degrees from the pin, mm
  bool bore = false;                ///< read in a bore
  double shaft = 0;                 ///< mm from web to outer end
  double rim = 0;                   ///< mm from the pin to where the webs are opened or closed; 0: not said
  double limit = 0;                 ///< mm of runout at which one stops
  CrankMove move = CrankMove::none; ///< done after these readings
  double wanted = 0;                ///< mm it should have done
  std::string note;
  std::string at; ///< UTC, ISO 8601
  double order = 0;
  bool operator==(const CrankRound&) const = default;
};

/// What is done in an operation. Ladders go up in this order: a hole is drilled, bored, reamed, tapped.
enum class OperationKind {
  face,
  turn,
  mill,
  slit,
  drill,
  bore,
  ream,
  tap,
  broach,
  file,
  grind,
  lap,
  press,
  trial,    ///< fitted to its mate by trial
  transfer, ///< spotted through its mate
  mark,     ///< scribed, popped
  deburr,
  wait, ///< paint, glue, the post
  sent_out
};

/// A rule of the trade that was set aside for one operation, and why.
struct SetAside {
  Id before = 0; ///< the operation it should have waited for
  std::string reason;
  bool operator==(const SetAside&) const = default;
};

/// A step of making a part.
struct Operation {
  Id part = 0;
  std::string name; ///< empty: by what it does and to what
  OperationKind kind = OperationKind::mill;
  Id setup = 0;             ///< 0: in none: on the bench
  std::vector<Id> surfaces; ///< it makes
  std::vector<Id> bodies;   ///< it makes that are no surfaces: holes of a pattern, slots, marks
  Id tool = 0;              ///< of the shop
  double size = 0;          ///< mm across the tool it wants; 0: not stated
  double minutes = 0;       ///< for one piece
  std::vector<Id> after;    ///< operations a person wants before it
  std::vector<SetAside> set_aside;
  std::vector<Id> needs; ///< parts made in the shop for it: fixture, jig, gauge, form tool
  std::string until;     ///< of waiting, or work sent out: the day it is back, "2026-12-04"
  std::string deferred;  ///< what is still to be decided, and how it is left until then; empty: nothing
  std::string note;
  double order = 0;
  bool operator==(const Operation&) const = default;
};

/// How a fixture, a jig or a holder takes hold of a part.
enum class LocatorKind {
  pad,     ///< a flat it lies on, or is pushed against
  pin,     ///< in a hole of it
  nest,    ///< an opening it lies in, round or between two cheeks
  v_block, ///< round it, whatever its size
  collet,  ///< closes on it
  stop     ///< what keeps it from turning, at the end of an arm
};

/// One place where a fixture takes hold of the part it is made for.
struct Locator {
  Id fixture = 0; ///< a part of the build
  Id surface = 0; ///< of the part it holds
  LocatorKind kind = LocatorKind::pin;
  double size = 0;   ///< mm: across the pin, the nest, the open collet; 0: not stated
  double closes = 0; ///< mm the collet closes below that
  double arm = 0;    ///< mm from what it turns about to where the stop holds it
  double order = 0;
  bool operator==(const Locator&) const = default;
};

/// A fixture, jig or gauge was tried before good pieces went in.
struct Proof {
  Id fixture = 0;
  Id piece = 0;      ///< a reject, or a piece for practice; 0: a bit of scrap
  double off = 0;    ///< mm: how far what came out was off; 0: not read
  bool good = false; ///< good enough to put a good piece in
  std::string note;
  std::string at; ///< UTC, ISO 8601
  bool operator==(const Proof&) const = default;
};

/// An operation was done on a piece.
struct OperationDone {
  Id piece = 0, operation = 0;
  std::string at; ///< UTC, ISO 8601
  std::string note;
  bool operator==(const OperationDone&) const = default;
};

} // namespace datrin::build
