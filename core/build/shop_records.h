#pragma once
// The records of a shop: what parts are made from and what is left over of it, machines, tools, instruments,
// what is used up.

#include "build/id.h"
#include "geometry/pose.h"
#include "quantity/unit.h"

#include <string>
#include <vector>

namespace datrin::build {

/// What a part is made from.
enum class StockForm { casting, forging, round, square, hexagon, flat, plate, sheet, tube, block, bought };

/// What a part is made from, and where in it the part lies. A part without one is a casting.
struct Stock {
  Id part = 0;
  StockForm form = StockForm::round;
  Vec3 along = Vec3::UnitX();  ///< unit, drawing frame: of its length (of plate and sheet the longer side)
  Vec3 across = Vec3::UnitY(); ///< unit, square to it: of its width
  double width =
      0; ///< mm: diameter of round bar and tube, across the flats of square and hexagon, else the width
  double thick = 0;          ///< mm: of flat, plate, sheet and block
  double bore = 0;           ///< mm: of a tube
  double length = 0;         ///< mm: as sawn
  Vec3 shift = Vec3::Zero(); ///< mm along its length, its width and its thickness: how far its middle stands
                             ///< from the finished part's
  bool operator==(const Stock&) const = default;
};

/// A piece of bar, plate, sheet or tube left over, in the shop.
struct Offcut {
  StockForm form = StockForm::round;
  std::string material;
  double width = 0, thick = 0, bore = 0, length = 0; ///< mm, as of a Stock
  std::string note;
  double order = 0;
  bool operator==(const Offcut&) const = default;
};

/// A machine in the shop, and how its dial reads.
enum class MachineKind { not_stated, lathe, mill, drilling_machine, grinder, saw, bench };

struct Machine {
  std::string name;
  bool reads_diameter = false; ///< the dial moves by the diameter, twice what comes off the side
  Unit unit = Unit::mm;        ///< of the dial
  double resolution = 0.01;    ///< mm on the dial
  std::string note;            ///< quirks: "back gear reversed"
  double order = 0;
  MachineKind kind = MachineKind::not_stated;
  double spindle_bore = 0; ///< mm: what goes through its spindle; these 0: not stated
  double swing = 0;        ///< mm: the largest diameter that turns over its bed
  double reach = 0;        ///< mm: between centres, or from table to spindle
  double chuck = 0;        ///< mm: the largest its chuck grips outside, or how wide its vise opens
  double shank = 0;        ///< mm: the thickest tool it holds
  double cutting = 0;      ///< mm, a standard deviation: where a cut comes to lie on it; 0: as is usual
  double seating = 0;      ///< mm, the same: at a locator of what holds the work there
  std::string taper{};     ///< "MT3", "R8"
  std::string speeds{};    ///< rpm: "60 105 170 320 540"
  std::string site{};      ///< where it stands
  double travel = 0; ///< mm its table goes along, across, and its head or quill up: a mill's; 0: not stated
  double cross_travel = 0;
  double up_travel = 0;
  std::string reversed{}; ///< the axes that count the other way: X to the left, Y towards one, Z down: "X Z"
  double dial_turn = 0;   ///< mm one turn of a hand wheel moves; 0: it has a read-out
  double backlash = 0;    ///< mm of play in its screws; 0: not stated
  std::string read_out{}; ///< where a read-out that reads by itself is: "/dev/ttyUSB0", "localhost:7117"
  bool operator==(const Machine&) const = default;
};

enum class ToolKind {
  cutter,
  drill,
  reamer,
  ground_bar,
  gauge_pin,
  tap,
  end_mill,
  turning_tool,
  boring_bar,
  slitting_saw,
  broach,
  countersink,
  counterbore,
  parallel,
  gauge_block,
  angle_block, ///< size: its angle, degrees
  collet,
  steady,
  holder
};

/// What a tool made, beside what it should: its error log.
struct ToolMade {
  double wanted = 0, made = 0; ///< mm
  std::string at;              ///< UTC, ISO 8601
  bool operator==(const ToolMade&) const = default;
};

/// A cutting tool in the shop, or what serves as a size: ground bar, a gauge pin.
struct Tool {
  std::string name;
  double size = 0;      ///< mm across; 0: not stated
  double corner = 0;    ///< mm: corner radius
  double least_cut = 0; ///< mm: thinner than this it rubs
  double reach = 0;     ///< mm; 0: not stated
  std::string note;
  double order = 0;
  ToolKind kind = ToolKind::cutter;
  double shank = 0;       ///< mm; 0: not stated
  double point_angle = 0; ///< radians, of a drill; 0: not stated
  std::string thread{};   ///< of a tap
  std::vector<ToolMade> made{};
  double price = 0; ///< in the money of the shop; 0: not stated
  int edges = 0;    ///< cutting edges one gets for it; 0: not stated
  bool operator==(const Tool&) const = default;
};

enum class SupplyKind { fastener, consumable, to_buy };

/// Fasteners on hand, what is used up, what is to be bought.
struct Supply {
  std::string name; ///< "M5 × 16 hexagon", "cutting oil"
  SupplyKind kind = SupplyKind::fastener;
  double length = 0; ///< mm, of a fastener under its head; 0: not stated
  bool hardened = false;
  int count = 0;
  std::string note{};
  double order = 0;
  double price = 0; ///< in the money of the shop; 0: not stated
  int edges = 0;    ///< cutting edges one gets for it, of what cuts; 0: none
  bool operator==(const Supply&) const = default;
};

/// A measuring instrument in the shop.
struct Instrument {
  std::string name;
  double resolution = 0.01;  ///< mm
  double uncertainty = 0.01; ///< mm, 95 %, of one reading
  double zero = 0;           ///< mm it shows when it should show 0
  double temperature = 20;   ///< °C
  std::string note;
  double order = 0;
  bool operator==(const Instrument&) const = default;
};

} // namespace datrin::build
