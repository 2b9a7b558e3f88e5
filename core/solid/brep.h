#pragma once
// Inside this folder only: the solid as the library of solids keeps it, and calls between plain structs and
// that.

#include "solid/solid.h"

#include <Standard_Failure.hxx>
#include <TopoDS_Face.hxx>
#include <TopoDS_Shape.hxx>
#include <gp_Ax2.hxx>
#include <gp_Dir.hxx>
#include <gp_Pnt.hxx>
#include <gp_Trsf.hxx>

#include <functional>
#include <memory>
#include <string>
#include <vector>

namespace datrin::solid {

struct Brep {
  TopoDS_Shape shape;
  std::vector<TopoDS_Face> faces; ///< in the order of Solid::faces
};

inline gp_Pnt point(const Vec3& v) {
  return {v.x(), v.y(), v.z()};
}
inline gp_Dir direction(const Vec3& v) {
  return {v.x(), v.y(), v.z()};
}
inline Vec3 vec(const gp_XYZ& v) {
  return {v.X(), v.Y(), v.Z()};
}
inline Vec3 vec(const gp_Pnt& p) {
  return vec(p.XYZ());
}
inline Vec3 vec(const gp_Dir& d) {
  return vec(d.XYZ());
}

/// What the library says of itself goes nowhere.
void quiet();

/// The form with its own frame at the origin. Throws Standard_Failure.
TopoDS_Shape shape_of(const BodyForm& form);
/// What a STEP file holds, read once and kept while it is asked for now and then. Throws Standard_Failure.
TopoDS_Shape imported(const std::string& step, const std::function<bool()>& stop = {});
gp_Trsf transformation(const Pose& pose);

/// Faces, triangles and mass of `shape` put into `solid`, which keeps it.
void read_off(Solid& solid, const TopoDS_Shape& shape, const SolidOptions& options);

/// The face as a surface, with its extents.
SolidFace face_of(const TopoDS_Face& face);

/// Why it failed, in the library's words.
std::string words_of(const Standard_Failure& failure);

} // namespace datrin::solid
