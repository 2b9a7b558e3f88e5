#pragma once
// The touches that the programmes of a search hold: few of many thousands, each once, in the order they came.

#include "casting/seat_groups.h"
#include "casting/seat_polish.h"
#include "margin/least.h"

#include <set>
#include <utility>
#include <vector>

namespace datrin::casting {

class ProgrammeRows {
public:
  /// False when it is none, or held already.
  bool add(const RowRef& row) {
    if (row.at < 0 || !held_.insert({row.group, row.at}).second) return false;
    rows_.push_back(row);
    return true;
  }
  /// Adds the touches with the least margin of each group.
  void add_worst(const Sweep& at) {
    for (const auto& worst : at.worst)
      for (const auto& w : worst) add(w.row);
  }
  void keep_only(std::vector<RowRef> kept) {
    rows_ = std::move(kept);
    held_.clear();
    for (const auto& row : rows_) held_.insert({row.group, row.at});
  }
  /// Those whose price in `solved` is above `least`, with it. `solved` is of a programme of these rows.
  std::vector<PressingRow> pressing(const margin::LeastResult& solved, double least) const {
    std::vector<PressingRow> out;
    for (std::size_t i = 0; i < solved.multipliers.size(); ++i)
      if (solved.multipliers[i] > least) out.push_back({rows_[i], solved.multipliers[i]});
    return out;
  }
  bool holds(const RowRef& row) const { return held_.contains({row.group, row.at}); }
  const std::vector<RowRef>& all() const { return rows_; }
  std::size_t size() const { return rows_.size(); }

private:
  std::vector<RowRef> rows_;
  std::set<std::pair<int, int>> held_;
};

} // namespace datrin::casting
