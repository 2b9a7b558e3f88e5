#include "bench/places_in.h"
#include "bench/sum_lists.h"
#include "cutting/chain_holes.h"
#include "cutting/corner_steps.h"
#include "cutting/cutter_path.h"
#include "cutting/travel_order.h"
#include "geometry/touched_edges.h"

#include <fmt/format.h>

#include <cmath>

namespace datrin::bench {

namespace {

constexpr double most_places = 200;

double tidy(double mm) {
  return std::abs(mm) < 1e-9 ? 0 : mm;
}

void put_place(std::vector<SumLine>& lines, std::size_t number, const Vec2& at, const std::string& how = {}) {
  lines.push_back(
      {fmt::format("{}, x", number), Quantity::length, tidy(at.x()), how, fmt::format("x_{}", number)});
  lines.push_back(
      {fmt::format("{}, y", number), Quantity::length, tidy(at.y()), "", fmt::format("y_{}", number)});
}

SumAnswer path_of_cutter(const SumValues& v, Unit unit) {
  cutting::CutterPathInput in;
  const auto& of = v.text("Of a");
  in.of = of == "pocket" ? cutting::CutOf::pocket
          : of == "boss" ? cutting::CutOf::boss
                         : cutting::CutOf::slot;
  in.length = v("Length over all");
  in.width = v("Width");
  in.corner = v("Corner radius");
  in.cutter = v("Cutter");
  cutting::CutterPathOptions how;
  how.unit = unit;
  const auto path = cutting::cutter_path(in, how);
  if (!path.usable()) return wrong(path.message);
  const Vec2 middle(v("Middle, x"), v("Middle, y"));
  std::vector<SumLine> lines;
  for (std::size_t k = 0; k < path.clearing.size(); ++k)
    put_place(lines, k + 1, middle + path.clearing[k], k == 0 ? "its middle first, from the inside out" : "");
  for (std::size_t k = 0; k < path.middles.size(); ++k)
    put_place(lines, path.clearing.size() + k + 1, middle + path.middles[k],
              k == 0 ? "middle, half the size, half the cutter" : "");
  lines.push_back({"cutter beside the line", Quantity::length, path.beside, "half the cutter", "beside"});
  return right(lines,
               (path.left_over.empty() ? "" : "Left over: " + path.left_over + ". ") +
                   "One after another against the feed, so that the play of the screw does not pull it in.");
}

SumAnswer corner(const SumValues& v, Unit) {
  cutting::CornerInput in;
  in.radius = v("Radius");
  in.cutter = v("Cutter");
  in.inside = v.text("Corner of a") == "pocket";
  if (v.given("Steps")) in.steps = static_cast<int>(v("Steps"));
  if (v.given("May stay proud")) in.proud = v("May stay proud");
  const auto found = cutting::corner_steps(in);
  if (!found.usable()) return wrong(found.message);
  std::vector<SumLine> lines;
  for (std::size_t k = 0; k < found.middles.size(); ++k)
    put_place(lines, k + 1, found.middles[k],
              k == 0 ? "(radius \u00B1 half the cutter) about the corner's centre" : "");
  lines.push_back(
      {"stays proud between", Quantity::length, found.proud, "two circles of the cutter", "proud"});
  return right(
      lines, "Both finished sides are 0, the work lies below. Down at each place, out again, on to the next; "
             "what stays is filed or blended.");
}

SumAnswer stairs(const SumValues& v, Unit) {
  const auto found = cutting::rounded_edge_stairs(v("Radius"), v("By steps of"));
  if (found.empty()) return wrong("Radius, By steps of: above 0, and no more than 200 steps");
  std::vector<SumLine> lines;
  for (std::size_t k = 0; k < found.size(); ++k) {
    lines.push_back(
        {fmt::format("{}, down", k + 1), Quantity::length, found[k].deep, "", fmt::format("down_{}", k + 1)});
    lines.push_back({fmt::format("{}, edge of the cutter in by", k + 1), Quantity::length, found[k].in,
                     k == 0 ? "r \u2212 \u221A(r\u00B2 \u2212 (r \u2212 down)\u00B2)" : "",
                     fmt::format("in_{}", k + 1)});
    if (v.given("Cutter"))
      lines.push_back({fmt::format("{}, its middle outside by", k + 1), Quantity::length,
                       v("Cutter") / 2 - found[k].in, "", fmt::format("middle_{}", k + 1)});
  }
  return right(lines, "From the top down, the side is 0. The steps are filed to the line they touch.");
}

SumAnswer grid(const SumValues& v, Unit) {
  const double n = v("Holes along"), m = v("Holes across");
  if (n < 1 || m < 1 || n * m > most_places) return wrong("Holes: from 1, at most 200 in all");
  Vec2 first(v("First, x"), v("First, y"));
  if (v.text("Counted from") == "middle")
    first -= Vec2(v("Pitch along") * (n - 1), v("Pitch across") * (m - 1)) / 2;
  std::vector<SumLine> lines;
  std::size_t number = 0;
  for (int row = 0; row < static_cast<int>(m); ++row)
    for (int k = 0; k < static_cast<int>(n); ++k) {
      const int column = row % 2 == 0 ? k : static_cast<int>(n) - 1 - k; // back along the next row
      put_place(lines, ++number, first + Vec2(v("Pitch along") * column, v("Pitch across") * row));
    }
  lines.push_back({"corner to corner", Quantity::length,
                   std::hypot(v("Pitch along") * (n - 1), v("Pitch across") * (m - 1)), "a check",
                   "diagonal"});
  return right(lines, "To and fro, row by row. Each counts from the datum, not from the hole before.");
}

SumAnswer arc(const SumValues& v, Unit) {
  const double n = v("Holes"), radius = v("Radius");
  if (n < 2 || n > most_places) return wrong("Holes: from 2 to 200");
  if (radius <= 0) return wrong("Radius: must be above 0");
  const double from = v("First at"), to = v("Last at");
  std::vector<SumLine> lines;
  for (int k = 0; k < static_cast<int>(n); ++k) {
    const double at = from + (to - from) * k / (n - 1);
    put_place(lines, static_cast<std::size_t>(k) + 1,
              Vec2(v("Middle, x"), v("Middle, y")) + radius * Vec2(std::cos(at), std::sin(at)));
  }
  lines.push_back({"from hole to hole", Quantity::length,
                   2 * radius * std::abs(std::sin((to - from) / (n - 1) / 2)), "2 r sin(half the angle)",
                   "chord"});
  return right(lines, "Angles from +x, counter-clockwise.");
}

SumAnswer order_of(const SumValues& v, Unit unit) {
  std::string why;
  const auto places = places_in(v.text("Places"), unit, why);
  if (!why.empty()) return wrong("Places: " + why);
  if (places.size() < 2 || places.size() > 100) return wrong("Places: from 2 to 100");
  double typed = 0;
  const auto found = cutting::travel_order(places);
  const auto& order = found.order;
  for (std::size_t k = 0; k + 1 < places.size(); ++k) typed += (places[k + 1] - places[k]).norm();
  std::vector<SumLine> lines;
  std::string words = "Go";
  for (std::size_t k = 0; k < order.size(); ++k) {
    put_place(lines, k + 1, places[order[k]], fmt::format("typed as {}", order[k] + 1));
    words += fmt::format("{}{}", k ? ", " : " ", order[k] + 1);
  }
  lines.push_back({"travel", Quantity::length, found.travel, "from the first to the last", "travel"});
  lines.push_back({"as typed it was", Quantity::length, typed, "", "as_typed"});
  return right(lines, words + (found.shortest ? ". No order is shorter."
                                              : ". Improved until neither turning a stretch round nor taking "
                                                "places elsewhere helps: another may be a little shorter."));
}

/// Two touches on either edge: each edge lies half the finder further on, towards the touches of the other.
SumAnswer corner_by_touches(const SumValues& v, Unit unit) {
  std::string why;
  const auto one = places_in(v.text("Two on one edge"), unit, why);
  const auto other = why.empty() ? places_in(v.text("Two on the other"), unit, why) : std::vector<Vec2>{};
  if (!why.empty()) return wrong(why);
  if (one.size() != 2 || other.size() != 2) return wrong("Two touches on each edge, as 10,-3 40,-3");
  TouchedEdgesInput in;
  in.one = {one[0], one[1]};
  in.other = {other[0], other[1]};
  in.finder = v("Finder, across");
  if (in.finder < 0) return wrong("Finder, across: must not be below 0");
  const auto found = touched_edges(in);
  if (!found.usable()) return wrong("Touches: " + found.message);
  return right({{"corner, x", Quantity::length, found.corner.x(), "where the two edges meet", "x"},
                {"corner, y", Quantity::length, found.corner.y(), "", "y"},
                {"first edge lies", Quantity::angle, found.one_at, "from x, counter-clockwise", "turn"},
                {"angle between", Quantity::angle, found.between, "", "between"}},
               std::abs(found.one_at) > 1e-4 ? "Turn the work back by that, or turn the places with it."
                                             : "It lies along x.");
}

SumAnswer slit(const SumValues& v, Unit) {
  const double bite =
      v.given("Bite") ? v("Bite") : 0.254; // 0.010 in, of a thin saw in brass (common practice)
  if (v("Depth") <= 0 || bite <= 0) return wrong("Depth, Bite: must be above 0");
  const double bites = std::ceil(v("Depth") / bite - 1e-9);
  if (bites > most_places) return wrong("Bite: more than 200 of them");
  std::vector<SumLine> lines{{"bites", Quantity::number, bites, "depth / bite", "bites"},
                             {"each", Quantity::length, v("Depth") / bites, "all alike", "each"}};
  if (v.given("Width of the saw") && v.given("Width of the slot")) {
    if (v("Width of the slot") < v("Width of the saw")) return wrong("Width of the saw: wider than the slot");
    lines.push_back({"to either side of the middle", Quantity::length,
                     (v("Width of the slot") - v("Width of the saw")) / 2, "(slot \u2212 saw) / 2", "aside"});
  }
  return right(
      lines, "Against the feed, a drop of oil, out of the cut before it is lifted. A thin wall beside it is "
             "held by a slip of wood or metal of the slot's width.");
}

SumAnswer chain_round(const SumValues& v, Unit unit) {
  std::string why;
  cutting::ChainHolesInput in;
  in.outline = places_in(v.text("Corners"), unit, why);
  if (!why.empty()) return wrong("Corners: " + why);
  in.drill = v("Drill");
  if (v.given("Web between")) in.web = v("Web between");
  if (v.given("Left to the line")) in.leave = v("Left to the line");
  const auto found = cutting::chain_holes(in);
  if (!found.usable()) return wrong(found.message);
  std::vector<SumLine> lines{
      {"holes", Quantity::number, static_cast<double>(found.holes.size()), "line / (drill + web)", "holes"},
      {"their line is long", Quantity::length, found.length,
       "the outline, half the drill and what is left inside", "line"},
      {"web between", Quantity::length, found.web, "at the narrowest", "web"}};
  if (found.holes.size() <= 60)
    for (std::size_t k = 0; k < found.holes.size(); ++k) put_place(lines, k + 1, found.holes[k]);
  const char* const words =
      found.web < 0 ? "At a corner two run into each other: drill every second first, and plug them."
      : found.web < in.web - 1e-6
          ? "At a corner two come nearer than the web asked for: drill those last, or a little off the line."
          : "Pop and drill every second, then those between; support what comes loose.";
  return right(lines, words);
}

} // namespace

void add_path_sums(std::vector<Sum>& list) {
  const std::string group = "Paths and places";
  list.push_back(
      {"cutter-path",
       group,
       "Round a slot, a pocket, a boss",
       "Where the middle of the cutter goes, one place after another, from the middle of what it leaves.",
       {{"Of a", Quantity::choice, true, "", "of", {"slot", "pocket", "boss"}},
        {"Length over all", Quantity::length, false, "", "length"},
        {"Width", Quantity::length, false, "", "width"},
        {"Corner radius", Quantity::length, true, "as the cutter leaves it", "corner"},
        {"Cutter", Quantity::length, false, "", "cutter"},
        place({"Middle, x", Quantity::length, true, "0", "x"}),
        place({"Middle, y", Quantity::length, true, "0", "y"})},
       path_of_cutter});
  list.push_back({"corner-rounding",
                  group,
                  "Rounding a corner by places",
                  "An end mill put down at places round a corner, and what stays between.",
                  {{"Radius", Quantity::length, false, "", "radius"},
                   {"Cutter", Quantity::length, false, "", "cutter"},
                   {"Corner of a", Quantity::choice, true, "", "of", {"plate", "pocket"}},
                   {"Steps", Quantity::count, true, "as many as it wants", "steps"},
                   {"May stay proud", Quantity::length, true, "0.02 mm", "proud"}},
                  corner});
  list.push_back({"stepped-edge",
                  group,
                  "Rounding an edge by steps",
                  "A round along an edge milled in steps downwards, to be filed to the line.",
                  {{"Radius", Quantity::length, false, "", "radius"},
                   {"By steps of", Quantity::length, false, "0.25 mm", "step"},
                   {"Cutter", Quantity::length, true, "", "cutter"}},
                  stairs});
  list.push_back({"hole-grid",
                  group,
                  "Holes in rows",
                  "A grid of holes as a table to go through.",
                  {{"Holes along", Quantity::count, false, "", "along"},
                   {"Pitch along", Quantity::length, false, "", "pitch"},
                   {"Holes across", Quantity::count, false, "", "across"},
                   {"Pitch across", Quantity::length, false, "", "pitch_across"},
                   place({"First, x", Quantity::length, true, "0", "x"}),
                   place({"First, y", Quantity::length, true, "0", "y"}),
                   {"Counted from", Quantity::choice, true, "", "from", {"first", "middle"}}},
                  grid});
  list.push_back({"arc-holes",
                  group,
                  "Holes along an arc",
                  "Evenly from one angle to another.",
                  {{"Radius", Quantity::length, false, "", "radius"},
                   {"Holes", Quantity::count, false, "", "holes"},
                   {"First at", Quantity::angle, false, "", "first"},
                   {"Last at", Quantity::angle, false, "", "last"},
                   place({"Middle, x", Quantity::length, true, "0", "x"}),
                   place({"Middle, y", Quantity::length, true, "0", "y"})},
                  arc});
  list.push_back({"hole-order",
                  group,
                  "Places in a short order",
                  "In which order to go to places with little travel: the shortest there is up to a dozen.",
                  {{"Places", Quantity::lengths, false, "0,0 30,0 15,20", "places"}},
                  order_of});
  list.push_back({"corner-touches",
                  group,
                  "Corner at an angle, by touches",
                  "Two touches on each of two edges: where they meet, and how the work lies.",
                  {{"Two on one edge", Quantity::lengths, false, "10,\u22123 40,\u22123", "one"},
                   {"Two on the other", Quantity::lengths, false, "\u22123,10 \u22123,30", "other"},
                   {"Finder, across", Quantity::length, false, "6 mm", "finder"}},
                  corner_by_touches});
  list.push_back({"slit",
                  group,
                  "Slitting in bites",
                  "How deep each bite goes, and how many there are.",
                  {{"Depth", Quantity::length, false, "", "depth"},
                   {"Bite", Quantity::length, true, "0.010 in", "bite"},
                   {"Width of the saw", Quantity::length, true, "", "saw"},
                   {"Width of the slot", Quantity::length, true, "", "width"}},
                  slit});
  list.push_back({"chain-outline",
                  group,
                  "Chain drilling inside an outline",
                  "Holes inside an outline of corners, so that what is within comes out.",
                  {{"Corners", Quantity::lengths, false, "0,0 40,0 40,25 0,25", "corners"},
                   {"Drill", Quantity::length, false, "", "drill"},
                   {"Web between", Quantity::length, true, "0.005 in", "web"},
                   {"Left to the line", Quantity::length, true, "0.5 mm", "leave"}},
                  chain_round});
}

} // namespace datrin::bench
