#include "margin/lexicographic.h"

#include "margin/nearest.h"

#include <Eigen/Core>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace datrin::margin {

namespace {

/// Variables no row joins to any other, and the level reached so far among them.
struct Component {
  std::vector<int> columns;
  double level = -infinite;
};

class Levelling {
public:
  Levelling(const LexicographicInput& input, const LexicographicOptions& options, LexicographicResult& out)
      : in_(input), m_(*input.margins), o_(options), out_(out),
        pinned_(static_cast<std::size_t>(m_.columns()), 0), value_(Eigen::VectorXd::Zero(m_.columns())),
        held_(static_cast<std::size_t>(m_.groups()), 0),
        floor_(static_cast<std::size_t>(m_.groups()), -infinite),
        reached_(static_cast<std::size_t>(m_.groups()), infinite),
        rows_of_column_(static_cast<std::size_t>(m_.columns())),
        local_(static_cast<std::size_t>(m_.columns()), -1), seen_(static_cast<std::size_t>(m_.columns()), 1),
        warm_(static_cast<std::size_t>(m_.rows()), 0), equation_(static_cast<std::size_t>(m_.rows()), 0) {
    for (int i = 0; i < m_.rows(); ++i)
      for (int k = m_.begin(i); k < m_.end(i); ++k)
        rows_of_column_[static_cast<std::size_t>(m_.column(k))].push_back(i);
    wished_ = in_.wished.size() == m_.columns() ? in_.wished : Eigen::VectorXd::Zero(m_.columns());
  }

  void run() {
    const int last = in_.tiers.empty() ? 0 : *std::max_element(in_.tiers.begin(), in_.tiers.end());
    for (tier_ = 0; tier_ <= last; ++tier_) {
      cap_ = tier_ < last ? o_.enough : infinite;
      if (!level_tier()) return;
    }
    if (std::isfinite(o_.enough)) // what is left goes to those that were only raised to "enough"
      for (tier_ = 0; tier_ < last; ++tier_) {
        cap_ = infinite;
        for (std::size_t g = 0; g < held_.size(); ++g)
          if (in_.tiers[g] == tier_ && capped_.size() == held_.size() && capped_[g]) held_[g] = 0;
        if (!level_tier()) return;
      }
    settle();
  }

private:
  int tier_of(int group) const { return in_.tiers.empty() ? 0 : in_.tiers[static_cast<std::size_t>(group)]; }
  bool is_free(int group) const { return tier_of(group) == tier_ && !held_[static_cast<std::size_t>(group)]; }
  bool counts(int group) const {
    return is_free(group) || std::isfinite(floor_[static_cast<std::size_t>(group)]);
  }
  bool is_pinned(int column) const { return pinned_[static_cast<std::size_t>(column)] != 0; }

  /// The row with what is settled put in as a number.
  double settled_part(int row) const {
    double sum = m_.offset(row);
    for (int k = m_.begin(row); k < m_.end(row); ++k)
      if (is_pinned(m_.column(k))) sum += m_.coefficient(k) * value_[m_.column(k)];
    return sum;
  }

  bool level_tier() {
    if (capped_.empty()) capped_.assign(held_.size(), 0);
    std::vector<int> all;
    for (int j = 0; j < m_.columns(); ++j)
      if (!is_pinned(j)) all.push_back(j);
    all_constants();
    std::vector<Component> stack = split(all, -infinite);
    while (!stack.empty()) {
      const auto component = std::move(stack.back());
      stack.pop_back();
      double level = component.level;
      bool more = true;
      if (!level_once(component.columns, level, more)) return false;
      if (!more) continue;
      std::vector<int> left;
      for (const int j : component.columns)
        if (!is_pinned(j)) left.push_back(j);
      new_constants();
      for (auto& part : split(left, level)) stack.push_back(std::move(part));
    }
    return true;
  }

  void count_unsettled() {
    unsettled_.assign(held_.size(), 0);
    rows_of_group_.assign(held_.size(), {});
    for (int i = 0; i < m_.rows(); ++i) {
      const auto g = static_cast<std::size_t>(m_.group(i));
      rows_of_group_[g].push_back(i);
      for (int k = m_.begin(i); k < m_.end(i); ++k) unsettled_[g] += is_pinned(m_.column(k)) ? 0 : 1;
    }
  }

