#include "solid/follow.h"

#include "build/rows.h"
#include "drawing/dimension_limits.h"
#include "solid/profile.h"
#include "solid/size_faces.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>
#include <set>

namespace datrin::solid {

using namespace build;

namespace {

constexpr double same = 1e-9; // mm: nothing moved

Id part_of(const Record& record) {
  if (const auto* body = record.as<Body>()) return body->part;
  if (const auto* dimension = record.as<Dimension>()) return dimension->part;
  if (const auto* surface = record.as<PartSurface>()) return surface->part;
  return 0;
}

/// Parts with bodies that the edit may have changed.
std::set<Id> parts_touched(const Build& build, const Edit& edit) {
  std::set<Id> parts;
  std::set<Id> with_new_bodies;
  for (const auto& change : edit.changes)
    if (change.after && change.after->as<Body>()) with_new_bodies.insert(change.after->as<Body>()->part);
  for (const auto& change : edit.changes)
    for (const auto* side : {&change.before, &change.after})
      if (side->has_value())
        if (const Id part = part_of(**side);
            part != 0 && (with_new_bodies.contains(part) || !build.bodies_of(part).empty()))
          parts.insert(part);
  return parts;
}

/// What a person or a rescue did to where a surface lies.
struct Moved {
  Id surface = 0;
  Vec3 by = Vec3::Zero();
  double wider = 0; ///< mm on the diameter
};

/// Whether the right of a face is upright as its surface counts it.
bool is_turned(const PlacedFace& face) {
  const auto directions = patch_directions(face.shape.direction);
  return std::abs(face.frame.rotation.col(0).dot(directions.width)) <
         std::abs(face.frame.rotation.col(1).dot(directions.width));
}

class Follower {
public:
  Follower(const Build& before, const Edit& edit, std::string at)
      : before_(before), rows_(before), at_(std::move(at)) {
    rows_.apply(edit);
  }

  void run(Id part, const Edit& edit) {
    take_sizes(part);
    for (const auto& change : edit.changes) {
      const auto* is = change.after ? change.after->as<PartSurface>() : nullptr;
      if (!is || !change.before || is->body == 0 || is->part != part) continue;
      // Where its body has it by now; what the edit says beyond that, someone wanted.
      const auto laid = lying_now(*is);
      if (!laid) continue;
      stretch(*is, *laid);
      const Moved moved{change.id, is->point - laid->point, is->diameter - laid->diameter};
      if (moved.by.norm() > same || std::abs(moved.wider) > same) move_body(moved, *laid);
    }
    const auto placed = place_bodies(after(), part);
    if (!(before_.bodies_of(part) == after().bodies_of(part))) adopt(part, placed);
    lay_surfaces(part, placed);
    link_dimensions(placed);
    link_places(part, placed);
  }

  Edit result(const std::string& label) const { return rows_.edit(label); }

private:
  const Build& after() const { return rows_.build(); }
  void put(Id id, Record record) { rows_.set(id, std::move(record)); }
  void take_away(Id id) { rows_.take_away(id); }

  /// A size grows by `by`: the dimension that says it, or the value.
  void grow(Id body_id, BodyRole role, double by) { grow(body_id, BodySize{role, 0, 0}, by); }
  void grow(Id body_id, const BodySize& begun, double by) {
    if (std::abs(by) <= same) return;
    const auto* body = after().find<Body>(body_id);
    const auto* there = body->size(begun.role, begun.profile_place);
    auto size = there ? *there : begun;
    if (const auto* dimension = after().find<Dimension>(size.dimension)) {
      auto changed = *dimension;
      if (changed.nominal != 0)
        changed.history.push_back({drawing::dimension_text(changed, after().info().unit), at_});
      changed.nominal += by;
      put(size.dimension, changed);
      size.value = changed.nominal;
    } else {
      size.value += by;
    }
    auto changed = *body;
    changed.set_size(size);
    for (auto& other : changed.sizes)
      if (size.dimension != 0 && other.dimension == size.dimension) other.value = size.value;
    take_profile(changed);
    put(body_id, changed);
  }

  std::optional<PartSurface> lying_now(const PartSurface& surface) const {
    for (const auto& placed : place_bodies(after(), surface.part)) {
      if (placed.id != surface.body) continue;
      for (const auto& face : faces_of(placed))
        if (face.face_of() == surface.face_of()) return lying_on(surface, face, placed.form);
    }
    return std::nullopt;
  }

