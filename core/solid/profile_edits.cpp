#include "solid/body_dimensions.h"
#include "solid/body_edits.h"
#include "solid/follow.h"
#include "solid/profile.h"

#include "drawing/dimension_limits.h"

#include <fmt/format.h>

#include <algorithm>

namespace datrin::solid {

using namespace build;

namespace {

/// Nobody said more of it than its value: it may go, or be one with another.
bool is_plain(const Build& build, Id id) {
  const auto* d = build.find<Dimension>(id);
  if (!d) return true;
  Dimension begun;
  begun.part = d->part;
  begun.name = d->name;
  begun.kind = d->kind;
  begun.nominal = d->nominal;
  begun.order = d->order;
  begun.history = d->history;
  return *d == begun && build.needing(id).empty();
}

bool is_shared(const Body& body, const BodySize& size) {
  return std::any_of(body.sizes.begin(), body.sizes.end(), [&](const BodySize& s) {
    return s.dimension == size.dimension && (s.role != size.role || s.profile_place != size.profile_place);
  });
}

/// Where two sizes are the same by nature one dimension says both, unless both were said more of.
void join(Rows& rows, Body& body, std::vector<Id>& gone) {
  for (int place = 2; place <= static_cast<int>(body.profile.size()); ++place)
    for (const auto role : {BodyRole::diameter, BodyRole::length}) {
      const int before = like_before(body.profile, role, place);
      if (before == 0) continue;
      const auto *a = body.size(role, before), *b = body.size(role, place);
      if (!a || !b || a->dimension == b->dimension) continue;
      const bool keep_first = is_plain(rows.build(), b->dimension);
      if (!keep_first && !is_plain(rows.build(), a->dimension)) continue;
      const Id kept = keep_first ? a->dimension : b->dimension;
      const Id dropped = keep_first ? b->dimension : a->dimension;
      if (dropped != 0) gone.push_back(dropped);
      for (auto& s : body.sizes)
        if (s.role == role && (s.dimension == dropped && (dropped != 0 || s.profile_place == place)))
          s.dimension = kept;
    }
}

} // namespace

void begin_profile_sizes(Rows& rows, Body& body) {
  for (auto size : profile_sizes(body)) {
    if (body.size(size.role, size.profile_place)) continue;
    const int before = like_before(body.profile, size.role, size.profile_place);
    const auto* like = before > 0 ? body.size(size.role, before) : nullptr;
    size.dimension = like && like->dimension != 0
                         ? like->dimension
                         : begin_dimension(rows, body, size.role, size.value, size.profile_place);
    body.set_size(size);
  }
}

Edit set_profile(const Build& build, Id id, const std::vector<ProfilePoint>& profile, const std::string& at) {
  const auto* was = build.find<Body>(id);
  if (!was) return build::is_gone();
  if (was->profile == profile) return {};
  const auto went = where_places_went(was->profile, profile);
  const auto now_at = [&](int place) {
    return place >= 0 && place < static_cast<int>(went.size()) ? went[static_cast<std::size_t>(place)] : 0;
  };
  Rows rows(build);
  Body body = *was;
  body.profile = profile;
  std::vector<Id> gone;
  // Each size goes with its place; those of places and arcs that are no more go.
  for (auto& size : body.sizes)
    if (size.profile_place > 0)
      size.profile_place = now_at(size.profile_place) == 0 ? -1 : now_at(size.profile_place);
  const auto wanted = profile_sizes(body);
  std::erase_if(body.sizes, [&](const BodySize& size) {
    if (size.profile_place == 0 || std::any_of(wanted.begin(), wanted.end(), [&](const BodySize& s) {
          return s.role == size.role && s.profile_place == size.profile_place;
        }))
      return false;
    if (size.dimension != 0) gone.push_back(size.dimension);
    return true;
  });
  for (const auto& size : wanted) {
    const auto* old = body.size(size.role, size.profile_place);
    if (!old || old->value == size.value) continue;
    auto changed = *old;
    changed.value = size.value;
    if (const auto* dimension = rows.build().find<Dimension>(old->dimension)) {
      if (is_shared(body, *old) && is_plain(rows.build(), old->dimension)) {
        // A cylinder of which one end was typed is a cone from now on.
        changed.dimension = begin_dimension(rows, body, size.role, size.value, size.profile_place);
      } else {
        auto said = *dimension;
        said.nominal = size.value;
        rows.apply(drawing::set_limits(rows.build(), old->dimension, said, at));
        for (auto& s : body.sizes)
          if (s.dimension == old->dimension) s.value = size.value;
      }
    }
    body.set_size(changed);
  }
  begin_profile_sizes(rows, body);
  take_profile(body);
  join(rows, body, gone);
  rows.set(id, body);
  take_unused(rows, body.part, gone);
  // Surfaces go with their places too; where there is none any more they stay as they lie, stated.
  for (const auto& [surface_id, surface] : build.of<PartSurface>(id)) {
    if (surface.profile_place == 0) continue;
    auto moved = surface;
    moved.profile_place = now_at(surface.profile_place);
    if (moved.profile_place == 0) moved.body = 0;
    if (!(moved == surface)) rows.set(surface_id, moved);
  }
  for (const auto& [other, on] : build.bodies_of(body.part)) {
    if (on.on != id || on.on_profile_place == 0) continue;
    auto moved = on;
    moved.on_profile_place = now_at(on.on_profile_place);
    if (!(moved == on)) rows.set(other, moved);
  }
  return followed(build, rows.edit(fmt::format("Profile of {}", body.name)), at);
}

} // namespace datrin::solid
