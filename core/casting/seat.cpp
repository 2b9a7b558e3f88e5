#include "casting/seat.h"

#include "casting/seat_groups.h"
#include "casting/seat_start.h"
#include "margin/least.h"
#include "margin/nearest.h"

#include <Eigen/Geometry>
#include <Eigen/QR>

#include <algorithm>
#include <cmath>
#include <set>

namespace datrin::casting {
namespace {

constexpr double give = 1e-9;            // mm: floors of held groups stand this much below what they reached
constexpr double exact = 3e-8;           // mm: agreement of promise and gain that makes another step idle
constexpr double pressing = 1e-7;        // a share above this holds
constexpr std::size_t rows_kept = 160;   // a programme that outgrows this drops what does not press

class Search {
public:
  Search(const SeatInput& input, const SeatOptions& options) : input_(input), options_(options) {}

  SeatResult run() {
    groups_ = make_groups(input_);
    result_.pose = options_.start;
    if (groups_.empty()) {
      result_.status = SeatStatus::undetermined;
      result_.message = "no machined surface and no wall has a touch: touch the surfaces that are to be machined";
      return finish();
    }
    start_ = least_squares_start(input_, groups_, options_.start);
    sort_into_buckets(groups_, start_.pose);
    pose_ = start_.pose;
    reach_ = 0.2 * start_.size;
    result_.undetermined = name_motions(start_.free, start_.size);
    held_.assign(groups_.size(), 0);
    floors_.assign(groups_.size(), 0.0);
    sweep(groups_, pose_, now_);
    for (const auto& worst : now_.worst)
      for (const auto& w : worst) add_row(w.row);

    for (std::size_t level = 0; level < groups_.size() + 1; ++level) {
      const auto outcome = climb(level);
      if (outcome == Outcome::stopped) return stop();
      if (outcome == Outcome::unbounded) {
        name_one_way();
        if (level == 0) {
          result_.status = SeatStatus::undetermined;
          result_.message = "nothing limits the least margin: touch the surfaces opposite those touched so far";
          return finish();
        }
        break;
      }
      if (outcome == Outcome::failed) return finish();
      if (!hold_what_presses()) break;
    }
    settle();
    result_.status = SeatStatus::seated;
    result_.pose = pose_;
    return finish();
  }

private:
  enum class Outcome { converged, unbounded, stopped, failed };

  SeatResult finish() {
    result_.margins = margins_at(input_, result_.pose, options_.limiting_within);
    if (result_.status == SeatStatus::seated) {
      weigh_what_holds();
      result_.check = check_seat(input_, result_.pose, result_.margins.least, result_.held_by);
    }
    result_.rows = static_cast<int>(rows_.size());
    return std::move(result_);
  }

  SeatResult stop() {
    result_.status = SeatStatus::stopped;
    result_.message = "stopped before the best seat was found";
    result_.pose = pose_;
    return finish();
  }

  // --- The rows the programmes hold -----------------------------------------------------------------------------

  bool add_row(const RowRef& row) {
    if (row.at < 0 || !in_rows_.insert({row.group, row.at}).second) return false;
    rows_.push_back(row);
    return true;
  }

  void drop_idle_rows(const margin::LeastResult& solved) {
    if (rows_.size() <= rows_kept) return;
    std::vector<RowRef> kept;
    for (std::size_t i = 0; i < rows_.size(); ++i)
      if (solved.multipliers[i] > 0) kept.push_back(rows_[i]);
    rows_ = kept;
    in_rows_.clear();
    warm_.clear();
    for (const auto& row : rows_) in_rows_.insert({row.group, row.at});
    for (const auto& worst : now_.worst)
      for (const auto& w : worst) add_row(w.row);
  }

  /// The margins of rows_ as linear functions of a small motion within start_.held.
  margin::LinearMargins linearised(double reach) const {
    margin::LinearMargins linear(static_cast<int>(start_.held.cols()));
    for (const auto& row : rows_) {
      const auto g = row_gradient(groups_[static_cast<std::size_t>(row.group)], row.at, pose_, start_.centre, start_.size);
      linear.add_row(row.group, g.margin, Eigen::VectorXd(start_.held.transpose() * g.rate));
    }
    linear.lower.setConstant(-reach);
    linear.upper.setConstant(reach);
    return linear;
  }

