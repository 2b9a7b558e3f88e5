#include "bench/sum_lists.h"

#include "allowance/ladder.h"
#include "allowance/passes.h"
#include "cutting/speed.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "threads/threads.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::bench {

namespace {

constexpr auto no_metal = "not said";

std::vector<std::string> metal_choices() {
  std::vector<std::string> list{no_metal};
  for (auto& metal : cutting::metals_with_speeds()) list.push_back(std::move(metal));
  return list;
}

const char* const sings = "When it sings: slower by a third, feed a little more, less overhang, a lighter "
                          "tool nose. When chips are cut "
                          "twice: out oftener, air or a brush, cutting oil where the metal wants it. The "
                          "maker of the tool stands above "
                          "this.";

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
                  "Sizes to try at on metal that is faced away later: common practice five steps off, then "
                  "step by step; "
                  "the last by feel. A hole climbs, a shaft falls.",
                  {{"Size of the mate", Quantity::length, false, "", "mate"},
                   place({"Clearance wanted", Quantity::length, true, "0", "clearance"}),
                   {"What is cut", Quantity::choice, true, "", "of", {"hole", "shaft"}},
                   {"By steps of", Quantity::length, true, "0.001 in", "step"}},
                  [](const SumValues& v, Unit) {
                    const double way = v.text("What is cut") == "shaft" ? -1 : 1;
                    const double wanted = v("Size of the mate") + way * v("Clearance wanted");
                    const double step = v.given("By steps of") ? v("By steps of") : mm_per_thou;
                    if (!(step > 0)) return wrong("By steps of: must be above 0");
                    if (!(v("Size of the mate") > 0)) return wrong("Size of the mate: must be above 0");
                    std::vector<SumLine> lines;
                    constexpr int tries = 5;
                    for (int k = tries; k >= 0; --k)
                      lines.push_back(
                          {fmt::format("try {}", lines.size() + 1), Quantity::length, wanted - way * k * step,
                           k == 0 ? "the size wanted" : fmt::format("{} steps off, on the diameter", k)});
                    return right(lines);
                  }});
  list.push_back({"ream-ladder",
                  group,
                  "Drills to a reamed hole",
                  "Pilot, drill, and what is left for the reamer.",
                  {{"Reamed size"},
                   {"Cored hole", Quantity::length, true},
                   {"Core stands off by", Quantity::length, true}},
                  [](const SumValues& v, Unit unit) {
                    allowance::LadderInput in;
                    in.size = v("Reamed size");
                    in.cored = v.given("Cored hole") ? v("Cored hole") : 0;
                    in.core_off = v.given("Core stands off by") ? v("Core stands off by") : 0;
                    in.drills = unit;
                    const auto ladder = allowance::drill_ladder(in);
                    if (!ladder.usable()) return wrong(ladder.message);
                    std::vector<SumLine> lines;
                    for (const auto& d : ladder.drills)
                      lines.push_back({d.name, Quantity::length, d.size, "drill"});
                    lines.push_back({"left for the reamer, diameter", Quantity::length, ladder.left,
                                     "reamer \u2212 drill"});
                    const auto names = ladder_names(ladder);
                    return right(lines, names.empty() ? ladder.verdict : names + ". " + ladder.verdict);
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
                   place({"Station inboard", Quantity::length, true})},
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
  list.push_back(
      {"speed",
       group,
       "Surface speed",
       "Speed at a diameter and revolutions, and the other way round. Keep to the tool maker's and the "
       "machine's "
       "limits.",
       {{"Diameter"},
        {"Metres a minute", Quantity::number, true, "", "m_per_min"},
        {"Feet a minute", Quantity::number, true, "", "ft_per_min"},
        {"Revolutions a minute", Quantity::number, true, "", "rpm"},
        {"Speeds of the machine", Quantity::lengths, true, "60 95 150 240 380, or 200-1100", "speeds"},
        {"Feed a revolution", Quantity::length, true, "", "feed"},
        {"Metal", Quantity::choice, true, "", "metal", metal_choices()},
        {"Cutter of", Quantity::choice, true, "", "cutter", {"high-speed steel", "carbide"}}},
       [](const SumValues& v, Unit unit) {
         if (v("Diameter") <= 0) return wrong("Diameter: must be above 0");
         const bool by_rpm = v.given("Revolutions a minute"), by_m = v.given("Metres a minute"),
                    by_ft = v.given("Feet a minute");
         const auto& metal = v.text("Metal");
         const bool by_metal = !metal.empty() && metal != no_metal;
         if (by_rpm + by_m + by_ft + by_metal != 1)
           return wrong("Metres, Feet or Revolutions a minute: give one of the three, or the metal");
         if (!by_metal && !(v("Metres a minute") + v("Feet a minute") + v("Revolutions a minute") > 0))
           return wrong("Metres, Feet or Revolutions a minute: must be above 0");
         const double round = pi * v("Diameter") / 1000; // m
         const auto of =
             v.text("Cutter of") == "carbide" ? cutting::ToolMetal::carbide : cutting::ToolMetal::high_speed;
         const double rpm = by_rpm     ? v("Revolutions a minute")
                            : by_metal ? cutting::cutting_speed(metal, of) / round
                            : by_m     ? v("Metres a minute") / round
                                       : v("Feet a minute") * 0.3048 / round;
         std::vector<SumLine> lines;
         if (!by_m)
           lines.push_back({"metres a minute", Quantity::number, rpm * round, "\u03C0 D n", "m_per_min"});
         if (!by_ft)
           lines.push_back(
               {"feet a minute", Quantity::number, rpm * round / 0.3048, "\u03C0 D n", "ft_per_min"});
         if (!by_rpm)
           lines.push_back({"revolutions a minute", Quantity::number, rpm, "v / (\u03C0 D)", "rpm"});
         std::string words = by_metal ? sings : "";
         constexpr double fastest = 600; // m/min: carbide in aluminium (common practice)
         if (rpm * round > fastest)
           words = fmt::format(
               "{:.0f} m/min is faster than cutters go in any metal: is the diameter, {}, in the unit "
               "you mean?",
               rpm * round, length_text_both(v("Diameter"), unit));
         if (v.given("Speeds of the machine")) {
           const auto has = cutting::speeds_of(v.text("Speeds of the machine"));
           if (!has.wrong.empty()) return wrong("Speeds of the machine: " + has.wrong);
           double nearest = has.stepless ? has.below(rpm) : 0;
           // Nearest by ratio: half is as far as twice.
           for (const double speed : has.speeds)
             if (!has.stepless &&
                 (nearest == 0 || std::abs(std::log(speed / rpm)) < std::abs(std::log(nearest / rpm))))
               nearest = speed;
           lines.push_back({"nearest of the machine", Quantity::number, nearest, "by ratio", "nearest"});
           if (nearest > rpm)
             words = "The nearest is faster than asked; the next below is the safe one. " + words;
         }
         if (v.given("Feed a revolution"))
           lines.push_back(
               {"feed a minute", Quantity::length, v("Feed a revolution") * rpm, "feed \u00B7 n"});
         return right(lines, words);
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