  void move_body(const Moved& moved, const PartSurface& was) {
    const Id id = was.body;
    const auto* body = after().find<Body>(id);
    if (!body) return;
    const auto form = form_of(*body);
    if (was.profile_place > 0) {
      move_on_profile(moved, was);
      return;
    }
    if (std::abs(moved.wider) > same) {
      if (was.face == BodyFace::side && (body->shape != BodyShape::cone))
        grow(id, BodyRole::diameter, moved.wider);
      if (was.face == BodyFace::inside) grow(id, BodyRole::bore, moved.wider);
      if (was.face == BodyFace::mouth) grow(id, BodyRole::mouth_diameter, moved.wider);
    }
    if (moved.by.norm() <= same) return;
    if (was.kind == SurfaceKind::plane) {
      move_plane(id, form, was, moved.by.dot(was.direction));
      return;
    }
    shift(id, moved.by);
  }

  /// The side of what is turned went out, or its shoulder along.
  void move_on_profile(const Moved& moved, const PartSurface& was) {
    const auto grow_place = [&](BodyRole role, int place, double by, Id not_again) {
      const auto sizes = profile_sizes(*after().find<Body>(was.body));
      for (const auto& size : sizes)
        if (size.role == role && size.profile_place == place &&
            (size.dimension == 0 || size.dimension != not_again)) {
          grow(was.body, size, by);
          return size.dimension;
        }
      return Id{0};
    };
    const int place = was.profile_place;
    if (was.kind != SurfaceKind::plane) {
      const Id first = grow_place(BodyRole::diameter, place - 1, moved.wider, 0);
      grow_place(BodyRole::diameter, place, moved.wider, first);
      // Across the axis all of it goes; along it the side has no place of its own.
      const Vec3 across = moved.by - moved.by.dot(was.direction) * was.direction;
      if (across.norm() > same) shift(was.body, across);
      return;
    }
    // A shoulder faces on where it gets narrower; out of the metal is then further from the start.
    const auto& profile = after().find<Body>(was.body)->profile;
    const auto k = static_cast<std::size_t>(place - 1);
    const bool on = profile[k].diameter < profile[k - 1].diameter;
    const double out = moved.by.dot(was.direction);
    const double by = on != after().find<Body>(was.body)->cut ? out : -out;
    const Id first = grow_place(BodyRole::length, place - 1, by, 0);
    grow_place(BodyRole::length, place, by, first);
  }

  /// The whole body goes that way (drawing frame).
  void shift(Id id, const Vec3& by) {
    const auto* body = after().find<Body>(id);
    const Vec3 local = face_frame(*body, place_bodies(after(), body->part)).transpose() * by;
    const auto sign = [](PlaceFrom from) {
      return from == PlaceFrom::high_edge || from == PlaceFrom::high_to_edge ? -1 : 1;
    };
    const auto from_along = body->from_along, from_across = body->from_across;
    grow(id, BodyRole::along, sign(from_along) * local.x());
    grow(id, BodyRole::across, sign(from_across) * local.y());
    grow(id, BodyRole::off, local.z());
  }

  /// One face of it goes out by `out` mm (of the metal): the body gets longer there, its other side stays.
  void move_plane(Id id, const BodyForm& form, const PartSurface& was, double out) {
    if (form.shape == BodyShape::turned) return move_end(id, was, out);
    const auto role = role_across(was.face, form);
    if (!role) return;
    grow(id, *role, form.cut ? -out : out);
    // Where its place is counted from its middle the face went half as far, where from an edge perhaps not at
    // all.
    const auto* body = after().find<Body>(id);
    for (const auto& placed : place_bodies(after(), body->part)) {
      if (placed.id != id) continue;
      for (const auto& face : faces_of(placed))
        if (face.face_of() == was.face_of()) {
          const double short_by = out - (face.shape.point - was.point).dot(was.direction);
          if (std::abs(short_by) > same) shift(id, was.direction * short_by);
          return;
        }
    }
  }