  /// Free groups that no unsettled variable moves any more are what they are.
  void all_constants() {
    if (unsettled_.empty()) count_unsettled();
    for (std::size_t g = 0; g < held_.size(); ++g) hold_constant(g);
    settled_groups_.clear();
  }

  /// Those of the groups that lost their last unsettled variable since this was last asked.
  void new_constants() {
    for (const int g : settled_groups_) hold_constant(static_cast<std::size_t>(g));
    settled_groups_.clear();
  }

  void hold_constant(std::size_t g) {
    if (!is_free(static_cast<int>(g)) || unsettled_[g] != 0) return;
    double least = infinite;
    int by = -1;
    for (const int i : rows_of_group_[g])
      if (const double v = settled_part(i); v < least) {
        least = v;
        by = i;
      }
    held_[g] = 1;
    reached_[g] = least; // nothing can change it: it needs no floor
    if (tier_ == 0 && by >= 0) offer_least(least, {{by, 1.0}});
  }

  void offer_least(double least, const std::vector<std::pair<int, double>>& presses) {
    // A later level that comes out at the same by a rounding's breadth has prices of what is left only.
    if (std::isfinite(out_.least) && least > out_.least - 1e-9 * std::max(1.0, std::abs(out_.least))) return;
    if (!(least < out_.least)) return;
    out_.least = least;
    out_.multipliers.assign(static_cast<std::size_t>(m_.rows()), 0.0);
    for (const auto& [row, multiplier] : presses)
      out_.multipliers[static_cast<std::size_t>(row)] = multiplier;
  }

  /// Columns that rows in force join together.
  std::vector<Component> split(const std::vector<int>& columns, double level) {
    std::vector<Component> parts;
    auto& seen = seen_; // all 1 between calls
    for (const int j : columns) seen[static_cast<std::size_t>(j)] = 0;
    for (const int first : columns) {
      if (seen[static_cast<std::size_t>(first)]) continue;
      seen[static_cast<std::size_t>(first)] = 1;
      Component part{{first}, level};
      for (std::size_t at = 0; at < part.columns.size(); ++at)
        for (const int i : rows_of_column_[static_cast<std::size_t>(part.columns[at])]) {
          if (!counts(m_.group(i))) continue;
          // The rows of one group belong together: its least is one figure.
          for (const int other : rows_of_group_[static_cast<std::size_t>(m_.group(i))])
            for (int k = m_.begin(other); k < m_.end(other); ++k)
              if (auto& s = seen[static_cast<std::size_t>(m_.column(k))]; !s) {
                s = 1;
                part.columns.push_back(m_.column(k));
              }
        }
      std::sort(part.columns.begin(), part.columns.end());
      parts.push_back(std::move(part));
    }
    return parts;
  }

