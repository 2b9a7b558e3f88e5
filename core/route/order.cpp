#include "route/order.h"

#include <fmt/format.h>

#include <algorithm>
#include <bitset>
#include <cmath>
#include <map>
#include <queue>
#include <unordered_map>

namespace datrin::route {

namespace {

constexpr std::size_t most_operations = 256;
constexpr int no_tool_or_setup = -1; ///< no setup stands, no tool is in

using Done = std::bitset<most_operations>;

/// What is done, and how the machine stands.
struct State {
  Done done;
  int setup = no_tool_or_setup, tool = no_tool_or_setup;
  bool operator==(const State&) const = default;
};

struct StateHash {
  std::size_t operator()(const State& s) const {
    return std::hash<Done>()(s.done) * 1000003 + static_cast<std::size_t>(s.setup + 1) * 1009 +
           static_cast<std::size_t>(s.tool + 1);
  }
};

/// The names of setups and tools as numbers.
class Names {
public:
  int of(const std::string& name) {
    if (name.empty()) return no_tool_or_setup;
    return numbers_.emplace(name, static_cast<int>(numbers_.size())).first->second;
  }
  std::size_t size() const { return numbers_.size(); }

private:
  std::map<std::string, int> numbers_;
};

/// A cycle among operations that cannot be brought into an order, as indices; empty: there is none.
std::vector<int> find_cycle(const std::vector<RouteStep>& operations) {
  enum class Mark { fresh, open, closed };
  std::vector<Mark> marks(operations.size(), Mark::fresh);
  struct Step {
    int operation;
    std::size_t next;
  };
  for (std::size_t start = 0; start < operations.size(); ++start) {
    if (marks[start] != Mark::fresh) continue;
    std::vector<Step> path{{static_cast<int>(start), 0}};
    marks[start] = Mark::open;
    while (!path.empty()) {
      auto& top = path.back();
      const auto& after = operations[static_cast<std::size_t>(top.operation)].after;
      if (top.next == after.size()) {
        marks[static_cast<std::size_t>(top.operation)] = Mark::closed;
        path.pop_back();
        continue;
      }
      const int before = after[top.next++];
      auto& mark = marks[static_cast<std::size_t>(before)];
      if (mark == Mark::open) {
        std::vector<int> cycle;
        bool in = false;
        for (const auto& step : path) {
          in = in || step.operation == before;
          if (in) cycle.push_back(step.operation);
        }
        cycle.push_back(before);
        return cycle;
      }
      if (mark == Mark::fresh) {
        mark = Mark::open;
        path.push_back({before, 0});
      }
    }
  }
  return {};
}

class Orderer {
public:
  Orderer(const OrderInput& input, const OrderOptions& options)
      : in_(input), options_(options), n_(input.operations.size()) {
    Names setups, tools;
    for (const auto& operation : in_.operations) {
      setup_.push_back(setups.of(operation.setup));
      tool_.push_back(tools.of(operation.tool));
      Done needs;
      for (const int before : operation.after) needs.set(static_cast<std::size_t>(before));
      needs_.push_back(needs);
      sum_ += operation.minutes;
    }
    setups_ = setups.size();
    tools_ = tools.size();
    for (std::size_t k = 0; k < n_; ++k) all_.set(k);
  }

  OrderResult run() {
    Node first;
    first.bound = rest_at_least(first.state);
    nodes_.push_back(first);
    best_.emplace(first.state, 0.0);
    beam();
    search();
    auto result = cost_of(in_, best_order_);
    result.proved_best = proved_;
    result.lower_bound = proved_ ? result.minutes : std::min(result.minutes, minutes_of(bound_));
    return result;
  }

private:
  /// A place in the search: what led there is found through `from`.
  struct Node {
    State state;
    double changed = 0; ///< minutes of changes so far, of one piece or of the batch
    double bound = 0;   ///< at least, with what is still to come
    int from = -1;
    std::vector<int> did; ///< in that step
  };

  bool batch() const { return in_.manner == Manner::operation_by_operation && in_.pieces > 1; }
  double minutes_of(double changed) const {
    return in_.pieces * sum_ + (in_.manner == Manner::part_by_part ? in_.pieces : 1) * changed;
  }

  /// What it costs to go on with an operation.
  double change(const State& s, std::size_t k, State& next) const {
    next.setup = setup_[k] == no_tool_or_setup ? s.setup : setup_[k];
    next.tool = tool_[k] == no_tool_or_setup ? s.tool : tool_[k];
    const bool setup = next.setup != s.setup, tool = next.tool != s.tool;
    if (!batch()) return (setup ? in_.setup_minutes : 0) + (tool ? in_.tool_minutes : 0);
    // Before anything stands, what needs none of its own goes with what is set up first.
    const bool first = s.setup == no_tool_or_setup && !started(s);
    const bool joins = s.setup == no_tool_or_setup && started(s) && !tool;
    const bool run = first || (!joins && (setup || tool));
    return (run ? in_.pieces * in_.setup_minutes : 0) + (tool ? in_.tool_minutes : 0);
  }
  static bool started(const State& s) { return s.done.any(); }

