#pragma once
// Where a datum lies on a read-out, from touches with an edge finder: one side of a face, twice; both sides
// of what has a middle; three places and more round something round; two of either edge of what lies askew.
// Touches of one place that do not agree tell of a burr, a chip or something soft. mm, as the read-out
// counts.

#include "geometry/surface.h"

#include <array>
#include <string>
#include <vector>

namespace datrin::steps {

struct ZeroInput {
  std::vector<double> touches; ///< of the face, or of the side met first
  std::vector<double> other;   ///< of the other side; empty for a face
  bool both_sides = false;     ///< of something round: its middle is sought
  bool inside = false;         ///< of both sides: a bore; else a boss
  double size = 0;             ///< mm across by what it measured; 0: not known
  double towards = 0;          ///< of a face: +1 the spindle moved up the scale to meet it, −1 down it
  double finder = 0;           ///< mm across
  double resolution = 0.01;    ///< of the read-out
};

struct ZeroOptions {
  /// Two touches of a place further apart are no zero: a burr alone is 0.5 to 0.75 mm (common practice), a
  /// clean edge found twice with one finder agrees within this.
  double agree = 0.02;
};

enum class ZeroStatus {
  not_enough, ///< another touch is wanted
  apart,      ///< the last two of one place do not agree
  found,
  refused
};

struct Zero {
  ZeroStatus status = ZeroStatus::not_enough;
  std::string message;
  double shows = 0;       ///< what the read-out shows where the datum is under the spindle
  double apart = 0;       ///< the last two touches
  double uncertainty = 0; ///< 95 %: of the touches beside each other, and of the last figure
  double across = 0;      ///< of two sides: how far they are apart by the touches, the finder put on or off
  bool found() const { return status == ZeroStatus::found; }
};

/// Something round touched at places round it, in the plane of the machine: X right, Y away.
struct RoundInput {
  std::vector<Vec2> touches; ///< where the spindle stood
  bool inside = false;       ///< a bore; else a boss
  double size = 0;           ///< mm across by what it measured; 0: not known
  double finder = 0;         ///< mm across
  double resolution = 0.01;  ///< of the read-out
};

struct Middle {
  ZeroStatus status = ZeroStatus::not_enough;
  std::string message;
  Vec2 shows = Vec2::Zero();
  double across = 0;      ///< by the touches
  double off = 0;         ///< of more than three touches: the one farthest off one circle
  double uncertainty = 0; ///< 95 %
  bool found() const { return status == ZeroStatus::found; }
};

/// Two faces at a right angle of a part that lies askew, two touches of each, in the plane of the machine.
struct AskewInput {
  std::array<Vec2, 2> on_x, on_y;    ///< of the face that would look along X if it lay straight; along Y
  double sense_x = 1, sense_y = 1;   ///< the way each would look: +1 up the axis, −1 down it
  double finder_x = 0, finder_y = 0; ///< mm across, at the touches of either
  double resolution = 0.01;
};

struct Corner {
  ZeroStatus status = ZeroStatus::not_enough;
  std::string message;
  Vec2 shows = Vec2::Zero(); ///< where the faces meet
  double turn = 0;           ///< radians it lies turned, counter-clockwise from X to Y
  double apart = 0;          ///< mm a touch is off, were the faces at a right angle
  double uncertainty = 0;    ///< 95 %, at the corner
  double turn_within = 0;    ///< 95 %, radians: so much for every mm away from it
  bool found() const { return status == ZeroStatus::found; }
};

/// A face: the mean of the last two touches, half the finder further on. A middle: half-way between the last
/// touches of either side, whatever the finder; `across` is what they are apart, the finder put on inside and
/// taken off outside. By what that is off the size that is known the touches are unsure, of a size not known
/// by as much as two may differ that agree.
Zero find_zero(const ZeroInput& input, const ZeroOptions& options = {});

/// The middle of the circle through them, of the least squares of more than three. Of three nothing says
/// whether they agree but the size, where that is known.
Middle find_middle(const RoundInput& input, const ZeroOptions& options = {});

/// Each face turned by its own touches, the longer way counting for more; what the two turns differ by is a
/// burr, or no right angle. No more than 45° of turn: it would be the other face.
Corner find_corner(const AskewInput& input, const ZeroOptions& options = {});

} // namespace datrin::steps
