#include "drawing/dimension_limits.h"

#include "quantity/text.h"

#include <cmath>

namespace datrin::drawing {

using namespace build;

std::string dimension_text(const Dimension& d, Unit unit) {
  if (d.kind != DimensionKind::angle) return limits_text(d.nominal, d.lower, d.upper, d.tolerance, unit);
  auto text = angle_text(d.nominal);
  if (!d.tolerance.empty()) return text + " " + d.tolerance;
  if (d.upper != 0 || d.lower != 0) text += " \u00B1" + angle_text(d.upper);
  return text;
}

TypedLimits typed_limits(const Dimension& now, const std::string& text, const LengthOptions& lengths,
                         const AngleOptions& angles) {
  TypedLimits out{now, {}};
  auto& d = out.dimension;
  const auto refuse = [&](std::string why) { return TypedLimits{now, std::move(why)}; };
  if (now.kind == DimensionKind::angle) {
    auto at = text.find("\u00B1");
    std::size_t sign = std::string("\u00B1").size();
    if (at == std::string::npos) {
      at = text.find("+/-");
      sign = 3;
    }
    const auto angle = parse_angle(text.substr(0, at), angles);
    if (!angle.ok) return refuse(angle.message);
    d.nominal = angle.radian;
    d.lower = d.upper = 0;
    d.tolerance.clear();
    if (at == std::string::npos) return out;
    const auto band = parse_angle(text.substr(at + sign), angles);
    if (!band.ok) return refuse(band.message);
    if (band.radian < 0) return refuse("after \u00B1 comes an angle without a sign");
    d.upper = band.radian;
    d.lower = -band.radian;
    return out;
  }
  LimitsOptions options;
  options.length = lengths;
  options.is_edge = now.kind == DimensionKind::corner_radius || now.kind == DimensionKind::edge_radius;
  const auto read = parse_limits(text, options);
  if (!read.ok) return refuse(read.message);
  if (read.nominal <= 0 && now.kind != DimensionKind::length) return refuse("it must be above 0");
  d.nominal = read.nominal;
  d.lower = read.lower;
  d.upper = read.upper;
  d.tolerance = read.tolerance;
  return out;
}

Edit set_limits(const Build& build, Id id, const Dimension& limits, const std::string& at) {
  const auto* now = build.find<Dimension>(id);
  if (now == nullptr) return build::is_gone();
  auto changed = *now;
  changed.nominal = limits.nominal;
  changed.lower = limits.lower;
  changed.upper = limits.upper;
  changed.tolerance = limits.tolerance;
  if (changed == *now) return {};
  if (now->nominal != 0) changed.history.push_back({dimension_text(*now, build.info().unit), at});
  return change(build, id, changed, "Limits");
}

Dimension with_limits(Dimension d, double least, double most, const std::string& tolerance,
                      double of_nominal) {
  constexpr double same = 1e-9; // mm
  d.lower = least - d.nominal;
  d.upper = most - d.nominal;
  d.tolerance = std::abs(d.nominal - of_nominal) < same ? tolerance : std::string();
  return d;
}

namespace {

/// It is not as the drawing has it any more, and says for whom.
Edit depart(const Build& build, Id id, Dimension changed, const std::string& mate, const std::string& at) {
  changed.history.push_back({dimension_text(*build.find<Dimension>(id), build.info().unit), at});
  changed.source = DimensionSource::mate;
  const std::string departs = "departs from the drawing for ";
  const auto before = changed.reason.find(departs); // one line of it, for the mate it was last
  auto typed = before == std::string::npos ? changed.reason : changed.reason.substr(0, before);
  if (before == std::string::npos && !typed.empty()) typed += "; ";
  changed.reason = typed + departs + mate;
  return change(build, id, changed, "Departure from the drawing");
}

} // namespace

Edit widen(const Build& build, Id id, double by, const std::string& mate, const std::string& at) {
  const auto* now = build.find<Dimension>(id);
  if (now == nullptr) return build::is_gone();
  if (by == 0) return {};
  auto changed = *now;
  (by > 0 ? changed.upper : changed.lower) += by;
  changed.tolerance.clear();
  return depart(build, id, changed, mate, at);
}

Edit follow_mate(const Build& build, Id id, double make, const std::string& mate, const std::string& at) {
  const auto* now = build.find<Dimension>(id);
  if (now == nullptr) return build::is_gone();
  const double by = make - (now->least() + now->most()) / 2;
  if (by == 0) return {};
  auto changed = *now;
  changed.nominal += by;
  return depart(build, id, changed, mate, at);
}

} // namespace datrin::drawing
