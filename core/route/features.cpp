#include "route/features.h"

#include "geometry/between.h"
#include "solid/body_edits.h"
#include "solid/place.h"
#include "stock/part_stock.h"

#include <algorithm>
#include <map>
#include <set>

namespace datrin::route {

using namespace build;

namespace {

FeatureShape shape_of_surface(const PartSurface& s) {
  switch (s.kind) {
  case SurfaceKind::plane:
    return FeatureShape::plane;
  case SurfaceKind::bore:
    return FeatureShape::hole;
  case SurfaceKind::taper_bore:
    return FeatureShape::taper_hole;
  case SurfaceKind::taper_shank:
    return FeatureShape::taper;
  case SurfaceKind::boss:
    break;
  }
  return FeatureShape::round;
}

bool is_wall_of_hole(const Build& build, const Body& body) {
  const auto* on = build.find<Body>(body.on);
  if (on == nullptr) return false;
  const bool wall = body.face == BodyFace::side && solid::always_cuts(on->shape);
  return wall || body.face == BodyFace::inside;
}

FeatureShape shape_of_body(const Build& build, const Body& body) {
  if (solid::is_mark(body.shape)) return FeatureShape::mark;
  if (solid::works_edges(body.shape)) return FeatureShape::edges;
  const bool cut = body.cut || solid::always_cuts(body.shape);
  if (cut && is_wall_of_hole(build, body)) return FeatureShape::keyway;
  switch (body.shape) {
  case BodyShape::hole:
    return FeatureShape::hole;
  case BodyShape::slot:
    return FeatureShape::slot;
  case BodyShape::groove:
    return FeatureShape::groove;
  case BodyShape::round:
    return cut ? FeatureShape::hole : FeatureShape::profile;
  case BodyShape::cone:
    return cut ? FeatureShape::taper_hole : FeatureShape::profile;
  default:
    return cut ? FeatureShape::pocket : FeatureShape::profile;
  }
}

class Features {
public:
  Features(const Build& build, Id part) : build_(build), part_(part) {
    for (const auto& body : solid::place_bodies(build, part)) placed_[body.id] = body;
    cast_ = stock::needs_touches(build, part);
    bought_ = stock::form_of(build, part) == StockForm::bought;
  }

  std::vector<Feature> all() {
    for (const auto& [id, s] : build_.surfaces_of(part_)) {
      if (s.body != 0) with_surface_.insert(s.body);
      if (!s.machined) continue;
      const auto* body = build_.find<Body>(s.body);
      if (body != nullptr && is_one(*body))
        of_body(s.body, *body).surfaces.push_back(id);
      else
        of_surface(id, s);
    }
    for (const auto& [id, body] : build_.bodies_of(part_)) {
      if (known_.contains(id) || !to_make(id, body)) continue;
      of_body(id, body);
    }
    return std::move(out_);
  }

private:
  /// What is cut is one thing to make, with all its walls.
  static bool is_one(const Body& body) {
    return body.cut || solid::always_cuts(body.shape) || solid::works_edges(body.shape);
  }

  bool to_make(Id id, const Body& body) const {
    if (solid::is_mark(body.shape)) return true;
    if (body.shape == BodyShape::imported) return false;
    if (body.shape == BodyShape::fillet && cast_) return false; // as the pattern has it
    if (body.shape == BodyShape::hole) return body.making != HoleMaking::cored;
    if (solid::is_cut_only(body)) return true;
    // Added metal, and what is cut that a pattern could have: of bar and plate it is cut, of what is cast
    // only where a surface of it says so.
    return !cast_ && !bought_ && !with_surface_.contains(id);
  }

  void of_surface(Id id, const PartSurface& s) {
    // Copies of one face of a pattern are made together.
    if (s.body != 0) {
      auto face = s.face_of();
      face.copy = 0;
      if (const auto same = face_.find({s.body, face}); same != face_.end()) {
        auto& first = out_[same->second];
        first.surfaces.push_back(id);
        ++first.copies;
        return;
      }
      face_[{s.body, face}] = out_.size();
    }
    Feature f;
    f.name = s.name;
    f.shape = shape_of_surface(s);
    f.surfaces = {id};
    f.body = s.body;
    f.at = s.point;
    f.way = s.direction.normalized();
    f.both_ways = s.round();
    f.across = s.diameter;
    f.deep = s.round() ? s.height : 0;
    if (is_hole(s.kind)) f.at += f.deep / 2 * f.way; // its mouth
    f.from_solid = s.from_solid || stock::made_from_solid(build_, id);
    out_.push_back(std::move(f));
  }

