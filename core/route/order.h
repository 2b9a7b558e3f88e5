#pragma once
// The order of operations that takes the fewest minutes: what must come before what is obeyed, setups and
// tools are changed as seldom as that lets one.
//
// Part by part a piece goes through all operations before the next is begun:
//   pieces × (Σ minutes + setup changes × setup minutes + tool changes × tool minutes),
// changes counted along the order of one piece, the first of each included.
// RouteStep by operation all pieces go through a run of neighbours with one setup and one tool before the
// next run: pieces × Σ minutes + loadings × setup minutes + tool changes × tool minutes, where each run loads
// every piece once (a single piece only when the setup is another than the run's before). An operation
// without a setup is done in whatever stands; one at the very beginning in what is set up next.
//
// Found by A* over what is done, the setup that stands and the tool in it (P. E. Hart, N. J. Nilsson, B.
// Raphael, 1968); what can be done at once in the setup and with the tool that stand is done: leaving it for
// later never saves a change. Bound below: every setup (of a batch every setup with its tool) and every tool
// still wanted is come to once. Where it stops early, the best order a beam found and the bound are given.

#include <cstddef>
#include <functional>
#include <string>
#include <vector>

namespace datrin::route {

struct RouteStep {
  std::string id;
  std::string setup; ///< empty: whatever stands
  std::string tool;  ///< empty: none; what is in it stays
  double minutes = 0;
  std::vector<int> after; ///< operations that must come before it
};

enum class Manner { part_by_part, operation_by_operation };

struct OrderInput {
  std::vector<RouteStep> operations;
  double setup_minutes = 0, tool_minutes = 0;
  int pieces = 1;
  Manner manner = Manner::part_by_part;
};

struct OrderOptions {
  std::size_t most_states = 300000; ///< looked into before it stops with what it has
  std::size_t beam = 400;           ///< wide
  std::function<bool()> should_stop;
};

enum class OrderStatus { not_run, ordered, cycle, refused };

struct OrderResult {
  OrderStatus status = OrderStatus::not_run;
  std::string message;
  std::vector<int> order; ///< indices of the operations
  int setups = 0;         ///< changes of setup along it, the first included
  int tool_changes = 0;   ///< the first included
  int loadings = 0;       ///< operation by operation: how often a piece is put in
  double minutes = 0;     ///< all pieces
  bool proved_best = false;
  double lower_bound = 0; ///< minutes: no order takes less

  bool usable() const { return status == OrderStatus::ordered; }
};

/// At most 256 operations. A cycle is named: "A needs B needs A".
OrderResult best_order(const OrderInput& input, const OrderOptions& options = {});

/// What an order that obeys every `after` comes to; `order` holds every operation once.
OrderResult cost_of(const OrderInput& input, const std::vector<int>& order);

/// The first thing that is wrong with an order: an operation before one it needs, one missing or twice;
/// empty: nothing.
std::string order_wrong(const OrderInput& input, const std::vector<int>& order);

} // namespace datrin::route
