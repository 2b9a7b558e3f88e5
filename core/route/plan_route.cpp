#include "route/plan_route.h"

#include "build/rows.h"
#include "build/words.h"
#include "route/fixture.h"
#include "route/propose.h"

#include <fmt/format.h>

#include <algorithm>
#include <bitset>
#include <map>
#include <numeric>

namespace datrin::route {

using namespace build;

namespace {

constexpr std::size_t most_planned = 256; // as the search has it

std::string tool_key(const Operation& o) {
  if (o.tool != 0) return fmt::format("tool {}", o.tool);
  switch (o.kind) {
  case OperationKind::press:
  case OperationKind::trial:
  case OperationKind::deburr:
  case OperationKind::mark:
  case OperationKind::wait:
  case OperationKind::sent_out:
  case OperationKind::file:
  case OperationKind::lap:
    return {}; // nothing is put into a spindle
  default:
    return fmt::format("{} {:.3f}", words_of<OperationKind>().first[static_cast<std::size_t>(o.kind)],
                       o.size);
  }
}

OrderInput order_input(const Build& build, Id part, const std::vector<Precedence>& precedences,
                       const PlanOptions& options) {
  OrderInput in;
  in.setup_minutes = build.info().setup_minutes;
  in.tool_minutes = build.info().tool_minutes;
  in.manner = options.manner;
  const auto* p = build.find<Part>(part);
  in.pieces = options.pieces > 0 ? options.pieces : p ? std::max(1, p->quantity) : 1;
  std::map<Id, int> index;
  for (const auto& [id, o] : build.operations_of(part)) {
    index[id] = static_cast<int>(in.operations.size());
    in.operations.push_back({operation_text(build, o),
                             o.setup == 0 ? "bench" : std::to_string(o.setup),
                             tool_key(o),
                             o.minutes,
                             {}});
  }
  for (const auto& one : precedences)
    if (one.holds())
      in.operations[static_cast<std::size_t>(index[one.after])].after.push_back(index[one.before]);
  return in;
}

void reach(RoutePlan& plan) {
  const std::size_t n = plan.operations.size();
  if (n > most_planned) return;
  std::map<Id, std::size_t> index;
  for (std::size_t k = 0; k < n; ++k) index[plan.operations[k].id] = k;
  std::vector<std::bitset<most_planned>> before(n);
  for (const auto& one : plan.precedences)
    if (one.holds()) before[index[one.after]].set(index[one.before]);
  for (std::size_t via = 0; via < n; ++via) // Warshall
    for (std::size_t k = 0; k < n; ++k)
      if (before[k][via]) before[k] |= before[via];
  for (std::size_t k = 0; k < n; ++k)
    for (std::size_t m = 0; m < n; ++m) {
      if (k == m) continue;
      bool implied = !before[k][m];
      for (std::size_t via = 0; via < n && !implied; ++via)
        implied = via != m && via != k && before[k][via] && before[via][m];
      if (!implied) plan.operations[k].right_before.push_back(static_cast<int>(m));
      if (before[m][k]) ++plan.operations[k].waited_for;
      if (!before[m][k] && !before[k][m]) ++plan.operations[k].side_by_side;
    }
}

} // namespace

bool is_made(const Build& build, Id part) {
  const auto operations = build.operations_of(part);
  const auto pieces = build.pieces_of(part);
  const auto is_done = [&](Id piece, Id id, const Operation& o) {
    if (build.done_of(piece, id)) return true;
    const auto left = o.setup != 0 ? build.release_of(piece, o.setup) : std::nullopt;
    return left && left->second.missing.empty();
  };
  return operations.empty() || std::any_of(pieces.begin(), pieces.end(), [&](const auto& piece) {
           return piece.second.rejected.empty() &&
                  std::all_of(operations.begin(), operations.end(), [&](const auto& entry) {
                    return is_done(piece.first, entry.first, entry.second);
                  });
         });
}

namespace {

/// What is fitted waits for what it is fitted to; what is done in a fixture for the fixture.
void waits_for_parts(const Build& build, const Operation& o, std::vector<std::string>& remarks) {
  for (const Id needed : o.needs)
    if (const auto* p = build.find<Part>(needed); p && !is_made(build, needed))
      remarks.push_back(fmt::format("{} needs {}, which is not made yet", operation_text(build, o), p->name));
    else if (p && !build.locators_of(needed).empty() && !fixture_check(build, needed).tried)
      remarks.push_back(fmt::format("{} needs {}, which was not tried yet: a reject or a bit of scrap first",
                                    operation_text(build, o), p->name));
  if (o.kind != OperationKind::trial && o.kind != OperationKind::transfer) return;
  for (const auto& [id, joint] : build.joints())
    for (const auto& [mine, other] :
         {std::pair{joint.hole, joint.shaft}, std::pair{joint.shaft, joint.hole}}) {
      const auto *d = build.find<Dimension>(mine), *mate = build.find<Dimension>(other);
      if (!d || !mate || d->part != o.part || mate->part == o.part) continue;
      if (!contains(o.surfaces, d->surface) && !contains(o.surfaces, d->other)) continue;
      const auto pieces = build.pieces_of(mate->part);
      const bool read = std::any_of(pieces.begin(), pieces.end(), [&, mate_id = other](const auto& piece) {
        return build.measurement_of(piece.first, mate_id).has_value();
      });
      if (const auto* p = build.find<Part>(mate->part); p && !read && !is_made(build, mate->part))
        remarks.push_back(
            fmt::format("{} is fitted to {}: make and read that first", operation_text(build, o), p->name));
    }
}

} // namespace

bool RoutePlan::in_best_order() const {
  return now.usable() && best.usable() && now.minutes <= best.minutes + 1e-9;
}

RoutePlan plan_route(const Build& build, Id part, const PlanOptions& options) {
  RoutePlan plan;
  plan.unmade = unmade(build, part);
  plan.precedences = precedences(build, part);
  std::map<Id, std::size_t> index;
  for (const auto& [id, o] : build.operations_of(part)) {
    index[id] = plan.operations.size();
    PlannedOperation one;
    one.id = id;
    one.number = 10 * static_cast<int>(plan.operations.size() + 1);
    plan.operations.push_back(one);
    if (o.setup == 0 && o.kind < OperationKind::broach)
      plan.remarks.push_back(
          fmt::format("{} is in no setup: say which, or add one that reaches it", operation_text(build, o)));
    waits_for_parts(build, o, plan.remarks);
    const bool nothing = o.surfaces.empty() && o.bodies.empty();
    if (nothing && o.kind < OperationKind::press)
      plan.remarks.push_back(
          fmt::format("{} makes nothing: say what, or remove it", operation_text(build, o)));
  }
  for (std::size_t k = 0; k < plan.precedences.size(); ++k) {
    const auto& one = plan.precedences[k];
    auto& after = plan.operations[index[one.after]];
    after.waits.push_back(static_cast<int>(k));
    if (one.holds() && index[one.before] > index[one.after]) after.broken = true;
  }
  if (plan.operations.empty()) return plan;
  reach(plan);
  const auto in = order_input(build, part, plan.precedences, options);
  std::vector<int> stands(plan.operations.size());
  std::iota(stands.begin(), stands.end(), 0);
  if (const auto wrong = order_wrong(in, stands); wrong.empty())
    plan.now = cost_of(in, stands);
  else
    plan.now = {OrderStatus::refused, wrong, {}, 0, 0, 0, 0, false, 0};
  OrderOptions search;
  search.most_states = options.most_states;
  search.beam = 100;
  if (options.find_best) plan.best = best_order(in, search);
  if (plan.best.status == OrderStatus::cycle) plan.cycle = plan.best.message;
  return plan;
}

Edit take_best_order(const Build& build, Id part, const PlanOptions& options) {
  const auto plan = plan_route(build, part, options);
  if (!plan.best.usable()) return build::cannot("no order keeps every rule");
  Rows rows(build);
  std::vector<Id> setups;
  for (std::size_t k = 0; k < plan.best.order.size(); ++k) {
    const Id id = plan.operations[static_cast<std::size_t>(plan.best.order[k])].id;
    auto o = *build.find<Operation>(id);
    if (o.setup != 0 && std::find(setups.begin(), setups.end(), o.setup) == setups.end())
      setups.push_back(o.setup);
    o.order = static_cast<double>(k);
    rows.set(id, o);
  }
  for (const auto& [id, setup] : build.setups_of(part)) // those nothing is done in stay behind
    if (std::find(setups.begin(), setups.end(), id) == setups.end()) setups.push_back(id);
  for (std::size_t k = 0; k < setups.size(); ++k) {
    auto setup = *build.find<Setup>(setups[k]);
    setup.order = static_cast<double>(k);
    rows.set(setups[k], setup);
  }
  return rows.edit("Best order of operations");
}

Edit put_operation(const Build& build, Id operation, int to) {
  const auto* o = build.find<Operation>(operation);
  if (!o) return build::is_gone();
  std::vector<Id> ids;
  for (const auto& [id, unused] : build.operations_of(o->part))
    if (id != operation) ids.push_back(id);
  ids.insert(ids.begin() + std::clamp<std::ptrdiff_t>(to, 0, static_cast<std::ptrdiff_t>(ids.size())),
             operation);
  Rows rows(build);
  for (std::size_t k = 0; k < ids.size(); ++k) {
    auto changed = *build.find<Operation>(ids[k]);
    changed.order = static_cast<double>(k);
    rows.set(ids[k], changed);
  }
  return rows.edit("Move " + operation_text(build, *o));
}

Edit set_rule_aside(const Build& build, Id operation, Id before, const std::string& reason) {
  const auto* o = build.find<Operation>(operation);
  if (!o) return build::is_gone();
  if (reason.empty()) return build::cannot("say why the rule does not hold here");
  auto changed = *o;
  std::erase_if(changed.set_aside, [&](const SetAside& aside) { return aside.before == before; });
  changed.set_aside.push_back({before, reason});
  return replace(build, operation, changed, "Set a rule aside for " + operation_text(build, *o));
}

namespace {

std::string minutes_text(double minutes) {
  const int whole = static_cast<int>(minutes + 0.5);
  return whole < 120 ? fmt::format("{} min", whole) : fmt::format("{} h {} min", whole / 60, whole % 60);
}

} // namespace

Reckoning order_sum(const Build& build, const OrderResult& order, int pieces, const PlanOptions& options) {
  const auto& info = build.info();
  Reckoning sum{"time of the batch", {}, minutes_text(order.minutes)};
  const bool by_part = options.manner == Manner::part_by_part;
  const double setups = info.setup_minutes * (by_part ? pieces * order.setups : order.loadings);
  const double tools = info.tool_minutes * (by_part ? pieces * order.tool_changes : order.tool_changes);
  const auto each = [&](int count) {
    return by_part ? fmt::format("{} \u00D7 {}", pieces, count) : std::to_string(count);
  };
  sum.lines.push_back({fmt::format("work, {} pieces", pieces), 0, "minutes of the operations",
                       minutes_text(order.minutes - setups - tools)});
  sum.lines.push_back({fmt::format("set up {}", each(by_part ? order.setups : order.loadings)), 0,
                       fmt::format("{:g} min each", info.setup_minutes), minutes_text(setups)});
  sum.lines.push_back({fmt::format("change the tool {}", each(order.tool_changes)), 0,
                       fmt::format("{:g} min each", info.tool_minutes), minutes_text(tools)});
  return sum;
}

std::string order_counts(const OrderResult& order) {
  const auto count = [](int n, const char* what) {
    return fmt::format("{} {}{}", n, what, n == 1 ? "" : "s");
  };
  return count(order.setups, "setup") + ", " + count(order.tool_changes, "tool change");
}

std::string order_text(const OrderResult& order) {
  return minutes_text(order.minutes) + ": " + order_counts(order);
}

} // namespace datrin::route
