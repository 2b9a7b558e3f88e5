#include "solid/flat_outline.h"

#include "solid/brep.h"

#include <BRepAdaptor_Curve.hxx>
#include <GCPnts_TangentialDeflection.hxx>
#include <TopExp_Explorer.hxx>
#include <TopoDS.hxx>
#include <gp_Circ.hxx>

#include <Eigen/Geometry>

#include <cmath>

namespace datrin::solid {

FlatOutline flat_outline(const Solid& solid, std::size_t index) {
  FlatOutline out;
  if (!solid.brep || index >= solid.faces.size()) {
    out.message = "there is no such face";
    return out;
  }
  const auto& face = solid.faces[index];
  if (face.kind != FaceKind::plane) {
    out.message = "only a flat face has an outline of its own";
    return out;
  }
  const auto directions = patch_directions(face.shape.direction);
  // As seen from outside: right-handed with the normal.
  const Vec3 y = directions.height, x = y.cross(face.shape.direction);
  const auto flat = [&](const Vec3& at) {
    return Vec2((at - face.shape.point).dot(x), (at - face.shape.point).dot(y));
  };
  try {
    for (TopExp_Explorer e(solid.brep->faces[index], TopAbs_EDGE); e.More(); e.Next()) {
      const BRepAdaptor_Curve curve(TopoDS::Edge(e.Current()));
      FlatCurve one;
      const double first = curve.FirstParameter(), last = curve.LastParameter();
      if (curve.GetType() == GeomAbs_Line) {
        one.at = {flat(vec(curve.Value(first))), flat(vec(curve.Value(last)))};
      } else if (curve.GetType() == GeomAbs_Circle) {
        const auto circle = curve.Circle();
        one.centre = flat(vec(circle.Location()));
        one.radius = circle.Radius();
        constexpr double whole = 2 * 3.14159265358979323846, near = 1e-9;
        if (last - first > whole - near) {
          one.kind = FlatCurve::Kind::circle;
        } else {
          one.kind = FlatCurve::Kind::arc;
          const Vec2 a = flat(vec(curve.Value(first))) - one.centre,
                     b = flat(vec(curve.Value(last))) - one.centre;
          const bool turns_left = vec(circle.Axis().Direction()).dot(face.shape.direction) > 0;
          one.from = std::atan2((turns_left ? a : b).y(), (turns_left ? a : b).x());
          one.to = std::atan2((turns_left ? b : a).y(), (turns_left ? b : a).x());
        }
      } else {
        const GCPnts_TangentialDeflection steps(curve, 0.05, 0.005);
        for (int k = 1; k <= steps.NbPoints(); ++k) one.at.push_back(flat(vec(steps.Value(k))));
      }
      out.curves.push_back(std::move(one));
    }
  } catch (const Standard_Failure& failure) {
    out.curves.clear();
    out.message = "the outline could not be worked out (" + words_of(failure) + ")";
  }
  return out;
}

} // namespace datrin::solid
