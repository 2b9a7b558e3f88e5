#include "cutting/cutter_path.h"

#include "quantity/refused.h"

#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::cutting {

namespace {

/// Round a rectangle from its corner left and near, back to there.
std::vector<Vec2> round_of(double half_length, double half_width, bool clockwise) {
  const Vec2 a(-half_length, -half_width), b(-half_length, half_width), c(half_length, half_width),
      d(half_length, -half_width);
  if (clockwise) return {a, b, c, d, a};
  return {a, d, c, b, a};
}

/// Ways round within the outermost, from the innermost out, each `over` of the cutter beside the next: until
/// the cutter meets itself across the middle. `shrinks`: whether they grow shorter as well, as in a pocket.
std::vector<Vec2> clearing(double half_length, double half_width, double shrinks, const CutterPathInput& in,
                           const CutterPathOptions& options) {
  const double narrow = shrinks > 0 ? std::min(half_length, half_width) : half_width;
  const double left = narrow - in.cutter / 2; // metal from the middle to where the outermost cuts
  if (left <= options.same / 2 || !(options.over > 0)) return {};
  const double wanted = std::ceil(left / (options.over * in.cutter));
  if (wanted > options.most_ways) return {};
  const int ways = static_cast<int>(wanted);
  const double step = std::min(narrow, options.over * in.cutter * ways) / ways;
  std::vector<Vec2> all;
  for (int k = ways; k > 0; --k)
    for (const auto& at :
         round_of(half_length - shrinks * k * step, half_width - k * step, !options.climbing))
      if (all.empty() || (all.back() - at).norm() > 1e-9) all.push_back(at);
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
  if (in.of == CutOf::pocket && in.corner > 0 && in.cutter > 2 * in.corner + options.same)
    return refused_as<CutterPath>(
        fmt::format("its corners of {} want a cutter of {} or less", text(in.corner), text(2 * in.corner)));
  CutterPath path;
  path.status = CutterPathStatus::found;
  path.beside = in.cutter / 2;
  if (in.of == CutOf::slot && std::abs(in.cutter - in.width) <= options.same) {
    const double half = std::max(0.0, (in.length - in.cutter) / 2);
    path.middles = {Vec2(-half, 0), Vec2(half, 0)};
    return path;
  }
  if (in.of == CutOf::slot) {
    path.middles = round_of((in.length - in.width) / 2, (in.width - in.cutter) / 2, !options.climbing);
    path.clearing = clearing((in.length - in.width) / 2, (in.width - in.cutter) / 2, 0, in, options);
    path.left_over = fmt::format("its round ends want a cutter of {}", text(in.width));
    return path;
  }
  const double by = inside ? -in.cutter : in.cutter;
  // Against the feed: clockwise inside, counter-clockwise outside.
  path.middles = round_of((in.length + by) / 2, (in.width + by) / 2, inside != options.climbing);
  if (in.of == CutOf::pocket && in.corner <= 0)
    path.left_over = fmt::format("its corners stay round, {}", text(in.cutter / 2));
  else if (in.of == CutOf::pocket && in.corner > in.cutter / 2 + options.same / 2)
    path.left_over = fmt::format("its corners come out {}, drawn {}: a cutter of {} leaves them right",
                                 text(in.cutter / 2), text(in.corner), text(2 * in.corner));
  if (inside) path.clearing = clearing((in.length + by) / 2, (in.width + by) / 2, 1, in, options);
  if (inside && path.clearing.empty() && least > 2 * in.cutter + options.same)
    path.left_over += fmt::format("{}metal stays in its middle: clear that first with a larger cutter",
                                  path.left_over.empty() ? "" : "; ");
  if (in.of == CutOf::boss && in.corner > 0)
    path.left_over = fmt::format("its corners of {} are rounded after it", text(in.corner));
  return path;
}

} // namespace datrin::cutting