  Pose moved_by(const Eigen::VectorXd& y) const {
    const Vec6 d = start_.held * y;
    return moved(pose_, start_.centre, d.head<3>(), d.tail<3>() / start_.size);
  }

  double target_of(std::size_t group, double least) const { return held_[group] ? floors_[group] : least; }

  /// What the climb makes larger: the least free margin, less a price on what is held falling below its floor.
  double merit(const Sweep& at) const {
    double least = no_margin, short_by = 0;
    for (std::size_t g = 0; g < groups_.size(); ++g) {
      if (held_[g]) short_by += std::max(0.0, floors_[g] - at.group_margin[g]);
      else least = std::min(least, at.group_margin[g]);
    }
    return least - price_ * short_by;
  }

  double least_free(const Sweep& at) const {
    double least = no_margin;
    for (std::size_t g = 0; g < groups_.size(); ++g)
      if (!held_[g]) least = std::min(least, at.group_margin[g]);
    return least;
  }

  // --- One level ------------------------------------------------------------------------------------------------

  /// Solves the programme at pose_, adding touches the step would violate until none is left out.
  bool solve_step(double reach, margin::LeastResult& solved) {
    for (int round = 0; round < 60; ++round) {
      linear_ = linearised(reach);
      solved = solver_.solve({&linear_, held_, floors_, warm_}, {price_});
      ++result_.programmes;
      if (!solved.usable()) return false;
      warm_ = solved.basic;
      for (std::size_t i = 0; i < rows_.size(); ++i)
        if (held_[static_cast<std::size_t>(rows_[i].group)] && solved.multipliers[i] > 0.9 * price_ && price_ < 1e6) {
          price_ *= 10;
          return solve_step(reach, solved);
        }
      trial_ = moved_by(solved.x);
      sweep(groups_, trial_, then_);
      bool added = false;
      for (const auto& worst : then_.worst)
        for (const auto& w : worst) {
          const auto g = static_cast<std::size_t>(w.row.group);
          const double target = target_of(g, solved.least);
          if (w.margin >= target || in_rows_.count({w.row.group, w.row.at})) continue;
          const auto row = row_gradient(groups_[g], w.row.at, pose_, start_.centre, start_.size);
          if (row.margin + row.rate.dot(start_.held * solved.x) < target - 1e-10) added = add_row(w.row) || added;
        }
      if (!added) return true;
    }
    return true;
  }

  Outcome climb(std::size_t level) {
    if (std::all_of(held_.begin(), held_.end(), [](char h) { return h != 0; })) return Outcome::converged;
    bool asked_unbounded = false;
    reach_ = std::max(reach_, 0.05 * start_.size);
    double current = merit(now_);
    for (int step = 0; step < options_.most_steps; ++step) {
      if (options_.should_stop && options_.should_stop()) return Outcome::stopped;
      margin::LeastResult solved;
      if (!solve_step(reach_, solved)) {
        result_.status = SeatStatus::failed;
        result_.message = solved.message;
        return Outcome::failed;
      }
      current = merit(now_); // the price may have risen
      const bool at_edge = solved.bound_multipliers.cwiseAbs().maxCoeff() > pressing;
      if (at_edge && !asked_unbounded) {
        asked_unbounded = true;
        if (unbounded()) return Outcome::unbounded;
      }
      double short_by = 0;
      for (std::size_t g = 0; g < groups_.size(); ++g)
        if (held_[g]) short_by += shortfall_of(g, solved);
      const double promised = solved.least - price_ * short_by - current;
      solved_ = solved;
      if (promised < options_.tolerance) return Outcome::converged;
      const double gained = merit(then_) - current;
      const double length = solved.x.cwiseAbs().maxCoeff();
      if (gained > 0.05 * promised) {
        pose_ = trial_;
        std::swap(now_, then_);
        if (gained > 0.7 * promised) reach_ = std::min(std::max(reach_, 3 * length), start_.size);
        else if (gained < 0.25 * promised) reach_ = 0.5 * length;
        // Where the margins did as their linear forms promised, the programme's optimum is the level's.
        if (!at_edge && std::abs(gained - promised) < exact) return Outcome::converged;
        drop_idle_rows(solved);
      } else {
        reach_ = 0.25 * length;
        // Where the step was cut for curvature, the worst touches there are the ones to know about.
        for (const auto& worst : then_.worst)
          for (const auto& w : worst)
            if (w.margin < target_of(static_cast<std::size_t>(w.row.group), solved.least)) add_row(w.row);
      }
      if (reach_ < 1e-10) return Outcome::converged;
    }
    result_.status = SeatStatus::failed;
    result_.message = "the search did not settle at level " + std::to_string(level + 1);
    return Outcome::failed;
  }

