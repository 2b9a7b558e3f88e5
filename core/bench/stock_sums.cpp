#include "bench/sum_lists.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::bench {

void add_stock_sums(std::vector<Sum>& list) {
  const std::string group = "Stock and blanks";
  list.push_back({"square-from-round",
                  group,
                  "Square from round bar",
                  "The largest square a round bar gives: D / \u221A2.",
                  {{"Bar diameter"}},
                  [](const SumValues& v, Unit) {
                    if (v[0].value <= 0) return wrong("Bar diameter: must be above 0");
                    return right({{"square", Quantity::length, v[0].value / std::sqrt(2.0), "D / \u221A2"}});
                  }});
  list.push_back(
      {"round-from-square",
       group,
       "Bar for a square",
       "The least round bar a square comes out of, and the round a square bar gives.",
       {{"Square across flats"}},
       [](const SumValues& v, Unit) {
         if (v[0].value <= 0) return wrong("Square across flats: must be above 0");
         return right(
             {{"bar, at least", Quantity::length, v[0].value * std::sqrt(2.0), "square \u00B7 \u221A2"},
              {"largest round from the square", Quantity::length, v[0].value, "across flats"}});
       }});
  list.push_back(
      {"facets",
       group,
       "Rounding by facets",
       "How far the corners of a blank with so many flats stand over its round: R (1 / cos(180\u00B0 / n) "
       "\u2212 1).",
       {{"Flats", Quantity::count}, {"Finished radius", Quantity::length, true}},
       [](const SumValues& v, Unit) {
         if (v[0].value < 3) return wrong("Flats: at least 3");
         const double over = 1 / std::cos(pi / v[0].value) - 1;
         std::vector<SumLine> lines{
             {"corners over the round, %", Quantity::number, 100 * over, "1 / cos(180\u00B0 / n) \u2212 1"}};
         if (v[1].given)
           lines.push_back({"corners stand over by", Quantity::length, over * v[1].value, "of the radius"});
         return right(lines);
       }});
  list.push_back(
      {"sawn-blank",
       group,
       "Near-round blank",
       "What a sawn blank leaves a side, and how far its centre may be off before it no longer cleans up.",
       {{"Blank, across"},
        {"Finished diameter"},
        {"Flats", Quantity::count, true, "0: round"},
        {"Least cut a side", Quantity::length, true}},
       [](const SumValues& v, Unit) {
         if (v[1].value <= 0) return wrong("Finished diameter: must be above 0");
         if (v[0].value <= v[1].value) return wrong("Blank, across: must be more than the finished diameter");
         const double side = (v[0].value - v[1].value) / 2;
         const double least = v[3].given ? v[3].value : 0;
         std::vector<SumLine> lines{
             {"metal a side", Quantity::length, side, "(blank \u2212 finished) / 2"},
             {"centre may be off by", Quantity::length, side - least, "metal a side less the least cut"}};
         if (v[2].given && v[2].value >= 3)
           lines.push_back({"corners stand over by", Quantity::length,
                            v[0].value / 2 * (1 / std::cos(pi / v[2].value) - 1),
                            "first cuts are interrupted"});
         return right(lines, side - least < 0 ? "It does not clean up even dead on centre." : "");
       }});
  list.push_back({"bar-length",
                  group,
                  "Is the bar long enough",
                  "Finished length, facing both ends, holding and parting off, against the bar there is.",
                  {{"Finished length"},
                   {"Facing, each end"},
                   {"Held in the chuck", Quantity::length, true},
                   {"Parting or saw cut", Quantity::length, true},
                   {"Bar there is", Quantity::length, true}},
                  [](const SumValues& v, Unit) {
                    const double need = v[0].value + 2 * v[1].value + v[2].value + v[3].value;
                    std::vector<SumLine> lines{
                        {"length needed", Quantity::length, need, "length + 2 facings + held + cut"}};
                    if (v[4].given)
                      lines.push_back({"over", Quantity::length, v[4].value - need, "bar \u2212 needed"});
                    return right(lines, v[4].given && v[4].value < need ? "The bar is too short." : "");
                  }});
  list.push_back({"bushing",
                  group,
                  "Offset bush",
                  "Outside diameter of a bush that holds a bar off centre: bar + 2 offset + 2 walls.",
                  {{"Bar diameter"}, {"Offset"}, {"Least wall"}},
                  [](const SumValues& v, Unit) {
                    if (v[0].value <= 0 || v[1].value < 0 || v[2].value < 0)
                      return wrong("Bar must be above 0, offset and wall not negative");
                    return right({{"outside diameter, at least", Quantity::length,
                                   v[0].value + 2 * v[1].value + 2 * v[2].value,
                                   "bar + 2 \u00B7 offset + 2 \u00B7 wall"}});
                  }});
  list.push_back(
      {"nest",
       group,
       "Several from one piece",
       "Strips sawn from one piece: widths and kerfs against what there is.",
       {{"Width of one"}, {"How many", Quantity::count}, {"Kerf"}, {"Piece there is"}},
       [](const SumValues& v, Unit) {
         const double n = v[1].value, need = n * v[0].value + (n - 1) * v[2].value;
         const double most = v[0].value + v[2].value > 0
                                 ? std::floor((v[3].value + v[2].value) / (v[0].value + v[2].value) + 1e-9)
                                 : 0;
         return right(
             {{"needed", Quantity::length, need, fmt::format("{:.0f} widths + {:.0f} kerfs", n, n - 1)},
              {"left over", Quantity::length, v[3].value - need, "piece \u2212 needed"},
              {"most that come out", Quantity::number, std::max(0.0, most), ""}},
             need > v[3].value + 1e-9 ? "They do not come out of it." : "They come out of it.");
       }});
  list.push_back({"chain-drill",
                  group,
                  "Chain drilling",
                  "Holes in a row with a thin web between: n d + (n \u2212 1) web.",
                  {{"Drill"},
                   {"Web between", Quantity::length, true, "0.005 in"},
                   {"Holes", Quantity::count, true},
                   {"Length to free", Quantity::length, true}},
                  [](const SumValues& v, Unit) {
                    if (v[0].value <= 0) return wrong("Drill: must be above 0");
                    const double web = v[1].given ? v[1].value : 5 * mm_per_thou;
                    if (web < 0) return wrong("Web between: must not be negative");
                    if (!v[2].given && !v[3].given) return wrong("Holes or Length to free: give one");
                    const double n =
                        v[2].given ? v[2].value : std::ceil((v[3].value + web) / (v[0].value + web) - 1e-9);
                    const double length = n * v[0].value + (n - 1) * web;
                    return right({{"holes", Quantity::count, n, ""},
                                  {"row is long", Quantity::length, length, "n d + (n \u2212 1) web"},
                                  {"pitch", Quantity::length, v[0].value + web, "d + web"}});
                  }});
  list.push_back({"protrusion",
                  group,
                  "Screw length",
                  "What a screw or stud stands out beyond what it grips.",
                  {{"Length of the screw"}, {"Grip"}, {"Nut", Quantity::length, true}},
                  [](const SumValues& v, Unit) {
                    const double out = v[0].value - v[1].value;
                    std::vector<SumLine> lines{{"stands out", Quantity::length, out, "length \u2212 grip"}};
                    if (v[2].given)
                      lines.push_back({"beyond the nut", Quantity::length, out - v[2].value, ""});
                    return right(lines, out < v[2].value ? "Too short." : "");
                  }});
  list.push_back(
      {"edge-margin",
       group,
       "Metal at the edge of a hole",
       "Metal between a hole and the edge, and as a part of the hole.",
       {{"Width over the edges"},
        {"Hole, or row of holes, across"},
        {"Hole diameter", Quantity::length, true}},
       [](const SumValues& v, Unit) {
         const double left = (v[0].value - v[1].value) / 2;
         std::vector<SumLine> lines{{"metal a side", Quantity::length, left, "(width \u2212 across) / 2"}};
         if (v[2].given && v[2].value > 0)
           lines.push_back({"in hole diameters", Quantity::number, left / v[2].value, ""});
         return right(lines, left <= 0 ? "No metal is left." : "");
       }});
}

} // namespace datrin::bench
