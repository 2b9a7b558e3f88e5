#pragma once
// The order a part is made in, as it stands and as it could be: numbered operations, what each waits for and
// why, what the order breaks, what may run side by side, what most waits for, the minutes of a batch.

#include "build/edits.h"
#include "quantity/reckoning.h"
#include "route/features.h"
#include "route/order.h"
#include "route/precedence.h"

#include <string>
#include <vector>

namespace datrin::route {

struct PlanOptions {
  Manner manner = Manner::part_by_part;
  int pieces = 0;                 ///< 0: as many as the part says
  std::size_t most_states = 8000; ///< the search looks at before it stops with the best it has and a bound
  bool find_best = true;          ///< also the best order; else only what stands
};

struct PlannedOperation {
  build::Id id = 0;
  int number = 0;                ///< 10, 20, 30: as it stands
  std::vector<int> waits;        ///< into RoutePlan::precedences: those that come before it
  std::vector<int> right_before; ///< into RoutePlan::operations: those of them no other of them waits for
  bool broken = false;           ///< it stands before one of them that holds
  int side_by_side = 0;          ///< how many others neither wait for it nor it for them
  int waited_for = 0;            ///< how many come after it, in all
};

struct RoutePlan {
  std::vector<PlannedOperation> operations; ///< as they stand
  std::vector<Precedence> precedences;
  OrderResult now;             ///< of the order as it stands
  OrderResult best;            ///< order: into `operations`
  std::string cycle;           ///< "A needs B needs A"; empty: none
  std::vector<Feature> unmade; ///< features nothing makes
  std::vector<std::string> remarks;
  bool in_best_order() const;
};

RoutePlan plan_route(const build::Build& build, build::Id part, const PlanOptions& options = {});

/// Whether a piece of the part is there: of each operation it is said that it is done, or the piece left its
/// setup with nothing missing. A part without operations is: it was bought, or nobody says how it is made.
bool is_made(const build::Build& build, build::Id part);

/// The operations in the best order, the setups in the order they are come to. Empty when they stand so, or
/// there is a cycle.
build::Edit take_best_order(const build::Build& build, build::Id part, const PlanOptions& options);

/// The operation put at place `to` (from 0) among those of its part.
build::Edit put_operation(const build::Build& build, build::Id operation, int to);

/// One of the rules it breaks is set aside, with why.
build::Edit set_rule_aside(const build::Build& build, build::Id operation, build::Id before,
                           const std::string& reason);

/// How the minutes of an order add up, a setup and a tool change as the build says.
Reckoning order_sum(const build::Build& build, const OrderResult& order, int pieces,
                    const PlanOptions& options);

/// "70 min: 3 setups, 5 tool changes"; to take it to the bench and clamp it again is a setup.
std::string order_text(const OrderResult& order);
std::string order_counts(const OrderResult& order); ///< without the time

} // namespace datrin::route