  /// One level of a component. `more` is false when nothing in it is free any more, or nothing limits it.
  bool level_once(const std::vector<int>& columns, double& level, bool& more) {
    LinearMargins reduced(static_cast<int>(columns.size()));
    for (std::size_t c = 0; c < columns.size(); ++c) {
      local_[static_cast<std::size_t>(columns[c])] = static_cast<int>(c);
      reduced.lower[static_cast<int>(c)] = m_.lower[columns[c]];
      reduced.upper[static_cast<int>(c)] = m_.upper[columns[c]];
    }
    std::vector<int> rows;
    for (const int j : columns)
      for (const int i : rows_of_column_[static_cast<std::size_t>(j)])
        if (counts(m_.group(i))) rows.push_back(i);
    std::sort(rows.begin(), rows.end());
    rows.erase(std::unique(rows.begin(), rows.end()), rows.end());
    std::vector<char> held, warm;
    std::vector<double> floors;
    bool any_free = false;
    std::vector<std::pair<int, double>> terms;
    for (const int i : rows) {
      terms.clear();
      for (int k = m_.begin(i); k < m_.end(i); ++k)
        if (!is_pinned(m_.column(k)))
          terms.emplace_back(local_[static_cast<std::size_t>(m_.column(k))], m_.coefficient(k));
      const auto g = static_cast<std::size_t>(m_.group(i));
      reduced.add_row(static_cast<int>(held.size()), settled_part(i), terms);
      held.push_back(is_free(m_.group(i)) ? 0 : 1);
      any_free = any_free || held.back() == 0;
      floors.push_back(floor_[g]);
      warm.push_back(warm_[static_cast<std::size_t>(i)]);
    }
    for (const int j : columns) local_[static_cast<std::size_t>(j)] = -1;
    if (!any_free) {
      more = false;
      return true;
    }
    LeastResult least;
    if (columns.size() == 1 && std::find(held.begin(), held.end(), 1) == held.end()) {
      least = of_one(reduced);
    } else {
      least = solver_.solve({&reduced, held, floors, warm});
      ++out_.programmes;
    }
    if (least.status == LeastStatus::failed) { // once more from the beginning
      least = solver_.solve({&reduced, held, floors, {}});
      ++out_.programmes;
    }
    if (least.status == LeastStatus::unbounded) {
      unlimited_ = true;
      if (out_.message.empty())
        out_.message =
            std::isfinite(level) ? "nothing limits what is still free" : "nothing limits the least margin";
      for (const int i : rows)
        if (is_free(m_.group(i))) floor_[static_cast<std::size_t>(m_.group(i))] = level - o_.give;
      more = false;
      return true;
    }
    if (!least.usable()) {
      out_.status = least.status == LeastStatus::infeasible ? LexicographicStatus::infeasible
                                                            : LexicographicStatus::failed;
      out_.message = least.message;
      return false;
    }
    for (std::size_t r = 0; r < rows.size(); ++r) warm_[static_cast<std::size_t>(rows[r])] = least.basic[r];
    if (least.least >= cap_) { // enough for this tier: they keep that much, and are asked again at the end
      for (const int i : rows) {
        const auto g = static_cast<std::size_t>(m_.group(i));
        if (!is_free(m_.group(i))) continue;
        held_[g] = capped_[g] = 1;
        floor_[g] = cap_ - o_.give;
      }
      more = false;
      return true;
    }
    level = least.least;
    std::vector<std::pair<int, double>> presses;
    bool holds = false;
    for (std::size_t r = 0; r < rows.size(); ++r) {
      if (!(least.multipliers[r] > o_.pressing)) continue;
      const auto g = static_cast<std::size_t>(m_.group(rows[r]));
      if (!held[r]) {
        presses.emplace_back(rows[r], least.multipliers[r]);
        if (!held_[g]) {
          held_[g] = 1;
          floor_[g] = least.least - o_.give;
          reached_[g] = least.least;
        }
        holds = true;
      }
      equation_[static_cast<std::size_t>(rows[r])] = 1;
    }
    if (tier_ == 0) offer_least(least.least, presses);
    if (!holds) {
      out_.status = LexicographicStatus::failed;
      out_.message = "a level held nothing";
      return false;
    }
    pin(columns, rows, least);
    return true;
  }

  /// One variable and free rows: the least of all crossings of a rising with a falling row, in closed form.
  static LeastResult of_one(const LinearMargins& m) {
    LeastResult best;
    best.multipliers.assign(static_cast<std::size_t>(m.rows()), 0.0);
    best.basic.assign(static_cast<std::size_t>(m.rows()), 0);
    best.bound_multipliers = Eigen::VectorXd::Zero(1);
    if (std::isfinite(m.lower[0]) || std::isfinite(m.upper[0])) { // bounds: the solver's own
      LeastSolver solver;
      return solver.solve({&m, {}, {}, {}});
    }
    int up = -1, down = -1;
    double level = infinite;
    for (int i = 0; i < m.rows(); ++i)
      for (int j = 0; j < m.rows(); ++j) {
        const double a = m.coefficient(m.begin(i)), b = -m.coefficient(m.begin(j));
        if (!(a > 0) || !(b > 0)) continue;
        const double at = (m.offset(i) * b + m.offset(j) * a) / (a + b);
        if (at < level) {
          level = at;
          up = i;
          down = j;
        }
      }
    if (up < 0) {
      best.status = LeastStatus::unbounded;
      return best;
    }
    const double a = m.coefficient(m.begin(up)), b = -m.coefficient(m.begin(down));
    best.status = LeastStatus::optimal;
    best.least = level;
    best.x = Eigen::VectorXd::Constant(1, (m.offset(down) - m.offset(up)) / (a + b));
    best.multipliers[static_cast<std::size_t>(up)] = b / (a + b);
    best.multipliers[static_cast<std::size_t>(down)] = a / (a + b);
    return best;
  }

