#include "solid/profile_stairs.h"

#include "quantity/unit.h"
#include "solid/profile.h"

#include <algorithm>
#include <cmath>

namespace datrin::solid {

namespace {

/// Places along an arc, (radius, z), from one end to the other: even steps of the radius, no larger than
/// `step`, with the place where it turns back among them.
std::vector<Vec2> along_arc(const Vec2& from, const Vec2& to, const Vec2& centre, double arc, double step) {
  std::vector<Vec2> ends{from};
  if ((from.y() - centre.y()) * (to.y() - centre.y()) < 0) ends.emplace_back(centre.x() + arc, centre.y());
  ends.push_back(to);
  std::vector<Vec2> all{from};
  for (std::size_t k = 1; k < ends.size(); ++k) {
    const Vec2 &a = ends[k - 1], &b = ends[k];
    const int parts = std::max(1, static_cast<int>(std::ceil(std::abs(b.x() - a.x()) / step - 1e-9)));
    const double side = a.y() + b.y() > 2 * centre.y() ? 1 : -1;
    for (int n = 1; n < parts; ++n) {
      const double radius = a.x() + (b.x() - a.x()) * n / parts, off = radius - centre.x();
      all.emplace_back(radius, centre.y() + side * std::sqrt(std::max(0.0, arc * arc - off * off)));
    }
    all.push_back(b);
  }
  return all;
}

} // namespace

ProfileStairs profile_stairs(const ProfileStairsInput& in, const ProfileStairsOptions& options) {
  ProfileStairs out;
  out.message = profile_wrong(in.profile);
  if (out.message.empty() && !(options.proud > 0)) out.message = "a stair must be allowed to stand proud";
  out.status = out.message.empty() ? ProfileStairsStatus::found : ProfileStairsStatus::refused;
  if (!out.usable()) return out;
  const auto& profile = in.profile;
  out.length = profile.back().at - profile.front().at;
  const auto depth = [&](double at) {
    return in.from_last ? profile.back().at - at : at - profile.front().at;
  };
  const auto add = [&](int place, double at_a, double at_b, double across_a,
                       double across_b) -> TurnedStair& {
    const bool deeper = depth(at_b) > depth(at_a);
    TurnedStair stair;
    stair.place = place;
    stair.from = std::min(depth(at_a), depth(at_b));
    stair.to = std::max(depth(at_a), depth(at_b));
    stair.diameter = deeper ? across_b : across_a;
    stair.diameter_from = deeper ? across_a : across_b;
    out.stairs.push_back(stair);
    return out.stairs.back();
  };
  for (int place = 2; place <= static_cast<int>(profile.size()); ++place) {
    const auto &a = profile[static_cast<std::size_t>(place - 2)],
               &b = profile[static_cast<std::size_t>(place - 1)];
    const Vec2 from(a.diameter / 2, a.at), to(b.diameter / 2, b.at);
    switch (step_to(profile, place)) {
    case ProfileStep::cylinder:
      add(place, a.at, b.at, a.diameter, b.diameter);
      break;
    case ProfileStep::cone: {
      auto& taper = add(place, a.at, b.at, a.diameter, b.diameter);
      taper.half_angle = std::atan((taper.diameter - taper.diameter_from) / 2 / (taper.to - taper.from));
      break;
    }
    case ProfileStep::arc: {
      const auto centre = arc_centre(from, to, b.arc);
      if (!centre) break;
      // An arc too large for so many is cut in larger ones.
      const double far = 2 * std::max({from.x(), to.x(), centre->x() + std::abs(b.arc)});
      const double step = std::max(options.proud, far / options.most);
      const auto at = along_arc(from, to, *centre, b.arc, step);
      for (std::size_t k = 1; k < at.size(); ++k) {
        const double across = 2 * std::max(at[k - 1].x(), at[k].x());
        add(place, at[k - 1].y(), at[k].y(), across, across).of_arc = true;
        out.proud = std::max(out.proud, std::abs(at[k].x() - at[k - 1].x()));
      }
      break;
    }
    case ProfileStep::shoulder:
    case ProfileStep::none:
      break;
    }
  }
  std::sort(out.stairs.begin(), out.stairs.end(), [](const auto& a, const auto& b) { return a.to > b.to; });
  return out;
}

} // namespace datrin::solid