  /// An end of what is turned: its last place goes on, or all of them where it starts.
  void move_end(Id id, const PartSurface& was, double out) {
    const auto* body = after().find<Body>(id);
    const bool start = (was.face == BodyFace::bottom) != body->cut;
    if (start) shift(id, was.direction * out);
    const double by = body->cut ? -out : out;
    std::set<Id> grown;
    const int last = static_cast<int>(body->profile.size());
    const auto sizes = profile_sizes(*body);
    for (const auto& size : sizes)
      if (size.role == BodyRole::length && (start || size.profile_place == last) &&
          (size.dimension == 0 || grown.insert(size.dimension).second))
        grow(id, size, by);
  }

  /// Extents typed on a face are sizes of its body, where they are.
  void stretch(const PartSurface& is, const PartSurface& laid) {
    const auto* body = after().find<Body>(is.body);
    if (!body || (std::abs(is.width - laid.width) <= same && std::abs(is.height - laid.height) <= same))
      return;
    const auto form = form_of(*body);
    const auto along = roles_along(is.face, form);
    if (is_round(is.kind)) {
      if (along.has_right && is.height > 0) grow(is.body, along.right, is.height - laid.height);
      return;
    }
    const bool turned = lies_turned(is);
    if (along.has_right) grow(is.body, along.right, turned ? is.height - laid.height : is.width - laid.width);
    if (along.has_up) grow(is.body, along.up, turned ? is.width - laid.width : is.height - laid.height);
  }
  bool lies_turned(const PartSurface& surface) const {
    for (const auto& placed : place_bodies(after(), surface.part))
      if (placed.id == surface.body)
        for (const auto& face : faces_of(placed))
          if (face.face_of() == surface.face_of()) return is_turned(face);
    return false;
  }

  void take_sizes(Id part) {
    for (const auto& [id, body] : after().bodies_of(part)) {
      auto changed = body;
      for (auto& size : changed.sizes)
        if (const auto* dimension = after().find<Dimension>(size.dimension)) size.value = dimension->nominal;
      take_profile(changed);
      if (!(changed == body)) put(id, changed);
    }
  }

  void lay_surfaces(Id part, const std::vector<PlacedBody>& placed) {
    std::map<Id, int> before; // how many copies there were
    for (const auto& body : place_bodies(before_, part))
      before[body.id] = static_cast<int>(body.copies.size());
    for (const auto& body : placed) {
      if (body.copies.empty()) continue;
      const auto faces = faces_of(body);
      std::map<FaceOf, const PlacedFace*> at;
      for (const auto& face : faces) at[face.face_of()] = &face;
      std::set<FaceOf> named; // of which the first copy is a surface
      std::set<FaceOf> there;
      const auto surfaces = after().of<PartSurface>(body.id);
      for (const auto& [id, surface] : surfaces) {
        const auto found = at.find(surface.face_of());
        if (found == at.end()) {
          if (surface.copy > 0) take_away(id); // fewer copies than there were
          continue; // the shape has no such face now: the surface stays where it is
        }
        there.insert(surface.face_of());
        if (surface.copy == 0) named.insert(surface.face_of());
        auto changed = lying_on(surface, *found->second, body.form);
        if (!(changed == surface)) put(id, changed);
      }
      // A copy that is new has the surfaces the first has; one that was removed stays removed.
      const auto known = before.find(body.id);
      for (const auto& first : named) {
        const int from = was_named(body.id, first) && known != before.end() ? known->second : 1;
        auto face = first;
        for (face.copy = from; face.copy < static_cast<int>(body.copies.size()); ++face.copy)
          if (!there.contains(face)) like_the_first(part, body, first, *at[face]);
      }
    }
  }

  bool was_named(Id body, const FaceOf& face) const {
    for (const auto& [id, surface] : before_.of<PartSurface>(body))
      if (surface.face_of() == face) return true;
    return false;
  }

  /// Another copy of a body whose first has a surface there.
  void like_the_first(Id part, const PlacedBody& body, const FaceOf& face, const PlacedFace& at) {
    for (const auto& [id, first] : after().of<PartSurface>(body.id)) {
      if (first.face_of() != face) continue;
      auto surface = lying_on(first, at, body.form);
      surface.copy = at.copy;
      surface.name = free_name(after().surfaces_of(part), first.name, at.copy + 1);
      surface.order = first.order + 1e-3 * at.copy;
      rows_.add(surface);
      return;
    }
  }

