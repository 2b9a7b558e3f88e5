#include "allowance/ladder.h"

#include "quantity/drills.h"
#include "quantity/length_text.h"
#include "quantity/table.h"
#include "reaming_allowances_csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::allowance {

namespace {

/// The drill nearest `wanted` within `low` to `high`; null when the drawer has none.
const Drill* nearest(const std::vector<Drill>& drills, double wanted, double low, double high) {
  const Drill* best = nullptr;
  for (const auto& d : drills)
    if (d.size >= low - 1e-9 && d.size <= high + 1e-9 &&
        (best == nullptr || std::abs(d.size - wanted) < std::abs(best->size - wanted) - 1e-9))
      best = &d;
  return best;
}

} // namespace

ReamingAllowance reaming_allowance(double size) {
  static const auto table = read_table(data::reaming_allowances_csv);
  const int row = std::max(0, table.row_up_to(size) < 0 ? static_cast<int>(table.rows.size()) - 1
                                                        : table.row_up_to(size));
  const auto r = static_cast<std::size_t>(row);
  return {table.number(r, 1).value_or(0), table.number(r, 2).value_or(0), table.number(r, 3).value_or(0)};
}

LadderResult drill_ladder(const LadderInput& in, const LadderOptions& o) {
  LadderResult out;
  const auto refuse = [&](std::string why) {
    out.status = LadderStatus::refused;
    out.message = std::move(why);
    return out;
  };
  if (!(in.size > 0) || !std::isfinite(in.size)) return refuse("the finished diameter must be above 0");
  if (in.cored < 0 || !(in.cored < in.size))
    return refuse("the hole that is there is as large as the finished one");
  const auto text = [&](double mm) {
    return length_text(mm, in.drills, {.decimals_mm = 2, .decimals_inch = 4, .show_unit = true});
  };
  if (!(in.core_off >= 0) || !std::isfinite(in.core_off)) return refuse("the core stands off by 0 or more");
  if (in.cored > 0 && in.core_off > o.follows) {
    const double thick = (in.size - in.cored) / 2 + in.core_off, thin = thick - 2 * in.core_off;
    out.left = in.made == HoleMade::reamed ? reaming_allowance(in.size).usual : 0;
    const auto then = in.made == HoleMade::reamed
                          ? fmt::format(" Bore to {}, then ream.", text(in.size - out.left))
                          : std::string();
    out.verdict =
        thin > 0
            ? fmt::format(
                  "The core stands {} off, and a drill would follow it: bore it true with a single "
                  "point from the start, {} a side where the metal is thickest, {} where it is thinnest.{}",
                  text(in.core_off), text(thick), text(thin), then)
            : fmt::format(
                  "The core stands {} off and reaches {} beyond the finished hole on one side: it does "
                  "not clean up from here. Seat it anew, or plug the core and drill from the solid.",
                  text(in.core_off), text(-thin));
    out.status = LadderStatus::made;
    return out;
  }
  const auto drills = drill_drawer(in.drills);
  const Drill* last = nullptr;
  const auto want = reaming_allowance(in.size);
  switch (in.made) {
  case HoleMade::drilled:
    last = nearest(drills, in.size, in.size - 1e-6, in.size + 0.2);
    break;
  case HoleMade::reamed:
    last = nearest(drills, in.size - want.usual, in.size - want.most, in.size - want.least);
    break;
  case HoleMade::bored:
    last = nearest(drills, in.size - 2 * o.boring, in.size - 4 * o.boring, in.size - 0.5 * o.boring);
    break;
  }
  if (last == nullptr || last->size <= in.cored) {
    if (in.made == HoleMade::bored && in.cored > 0) {
      out.left = in.size - in.cored;
      out.verdict =
          fmt::format("No drill is needed: bore from the cored hole, {} a side.", text(out.left / 2));
      out.status = LadderStatus::made;
      return out;
    }
    return refuse(last == nullptr
                      ? "no drill of the drawer leaves the right allowance; take the other drawer, or bore"
                      : "the hole that is there leaves no drill to go through it");
  }
  // From the last drill down: each pilot a little over the web of the next.
  std::vector<Drill> down{*last};
  while (in.cored == 0 && down.back().size > o.first_without_pilot) {
    const double wanted = down.back().size * o.pilot;
    const auto* pilot = nearest(drills, wanted, 0.5 * wanted, down.back().size - 0.5);
    if (pilot == nullptr) break;
    down.push_back(*pilot);
  }
  double before = in.cored;
  for (auto d = down.rbegin(); d != down.rend(); ++d) {
    out.drills.push_back({d->name, d->size, (d->size - before) / 2});
    before = d->size;
  }
  out.left = in.size - last->size;
  const auto mm = [&](double v) {
    return length_text(v, in.drills, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
  };
  if (in.made == HoleMade::reamed) {
    out.least_left = want.least;
    out.most_left = want.most;
    out.verdict = fmt::format("{} on the diameter is left for the reamer; it wants {} to {}.", mm(out.left),
                              mm(want.least), mm(want.most));
  } else if (in.made == HoleMade::bored) {
    out.verdict = fmt::format("{} a side is left for boring.", mm(out.left / 2));
  } else {
    out.verdict = "A drill cuts a little over its size; ream or bore where that matters.";
  }
  out.status = LadderStatus::made;
  return out;
}

} // namespace datrin::allowance
