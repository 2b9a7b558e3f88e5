#include "solid/body_edits.h"

#include "build/rows.h"
#include "build/words.h"
#include "drawing/dimension_limits.h"
#include "geometry/between.h"
#include "solid/body_dimensions.h"
#include "solid/follow.h"
#include "solid/profile.h"
#include "threads/threads.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::solid {

using namespace build;

namespace {

std::string_view word(BodyRole role) {
  return words_of<BodyRole>().first[static_cast<std::size_t>(role)];
}

double usual_size(BodyShape shape, BodyRole role, Unit unit) {
  using R = BodyRole;
  const auto length = [&](double mm, double inches) { return usual_length(unit, mm, inches); };
  switch (role) {
  case R::length:
    return shape == BodyShape::scribed                              ? length(20, 0.75)
           : shape == BodyShape::slot || shape == BodyShape::pocket ? length(20, 0.75)
                                                                    : length(60, 2.5);
  case R::width:
    return shape == BodyShape::slot || shape == BodyShape::spokes ? length(6, 0.25)
           : shape == BodyShape::pocket                           ? length(12, 0.5)
           : shape == BodyShape::groove                           ? length(2, 0.0625)
                                                                  : length(40, 1.5);
  case R::height:
    return shape == BodyShape::chamfer || shape == BodyShape::fillet ? length(1, 0.03125) : length(12, 0.5);
  case R::diameter:
    return shape == BodyShape::hole ? length(6, 0.25) : length(20, 0.75);
  case R::top_diameter:
    return length(16, 0.625);
  case R::bore:
    return length(12, 0.5);
  case R::flats:
    return length(16, 0.625);
  case R::thickness:
    return length(6, 0.25);
  case R::depth:
    return shape == BodyShape::hole ? length(12, 0.5) : length(5, 0.1875);
  case R::point_angle:
    return radians(118); // the usual twist drill
  case R::mouth_diameter:
    return length(11, 0.4375);
  case R::mouth_depth:
    return length(6, 0.25);
  case R::mouth_angle:
    return radians(90);
  case R::taper:
    return 0; // by its two diameters
  case R::inside_diameter:
    return length(30, 1.25);
  case R::outside_diameter:
    return shape == BodyShape::groove ? length(24, 1) : length(100, 4);
  case R::pitch:
  case R::pitch_across:
    return length(20, 0.75);
  case R::circle:
    return length(40, 1.5);
  default:
    return 0;
  }
}

/// Which sizes a body needs for what it is and how it is repeated, without those that say where it is put.
std::vector<BodyRole> needed(const Body& body) {
  auto roles = roles_of(form_of(body));
  switch (body.pattern) {
  case BodyPattern::row:
  case BodyPattern::pair:
    roles.push_back(BodyRole::pitch);
    break;
  case BodyPattern::grid:
    roles.push_back(BodyRole::pitch);
    roles.push_back(BodyRole::pitch_across);
    break;
  case BodyPattern::circle:
    if (body.face != BodyFace::side) roles.push_back(BodyRole::circle);
    break;
  case BodyPattern::single:
  case BodyPattern::mirror:
    break;
  }
  return roles;
}

bool is_place(BodyRole role) {
  return role >= BodyRole::along && role <= BodyRole::tilt;
}

/// The metal a machined surface needs until something else is typed.
double usual_required(const Build& build) {
  return usual_length(build.info().unit, 0.5, 0.02);
}

std::string label_of(const Body& body) {
  return body.name.empty() ? std::string(words_of<BodyShape>().first[static_cast<std::size_t>(body.shape)])
                           : body.name;
}

/// Sizes that are as they usually are until someone says otherwise: no dimension is begun for them.
bool usual_until_said(BodyRole role) {
  return role == BodyRole::corner || role == BodyRole::point_angle || role == BodyRole::mouth_angle ||
         role == BodyRole::taper;
}

void begin_sizes(Rows& rows, Body& body) {
  for (const auto role : needed(body)) {
    if (body.size(role)) continue;
    const double value = usual_size(body.shape, role, rows.build().info().unit);
    body.set_size({role, usual_until_said(role) ? 0 : begin_dimension(rows, body, role, value), value});
  }
  begin_profile_sizes(rows, body);
}

} // namespace

