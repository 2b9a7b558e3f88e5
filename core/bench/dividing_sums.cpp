#include "bench/sum_lists.h"

#include "dividing/change_wheels.h"
#include "dividing/clock_teeth.h"
#include "dividing/clock_train.h"
#include "dividing/gears.h"
#include "dividing/indexing.h"
#include "quantity/length.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <cmath>

namespace datrin::bench {

namespace {

/// "15 16 17"; what is no whole number is named in `why`.
std::vector<int> whole_numbers(std::string_view text, const char* field, std::string& why) {
  std::vector<int> out;
  for (const auto word : words_of(text)) {
    const auto number = whole_from(word);
    constexpr std::int64_t most = 100000;
    if (!number || *number < 1 || *number > most) {
      why = fmt::format("{}: \"{}\" is no whole number above 0", field, word);
      return {};
    }
    out.push_back(static_cast<int>(*number));
  }
  return out;
}

std::string step_text(const dividing::IndexingStep& s) {
  std::string text = s.circle == 0 ? fmt::format("{} turns", s.turns)
                     : s.turns > 0 ? fmt::format("{} turns and {} holes on {}", s.turns, s.holes, s.circle)
                                   : fmt::format("{} holes on {}", s.holes, s.circle);
  if (s.circle_b > 0)
    text += fmt::format(", {} {} on {}", s.holes_b < 0 ? "back" : "and on", std::abs(s.holes_b), s.circle_b);
  return text;
}

SumAnswer indexed(const SumValues& v, Unit) {
  dividing::IndexingInput in;
  std::string why;
  in.divisions = static_cast<int>(v("Divisions"));
  if (v.given("Worm")) in.worm = static_cast<int>(v("Worm"));
  // "15 16 17; 21 23 27": the circles of one plate, then those of the next.
  int plate = 0;
  for (std::string_view rest = v.text("Plates"); !rest.empty() && why.empty(); ++plate) {
    const auto end = rest.find(';');
    for (const int circle : whole_numbers(rest.substr(0, end), "Plates", why)) {
      in.plates.push_back(circle);
      in.plate_of.push_back(plate);
    }
    rest = end == std::string_view::npos ? std::string_view() : rest.substr(end + 1);
  }
  if (why.empty()) in.wheels = whole_numbers(v.text("Change wheels"), "Change wheels", why);
  if (!why.empty()) return wrong(why);
  const auto found = dividing::indexing(in);
  if (!found.usable()) return wrong(found.message);
  std::vector<SumLine> lines{
      {"turns", Quantity::number, static_cast<double>(found.best.turns), "worm / divisions, whole", "turns"},
      {"holes", Quantity::number, static_cast<double>(found.best.holes), "", "holes"},
      {"on the circle of", Quantity::number, static_cast<double>(found.best.circle), "", "circle"},
      {"off each division by", Quantity::angle, found.best.error * pi / 180, "made \u2212 wanted", "error"}};
  std::string words = step_text(found.best) + (found.exact() ? ", exact." : ", the nearest on one circle.");
  if (!found.exact())
    words +=
        fmt::format(" After a turn round it would be off by {:.4f}\u00B0.", found.best.error * in.divisions);
  if (found.compound) words += " On two circles of one plate exact: " + step_text(*found.compound) + ".";
  if (found.differential) {
    const auto& d = *found.differential;
    words += fmt::format(" By differential exact: as for {}, {}; wheels {}{} : {}{}, the plate {} the crank.",
                         d.near_divisions, step_text(d.step), d.driver,
                         d.driver_b > 0 ? fmt::format(" \u00D7 {}", d.driver_b) : "", d.driven,
                         d.driven_b > 0 ? fmt::format(" \u00D7 {}", d.driven_b) : "",
                         d.with_crank ? "with" : "against");
  }
  return right(lines, words);
}

SumAnswer spur_gear(const SumValues& v, Unit) {
  if (v.given("Module, mm") == v.given("Diametral pitch"))
    return wrong("Module, Diametral pitch: give one of the two");
  dividing::GearInput in;
  in.teeth = static_cast<int>(v("Teeth"));
  if (v.given("Diametral pitch") && !(v("Diametral pitch") > 0))
    return wrong("Diametral pitch: must be above 0");
  in.by_module = v.given("Module, mm");
  in.module = v.given("Module, mm") ? v("Module, mm") : mm_per_inch / v("Diametral pitch");
  if (v.given("Pressure angle")) in.pressure = v("Pressure angle");
  in.pin = v("Pin");
  const auto found = dividing::gear(in);
  if (!found.usable()) return wrong(found.message);
  std::vector<SumLine> lines{
      {"pitch circle", Quantity::length, found.pitch, "N m", "pitch"},
      {"blank, outside", Quantity::length, found.outside, "(N + 2) m", "outside"},
      {"depth to cut", Quantity::length, found.depth,
       fmt::format("{} {}", found.depth_factor, in.by_module ? "m" : "/ DP"), "depth"},
      {"at the root", Quantity::length, found.root, "outside \u2212 2 depth", "root"},
      {"from tooth to tooth", Quantity::length, found.circular, "\u03C0 m", "circular"}};
  if (found.over_pins > 0) {
    lines.push_back({"over two pins", Quantity::length, found.over_pins,
                     "by the involute of the pin's centre", "over_pins"});
    lines.push_back({"they touch at", Quantity::length, found.pin_at, "best near the pitch circle", "touch"});
  }
  if (found.cutter > 0)
    lines.push_back({"cutter of the set of eight", Quantity::number, static_cast<double>(found.cutter),
                     found.cutter_to > 0
                         ? fmt::format("it cuts {} to {} teeth", found.cutter_from, found.cutter_to)
                         : fmt::format("it cuts {} teeth to a rack", found.cutter_from),
                     "cutter"});
  return right(lines, found.words);
}

SumAnswer wheels(const SumValues& v, Unit) {
  std::string why;
  dividing::ChangeWheelsInput in;
  in.wheels = whole_numbers(v.text("Wheels"), "Wheels", why);
  if (!why.empty()) return wrong(why);
  if (v("Leadscrew, pitch") <= 0) return wrong("Leadscrew, pitch: must be above 0");
  if (v("Pitch to cut") <= 0) return wrong("Pitch to cut: must be above 0");
  in.ratio = v("Pitch to cut") / v("Leadscrew, pitch");
  const auto found = dividing::change_wheels(in);
  if (!found.usable()) return wrong(found.message);
  std::vector<SumLine> lines;
  std::string train;
  for (std::size_t k = 0; k < found.drivers.size(); ++k) {
    lines.push_back({fmt::format("driver {}", k + 1), Quantity::number, static_cast<double>(found.drivers[k]),
                     "", fmt::format("driver_{}", k + 1)});
    lines.push_back({fmt::format("driven {}", k + 1), Quantity::number, static_cast<double>(found.drivens[k]),
                     "", fmt::format("driven_{}", k + 1)});
    train += fmt::format("{}{} : {}", train.empty() ? "" : ", ", found.drivers[k], found.drivens[k]);
  }
  const double cut = found.ratio * v("Leadscrew, pitch");
  lines.push_back({"cuts", Quantity::length, cut, "leadscrew \u00B7 drivers / drivens", "cut"});
  const double error = found.exact ? 0 : cut - v("Pitch to cut");
  lines.push_back({"off by, each thread", Quantity::length, error, "cut \u2212 wanted", "error"});
  // Six wheels where four do not come to it: they want a second stud.
  std::string with_six;
  if (!found.exact && in.wheels.size() >= 6) {
    in.most_pairs = 3;
    const auto six = dividing::change_wheels(in);
    const auto off = [&](const dividing::ChangeWheels& w) { return std::abs(w.ratio - in.ratio); };
    if (six.usable() && six.drivers.size() == 3 && off(six) < off(found)) {
      for (std::size_t k = 0; k < six.drivers.size(); ++k)
        with_six += fmt::format("{}{} : {}", k ? ", " : " With six, ", six.drivers[k], six.drivens[k]);
      with_six += six.exact ? ", exact." : ", nearer.";
    }
  }
  return right(lines, train + (found.exact ? ", exact." : ", the nearest of four.") + with_six +
                          " Stop the lathe and isolate it before the wheels are touched.");
}

SumAnswer train(const SumValues& v, Unit) {
  std::string why;
  dividing::ClockTrainInput in;
  in.beats_an_hour = v("Beats an hour");
  if (v.given("Hours a turn of the first wheel")) in.hours_a_turn = v("Hours a turn of the first wheel");
  if (v.given("Escape wheel")) in.escape = static_cast<int>(v("Escape wheel"));
  if (v.given("Pinions")) in.pinions = whole_numbers(v.text("Pinions"), "Pinions", why);
  if (!why.empty()) return wrong(why);
  if (v.given("Pairs")) in.stages = static_cast<int>(v("Pairs"));
  const auto found = dividing::clock_train(in);
  if (!found.usable()) return wrong(found.message);
  std::vector<SumLine> lines;
  std::string words;
  for (std::size_t k = 0; k < found.stages.size(); ++k) {
    const auto& s = found.stages[k];
    lines.push_back({fmt::format("wheel {}", k + 1), Quantity::number, static_cast<double>(s.wheel), "",
                     fmt::format("wheel_{}", k + 1)});
    lines.push_back({fmt::format("pinion {}", k + 1), Quantity::number, static_cast<double>(s.pinion), "",
                     fmt::format("pinion_{}", k + 1)});
    if (v.given("Module, mm"))
      lines.push_back({fmt::format("arbors {} and {} apart", k + 1, k + 2), Quantity::length,
                       dividing::depthing(s, v("Module, mm")), "m (wheel + pinion) / 2",
                       fmt::format("centres_{}", k + 1)});
    words += fmt::format("{}{} into {}", words.empty() ? "" : ", ", s.wheel, s.pinion);
  }
  lines.push_back({"beats an hour", Quantity::number, found.beats_an_hour,
                   "2 \u00B7 escape \u00B7 wheels / pinions", "beats"});
  lines.push_back({"gains a day, s", Quantity::number, found.seconds_a_day, "", "gains"});
  return right(lines, words + (found.exact ? ", exact." : ", the nearest."));
}

SumAnswer spokes(const SumValues& v, Unit) {
  const double width = v("Spoke, width"), cutter = v("Cutter"), n = v("Spokes");
  if (width <= 0 || cutter <= 0) return wrong("Spoke, Cutter: must be above 0");
  if (n < 2 || n > 60) return wrong("Spokes: from 2 to 60");
  const double off = (width + cutter) / 2;
  // Where the two cuts of neighbouring spokes meet: both lie `off` beside their own middle lines.
  const double meets = off / std::sin(pi / n);
  return right(
      {{"from spoke to spoke", Quantity::angle, 2 * pi / n, "360\u00B0 / n", "step"},
       {"cutter beside the middle line", Quantity::length, off, "(spoke + cutter) / 2", "offset"},
       {"cuts meet at a radius of", Quantity::length, meets, "offset / sin(180\u00B0 / n)", "meet"}},
      "A cut each side of the middle line, then on by the angle. Centre the table under the spindle first.");
}

/// Angles to turn to, and what the worm's dial says of each.
SumAnswer angles(const SumValues& v, Unit) {
  const double n = v("Divisions"), worm = v("Worm");
  if (n < 1 || n > 200) return wrong("Divisions: from 1 to 200");
  if (v.given("Worm") && worm < 1) return wrong("Worm: turns of the handle for one of the table");
  std::vector<SumLine> lines{{"from one to the next", Quantity::angle, 2 * pi / n, "360\u00B0 / n", "step"}};
  for (int k = 0; k < static_cast<int>(n); ++k) {
    const double at = v("First at") + 2 * pi * k / n;
    lines.push_back({fmt::format("{}", k + 1), Quantity::angle, at, "", fmt::format("at_{}", k + 1)});
    if (!v.given("Worm")) continue;
    const double turns = (at - v("First at")) / (2 * pi) * worm, whole = std::floor(turns + 1e-9);
    lines.push_back({fmt::format("{}, turns of the handle", k + 1), Quantity::number, whole,
                     k == 0 ? "worm \u00B7 angle / 360\u00B0" : "", fmt::format("turns_{}", k + 1)});
    lines.push_back({fmt::format("{}, and on its dial", k + 1), Quantity::angle,
                     std::max(0.0, turns - whole) * 2 * pi / worm, "degrees of the table",
                     fmt::format("dial_{}", k + 1)});
  }
  return right(
      lines,
      "Always from the same side, the play of the worm taken up; each from the first, not from the last.");
}

/// Between two spokes: the cutter goes round at two radii, the table turned from one spoke to the next.
SumAnswer openings(const SumValues& v, Unit) {
  const double n = v("Spokes"), width = v("Spoke, width"), cutter = v("Cutter");
  const double rim = v("Inside of the rim, radius"), hub = v("Outside of the hub, radius");
  if (n < 2 || n > 60) return wrong("Spokes: from 2 to 60");
  if (width <= 0 || cutter <= 0 || hub <= 0) return wrong("Spoke, Cutter, Hub: must be above 0");
  const double outer = rim - cutter / 2, inner = hub + cutter / 2, beside = (width + cutter) / 2;
  if (outer <= inner) return wrong("Cutter: it does not go in between hub and rim");
  const auto from = [&](double at) { return std::asin(std::min(1.0, beside / at)); };
  if (2 * from(inner) > 2 * pi / n)
    return wrong("Cutter: at the hub the spokes stand nearer than it is wide");
  return right(
      {{"at the rim, out from the middle", Quantity::length, outer, "rim \u2212 half the cutter", "outer"},
       {"there from", Quantity::angle, from(outer), "asin((spoke + cutter) / 2 / radius)", "outer_from"},
       {"to", Quantity::angle, 2 * pi / n - from(outer), "360\u00B0 / n less the same", "outer_to"},
       {"at the hub, out from the middle", Quantity::length, inner, "hub + half the cutter", "inner"},
       {"there from", Quantity::angle, from(inner), "", "inner_from"},
       {"to", Quantity::angle, 2 * pi / n - from(inner), "", "inner_to"},
       {"beside the spoke's middle line", Quantity::length, beside, "(spoke + cutter) / 2", "offset"}},
      "Angles from the middle line of one spoke. The sides of the spokes are milled straight, that far "
      "beside "
      "their middle lines; the corners come out as round as the cutter.");
}

SumAnswer teeth_of_a_clock(const SumValues& v, Unit) {
  const auto found = dividing::clock_teeth(
      {static_cast<int>(v("Wheel, teeth")), static_cast<int>(v("Pinion, leaves")), v("Module, mm")});
  if (!found.usable()) return wrong(found.message);
  return right(
      {{"tip of the wheel's tooth, modules", Quantity::number, found.addendum,
        "95 % of where its flanks meet", "addendum"},
       {"wheel, outside", Quantity::length, found.wheel_outside, "m (z + 2 tip)", "wheel_outside"},
       {"wheel, depth to cut", Quantity::length, found.wheel_depth, "m (tip + 1.57)", "wheel_depth"},
       {"tip rounded by", Quantity::length, found.wheel_round, "1.4 of the tip", "wheel_round"},
       {"pinion, outside", Quantity::length, found.pinion_outside, "m (leaves + 2 tip)", "pinion_outside"},
       {"pinion, at the bottom", Quantity::length, found.pinion_root,
        "m (leaves \u2212 2 (wheel's tip + 0.4))", "pinion_root"},
       {"pinion, a leaf thick", Quantity::length, found.leaf_thick,
        "1.05 m to 10 leaves, 1.25 m from 11 (BS 978-2, from memory)", "leaf"},
       {"depthing", Quantity::length, found.centres, "m (teeth + leaves) / 2", "centres"}},
      "Set it in the depthing tool and turn it by hand: what runs there is drilled. A cutter made for "
      "another count "
      "of leaves is near enough when it is within a leaf or two.");
}

} // namespace

void add_dividing_sums(std::vector<Sum>& list) {
  const std::string group = "Dividing";
  list.push_back(
      {"indexing",
       group,
       "Dividing with worm and plates",
       "Turns and holes for each division: exact on one circle, on two, or by change wheels; else the "
       "nearest.",
       {{"Divisions", Quantity::count, false, "", "divisions"},
        {"Worm", Quantity::count, true, "40", "worm"},
        {"Plates", Quantity::lengths, true, "15 16 17; 18 19 20", "plates"},
        {"Change wheels", Quantity::lengths, true, "24 24 28 32 40 44 48 56", "wheels"}},
       indexed});
  list.push_back({"gear",
                  group,
                  "Spur gear",
                  "Blank, depth, what it measures over two pins, which cutter of the set.",
                  {{"Teeth", Quantity::count, false, "", "teeth"},
                   {"Module, mm", Quantity::number, true, "1", "module"},
                   {"Diametral pitch", Quantity::number, true, "20", "dp"},
                   {"Pressure angle", Quantity::angle, true, "20\u00B0", "pressure"},
                   {"Pin", Quantity::length, true, "", "pin"}},
                  spur_gear});
  list.push_back({"change-wheels",
                  group,
                  "Change wheels",
                  "Drivers and drivens that cut a pitch, exactly or the nearest there is.",
                  {{"Leadscrew, pitch", Quantity::length, false, "1/8 in", "leadscrew"},
                   {"Pitch to cut", Quantity::length, false, "", "pitch"},
                   {"Wheels", Quantity::lengths, false, "20 25 30 35 40 45 50 55 60 65", "wheels"}},
                  wheels});
  list.push_back(
      {"clock-train",
       group,
       "Wheels of a clock",
       "Counts from the wheel that turns once an hour to the escape wheel, and how far apart the arbors "
       "stand.",
       {{"Beats an hour", Quantity::number, false, "3600", "beats"},
        {"Hours a turn of the first wheel", Quantity::number, true, "1", "hours"},
        {"Escape wheel", Quantity::count, true, "30", "escape"},
        {"Pinions", Quantity::lengths, true, "8", "pinions"},
        {"Pairs", Quantity::count, true, "2", "pairs"},
        {"Module, mm", Quantity::number, true, "", "module"}},
       train});
  list.push_back({"spokes",
                  group,
                  "Straight spokes",
                  "Where the cutter goes for spokes of a width.",
                  {{"Spokes", Quantity::count, false, "", "spokes"},
                   {"Spoke, width", Quantity::length, false, "", "width"},
                   {"Cutter", Quantity::length, false, "", "cutter"}},
                  spokes});
  list.push_back({"angles",
                  group,
                  "Angles on the rotary table",
                  "The angle of each division, and turns and dial of a table with a worm.",
                  {{"Divisions", Quantity::count, false, "", "divisions"},
                   {"First at", Quantity::angle, true, "0\u00B0", "first"},
                   {"Worm", Quantity::count, true, "90", "worm"}},
                  angles});
  list.push_back({"openings",
                  group,
                  "Openings between spokes",
                  "Round the openings of a wheel on a rotary table: radii, and from which angle to which.",
                  {{"Spokes", Quantity::count, false, "", "spokes"},
                   {"Spoke, width", Quantity::length, false, "", "width"},
                   {"Inside of the rim, radius", Quantity::length, false, "", "rim"},
                   {"Outside of the hub, radius", Quantity::length, false, "", "hub"},
                   {"Cutter", Quantity::length, false, "", "cutter"}},
                  openings});
  list.push_back({"clock-teeth",
                  group,
                  "Teeth of a clock wheel",
                  "Blank, depth and tip of a wheel with cycloidal teeth and of its pinion, and the depthing.",
                  {{"Wheel, teeth", Quantity::count, false, "", "wheel"},
                   {"Pinion, leaves", Quantity::count, false, "", "pinion"},
                   {"Module, mm", Quantity::number, false, "", "module"}},
                  teeth_of_a_clock});
}

} // namespace datrin::bench
