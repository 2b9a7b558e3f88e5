#pragma once
// The points of a scan given to the surfaces they belong to, and where the scan lies to the drawing.
//
// The scan is laid on the drawing by trying how it may lie (its own axes and its principal axes, turned in
// all 24 ways onto those of the drawing), each improved by giving a sample of points to their nearest
// surfaces and placing the part by least squares, in turn (iterative closest point: P. J. Besl, N. D. McKay,
// 1992). Then every point goes to the surface it lies nearest to; one that lies far from all, or about as
// near to two, is doubtful and given to none.

#include "casting/seat_input.h"

#include <array>
#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace datrin::casting {

struct ScanInput {
  std::vector<SeatSurface> surfaces;
  std::vector<Eigen::Vector2d>
      extent; ///< per surface: width and height of a plane, (0, length) of a round one
  const std::vector<std::array<float, 3>>* points = nullptr; ///< mm, scan frame
  std::optional<Pose> start; ///< scan frame → drawing frame, where it is known roughly
};

struct ScanOptions {
  double reach = 4.5; ///< mm: a point further than this off every surface belongs to none
  double apart = 0.5; ///< mm: two surfaces must differ by this for a point to be given
  int sample = 500;   ///< points used to lay the scan on the drawing
  std::function<bool()> should_stop;
};

enum class ScanStatus { not_run, assigned, no_fit, stopped, refused };

struct ScanResult {
  ScanStatus status = ScanStatus::not_run;
  std::string message;
  Pose pose;                          ///< scan frame → drawing frame
  std::vector<std::uint16_t> surface; ///< per point: index into surfaces; 0xFFFF: given to none
  std::size_t given = 0, doubtful = 0, elsewhere = 0; ///< counts; elsewhere: far from every surface
  double spread = 0; ///< mm: median distance of the sample from its surfaces' own middle
};

ScanResult assign_scan(const ScanInput& input, const ScanOptions& options = {});

} // namespace datrin::casting