void take_unused(Rows& rows, Id part, const std::vector<Id>& dimensions) {
  for (const Id dimension : dimensions) {
    bool used = false;
    for (const auto& [id, body] : rows.build().bodies_of(part))
      for (const auto& size : body.sizes) used = used || size.dimension == dimension;
    if (!used) rows.take_away(dimension);
  }
}

Id begin_dimension(Rows& rows, const Body& body, BodyRole role, double value, int profile_place) {
  auto dimension = dimension_for(body, role, value, profile_place);
  const auto all = rows.build().dimensions_of(body.part);
  dimension.name = free_name(all, dimension.name);
  dimension.order = next_order(all);
  return rows.add(dimension);
}

Dimension dimension_for(const Body& body, BodyRole role, double value, int profile_place) {
  Dimension d;
  d.part = body.part;
  const bool plain = role == BodyRole::diameter && body.shape != BodyShape::cone &&
                     body.shape != BodyShape::groove && profile_place == 0;
  d.name = plain ? body.name : fmt::format("{}, {}", body.name, role_words(body, role, profile_place));
  d.kind = is_angle(role) ? DimensionKind::angle : DimensionKind::length;
  d.nominal = value;
  return d;
}

namespace {

/// What was named after a body is named after it still: its dimensions, and the surfaces of its faces.
void rename(Rows& rows, Id body, const std::string& was, const std::string& now) {
  const auto renamed = [&](std::string& name) {
    if (name.compare(0, was.size(), was) != 0) return false;
    const auto rest = name.substr(was.size());
    if (!rest.empty() && rest[0] != ',' && rest[0] != ' ') return false;
    name = now + rest;
    return true;
  };
  const auto record = *rows.build().find<Body>(body);
  for (const auto& size : record.sizes)
    if (const auto* dimension = rows.build().find<Dimension>(size.dimension)) {
      auto changed = *dimension;
      if (renamed(changed.name)) rows.set(size.dimension, changed);
    }
  const auto surfaces = rows.build().of<PartSurface>(body);
  for (const auto& [id, surface] : surfaces) {
    auto changed = surface;
    if (renamed(changed.name)) rows.set(id, changed);
  }
}

} // namespace

std::string role_words(const Body& body, BodyRole role, int profile_place) {
  if (profile_place > 0)
    return fmt::format("{} place {}",
                       role == BodyRole::diameter ? "diameter at"
                       : role == BodyRole::length ? "up to"
                                                  : "arc to",
                       profile_place);
  const auto from = [](PlaceFrom place, const char* middle, const char* low, const char* high) {
    switch (place) {
    case PlaceFrom::middle:
      return std::string(middle);
    case PlaceFrom::low_edge:
    case PlaceFrom::low_to_edge:
      return std::string("from the ") + low;
    case PlaceFrom::high_edge:
    case PlaceFrom::high_to_edge:
      break;
    }
    return std::string("from the ") + high;
  };
  switch (role) {
  case BodyRole::along:
    return from(body.from_along, "right of the middle", "left edge", "right edge");
  case BodyRole::across:
    return from(body.from_across, "above the middle", "lower edge", "upper edge");
  case BodyRole::off:
    return body.on == 0 && body.surface == 0 ? "up" : "off the face";
  case BodyRole::turn:
    return "turned";
  case BodyRole::tilt:
    return "tilted";
  case BodyRole::height:
    return body.shape == BodyShape::chamfer  ? "size"
           : body.shape == BodyShape::fillet ? "radius"
           : body.cut                        ? "depth"
                                             : "height";
  case BodyRole::diameter:
    return body.shape == BodyShape::groove ? "diameter at its bottom"
           : body.shape == BodyShape::cone ? (body.cut ? "diameter at its mouth" : "diameter below")
                                           : "diameter";
  case BodyRole::top_diameter:
    return body.cut ? "diameter at its bottom" : "diameter above";
  case BodyRole::circle:
    return "bolt circle";
  case BodyRole::pitch:
    return body.pattern == BodyPattern::pair ? "apart" : "pitch";
  default:
    return std::string(word(role));
  }
}