  double shortfall_of(std::size_t group, const margin::LeastResult& solved) const {
    double least = no_margin;
    for (int i = 0; i < linear_.rows(); ++i)
      if (static_cast<std::size_t>(linear_.group(i)) == group) least = std::min(least, linear_.value(i, solved.x));
    return std::max(0.0, floors_[group] - least);
  }

  /// Whether the linear margins, all of them, let the least free one grow without limit.
  bool unbounded() {
    const double far = 1e7;
    const auto kept = rows_;
    bool grows = false;
    for (int round = 0; round < 30; ++round) {
      const auto linear = linearised(far);
      const auto solved = solver_.solve({&linear, held_, floors_}, {price_});
      ++result_.programmes;
      grows = solved.usable() && solved.least > 1e3 * start_.size;
      if (!grows) break;
      bool added = false;
      const Vec6 d = start_.held * solved.x;
      for (std::size_t g = 0; g < groups_.size(); ++g) {
        double least = target_of(g, solved.least) - 1e-3;
        RowRef row;
        for (int k = 0; k < groups_[g].size(); ++k) {
          const auto gradient = row_gradient(groups_[g], k, pose_, start_.centre, start_.size);
          if (const double value = gradient.margin + gradient.rate.dot(d); value < least) {
            least = value;
            row = {static_cast<int>(g), k};
          }
        }
        added = add_row(row) || added;
      }
      if (!added) break;
    }
    if (rows_.size() > 2 * rows_kept) {
      rows_ = kept;
      in_rows_.clear();
      for (const auto& row : rows_) in_rows_.insert({row.group, row.at});
    }
    return grows;
  }

  /// Motions that raise some free margin for ever and lower none.
  void name_one_way() {
    Columns6 rates(6, 0);
    for (std::size_t g = 0; g < groups_.size(); ++g)
      for (int k = 0; k < groups_[g].size(); k += std::max(1, groups_[g].size() / 200)) {
        rates.conservativeResize(6, rates.cols() + 1);
        rates.col(rates.cols() - 1) = row_gradient(groups_[g], k, pose_, start_.centre, start_.size).rate;
      }
    const auto motions = one_way_motions(rates);
    result_.undetermined.insert(result_.undetermined.end(), motions.begin(), motions.end());
    if (motions.empty()) { // not along or about one axis: name the motion the programme took
      const Vec6 d = start_.held * solved_.x;
      const bool turning = d.tail<3>().norm() > d.head<3>().norm();
      const Vec3 part = turning ? Vec3(d.tail<3>()) : Vec3(d.head<3>());
      if (part.norm() > 0) result_.undetermined.push_back({turning, part.normalized(), true});
    }
  }

  /// Holds the groups that press at the level just reached. False when nothing is left free.
  bool hold_what_presses() {
    std::vector<double> press(groups_.size(), 0.0);
    for (std::size_t i = 0; i < solved_.multipliers.size(); ++i) {
      press[static_cast<std::size_t>(rows_[i].group)] += solved_.multipliers[i];
      if (solved_.multipliers[i] > pressing) pinned_.push_back(rows_[i]);
    }
    const double level = least_free(now_);
    bool any = false, left = false;
    for (std::size_t g = 0; g < groups_.size(); ++g) {
      if (held_[g]) continue;
      if (press[g] > pressing) {
        held_[g] = 1;
        floors_[g] = std::min(level, now_.group_margin[g]) - give;
        any = true;
      } else {
        left = true;
      }
    }
    if (any) last_level_ = level;
    return any && left;
  }

  // --- What is still free ---------------------------------------------------------------------------------------

