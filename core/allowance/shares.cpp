#include "allowance/shares.h"

#include "margin/least.h"
#include "quantity/column_text.h"

#include <fmt/format.h>

#include <cmath>

namespace datrin::allowance {

ShareResult share(const ShareInput& in, Share how, Unit unit) {
  ShareResult out;
  const auto refuse = [&](std::string why) {
    out.status = ShareStatus::refused;
    out.message = std::move(why);
    return out;
  };
  for (const double v : {in.least_a, in.least_b, in.needed_a, in.needed_b, in.defect, in.over_defect})
    if (!std::isfinite(v)) return refuse("a number is missing");
  if (in.defect < 0) return refuse("a defect's depth must not be negative");
  if (how == Share::clear_defect && in.defect == 0)
    return refuse("no defect with a depth is noted on this face");
  const double room_a = in.least_a - in.needed_a, room_b = in.least_b - in.needed_b;
  switch (how) {
  case Share::as_seated:
    break;
  case Share::half:
    out.shift = (in.least_b - in.least_a) / 2;
    break;
  case Share::all_a:
    out.shift = room_b;
    break;
  case Share::all_b:
    out.shift = -room_a;
    break;
  case Share::even_room:
  case Share::clear_defect: {
    margin::LinearMargins margins(1);
    margins.add_row(0, room_a, {{0, 1.0}});
    margins.add_row(1, room_b, {{0, -1.0}});
    if (how == Share::clear_defect) margins.add_row(2, in.over_defect - in.defect, {{0, 1.0}});
    margin::LeastInput input;
    input.margins = &margins;
    const auto best = margin::LeastSolver().solve(input);
    if (!best.usable()) return refuse(best.message);
    out.shift = best.x[0];
    // Of all shifts that clear the defect the one that moves least.
    if (how == Share::clear_defect && best.least > 0) out.shift = std::max(0.0, in.defect - in.over_defect);
    break;
  }
  }
  out.metal_a = in.least_a + out.shift;
  out.metal_b = in.least_b - out.shift;
  out.room_a = room_a + out.shift;
  out.room_b = room_b - out.shift;
  constexpr double enough = -1e-9;
  const bool clear = how != Share::clear_defect || in.over_defect + out.shift - in.defect >= enough;
  out.fits = out.room_a >= enough && out.room_b >= enough && clear;
  // In thou as if they were whole millimetres: the column knows figures only.
  const double per = unit == Unit::mm ? 1 : mm_per_thou;
  const auto figures =
      column_text({out.metal_a / per, out.metal_b / per}, Unit::mm, unit == Unit::mm ? 2 : 0);
  out.text = fmt::format("{} = {} + {} {}", figures.total, figures.figures[0], figures.figures[1],
                         unit == Unit::mm ? "mm" : "thou");
  out.status = ShareStatus::shared;
  return out;
}

} // namespace datrin::allowance