  /// A size whose faces are surfaces is a dimension between them, for joints and chains to walk over.
  void link_dimensions(const std::vector<PlacedBody>& placed) {
    for (const auto& body : placed) {
      std::map<FaceOf, Id> of;
      for (const auto& [id, surface] : after().of<PartSurface>(body.id))
        if (surface.copy == 0) of[surface.face_of()] = id;
      if (of.empty()) continue;
      const auto record = *after().find<Body>(body.id);
      for (const auto& size : record.sizes) {
        const auto [first, second] = faces_of_size(size, body.form);
        const bool alone = second.face == BodyFace::middle;
        if (!of.contains(first) || (!alone && !of.contains(second))) continue;
        say_by(body.id, size, of[first], alone ? 0 : of[second]);
      }
    }
  }
  /// The size is a diameter of `first`, or a distance from it to `second`: its dimension says so, and where
  /// there was one that said the same before, that one is the dimension of the size, and the other goes.
  void say_by(Id body, const BodySize& size, Id first, Id second) {
    const auto kind = second == 0 ? DimensionKind::size : DimensionKind::distance;
    const auto* dimension = after().find<Dimension>(size.dimension);
    if (dimension && (dimension->kind != DimensionKind::length || dimension->surface != 0)) return;
    const Id part = after().find<Body>(body)->part;
    for (const auto& [id, other] : after().dimensions_of(part)) {
      const bool between = (other.surface == first && other.other == second) ||
                           (other.surface == second && other.other == first);
      if (id == size.dimension || other.kind != kind || !between ||
          std::abs(other.nominal - size.value) > 1e-6)
        continue;
      const Id gone = size.dimension;
      for (const auto& [user, one] : after().bodies_of(part)) {
        auto changed = one;
        for (auto& s : changed.sizes)
          if ((user == body && s.role == size.role && s.profile_place == size.profile_place) ||
              (gone != 0 && s.dimension == gone))
            s.dimension = id;
        if (!(changed == one)) put(user, changed);
      }
      if (gone != 0 && after().needing(gone).empty()) take_away(gone);
      return;
    }
    if (!dimension) return;
    auto changed = *dimension;
    changed.kind = kind;
    changed.surface = first;
    changed.other = second;
    put(size.dimension, changed);
  }

  /// Surfaces that were stated before there were bodies, and lie where a face lies now, are that face.
  void adopt(Id part, const std::vector<PlacedBody>& placed) {
    const auto stated = after().surfaces_of(part);
    for (const auto& [id, surface] : stated) {
      if (surface.body != 0 || stood_on(part, id)) continue;
      const PlacedBody* best_body = nullptr;
      PlacedFace best;
      double nearest = 1e300;
      for (const auto& body : placed)
        for (const auto& face : faces_of(body)) {
          if (is_open(body.form, face.face) || !same_surface(surface.shape(), face.shape) ||
              taken(body.id, face))
            continue;
          const Vec3 off = surface.point - face.shape.point;
          const double away = off.norm();
          if (!surface.round() && (std::abs(off.dot(face.frame.rotation.col(0))) > face.width / 2 ||
                                   std::abs(off.dot(face.frame.rotation.col(1))) > face.height / 2))
            continue;
          if (away >= nearest) continue;
          nearest = away;
          best = face;
          best_body = &body;
        }
      if (!best_body) continue;
      if (const Id there = surface_on(best_body->id, best); there != 0) give_way(there);
      auto changed = surface;
      changed.body = best_body->id;
      changed.face = best.face;
      changed.copy = best.copy;
      changed.profile_place = best.profile_place;
      put(id, lying_on(changed, best, best_body->form));
    }
  }
  /// Whether that face is a surface already that must stay: one that came with the body, and that nothing but
  /// its own size is of, gives way.
  bool taken(Id body, const PlacedFace& face) const {
    const Id there = surface_on(body, face);
    if (there == 0) return false;
    const auto& sizes = after().find<Body>(body)->sizes;
    for (const Id user : after().needing(there)) {
      const bool own_size =
          std::any_of(sizes.begin(), sizes.end(), [&](const BodySize& s) { return s.dimension == user; });
      if (!own_size || !after().needing(user).empty()) return true;
    }
    return false;
  }
  /// Something is put on it: it stays as it was stated.
  bool stood_on(Id part, Id surface) const {
    const auto bodies = after().bodies_of(part);
    return std::any_of(bodies.begin(), bodies.end(),
                       [&](const auto& body) { return body.second.surface == surface; });
  }
  Id surface_on(Id body, const PlacedFace& face) const {
    for (const auto& [id, surface] : after().of<PartSurface>(body))
      if (surface.face_of() == face.face_of()) return id;
    return 0;
  }
  void give_way(Id surface) {
    for (const Id user : after().needing(surface))
      if (const auto* dimension = after().find<Dimension>(user)) {
        auto plain = *dimension;
        plain.kind = DimensionKind::length;
        plain.surface = plain.other = 0;
        put(user, plain);
      }
    take_away(surface);
  }

