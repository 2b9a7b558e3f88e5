#include "route/plans.h"

#include "build/rows.h"
#include "route/datum_input.h"
#include "route/facing.h"
#include "route/other_datum.h"
#include "route/part_spread.h"
#include "route/plan_route.h"
#include "route/propose.h"
#include "route/suggest_setups.h"
#include "stock/part_stock.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::route {

using namespace build;

namespace {

std::string datum_words(const Build& build, const std::vector<Id>& datums) {
  if (datums.empty()) return "held as it came";
  const auto* first = build.find<PartSurface>(datums.front());
  std::string words = first != nullptr && first->round() ? "gripped on " : "stands on ";
  words += surface_name(build, datums.front());
  for (std::size_t k = 1; k < datums.size(); ++k)
    words += (k == 1 ? ", against " : " and ") + surface_name(build, datums[k]);
  return words;
}

class Plans {
public:
  Plans(const Build& build, Id part, const PlansOptions& options)
      : build_(build), part_(part), options_(options) {}

  PlansResult run() {
    std::vector<std::pair<std::string, std::vector<Setup>>> ways;
    for (const auto& datums : first_datum_choices())
      if (auto setups = suggest_setups(build_, part_, datums); !setups.empty())
        ways.emplace_back(datum_words(build_, datums), std::move(setups));
    std::vector<std::string> notes;
    const std::string squared = stock::needs_touches(build_, part_) ? "faced in the vise, face by face"
                                                                    : "squared in the vise, face by face";
    if (auto setups = facing_setups(build_, part_, &notes); !setups.empty())
      ways.emplace_back(squared, std::move(setups));
    if (ways.empty()) {
      out_.message = "nothing of this part is machined yet, or nothing reaches it";
      return std::move(out_);
    }
    for (std::size_t k = 0; k < ways.size(); ++k) {
      if (options_.should_stop && options_.should_stop()) {
        out_.stopped = true;
        break;
      }
      look_at(ways[k].first, ways[k].second);
      if (ways[k].first == squared && !found_.empty() && found_.back().words == squared)
        found_.back().notes = notes;
      ++out_.tried;
      if (options_.progress) options_.progress(static_cast<double>(k + 1) / static_cast<double>(ways.size()));
    }
    choose();
    return std::move(out_);
  }

private:
  std::vector<std::vector<Id>> first_datum_choices() const {
    std::vector<std::vector<Id>> choices;
    if (!stock::needs_touches(build_, part_)) {
      choices.push_back({});
      return choices;
    }
    const auto pieces = build_.pieces_of(part_);
    const Id piece = pieces.empty() ? 0 : pieces.front().first;
    const auto input = casting::piece_input(build_, piece);
    const auto found = casting::first_datums(
        datum_input(build_, part_, piece, input, casting::seat_or_start(build_, piece, input)));
    const auto surfaces = build_.surfaces_of(part_);
    for (const auto& choice : found.choices) {
      if (choices.size() >= options_.most_datums) break;
      std::vector<Id> datums;
      for (const int k : choice.surfaces)
        if (k >= 0) datums.push_back(surfaces[static_cast<std::size_t>(k)].first);
      choices.push_back(std::move(datums));
    }
    return choices;
  }

  void look_at(const std::string& words, const std::vector<Setup>& setups) {
    Rows rows(build_);
    for (const auto& [id, old] : build_.setups_of(part_)) rows.take_away(id);
    for (auto setup : setups) rows.add(std::move(setup));
    // What is there already stays, in the setup that reaches it now.
    const auto features = features_to_make(build_, part_);
    for (const auto& [id, o] : build_.operations_of(part_)) {
      if (o.setup == 0) continue;
      auto placed = *rows.build().find<Operation>(id);
      placed.setup = 0;
      for (const auto& f : features)
        if (placed.setup == 0 && makes(o, f)) placed.setup = setup_reaching(rows.build(), part_, f);
      const bool nothing = o.surfaces.empty() && o.bodies.empty();
      if (nothing && o.kind == OperationKind::deburr)
        rows.take_away(id); // one a setup is proposed anew
      else
        rows.set(id, placed);
    }
    rows.apply(propose_operations(rows.build(), part_));
    rows.apply(propose_deburring(rows.build(), part_));
    rows.apply(take_best_order(rows.build(), part_, {}));
    WholePlan plan;
    plan.words = words;
    auto searched = rows.build();
    plan.datums = better_datums(searched, part_);
    if (!plan.datums.empty()) {
      for (const auto& [id, setup] : searched.setups_of(part_))
        if (*rows.build().find<Setup>(id) != setup) rows.set(id, setup);
      rows.apply(take_best_order(rows.build(), part_, {}));
    }
    PlanOptions as_it_stands; // the best order was taken just now
    as_it_stands.find_best = false;
    const auto route = plan_route(rows.build(), part_, as_it_stands);
    plan.order = route.now;
    if (!plan.order.usable() || !route.unmade.empty()) return;
    for (const auto& [id, setup] : rows.build().setups_of(part_)) plan.setups.push_back(setup);
    const auto spread = part_spread(rows.build(), part_);
    for (const auto& d : spread.dimensions) {
      const double used = d.allowed > 0 ? d.expected() / d.allowed : 0;
      if (used <= plan.worst) continue;
      plan.worst = used;
      plan.worst_of = spread_name(build_, d);
    }
    plan.edit = rows.edit("Take the plan: " + words);
    found_.push_back(std::move(plan));
  }

  /// The best by setups, by spread and by time; then the next that differ from those.
  void choose() {
    const auto better = [](const WholePlan& a, const WholePlan& b) {
      if (a.order.setups != b.order.setups) return a.order.setups < b.order.setups;
      if (std::abs(a.worst - b.worst) > 1e-9) return a.worst < b.worst;
      return a.order.minutes < b.order.minutes;
    };
    std::stable_sort(found_.begin(), found_.end(), better);
    std::vector<std::size_t> taken;
    const auto take = [&](std::size_t k) {
      const auto same = [&](std::size_t m) {
        return m == k || (found_[m].words == found_[k].words) ||
               (found_[m].order.setups == found_[k].order.setups &&
                std::abs(found_[m].worst - found_[k].worst) < 1e-9 &&
                std::abs(found_[m].order.minutes - found_[k].order.minutes) < 1e-9);
      };
      if (taken.size() < options_.shown && std::none_of(taken.begin(), taken.end(), same)) taken.push_back(k);
    };
    if (found_.empty()) {
      out_.message = "no order of operations works from any of the first datums";
      return;
    }
    const auto least = [&](auto key) {
      std::size_t best = 0;
      for (std::size_t k = 1; k < found_.size(); ++k)
        if (key(found_[k]) < key(found_[best]) - 1e-9) best = k;
      return best;
    };
    take(0);
    take(least([](const WholePlan& p) { return p.worst; }));
    take(least([](const WholePlan& p) { return p.order.minutes; }));
    for (std::size_t k = 0; k < found_.size(); ++k) take(k);
    std::sort(taken.begin(), taken.end());
    for (const auto k : taken) out_.plans.push_back(std::move(found_[k]));
  }

  const Build& build_;
  Id part_;
  PlansOptions options_;
  std::vector<WholePlan> found_;
  PlansResult out_;
};

} // namespace

PlansResult best_plans(const Build& build, Id part, const PlansOptions& options) {
  if (!build.find<Part>(part)) return {{}, 0, false, "there is no part to plan"};
  return Plans(build, part, options).run();
}

} // namespace datrin::route