  Feature& of_body(Id id, const Body& body) {
    if (const auto known = known_.find(id); known != known_.end()) return out_[known->second];
    known_[id] = out_.size();
    Feature f;
    f.name = body.name;
    f.shape = shape_of_body(build_, body);
    f.body = id;
    f.from_solid = solid::is_cut_only(body) || (!cast_ && is_one(body));
    const auto form = solid::form_of(body);
    f.across = f.shape == FeatureShape::edges    ? form[BodyRole::height]
               : f.shape == FeatureShape::slot   ? form[BodyRole::width]
               : f.shape == FeatureShape::groove ? form[BodyRole::width]
                                                 : std::max(form[BodyRole::diameter], form[BodyRole::width]);
    if (const auto at = placed_.find(id); at != placed_.end()) {
      const auto& placed = at->second;
      f.copies = std::max(1, static_cast<int>(placed.copies.size()));
      const auto [low, high] = solid::z_span(placed.form);
      f.deep = placed.form.through && placed.form.metal > 0 ? placed.form.metal : high - low;
      if (!placed.copies.empty()) {
        f.at = placed.copies.front().translation;
        f.way = placed.copies.front().turn(Vec3::UnitZ());
      } else if (solid::works_edges(body.shape)) {
        if (const auto on = placed_.find(body.on); on != placed_.end())
          for (const auto& face : solid::faces_of(on->second))
            if (face.face_of() == body.stands_on())
              f.at = face.frame.translation, f.way = face.frame.rotation.col(2);
      }
    }
    f.both_ways = (is_hole_shape(f.shape) && body.through) || f.shape == FeatureShape::profile ||
                  f.shape == FeatureShape::groove || f.shape == FeatureShape::keyway;
    if (f.shape == FeatureShape::keyway || f.shape == FeatureShape::groove) f.way = axis_of_base(body, f.way);
    out_.push_back(std::move(f));
    return out_.back();
  }
  static bool is_hole_shape(FeatureShape shape) {
    return shape == FeatureShape::hole || shape == FeatureShape::taper_hole;
  }
  /// What is cut along a wall, or round a shaft, is cut along or about its axis.
  Vec3 axis_of_base(const Body& body, const Vec3& else_way) const {
    const auto on = placed_.find(body.on);
    return on != placed_.end() && !on->second.copies.empty() ? on->second.copies.front().turn(Vec3::UnitZ())
                                                             : else_way;
  }

  const Build& build_;
  Id part_;
  bool cast_ = true, bought_ = false;
  std::map<Id, solid::PlacedBody> placed_;
  std::map<Id, std::size_t> known_; ///< features that are bodies
  std::map<std::pair<Id, FaceOf>, std::size_t> face_;
  std::set<Id> with_surface_;
  std::vector<Feature> out_;
};

} // namespace

std::vector<Feature> features_to_make(const Build& build, Id part) {
  return Features(build, part).all();
}

std::vector<Vec3> mouths_of(const Build& build, Id part, const Feature& feature) {
  std::vector<Vec3> out;
  if (const auto* body = build.find<Body>(feature.body); body && feature.shape != FeatureShape::plane)
    for (const auto& placed : solid::place_bodies(build, part))
      if (placed.id == feature.body && (body->cut || solid::always_cuts(body->shape)))
        for (const auto& copy : placed.copies) out.push_back(copy.translation);
  if (!out.empty()) return out;
  for (const Id id : feature.surfaces)
    if (const auto* s = build.find<PartSurface>(id))
      out.push_back(is_hole(s->kind) ? Vec3(s->point + s->height / 2 * s->direction.normalized()) : s->point);
  if (out.empty()) out.push_back(feature.at);
  return out;
}

bool works_mouth(const Build& build, const Operation& o) {
  if (o.kind == OperationKind::drill) return o.size <= 0; // a countersink has no size of its own
  if (o.kind != OperationKind::mill) return false;
  const auto is_hole_surface = [&](Id id) {
    const auto* s = build.find<PartSurface>(id);
    return s != nullptr && is_hole(s->kind);
  };
  const auto is_hole_body = [&](Id id) {
    const auto* b = build.find<Body>(id);
    return b != nullptr && b->shape == BodyShape::hole;
  };
  return std::any_of(o.surfaces.begin(), o.surfaces.end(), is_hole_surface) ||
         std::any_of(o.bodies.begin(), o.bodies.end(), is_hole_body);
}

bool makes(const Operation& operation, const Feature& feature) {
  return (feature.body != 0 && contains(operation.bodies, feature.body)) ||
         std::any_of(feature.surfaces.begin(), feature.surfaces.end(),
                     [&](Id surface) { return contains(operation.surfaces, surface); });
}

} // namespace datrin::route