  /// A place counted from a face or axis that is a surface, to an axis or face that is one, is a distance
  /// between them.
  void link_places(Id part, const std::vector<PlacedBody>& placed) {
    for (const auto& one : placed) {
      if (one.copies.empty()) continue;
      const auto body = *after().find<Body>(one.id);
      const Mat3 face = face_frame(body, placed);
      const auto [low, high] = z_span(one.form);
      const Vec3 middle = body.lie == BodyLie::up ? Vec3(Vec3::Zero()) : Vec3(0, 0, (low + high) / 2);
      const Vec3 own = one.copies.front().apply(middle);
      const auto counted_down = [](PlaceFrom from) {
        return from == PlaceFrom::high_edge || from == PlaceFrom::high_to_edge;
      };
      const auto link = [&](BodyRole role, int axis, bool down, PlaceFrom from) {
        const auto* size = body.size(role);
        if (!size || size->value == 0) return;
        if (from == PlaceFrom::low_to_edge || from == PlaceFrom::high_to_edge)
          return; // between two edges: no axis
        const Vec3 way = face.col(axis) * (down ? -1 : 1);
        const Id first = surface_at(part, own - size->value * way, way), second = surface_at(part, own, way);
        if (first == 0 || second == 0 || first == second) return;
        say_by(one.id, *size, first, second);
      };
      link(BodyRole::along, 0, counted_down(body.from_along), body.from_along);
      link(BodyRole::across, 1, counted_down(body.from_across), body.from_across);
      if (body.lie != BodyLie::up) link(BodyRole::off, 2, false, PlaceFrom::middle);
    }
  }

  Mat3 face_frame(const Body& body, const std::vector<PlacedBody>& placed) const {
    if (const auto* stated = after().find<PartSurface>(body.surface))
      return ground_on(*stated).frame.rotation;
    for (const auto& under : placed)
      if (under.id == body.on)
        for (const auto& f : faces_of(under))
          if (f.face_of() == body.stands_on()) return f.frame.rotation;
    return Mat3::Identity();
  }

  /// The surface there, square to `way`: a plane through the place, or a round one whose axis goes through
  /// it; machined ones first. 0: none.
  Id surface_at(Id part, const Vec3& at, const Vec3& way) const {
    constexpr double near = 1e-6; // mm
    Id found = 0;
    for (const auto& [id, surface] : after().surfaces_of(part)) {
      if (surface.copy != 0) continue;
      const double facing = std::abs(surface.direction.dot(way));
      const Vec3 off = at - surface.point;
      const bool there =
          surface.round()
              ? facing < near && (off - off.dot(surface.direction) * surface.direction).norm() < near
              : facing > 1 - near && std::abs(off.dot(way)) < near;
      if (!there) continue;
      if (surface.machined) return id;
      if (found == 0) found = id;
    }
    return found;
  }

  const Build& before_;
  Rows rows_;
  std::string at_;
};

} // namespace

PartSurface lying_on(PartSurface surface, const PlacedFace& face, const BodyForm& form) {
  surface.kind = face.shape.kind;
  surface.point = face.shape.point;
  surface.direction = face.shape.direction;
  surface.diameter = face.shape.diameter;
  surface.half_angle = face.shape.half_angle;
  if (is_round(face.shape.kind)) {
    surface.width = 0;
    surface.height = form.through && form.metal == 0 ? 0 : face.width; // 0: as long as the metal lets it
    return surface;
  }
  // Extents of a surface are level and upright; those of a face along its own right and up.
  const bool turned = is_turned(face);
  surface.width = turned ? face.height : face.width;
  surface.height = turned ? face.width : face.height;
  return surface;
}

Edit followed(const Build& build, Edit edit, const std::string& at) {
  const auto parts = parts_touched(build, edit);
  if (parts.empty()) return edit;
  Follower follower(build, edit, at);
  for (const Id part : parts) follower.run(part, edit);
  return follower.result(edit.label);
}

} // namespace datrin::solid
