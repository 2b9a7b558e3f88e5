#include "casting/seat.h"

#include "casting/seat_groups.h"
#include "casting/seat_holds.h"
#include "casting/seat_motions.h"
#include "casting/seat_polish.h"
#include "casting/seat_rows.h"
#include "casting/seat_start.h"
#include "margin/least.h"
#include "margin/nearest.h"
#include "quantity/unit.h"

#include <Eigen/Geometry>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::casting {
namespace {

constexpr double give = 1e-6;          // mm: what a level may lose again for the sake of the next
constexpr double pressing = 1e-7;      // a share above this holds
constexpr double without_limit = 1e7;  // mm: "without limit"
constexpr std::size_t rows_kept = 160; // a programme that outgrows this drops what does not press

/// A solution of a programme as what a basis of motions is multiplied by.
Eigen::Matrix<double, Eigen::Dynamic, 1, 0, 6, 1> bounded(const Vector& x) {
  return x;
}

/// An orthonormal basis of the same motions that holds moving along and turning about x, y, z themselves
/// where they are among them: "as little as possible" is then counted in motions a person would make.
Motions along_axes(const Motions& basis) {
  Motions aligned(6, basis.cols());
  for (Eigen::Index j = 0; j < basis.cols(); ++j) {
    Vec6 best = Vec6::Zero();
    for (int axis = 0; axis < 6; ++axis) { // what of the axis lies in the motions and in none chosen yet
      Vec6 part = basis * basis.row(axis).transpose();
      for (Eigen::Index i = 0; i < j; ++i) part -= aligned.col(i) * aligned(axis, i);
      if (part.norm() > best.norm() + 1e-9) best = part;
    }
    aligned.col(j) = best.normalized();
  }
  return aligned;
}

/// The search, one level after the other. Margins are linearised at pose_ in the motions still allowed.
class Search {
public:
  Search(const SeatInput& input, const SeatOptions& options) : input_(input), options_(options) {}

  SeatResult run() {
    groups_ = make_groups(input_);
    result_.pose = options_.start;
    if (groups_.empty()) {
      result_.status = SeatStatus::undetermined;
      result_.message =
          "no machined surface and no wall has a touch: touch the surfaces that are to be machined";
      return finish();
    }
    begin();
    if (start_.held.cols() == 0) { // every motion that could help is locked: it stays where it is
      result_.status = SeatStatus::seated;
      result_.pose = pose_;
      return finish();
    }
    while (std::find(held_.begin(), held_.end(), 0) != held_.end()) {
      const auto outcome = climb();
      if (outcome == Outcome::stopped) {
        result_.status = SeatStatus::stopped;
        result_.message = "stopped before the best seat was found";
        result_.pose = pose_;
        return finish();
      }
      if (outcome == Outcome::failed) return finish();
      if (outcome == Outcome::unbounded) {
        const auto ways = growing_motions(groups_, pose_, start_, way_out_);
        result_.undetermined.insert(result_.undetermined.end(), ways.begin(), ways.end());
        if (level_ == 0) {
          result_.status = SeatStatus::undetermined;
          result_.message =
              "nothing limits the least margin: touch the surfaces opposite those touched so far";
          return finish();
        }
        break;
      }
      if (level_ == 0) first_ = presses_;
      hold_what_presses();
      ++level_;
    }
    settle();
    result_.status = SeatStatus::seated;
    result_.pose = pose_;
    return finish();
  }

private:
  enum class Outcome { converged, unbounded, stopped, failed };

  void begin() {
    start_ = least_squares_start(input_, groups_, options_.start, options_.locked);
    result_.centre = start_.centre;
    sort_into_buckets(groups_, start_.pose);
    pose_ = start_.pose;
    reach_ = 0.2 * start_.size;
    motions_.allow(start_.held, Vector::Constant(start_.held.cols(), no_margin));
    result_.undetermined = name_motions(start_.free, start_.size);
    held_.assign(groups_.size(), 0);
    floors_.assign(groups_.size(), 0.0);
    sweep(groups_, pose_, now_);
    rows_.add_worst(now_);
  }