  bool ready(const State& s, std::size_t k) const { return !s.done.test(k) && (needs_[k] & ~s.done).none(); }

  /// Does operation `k`, then everything that can be done without a change.
  Node step(int from, std::size_t k) const {
    const auto& before = nodes_[static_cast<std::size_t>(from)];
    Node node;
    node.from = from;
    node.state = before.state;
    node.changed = before.changed + change(before.state, k, node.state);
    node.state.done.set(k);
    node.did.push_back(static_cast<int>(k));
    for (bool more = true; more;) {
      more = false;
      for (std::size_t j = 0; j < n_; ++j) {
        if (!ready(node.state, j)) continue;
        State next = node.state;
        if (change(node.state, j, next) > 0 || next.setup != node.state.setup || next.tool != node.state.tool)
          continue;
        node.state.done.set(j);
        node.did.push_back(static_cast<int>(j));
        more = true;
      }
    }
    node.bound = node.changed + rest_at_least(node.state);
    return node;
  }

  /// Changes still to come, at least.
  double rest_at_least(const State& s) const {
    std::vector<char> setup(setups_, 0), tool(tools_, 0), pair(batch() ? setups_ * tools_ : 0, 0);
    double rest = 0;
    for (std::size_t k = 0; k < n_; ++k) {
      if (s.done.test(k)) continue;
      if (tool_[k] != no_tool_or_setup && tool_[k] != s.tool && !tool[static_cast<std::size_t>(tool_[k])]) {
        tool[static_cast<std::size_t>(tool_[k])] = 1;
        rest += in_.tool_minutes;
      }
      if (setup_[k] == no_tool_or_setup) continue;
      if (!batch()) {
        if (setup_[k] != s.setup && !setup[static_cast<std::size_t>(setup_[k])]) {
          setup[static_cast<std::size_t>(setup_[k])] = 1;
          rest += in_.setup_minutes;
        }
      } else if (tool_[k] != no_tool_or_setup && (setup_[k] != s.setup || tool_[k] != s.tool)) {
        // What began before anything stood may be one run with the first of these.
        if (s.setup == no_tool_or_setup && started(s) && tool_[k] == s.tool) continue;
        auto& there = pair[static_cast<std::size_t>(setup_[k]) * tools_ + static_cast<std::size_t>(tool_[k])];
        if (!there) rest += in_.pieces * in_.setup_minutes;
        there = 1;
      }
    }
    return rest;
  }

  void beam() {
    std::vector<int> level{0};
    while (!level.empty()) {
      std::vector<Node> found;
      for (const int at : level)
        for (std::size_t k = 0; k < n_; ++k)
          if (ready(nodes_[static_cast<std::size_t>(at)].state, k)) found.push_back(step(at, k));
      std::stable_sort(found.begin(), found.end(), [](const Node& a, const Node& b) {
        return a.bound != b.bound ? a.bound < b.bound : a.state.done.count() > b.state.done.count();
      });
      std::vector<int> next;
      std::unordered_map<State, char, StateHash> seen;
      for (auto& node : found) {
        if (next.size() >= options_.beam || node.bound >= least_) break;
        if (!seen.emplace(node.state, 0).second) continue;
        nodes_.push_back(std::move(node));
        const int at = static_cast<int>(nodes_.size()) - 1;
        if (nodes_.back().state.done == all_)
          take(at);
        else
          next.push_back(at);
      }
      level = std::move(next);
    }
    // The search begins anew: what the beam passed by is not settled.
    nodes_.resize(1);
  }

  void search() {
    struct Open {
      double bound;
      std::size_t done;
      int node;
      bool operator<(const Open& o) const { return bound != o.bound ? bound > o.bound : done < o.done; }
    };
    std::priority_queue<Open> open;
    open.push({nodes_[0].bound, 0, 0});
    std::size_t looked = 0;
    constexpr double alike = 1e-9; // minutes
    while (!open.empty()) {
      const auto top = open.top();
      if (top.bound >= least_ - alike) break;
      bound_ = top.bound;
      if (++looked > options_.most_states || (options_.should_stop && options_.should_stop())) return;
      open.pop();
      const State state = nodes_[static_cast<std::size_t>(top.node)].state;
      if (nodes_[static_cast<std::size_t>(top.node)].changed > best_.at(state) + alike) continue;
      if (state.done == all_) {
        take(top.node);
        break;
      }
      for (std::size_t k = 0; k < n_; ++k) {
        if (!ready(state, k)) continue;
        auto node = step(top.node, k);
        if (node.bound >= least_ - alike) continue;
        const auto [known, fresh] = best_.emplace(node.state, node.changed);
        if (!fresh && known->second <= node.changed + alike) continue;
        known->second = node.changed;
        const Open next{node.bound, node.state.done.count(), static_cast<int>(nodes_.size())};
        nodes_.push_back(std::move(node));
        open.push(next);
      }
    }
    proved_ = true;
  }

