#include "bench/sum_lists.h"

#include "quantity/angle.h"
#include "quantity/length.h"
#include "quantity/length_text.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::bench {

namespace {

/// A taper hole by two balls that lie in it, the small one deeper: between their centres the radius grows by
/// the sine of half the angle.
SumAnswer two_balls(const SumValues& v, Unit) {
  const double small = v("Small ball") / 2, large = v("Large ball") / 2;
  if (small <= 0 || large <= 0) return wrong("Small ball, Large ball: must be above 0");
  if (large <= small) return wrong("Large ball: must be larger than the small one");
  // Centres below the face.
  const double deep = v("Small ball's top below the face") + small,
               high = v("Large ball's top below the face") + large;
  if (deep <= high) return wrong("The small ball must lie deeper than the large one");
  const double sine = (large - small) / (deep - high);
  if (sine >= 1) return wrong("No cone holds both balls so: read the heights again");
  const double half = std::asin(sine);
  const double mouth = 2 * (large / std::cos(half) + high * std::tan(half));
  return right(
      {{"included angle", Quantity::angle, 2 * half, "2 asin((R \u2212 r) / between centres)", "included"},
       {"mouth", Quantity::length, mouth, "2 (R / cos a + centre's depth \u00B7 tan a)", "mouth"},
       {"taper on the diameter, 1 in", Quantity::number, 1 / (2 * std::tan(half)), "", "one_in"}},
      "A top above the face is read below 0.");
}

SumAnswer dovetail(const SumValues& v, Unit) {
  const double angle = v("Angle"), pin = v("Pin");
  if (angle <= radians(10) || angle >= radians(90))
    return wrong("Angle: between 10 and 90\u00B0, 60\u00B0 is usual");
  if (pin <= 0) return wrong("Pin: must be above 0");
  if (v("Width at its widest") <= 0 || v("Depth") <= 0) return wrong("Width, Depth: must be above 0");
  const double slope = v("Depth") / std::tan(angle);
  const double narrow = v("Width at its widest") - 2 * slope;
  if (narrow <= 0) return wrong("Depth: the slopes meet before that");
  const double pins = pin * (1 + 1 / std::tan(angle / 2));
  const bool female = v.text("Of") == "female";
  // The pins lie in the sharp corners: of a male at its narrow foot, of a female in its wide bottom.
  const double over = female ? v("Width at its widest") - pins : narrow + pins;
  if (over <= 0) return wrong("Pin: too thick to lie in the corners");
  std::vector<SumLine> lines{
      {female ? "between the pins" : "over the pins", Quantity::length, over,
       female ? "wide \u2212 d (1 + cot(a / 2))" : "narrow + d (1 + cot(a / 2))",
       female ? "between" : "over"},
      {"narrow side", Quantity::length, narrow, "wide \u2212 2 depth / tan a", "narrow"}};
  const double touches = pin / 2 / std::tan(angle / 2) * std::sin(angle);
  return right(lines, touches > v("Depth") ? "The pin touches above the slope: take a thinner one." : "");
}

SumAnswer tailstock(const SumValues& v, Unit) {
  if (v("Between centres") <= 0) return wrong("Between centres: must be above 0");
  if (v("Whole angle") <= 0 || v("Whole angle") >= radians(40))
    return wrong("Whole angle: above 0, below 40\u00B0; \"1 in 20\" counts on the diameter");
  const double over = v("Between centres") * std::sin(v("Whole angle") / 2);
  return right(
      {{"set the tailstock over by", Quantity::length, over, "L \u00B7 sin(half the angle)", "over"}},
      "Between the bottoms of the centre holes. Ball-ended centres wear them less.");
}

SumAnswer draw(const SumValues& v, Unit) {
  if (v("1 in n") <= 0) return wrong("1 in n: must be above 0");
  const double moves = v("Wider by") * v("1 in n");
  return right({{"it goes further by", Quantity::length, moves, "width \u00B7 n", "draw"}},
               "A key or a taper on the diameter; the other way round it stands so much proud.");
}

SumAnswer gauge_stack(const SumValues& v, Unit unit) {
  LengthOptions lengths;
  lengths.bare_unit = unit;
  std::vector<double> blocks;
  for (const auto word : words_of(v.text("Blocks"))) {
    const auto read = parse_length(std::string(word), lengths);
    if (!read.ok() || read.mm <= 0) return wrong(fmt::format("Blocks: \"{}\" is no block", word));
    blocks.push_back(read.mm);
  }
  constexpr std::size_t most_blocks = 200;
  if (blocks.size() > most_blocks) return wrong("Blocks: at most 200");
  if (v("Height") <= 0) return wrong("Height: must be above 0");
  std::sort(blocks.rbegin(), blocks.rend());
  constexpr double same = 0.0004; // mm: a metric block beside an inch one
  std::vector<double> used;
  // Fewest first; largest first among them.
  int looked_at = 0;
  constexpr int most_looked_at = 300000; // some milliseconds
  const auto fill = [&](auto&& self, double left, std::size_t from, int most) -> bool {
    if (std::abs(left) < same) return true;
    if (++looked_at > most_looked_at) return false;
    if (most == 0 || left < 0) return false;
    for (std::size_t k = from; k < blocks.size(); ++k) {
      if (blocks[k] > left + same) continue;
      if (blocks[k] * most < left - same) break; // the rest are smaller still
      if (k > from && blocks[k] == blocks[k - 1]) continue;
      used.push_back(blocks[k]);
      if (self(self, left - blocks[k], k + 1, most - 1)) return true;
      used.pop_back();
    }
    return false;
  };
  constexpr int most = 5;
  for (int n = 1; n <= most; ++n) {
    used.clear();
    if (!fill(fill, v("Height"), 0, n)) continue;
    std::vector<SumLine> lines;
    for (std::size_t k = 0; k < used.size(); ++k)
      lines.push_back({"block", Quantity::length, used[k], "", fmt::format("block_{}", k + 1)});
    lines.push_back(
        {"places that are wrung", Quantity::number, static_cast<double>(used.size() - 1), "", "wrung"});
    return right(lines, "Fewest blocks: each place they are wrung adds its own error.");
  }
  return wrong(looked_at > most_looked_at ? "Height: so many blocks were not gone through; name fewer"
                                          : "Height: no five of these blocks make it");
}

/// A taper standing on its small end, pins of one size beside it: on the plate, then lifted by blocks.
SumAnswer over_pins(const SumValues& v, Unit) {
  const double low = v("Over the pins on the plate"), high = v("Over them lifted"), up = v("Lifted by"),
               pin = v("Pin");
  if (up <= 0 || pin <= 0) return wrong("Lifted by, Pin: must be above 0");
  if (low <= 2 * pin) return wrong("Over the pins on the plate: nothing would be between the pins");
  const double half = std::atan((high - low) / (2 * up));
  if (half <= 0)
    return wrong("Over them lifted: less than on the plate: it stands on its large end, turn it over");
  const double small = low - pin * (1 + 1 / std::tan(pi / 4 - half / 2));
  if (small <= 0) return wrong("The readings make no taper: is the pin's size right?");
  return right(
      {{"whole angle", Quantity::angle, 2 * half, "2 atan((high \u2212 low) / (2 \u00B7 up))", "included"},
       {"1 in, on the diameter", Quantity::number, up / (high - low), "up / (high \u2212 low)", "one_in"},
       {"small end", Quantity::length, small, "low \u2212 pin (1 + cot(45\u00B0 \u2212 half / 2))", "small"}},
      "Both pins at the same height, the reading square to the axis.");
}

} // namespace