  SeatResult finish() {
    result_.margins = margins_at(input_, result_.pose, options_.limiting_within);
    if (result_.status == SeatStatus::seated) {
      if (!first_.empty())
        result_.held_by =
            balanced_holds(input_, groups_, first_, pose_, start_.centre, start_.size, options_.locked);
      if (!first_.empty())
        result_.check = check_seat(input_, result_.pose, result_.margins.least_weighed, result_.held_by,
                                   {.locked = options_.locked, .centre = start_.centre});
    }
    result_.rows = static_cast<int>(rows_.size());
    return std::move(result_);
  }

  void keep_rows(std::vector<RowRef> kept) {
    rows_.keep_only(std::move(kept));
    warm_.clear();
  }

  void drop_idle_rows(const margin::LeastResult& solved) {
    if (rows_.size() <= rows_kept) return;
    std::vector<RowRef> kept;
    for (const auto& row : rows_.pressing(solved, 0)) kept.push_back(row.row);
    keep_rows(std::move(kept));
    rows_.add_worst(now_);
  }

  const Group& group_of(const RowRef& row) const { return groups_[static_cast<std::size_t>(row.group)]; }
  RowGradient gradient_of(const RowRef& row) const {
    return row_gradient(group_of(row), row.at, pose_, start_.centre, start_.size);
  }

  margin::LinearMargins linearised(double reach) const {
    margin::LinearMargins linear(static_cast<int>(motions_.count()));
    for (const auto& row : rows_.all()) {
      const auto g = gradient_of(row);
      linear.add_row(row.group, g.margin, Vector(motions_.basis().transpose() * g.rate));
    }
    motions_.bound(linear, reach);
    return linear;
  }

  /// Goes to `pose`, which lies `motion` further in the basis.
  void go(const Pose& pose, const Vector& motion) {
    pose_ = pose;
    motions_.went(pose, motion);
    std::swap(now_, then_);
  }

  double target_of(std::size_t group, double least) const { return held_[group] ? floors_[group] : least; }

  /// What the climb makes larger: the least free margin, less a price on what is held falling below its
  /// floor.
  double merit(const Sweep& at) const {
    double short_by = 0;
    for (std::size_t g = 0; g < groups_.size(); ++g)
      if (held_[g]) short_by += std::max(0.0, floors_[g] - at.group_margin[g]);
    return least_free(at) - price_ * short_by;
  }

  double least_free(const Sweep& at) const {
    double least = no_margin;
    for (std::size_t g = 0; g < groups_.size(); ++g)
      if (!held_[g]) least = std::min(least, at.group_margin[g]);
    return least;
  }

  // --- One level
  // ------------------------------------------------------------------------------------------------

  /// Solves the programme at pose_, adding touches the step would violate until none is left out.
  bool solve_step(double reach, margin::LeastResult& solved) {
    for (int round = 0; round < 80; ++round) {
      linear_ = linearised(reach);
      solved = solver_.solve({&linear_, held_, floors_, warm_}, {price_});
      ++result_.programmes;
      if (!solved.usable()) return false;
      warm_ = solved.basic;
      if (price_ < 1e6 && too_cheap(solved)) {
        price_ *= 10;
        continue;
      }
      trial_ = motions_.moved_by(pose_, solved.x);
      sweep(groups_, trial_, then_);
      bool added = false;
      for (const auto& worst : then_.worst)
        for (const auto& w : worst) {
          const double target = target_of(static_cast<std::size_t>(w.row.group), solved.least);
          if (w.margin >= target || rows_.holds(w.row)) continue;
          const auto row = gradient_of(w.row);
          if (row.margin + row.rate.dot(motions_.basis() * bounded(solved.x)) < target - 1e-10)
            added = rows_.add(w.row) || added;
        }
      if (!added) break;
    }
    return true;
  }

  bool too_cheap(const margin::LeastResult& solved) const {
    const auto dear = rows_.pressing(solved, 0.9 * price_);
    return std::any_of(dear.begin(), dear.end(),
                       [&](const auto& row) { return held_[static_cast<std::size_t>(row.row.group)]; });
  }