  /// Puts in as numbers what the rows that press, and bounds that press, settle.
  void pin(const std::vector<int>& columns, const std::vector<int>& rows, const LeastResult& least) {
    std::vector<int> column_at; // of the equations, in their order
    std::vector<int> equations;
    auto& place = local_; // all −1 between calls
    for (std::size_t c = 0; c < columns.size(); ++c)
      if (std::abs(least.bound_multipliers[static_cast<int>(c)]) > o_.pressing)
        fix(columns[c], least.x[static_cast<int>(c)]);
    for (const int i : rows) {
      if (!equation_[static_cast<std::size_t>(i)]) continue;
      bool any = false;
      for (int k = m_.begin(i); k < m_.end(i); ++k) {
        const int j = m_.column(k);
        if (is_pinned(j)) continue;
        any = true;
        if (auto& p = place[static_cast<std::size_t>(j)]; p < 0) {
          p = static_cast<int>(column_at.size());
          column_at.push_back(j);
        }
      }
      if (any) equations.push_back(i);
    }
    solve_equations(equations, column_at);
    for (const int j : column_at) place[static_cast<std::size_t>(j)] = -1;
  }

  /// Fixes what `equations` settle, a column of theirs being `column_at[local_[column]]`.
  void solve_equations(const std::vector<int>& equations, const std::vector<int>& column_at) {
    if (equations.empty()) return;
    const auto& place = local_;
    const auto e = static_cast<Eigen::Index>(equations.size()),
               n = static_cast<Eigen::Index>(column_at.size());
    Eigen::MatrixXd a = Eigen::MatrixXd::Zero(e, n + 1);
    for (Eigen::Index r = 0; r < e; ++r) {
      const int i = equations[static_cast<std::size_t>(r)];
      const auto g = static_cast<std::size_t>(m_.group(i));
      const double level = std::isfinite(reached_[g]) ? reached_[g] : floor_[g];
      a(r, n) = level - settled_part(i);
      for (int k = m_.begin(i); k < m_.end(i); ++k)
        if (!is_pinned(m_.column(k))) a(r, place[static_cast<std::size_t>(m_.column(k))]) = m_.coefficient(k);
      const double scale = a.row(r).head(n).cwiseAbs().maxCoeff();
      if (scale > 0) a.row(r) /= scale;
    }
    // Reduced row echelon with the largest pivot of each column.
    Eigen::Index rank = 0;
    std::vector<Eigen::Index> pivot_column;
    for (Eigen::Index c = 0; c < n && rank < e; ++c) {
      Eigen::Index best = rank;
      for (Eigen::Index r = rank + 1; r < e; ++r)
        if (std::abs(a(r, c)) > std::abs(a(best, c))) best = r;
      if (std::abs(a(best, c)) < 1e-9) continue;
      if (best != rank) a.row(best).swap(a.row(rank));
      a.row(rank) /= a(rank, c);
      for (Eigen::Index r = 0; r < e; ++r)
        if (r != rank && a(r, c) != 0) a.row(r) -= a(r, c) * a.row(rank);
      pivot_column.push_back(c);
      ++rank;
    }
    for (Eigen::Index r = 0; r < rank; ++r) {
      const auto own = pivot_column[static_cast<std::size_t>(r)];
      bool alone = true;
      for (Eigen::Index c = 0; c < n && alone; ++c) alone = c == own || std::abs(a(r, c)) < 1e-9;
      if (!alone) continue;
      const int j = column_at[static_cast<std::size_t>(own)];
      fix(j, std::clamp(a(r, n), m_.lower[j], m_.upper[j]));
    }
  }

  void fix(int column, double value) {
    if (is_pinned(column)) return;
    pinned_[static_cast<std::size_t>(column)] = 1;
    value_[column] = value;
    for (const int i : rows_of_column_[static_cast<std::size_t>(column)]) {
      if (--unsettled_[static_cast<std::size_t>(m_.group(i))] == 0) settled_groups_.push_back(m_.group(i));
    }
  }