  /// Moves back towards the start as far as what has been reached allows.
  void settle() {
    if (!pinned_.empty()) {
      Eigen::MatrixXd rates(start_.held.cols(), static_cast<Eigen::Index>(pinned_.size()));
      for (std::size_t i = 0; i < pinned_.size(); ++i)
        rates.col(static_cast<Eigen::Index>(i)) =
            start_.held.transpose() *
            row_gradient(groups_[static_cast<std::size_t>(pinned_[i].group)], pinned_[i].at, pose_, start_.centre,
                         start_.size).rate;
      Eigen::ColPivHouseholderQR<Eigen::MatrixXd> qr(rates);
      qr.setThreshold(1e-6);
      if (qr.rank() == start_.held.cols()) return; // nothing is free
    }
    std::vector<double> floors = floors_;
    for (std::size_t g = 0; g < groups_.size(); ++g)
      if (!held_[g]) floors[g] = std::min(last_level_, now_.group_margin[g]) - give;
    double reach = start_.size;
    for (int step = 0; step < 60 && reach > 1e-9; ++step) {
      Vec6 back;
      back << home_of_centre() - start_.centre, start_.size * vector_from_rotation(options_.start.rotation *
                                                                         pose_.rotation.transpose());
      const Eigen::VectorXd wished = start_.held.transpose() * back;
      auto linear = linearised(reach);
      margin::NearestInput nearest_input{&linear, floors, wished, {}};
      linear.lower = linear.lower.cwiseMin(0.0);
      nearest_input.wished = wished.cwiseMax(linear.lower).cwiseMin(linear.upper);
      const auto solved = margin::nearest(nearest_input);
      ++result_.programmes;
      if (!solved.usable()) {
        reach *= 0.25;
        continue;
      }
      if (solved.x.cwiseAbs().maxCoeff() < 1e-9) return;
      trial_ = moved_by(solved.x);
      sweep(groups_, trial_, then_);
      bool added = false, fell = false;
      for (std::size_t g = 0; g < groups_.size(); ++g)
        for (const auto& w : then_.worst[g])
          if (w.margin < floors[g]) {
            added = add_row(w.row) || added;
            fell = fell || w.margin < floors[g] - 1e-8;
          }
      if (fell) {
        if (!added) reach = 0.25 * solved.x.cwiseAbs().maxCoeff();
        continue;
      }
      pose_ = trial_;
      std::swap(now_, then_);
    }
  }

  /// Where the metal now at the centre of turning lay at the start.
  Vec3 home_of_centre() const { return options_.start.apply(pose_.inverse().apply(start_.centre)); }

  /// Shares of the touches that hold the seat: the multipliers of the first level's programme at the final pose.
  void weigh_what_holds() {
    std::fill(held_.begin(), held_.end(), 0);
    margin::LeastResult solved;
    if (!solve_step(1e-5 * start_.size, solved)) return;
    double sum = 0;
    for (std::size_t i = 0; i < rows_.size(); ++i)
      if (solved.multipliers[i] > pressing) sum += solved.multipliers[i];
    for (std::size_t i = 0; i < rows_.size(); ++i) {
      if (solved.multipliers[i] <= pressing) continue;
      const auto& group = groups_[static_cast<std::size_t>(rows_[i].group)];
      HeldBy hold;
      hold.point = group.point[static_cast<std::size_t>(rows_[i].at)];
      hold.surface = group.surface;
      hold.wall_to = group.wall < 0 ? -1 : input_.walls[static_cast<std::size_t>(group.wall)].to;
      hold.share = solved.multipliers[i] / sum;
      result_.held_by.push_back(hold);
    }
    std::sort(result_.held_by.begin(), result_.held_by.end(),
              [](const HeldBy& a, const HeldBy& b) { return a.share > b.share; });
  }

  const SeatInput& input_;
  const SeatOptions& options_;
  SeatResult result_;
  std::vector<Group> groups_;
  SeatStart start_;
  Pose pose_, trial_;
  Sweep now_, then_;
  double reach_ = 1;      ///< mm: how far a step may go in each component
  double price_ = 10;     ///< per mm that a held margin falls below its floor
  double last_level_ = -no_margin;
  std::vector<char> held_;
  std::vector<double> floors_;
  std::vector<RowRef> rows_, pinned_;
  std::set<std::pair<int, int>> in_rows_;
  std::vector<char> warm_; ///< basis of the last programme
  margin::LinearMargins linear_{0};
  margin::LeastSolver solver_;
  margin::LeastResult solved_;
};

} // namespace

SeatResult seat(const SeatInput& input, const SeatOptions& options) {
  if (auto wrong = validate(input); !wrong.empty()) {
    SeatResult refused;
    refused.status = SeatStatus::refused;
    refused.message = std::move(wrong);
    refused.pose = options.start;
    return refused;
  }
  return Search(input, options).run();
}

} // namespace datrin::casting