std::vector<BodyRole> place_roles_of(const Body& body) {
  if (works_edges(body.shape)) return {};
  std::vector<BodyRole> roles{BodyRole::along, BodyRole::across, BodyRole::off, BodyRole::turn,
                              BodyRole::tilt};
  for (const auto role : needed(body))
    if (role >= BodyRole::pitch) roles.push_back(role);
  return roles;
}

std::string profile_face_words(const Body& body, int place) {
  const bool shoulder = step_to(body.profile, place) == ProfileStep::shoulder;
  return fmt::format("{} place {}", shoulder ? "shoulder at" : "side up to", place);
}

std::string face_words(const Build& build, Id body_id, const FaceOf& of) {
  const auto* body = build.find<Body>(body_id);
  if (!body) return "the drawing's origin";
  const auto face = of.face;
  if (of.profile_place > 0)
    return fmt::format("{} of {}", profile_face_words(*body, of.profile_place), body->name);
  if (face == BodyFace::side && always_cuts(body->shape)) return body->name;
  const auto form = form_of(*body);
  if (face == BodyFace::middle) return "middle of " + body->name;
  if (is_open(form, face)) return "mouth of " + body->name;
  return fmt::format("{} of {}", words_of<BodyFace>().first[static_cast<std::size_t>(face)], body->name);
}

Added add_body(const Build& build, Id part, const NewBody& begun) {
  if (!build.find<Part>(part)) return {0, {}, "there is no part to draw it on yet: add one first"};
  const auto* stated = build.find<PartSurface>(begun.surface);
  if (begun.surface != 0 && (!stated || stated->part != part || stated->body != 0))
    return {0, {}, "what it is to be put on is not there"};
  if (begun.on != 0 && !build.find<Body>(begun.on)) return {0, {}, "what it is to be put on is not there"};
  Rows rows(build);
  Body body;
  body.part = part;
  body.shape = begun.shape;
  body.cut = begun.cut || always_cuts(begun.shape);
  body.surface = begun.surface;
  body.on = begun.surface == 0 ? begun.on : 0;
  body.face = body.on == 0 ? BodyFace::middle : begun.face.face;
  body.on_profile_place = body.on == 0 ? 0 : begun.face.profile_place;
  if (body.shape == BodyShape::turned) {
    // Something to change: a knob on its neck.
    const auto length = [&](double mm, double inches) { return usual_length(build.info().unit, mm, inches); };
    body.profile = {{0, length(12, 0.5), 0},
                    {length(8, 0.25), length(8, 0.25), 0},
                    {length(20, 0.75), 0, length(9, 0.375)}};
  }
  const auto all = build.bodies_of(part);
  body.name = begun.name.empty() ? label_of(body) : begun.name;
  body.name = free_name(all, body.name);
  body.order = next_order(all);
  begin_sizes(rows, body);
  const Id id = rows.add(body);
  if (begun.shape == BodyShape::hole) { // its wall has a part to play: it is what is read and fitted
    PartSurface wall;
    wall.part = part;
    wall.body = id;
    wall.face = BodyFace::side;
    wall.kind = SurfaceKind::bore;
    const auto surfaces = build.surfaces_of(part);
    wall.name = free_name(surfaces, body.name);
    wall.order = next_order(surfaces);
    wall.from_solid = true;
    rows.add(wall);
  }
  return {id, followed(build, rows.edit("Add " + body.name)), {}};
}

Added add_on_face(const Build& build, Id part, const SolidFace& face, NewBody begun) {
  Rows rows(build);
  begun.surface = surface_of_face(build, part, face);
  if (begun.surface == 0) {
    const auto made = surface_from_face(build, part, face, true);
    if (!made.ok()) return made;
    rows.apply(made.edit);
    begun.surface = made.id;
  }
  const auto added = add_body(rows.build(), part, begun);
  if (!added.ok()) return added;
  rows.apply(added.edit);
  return {added.id, rows.edit(added.edit.label), {}};
}

