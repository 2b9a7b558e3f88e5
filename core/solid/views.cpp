#include "solid/views.h"

#include "solid/brep.h"

#include <Eigen/Geometry>

#include <BRepAdaptor_Curve.hxx>
#include <BRepAlgoAPI_Common.hxx>
#include <BRepBuilderAPI_MakeFace.hxx>
#include <BRepGProp.hxx>
#include <BRepLib.hxx>
#include <BRepTools_WireExplorer.hxx>
#include <GCPnts_TangentialDeflection.hxx>
#include <GProp_GProps.hxx>
#include <HLRAlgo_Projector.hxx>
#include <HLRBRep_Algo.hxx>
#include <HLRBRep_HLRToShape.hxx>
#include <TopExp_Explorer.hxx>
#include <TopoDS.hxx>
#include <TopoDS_Wire.hxx>
#include <gp_Pln.hxx>

#include <algorithm>

namespace datrin::solid {

namespace {

std::vector<Vec3> along(const TopoDS_Edge& edge, double deflection) {
  std::vector<Vec3> at;
  const BRepAdaptor_Curve curve(edge);
  const GCPnts_TangentialDeflection steps(curve, 0.15, deflection);
  for (int k = 1; k <= steps.NbPoints(); ++k) at.push_back(vec(steps.Value(k)));
  if (edge.Orientation() == TopAbs_REVERSED) std::reverse(at.begin(), at.end());
  return at;
}

void take(std::vector<DrawnLine>& lines, TopoDS_Shape compound, LineKind kind, double deflection) {
  if (compound.IsNull()) return;
  BRepLib::BuildCurves3d(compound);
  for (TopExp_Explorer e(compound, TopAbs_EDGE); e.More(); e.Next()) {
    DrawnLine line;
    line.kind = kind;
    for (const auto& p : along(TopoDS::Edge(e.Current()), deflection)) line.at.emplace_back(p.x(), p.y());
    if (line.at.size() > 1) lines.push_back(std::move(line));
  }
}

/// How far `at` is from the line.
double distance(const DrawnLine& line, const Vec2& at) {
  double nearest = 1e300;
  for (std::size_t k = 1; k < line.at.size(); ++k) {
    const Vec2 a = line.at[k - 1], d = line.at[k] - a;
    const double length2 = d.squaredNorm();
    const double t = length2 > 0 ? std::clamp((at - a).dot(d) / length2, 0.0, 1.0) : 0.0;
    nearest = std::min(nearest, (a + t * d - at).norm());
  }
  return nearest;
}

/// What is hidden behind a line that is seen is not drawn (ISO 128-2: visible outlines go first): pieces of
/// hidden lines that lie on seen ones go.
void drop_covered(std::vector<DrawnLine>& lines, double near) {
  std::vector<DrawnLine> kept;
  std::vector<const DrawnLine*> seen;
  for (const auto& line : lines)
    if (line.kind == LineKind::sharp || line.kind == LineKind::outline) seen.push_back(&line);
  const auto covered = [&](const Vec2& at) {
    return std::any_of(seen.begin(), seen.end(),
                       [&](const DrawnLine* line) { return distance(*line, at) < near; });
  };
  for (const auto& line : lines) {
    if (line.kind != LineKind::hidden) {
      kept.push_back(line);
      continue;
    }
    // A straight line is looked at in pieces; where a seen line ends within a piece, that piece is still
    // drawn.
    DrawnLine run{LineKind::hidden, {}};
    const auto close = [&] {
      if (run.at.size() > 1) kept.push_back(run);
      run.at.clear();
    };
    for (std::size_t k = 1; k < line.at.size(); ++k) {
      constexpr int pieces = 8;
      const int parts = line.at.size() > 3 ? 1 : pieces;
      for (int m = 0; m < parts; ++m) {
        const Vec2 a = line.at[k - 1] + (line.at[k] - line.at[k - 1]) * m / parts;
        const Vec2 b = line.at[k - 1] + (line.at[k] - line.at[k - 1]) * (m + 1) / parts;
        if (covered(a) && covered((a + b) / 2) && covered(b)) {
          close();
        } else {
          if (run.at.empty()) run.at.push_back(a);
          // Pieces of one straight line stay one line.
          if (m > 0 && run.at.size() > 1)
            run.at.back() = b;
          else
            run.at.push_back(b);
        }
      }
    }
    close();
  }
  lines = std::move(kept);
}

} // namespace

std::vector<DrawnLine> drawn_lines(const Solid& solid, const ViewDirection& view,
                                   const ViewOptions& options) {
  std::vector<DrawnLine> lines;
  if (!solid.brep || solid.brep->shape.IsNull()) return lines;
  try {
    const Vec3 right = view.toward.cross(view.up);
    const Handle(HLRBRep_Algo) algo = new HLRBRep_Algo;
    algo->Add(solid.brep->shape);
    algo->Projector(HLRAlgo_Projector(gp_Ax2(gp_Pnt(), direction(-view.toward), direction(right))));
    algo->Update();
    algo->Hide();
    HLRBRep_HLRToShape shapes(algo);
    take(lines, shapes.VCompound(), LineKind::sharp, options.deflection);
    take(lines, shapes.OutLineVCompound(), LineKind::outline, options.deflection);
    take(lines, shapes.Rg1LineVCompound(), LineKind::smooth, options.deflection);
    if (options.hidden) {
      take(lines, shapes.HCompound(), LineKind::hidden, options.deflection);
      take(lines, shapes.OutLineHCompound(), LineKind::hidden, options.deflection);
    }
  } catch (const Standard_Failure&) {
    lines.clear();
  }
  if (options.hidden) drop_covered(lines, std::max(options.deflection, 1e-6));
  return lines;
}

Section section(const Solid& solid, const Vec3& on, const Vec3& normal, const ViewOptions& options) {
  Section out;
  if (!solid.brep || solid.brep->shape.IsNull()) {
    out.message = "there is no solid";
    return out;
  }
  try {
    const double far = solid.box.size().norm() + (on - (solid.box.low + solid.box.high) / 2).norm() + 1;
    const auto sheet =
        BRepBuilderAPI_MakeFace(gp_Pln(point(on), direction(normal)), -far, far, -far, far).Face();
    BRepAlgoAPI_Common common(solid.brep->shape, sheet);
    if (!common.IsDone()) {
      out.message = "the section could not be worked out";
      return out;
    }
    GProp_GProps props;
    BRepGProp::SurfaceProperties(common.Shape(), props);
    out.area = props.Mass();
    for (TopExp_Explorer f(common.Shape(), TopAbs_FACE); f.More(); f.Next())
      for (TopExp_Explorer w(f.Current(), TopAbs_WIRE); w.More(); w.Next()) {
        std::vector<Vec3> outline;
        for (BRepTools_WireExplorer e(TopoDS::Wire(w.Current()), TopoDS::Face(f.Current())); e.More();
             e.Next()) {
          auto at = along(e.Current(), options.deflection);
          if (!outline.empty() && !at.empty()) at.erase(at.begin());
          outline.insert(outline.end(), at.begin(), at.end());
        }
        if (outline.size() > 2) out.outlines.push_back(std::move(outline));
      }
    if (out.outlines.empty()) out.message = "it meets no metal there";
  } catch (const Standard_Failure& failure) {
    out.message = "the section could not be worked out (" + words_of(failure) + ")";
  }
  return out;
}

} // namespace datrin::solid
