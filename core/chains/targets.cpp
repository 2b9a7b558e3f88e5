#include "chains/targets.h"

#include "chains/chain.h"
#include "quantity/unit.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>

namespace datrin::chains {

namespace {

constexpr double no_spread = 0.001; // mm, where a limit's spread is 0

std::string refusal(const TargetsInput& in) {
  const auto beyond = [](double mm) { return std::abs(mm) > most_length; };
  for (const auto& d : in.dimensions) {
    if (beyond(d.nominal) || beyond(d.lower) || beyond(d.upper) || beyond(d.measured.value_or(0)) ||
        beyond(d.uncertainty) || beyond(d.capability))
      return fmt::format("{}: every length of it {}", d.id, too_long);
    if (!is_length(d.nominal) || !is_length(d.lower) || !is_length(d.upper))
      return d.id + ": nominal and limits must be numbers";
    if (d.lower > d.upper) return d.id + ": lower must not be above upper";
    if (d.measured && (!is_length(*d.measured) || !(d.uncertainty >= 0)))
      return d.id + ": what was measured must be a number, its uncertainty not negative";
    if (!d.measured && !(d.capability > 0))
      return d.id + ": the capability of a dimension not made yet must be above 0";
  }
  for (const auto& c : in.conditions) {
    const auto limit = [](double mm) { return is_length(mm) || std::isinf(mm); }; // infinite: none
    if (!limit(c.least) || !limit(c.most)) return fmt::format("{}: min and max {}", c.id, too_long);
    if (c.least > c.most) return c.id + ": min must not be above max";
    if (!(c.spread >= 0) || !is_length(c.spread)) return c.id + ": its spread must not be negative";
    if (c.terms.empty()) return c.id + ": a condition needs a term";
    for (const auto& t : c.terms)
      if (t.dimension < 0 || t.dimension >= static_cast<int>(in.dimensions.size()) ||
          !(std::abs(t.coefficient) <= most_coefficient))
        return c.id + ": a term must name a dimension and have a coefficient";
  }
  return {};
}

double spread_of(const TargetsInput& in, const TargetCondition& c) {
  if (c.spread > 0) return c.spread;
  double spread = 0;
  for (const auto& t : c.terms)
    spread += std::abs(t.coefficient) * in.dimensions[static_cast<std::size_t>(t.dimension)].spread();
  return spread > 0 ? spread : no_spread;
}

/// What the rows of the optimiser stand for.
struct Limit {
  int condition = -1, dimension = -1;
  bool upper = false;
};

struct Problem {
  std::vector<int> column_of; ///< per dimension, −1 when measured
  std::vector<int> dimension_of;
  margin::LinearMargins margins{0};
  std::vector<Limit> limits; ///< per row, which is also its group
  std::vector<int> tiers;
  Eigen::VectorXd nominal;
};

Problem state(const TargetsInput& in, const TargetsOptions& options) {
  Problem p;
  for (std::size_t d = 0; d < in.dimensions.size(); ++d) {
    p.column_of.push_back(in.dimensions[d].measured ? -1 : static_cast<int>(p.dimension_of.size()));
    if (!in.dimensions[d].measured) p.dimension_of.push_back(static_cast<int>(d));
  }
  p.margins = margin::LinearMargins(static_cast<int>(p.dimension_of.size()));
  p.nominal.resize(static_cast<int>(p.dimension_of.size()));
  const auto add = [&](Limit limit, double offset, const std::vector<std::pair<int, double>>& terms,
                       int tier) {
    p.margins.add_row(static_cast<int>(p.limits.size()), offset, terms);
    p.limits.push_back(limit);
    p.tiers.push_back(tier);
  };
  for (std::size_t c = 0; c < in.conditions.size(); ++c) {
    const auto& condition = in.conditions[c];
    const double spread = spread_of(in, condition);
    double known = 0;
    std::vector<std::pair<int, double>> terms;
    for (const auto& t : condition.terms) {
      const auto& d = in.dimensions[static_cast<std::size_t>(t.dimension)];
      const int column = p.column_of[static_cast<std::size_t>(t.dimension)];
      if (d.measured) {
        known += t.coefficient * *d.measured;
        continue;
      }
      const auto same =
          std::find_if(terms.begin(), terms.end(), [&](const auto& x) { return x.first == column; });
      if (same != terms.end())
        same->second += t.coefficient / spread;
      else
        terms.emplace_back(column, t.coefficient / spread);
    }
    if (std::isfinite(condition.least))
      add({static_cast<int>(c), -1, false}, (known - condition.least) / spread, terms, 0);
    for (auto& term : terms) term.second = -term.second;
    if (std::isfinite(condition.most))
      add({static_cast<int>(c), -1, true}, (condition.most - known) / spread, terms, 0);
  }
  const int drawing = options.function_first ? 1 : 0;
  for (std::size_t j = 0; j < p.dimension_of.size(); ++j) {
    const int at = p.dimension_of[j];
    const auto& d = in.dimensions[static_cast<std::size_t>(at)];
    p.nominal[static_cast<int>(j)] = d.nominal;
    add({-1, at, false}, -d.lower / d.capability, {{static_cast<int>(j), 1 / d.capability}}, drawing);
    add({-1, at, true}, d.upper / d.capability, {{static_cast<int>(j), -1 / d.capability}}, drawing);
  }
  return p;
}

std::string limit_name(const TargetsInput& in, const Limit& limit) {
  if (limit.condition >= 0)
    return in.conditions[static_cast<std::size_t>(limit.condition)].id + (limit.upper ? ":max" : ":min");
  return in.dimensions[static_cast<std::size_t>(limit.dimension)].id + (limit.upper ? ":upper" : ":lower");
}

} // namespace

const Target* TargetsResult::target(int dimension) const {
  const auto found = std::lower_bound(targets.begin(), targets.end(), dimension,
                                      [](const Target& t, int d) { return t.dimension < d; });
  return found != targets.end() && found->dimension == dimension ? &*found : nullptr;
}

TargetsResult targets(const TargetsInput& in, const TargetsOptions& options) {
  TargetsResult out;
  if (out.message = refusal(in); !out.message.empty()) {
    out.status = TargetsStatus::refused;
    return out;
  }
  const auto p = state(in, options);
  margin::LexicographicOptions how;
  if (options.function_first) how.enough = options.enough;
  const auto best = margin::lexicographic({&p.margins, p.nominal, p.tiers}, how);
  out.programmes = best.programmes;
  if (!best.usable()) {
    out.status = TargetsStatus::failed;
    out.message = best.message;
    return out;
  }
  std::vector<double> value(in.dimensions.size());
  for (std::size_t d = 0; d < value.size(); ++d)
    value[d] = in.dimensions[d].measured ? *in.dimensions[d].measured : best.x[p.column_of[d]];
  std::vector<double> least(in.dimensions.size(), margin::infinite); // least room a dimension takes part in
  for (const auto& condition : in.conditions) {
    ConditionRoom room;
    room.spread = spread_of(in, condition);
    for (const auto& t : condition.terms)
      room.expected += t.coefficient * value[static_cast<std::size_t>(t.dimension)];
    room.room_least = (room.expected - condition.least) / room.spread;
    room.room_most = (condition.most - room.expected) / room.spread;
    room.room = std::min(room.room_least, room.room_most);
    for (const auto& t : condition.terms) {
      auto& l = least[static_cast<std::size_t>(t.dimension)];
      if (t.coefficient != 0) l = std::min(l, room.room);
    }
    out.least_room = std::min(out.least_room, room.room);
    out.conditions.push_back(room);
  }
  for (const int d : p.dimension_of) {
    const auto at = static_cast<std::size_t>(d);
    const auto& dimension = in.dimensions[at];
    Target target{d, value[at], 0, 0, 0};
    const double own =
        std::min(value[at] - dimension.lower, dimension.upper - value[at]) / dimension.capability;
    if (value[at] > dimension.upper) target.departs = value[at] - dimension.upper;
    if (value[at] < dimension.lower) target.departs = value[at] - dimension.lower;
    if (std::abs(target.departs) < 1e-9) target.departs = 0;
    // Where the drawing gives way it has no say in how near the number must be made.
    const bool gives_way = options.function_first && target.departs != 0;
    target.room = gives_way ? least[at] : std::min(least[at], own);
    target.hold = dimension.capability * target.room;
    out.least_room = std::min(out.least_room, own);
    out.targets.push_back(target);
  }
  out.feasible = out.least_room >= -1e-9;
  for (auto& room : out.conditions) room.limiting = room.room <= out.least_room + limiting_band;
  // The shadow prices, and that they balance: Σ λ a = 0 for every number still to be made proves the least
  // room.
  Eigen::VectorXd balance = Eigen::VectorXd::Zero(p.margins.columns());
  double sum = 0, by_prices = 0;
  for (int i = 0; i < p.margins.rows(); ++i) {
    const double share = best.multipliers.empty() ? 0 : best.multipliers[static_cast<std::size_t>(i)];
    if (!(share > 0)) continue;
    for (int k = p.margins.begin(i); k < p.margins.end(i); ++k)
      balance[p.margins.column(k)] += share * p.margins.coefficient(k);
    sum += share;
    by_prices += share * p.margins.offset(i);
    const auto& limit = p.limits[static_cast<std::size_t>(i)];
    out.held_by.push_back({limit_name(in, limit), limit.condition, limit.dimension, limit.upper, share});
  }
  std::stable_sort(out.held_by.begin(), out.held_by.end(),
                   [](const auto& a, const auto& b) { return a.share > b.share; });
  const double coefficient = 1 / no_spread; // the scale rooms are stated in
  out.proved =
      out.held_by.empty() || ((balance.size() == 0 || balance.cwiseAbs().maxCoeff() < 1e-7 * coefficient) &&
                              std::abs(sum - 1) < 1e-7 &&
                              std::abs(by_prices - best.least) < 1e-5 * std::max(1.0, std::abs(best.least)));
  out.status = TargetsStatus::computed;
  return out;
}

namespace {

/// What keeps `dimension` from the middle of its tightest condition: the nearest other limit with no more
/// room than that has, its own first, then those its mates take part in.
std::string room_elsewhere(const TargetsInput& in, const TargetsResult& result, int dimension, int tightest) {
  const double level = result.conditions[static_cast<std::size_t>(tightest)].room;
  const double as_tight = level + 1e-3 * std::max(1.0, std::abs(level));
  std::vector<char> seen(in.dimensions.size(), 0);
  std::vector<int> ring{dimension}; // dimensions as many joints away
  seen[static_cast<std::size_t>(dimension)] = 1;
  while (!ring.empty()) {
    for (const int d : ring) {
      const auto& own = in.dimensions[static_cast<std::size_t>(d)];
      const auto* target = result.target(d);
      if (target == nullptr || !own.limited) continue;
      const auto whose = d == dimension ? std::string("its") : "the " + own.id + "'s";
      if ((own.upper - target->make) / own.capability <= as_tight)
        return fmt::format("to keep within {} upper limit", whose);
      if ((target->make - own.lower) / own.capability <= as_tight)
        return fmt::format("to keep within {} lower limit", whose);
    }
    std::vector<int> next;
    for (std::size_t c = 0; c < in.conditions.size(); ++c) {
      const auto& terms = in.conditions[c].terms;
      const auto of_ring = [&](const TargetTerm& t) {
        return std::find(ring.begin(), ring.end(), t.dimension) != ring.end();
      };
      if (std::none_of(terms.begin(), terms.end(), of_ring)) continue;
      if (static_cast<int>(c) != tightest && result.conditions[c].room <= as_tight)
        return "to leave room in " + in.conditions[c].id;
      for (const auto& t : terms)
        if (!in.dimensions[static_cast<std::size_t>(t.dimension)].measured &&
            !std::exchange(seen[static_cast<std::size_t>(t.dimension)], 1))
          next.push_back(t.dimension);
    }
    ring = std::move(next);
  }
  return "nearer its nominal";
}

} // namespace

Reckoning target_sum(const TargetsInput& in, const TargetsResult& result, int dimension) {
  Reckoning sum;
  const auto* target = result.target(dimension);
  if (target == nullptr) return sum;
  const auto& own = in.dimensions[static_cast<std::size_t>(dimension)];
  sum.title = "make " + own.id;
  // The condition that is tightest for it, solved for it.
  int tightest = -1;
  double coefficient = 0;
  for (std::size_t c = 0; c < in.conditions.size(); ++c)
    for (const auto& t : in.conditions[c].terms)
      if (t.dimension == dimension && t.coefficient != 0 &&
          (tightest < 0 ||
           result.conditions[c].room < result.conditions[static_cast<std::size_t>(tightest)].room)) {
        tightest = static_cast<int>(c);
        coefficient = t.coefficient;
      }
  if (tightest < 0) {
    sum.lines.push_back({"the middle of its limits", (own.lower + own.upper) / 2, "drawing"});
    if (const double rest = target->make - sum.total(); std::abs(rest) > 1e-9)
      sum.lines.push_back({"nearer its nominal", rest, "drawing"});
    return sum;
  }
  const auto& condition = in.conditions[static_cast<std::size_t>(tightest)];
  double seen = 0; // its own coefficient may stand in several terms
  for (const auto& t : condition.terms)
    if (t.dimension == dimension) seen += t.coefficient;
  coefficient = seen != 0 ? seen : coefficient;
  for (const auto& t : condition.terms) {
    if (t.dimension == dimension) continue;
    const auto& d = in.dimensions[static_cast<std::size_t>(t.dimension)];
    const auto* other = result.target(t.dimension);
    const double value = d.measured ? *d.measured : other ? other->make : d.nominal;
    const double factor = -t.coefficient / coefficient;
    std::string label = d.id;
    if (std::abs(std::abs(factor) - 1) > 1e-9) label += fmt::format(" \u00D7 {:.4g}", std::abs(factor));
    sum.lines.push_back({std::move(label), factor * value, d.measured ? "measured" : "to be made"});
  }
  const double expected = result.conditions[static_cast<std::size_t>(tightest)].expected;
  const bool both = std::isfinite(condition.least) && std::isfinite(condition.most);
  const double middle = both ? (condition.least + condition.most) / 2 : expected;
  sum.lines.push_back({fmt::format("{} the middle of {}", coefficient > 0 ? "and" : "less", condition.id),
                       middle / coefficient, "condition"});
  if (const double rest = target->make - sum.total(); std::abs(rest) > 1e-9)
    sum.lines.push_back({room_elsewhere(in, result, dimension, tightest), rest, "levelled"});
  return sum;
}

Reckoning condition_sum(const TargetsInput& in, const TargetsResult& result, int condition) {
  Reckoning sum;
  if (condition < 0 || condition >= static_cast<int>(in.conditions.size())) return sum;
  const auto& c = in.conditions[static_cast<std::size_t>(condition)];
  sum.title = c.id + ", expected";
  for (const auto& t : c.terms) {
    const auto& d = in.dimensions[static_cast<std::size_t>(t.dimension)];
    const auto* target = result.target(t.dimension);
    const double value = d.measured ? *d.measured : target ? target->make : d.nominal;
    std::string label = d.id;
    if (std::abs(std::abs(t.coefficient) - 1) > 1e-9)
      label += fmt::format(" \u00D7 {:.4g}", std::abs(t.coefficient));
    sum.lines.push_back({std::move(label), t.coefficient * value, d.measured ? "measured" : "to be made"});
  }
  return sum;
}

} // namespace datrin::chains