Edit set_body(const Build& build, Id id, const Body& changed, const std::string& what) {
  const auto* was = build.find<Body>(id);
  if (!was) return build::is_gone();
  if (changed == *was) return {};
  Rows rows(build);
  Body body = changed;
  if (body.profile != was->profile) {
    rows.apply(set_profile(build, id, body.profile, {}));
    body.sizes = rows.build().find<Body>(id)->sizes;
    rows.apply(set_body(rows.build(), id, body, what));
    return rows.edit(fmt::format("{} of {}", what, label_of(body)));
  }
  const auto roles = needed(body);
  std::vector<Id> gone;
  std::erase_if(body.sizes, [&](const BodySize& size) {
    if (is_place(size.role) || size.profile_place > 0 ||
        std::find(roles.begin(), roles.end(), size.role) != roles.end())
      return false;
    if (size.dimension != 0) gone.push_back(size.dimension);
    return true;
  });
  begin_sizes(rows, body);
  rows.set(id, body);
  take_unused(rows, body.part, gone);
  // What is drilled from solid, or was there in the casting.
  if (body.making != was->making)
    for (const auto& [surface_id, surface] : build.of<PartSurface>(id)) {
      auto made = surface;
      made.from_solid = body.making != HoleMaking::cored;
      rows.set(surface_id, made);
    }
  if (body.name != was->name) rename(rows, id, was->name, body.name);
  return followed(build, rows.edit(fmt::format("{} of {}", what, label_of(body))));
}

namespace {

/// The far end of a cone is said in one way, by its diameter or by the taper: what said it in the other goes.
Edit set_far_end(const Build& build, Id id, BodyRole role, double value, const std::string& at) {
  const auto& body = *build.find<Body>(id);
  const auto other = role == BodyRole::taper ? BodyRole::top_diameter : BodyRole::taper;
  const auto form = form_of(body);
  Body changed = body;
  if (role == BodyRole::taper && value == 0) { // no taper any more: the end stays as wide as it is
    if (form[BodyRole::taper] == 0) return {};
    return set_far_end(build, id, BodyRole::top_diameter, top_diameter(form), at);
  }
  const auto* now = body.size(role);
  if (now && now->value == value && form[BodyRole::taper] == (role == BodyRole::taper ? value : 0)) return {};
  Rows rows(build);
  std::vector<Id> gone;
  if (const auto* there = changed.size(other); there && there->dimension != 0)
    gone.push_back(there->dimension);
  changed.set_size({other, 0, 0});
  if (const auto* dimension = now ? build.find<Dimension>(now->dimension) : nullptr) {
    auto said = *dimension;
    said.nominal = value;
    rows.apply(drawing::set_limits(build, now->dimension, said, at));
    changed.set_size({role, now->dimension, value});
  } else {
    changed.set_size({role, begin_dimension(rows, changed, role, value), value});
  }
  rows.set(id, changed);
  take_unused(rows, body.part, gone);
  return followed(build, rows.edit(fmt::format("{} of {}", role_words(body, role), body.name)));
}

} // namespace

Edit set_body_size(const Build& build, Id id, BodyRole role, double value, const std::string& at) {
  const auto* body = build.find<Body>(id);
  if (!body) return build::is_gone();
  constexpr double flat = pi - 1e-9; // a point of 180° is a flat bottom
  if (role == BodyRole::point_angle && value >= flat && value <= pi + 1e-9) value = 0;
  if (body->shape == BodyShape::cone && (role == BodyRole::taper || role == BodyRole::top_diameter))
    return set_far_end(build, id, role, value, at);
  const auto label = fmt::format("{} of {}", role_words(*body, role), body->name);
  const auto old = body->size(role) ? *body->size(role) : BodySize{role, 0, 0};
  if (const auto* dimension = build.find<Dimension>(old.dimension)) {
    if (dimension->nominal == value) return {};
    auto changed = *dimension;
    changed.nominal = value;
    auto edit = drawing::set_limits(build, old.dimension, changed, at);
    edit.label = label;
    return followed(build, edit, at);
  }
  if (old.value == value) return {};
  Rows rows(build);
  Body changed = *body;
  changed.set_size({role, begin_dimension(rows, changed, role, value), value});
  rows.set(id, changed);
  return followed(build, rows.edit(label));
}

