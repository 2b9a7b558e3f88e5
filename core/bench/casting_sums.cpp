#include "bench/sum_lists.h"

#include "quantity/angle.h"

#include "allowance/shares.h"
#include "drawing/contradictions.h"
#include "drawing/restate.h"
#include "quantity/length.h"
#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::bench {

namespace {

SumAnswer restated(drawing::RestateInput in) {
  const auto r = drawing::restate(in);
  if (!r.usable()) return wrong(r.message);
  std::vector<SumLine> lines{{"reads", Quantity::length, r.reading, "dimension and half pins"}};
  if (in.lower != 0 || in.upper != 0) {
    lines.push_back({"least reading", Quantity::length, r.reading_least, "lower limit"});
    lines.push_back({"most reading", Quantity::length, r.reading_most, "upper limit"});
  }
  lines.push_back(
      {"\u00B1 on the dimension", Quantity::length, r.band, "half the pin's clearance, and the instrument"});
  return right(lines, in.lower != 0 || in.upper != 0 ? r.verdict : std::string());
}

} // namespace

void add_casting_sums(std::vector<Sum>& list) {
  const std::string group = "Castings and drawings";
  list.push_back({"draft",
                  group,
                  "What draft takes",
                  "How far a drafted face runs out over its length: L tan a.",
                  {{"Length along the draw"}, {"Draft", Quantity::angle}},
                  [](const SumValues& v, Unit) {
                    if (v("Draft") < 0 || v("Draft") >= radians(45))
                      return wrong("Draft: from 0, below 45\u00B0");
                    return right({{"runs out by", Quantity::length,
                                   v("Length along the draw") * std::tan(v("Draft")), "L \u00B7 tan a"}});
                  }});
  list.push_back({"metal-a-side",
                  group,
                  "Metal a side in a bore",
                  "From the core to size, and after a drill in between.",
                  {{"Cored diameter"}, {"Finished diameter"}, {"After a drill of", Quantity::length, true}},
                  [](const SumValues& v, Unit) {
                    std::vector<SumLine> lines{{"a side, in all", Quantity::length,
                                                (v("Finished diameter") - v("Cored diameter")) / 2,
                                                "(finished \u2212 core) / 2"}};
                    if (v.given("After a drill of")) {
                      lines.push_back({"the drill takes a side", Quantity::length,
                                       (v("After a drill of") - v("Cored diameter")) / 2,
                                       "(drill \u2212 core) / 2"});
                      lines.push_back({"left a side", Quantity::length,
                                       (v("Finished diameter") - v("After a drill of")) / 2,
                                       "(finished \u2212 drill) / 2"});
                    }
                    return right(lines, v("Finished diameter") < v("Cored diameter")
                                            ? "The core is larger than the finished bore."
                                            : "");
                  }});
  list.push_back(
      {"bore-map",
       group,
       "Bore read at several depths",
       "Readings from the mouth inward, parted by blanks: smallest through, taper, and where a plug stops.",
       {{"Readings", Quantity::lengths, false, "2.4375 2.436 2.435 in"}, {"Plug", Quantity::length, true}},
       [](const SumValues& v, Unit unit) {
         std::vector<double> readings;
         std::string word;
         std::string text = v.text("Readings");
         LengthOptions reading;
         reading.bare_unit = unit;
         if (const auto tail = text.rfind(' '); tail != std::string::npos)
           if (const auto u = unit_from_name(std::string_view(text).substr(tail + 1))) {
             reading.bare_unit = *u;
             text.resize(tail);
           }
         for (std::size_t k = 0; k <= text.size(); ++k) {
           if (k < text.size() && text[k] != ' ' && text[k] != ';') {
             word += text[k];
             continue;
           }
           if (word.empty()) continue;
           const auto one = parse_length(word, reading);
           if (!one.ok()) return wrong("Readings: " + one.message);
           readings.push_back(one.mm);
           word.clear();
         }
         if (readings.size() < 2) return wrong("Readings: at least two, parted by blanks");
         const auto [least, most] = std::minmax_element(readings.begin(), readings.end());
         std::vector<SumLine> lines{
             {"smallest, goes through", Quantity::length, *least, "least of the readings"},
             {"taper over all", Quantity::length, readings.front() - readings.back(), "first \u2212 last"},
             {"from least to most", Quantity::length, *most - *least, ""}};
         std::string words;
         if (v.given("Plug")) {
           const auto stop =
               std::find_if(readings.begin(), readings.end(), [&](double r) { return r < v("Plug") - 1e-9; });
           words = stop == readings.end()
                       ? "The plug goes through."
                       : fmt::format("The plug stops at reading {}.", stop - readings.begin() + 1);
         }
         return right(lines, words);
       }});
  list.push_back({"split",
                  group,
                  "Splitting the metal between two faces",
                  "How much comes off each side, of what there is over both.",
                  {{"Metal over both"}, {"Off the first side"}},
                  [](const SumValues& v, Unit) {
                    const double other = v("Metal over both") - v("Off the first side");
                    return right({{"off the second side", Quantity::length, other, "both \u2212 first"},
                                  {"half each would be", Quantity::length, v("Metal over both") / 2, ""}},
                                 other < 0 ? "The first side takes more than there is." : "");
                  }});
  list.push_back({"over-pin",
                  group,
                  "Hole from an edge, over a pin",
                  "Edge to the far side of a pin in the hole, with what the pin's clearance leaves open.",
                  {{"Edge to centre"},
                   {"Pin"},
                   {"Hole", Quantity::length, true},
                   {"Limits \u00B1", Quantity::length, true},
                   {"Instrument \u00B1", Quantity::length, true}},
                  [](const SumValues& v, Unit) {
                    drawing::RestateInput in;
                    in.nominal = v("Edge to centre");
                    in.pin = v("Pin");
                    in.hole = v.given("Hole") ? v("Hole") : 0;
                    in.upper = v.given("Limits \u00B1") ? v("Limits \u00B1") : 0;
                    in.lower = -in.upper;
                    in.instrument = v.given("Instrument \u00B1") ? v("Instrument \u00B1") : 0;
                    return restated(in);
                  }});
  list.push_back(
      {"between-pins",
       group,
       "Centre distance over two pins",
       "Over and between two pins in two holes.",
       {{"Centre distance"}, {"First pin"}, {"Second pin"}},
       [](const SumValues& v, Unit) {
         if (v("First pin") <= 0 || v("Second pin") <= 0) return wrong("Pins must be above 0");
         const double half = (v("First pin") + v("Second pin")) / 2;
         return right(
             {{"over the pins", Quantity::length, v("Centre distance") + half, "c + (d + e) / 2"},
              {"between the pins", Quantity::length, v("Centre distance") - half, "c \u2212 (d + e) / 2"}});
       }});
  list.push_back(
      {"web",
       group,
       "Web beside a hole",
       "Metal between a hole and an edge, from the centre.",
       {{"Edge to centre"}, {"Hole"}},
       [](const SumValues& v, Unit) {
         return right({{"web", Quantity::length, v("Edge to centre") - v("Hole") / 2, "c \u2212 D / 2"}});
       }});
  list.push_back(
      {"ball",
       group,
       "Mouth of a cone by a ball",
       "Top of a ball over the face of a countersink or taper.",
       {{"Mouth diameter"}, {"Ball"}, {"Whole angle", Quantity::angle, false, "", "", {}, TaperOf::cone}},
       [](const SumValues& v, Unit) {
         drawing::RestateInput in;
         in.how = drawing::Restated::ball_in_cone;
         in.nominal = v("Mouth diameter");
         in.pin = v("Ball");
         in.half_angle = v("Whole angle") / 2;
         const auto r = drawing::restate(in);
         if (!r.usable()) return wrong(r.message);
         return right({{"top of the ball over the face", Quantity::length, r.reading,
                        "r / sin \u03B1 + r \u2212 D / (2 tan \u03B1)"},
                       {"a thou on the mouth moves it by", Quantity::length, std::abs(r.factor) * mm_per_thou,
                        "1 / (2 tan \u03B1)"}});
       }});
  list.push_back({"angle-legs",
                  group,
                  "Which angle was meant",
                  "What an angle and its complement climb over a length.",
                  {{"Angle", Quantity::angle}, {"Over a length of"}},
                  [](const SumValues& v, Unit) {
                    if (v("Angle") <= 0 || v("Angle") >= pi / 2)
                      return wrong("Angle: between 0 and 90\u00B0");
                    const auto legs = drawing::angle_legs(v("Angle"), v("Over a length of"));
                    return right({{"as written, climbs", Quantity::length, legs.leg, "L \u00B7 tan a"},
                                  {"complement", Quantity::angle, legs.complement, "90\u00B0 \u2212 a"},
                                  {"as the complement, climbs", Quantity::length, legs.other_leg,
                                   "L \u00B7 tan(90\u00B0 \u2212 a)"}},
                                 "Look which of the two the drawing shows: ends parallel, or mirrored.");
                  }});
  list.push_back({"full-round",
                  group,
                  "Full round of an edge",
                  "Radius of a full round on an edge of a thickness.",
                  {{"Thickness"}},
                  [](const SumValues& v, Unit) {
                    return right({{"radius", Quantity::length, v("Thickness") / 2, "t / 2"}});
                  }});
}

} // namespace datrin::bench