void add_angle_sums(std::vector<Sum>& list) {
  const std::string group = "Angles and tapers";
  list.push_back({"two-balls",
                  group,
                  "Taper hole by two balls",
                  "Two balls in a taper hole and how far their tops lie below the face.",
                  {{"Small ball", Quantity::length, false, "", "small"},
                   {"Large ball", Quantity::length, false, "", "large"},
                   place({"Small ball's top below the face", Quantity::length, false, "", "height_small"}),
                   place({"Large ball's top below the face", Quantity::length, false, "", "height_large"})},
                  two_balls});
  list.push_back({"over-pins-dovetail",
                  group,
                  "Dovetail over pins",
                  "What it measures over two pins in its corners, or between them.",
                  {{"Width at its widest", Quantity::length, false, "", "width"},
                   {"Depth", Quantity::length, false, "", "depth"},
                   {"Angle", Quantity::angle, false, "60\u00B0", "angle"},
                   {"Pin", Quantity::length, false, "", "pin"},
                   {"Of", Quantity::choice, true, "", "of", {"male", "female"}}},
                  dovetail});
  list.push_back({"tailstock",
                  group,
                  "Tailstock set over",
                  "For a taper between centres.",
                  {{"Between centres", Quantity::length, false, "", "between"},
                   {"Whole angle", Quantity::angle, false, "1 in 20", "angle", {}, TaperOf::cone}},
                  tailstock});
  list.push_back({"draw",
                  group,
                  "How far a taper goes in",
                  "A key or taper wider by a little: how much further it goes.",
                  {place({"Wider by", Quantity::length, false, "0.001 in", "wider"}),
                   {"1 in n", Quantity::number, false, "12", "one_in"}},
                  draw});
  list.push_back({"taper-over-pins",
                  group,
                  "Taper over pins",
                  "A male taper on its small end, measured over two pins on the plate and lifted.",
                  {{"Over the pins on the plate", Quantity::length, false, "", "low"},
                   {"Over them lifted", Quantity::length, false, "", "high"},
                   {"Lifted by", Quantity::length, false, "", "up"},
                   {"Pin", Quantity::length, false, "", "pin"}},
                  over_pins});
  list.push_back(
      {"gauge-stack",
       group,
       "Stack of gauge blocks",
       "The fewest of the blocks there are that make a height.",
       {{"Height", Quantity::length, false, "", "height"},
        {"Blocks", Quantity::lengths, false, "1.005 1.01 1.02 1.1 1.2 1.3 2 3 5 10 25 50", "blocks"}},
       gauge_stack});
}

} // namespace datrin::bench