  Outcome climb() {
    bool asked_unbounded = false;
    double last_promise = no_margin;
    reach_ = std::max(reach_, 0.05 * start_.size);
    for (int step = 0; step < options_.most_steps; ++step) {
      if (options_.should_stop && options_.should_stop()) return Outcome::stopped;
      margin::LeastResult solved;
      if (!solve_step(reach_, solved)) {
        result_.status = SeatStatus::failed;
        result_.message = solved.message;
        return Outcome::failed;
      }
      presses_ = rows_.pressing(solved, pressing);
      if (!asked_unbounded && at_reach(solved)) {
        asked_unbounded = true;
        if (unbounded()) return Outcome::unbounded;
      }
      const double current = merit(now_);
      const double promised = solved.least - price_ * shortfall_of(solved) - current;
      last_promise = promised;
      if (promised < options_.tolerance) {
        try_polish(solved.least); // for exact prices; the place is good already
        return Outcome::converged;
      }
      const double gained = merit(then_) - current;
      const double length = solved.x.cwiseAbs().maxCoeff();
      if (gained > 0.05 * promised) {
        go(trial_, solved.x);
        if (gained > 0.7 * promised)
          reach_ = std::min(std::max(reach_, 3 * length), start_.size);
        else if (gained < 0.25 * promised)
          reach_ = 0.5 * length;
      } else {
        reach_ = 0.25 * length;
      }
      if (try_polish(solved.least)) return Outcome::converged;
      if (gained < 0.5 * promised && motions_.count() >= 2 && !motions_.any_limited())
        motions_.turn_to(find_flat(polish_input(solved.least), {}), promised);
      drop_idle_rows(solved);
      if (reach_ < 1e-9) return Outcome::converged;
    }
    // Creeping, but near: the check says how near. Later levels are never worth losing the first for.
    if (level_ > 0 || last_promise < 1e-4) return Outcome::converged;
    result_.status = SeatStatus::failed;
    result_.message = "the search did not settle";
    return Outcome::failed;
  }

  /// Whether the step ended at the reach allowed, where no radius stops it anyway.
  bool at_reach(const margin::LeastResult& solved) const {
    for (Eigen::Index j = 0; j < solved.bound_multipliers.size(); ++j)
      if (std::abs(solved.bound_multipliers[j]) > pressing && !motions_.limited(j)) return true;
    return false;
  }

  double shortfall_of(const margin::LeastResult& solved) const {
    std::vector<double> least(groups_.size(), no_margin);
    for (int i = 0; i < linear_.rows(); ++i) {
      auto& l = least[static_cast<std::size_t>(linear_.group(i))];
      if (held_[static_cast<std::size_t>(linear_.group(i))]) l = std::min(l, linear_.value(i, solved.x));
    }
    double sum = 0;
    for (std::size_t g = 0; g < groups_.size(); ++g)
      if (held_[g]) sum += std::max(0.0, floors_[g] - least[g]);
    return sum;
  }

  PolishInput polish_input(double least) const {
    PolishInput input;
    input.groups = &groups_;
    input.pose = pose_;
    input.centre = start_.centre;
    input.size = start_.size;
    input.basis = motions_.basis();
    input.pressing = presses_;
    input.pins = motions_.pin_prices(presses_, pose_);
    input.held = held_;
    input.floors = floors_;
    input.least = least;
    input.most_move = 0.1 * start_.size;
    return input;
  }

  /// Newton from here with what presses in the last programme. Taken when it ends at an optimum no other
  /// touch objects to; touches that object join the next programme.
  bool try_polish(double least) {
    auto input = polish_input(least);
    auto polished = polish(input);
    for (int round = 0; round < 6 && polished.converged && motions_.pinned(); ++round) {
      // Newton keeps to the motions allowed; what it changed of the pinned margins is put right, and Newton
      // asked again.
      const Pose before = polished.pose;
      input.pose = motions_.restored(polished.pose);
      input.basis = motions_.basis_at(input.pose);
      input.pins = motions_.pin_prices(polished.pressing, input.pose);
      input.least = polished.least;
      polished = polish(input);
      if ((polished.pose.translation - before.translation).norm() < 1e-10) break;
    }
    if (!polished.converged) return false;
    const Vector motion = motions_.motion_to(pose_, polished.pose);
    if (!motions_.may_go(motion, 1e-9)) return false;
    sweep(groups_, polished.pose, then_);
    bool objected = false;
    for (const auto& worst : then_.worst)
      for (const auto& w : worst)
        if (w.margin < target_of(static_cast<std::size_t>(w.row.group), polished.least) - 1e-9) {
          objected = true;
          rows_.add(w.row);
        }
    if (objected) return false;
    go(polished.pose, motion);
    presses_ = polished.pressing;
    return !climbs_further(polished.least);
  }

