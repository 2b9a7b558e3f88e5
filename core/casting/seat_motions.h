#pragma once
// The motions the levels of a seat's search still allow: an orthonormal basis of them, how far each may go,
// and the touches that pressed at earlier levels, whose margins must stay what they were (pins).

#include "casting/seat_groups.h"
#include "casting/seat_polish.h"
#include "casting/seat_start.h"
#include "geometry/solve.h"
#include "margin/linear_margins.h"

#include <utility>
#include <vector>

namespace datrin::casting {

class AllowedMotions {
public:
  /// `groups` and `start` outlive this.
  AllowedMotions(const std::vector<Group>& groups, const SeatStart& start) : groups_(groups), start_(start) {}

  /// From now on these, each so far in all (mm; no_margin: without limit).
  void allow(const Motions& motions, const Vector& radius);

  const Motions& basis() const { return basis_; }
  Eigen::Index count() const { return basis_.cols(); }
  bool limited(Eigen::Index j) const; ///< motion `j` may go only so far
  bool any_limited() const;
  /// Whether `motion` more keeps within how far each may go.
  bool may_go(const Vector& motion, double tolerance) const;

  /// What a step of at most `reach` mm along each may be, put into `linear`.
  void bound(margin::LinearMargins& linear, double reach) const;

  /// The pose `y` further in the basis from `from`, with the pinned margins put right.
  Pose moved_by(const Pose& from, const Vector& y) const;
  /// The motion from `from` to `to`, in the basis. Good for small motions.
  Vector motion_to(const Pose& from, const Pose& to) const;
  /// The part is now at `to`, `motion` further.
  void went(const Pose& to, const Vector& motion);

  /// After a step that gained little: turns the basis so that along motions the margins bend (`flat`) the
  /// next step is as short as the bend asks, and along straight ones it stays long. Without it the search
  /// creeps where a straight motion gains slowly beside a bent one.
  void turn_to(const FlatMotions& flat, double promised);

  // --- Pins

  void pin(const RowRef& row, double margin) { pins_.emplace_back(row, margin); }
  bool pinned() const { return !pins_.empty(); }
  /// `pose`, put right where a motion that kept the pinned margins to first order changed them to second: by
  /// the smallest motion, in all directions some margin feels.
  Pose restored(Pose pose) const;
  /// The motions allowed, turned with the pinned touches' rates at `pose` so that they still change none of
  /// them.
  Motions basis_at(const Pose& pose) const;
  /// What the pinned touches must press for `presses` to be in balance in all directions.
  std::vector<PressingRow> pin_prices(const std::vector<PressingRow>& presses, const Pose& pose) const;

private:
  Vec6 rate_of(const RowRef& row, const Pose& pose) const;
  Vec6 in_space(const Vector& y) const;     ///< the six components of a motion in the basis
  Matrix pin_rates(const Pose& pose) const; ///< a column each

  const std::vector<Group>& groups_;
  const SeatStart& start_;
  Motions basis_;
  Vector radius_; ///< mm: how far each may go in all at this level
  Vector gone_;   ///< mm: how far it has gone
  Vector wary_;   ///< mm: how far a single step may go along it, where the margins bend
  std::vector<std::pair<RowRef, double>> pins_;
};

} // namespace datrin::casting
