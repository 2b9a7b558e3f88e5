// The shapes of bodies as solids of the library.

#include "solid/brep.h"
#include "solid/profile.h"

#include <BRepAlgoAPI_Fuse.hxx>
#include <BRepBuilderAPI_MakeEdge.hxx>
#include <BRepBuilderAPI_MakeFace.hxx>
#include <BRepBuilderAPI_MakePolygon.hxx>
#include <BRepBuilderAPI_MakeWire.hxx>
#include <BRepBuilderAPI_Transform.hxx>
#include <BRepPrimAPI_MakeBox.hxx>
#include <BRepPrimAPI_MakeCone.hxx>
#include <BRepPrimAPI_MakeCylinder.hxx>
#include <BRepPrimAPI_MakePrism.hxx>
#include <BRepPrimAPI_MakeRevol.hxx>
#include <GC_MakeArcOfCircle.hxx>
#include <TopTools_ListOfShape.hxx>
#include <gp_Vec.hxx>

#include <cmath>
#include <numbers>

namespace datrin::solid {

namespace {

constexpr double pi = std::numbers::pi;

/// Revolved about z: the profile of (radius, z) points, closed.
TopoDS_Shape revolved(const std::vector<Vec2>& profile) {
  BRepBuilderAPI_MakePolygon polygon;
  for (const auto& p : profile) polygon.Add(gp_Pnt(p.x(), 0, p.y()));
  polygon.Close();
  return BRepPrimAPI_MakeRevol(BRepBuilderAPI_MakeFace(polygon.Wire()).Face(),
                               gp_Ax1(gp_Pnt(), gp_Dir(0, 0, 1)))
      .Shape();
}

/// The profile of what is turned, with its arcs, revolved about z.
TopoDS_Shape turned(const BodyForm& form) {
  const double up = form.cut ? -1 : 1;
  const auto at = [&](const Vec2& p) { return gp_Pnt(p.x(), 0, up * p.y()); };
  BRepBuilderAPI_MakeWire wire;
  const auto straight = [&](const Vec2& from, const Vec2& to) {
    if ((to - from).norm() > 1e-9) wire.Add(BRepBuilderAPI_MakeEdge(at(from), at(to)).Edge());
  };
  const auto& first = form.profile.front();
  const auto& last = form.profile.back();
  straight({0, first.at}, {first.diameter / 2, first.at});
  for (std::size_t k = 1; k < form.profile.size(); ++k) {
    const auto &a = form.profile[k - 1], &b = form.profile[k];
    const Vec2 from(a.diameter / 2, a.at), to(b.diameter / 2, b.at);
    const auto centre = arc_centre(from, to, b.arc);
    if (!centre) {
      straight(from, to);
      continue;
    }
    // The shorter way round: over the middle of the chord, from the centre outwards.
    Vec2 out = (from + to) / 2 - *centre;
    if (out.norm() < 1e-9) { // half a circle
      const Vec2 chord = to - from;
      out = Vec2(chord.y(), -chord.x()) * (b.arc > 0 ? 1 : -1);
    }
    const Vec2 over = *centre + out.normalized() * std::abs(b.arc);
    wire.Add(BRepBuilderAPI_MakeEdge(GC_MakeArcOfCircle(at(from), at(over), at(to)).Value()).Edge());
  }
  straight({last.diameter / 2, last.at}, {0, last.at});
  straight({0, last.at}, {0, first.at});
  return BRepPrimAPI_MakeRevol(BRepBuilderAPI_MakeFace(wire.Wire()).Face(), gp_Ax1(gp_Pnt(), gp_Dir(0, 0, 1)))
      .Shape();
}

TopoDS_Shape cylinder(double diameter, double low, double high) {
  return BRepPrimAPI_MakeCylinder(gp_Ax2(gp_Pnt(0, 0, low), gp_Dir(0, 0, 1)), diameter / 2, high - low)
      .Shape();
}

TopoDS_Shape upright(const TopoDS_Wire& outline, double height) {
  return BRepPrimAPI_MakePrism(BRepBuilderAPI_MakeFace(outline).Face(), gp_Vec(0, 0, height)).Shape();
}

/// A rectangle with rounded corners; `corner` may be half the width (the ends of a slot).
TopoDS_Wire rounded(double length, double width, double corner, double z) {
  const double x = length / 2 - corner, y = width / 2 - corner;
  BRepBuilderAPI_MakeWire wire;
  // From corner to corner: the middle of each arc, counter-clockwise, and the straight that follows.
  const double sx[] = {1, -1, -1, 1}, sy[] = {1, 1, -1, -1};
  for (int k = 0; k < 4; ++k) {
    const auto on = [&](int corner_of, double angle) {
      return gp_Pnt(sx[corner_of] * x + corner * std::cos(angle),
                    sy[corner_of] * y + corner * std::sin(angle), z);
    };
    const double start = k * pi / 2;
    if (corner > 0)
      wire.Add(BRepBuilderAPI_MakeEdge(
                   GC_MakeArcOfCircle(on(k, start), on(k, start + pi / 4), on(k, start + pi / 2)).Value())
                   .Edge());
    const gp_Pnt from = on(k, start + pi / 2), to = on((k + 1) % 4, start + pi / 2);
    if (from.Distance(to) > 1e-9) wire.Add(BRepBuilderAPI_MakeEdge(from, to).Edge());
  }
  return wire.Wire();
}

TopoDS_Wire polygon(double flats, int sides, double z) {
  BRepBuilderAPI_MakePolygon polygon;
  const double corner = flats / 2 / std::cos(pi / sides);
  for (int k = 0; k < sides; ++k) { // a flat to the front
    const double angle = -pi / 2 - pi / sides + 2 * pi * k / sides;
    polygon.Add(gp_Pnt(corner * std::cos(angle), corner * std::sin(angle), z));
  }
  polygon.Close();
  return polygon.Wire();
}

TopoDS_Shape hole(const BodyForm& form) {
  using R = BodyRole;
  const double low = z_span(form).low, r = form[R::diameter] / 2, m = form[R::mouth_diameter] / 2;
  std::vector<Vec2> profile;
  const bool pointed = !form.through && form[R::point_angle] > 0;
  profile.emplace_back(0, pointed ? low - r / std::tan(form[R::point_angle] / 2) : low);
  profile.emplace_back(r, low);
  if (form.mouth == build::HoleMouth::countersunk && form[R::mouth_angle] > 0) {
    profile.emplace_back(r, -(m - r) / std::tan(form[R::mouth_angle] / 2));
    profile.emplace_back(m, 0);
  } else if (form.mouth != build::HoleMouth::plain) {
    profile.emplace_back(r, -form[R::mouth_depth]);
    profile.emplace_back(m, -form[R::mouth_depth]);
    profile.emplace_back(m, 0);
  } else {
    profile.emplace_back(r, 0);
  }
  profile.emplace_back(0, 0);
  return revolved(profile);
}

TopoDS_Shape spokes(const BodyForm& form) {
  using R = BodyRole;
  TopTools_ListOfShape first, others;
  const double inside = form[R::inside_diameter] / 2, outside = form[R::outside_diameter] / 2,
               w = form[R::width];
  const auto [low, high] = z_span(form);
  for (int k = 0; k < form.sides; ++k) {
    gp_Trsf turn;
    turn.SetRotation(gp_Ax1(gp_Pnt(), gp_Dir(0, 0, 1)), 2 * pi * k / form.sides);
    const auto bar = BRepPrimAPI_MakeBox(gp_Pnt(inside, -w / 2, low), gp_Pnt(outside, w / 2, high)).Shape();
    (k == 0 ? first : others).Append(BRepBuilderAPI_Transform(bar, turn).Shape());
  }
  BRepAlgoAPI_Fuse fuse;
  fuse.SetArguments(first);
  fuse.SetTools(others);
  fuse.Build();
  return fuse.Shape();
}

} // namespace

gp_Trsf transformation(const Pose& pose) {
  const auto& r = pose.rotation;
  const auto& t = pose.translation;
  gp_Trsf trsf;
  trsf.SetValues(r(0, 0), r(0, 1), r(0, 2), t.x(), r(1, 0), r(1, 1), r(1, 2), t.y(), r(2, 0), r(2, 1),
                 r(2, 2), t.z());
  return trsf;
}

TopoDS_Shape shape_of(const BodyForm& form) {
  using R = BodyRole;
  const auto [low, high] = z_span(form);
  const double d = form[R::diameter];
  switch (form.shape) {
  case BodyShape::block:
  case BodyShape::pocket:
    return upright(rounded(form[R::length], form[R::width], form[R::corner], low), high - low);
  case BodyShape::slot:
    return upright(rounded(form[R::length], form[R::width], form[R::width] / 2, low), high - low);
  case BodyShape::round:
    return cylinder(d, low, high);
  case BodyShape::cone: {
    const double t = top_diameter(form), below = form.cut ? t : d, above = form.cut ? d : t;
    if (below == above) return cylinder(d, low, high);
    return BRepPrimAPI_MakeCone(gp_Ax2(gp_Pnt(0, 0, low), gp_Dir(0, 0, 1)), below / 2, above / 2, high - low)
        .Shape();
  }
  case BodyShape::tube:
    return revolved({{form[R::bore] / 2, low}, {d / 2, low}, {d / 2, high}, {form[R::bore] / 2, high}});
  case BodyShape::groove:
    return revolved({{d / 2, low},
                     {form[R::outside_diameter] / 2, low},
                     {form[R::outside_diameter] / 2, high},
                     {d / 2, high}});
  case BodyShape::prism:
    return upright(polygon(form[R::flats], form.sides, low), high - low);
  case BodyShape::rib: {
    const double l = form[R::length], t = form[R::thickness];
    BRepBuilderAPI_MakePolygon triangle(gp_Pnt(-l / 2, -t / 2, low), gp_Pnt(l / 2, -t / 2, low),
                                        gp_Pnt(-l / 2, -t / 2, high), Standard_True);
    return BRepPrimAPI_MakePrism(BRepBuilderAPI_MakeFace(triangle.Wire()).Face(), gp_Vec(0, t, 0)).Shape();
  }
  case BodyShape::spokes:
    return spokes(form);
  case BodyShape::hole:
    return hole(form);
  case BodyShape::turned:
    return turned(form);
  case BodyShape::imported:
    return imported(*form.step);
  case BodyShape::chamfer:
  case BodyShape::fillet:
  case BodyShape::scribed:
  case BodyShape::pop:
    break;
  }
  throw Standard_Failure("no shape of its own");
}

} // namespace datrin::solid
