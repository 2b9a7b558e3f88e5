#pragma once
// Where a datum lies on a read-out, from touches with an edge finder: one side of a face, twice, or both
// sides of something round. Touches of one place that do not agree tell of a burr, a chip or something soft.
// mm, as the read-out counts.

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

/// A face: the mean of the last two touches, half the finder further on. A middle: half-way between the last
/// touches of either side, whatever the finder; `across` is what they are apart, the finder put on inside and
/// taken off outside. By what that is off the size that is known the touches are unsure, of a size not known
/// by as much as two may differ that agree.
Zero find_zero(const ZeroInput& input, const ZeroOptions& options = {});

} // namespace datrin::steps
