#include "readings/size_now.h"

#include "build/usual.h"
#include "geometry/surface.h"

#include <algorithm>
#include <cmath>

namespace datrin::readings {

using namespace build;

namespace {

constexpr double hair = 1e-9;

/// A dimension as its surfaces were left by the last cuts on them, when that says it.
SizeNow by_cuts(const Build& build, const Made& made, const Dimension& d) {
  SizeNow out;
  const auto last = [&](Id surface) -> Found<Cut> {
    const auto cuts = build.cuts_of(made.piece, surface);
    return cuts.empty() ? std::nullopt : Found<Cut>(cuts.back());
  };
  const auto* surface = build.find<PartSurface>(d.surface);
  const auto* other = build.find<PartSurface>(d.other);
  if (d.kind == DimensionKind::size && surface != nullptr && surface->machined) {
    const auto cut = last(d.surface);
    const auto size = cut ? size_with_stock(surface->shape(), cut->second.left) : std::nullopt;
    if (!size) return out;
    out = {Standing::made, *size, 2 * cut->second.uncertainty};
    out.at = cut->second.at;
    out.record = cut->first;
  } else if (d.kind == DimensionKind::distance && surface != nullptr && other != nullptr &&
             !surface->round() && !other->round()) {
    const auto here = last(d.surface), there = last(d.other);
    if (!here || !there) return out;
    const auto seat = build.seat_of(made.piece);
    const Vec3 way =
        seat ? Vec3(seat->second.pose.rotation.transpose() * surface->direction) : surface->direction;
    out = {Standing::made, std::abs((here->second.place - there->second.place).dot(way)),
           here->second.uncertainty + there->second.uncertainty};
    const auto& later =
        std::pair(here->second.at, here->first) < std::pair(there->second.at, there->first) ? *there : *here;
    out.at = later.second.at;
    out.record = later.first;
  }
  out.by_cut = out.read();
  return out;
}

SizeNow newest(const Build& build, const Made& made, int comparisons_left);

SizeNow by_reading(const Build& build, const Made& made, int comparisons_left) {
  SizeNow out;
  const auto found = build.measurement_of(made.piece, made.dimension);
  if (!found) return out;
  const auto& m = found->second;
  out = {Standing::made, m.value, m.uncertainty, m.bound, m.off_centre};
  out.at = m.at;
  out.record = found->first;
  out.measurement = m;
  if (m.mate == 0 || comparisons_left == 0) return out;
  const auto mate = newest(build, {m.mate, m.mate_piece}, comparisons_left - 1);
  if (!mate.read() || mate.bound != Bound::exact) return out;
  out.value = mate.value + m.difference;
  out.uncertainty += mate.uncertainty;
  return out;
}

/// The newest that is known, its standing not looked at. Of one time the reading: it is of the feature
/// itself.
SizeNow newest(const Build& build, const Made& made, int comparisons_left) {
  const auto* d = build.find<Dimension>(made.dimension);
  if (d == nullptr) return {};
  auto read = by_reading(build, made, comparisons_left), cut = by_cuts(build, made, *d);
  return cut.read() && (!read.read() || cut.at > read.at) ? cut : read;
}

/// Where `size` stands between rough and too far.
Standing standing_of(const Build& build, const Made& made, const Dimension& d, const SizeNow& size) {
  const auto side = side_of(build, made.dimension);
  const bool grows = side == Side::hole;
  if (size.bound != Bound::exact) {
    // A plug that does not go leaves a hole too small, a ring that does not go on a shaft too large.
    if (side == Side::unknown || (size.bound == Bound::below) == grows) return Standing::metal_on;
    const double limit = grows ? d.most() : d.least();
    const bool past = d.has_limits() && (grows ? size.value >= limit - hair : size.value <= limit + hair);
    return past ? Standing::beyond : Standing::metal_on;
  }
  if (side == Side::unknown || d.kind == DimensionKind::angle) return Standing::made;
  const double sign = grows ? 1 : -1; // which way cutting goes
  if (d.has_limits()) {
    const double first = grows ? d.least() : d.most(), last = grows ? d.most() : d.least();
    if (sign * (size.value - first) < -hair) return Standing::metal_on;
    return sign * (size.value - last) > hair ? Standing::beyond : Standing::made;
  }
  // Without limits: a finishing cut is still to come where more than half of one is left.
  const auto kept = build.allowance_of(made.piece, d.surface);
  double finish = kept ? kept->second.finish : usual_finish(build.info().unit);
  if (kept && kept->second.last > 0) finish = std::min(finish, kept->second.last); // as it waits for its fit
  const double sides = 2; // both sides of a diameter; a distance may be cut at both ends
  return sign * (d.nominal - size.value) > sides * finish / 2 + hair ? Standing::metal_on : Standing::made;
}

} // namespace

SizeNow size_now(const Build& build, const Made& made) {
  const auto* d = build.find<Dimension>(made.dimension);
  if (d == nullptr) return {};
  constexpr int longest = 8; // comparisons of comparisons; in a ring they end
  auto out = newest(build, made, longest);
  if (out.read()) out.standing = standing_of(build, made, *d, out);
  return out;
}

double left_by(const PartSurface& surface, const Cut& cut, const Pose& seat) {
  return surface.round() ? cut.left : (seat.apply(cut.place) - surface.point).dot(surface.direction);
}

std::optional<double> left_to(Side side, double value, double target) {
  if (side == Side::unknown) return std::nullopt;
  return side == Side::hole ? target - value : value - target;
}

} // namespace datrin::readings
