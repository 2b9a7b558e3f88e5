#include "solid/place.h"

#include <Eigen/Geometry>
#include <fmt/format.h>

#include <cmath>
#include <map>
#include <numbers>

namespace datrin::solid {

using namespace build;

namespace {

Mat3 about(const Vec3& axis, double angle) {
  return rotation_from_vector(axis * angle);
}

/// Which way the own axes of a body lie in the frame of the face it is put on.
Mat3 lying(BodyLie lie) {
  Mat3 m = Mat3::Identity();
  if (lie == BodyLie::along) m << 0, 0, 1, 1, 0, 0, 0, 1, 0;  // z to the right, x up the face, y out of it
  if (lie == BodyLie::across) m << 0, 1, 0, 0, 0, 1, 1, 0, 0; // z up the face, x out of it, y to the right
  return m;
}

/// How far the middle of a body lies from the middle of the face, counted from where it is to be counted.
double from_middle(PlaceFrom from, double distance, double face_half, double body_half) {
  switch (from) {
  case PlaceFrom::middle:
    return distance;
  case PlaceFrom::low_edge:
    return -face_half + distance;
  case PlaceFrom::high_edge:
    return face_half - distance;
  case PlaceFrom::low_to_edge:
    return -face_half + distance + body_half;
  case PlaceFrom::high_to_edge:
    return face_half - distance - body_half;
  }
  return distance;
}

/// Copies of a row: its first stands at its place when that is counted from an edge, else its middle does.
std::vector<double> row(PlaceFrom from, int count, double pitch) {
  std::vector<double> at;
  for (int k = 0; k < count; ++k) {
    if (from == PlaceFrom::middle)
      at.push_back((k - (count - 1) / 2.0) * pitch);
    else
      at.push_back((from == PlaceFrom::high_edge || from == PlaceFrom::high_to_edge ? -k : k) * pitch);
  }
  return at;
}

double size(const Body& body, BodyRole role) {
  const auto* s = body.size(role);
  return s ? s->value : 0;
}

/// The copies of `body` in the frame of the face it is put on.
std::vector<Pose> on_face(const Body& body, const BodyForm& form, const FormFace& face) {
  const Mat3 lie = lying(body.lie);
  const auto [low, high] = z_span(form);
  const Vec2 half = half_across(form);
  // Its own half extents and its middle, as it lies.
  const Vec3 own(half.x(), half.y(), (high - low) / 2);
  const Vec3 extent = (lie * own).cwiseAbs();
  const Vec3 middle = body.lie == BodyLie::up ? Vec3(Vec3::Zero()) : Vec3(0, 0, (low + high) / 2);
  const double turn = size(body, BodyRole::turn), tilt = size(body, BodyRole::tilt);
  const bool round_side =
      is_round(face.shape.kind) && (face.face == BodyFace::side || face.face == BodyFace::inside);
  const Vec3 at(from_middle(body.from_along, size(body, BodyRole::along), face.width / 2, extent.x()),
                from_middle(body.from_across, size(body, BodyRole::across), face.height / 2, extent.y()),
                size(body, BodyRole::off));
  // On a round side to turn is to go round the axis, which lies half its diameter below the face.
  const auto placed = [&](const Vec3& shift, double angle) {
    const Mat3 r = round_side ? about(Vec3::UnitX(), angle) : about(Vec3::UnitZ(), angle);
    Pose pose{r * about(Vec3::UnitX(), tilt) * lie, shift};
    if (round_side) {
      const Vec3 axis(0, 0, -face.height / 2);
      pose.translation = r * (shift - axis) + axis;
    }
    pose.translation -= pose.rotation * middle;
    return pose;
  };
  std::vector<Pose> copies;
  const double pitch = size(body, BodyRole::pitch), pitch_across = size(body, BodyRole::pitch_across);
  switch (body.pattern) {
  case BodyPattern::single:
    copies.push_back(placed(at, turn));
    break;
  case BodyPattern::row:
    for (const double x : row(body.from_along, body.count, pitch))
      copies.push_back(placed(at + Vec3(x, 0, 0), turn));
    break;
  case BodyPattern::grid:
    for (const double y : row(body.from_across, body.count_across, pitch_across))
      for (const double x : row(body.from_along, body.count, pitch))
        copies.push_back(placed(at + Vec3(x, y, 0), turn));
    break;
  case BodyPattern::pair:
    for (const double side : {-0.5, 0.5}) copies.push_back(placed(at + Vec3(side * pitch, 0, 0), turn));
    break;
  case BodyPattern::circle: {
    const double radius = size(body, BodyRole::circle) / 2;
    for (int k = 0; k < body.count; ++k) {
      const double angle = turn + 2 * std::numbers::pi * k / body.count;
      copies.push_back(round_side ? placed(at, angle)
                                  : placed(at + radius * Vec3(std::cos(angle), std::sin(angle), 0), angle));
    }
    break;
  }
  case BodyPattern::mirror: {
    const Pose one = placed(at, turn);
    copies.push_back(one);
    // Mirrored twice is moved: once across the middle of the face, once across the body's own middle, to
    // which every shape is the same on both sides: across x, a rib across y.
    const Vec3 flip(-1, 1, 1);
    const Vec3 own_flip = form.shape == BodyShape::rib ? Vec3(1, -1, 1) : flip;
    copies.push_back(
        {flip.asDiagonal() * one.rotation * own_flip.asDiagonal(), flip.asDiagonal() * one.translation});
    break;
  }
  }
  return copies;
}

/// How far a line from `from` along `way` (in the body's own frame) is inside the body at last; 0: it does
/// not meet it. What is hollow counts as full: a hole through a tube goes through its bore as well.
double leaves_at(const BodyForm& form, const Vec3& from, const Vec3& way) {
  const auto [low, high] = z_span(form);
  const Vec2 half = half_across(form);
  double in = -1e300, out = 1e300;
  const auto between = [&](double at, double speed, double a, double b) {
    if (std::abs(speed) < 1e-12) {
      if (at < a - 1e-9 || at > b + 1e-9) out = -1e300;
      return;
    }
    const double p = (a - at) / speed, q = (b - at) / speed;
    in = std::max(in, std::min(p, q));
    out = std::min(out, std::max(p, q));
  };
  between(from.z(), way.z(), low, high);
  const bool round = form.shape == BodyShape::round || form.shape == BodyShape::cone ||
                     form.shape == BodyShape::tube || form.shape == BodyShape::turned ||
                     form.shape == BodyShape::spokes;
  if (round) {
    const Vec2 p = from.head<2>(), d = way.head<2>();
    const double a = d.squaredNorm(), b = p.dot(d), c = p.squaredNorm() - half.x() * half.x();
    if (a < 1e-18) {
      if (c > 1e-9) return 0;
    } else {
      const double root = b * b - a * c;
      if (root <= 0) return 0;
      in = std::max(in, (-b - std::sqrt(root)) / a);
      out = std::min(out, (-b + std::sqrt(root)) / a);
    }
  } else {
    between(from.x(), way.x(), -half.x(), half.x());
    between(from.y(), way.y(), -half.y(), half.y());
  }
  return out > in && out > 1e-9 ? out : 0;
}

/// How deep the metal goes along the axis of a cut that is through, from where it starts; 0: there is none.
double metal_behind(const Pose& cut, const std::vector<PlacedBody>& bodies) {
  double deep = 0;
  const Vec3 from = cut.translation, way = -cut.rotation.col(2);
  for (const auto& body : bodies) {
    if (body.form.cut || works_edges(body.form.shape) || is_mark(body.form.shape)) continue;
    for (const auto& pose : body.copies) {
      const auto own = pose.inverse();
      deep = std::max(deep, leaves_at(body.form, own.apply(from), own.turn(way)));
    }
  }
  return deep;
}

double far_from_origin(const PlacedBody& body) {
  if (body.form.cut || works_edges(body.form.shape)) return 0;
  if (body.form.shape == BodyShape::imported) return body.form[BodyRole::length];
  const auto [low, high] = z_span(body.form);
  const Vec2 half = half_across(body.form);
  double far = 0;
  for (const auto& pose : body.copies)
    for (const double z : {low, high})
      for (const double x : {-half.x(), half.x()})
        for (const double y : {-half.y(), half.y()}) far = std::max(far, pose.apply({x, y, z}).norm());
  return far;
}

} // namespace

FormFace ground_on(const PartSurface& surface) {
  FormFace ground;
  ground.face = surface.round() ? BodyFace::middle : BodyFace::top;
  const Vec3 z = surface.direction.normalized();
  Vec3 x = surface.round() ? across(z) : patch_directions(z).width;
  x = (x - x.dot(z) * z).normalized();
  ground.frame.rotation << x, z.cross(x), z;
  ground.frame.translation = surface.point;
  ground.shape = surface.shape();
  if (!surface.round()) {
    ground.width = surface.width;
    ground.height = surface.height;
  }
  return ground;
}

double reach_of(const std::vector<PlacedBody>& bodies) {
  double reach = 0;
  for (const auto& body : bodies) reach = std::max(reach, far_from_origin(body));
  return reach;
}

std::vector<PlacedFace> faces_of(const PlacedBody& body) {
  std::vector<PlacedFace> faces;
  const auto own = faces_of(body.form);
  for (std::size_t copy = 0; copy < body.copies.size(); ++copy)
    for (const auto& face : own) {
      const auto& pose = body.copies[copy];
      Surface shape = face.shape;
      shape.point = pose.apply(shape.point);
      shape.direction = pose.turn(shape.direction);
      faces.push_back({face.face, static_cast<int>(copy), then(face.frame, pose), shape, face.width,
                       face.height, face.stands, face.profile_place});
    }
  return faces;
}

std::vector<PlacedBody> place_bodies(const Build& build, Id part, const PlaceOptions& options) {
  std::vector<PlacedBody> placed;
  std::map<Id, std::size_t> index;
  const auto bodies = build.bodies_of(part);
  // Twice: how deep a through cut must go is known when all that is added has its place; what is added on a
  // face of a through cut (its middle) does not depend on that.
  double reach = 0;
  for (const int round : {0, 1}) {
    placed.clear();
    index.clear();
    for (const auto& [id, body] : bodies) {
      PlacedBody one;
      one.id = id;
      one.name = body.name;
      one.form = form_of(body);
      one.on = body.on;
      one.face = body.stands_on();
      if (one.form.through) one.form.reach = round == 0 ? 1 : 2 * reach + 1;
      one.wrong = form_wrong(one.form);
      index[id] = placed.size();
      const auto base = index.find(body.on);
      const bool has_base = body.on != 0;
      if (one.wrong.empty() && has_base && (base == index.end() || body.on == id))
        one.wrong = "what it is put on comes after it: put it further up the list";
      else if (one.wrong.empty() && has_base && !placed[base->second].wrong.empty())
        one.wrong = fmt::format("{}, which it is put on, cannot be made", placed[base->second].name);
      if (!one.wrong.empty() || works_edges(one.form.shape)) {
        if (one.wrong.empty() && !has_base) one.wrong = "needs a face whose edges it is for";
        placed.push_back(std::move(one));
        continue;
      }
      if (!has_base) {
        FormFace ground;
        ground.face = BodyFace::middle;
        if (const auto* stated = build.find<PartSurface>(body.surface)) ground = ground_on(*stated);
        for (const auto& pose : on_face(body, one.form, ground))
          one.copies.push_back(then(pose, ground.frame));
      } else {
        const auto& under = placed[base->second];
        const auto faces = faces_of(under.form);
        const auto face = std::find_if(faces.begin(), faces.end(),
                                       [&](const FormFace& f) { return f.face_of() == body.stands_on(); });
        if (face == faces.end()) {
          one.wrong = fmt::format("{} has no such face any more: choose another to put it on", under.name);
        } else {
          const auto on = on_face(body, one.form, *face);
          for (const auto& base_pose : under.copies)
            for (const auto& pose : on)
              if (one.copies.size() < options.most_copies)
                one.copies.push_back(then(then(pose, face->frame), base_pose));
        }
      }
      placed.push_back(std::move(one));
    }
    reach = reach_of(placed);
  }
  for (auto& one : placed)
    if (one.form.through && !one.copies.empty()) one.form.metal = metal_behind(one.copies.front(), placed);
  return placed;
}

} // namespace datrin::solid
