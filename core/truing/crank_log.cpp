#include "truing/crank_log.h"

#include "build/made.h"
#include "build/rows.h"
#include "quantity/length_text.h"
#include "truing/runout.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::truing {

using namespace build;

namespace {

struct Read {
  CrankState state;
  double form = 0;
  std::string wrong;
};

Read read_of(const std::string& left, const std::string& right, bool bore, Unit unit) {
  Read read;
  const auto side = [&](const std::string& text, const char* name) {
    RunoutInput in;
    const auto parsed = parse_readings(text, unit);
    in.readings = parsed.readings;
    in.bore = bore;
    const auto found = parsed.ok() ? runout(in) : Runout{};
    if (!found.usable() && read.wrong.empty())
      read.wrong = fmt::format("beside the {} web: {}", name, parsed.ok() ? found.message : parsed.wrong);
    read.form = std::max(read.form, found.form);
    return found.off;
  };
  read.state.left = side(left, "left");
  read.state.right = side(right, "right");
  return read;
}

/// In mm, at the angles they were read at.
std::string in_mm(const std::string& text, Unit unit) {
  std::string kept;
  for (const auto& r : parse_readings(text, unit).readings)
    kept += fmt::format("{}{:g}:{:.5f}", kept.empty() ? "" : " ", degrees(r.at), r.value);
  return kept;
}

/// How far the move went by two readings, the way it was meant.
double did(CrankMove move, const CrankState& before, const CrankState& after) {
  const Vec2 kink = before.left + before.right - after.left - after.right;
  const double beside = (before.right.y() - before.left.y()) - (after.right.y() - after.left.y());
  if (move == CrankMove::open) return kink.x();
  if (move == CrankMove::close) return -kink.x();
  return beside;
}

} // namespace

CrankLog crank_log(const Build& build, Id piece) {
  CrankLog log;
  std::vector<CrankState> states;
  for (const auto& [id, round] : build.crank_rounds_of(piece)) {
    const auto read = read_of(round.left, round.right, round.bore, Unit::mm);
    if (!read.wrong.empty()) continue; // of a file made elsewhere
    states.push_back(read.state);
    log.rows.push_back({id, 2 * read.state.left.norm(), 2 * read.state.right.norm(), read.form, round.move,
                        round.wanted, 0, false, round.at});
    log.input.now = read.state;
    log.input.shaft = round.shaft;
    log.input.rim = round.rim;
    if (round.limit > 0) log.input.limit = round.limit;
  }
  for (std::size_t k = 0; k + 1 < states.size(); ++k) {
    auto& row = log.rows[k];
    if (row.move == CrankMove::none || row.move == CrankMove::press_anew) continue;
    row.did = did(row.move, states[k], states[k + 1]);
    row.answered = true;
    log.history.push_back({row.move, row.wanted, states[k], states[k + 1]});
  }
  if (log.any()) log.advice = true_crank(log.input, log.history);
  return log;
}

CrankEdit read_crank(const Build& build, Id piece, const CrankTyped& typed, Unit unit,
                     const std::string& at) {
  CrankEdit out;
  const auto read = read_of(typed.left, typed.right, typed.bore, unit);
  if (!read.wrong.empty()) return {{}, read.wrong};
  CrankInput in;
  in.now = read.state;
  in.shaft = typed.shaft;
  in.rim = typed.rim;
  in.limit = typed.limit;
  const auto advice = true_crank(in);
  if (!advice.ok) return {{}, advice.message};
  CrankRound round;
  round.piece = piece;
  round.left = in_mm(typed.left, unit);
  round.right = in_mm(typed.right, unit);
  round.bore = typed.bore;
  round.shaft = typed.shaft;
  round.rim = typed.rim;
  round.limit = typed.limit;
  round.at = at;
  round.order = next_order(build.crank_rounds_of(piece));
  out.edit = add(build, round, "Read " + piece_name(build, piece));
  return out;
}

CrankEdit strike_crank(const Build& build, Id piece, CrankMove move, double wanted, const std::string& note) {
  const auto rounds = build.crank_rounds_of(piece);
  if (rounds.empty())
    return {{}, "read it first: what a blow does is told by the readings before and after it"};
  const auto& [id, last] = rounds.back();
  if (!std::isfinite(wanted)) return {{}, "how much it should do must be a number"};
  if (last.move != CrankMove::none)
    return {
        {},
        fmt::format("it was {} after the last reading: read it again, then strike", move_text(last.move))};
  auto struck = last;
  struck.move = move;
  struck.wanted = wanted;
  struck.note = note;
  CrankEdit out;
  out.edit = replace(build, id, struck, fmt::format("{}: {}", piece_name(build, piece), move_text(move)));
  return out;
}

Edit take_back_reading(const Build& build, Id piece) {
  const auto rounds = build.crank_rounds_of(piece);
  if (rounds.empty()) return build::cannot("no reading of it is kept");
  const auto& [id, last] = rounds.back();
  if (last.move == CrankMove::none)
    return remove(build, id, "Take back a reading of " + piece_name(build, piece));
  auto unstruck = last;
  unstruck.move = CrankMove::none;
  unstruck.wanted = 0;
  return replace(build, id, unstruck, "Take back a blow on " + piece_name(build, piece));
}

double CrankLog::asked() const {
  if (!advice.ok || advice.move == CrankMove::none || advice.move == CrankMove::press_anew) return 0;
  return (advice.at_rim > 0 ? advice.at_rim : std::abs(advice.amount)) * advice.strength;
}

Reckoning advice_sum(const CrankLog& log, Unit unit) {
  if (log.asked() == 0) return {};
  const auto& now = log.input.now;
  const bool kink = log.advice.move != CrankMove::twist_right;
  Reckoning sum{kink ? "what is asked of the webs" : "what is asked of the twist", {}, {}};
  sum.lines.push_back({kink ? "left shaft towards the pin" : "right shaft across the plane",
                       kink ? now.left.x() : now.right.y(), "half its runout there"});
  sum.lines.push_back({kink ? "right shaft towards the pin" : "less the left one",
                       kink ? now.right.x() : -now.left.y(), "half its runout there"});
  if (log.advice.at_rim > 0)
    sum.lines.push_back(
        {"times pin to wedge, by the shaft", 0, "the angle of the kink",
         fmt::format("{:g} / {:g}", from_mm(log.input.rim, unit), from_mm(log.input.shaft, unit))});
  if (std::abs(log.advice.strength - 1) > 1e-9)
    sum.lines.push_back({"this crank did, of what was asked", 0, "its last blows",
                         fmt::format("{:.0f}\u202F%", 100 / log.advice.strength)});
  sum.answer = length_text_both(log.asked(), unit, {.decimals_mm = 3, .decimals_inch = 4});
  return sum;
}

std::string move_text(CrankMove move) {
  switch (move) {
  case CrankMove::open:
    return "opened";
  case CrankMove::close:
    return "closed";
  case CrankMove::twist_right:
    return "right web twisted";
  case CrankMove::press_anew:
    return "pressed anew";
  case CrankMove::none:
    break;
  }
  return "nothing done yet";
}

} // namespace datrin::truing