  /// At a saddle (walls bend the other way) a step aside along a flat motion gains: takes it.
  bool climbs_further(double least) {
    const auto flat = find_flat(polish_input(least), {});
    for (Eigen::Index j = 0; j < flat.bend.size(); ++j) {
      if (flat.bend[j] < 1e-7) continue;
      for (const double step : {0.1, -0.1}) {
        const Vector y = step * motions_.basis().transpose() * flat.motions.col(j);
        if (!motions_.may_go(y, 0)) continue;
        trial_ = motions_.moved_by(pose_, y);
        sweep(groups_, trial_, then_);
        if (merit(then_) < merit(now_) + 1e-9) continue;
        go(trial_, y);
        reach_ = 0.05 * start_.size;
        return true;
      }
    }
    return false;
  }

  /// Holds the groups that press at the level just reached, and leaves the next level what can move without
  /// loss: straight motions freely, bent ones as far as `give` allows.
  void hold_what_presses() {
    const double level = least_free(now_);
    const auto here = polish_input(level); // with the pins of the levels before
    std::vector<double> press(groups_.size(), 0.0);
    for (const auto& row : presses_) {
      press[static_cast<std::size_t>(row.row.group)] += row.price;
      motions_.pin(row.row, gradient_of(row.row).margin);
    }
    bool any = false;
    for (std::size_t g = 0; g < groups_.size(); ++g)
      if (!held_[g] && press[g] > pressing) {
        held_[g] = 1;
        floors_[g] = level - 1e-9;
        any = true;
      }
    if (!any) std::fill(held_.begin(), held_.end(), 1); // nothing presses: there is nothing left to gain
    last_level_ = level;

    std::vector<int> shut; // what was bent at an earlier level has spent its allowance
    for (int j = 0; j < motions_.count(); ++j)
      if (motions_.limited(j)) shut.push_back(j);
    const auto flat = find_flat(here, shut);
    Vector radius = Vector::Constant(flat.bend.size(), no_margin);
    const double bent = static_cast<double>((flat.bend.array() < -1e-9).count());
    for (Eigen::Index j = 0; j < radius.size(); ++j)
      if (flat.bend[j] < -1e-9) radius[j] = std::sqrt(2 * give / (bent * -flat.bend[j]));
    if (bent > 0) // going along a bend costs what is held; it may
      for (std::size_t g = 0; g < groups_.size(); ++g)
        if (held_[g] && press[g] > pressing) floors_[g] = level - give;
    motions_.allow(flat.motions, radius);
    if (motions_.count() == 0) std::fill(held_.begin(), held_.end(), 1); // everything is where it must be
  }

  // --- What the touches do not say
  // ------------------------------------------------------------------------------

  /// Whether the linear margins, all of them, let the least free one grow without limit.
  bool unbounded() {
    const auto kept = rows_.all();
    bool grows = false;
    for (int round = 0; round < 30; ++round) {
      const auto linear = linearised(without_limit);
      const auto solved = solver_.solve({&linear, held_, floors_}, {price_});
      ++result_.programmes;
      grows = solved.usable() && solved.least > 1e3 * start_.size;
      if (!grows) break;
      way_out_ = motions_.basis() * bounded(solved.x);
      bool added = false;
      for (std::size_t g = 0; g < groups_.size(); ++g) {
        double least = target_of(g, solved.least) - 1e-3;
        RowRef row;
        for (int k = 0; k < groups_[g].size(); ++k) {
          const auto gradient = row_gradient(groups_[g], k, pose_, start_.centre, start_.size);
          if (const double value = gradient.margin + gradient.rate.dot(way_out_); value < least) {
            least = value;
            row = {static_cast<int>(g), k};
          }
        }
        added = rows_.add(row) || added;
      }
      if (!added) break;
    }
    if (rows_.size() > 2 * rows_kept) keep_rows(kept);
    return grows;
  }

