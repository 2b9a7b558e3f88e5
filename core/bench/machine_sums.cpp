#include "bench/places_in.h"
#include "bench/sum_lists.h"

#include "geometry/best_fit.h"
#include "quantity/length.h"
#include "quantity/length_text.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <cmath>

namespace datrin::bench {

namespace {

SumAnswer middle(const SumValues& v, Unit) {
  const bool inside = v.text("Touched") == "inside";
  const double apart = std::abs(v("Second reading") - v("First reading"));
  const double size = inside ? apart + v("Finder, across") : apart - v("Finder, across");
  if (v("Finder, across") < 0) return wrong("Finder, across: must not be below 0");
  if (size <= 0)
    return wrong(
        "The two readings are nearer than the finder is across: was the second taken on the other side?");
  const double at = (v("First reading") + v("Second reading")) / 2;
  std::vector<SumLine> lines{
      {"middle at", Quantity::length, at, "(first + second) / 2", "middle"},
      {"size", Quantity::length, size, inside ? "apart + finder" : "apart \u2212 finder", "size"},
      {"from the second go back", Quantity::length, apart / 2, "half of what it moved", "back"}};
  std::string words =
      "Set zero there. Touch each side twice: touches that differ have a burr or a chip between.";
  if (v.given("First touched again")) {
    const double off = std::abs(v("First touched again") - v("First reading"));
    lines.push_back({"touches differ by", Quantity::length, off, "", "differ"});
    constexpr double agree = 0.02; // mm: twice what a hand feels at an edge (common practice)
    words = off > agree ? "The two touches do not agree: dress the edge, clean the finder, touch again."
                        : "The touches agree: set zero at the middle.";
  }
  return right(lines, words);
}

SumAnswer edge(const SumValues& v, Unit) {
  const double half = v("Finder, across") / 2;
  if (half < 0) return wrong("Finder, across: must not be below 0");
  const bool minus = v.text("Moved towards") == "minus";
  const double at = v("Reading at the touch") + (minus ? -half : half);
  std::vector<SumLine> lines{{"edge at", Quantity::length, at,
                              minus ? "reading \u2212 half the finder" : "reading + half the finder",
                              "edge"}};
  if (v.given("From the edge"))
    lines.push_back(
        {"stand at", Quantity::length, at + (minus ? -1 : 1) * v("From the edge"), "edge, and on", "stand"});
  return right(lines, "The spindle is half the finder short of the edge when it touches.");
}

/// Circle of least squared distances; exact through three.
SumAnswer circle(const SumValues& v, Unit unit) {
  std::string why;
  const auto at = places_in(v.text("Touches"), unit, why);
  if (!why.empty()) return wrong("Touches: " + why);
  if (at.size() < 3) return wrong("Touches: three at least");
  if (v("Finder, across") < 0) return wrong("Finder, across: must not be below 0");
  const auto fit = fit_circle(at);
  if (!fit) return wrong("Touches: they lie in one line and make no circle");
  double off = 0;
  for (const auto& p : at) off = std::max(off, std::abs((p - fit->centre).norm() - fit->radius));
  const bool boss = v.text("Touched") == "boss";
  const double diameter = 2 * fit->radius + (boss ? -1 : 1) * v("Finder, across");
  if (diameter <= 0) return wrong("Finder, across: wider than what it touched");
  std::vector<SumLine> lines{
      {"middle, x", Quantity::length, fit->centre.x(), "circle through the touches", "x"},
      {"middle, y", Quantity::length, fit->centre.y(), "", "y"},
      {"diameter", Quantity::length, diameter, boss ? "circle \u2212 finder" : "circle + finder",
       "diameter"}};
  if (at.size() > 3) lines.push_back({"touches lie off it by", Quantity::length, off, "at most", "off"});
  return right(lines, at.size() > 3 ? "" : "A fourth touch would say whether the three are right.");
}

SumAnswer moves(const SumValues& v, Unit unit) {
  LengthOptions lengths;
  lengths.bare_unit = unit;
  const auto read = parse_length(v.text("Moves"), lengths);
  if (!read.ok()) return wrong("Moves: " + read.message);
  double at = v("From");
  std::vector<SumLine> lines;
  for (std::size_t k = 0; k < read.terms.size(); ++k) {
    at += read.terms[k].mm;
    lines.push_back({fmt::format("after {}", read.terms[k].text), Quantity::length, at,
                     "all moves up to here", fmt::format("at_{}", k + 1)});
  }
  lines.push_back({"in all", Quantity::length, read.mm, read.understood, "total"});
  return right(lines,
               "Absolute from the datum: a read-out left in incremental shows the single moves instead.");
}

SumAnswer row(const SumValues& v, Unit) {
  const auto holes = static_cast<int>(v("Holes"));
  constexpr int most = 200;
  if (holes > most) return wrong("Holes: at most 200");
  if (v.given("Pitch") == v.given("First to last")) return wrong("Pitch, First to last: give one of the two");
  const double pitch = v.given("Pitch") ? v("Pitch") : holes > 1 ? v("First to last") / (holes - 1) : 0;
  const bool middle_stated = v.given("Middle at");
  if (middle_stated && v.given("First at")) return wrong("First at, Middle at: give one of the two");
  const double first = middle_stated ? v("Middle at") - pitch * (holes - 1) / 2 : v("First at");
  std::vector<SumLine> lines;
  for (int k = 0; k < holes; ++k) {
    const double at = first + k * pitch;
    lines.push_back({fmt::format("hole {}", k + 1), Quantity::length, std::abs(at) < 1e-12 ? 0 : at,
                     "first + so many pitches", fmt::format("x_{}", k + 1)});
  }
  lines.push_back({"first to last", Quantity::length, pitch * (holes - 1), "", "span"});
  return right(lines, "Each counts from the datum, not from the hole before: errors do not add up.");
}

SumAnswer beside_line(const SumValues& v, Unit) {
  const double width = v("Width"), cutter = v("Cutter");
  if (width <= 0 || cutter <= 0) return wrong("Width, Cutter: must be above 0");
  if (v.text("Of a") == "boss") {
    return right({{"cutter beside the middle", Quantity::length, (width + cutter) / 2, "(boss + cutter) / 2",
                   "offset"}},
                 "Both sides alike; climb only with the backlash taken up and a light cut.");
  }
  if (cutter > width) return wrong("Cutter: wider than the slot");
  const double off = (width - cutter) / 2;
  return right(
      {{"cutter beside the middle", Quantity::length, off, "(slot \u2212 cutter) / 2", "offset"},
       {"from wall to wall the table goes", Quantity::length, 2 * off, "slot \u2212 cutter", "travel"}},
      off == 0 ? "The cutter is the slot: it cuts a little wide, try it on scrap."
               : "Down the middle first, then each wall.");
}

SumAnswer micro_drill(const SumValues& v, Unit) {
  const double d = v("Drill"), top = v("Top speed, rpm");
  if (d <= 0 || d > 3) return wrong("Drill: above 0, up to 3 mm");
  if (v("Depth") < 0) return wrong("Depth: must not be below 0");
  if (top < 0) return wrong("Top speed, rpm: must not be below 0");
  const double speed = v.given("Metres a minute") ? v("Metres a minute") : 20;
  if (speed <= 0) return wrong("Metres a minute: must be above 0");
  const double wanted = speed * 1000 / (pi * d);
  const double rpm = top > 0 ? std::min(top, wanted) : wanted;
  std::vector<SumLine> lines{{"turn at, rpm", Quantity::number, rpm,
                              top > 0 && top < wanted ? "all the machine has" : "v / (\u03C0 d)", "rpm"},
                             {"that is, m/min", Quantity::number, rpm * pi * d / 1000, "", "m_per_min"},
                             {"out for chips every", Quantity::length, d,
                              "a diameter, less as it gets deep (common practice)", "peck"},
                             {"expect it over by about", Quantity::length, 0.4 * d < 0.05 ? 0.4 * d : 0.05,
                              "two fifths of a tiny drill, at most 0.05 mm (common practice)", "over"}};
  if (v("Depth") > 0)
    lines.push_back({"pecks", Quantity::number, std::ceil(v("Depth") / d), "depth / diameter", "pecks"});
  return right(lines, std::string(top > 0 && top < wanted
                                      ? "Slower than it should: feed by feel, it breaks when forced. "
                                      : "") +
                          "Spot it 0.05 to 0.08 mm deep first. Eyes: broken drills fly.");
}

} // namespace

void add_machine_sums(std::vector<Sum>& list) {
  const std::string group = "At the machine";
  list.push_back(
      {"middle",
       group,
       "Middle between two touches",
       "Both sides touched: where the middle is, and the size between. Finder across: of the probe or "
       "edge finder; of outside touches it is taken off, of a slot or bore added.",
       {place({"First reading", Quantity::length, false, "", "first"}),
        place({"Second reading", Quantity::length, false, "", "second"}),
        {"Finder, across", Quantity::length, true, "0", "finder"},
        {"Touched", Quantity::choice, true, "", "of", {"outside", "inside"}},
        place({"First touched again", Quantity::length, true, "", "again"})},
       middle});
  list.push_back({"edge",
                  group,
                  "Edge from one touch",
                  "Where an edge is, from the reading at the touch and the way the finder moved.",
                  {place({"Reading at the touch", Quantity::length, false, "", "reading"}),
                   {"Finder, across", Quantity::length, false, "6 mm", "finder"},
                   {"Moved towards", Quantity::choice, true, "", "towards", {"plus", "minus"}},
                   place({"From the edge", Quantity::length, true, "", "from"})},
                  edge});
  list.push_back({"circle-touches",
                  group,
                  "Middle of a bore or boss by touches",
                  "Three touches or more, x and y of each: the middle and the diameter.",
                  {{"Touches", Quantity::lengths, false, "10,0 0,10 -10,0", "touches"},
                   {"Finder, across", Quantity::length, true, "0", "finder"},
                   {"Touched", Quantity::choice, true, "", "of", {"bore", "boss"}}},
                  circle});
  list.push_back({"moves",
                  group,
                  "Moves added up",
                  "A list of moves in whatever units, plus and minus, as places from the datum.",
                  {{"Moves", Quantity::lengths, false, "3 mm + 9.195 mm - 1/8 in", "moves"},
                   place({"From", Quantity::length, true, "0", "from"})},
                  moves});
  list.push_back({"hole-row",
                  group,
                  "Holes in a row",
                  "Where each stands from the datum: from the first, or each side of a middle.",
                  {{"Holes", Quantity::count, false, "", "holes"},
                   {"Pitch", Quantity::length, true, "", "pitch"},
                   {"First to last", Quantity::length, true, "", "over"},
                   place({"First at", Quantity::length, true, "0", "first"}),
                   place({"Middle at", Quantity::length, true, "", "middle"})},
                  row});
  list.push_back({"cutter-offset",
                  group,
                  "Cutter beside a line",
                  "How far the cutter stands beside the middle line of a slot or of a boss.",
                  {{"Width", Quantity::length, false, "", "width"},
                   {"Cutter", Quantity::length, false, "", "cutter"},
                   {"Of a", Quantity::choice, true, "", "of", {"slot", "boss"}}},
                  beside_line});
  list.push_back({"micro-drill",
                  group,
                  "Tiny drills",
                  "Speed within what the machine has, pecks, and how much over it drills.",
                  {{"Drill", Quantity::length, false, "", "drill"},
                   {"Top speed, rpm", Quantity::number, true, "", "top"},
                   {"Metres a minute", Quantity::number, true, "20", "m_per_min"},
                   {"Depth", Quantity::length, true, "", "depth"}},
                  micro_drill});
}

} // namespace datrin::bench
