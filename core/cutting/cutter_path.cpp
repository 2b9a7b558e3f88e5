#include "cutting/cutter_path.h"

#include "quantity/refused.h"

#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::cutting {

namespace {

/// How proud the metal stays between two places of a cutter of that radius, `turn` apart on an arc of `arc`:
/// two circles meet nearer to the arc's middle than the round they are to leave.
double proud_between(double arc, double radius, double turn) {
  const double aside = arc * std::sin(turn / 2);
  return arc + radius - arc * std::cos(turn / 2) - std::sqrt(std::max(0.0, radius * radius - aside * aside));
}

struct Round {
  double half_length = 0, half_width = 0, arc = 0; ///< of the cutter's middle; arc 0: square corners
  int places = 0;                                  ///< to a corner
};

/// As many places to a corner as keep what stays between them low, within reason.
int places_on(double arc, double radius, double proud, int most) {
  int n = 1;
  while (n < most && proud_between(arc, radius, pi / 2 / n) > proud) ++n;
  return n;
}

/// Round it from the near side's left end, back to there. A corner is gone round in stairs along the axes,
/// their outer ends on the arc: a machine moves one slide at a time, and nothing outside of the arc is cut.
std::vector<Vec2> round_of(const Round& r, bool clockwise) {
  const double arc = std::min({r.arc, r.half_length, r.half_width});
  if (arc <= 0) {
    const Vec2 a(-r.half_length, -r.half_width), b(-r.half_length, r.half_width),
        c(r.half_length, r.half_width), d(r.half_length, -r.half_width);
    if (clockwise) return {a, b, c, d, a};
    return {a, d, c, b, a};
  }
  std::vector<Vec2> all;
  const auto put = [&](const Vec2& at) {
    if (all.empty() || (all.back() - at).norm() > 1e-9) all.push_back(at);
  };
  constexpr int signs[4][2] = {{-1, -1}, {-1, 1}, {1, 1}, {1, -1}}; // clockwise
  for (int corner = 0; corner < 4; ++corner) {
    const Vec2 middle(signs[corner][0] * (r.half_length - arc), signs[corner][1] * (r.half_width - arc));
    const double from = -pi / 2 - corner * pi / 2;
    Vec2 before = middle + arc * Vec2(std::cos(from), std::sin(from));
    put(before);
    for (int k = 1; k <= r.places; ++k) {
      const double at = from - k * pi / 2 / r.places;
      const Vec2 next = middle + arc * Vec2(std::cos(at), std::sin(at));
      // Of the two ways the one nearer to the arc's middle.
      const Vec2 one(next.x(), before.y()), other(before.x(), next.y());
      put((one - middle).norm() < (other - middle).norm() ? one : other);
      put(next);
      before = next;
    }
  }
  put(all.front());
  if (!clockwise) std::reverse(all.begin(), all.end());
  return all;
}

/// Ways round within the outermost, from the innermost out, each `over` of the cutter beside the next: until
/// the cutter meets itself across the middle.
std::vector<Vec2> clearing(const Round& outermost, const CutterPathInput& in,
                           const CutterPathOptions& options) {
  const double narrow = std::min(outermost.half_length, outermost.half_width);
  const double left = narrow - in.cutter / 2; // metal from the middle to where the outermost cuts
  if (left <= options.same / 2 || !(options.over > 0)) return {};
  const double wanted = std::ceil(left / (options.over * in.cutter));
  if (wanted > options.most_ways) return {};
  const int ways = static_cast<int>(wanted);
  const double step = std::min(narrow, options.over * in.cutter * ways) / ways;
  std::vector<Vec2> all;
  for (int k = ways; k > 0; --k) {
    // What it leaves at a corner the next way round, a step further out, takes: half of where they overlap.
    const double arc = std::max(0.0, outermost.arc - k * step), radius = in.cutter / 2;
    const Round within{outermost.half_length - k * step, outermost.half_width - k * step, arc,
                       places_on(arc, radius, radius - step / 2, options.most_places)};
    for (const auto& at : round_of(within, !options.climbing))
      if (all.empty() || (all.back() - at).norm() > 1e-9) all.push_back(at);
  }
  return all;
}

} // namespace

CutterPath cutter_path(const CutterPathInput& in, const CutterPathOptions& options) {
  const auto text = [&](double mm) {
    return length_text(mm, options.unit, {.decimals_mm = 2, .show_unit = true});
  };
  const auto real = [](double v) { return std::isfinite(v) && v >= 0; };
  if (!(in.length > 0) || !(in.width > 0) || !(in.cutter > 0) || !real(in.length) || !real(in.width) ||
      !real(in.cutter) || !real(in.corner))
    return refused_as<CutterPath>("length, width and cutter must be above 0, the corner not below");
  const bool inside = in.of != CutOf::boss;
  const double least = std::min(in.length, in.width);
  if (inside && in.cutter > least + options.same)
    return refused_as<CutterPath>(
        fmt::format("a cutter of {} does not go in: it is {} wide", text(in.cutter), text(least)));
  if (in.of == CutOf::slot && in.width > in.length + options.same)
    return refused_as<CutterPath>(
        "a slot is longer than it is wide: is it length and width the other way round?");
  if (inside && in.of == CutOf::pocket && in.corner > least / 2 + options.same)
    return refused_as<CutterPath>(fmt::format("corners of {} have no room in it: {} is the most it can have",
                                              text(in.corner), text(least / 2)));
  CutterPath path;
  path.status = CutterPathStatus::found;
  path.beside = in.cutter / 2;
  if (in.of == CutOf::slot && std::abs(in.cutter - in.width) <= options.same) {
    const double half = std::max(0.0, (in.length - in.cutter) / 2);
    path.middles = {Vec2(-half, 0), Vec2(half, 0)};
    return path;
  }
  const double by = inside ? -in.cutter : in.cutter;
  Round round{(in.length + by) / 2, (in.width + by) / 2};
  const double corner = in.of == CutOf::slot ? in.width / 2 : in.corner;
  if (inside && corner > in.cutter / 2 + options.same / 2) {
    round.arc = corner - in.cutter / 2;
    round.places = places_on(round.arc, in.cutter / 2, options.proud, options.most_places);
    const double proud = proud_between(round.arc, in.cutter / 2, pi / 2 / round.places);
    path.left_over =
        fmt::format("its {} are gone round by places, {} stays proud between them: blend it, or "
                    "take a cutter of {}",
                    in.of == CutOf::slot ? "round ends" : "corners", text(proud), text(2 * corner));
  }
  // Against the feed: clockwise inside, counter-clockwise outside.
  path.middles = round_of(round, inside != options.climbing);
  if (in.of == CutOf::pocket && in.corner <= 0)
    path.left_over = fmt::format("its corners stay round, {}", text(in.cutter / 2));
  else if (in.of == CutOf::pocket && in.corner < in.cutter / 2 - options.same / 2)
    path.left_over =
        fmt::format("its corners come out {}, drawn {}: a cutter of {} or less leaves them right",
                    text(in.cutter / 2), text(in.corner), text(2 * in.corner));
  if (inside) path.clearing = clearing(round, in, options);
  if (inside && path.clearing.empty() && least > 2 * in.cutter + options.same)
    path.left_over += fmt::format("{}metal stays in its middle: clear that first with a larger cutter",
                                  path.left_over.empty() ? "" : "; ");
  if (in.of == CutOf::boss && in.corner > 0)
    path.left_over = fmt::format("its corners of {} are rounded after it", text(in.corner));
  return path;
}

} // namespace datrin::cutting