Edit set_thread(const Build& build, Id id, const std::string& thread, const std::string& at) {
  const auto* body = build.find<Body>(id);
  if (!body) return build::is_gone();
  if (body->thread == thread) return {};
  auto changed = *body;
  changed.thread = thread;
  Rows rows(build);
  rows.apply(set_body(build, id, changed, "Thread"));
  if (const auto found = thread.empty() ? threads::Found{} : threads::find(thread); found.thread) {
    const double size = form_of(*body).cut ? threads::tapping_drill(*found.thread).size : found.thread->major;
    if (size > 0) rows.apply(set_body_size(rows.build(), id, BodyRole::diameter, size, at));
  }
  return rows.edit(fmt::format("Thread of {}", label_of(*body)));
}

Edit move_body(const Build& build, Id id, int by) {
  const auto* body = build.find<Body>(id);
  if (!body) return build::is_gone();
  const auto all = build.bodies_of(body->part);
  std::vector<Id> ids;
  for (const auto& [other, unused] : all) ids.push_back(other);
  const auto at = std::find(ids.begin(), ids.end(), id) - ids.begin();
  const auto to = at + by;
  if (to < 0 || to >= static_cast<std::ptrdiff_t>(ids.size())) return {};
  std::swap(ids[static_cast<std::size_t>(at)], ids[static_cast<std::size_t>(to)]);
  Rows rows(build);
  for (std::size_t k = 0; k < ids.size(); ++k) {
    auto changed = *build.find<Body>(ids[k]);
    changed.order = static_cast<double>(k);
    rows.set(ids[k], changed);
  }
  return followed(build, rows.edit(fmt::format("Move {} in the order", body->name)));
}

Edit remove_body(const Build& build, Id id) {
  const auto* body = build.find<Body>(id);
  if (!body) return build::is_gone();
  std::vector<Id> gone{id};
  int more = 0;
  for (std::size_t k = 0; k < gone.size(); ++k)
    for (const auto& [other, on] : build.bodies_of(body->part))
      if (on.on == gone[k]) {
        gone.push_back(other);
        ++more;
      }
  auto label = "Remove " + body->name;
  if (more > 0) label += fmt::format(" and what stands on it ({})", more);
  std::vector<Id> dimensions;
  for (const Id one : gone)
    for (const auto& size : build.find<Body>(one)->sizes)
      if (size.dimension != 0) dimensions.push_back(size.dimension);
  Rows rows(build);
  const Id part = body->part;
  rows.apply(remove_all(build, gone, {}));
  take_unused(rows, part, dimensions);
  return followed(build, rows.edit(std::move(label)));
}

bool is_cut_only(const Body& body) {
  switch (body.shape) {
  case BodyShape::hole:
    return body.making != HoleMaking::cored;
  case BodyShape::slot:
  case BodyShape::groove:
  case BodyShape::chamfer:
  case BodyShape::scribed:
  case BodyShape::pop:
    return true;
  default:
    return false;
  }
}

