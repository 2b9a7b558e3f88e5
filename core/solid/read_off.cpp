// What is read off a solid of the library: faces, triangles, mass.

#include "solid/brep.h"

#include <BRepAdaptor_Curve.hxx>
#include <BRepAdaptor_Surface.hxx>
#include <BRepBndLib.hxx>
#include <BRepGProp.hxx>
#include <BRepLib.hxx>
#include <BRepMesh_IncrementalMesh.hxx>
#include <BRepTools.hxx>
#include <BRep_Tool.hxx>
#include <Bnd_Box.hxx>
#include <Eigen/Geometry>
#include <GCPnts_TangentialDeflection.hxx>
#include <GProp_GProps.hxx>
#include <GeomAbs_SurfaceType.hxx>
#include <Poly_Triangulation.hxx>
#include <TopExp.hxx>
#include <TopExp_Explorer.hxx>
#include <TopLoc_Location.hxx>
#include <TopTools_IndexedDataMapOfShapeListOfShape.hxx>
#include <TopoDS.hxx>
#include <TopoDS_Shell.hxx>
#include <gp_Cone.hxx>
#include <gp_Cylinder.hxx>
#include <gp_Pln.hxx>

#include <array>
#include <cmath>

namespace datrin::solid {

namespace {

using Places = std::vector<Vec3>;

/// Places along the edges of a face, close enough for its extents.
Places on_edges(const TopoDS_Face& face) {
  Places places;
  for (TopExp_Explorer e(face, TopAbs_EDGE); e.More(); e.Next()) {
    const auto& edge = TopoDS::Edge(e.Current());
    if (BRep_Tool::Degenerated(edge)) continue;
    Standard_Real first = 0, last = 0;
    const auto curve = BRep_Tool::Curve(edge, first, last);
    if (curve.IsNull()) continue;
    constexpr int steps = 48; // a circle's extents to within its thousandth
    for (int k = 0; k <= steps; ++k) places.push_back(vec(curve->Value(first + (last - first) * k / steps)));
  }
  return places;
}

Vec3 normal_at(const BRepAdaptor_Surface& surface, bool reversed, double u, double v, Vec3& at) {
  gp_Pnt p;
  gp_Vec du, dv;
  surface.D1(u, v, p, du, dv);
  at = vec(p);
  Vec3 normal = vec(du.XYZ()).cross(vec(dv.XYZ()));
  const double length = normal.norm();
  if (length > 0) normal /= length;
  return reversed ? Vec3(-normal) : normal;
}

/// Direction of an axis the same way every time: its largest component is positive.
Vec3 same_way(const Vec3& direction) {
  Eigen::Index largest = 0;
  direction.cwiseAbs().maxCoeff(&largest);
  return direction[largest] < 0 ? Vec3(-direction) : direction;
}

void round_face(SolidFace& out, const Places& edges, const Vec3& on_axis, const Vec3& axis) {
  double low = 1e300, high = -1e300;
  for (const auto& p : edges) {
    const double z = (p - on_axis).dot(axis);
    low = std::min(low, z);
    high = std::max(high, z);
  }
  if (low > high) low = high = 0;
  out.shape.point = on_axis + axis * (low + high) / 2;
  out.shape.direction = axis;
  out.height = high - low;
}

} // namespace

std::string_view face_kind_name(FaceKind kind) {
  switch (kind) {
  case FaceKind::plane:
    return "plane";
  case FaceKind::bore:
    return "bore";
  case FaceKind::boss:
    return "boss";
  case FaceKind::taper_bore:
  case FaceKind::taper_shank:
    return "cone";
  case FaceKind::sphere:
    return "sphere";
  case FaceKind::torus:
    return "torus";
  case FaceKind::other:
    break;
  }
  return "other";
}

SolidFace face_of(const TopoDS_Face& face) {
  SolidFace out;
  const BRepAdaptor_Surface surface(face);
  const bool reversed = face.Orientation() == TopAbs_REVERSED;
  Standard_Real u0 = 0, u1 = 0, v0 = 0, v1 = 0;
  BRepTools::UVBounds(face, u0, u1, v0, v1);
  Vec3 at;
  const Vec3 normal = normal_at(surface, reversed, (u0 + u1) / 2, (v0 + v1) / 2, at);
  GProp_GProps props;
  BRepGProp::SurfaceProperties(face, props);
  out.area = props.Mass();
  const auto edges = on_edges(face);
  out.shape.point = at;
  out.shape.direction = normal;
  out.on =
      surface.GetType() == GeomAbs_Plane && !edges.empty() ? edges.front() : at; // the middle may be a hole
  switch (surface.GetType()) {
  case GeomAbs_Plane: {
    out.kind = FaceKind::plane;
    out.shape.kind = SurfaceKind::plane;
    const auto directions = patch_directions(normal);
    Vec2 low = Vec2::Constant(1e300), high = Vec2::Constant(-1e300);
    for (const auto& p : edges) {
      const Vec2 place((p - at).dot(directions.width), (p - at).dot(directions.height));
      low = low.cwiseMin(place);
      high = high.cwiseMax(place);
    }
    if (low.x() <= high.x()) {
      const Vec2 middle = (low + high) / 2;
      out.shape.point = at + directions.width * middle.x() + directions.height * middle.y();
      out.width = high.x() - low.x();
      out.height = high.y() - low.y();
    }
    break;
  }
  case GeomAbs_Cylinder: {
    const auto cylinder = surface.Cylinder();
    const Vec3 axis = same_way(vec(cylinder.Axis().Direction()));
    const Vec3 on_axis = vec(cylinder.Location());
    const Vec3 off = at - on_axis;
    const bool outside = normal.dot(off - off.dot(axis) * axis) > 0;
    out.kind = outside ? FaceKind::boss : FaceKind::bore;
    out.shape.kind = outside ? SurfaceKind::boss : SurfaceKind::bore;
    out.shape.diameter = 2 * cylinder.Radius();
    round_face(out, edges, on_axis, axis);
    break;
  }
  case GeomAbs_Cone: {
    const auto cone = surface.Cone();
    Vec3 axis = vec(cone.Axis().Direction());
    const Vec3 on_axis = vec(cone.Location());
    const Vec3 off = at - on_axis;
    const double r = (off - off.dot(axis) * axis).norm();
    const bool outside = normal.dot(off - off.dot(axis) * axis) > 0;
    // It gets wider away from its apex.
    if ((at - vec(cone.Apex())).dot(axis) < 0) axis = -axis;
    out.kind = outside ? FaceKind::taper_shank : FaceKind::taper_bore;
    out.shape.kind = outside ? SurfaceKind::taper_shank : SurfaceKind::taper_bore;
    out.shape.half_angle = std::abs(cone.SemiAngle());
    round_face(out, edges, on_axis, axis);
    out.shape.diameter = 2 * (r + (out.shape.point - at).dot(axis) * std::tan(out.shape.half_angle));
    break;
  }
  case GeomAbs_Sphere:
    out.kind = FaceKind::sphere;
    out.shape.diameter = 2 * surface.Sphere().Radius();
    break;
  case GeomAbs_Torus:
    out.kind = FaceKind::torus;
    break;
  default:
    break;
  }
  return out;
}

namespace {

void put_triangles(Mesh& mesh, const TopoDS_Face& face, std::uint32_t index) {
  TopLoc_Location location;
  const auto triangulation = BRep_Tool::Triangulation(face, location);
  if (triangulation.IsNull()) return;
  const auto base = static_cast<std::uint32_t>(mesh.at.size());
  const bool reversed = face.Orientation() == TopAbs_REVERSED;
  const BRepAdaptor_Surface surface(face);
  for (int k = 1; k <= triangulation->NbNodes(); ++k) {
    const auto node = triangulation->Node(k).Transformed(location.Transformation());
    Vec3 normal = Vec3::Zero(), at;
    if (triangulation->HasUVNodes()) {
      const auto uv = triangulation->UVNode(k);
      normal = normal_at(surface, reversed, uv.X(), uv.Y(), at);
    }
    mesh.at.push_back(
        {static_cast<float>(node.X()), static_cast<float>(node.Y()), static_cast<float>(node.Z())});
    mesh.normal.push_back(
        {static_cast<float>(normal.x()), static_cast<float>(normal.y()), static_cast<float>(normal.z())});
  }
  for (int k = 1; k <= triangulation->NbTriangles(); ++k) {
    int a = 0, b = 0, c = 0;
    triangulation->Triangle(k).Get(a, b, c);
    if (reversed) std::swap(b, c);
    mesh.triangles.push_back({base + static_cast<std::uint32_t>(a - 1),
                              base + static_cast<std::uint32_t>(b - 1),
                              base + static_cast<std::uint32_t>(c - 1)});
    mesh.face.push_back(index);
  }
}

std::vector<SolidEdge> edges_of(const TopoDS_Shape& shape, double deflection) {
  TopTools_IndexedDataMapOfShapeListOfShape faces_at;
  TopExp::MapShapesAndAncestors(shape, TopAbs_EDGE, TopAbs_FACE, faces_at);
  std::vector<SolidEdge> edges;
  for (int k = 1; k <= faces_at.Extent(); ++k) {
    const auto& edge = TopoDS::Edge(faces_at.FindKey(k));
    if (BRep_Tool::Degenerated(edge)) continue;
    const auto& faces = faces_at(k);
    if (faces.Extent() == 2 && faces.First().IsSame(faces.Last())) continue; // a seam
    if (faces.Extent() == 1 && BRep_Tool::IsClosed(edge, TopoDS::Face(faces.First()))) continue;
    SolidEdge out;
    if (faces.Extent() == 2)
      out.smooth =
          BRep_Tool::Continuity(edge, TopoDS::Face(faces.First()), TopoDS::Face(faces.Last())) != GeomAbs_C0;
    const BRepAdaptor_Curve curve(edge);
    const GCPnts_TangentialDeflection steps(curve, 0.15, deflection);
    for (int n = 1; n <= steps.NbPoints(); ++n) {
      const auto p = steps.Value(n);
      out.at.push_back({static_cast<float>(p.X()), static_cast<float>(p.Y()), static_cast<float>(p.Z())});
    }
    edges.push_back(std::move(out));
  }
  return edges;
}

} // namespace

void read_off(Solid& solid, const TopoDS_Shape& shape, const SolidOptions& options) {
  auto brep = std::make_shared<Brep>();
  brep->shape = shape;
  GProp_GProps props;
  BRepGProp::VolumeProperties(shape, props);
  solid.volume = props.Mass();
  solid.centroid = vec(props.CentreOfMass());
  const auto inertia = props.MatrixOfInertia();
  for (int r = 0; r < 3; ++r)
    for (int c = 0; c < 3; ++c) solid.inertia(r, c) = inertia(r + 1, c + 1);
  Bnd_Box box;
  BRepBndLib::AddOptimal(shape, box, Standard_False, Standard_False);
  if (!box.IsVoid()) {
    solid.box.take(vec(box.CornerMin()));
    solid.box.take(vec(box.CornerMax()));
  }
  solid.bodies = 0;
  for (TopExp_Explorer e(shape, TopAbs_SOLID); e.More(); e.Next()) ++solid.bodies;
  solid.closed = solid.bodies > 0;
  for (TopExp_Explorer e(shape, TopAbs_SHELL); e.More(); e.Next())
    if (!BRep_Tool::IsClosed(TopoDS::Shell(e.Current()))) solid.closed = false;
  if (options.mesh) {
    const double size = solid.box.size().norm();
    const double deflection = options.deflection > 0 ? options.deflection : std::max(size / 500, 1e-3);
    BRepMesh_IncrementalMesh(shape, deflection, Standard_False, options.angular_deflection, Standard_True);
    BRepLib::EncodeRegularity(shape);
    solid.edges = edges_of(shape, deflection / 2);
  }
  for (TopExp_Explorer e(shape, TopAbs_FACE); e.More(); e.Next()) {
    const auto face = TopoDS::Face(e.Current());
    solid.faces.push_back(face_of(face));
    solid.area += solid.faces.back().area;
    if (options.mesh) put_triangles(solid.mesh, face, static_cast<std::uint32_t>(brep->faces.size()));
    brep->faces.push_back(face);
  }
  solid.brep = std::move(brep);
}

} // namespace datrin::solid