  void take(int node) {
    const auto& end = nodes_[static_cast<std::size_t>(node)];
    if (end.changed >= least_) return;
    least_ = end.changed;
    best_order_.clear();
    for (int at = node; at > 0; at = nodes_[static_cast<std::size_t>(at)].from) {
      const auto& did = nodes_[static_cast<std::size_t>(at)].did;
      best_order_.insert(best_order_.begin(), did.begin(), did.end());
    }
  }

  const OrderInput& in_;
  const OrderOptions& options_;
  std::size_t n_;
  std::vector<int> setup_, tool_;
  std::vector<Done> needs_;
  std::size_t setups_ = 0, tools_ = 0;
  Done all_;
  double sum_ = 0;
  std::vector<Node> nodes_;
  std::unordered_map<State, double, StateHash> best_;
  std::vector<int> best_order_;
  double least_ = 1e300, bound_ = 0;
  bool proved_ = false;
};

std::string input_wrong(const OrderInput& input) {
  const auto time = [](double minutes) { return std::isfinite(minutes) && minutes >= 0; };
  if (input.operations.size() > most_operations) return fmt::format("at most {} operations", most_operations);
  if (input.pieces < 1) return "there must be at least one piece";
  if (!time(input.setup_minutes)) return "setup minutes must not be below 0";
  if (!time(input.tool_minutes)) return "tool minutes must not be below 0";
  for (const auto& operation : input.operations) {
    if (!time(operation.minutes)) return operation.id + ": minutes must not be below 0";
    for (const int before : operation.after)
      if (before < 0 || before >= static_cast<int>(input.operations.size()))
        return operation.id + ": comes after an operation that is not there";
  }
  return {};
}

} // namespace

OrderResult cost_of(const OrderInput& input, const std::vector<int>& order) {
  OrderResult out;
  out.status = OrderStatus::ordered;
  out.order = order;
  double sum = 0;
  std::string setup, tool;
  bool begun = false; // a run
  for (const int k : order) {
    const auto& operation = input.operations[static_cast<std::size_t>(k)];
    sum += operation.minutes;
    const bool another_tool = !operation.tool.empty() && operation.tool != tool;
    const bool another_setup = !operation.setup.empty() && operation.setup != setup;
    const bool joins = begun && setup.empty() && !another_tool; // nothing stood yet: the run has this setup
    const bool run = !begun || (!joins && (another_setup || another_tool));
    if (another_setup) {
      ++out.setups;
      setup = operation.setup;
    }
    if (another_tool) {
      ++out.tool_changes;
      tool = operation.tool;
    }
    if (input.pieces > 1 ? run : another_setup) out.loadings += input.pieces;
    begun = true;
  }
  out.minutes = input.pieces * sum;
  if (input.manner == Manner::part_by_part) {
    out.minutes += input.pieces * (out.setups * input.setup_minutes + out.tool_changes * input.tool_minutes);
    out.loadings = input.pieces * out.setups;
  } else {
    out.minutes += out.loadings * input.setup_minutes + out.tool_changes * input.tool_minutes;
  }
  return out;
}

std::string order_wrong(const OrderInput& input, const std::vector<int>& order) {
  std::vector<char> done(input.operations.size(), 0);
  for (const int k : order) {
    if (k < 0 || k >= static_cast<int>(done.size())) return "an operation that is not there";
    const auto& operation = input.operations[static_cast<std::size_t>(k)];
    if (done[static_cast<std::size_t>(k)]) return operation.id + " comes twice";
    for (const int before : operation.after)
      if (!done[static_cast<std::size_t>(before)])
        return fmt::format("{} comes before {}, which it needs", operation.id,
                           input.operations[static_cast<std::size_t>(before)].id);
    done[static_cast<std::size_t>(k)] = 1;
  }
  for (std::size_t k = 0; k < done.size(); ++k)
    if (!done[k]) return input.operations[k].id + " is missing";
  return {};
}

OrderResult best_order(const OrderInput& input, const OrderOptions& options) {
  OrderResult out;
  if (auto wrong = input_wrong(input); !wrong.empty()) {
    out.status = OrderStatus::refused;
    out.message = std::move(wrong);
    return out;
  }
  if (const auto cycle = find_cycle(input.operations); !cycle.empty()) {
    out.status = OrderStatus::cycle;
    for (const int k : cycle) {
      if (!out.message.empty()) out.message += " needs ";
      out.message += input.operations[static_cast<std::size_t>(k)].id;
    }
    return out;
  }
  if (input.operations.empty()) {
    out.status = OrderStatus::ordered;
    out.proved_best = true;
    return out;
  }
  return Orderer(input, options).run();
}

} // namespace datrin::route
