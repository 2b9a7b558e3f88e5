#include "bench/sum_lists.h"

#include "allowance/ladder.h"
#include "allowance/passes.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "threads/threads.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::bench {

namespace {

std::string ladder_names(const allowance::LadderResult& ladder) {
  std::string names;
  for (const auto& d : ladder.drills) names += (names.empty() ? "" : ", then ") + d.name;
  return names;
}

} // namespace

void add_cutting_sums(std::vector<Sum>& list) {
  const std::string group = "Cutting";
  list.push_back({"announced",
                  group,
                  "Do the passes add up",
                  "Passes as they were announced against the metal there is.",
                  {{"Passes", Quantity::lengths, false, "0.0975 + 0.150 + 0.040"}, {"Metal there is"}},
                  [](const SumValues& v, Unit unit) {
                    const auto check =
                        allowance::check_announced(v.text("Passes"), v("Metal there is"), unit, false);
                    if (!check.ok) return wrong("Passes: " + check.message);
                    return right({{"they add up to", Quantity::length, check.total, ""},
                                  {"too much", Quantity::length, check.off, "sum \u2212 what there is"}},
                                 check.verdict);
                  }});
  list.push_back({"remainder",
                  group,
                  "What is left to come off",
                  "From a measurement: on the diameter and a side.",
                  {{"Measures now"}, {"Finished size"}},
                  [](const SumValues& v, Unit) {
                    const double left = v("Measures now") - v("Finished size");
                    return right({{"left, on the diameter", Quantity::length, left, "now \u2212 finished"},
                                  {"left, a side", Quantity::length, left / 2, "half"}},
                                 left < 0 ? "It is past size already (for a bore: read the other way round)."
                                          : "");
                  }});
  list.push_back({"creep",
                  group,
                  "Creeping up to a fit",
                  "Sizes to try at on metal that is faced away later: common practice 5 thou off, then by "
                  "single thous, the last by feel.",
                  {{"Size of the mate"}},
                  [](const SumValues& v, Unit) {
                    std::vector<SumLine> lines;
                    for (const double step : allowance::trial_steps(5 * mm_per_thou))
                      lines.push_back({fmt::format("try {} off", lines.size() + 1), Quantity::length,
                                       v("Size of the mate") + step, ""});
                    return right(lines);
                  }});
  list.push_back({"ream-ladder",
                  group,
                  "Drills to a reamed hole",
                  "Pilot, drill, and what is left for the reamer.",
                  {{"Reamed size"}, {"Cored hole", Quantity::length, true}},
                  [](const SumValues& v, Unit unit) {
                    allowance::LadderInput in;
                    in.size = v("Reamed size");
                    in.cored = v.given("Cored hole") ? v("Cored hole") : 0;
                    in.drills = unit;
                    const auto ladder = allowance::drill_ladder(in);
                    if (!ladder.usable()) return wrong(ladder.message);
                    std::vector<SumLine> lines;
                    for (const auto& d : ladder.drills)
                      lines.push_back({d.name, Quantity::length, d.size, "drill"});
                    lines.push_back({"left for the reamer, diameter", Quantity::length, ladder.left,
                                     "reamer \u2212 drill"});
                    return right(lines, ladder_names(ladder) + ". " + ladder.verdict);
                  }});
  list.push_back({"tap-drill",
                  group,
                  "Tapping drill",
                  "Drill for a thread by name, and the per cent of thread any drill leaves.",
                  {{"Thread", Quantity::lengths, false, "M6, 5/16-18, 4BA"},
                   {"Drill", Quantity::length, true},
                   {"Wanted, %", Quantity::number, true, "as the standard has it"}},
                  [](const SumValues& v, Unit unit) {
                    const auto found = threads::find(v.text("Thread"));
                    if (!found.thread) return wrong("Thread: " + found.message);
                    const auto* thread = found.thread;
                    if (v.given("Drill")) {
                      const double percent = thread->percent_of(v("Drill"));
                      return right({{"per cent of thread", Quantity::number, percent,
                                     "(major \u2212 hole) / (2 \u00B7 depth)"}},
                                   percent > 100  ? "More than a full thread: the tap will break."
                                   : percent < 55 ? "Less than most take."
                                                  : "");
                    }
                    threads::TapInput in{*thread};
                    in.percent = v.given("Wanted, %") ? v("Wanted, %") : 0;
                    in.drawer = unit;
                    const auto plan = threads::plan_tap(in);
                    if (!plan.ok) return wrong("Wanted, %: " + plan.message);
                    return right({{plan.drill.name, Quantity::length, plan.drill.size, "drill"},
                                  {"per cent of thread", Quantity::number, plan.drill.percent, ""}},
                                 plan.verdict);
                  }});
  list.push_back({"drill-point",
                  group,
                  "Point of a drill",
                  "How far the point goes beyond the full diameter: D / (2 tan(point / 2)).",
                  {{"Drill"}, {"Point angle", Quantity::angle, true, "118\u00B0"}},
                  [](const SumValues& v, Unit) {
                    const double point = v.given("Point angle") ? v("Point angle") : radians(118);
                    if (point <= 0 || point >= pi) return wrong("Point angle: between 0 and 180\u00B0");
                    return right({{"point", Quantity::length, v("Drill") / (2 * std::tan(point / 2)),
                                   "D / (2 tan(point / 2))"}});
                  }});
  list.push_back({"taper-length",
                  group,
                  "How long a taper comes out",
                  "From the large and small end and the rate; and what one station inboard adds.",
                  {{"Large end"},
                   {"Small end"},
                   {"Taper, on"},
                   {"in a length of"},
                   {"Station inboard", Quantity::length, true}},
                  [](const SumValues& v, Unit) {
                    if (v("Taper, on") <= 0 || v("in a length of") <= 0)
                      return wrong("Taper and its length must be above 0");
                    if (v("Large end") < v("Small end"))
                      return wrong("Large end: must not be less than the small end");
                    const double rate = v("Taper, on") / v("in a length of");
                    std::vector<SumLine> lines{{"length", Quantity::length,
                                                (v("Large end") - v("Small end")) / rate,
                                                "(large \u2212 small) / rate"}};
                    if (v.given("Station inboard"))
                      lines.push_back({"width there, more by", Quantity::length, v("Station inboard") * rate,
                                       "station \u00B7 rate"});
                    return right(lines);
                  }});
  list.push_back({"surface-speed",
                  group,
                  "Surface speed",
                  "Speed at a diameter and revolutions, and the other way round. Keep to the tool maker's "
                  "and the machine's limits.",
                  {{"Diameter"},
                   {"Revolutions a minute", Quantity::number, true},
                   {"Metres a minute", Quantity::number, true},
                   {"Feed a revolution", Quantity::length, true}},
                  [](const SumValues& v, Unit) {
                    if (v("Diameter") <= 0) return wrong("Diameter: must be above 0");
                    std::vector<SumLine> lines;
                    double rpm = v("Revolutions a minute");
                    if (v.given("Revolutions a minute")) {
                      lines.push_back({"metres a minute", Quantity::number,
                                       pi * v("Diameter") * v("Revolutions a minute") / 1000, "\u03C0 D n"});
                      lines.push_back({"feet a minute", Quantity::number,
                                       pi * v("Diameter") * v("Revolutions a minute") / 304.8, "\u03C0 D n"});
                    } else if (v.given("Metres a minute")) {
                      rpm = v("Metres a minute") * 1000 / (pi * v("Diameter"));
                      lines.push_back({"revolutions a minute", Quantity::number, rpm, "v / (\u03C0 D)"});
                    } else {
                      return wrong("Revolutions or Metres a minute: give one");
                    }
                    if (v.given("Feed a revolution"))
                      lines.push_back(
                          {"feed a minute", Quantity::length, v("Feed a revolution") * rpm, "feed \u00B7 n"});
                    return right(lines);
                  }});
  list.push_back({"dial",
                  group,
                  "What the dial should read",
                  "Metal a side as a dial shows it that reads the diameter, or a side.",
                  {{"Depth a side"}},
                  [](const SumValues& v, Unit) {
                    return right({{"a side", Quantity::length, v("Depth a side"), ""},
                                  {"on the diameter", Quantity::length, 2 * v("Depth a side"), "twice"}});
                  }});
}

} // namespace datrin::bench
