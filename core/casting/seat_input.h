#pragma once
// The inputs of a seat, and the margins at any given pose (for dragging the part by hand).

#include "geometry/surface.h"

#include <limits>
#include <string>
#include <vector>

namespace datrin::casting {

struct SeatSurface {
  std::string id;
  Surface shape;        ///< drawing frame
  bool machined = true; ///< false: as cast
  double required = 0;  ///< mm of stock every touch must have (machined surfaces only)
  double favour = 0;    ///< mm of room it is to have before any other has some: its margin counts less this
  bool from_solid = false; ///< nothing of it is there to be touched: it is asked for no touches
};

struct SeatPoint {
  int surface = -1;        ///< index into SeatInput::surfaces
  Vec3 xyz = Vec3::Zero(); ///< survey frame, mm, on the metal (tip radius already taken off)
  double uncertainty = 0;  ///< mm, 95 %; taken off the margin
};

struct SeatWall {
  int from = -1, to = -1; ///< as-cast surface touched → finished surface the wall stands over
  double least = 0;       ///< mm
};

struct SeatInput {
  std::vector<SeatSurface> surfaces;
  std::vector<SeatPoint> points;
  std::vector<SeatWall> walls;
};

/// Empty when `input` keeps the rules; else one sentence naming the entry and the rule (indices count from
/// 0).
std::string validate(const SeatInput& input);

inline constexpr double no_margin = std::numeric_limits<double>::infinity();

/// One machined surface or one wall at a pose. For a wall, stock_least/most are the wall's thickness and
/// `required` the least it must keep.
struct GroupMargin {
  int surface = -1;     ///< the surface touched (for a wall: `from`)
  int wall = -1;        ///< index into SeatInput::walls, −1 for a surface's stock
  int touches = 0;      ///< 0: nothing known, margin is infinite
  int least_point = -1; ///< the touch with the least margin
  double stock_least = no_margin, stock_most = -no_margin;
  double required = 0;
  double margin = no_margin;
  double weighed = no_margin; ///< margin less what the surface is favoured by; the same for a wall
  bool limiting = false;      ///< within SeatOptions::limiting_within of the least of all
};

struct SeatMargins {
  double least = no_margin; ///< mm
  double least_weighed =
      no_margin; ///< what a seat makes as large as it can be; `least` where none is favoured
  std::vector<GroupMargin> groups; ///< machined surfaces in input order, then walls in input order
};

/// Margins of `input` at `pose`, in one pass over the touches.
SeatMargins margins_at(const SeatInput& input, const Pose& pose, double limiting_within = 1e-6);

/// Stock of every touch over its own surface at `pose` (as-cast surfaces too), in input order, mm.
std::vector<double> stocks_at(const SeatInput& input, const Pose& pose);

} // namespace datrin::casting
