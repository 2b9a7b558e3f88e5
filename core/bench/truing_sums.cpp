#include "bench/sum_lists.h"

#include "quantity/angle.h"
#include "quantity/length.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "truing/balance.h"
#include "truing/balance_cranks.h"
#include "truing/crank.h"
#include "truing/runout.h"
#include "truing/three_jaw.h"

#include <fmt/format.h>

#include <cmath>

namespace datrin::bench {

namespace {

const char* const readings_hint = "0:0.02 90:0.05 180:-0.02 270:-0.05";

/// Readings round, or what is wrong with the field.
truing::Runout read_round(const SumValues& v, const char* field, Unit unit, std::string& why) {
  const auto parsed = truing::parse_readings(v.text(field), unit);
  if (!parsed.ok()) {
    why = fmt::format("{}: {}", field, parsed.wrong);
    return {};
  }
  const auto found = truing::runout({parsed.readings, v.text("Read on") == "bore"});
  if (!found.usable()) why = fmt::format("{}: {}", field, found.message);
  return found;
}

SumAnswer four_jaw(const SumValues& v, Unit unit) {
  std::string why;
  const auto found = read_round(v, "Readings", unit, why);
  if (!why.empty()) return wrong(why);
  for (const char* field : {"Metal, a side", "Runout allowed"})
    if (v(field) < 0) return wrong(fmt::format("{}: must not be below 0", field));
  std::vector<SumLine> lines{
      {"axis off by", Quantity::length, found.offset(), "first harmonic, by least squares", "offset"},
      {"at", Quantity::angle, found.direction(), "where the work's axis lies", "direction"},
      {"runout, whole", Quantity::length, found.whole(), "twice the offset", "runout"},
      {"not by moving it: form", Quantity::length, found.rest, "largest departure from the first harmonic",
       "rest"}};
  if (found.second > 0) {
    lines.push_back(
        {"oval: one diameter longer by", Quantity::length, 2 * found.second, "second harmonic", "oval"});
    lines.push_back({"long way at", Quantity::angle, found.second_at, "", "oval_at"});
  }
  const auto moves = truing::jaw_moves(found, v("Jaw 1 stands at"));
  for (std::size_t k = 0; k < moves.size(); ++k)
    lines.push_back({fmt::format("jaw {}, in by", k + 1), Quantity::length, moves[k],
                     "offset \u00B7 cos of the angle between; below 0: out", fmt::format("jaw_{}", k + 1)});
  if (v.given("Pitch of the jaw's screw")) {
    if (v("Pitch of the jaw's screw") <= 0) return wrong("Pitch of the jaw's screw: must be above 0");
    for (std::size_t k = 0; k < moves.size(); ++k)
      lines.push_back({fmt::format("turns of jaw {}", k + 1), Quantity::number,
                       moves[k] / v("Pitch of the jaw's screw"), "move / pitch; below 0: out",
                       fmt::format("turns_{}", k + 1)});
  }
  std::string words;
  const auto text = [&](double mm) {
    return length_text(mm, unit, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
  };
  if (found.offset() < 1e-9) {
    words = "It runs true to the indicator.";
  } else if (v.given("Metal, a side") && found.offset() > v("Metal, a side")) {
    words = fmt::format("It does not clean up: {} off, {} of metal a side. Move it.", text(found.offset()),
                        text(v("Metal, a side")));
  } else if (v.given("Runout allowed") && found.whole() <= v("Runout allowed")) {
    words = "Good enough for what is asked.";
  } else if (v.given("Metal, a side") && !v.given("Runout allowed")) {
    words = fmt::format("Good enough for the metal that is there: {} to spare a side.",
                        text(v("Metal, a side") - found.offset()));
  } else if (found.rest > found.offset()) {
    words = "Leave it: what is left is more the surface itself than where it sits.";
  } else {
    words =
        "Slacken the jaw on the far side first, then take up the one it moves from; take the chuck key out.";
  }
  return right(lines, words);
}

/// Readings round at a station, or the whole runout there as one length: then it has no direction.
bool station(const SumValues& v, const char* field, Unit unit, Vec2& off, bool& has_direction,
             std::string& why) {
  if (v.text(field).find(':') == std::string::npos && words_of(v.text(field)).size() < 3) {
    LengthOptions lengths;
    lengths.bare_unit = unit;
    const auto read = parse_length(v.text(field), lengths);
    if (!read.ok()) return why = fmt::format("{}: {}", field, read.message), false;
    if (read.mm < 0) return why = fmt::format("{}: runout is not below 0", field), false;
    off = {read.mm / 2, 0};
    has_direction = false;
    return true;
  }
  const auto found = read_round(v, field, unit, why);
  if (!why.empty()) return false;
  off = found.off;
  has_direction = true;
  return true;
}

SumAnswer two_stations(const SumValues& v, Unit unit) {
  if (v("Between them") <= 0) return wrong("Between them: must be above 0");
  Vec2 near_off, far_off;
  bool near_round = false, far_round = false;
  std::string why;
  if (!station(v, "Near the chuck", unit, near_off, near_round, why) ||
      !station(v, "Further out", unit, far_off, far_round, why))
    return wrong(why);
  if (near_round != far_round)
    return wrong("Near the chuck, Further out: read both round, or give both runouts");
  std::vector<SumLine> lines;
  const auto add = [&](const char* label, const Vec2& off, const char* offset_key, const char* direction_key,
                       const char* direction_label) {
    lines.push_back(
        {label, Quantity::length, off.norm(), near_round ? "first harmonic" : "runout / 2", offset_key});
    if (near_round)
      lines.push_back({direction_label, Quantity::angle,
                       off.norm() < 1e-12 ? 0 : std::fmod(std::atan2(off.y(), off.x()) + 2 * pi, 2 * pi), "",
                       direction_key});
  };
  add("offset, near", near_off, "offset_near", "direction_near", "near, at");
  add("offset, far", far_off, "offset_far", "direction_far", "far, at");
  lines.push_back({"tilt", Quantity::angle, truing::tilt_between(near_off, far_off, v("Between them")),
                   near_round ? "atan(|far \u2212 near| / between)" : "(T2 \u2212 T1) / (2 \u0394z)",
                   "tilt"});
  return right(lines, near_round
                          ? "Tap the far end for the tilt, then move the jaws for the offset, and read again."
                          : "Both runouts seen the same way round; tap the far end for tilt, move the jaws "
                            "for offset.");
}

SumAnswer face_wobble(const SumValues& v, Unit unit) {
  if (v("Read at a radius of") <= 0) return wrong("Read at a radius of: must be above 0");
  std::string why;
  const auto parsed = truing::parse_readings(v.text("Readings"), unit);
  if (!parsed.ok()) return wrong("Readings: " + parsed.wrong);
  const auto found = truing::runout({parsed.readings, false});
  if (!found.usable()) return wrong("Readings: " + found.message);
  return right({{"leans by", Quantity::angle, std::atan(found.offset() / v("Read at a radius of")),
                 "first harmonic / radius", "tilt"},
                {"stands out most at", Quantity::angle, found.direction(), "", "direction"},
                {"whole, on that circle", Quantity::length, found.whole(), "", "runout"},
                {"not flat by", Quantity::length, found.rest, "largest departure from a plane", "rest"}},
               "Tap it back where it stands out, and read again.");
}

SumAnswer three_jaw(const SumValues& v, Unit) {
  const auto found = truing::three_jaw_packing({v("Bar"), v("Throw"), v("Width of the jaws")});
  if (!found.usable()) return wrong(found.message);
  return right(
      {{"packing under one jaw", Quantity::length, found.packing,
        "1.5 e \u2212 r + \u221A(r\u00B2 \u2212 q\u00B2)", "packing"},
       {"1.5 \u00D7 the throw is too much by", Quantity::length, found.rule_error, "", "rule_error"}},
      "Throw: from axis to axis, half the whole travel. Turn it over by hand first; turn slowly, it is "
      "out of balance.");
}

SumAnswer crank(const SumValues& v, Unit unit) {
  std::string why;
  const auto left = read_round(v, "Beside the left web", unit, why);
  if (!why.empty()) return wrong(why);
  const auto right_side = read_round(v, "Beside the right web", unit, why);
  if (!why.empty()) return wrong(why);
  truing::CrankInput in;
  in.now = {left.off, right_side.off};
  in.shaft = v("Shaft, web to end");
  in.rim = v("From the pin to the wedge");
  if (v.given("Stop at a runout of")) in.limit = v("Stop at a runout of");
  const auto advice = truing::true_crank(in);
  if (!advice.ok) return wrong(advice.message);
  std::vector<SumLine> lines{
      {"runout, left", Quantity::length, left.whole(), "twice the first harmonic", "left"},
      {"runout, right", Quantity::length, right_side.whole(), "", "right"},
      {"both towards the pin by", Quantity::length, (left.off.x() + right_side.off.x()) / 2,
       "webs not parallel", "kink"},
      {"one past the other by", Quantity::length, right_side.off.y() - left.off.y(), "twisted on the pin",
       "twist"},
      {"runout it should leave", Quantity::length, advice.expected.whole(), "when it does what it should",
       "expected"},
      {"no blow takes away", Quantity::length, advice.unmended, "unequal throws, pin not square",
       "unmended"}};
  if (advice.at_rim > 0)
    lines.push_back({"the webs move there by", Quantity::length, advice.at_rim,
                     "2 \u00B7 kink / shaft \u00B7 rim", "at_rim"});
  return right(lines, advice.text);
}

SumAnswer balanced(const SumValues& v, Unit) {
  truing::BalanceInput in;
  in.crank_radius = v("Crank radius");
  in.rotating = v("Rotating, g");
  in.reciprocating = v("Reciprocating, g");
  if (v.given("Factor")) in.factor = v("Factor");
  in.radius = v("Weight at a radius of");
  in.thick = v("Hole through");
  if (v.given("Density, g/cm\u00B3")) in.density = v("Density, g/cm\u00B3");
  const auto found = truing::balance(in);
  if (!found.usable()) return wrong(found.message);
  std::vector<SumLine> lines{{"mass there, g", Quantity::number, found.mass,
                              "(rotating + factor \u00B7 reciprocating) \u00B7 crank / radius", "mass"}};
  if (found.hole > 0)
    lines.push_back({"or a hole on the crank's side", Quantity::length, found.hole,
                     "\u221A(4 m / (\u03C0 \u03C1 thick))", "hole"});
  lines.push_back({"left along the bore, g mm", Quantity::number, found.left_along, "(1 \u2212 factor) of it",
                   "left_along"});
  lines.push_back(
      {"left across it, g mm", Quantity::number, found.left_across, "factor of it", "left_across"});
  return right(lines,
               "One cylinder is never balanced whole: the factor only chooses which way it shakes. It may be "
               "left out.");
}

/// "0 90": angles of cranks, degrees, parted by blanks.
SumAnswer balanced_cranks(const SumValues& v, Unit unit) {
  truing::BalanceCranksInput in;
  LengthOptions lengths;
  lengths.bare_unit = unit;
  for (const auto word : words_of(v.text("Cranks"))) {
    const auto colon = word.find(':');
    const auto angle = colon == std::string_view::npos ? std::nullopt : number_from(word.substr(0, colon));
    const auto at = angle ? parse_length(std::string(word.substr(colon + 1)), lengths) : LengthResult{};
    if (!angle || !at.ok())
      return wrong(
          fmt::format("Cranks: \"{}\" is none: its angle, a colon, where along the shaft, as 90:35", word));
    in.cranks.push_back({at.mm, radians(*angle)});
  }
  in.crank_radius = v("Crank radius");
  in.rotating = v("Rotating, g");
  in.reciprocating = v("Reciprocating, g");
  if (v.given("Factor")) in.factor = v("Factor");
  in.near_plane = v("Weights at");
  in.far_plane = v("And at");
  in.radius = v("At a radius of");
  const auto found = truing::balance_cranks(in);
  if (!found.usable()) return wrong(found.message);
  return right(
      {{"first weight, g", Quantity::number, found.near_mass, "each crank by its distance from both",
        "first"},
       {"stands at", Quantity::angle, found.near_angle, "", "first_at"},
       {"second weight, g", Quantity::number, found.far_mass, "", "second"},
       {"stands at", Quantity::angle, found.far_angle, "", "second_at"},
       {"left along the bores, g mm", Quantity::number, found.force_left, "(1 \u2212 factor), all together",
        "force_left"},
       {"and rocking, g mm\u00B2", Quantity::number, found.couple_left, "about the middle of both",
        "couple_left"}},
      "Angles round the shaft, as the cranks are given. Cranks opposite each other or a quarter apart leave "
      "least to do; it may be left out.");
}

/// What an indicator over a V shows of work with so many lobes: 1 + (−1)ⁿ cos n(90° − α/2) / sin(α/2).
SumAnswer v_block(const SumValues& v, Unit) {
  const double whole = v("Angle of the V"), lobes = v("Lobes");
  if (whole < radians(30) || whole > radians(150)) return wrong("Angle of the V: from 30 to 150 degrees");
  if (lobes < 2 || lobes > 30) return wrong("Lobes: from 2, oval, to 30");
  const double half = whole / 2, sign = static_cast<int>(lobes) % 2 == 0 ? 1 : -1;
  const double factor = 1 + sign * std::cos(lobes * (pi / 2 - half)) / std::sin(half);
  constexpr double blind = 0.2;
  std::vector<SumLine> lines{{"shown for each of it", Quantity::number, factor,
                              "1 + (\u22121)\u207F cos n(90\u00B0 \u2212 \u03B1/2) / sin(\u03B1/2)",
                              "factor"}};
  if (std::abs(factor) < blind)
    return right(lines, "This V does not see that many lobes: read it in another V, or between centres.");
  lines.push_back({"out of round by", Quantity::length, v("Reading over a turn") / std::abs(factor),
                   "reading / that", "out_of_round"});
  return right(
      lines, "Between centres it would be read as it is; what turns on the journal itself is not seen here.");
}

/// A rotary table, or a plug, brought under the spindle: the indicator goes round with the spindle.
SumAnswer rotary_table(const SumValues& v, Unit unit) {
  std::string why;
  const auto found = read_round(v, "Readings", unit, why);
  if (!why.empty()) return wrong(why);
  // The indicator turns: pushed in where the wall of the bore is nearer, the bore's middle lies the other
  // way.
  return right(
      {{"move along x by", Quantity::length, -found.off.x(), "first harmonic", "x"},
       {"along y by", Quantity::length, -found.off.y(), "", "y"},
       {"then it reads over a turn", Quantity::length, 2 * found.form, "form, no moving mends it", "rest"}},
      "The indicator in the spindle, 0\u00B0 towards +x, counter-clockwise from above; the table moves so "
      "much. "
      "Turn the spindle by hand.");
}

SumAnswer witnesses(const SumValues& v, Unit) {
  // A form that stands out of the cutter digs in on the side it is moved to, a hollow one on the other.
  const double way = v.text("The cutter's form") == "hollow" ? -1 : 1;
  const double off = way * (v("Witness on the right") - v("Witness on the left")) / 2;
  const double slope = v("Slope of the form"); // 0: the marks are measured across the work
  if (slope < 0 || slope >= pi / 2) return wrong("Slope of the form: from 0, below 90 degrees");
  return right({{"the cutter stands off by", Quantity::length, off * std::cos(slope),
                 "half the difference, along the work", "off"}},
               off == 0  ? "Alike: it stands over the middle."
               : off > 0 ? "It stands too far to the right. Move it back by that, touch again."
                         : "It stands too far to the left. Move it back by that, touch again.");
}

/// What a holder leaves: its own runout, and half the play of the work on it, at worst the same way.
SumAnswer held_true(const SumValues& v, Unit) {
  const double play = v("Bore of the work") - v("Mandrel, stub or collet");
  if (v("Runout of it") < 0) return wrong("Runout of it: must not be below 0");
  if (v("Bore of the work") <= 0 || v("Mandrel, stub or collet") <= 0)
    return wrong("Bore, Mandrel: must be above 0");
  if (play < 0) return wrong("Mandrel: it is larger than the bore: it does not go on");
  const double worst = v("Runout of it") / 2 + play / 2;
  return right({{"off at worst", Quantity::length, worst, "half its runout + half the play", "offset"},
                {"an indicator shows then", Quantity::length, 2 * worst, "twice", "runout"},
                {"of that by play", Quantity::length, play, "bore \u2212 mandrel", "play"}},
               play > v("Runout of it")
                   ? "The play is most of it: turn a stub to fit, or a taper of 1 in 2000 takes it up."
                   : "Its own runout is most of it: turn it in place and leave it in the chuck.");
}

SumAnswer same_bubble(const SumValues& v, Unit) {
  const double off = v("Divisions on the work") - v("Divisions on the machine");
  if (v("One division, mm a metre") <= 0) return wrong("One division: must be above 0");
  if (v("Between the supports") <= 0) return wrong("Between the supports: must be above 0");
  return right(
      {{"raise the low end by", Quantity::length,
        std::abs(off) * v("One division, mm a metre") * v("Between the supports") / 1000,
        "divisions \u00B7 mm a metre \u00B7 length", "raise"}},
      off == 0 ? "The same bubble: it lies as the machine does."
               : "Put the level the same way round both times. The bubble need not stand in the middle, only "
                 "at the same place.");
}

} // namespace

void add_truing_sums(std::vector<Sum>& list) {
  const std::string group = "Truing";
  const SumField read_on{"Read on", Quantity::choice, true, "", "of", {"outside", "bore"}};
  list.push_back(
      {"four-jaw",
       group,
       "True in the four-jaw",
       "Readings round, each as angle:reading, plus for the plunger pushed in: how far off, which jaw, "
       "and what is form that no jaw mends.",
       {{"Readings", Quantity::lengths, false, readings_hint, "readings"},
        read_on,
        {"Jaw 1 stands at", Quantity::angle, true, "0\u00B0", "first"},
        {"Pitch of the jaw's screw", Quantity::length, true, "", "screw"},
        {"Metal, a side", Quantity::length, true, "", "metal"},
        {"Runout allowed", Quantity::length, true, "", "allowed"}},
       four_jaw});
  list.push_back(
      {"two-stations",
       group,
       "Offset and tilt from two stations",
       "Readings round near the chuck and further out; or the whole runout at each, as one length.",
       {{"Near the chuck", Quantity::lengths, false, readings_hint, "near"},
        {"Further out", Quantity::lengths, false, readings_hint, "far"},
        {"Between them", Quantity::length, false, "", "between"},
        read_on},
       two_stations});
  list.push_back({"face-wobble",
                  group,
                  "How a face wobbles",
                  "Readings round on a face: how it leans, which way, and how far from flat it is.",
                  {{"Readings", Quantity::lengths, false, readings_hint, "readings"},
                   {"Read at a radius of", Quantity::length, false, "", "radius"}},
                  face_wobble});
  list.push_back(
      {"three-jaw-packing",
       group,
       "Throw in the three-jaw",
       "Packing under one jaw that sets a bar over by a throw, exactly, and what the usual rule would be "
       "off by.",
       {{"Bar", Quantity::length, false, "", "bar"},
        {"Throw", Quantity::length, false, "", "throw"},
        {"Width of the jaws", Quantity::length, true, "0: narrow", "jaw"}},
       three_jaw});
  list.push_back(
      {"crank-true",
       group,
       "Truing a pressed crank",
       "Readings round both shafts beside the webs, turned on its ends, 0\u00B0 towards the crank pin: open, "
       "close or twist.",
       {{"Beside the left web", Quantity::lengths, false, readings_hint, "left"},
        {"Beside the right web", Quantity::lengths, false, readings_hint, "right"},
        {"Shaft, web to end", Quantity::length, false, "", "shaft"},
        {"From the pin to the wedge", Quantity::length, true, "where the webs are opened", "rim"},
        {"Stop at a runout of", Quantity::length, true, "0.02 mm", "limit"},
        read_on},
       crank});
  list.push_back(
      {"balance",
       group,
       "Balancing a crank",
       "The weight opposite a crank, or the hole beside it, for the rotating parts and a share of the "
       "reciprocating ones.",
       {{"Crank radius", Quantity::length, false, "", "crank_radius"},
        {"Rotating, g", Quantity::number, false, "grams, or parts by name", "rotating"},
        {"Reciprocating, g", Quantity::number, false, "Piston + Piston rod", "reciprocating"},
        {"Factor", Quantity::number, true, "0.5", "factor"},
        {"Weight at a radius of", Quantity::length, false, "", "radius"},
        {"Hole through", Quantity::length, true, "thickness of the web", "thick"},
        {"Density, g/cm\u00B3", Quantity::number, true, "7.2", "density"}},
       balanced});
  list.push_back({"balance-cranks",
                  group,
                  "Balancing two cranks, or four",
                  "Weights in two planes, wheels or webs, for cranks at angles along a shaft.",
                  {{"Cranks", Quantity::lengths, false, "0:25 90:95", "cranks"},
                   {"Crank radius", Quantity::length, false, "", "crank_radius"},
                   {"Rotating, g", Quantity::number, false, "of each", "rotating"},
                   {"Reciprocating, g", Quantity::number, false, "of each", "reciprocating"},
                   {"Factor", Quantity::number, true, "0.5", "factor"},
                   place({"Weights at", Quantity::length, false, "0", "near"}),
                   place({"And at", Quantity::length, false, "", "far"}),
                   {"At a radius of", Quantity::length, false, "", "radius"}},
                  balanced_cranks});
  list.push_back({"v-block",
                  group,
                  "Round read on a V-block",
                  "What a reading over a V says of how round the work is.",
                  {{"Reading over a turn", Quantity::length, false, "", "reading"},
                   {"Lobes", Quantity::count, false, "3", "lobes"},
                   {"Angle of the V", Quantity::angle, false, "90\u00B0", "angle"}},
                  v_block});
  list.push_back({"rotary-table",
                  group,
                  "Rotary table under the spindle",
                  "Readings round its bore, the indicator in the spindle: how far to move it.",
                  {{"Readings", Quantity::lengths, false, readings_hint, "readings"},
                   {"Read on", Quantity::choice, true, "", "of", {"bore", "outside"}}},
                  rotary_table});
  list.push_back({"form-cutter",
                  group,
                  "Form cutter over the middle",
                  "Two witness marks, one each side of the form: how far it stands off.",
                  {{"The cutter's form", Quantity::choice, false, "", "form", {"standing", "hollow"}},
                   {"Witness on the left", Quantity::length, false, "", "left"},
                   {"Witness on the right", Quantity::length, false, "", "right"},
                   {"Slope of the form", Quantity::angle, true, "marks measured along it", "slope"}},
                  witnesses});
  list.push_back({"held-true",
                  group,
                  "What a mandrel or stub leaves",
                  "Runout of a mandrel, a stub or a collet, and the play on it: how far the work may be off.",
                  {{"Runout of it", Quantity::length, false, "", "runout_of_it"},
                   {"Bore of the work", Quantity::length, false, "", "bore"},
                   {"Mandrel, stub or collet", Quantity::length, false, "", "mandrel"}},
                  held_true});
  list.push_back({"same-bubble",
                  group,
                  "Level as the machine is",
                  "The same bubble on the machine and on the work: packing for what differs.",
                  {{"Divisions on the machine", Quantity::number, false, "", "machine"},
                   {"Divisions on the work", Quantity::number, false, "", "work"},
                   {"One division, mm a metre", Quantity::number, false, "0.05", "division"},
                   {"Between the supports", Quantity::length, false, "", "length"}},
                  same_bubble});
}

} // namespace datrin::bench