Added name_face(const Build& build, Id body_id, const FaceOf& face, const std::string& name, bool machined) {
  const auto* body = build.find<Body>(body_id);
  if (!body) return {0, {}, "the body is not there any more"};
  for (const auto& [id, surface] : build.of<PartSurface>(body_id))
    if (surface.face_of() == face) return {id, {}, "it is a surface already: " + surface.name};
  const auto surfaces = build.surfaces_of(body->part);
  PartSurface surface;
  surface.part = body->part;
  surface.body = body_id;
  surface.face = face.face;
  surface.copy = face.copy;
  surface.profile_place = face.profile_place;
  surface.machined = machined;
  surface.from_solid = is_cut_only(*body);
  surface.required = machined && !surface.from_solid ? usual_required(build) : 0;
  surface.name = free_name(surfaces, name.empty() ? face_words(build, body_id, face) : name);
  surface.order = next_order(surfaces);
  auto made = added(build, surface, "Name " + surface.name);
  made.edit = followed(build, made.edit);
  return made;
}

Id surface_of_face(const Build& build, Id part, const SolidFace& face) {
  if (!face.known()) return 0;
  for (const auto& [id, s] : build.surfaces_of(part)) {
    if (face.body != 0 && s.body == face.body) {
      if (s.face_of() == face.face_of()) return id;
      continue;
    }
    // In one plane, about one axis, there may be several: the one whose middle the face reaches.
    if (same_surface(s.shape(), face.shape) && reaches(face.patch(), s.point, -1e-6)) return id;
  }
  return 0;
}

Added surface_from_face(const Build& build, Id part, const SolidFace& face, bool machined) {
  if (!face.known()) return {0, {}, "only planes, bores, bosses and tapers can be surfaces"};
  if (const Id id = surface_of_face(build, part, face))
    return {id, {}, "it is a surface already: " + surface_name(build, id)};
  const auto* body = build.find<Body>(face.body);
  if (body && body->shape != BodyShape::imported)
    return name_face(build, face.body, face.face_of(), {}, machined);
  PartSurface s;
  s.part = part;
  s.kind = face.shape.kind;
  s.point = face.shape.point;
  s.direction = face.shape.direction;
  s.diameter = face.shape.diameter;
  s.half_angle = face.shape.half_angle;
  s.width = face.width;
  s.height = face.height;
  s.machined = machined;
  s.required = machined ? usual_required(build) : 0;
  const auto surfaces = build.surfaces_of(part);
  s.name = free_name(surfaces, std::string(surface_kind_name(s.kind)));
  s.order = next_order(surfaces);
  return added(build, s, "Take " + s.name + " from the solid");
}

std::optional<double> read_off(const SolidFace& face, const SolidFace* other) {
  if (!face.known() || (other && !other->known())) return std::nullopt;
  if (!other)
    return face.shape.round() && !is_cone(face.shape.kind) ? std::optional(face.shape.diameter)
                                                           : std::nullopt;
  const auto apart = between(face.shape, other->shape);
  return apart ? std::optional(std::abs(apart->signed_distance)) : std::nullopt;
}

Added keep_read_off(const Build& build, Id part, const SolidFace& face, const SolidFace* other) {
  const auto size = read_off(face, other);
  if (!size) return {0, {}, "there is no one size between them"};
  Rows rows(build);
  const auto surface = [&](const SolidFace& f) {
    if (const Id id = surface_of_face(rows.build(), part, f)) return id;
    const auto made = surface_from_face(rows.build(), part, f, true);
    rows.apply(made.edit);
    return made.id;
  };
  Dimension d;
  d.part = part;
  d.kind = other ? DimensionKind::distance : DimensionKind::size;
  d.surface = surface(face);
  d.other = other ? surface(*other) : 0;
  d.nominal = *size;
  for (const auto& [id, old] : rows.build().dimensions_of(part))
    if (old.kind == d.kind && ((old.surface == d.surface && old.other == d.other) ||
                               (old.surface == d.other && old.other == d.surface)))
      return {id, {}, "it is a dimension already: " + old.name};
  const auto all = rows.build().dimensions_of(part);
  const auto name = surface_name(rows.build(), d.surface);
  d.name = free_name(all, other ? fmt::format("{} to {}", name, surface_name(rows.build(), d.other)) : name);
  d.order = next_order(all);
  d.reason = "read off the solid";
  const Id id = rows.add(d);
  return {id, rows.edit("Keep " + d.name), {}};
}

} // namespace datrin::solid