  /// Moves back towards the start as far as what has been reached allows.
  void settle() {
    Motions straight(6, 0);
    for (Eigen::Index j = 0; j < motions_.count(); ++j)
      if (!motions_.limited(j)) {
        straight.conservativeResize(6, straight.cols() + 1);
        straight.col(straight.cols() - 1) = motions_.basis().col(j);
      }
    if (straight.cols() == 0 || level_ == 0) return;
    motions_.allow(along_axes(straight), Vector::Constant(straight.cols(), no_margin));
    std::vector<double> floors = floors_;
    for (std::size_t g = 0; g < groups_.size(); ++g)
      if (!held_[g] || floors_[g] == 0.0) floors[g] = std::min(last_level_, now_.group_margin[g]) - give;
    double reach = start_.size;
    Pose kept = pose_; // the last that falls below no floor
    for (int step = 0, low = 0; step < 60 && reach > 1e-9; ++step) {
      const auto linear = linearised(reach);
      margin::NearestInput input{&linear, floors, motions_.motion_to(pose_, options_.start), {}};
      input.wished = input.wished.cwiseMax(linear.lower).cwiseMin(linear.upper);
      const auto solved = margin::nearest(input);
      ++result_.programmes;
      if (!solved.usable()) {
        reach *= 0.25;
        continue;
      }
      const double length = solved.x.cwiseAbs().maxCoeff();
      if (length < 1e-9) break;
      trial_ = motions_.moved_by(pose_, solved.x);
      sweep(groups_, trial_, then_);
      bool added = false, fell = false;
      for (std::size_t g = 0; g < groups_.size(); ++g)
        for (const auto& w : then_.worst[g])
          if (w.margin < floors[g]) {
            added = rows_.add(w.row) || added;
            fell = fell || w.margin < floors[g] - give;
          }
      if (fell && added) continue;
      low = fell ? low + 1 : 0;
      if (low > 4) { // the margins bend too much for so long a step
        pose_ = kept;
        reach = 0.25 * length;
        low = 0;
        continue;
      }
      // A turn as long as this may fall short in second order: the next programme, made there, puts it right.
      pose_ = trial_;
      std::swap(now_, then_);
      if (!fell) kept = pose_;
    }
    pose_ = kept;
  }

  const SeatInput& input_;
  const SeatOptions& options_;
  SeatResult result_;
  std::vector<Group> groups_;
  SeatStart start_;
  AllowedMotions motions_{groups_, start_};
  Pose pose_, trial_;
  Sweep now_, then_; ///< at pose_, and at the pose last looked at
  int level_ = 0;
  double reach_ = 1;  ///< mm: how far a step may go in each component
  double price_ = 10; ///< per mm that a held margin falls below its floor
  double last_level_ = -no_margin;
  Vec6 way_out_ = Vec6::Zero(); ///< the motion that raised the least margin without limit
  std::vector<char> held_;      ///< per group
  std::vector<double> floors_;  ///< per group held
  ProgrammeRows rows_;
  std::vector<char> warm_;                   ///< basis of the last programme
  std::vector<PressingRow> presses_, first_; ///< of the last programme; of the first level
  margin::LinearMargins linear_{0};
  margin::LeastSolver solver_;
};

} // namespace

SeatResult seat(const SeatInput& input, const SeatOptions& options) {
  auto wrong = validate(input);
  if (wrong.empty() && !(options.start.rotation.allFinite() && options.start.translation.allFinite() &&
                         options.start.translation.cwiseAbs().maxCoeff() <= most_length))
    wrong = fmt::format("the place it lies in has a coordinate that {}", too_long);
  if (!wrong.empty()) {
    SeatResult refused;
    refused.status = SeatStatus::refused;
    refused.message = std::move(wrong);
    refused.pose = options.start;
    return refused;
  }
  return Search(input, options).run();
}

} // namespace datrin::casting
