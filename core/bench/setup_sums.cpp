#include "bench/sum_lists.h"

#include "casting/jaw_hold.h"
#include "quantity/length.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::bench {

namespace {

/// Common set of shop blocks, degrees.
constexpr auto shop_blocks = "30 25 20 15 10 5 4 3 2 1 0.5 0.25";
constexpr double same_angle = 1e-9; // degrees

/// The fewest blocks, largest first, that add up to an angle, in degrees; every block is there once.
bool stack(const std::vector<double>& blocks, double left, std::size_t from, int most,
           std::vector<double>& used) {
  if (std::abs(left) < same_angle) return true;
  if (most == 0) return false;
  for (std::size_t k = from; k < blocks.size(); ++k) {
    if (blocks[k] > left + same_angle) continue;
    if (blocks[k] * most < left - same_angle) break; // the rest are smaller still
    used.push_back(blocks[k]);
    if (stack(blocks, left - blocks[k], k + 1, most - 1, used)) return true;
    used.pop_back();
  }
  return false;
}

} // namespace

void add_setup_sums(std::vector<Sum>& list) {
  const std::string group = "Setting up";
  list.push_back(
      {"chuck-offset",
       group,
       "Centring in the four-jaw",
       "Two readings at opposite jaws: move half their difference. Plus is the plunger pushed in.",
       {place({"Reading at one jaw"}),
        place({"Reading at the other"}),
        {"Read on", Quantity::choice, true, "", "of", {"outside", "bore"}}},
       [](const SumValues& v, Unit) {
         const bool bore = v.text("Read on") == "bore";
         const double tir = std::abs(v("Reading at one jaw") - v("Reading at the other"));
         return right(
             {{"runout, whole", Quantity::length, tir, "difference of the readings"},
              {"move by", Quantity::length, tir / 2, "half of it"}},
             tir == 0
                 ? "It runs true to the indicator."
                 // An outside stands out where it reads higher; the wall of a bore stands in there.
                 : fmt::format("Read {}: move the work {} the jaw that reads {}.",
                               bore ? "in the bore" : "on the outside", bore ? "towards" : "away from",
                               v("Reading at one jaw") > v("Reading at the other") ? "first" : "second"));
       }});
  list.push_back({"pin-clearance",
                  group,
                  "How far a pin lets it shift",
                  "A pin in a hole: the play, and how far off the middle it may stand.",
                  {{"Pin"}, {"Hole"}},
                  [](const SumValues& v, Unit) {
                    if (v("Hole") < v("Pin")) return wrong("The pin is larger than the hole");
                    const double play = v("Hole") - v("Pin");
                    return right({{"play", Quantity::length, play, "hole \u2212 pin"},
                                  {"off the middle, at most", Quantity::length, play / 2, "half of it"}});
                  }});
  list.push_back(
      {"tram",
       group,
       "Tramming a vice",
       "Reading along the jaw: what to tap, and when to stop.",
       {place({"Reading at one end"}),
        place({"Reading at the other"}),
        {"Apart"},
        {"Jaw's own waviness", Quantity::length, true, "0.0005 in"}},
       [](const SumValues& v, Unit) {
         if (v("Apart") <= 0) return wrong("Apart: must be above 0");
         const double out = v("Reading at the other") - v("Reading at one end"),
                      own = v.given("Jaw's own waviness") ? v("Jaw's own waviness") : 0.5 * mm_per_thou;
         return right({{"out over that length", Quantity::length, out, "second \u2212 first"},
                       {"angle", Quantity::angle, std::atan(out / v("Apart")), ""},
                       {"each further tap should halve it to", Quantity::length, std::abs(out) / 2, ""}},
                      std::abs(out) <= own ? "Enough: what is left is the jaw itself."
                                           : "Go on: it is more than the jaw's own form.");
       }});
  list.push_back(
      {"taper-strip",
       group,
       "Packing for a taper",
       "Angle of a taper on one side, and what a strip is thick at its ends.",
       {{"Taper, on"},
        {"in a length of"},
        {"Strip length", Quantity::length, true},
        {"Thin end", Quantity::length, true}},
       [](const SumValues& v, Unit) {
         if (v("in a length of") <= 0) return wrong("in a length of: must be above 0");
         const double rate = v("Taper, on") / v("in a length of");
         std::vector<SumLine> lines{{"angle", Quantity::angle, std::atan(rate), "atan(taper / length)"}};
         if (v.given("Strip length"))
           lines.push_back({"thick end", Quantity::length,
                            (v.given("Thin end") ? v("Thin end") : 0) + rate * v("Strip length"),
                            "thin + rate \u00B7 length"});
         return right(lines);
       }});
  list.push_back({"angle-blocks",
                  group,
                  "Stacking angle blocks",
                  "The fewest blocks, up to seven, of those there are that make an angle; else of a shop set "
                  "(\u00BC, \u00BD, 1 to 5, 10, 15, 20, 25 and 30\u00B0).",
                  {{"Angle", Quantity::angle}, {"Blocks", Quantity::lengths, true, shop_blocks, "blocks"}},
                  [](const SumValues& v, Unit) {
                    const double wanted = degrees(v("Angle"));
                    if (wanted <= 0 || wanted > 90) return wrong("Angle: above 0, up to 90\u00B0");
                    std::vector<double> blocks;
                    constexpr std::size_t most_blocks = 60;
                    for (const auto word :
                         words_of(v.given("Blocks") ? v.text("Blocks") : std::string_view(shop_blocks))) {
                      const auto block = number_from(word);
                      if (!block || !(*block > 0))
                        return wrong(fmt::format("Blocks: \"{}\" is none, in degrees", word));
                      blocks.push_back(*block);
                    }
                    if (blocks.size() > most_blocks) return wrong("Blocks: at most 60");
                    std::sort(blocks.rbegin(), blocks.rend());
                    for (int most = 1; most <= 7; ++most) {
                      std::vector<double> used;
                      if (!stack(blocks, wanted, 0, most, used)) continue;
                      std::string words;
                      std::vector<SumLine> lines;
                      for (const double b : used) {
                        words += fmt::format("{}{}", words.empty() ? "" : " + ", b);
                        lines.push_back({"block", Quantity::angle, radians(b), ""});
                      }
                      return right(lines, fmt::format("{} = {:g}\u00B0", words, wanted));
                    }
                    return wrong("Angle: no seven of the blocks make it; use a sine bar");
                  }});
  list.push_back({"sine-bar",
                  group,
                  "Sine bar",
                  "Height of the blocks under a sine bar: L sin a.",
                  {{"Length of the bar", Quantity::length, false, "", "length"}, {"Angle", Quantity::angle}},
                  [](const SumValues& v, Unit) {
                    if (v("Length of the bar") <= 0) return wrong("Length of the bar: must be above 0");
                    if (v("Angle") < 0 || v("Angle") >= radians(90))
                      return wrong("Angle: from 0, below 90\u00B0");
                    return right({{"blocks", Quantity::length, v("Length of the bar") * std::sin(v("Angle")),
                                   "L \u00B7 sin a", "stack"}});
                  }});
  list.push_back({"equal-supports",
                  group,
                  "Are the supports equal",
                  "Three or four supports read one after the other, parted by +.",
                  {{"Readings", Quantity::lengths, false, "25.40 + 25.41 + 25.40"},
                   {"Within", Quantity::length, true, "0.0005 in"}},
                  [](const SumValues& v, Unit unit) {
                    LengthOptions reading;
                    reading.bare_unit = unit;
                    const auto read = parse_length(v.text("Readings"), reading);
                    if (!read.ok()) return wrong("Readings: " + read.message);
                    if (read.terms.size() < 2) return wrong("Readings: at least two, parted by +");
                    double low = 1e300, high = -1e300;
                    for (const auto& t : read.terms) {
                      low = std::min(low, t.mm);
                      high = std::max(high, t.mm);
                    }
                    const double within = v.given("Within") ? v("Within") : 0.5 * mm_per_thou;
                    return right({{"they differ by", Quantity::length, high - low, "highest \u2212 lowest"}},
                                 high - low <= within + 1e-9
                                     ? "Equal enough."
                                     : "Not equal: shim the low ones, or grind the high ones.");
                  }});
  list.push_back(
      {"height-preset",
       group,
       "Height from a known block",
       "What the tool stands at when it just touches a block: the block, less where the work begins.",
       {{"Block"}, place({"Top of the work over the table"})},
       [](const SumValues& v, Unit) {
         return right({{"go down from the block by", Quantity::length,
                        v("Block") - v("Top of the work over the table"), "block \u2212 work"}},
                      v("Block") < v("Top of the work over the table")
                          ? "The work stands higher than the block."
                          : "");
       }});
  list.push_back(
      {"drafted-jaw",
       group,
       "What a jaw holds of a drafted face",
       "A casting leaves the sand on a draft: a square jaw touches its edge, and packing that gives lets it "
       "bear "
       "further.",
       {{"Height in the jaws"},
        {"Draft", Quantity::angle, true, "1.5\u00B0"},
        {"Packing gives", Quantity::length, true, "0.25 mm"}},
       [](const SumValues& v, Unit) {
         const double draft = v.given("Draft") ? v("Draft") : radians(1.5);
         const double give = v.given("Packing gives") ? v("Packing gives") : casting::card_gives;
         if (v("Height in the jaws") <= 0) return wrong("Height in the jaws: must be above 0");
         if (draft < 0 || draft >= radians(45)) return wrong("Draft: from 0 to 45\u00B0");
         if (give < 0) return wrong("Packing gives: must not be below 0");
         const auto hold = casting::jaw_hold({v("Height in the jaws"), draft, give});
         return right(
             {{"the jaw bears over", Quantity::length, hold.borne, "packing / tan(draft), at most all of it"},
              {"gap at the far end", Quantity::length, hold.gap, "height \u00B7 tan(draft)"}},
             hold.line ? "It touches along one edge only and may rock: pack it with card or soft metal."
                       : "");
       }});
  list.push_back({"eccentric",
                  group,
                  "Eccentric by an offset",
                  "Whole throw of a part set over by an offset.",
                  {{"Offset"}},
                  [](const SumValues& v, Unit) {
                    return right({{"throw, whole", Quantity::length, 2 * v("Offset"), "2 \u00B7 offset"}});
                  }});
  list.push_back({"burr",
                  group,
                  "What a burr does to an edge find",
                  "A burr or chip between finder and edge moves the edge by its own height; the centre "
                  "between two edges by half.",
                  {{"Burr"}},
                  [](const SumValues& v, Unit) {
                    return right({{"edge is off by", Quantity::length, v("Burr"), ""},
                                  {"centre of two edges by", Quantity::length, v("Burr") / 2, "half"}},
                                 "Dress the edge first.");
                  }});
}

} // namespace datrin::bench