  /// What is still free goes nearest to where it was wished, component by component.
  void settle() {
    std::vector<int> all;
    for (int j = 0; j < m_.columns(); ++j)
      if (!is_pinned(j)) all.push_back(j);
    tier_ = -1; // no group is free any more: only floors join columns
    for (const auto& part : split(all, 0)) {
      LinearMargins reduced(static_cast<int>(part.columns.size()));
      Eigen::VectorXd wished(static_cast<int>(part.columns.size()));
      for (std::size_t c = 0; c < part.columns.size(); ++c) {
        const int j = part.columns[c];
        local_[static_cast<std::size_t>(j)] = static_cast<int>(c);
        reduced.lower[static_cast<int>(c)] = m_.lower[j];
        reduced.upper[static_cast<int>(c)] = m_.upper[j];
        wished[static_cast<int>(c)] = wished_[j];
      }
      std::vector<int> rows;
      for (const int j : part.columns)
        for (const int i : rows_of_column_[static_cast<std::size_t>(j)])
          if (counts(m_.group(i))) rows.push_back(i);
      std::sort(rows.begin(), rows.end());
      rows.erase(std::unique(rows.begin(), rows.end()), rows.end());
      std::vector<double> floors;
      for (const int i : rows) {
        std::vector<std::pair<int, double>> terms;
        for (int k = m_.begin(i); k < m_.end(i); ++k)
          if (!is_pinned(m_.column(k)))
            terms.emplace_back(local_[static_cast<std::size_t>(m_.column(k))], m_.coefficient(k));
        reduced.add_row(static_cast<int>(floors.size()), settled_part(i), terms);
        floors.push_back(floor_[static_cast<std::size_t>(m_.group(i))]);
      }
      for (const int j : part.columns) local_[static_cast<std::size_t>(j)] = -1;
      const auto settled = nearest({&reduced, floors, wished, {}});
      if (!settled.usable()) {
        out_.status = LexicographicStatus::failed;
        out_.message = settled.message;
        return;
      }
      for (std::size_t c = 0; c < part.columns.size(); ++c)
        value_[part.columns[c]] = settled.x[static_cast<int>(c)];
    }
    out_.x = value_;
    out_.status = unlimited_ ? LexicographicStatus::unbounded : LexicographicStatus::optimal;
    out_.group_margins.assign(held_.size(), infinite);
    for (int i = 0; i < m_.rows(); ++i) {
      auto& least = out_.group_margins[static_cast<std::size_t>(m_.group(i))];
      least = std::min(least, m_.value(i, out_.x));
    }
    number_levels();
  }

  void number_levels() {
    std::vector<int> order;
    out_.group_level.assign(held_.size(), -1);
    for (std::size_t g = 0; g < held_.size(); ++g)
      if (std::isfinite(reached_[g])) order.push_back(static_cast<int>(g));
    std::stable_sort(order.begin(), order.end(), [&](int a, int b) {
      return std::pair(tier_of(a), reached_[static_cast<std::size_t>(a)]) <
             std::pair(tier_of(b), reached_[static_cast<std::size_t>(b)]);
    });
    int level = -1, tier = -1;
    double last = -infinite;
    for (const int g : order) {
      const double at = reached_[static_cast<std::size_t>(g)];
      if (level < 0 || tier_of(g) != tier || at > last + 1e-7 * std::max(1.0, std::abs(at))) ++level;
      tier = tier_of(g);
      last = at;
      out_.group_level[static_cast<std::size_t>(g)] = level;
    }
  }

  const LexicographicInput& in_;
  const LinearMargins& m_;
  const LexicographicOptions& o_;
  LexicographicResult& out_;
  std::vector<char> pinned_;
  Eigen::VectorXd value_, wished_;
  std::vector<char> held_, capped_;
  std::vector<double> floor_, reached_;
  std::vector<std::vector<int>> rows_of_column_, rows_of_group_;
  std::vector<int> local_, unsettled_, settled_groups_;
  std::vector<char> seen_;
  std::vector<char> warm_, equation_; ///< per row
  LeastSolver solver_;
  int tier_ = 0;
  double cap_ = infinite;
  bool unlimited_ = false;
};

} // namespace

LexicographicResult lexicographic(const LexicographicInput& input, const LexicographicOptions& options) {
  LexicographicResult result;
  if (!input.margins->workable()) {
    result.status = LexicographicStatus::failed;
    result.message = not_workable;
    return result;
  }
  for (int j = 0; j < input.margins->columns(); ++j)
    if (input.margins->lower[j] > input.margins->upper[j]) {
      result.status = LexicographicStatus::infeasible;
      result.message = "a variable's lower bound is above its upper bound";
      return result;
    }
  Levelling(input, options, result).run();
  return result;
}

} // namespace datrin::margin
