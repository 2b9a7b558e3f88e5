#include "truing/crank.h"

#include <algorithm>
#include <cmath>

namespace datrin::truing {

namespace {

/// Kink and standing beside each other, in the plane of the crank and across it.
struct Parts {
  Vec2 kink = Vec2::Zero();   ///< l + r: both shafts the same way
  Vec2 beside = Vec2::Zero(); ///< r − l: one against the other
};

Parts parts_of(const CrankState& s) {
  return {s.left + s.right, s.right - s.left};
}
CrankState state_of(const Parts& p) {
  return {(p.kink - p.beside) / 2, (p.kink + p.beside) / 2};
}

bool is_kink(CrankMove move) {
  return move == CrankMove::open || move == CrankMove::close;
}

} // namespace

double CrankState::whole() const {
  return 2 * std::max(left.norm(), right.norm());
}

CrankState after_move(const CrankInput& in, CrankMove move, double amount) {
  auto p = parts_of(in.now);
  if (move == CrankMove::open) p.kink.x() -= amount;
  if (move == CrankMove::close) p.kink.x() += amount;
  if (move == CrankMove::twist_right) p.beside.y() -= amount;
  return state_of(p);
}

double learnt(const std::vector<CrankBlow>& history, CrankMove move) {
  constexpr std::size_t most = 4; // the last few: a fit that was moved answers otherwise than at first
  double sum = 0;
  std::size_t count = 0;
  for (auto blow = history.rbegin(); blow != history.rend() && count < most; ++blow) {
    const bool same = is_kink(move) ? is_kink(blow->move) : blow->move == move;
    if (!same || std::abs(blow->wanted) < 1e-9) continue;
    const auto before = parts_of(blow->before), after = parts_of(blow->after);
    const double did = is_kink(move)
                           ? (blow->move == CrankMove::open ? 1 : -1) * (before.kink.x() - after.kink.x())
                           : before.beside.y() - after.beside.y();
    sum += did / blow->wanted;
    ++count;
  }
  constexpr double least = 0.2, largest = 3; // a single odd reading must not run away with it
  return count == 0 ? 1 : std::clamp(sum / static_cast<double>(count), least, largest);
}

CrankAdvice true_crank(const CrankInput& in, const std::vector<CrankBlow>& history) {
  CrankAdvice out;
  if (!(in.shaft > 0) || in.rim < 0 || !(in.limit > 0)) {
    out.message = "shaft and limit must be above 0, from the pin to the wedge not below 0";
    return out;
  }
  out.ok = true;
  const auto p = parts_of(in.now);
  // What no blow moves: a kink across the plane, unequal throws.
  const auto fixed = state_of({{0, p.kink.y()}, {p.beside.x(), 0}});
  out.unmended = fixed.whole();
  out.expected = in.now;
  if (in.now.whole() <= in.limit) {
    out.text = "True enough: stop here.";
    return out;
  }
  const double by_kink = std::abs(p.kink.x()), by_twist = std::abs(p.beside.y());
  // Less than this is not worth a blow.
  const double worth = in.limit / 4;
  if (std::max(by_kink, by_twist) < worth) {
    out.move = CrankMove::press_anew;
    out.text = "What is left is in the pressing: unequal throws, or a pin not square. Press it anew, or live "
               "with it.";
    return out;
  }
  const bool kink = by_kink >= by_twist;
  out.move = !kink ? CrankMove::twist_right : p.kink.x() > 0 ? CrankMove::open : CrankMove::close;
  out.amount = kink ? by_kink : p.beside.y();
  if (kink) out.at_rim = by_kink / in.shaft * in.rim; // the angle of the kink, about the pin
  out.strength = 1 / learnt(history, out.move);
  out.expected = after_move(in, out.move, out.amount);
  switch (out.move) {
  case CrankMove::open:
    out.text =
        "Both shafts stand towards the pin: drive a wedge between the webs, opposite the pin, a little.";
    break;
  case CrankMove::close:
    out.text = "Both shafts stand away from the pin: press the webs together, opposite the pin, in a vice or "
               "with a blow.";
    break;
  default:
    out.text =
        std::string("The webs are twisted on the pin: hold the left one, strike the rim of the right one ") +
        (p.beside.y() > 0 ? "back" : "forward") +
        ", across the plane of the crank, from the side its shaft stands out to.";
    break;
  }
  out.text += " Copper or lead, never steel on a journal; eyes.";
  return out;
}

} // namespace datrin::truing
