#include "solid/profile.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::solid {

using build::Body;
using build::BodySize;
using build::ProfilePoint;

std::optional<Vec2> arc_centre(const Vec2& from, const Vec2& to, double arc) {
  const double chord = (to - from).norm(), r = std::abs(arc);
  if (arc == 0 || chord == 0 || r < chord / 2 * (1 - 1e-12)) return std::nullopt;
  const Vec2 along = (to - from) / chord;
  const Vec2 outward(along.y(), -along.x()); // the metal lies to the left of the way
  const double sagitta = std::sqrt(std::max(0.0, r * r - chord * chord / 4));
  return Vec2((from + to) / 2 + outward * (arc > 0 ? -sagitta : sagitta));
}

int place_on_profile(const BodyForm& form, const Vec3& at, double within) {
  const Vec2 place(std::hypot(at.x(), at.y()), form.cut ? -at.z() : at.z());
  for (std::size_t k = 1; k < form.profile.size(); ++k) {
    const auto &a = form.profile[k - 1], &b = form.profile[k];
    const Vec2 from(a.diameter / 2, a.at), to(b.diameter / 2, b.at);
    if (const auto centre = arc_centre(from, to, b.arc)) {
      if (place.y() > std::min(a.at, b.at) - within && place.y() < std::max(a.at, b.at) + within &&
          std::abs((place - *centre).norm() - std::abs(b.arc)) < within)
        return static_cast<int>(k + 1);
      continue;
    }
    const Vec2 way = to - from;
    const double length = way.norm(), t = length > 0 ? (place - from).dot(way) / length : 0;
    if (t > -within && t < length + within &&
        (place - from - way / std::max(length, 1e-12) * t).norm() < within)
      return static_cast<int>(k + 1);
  }
  return 0;
}

ProfileStep step_to(const std::vector<ProfilePoint>& profile, int place) {
  if (place < 2 || place > static_cast<int>(profile.size())) return ProfileStep::none;
  const auto& a = profile[static_cast<std::size_t>(place - 2)];
  const auto& b = profile[static_cast<std::size_t>(place - 1)];
  if (b.arc != 0) return ProfileStep::arc;
  if (a.at == b.at) return a.diameter == b.diameter ? ProfileStep::none : ProfileStep::shoulder;
  return a.diameter == b.diameter ? ProfileStep::cylinder : ProfileStep::cone;
}

double widest_radius(const std::vector<ProfilePoint>& profile) {
  double r = 0;
  for (std::size_t k = 0; k < profile.size(); ++k) {
    const auto& p = profile[k];
    r = std::max(r, p.diameter / 2);
    if (k == 0 || p.arc <= 0) continue;
    const auto& before = profile[k - 1];
    const auto centre = arc_centre({before.diameter / 2, before.at}, {p.diameter / 2, p.at}, p.arc);
    if (centre && centre->y() > before.at && centre->y() < p.at) r = std::max(r, centre->x() + p.arc);
  }
  return r;
}

std::string profile_wrong(const std::vector<build::ProfilePoint>& profile) {
  if (profile.size() < 2) return "its profile needs two places at least";
  if (profile.front().at != 0) return "its profile starts at 0";
  if (profile.back().at <= 0) return "its profile must get somewhere: the last place lies above 0";
  bool wide = false;
  for (std::size_t k = 0; k < profile.size(); ++k) {
    const auto& p = profile[k];
    if (!std::isfinite(p.at) || !std::isfinite(p.diameter) || !std::isfinite(p.arc))
      return fmt::format("place {} of its profile is no number", k + 1);
    if (p.diameter < 0) return fmt::format("place {} of its profile has a diameter below 0", k + 1);
    wide = wide || p.diameter > 0;
    if (k == 0) continue;
    const auto& before = profile[k - 1];
    if (p.at < before.at) return fmt::format("place {} of its profile lies before the one above it", k + 1);
    if (p.at == before.at && p.diameter == before.diameter)
      return fmt::format("places {} and {} of its profile are the same", k, k + 1);
    if (p.diameter == 0 && before.diameter == 0)
      return fmt::format("between places {} and {} of its profile there is nothing", k, k + 1);
    if (p.arc == 0) continue;
    const Vec2 from(before.diameter / 2, before.at), to(p.diameter / 2, p.at);
    const auto centre = arc_centre(from, to, p.arc);
    if (!centre)
      return fmt::format("the arc to place {} of its profile is too small to reach it: at least {:.4g} mm",
                         k + 1, (to - from).norm() / 2);
    const bool hollow = p.arc < 0;
    const bool past = centre->y() > before.at && centre->y() < p.at; // its narrowest place is on it
    if (hollow && past && centre->x() - std::abs(p.arc) < 0)
      return fmt::format("the hollow to place {} of its profile goes through the axis", k + 1);
  }
  return wide ? "" : "its profile has no width";
}

std::vector<BodySize> profile_sizes(const Body& body) {
  std::vector<BodySize> sizes;
  const auto add = [&](BodyRole role, int place, double value) {
    const auto* there = body.size(role, place);
    sizes.push_back({role, there ? there->dimension : 0, value, place});
  };
  for (std::size_t k = 0; k < body.profile.size(); ++k) {
    const auto& p = body.profile[k];
    const int place = static_cast<int>(k) + 1;
    if (k > 0) add(BodyRole::length, place, p.at);
    if (p.diameter > 0) add(BodyRole::diameter, place, p.diameter);
    if (p.arc != 0) add(BodyRole::corner, place, std::abs(p.arc));
  }
  return sizes;
}

void take_profile(Body& body) {
  for (const auto& size : body.sizes) {
    const auto k = static_cast<std::size_t>(size.profile_place - 1);
    if (size.profile_place < 1 || k >= body.profile.size()) continue;
    auto& p = body.profile[k];
    if (size.role == BodyRole::length) p.at = size.value;
    if (size.role == BodyRole::diameter) p.diameter = size.value;
    if (size.role == BodyRole::corner) p.arc = std::copysign(size.value, p.arc);
  }
}

int like_before(const std::vector<ProfilePoint>& profile, BodyRole role, int place) {
  const auto step = step_to(profile, place);
  const bool same = (role == BodyRole::diameter && step == ProfileStep::cylinder) ||
                    (role == BodyRole::length && step == ProfileStep::shoulder);
  return same ? place - 1 : 0;
}

std::vector<int> where_places_went(const std::vector<ProfilePoint>& was,
                                   const std::vector<ProfilePoint>& now) {
  std::vector<int> went(was.size() + 1, 0);
  std::size_t first = 0, last = 0;
  const auto shorter = std::min(was.size(), now.size());
  if (was.size() == now.size()) {
    first = was.size(); // what changed is where it was
  } else {
    while (first < shorter && was[first] == now[first]) ++first;
    while (last < shorter - first && was[was.size() - 1 - last] == now[now.size() - 1 - last]) ++last;
  }
  for (std::size_t k = 0; k < first; ++k) went[k + 1] = static_cast<int>(k + 1);
  for (std::size_t k = was.size() - last; k < was.size(); ++k)
    went[k + 1] = static_cast<int>(k + 1 + now.size() - was.size());
  return went;
}

} // namespace datrin::solid
