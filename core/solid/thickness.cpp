#include "solid/thickness.h"

#include "solid/brep.h"

#include <BRepAdaptor_Surface.hxx>
#include <BRepTools.hxx>
#include <BRepTopAdaptor_FClass2d.hxx>
#include <IntCurvesFace_ShapeIntersector.hxx>
#include <gp_Lin.hxx>

#include <algorithm>
#include <cmath>
#include <memory>
#include <optional>

namespace datrin::solid {

namespace {

constexpr double too_near = 1e-6;  ///< mm: that is where the line starts
constexpr double most_askew = 0.5; ///< cosine: meeting the far face flatter than that, it is a corner

/// A face with what is asked of it again and again.
struct FaceWork {
  BRepAdaptor_Surface surface;
  std::unique_ptr<BRepTopAdaptor_FClass2d> inside;
  double u0 = 0, u1 = 0, v0 = 0, v1 = 0;
  bool reversed = false;

  explicit FaceWork(const TopoDS_Face& face)
      : surface(face), inside(std::make_unique<BRepTopAdaptor_FClass2d>(face, 1e-7)),
        reversed(face.Orientation() == TopAbs_REVERSED) {
    BRepTools::UVBounds(face, u0, u1, v0, v1);
  }
  bool on(double u, double v) const { return inside->Perform(gp_Pnt2d(u, v)) != TopAbs_OUT; }
  /// The place and the way into the metal; nothing where the face has no normal.
  std::optional<gp_Lin> into(double u, double v) const {
    gp_Pnt p;
    gp_Vec du, dv;
    surface.D1(u, v, p, du, dv);
    const gp_Vec normal = du.Crossed(dv);
    if (normal.Magnitude() < 1e-12) return std::nullopt;
    return gp_Lin(p, gp_Dir(reversed ? normal : -normal));
  }
};

struct Hit {
  double length = 1e300;
  std::size_t from = 0, to = 0;
  double u = 0, v = 0;
  gp_Lin line;
};

class Search {
public:
  Search(const Solid& solid, const ThicknessOptions& options) : solid_(solid), options_(options) {
    for (const auto& face : solid.brep->faces) faces_.emplace_back(face);
    rays_.Load(solid.brep->shape, 1e-7);
    size_ = solid.box.size().norm();
    step_ = options.step > 0 ? options.step : size_ / 60;
  }

  Thickness run() {
    Thickness out;
    std::vector<Hit> found;
    for (std::size_t f = 0; f < faces_.size(); ++f) {
      if (options_.stop && options_.stop()) {
        out.status = ThicknessStatus::stopped;
        out.message = "stopped before it was found";
        return out;
      }
      sample(f, found);
    }
    std::sort(found.begin(), found.end(), [](const Hit& a, const Hit& b) { return a.length < b.length; });
    if (static_cast<int>(found.size()) > options_.refined)
      found.resize(static_cast<std::size_t>(options_.refined));
    Hit best;
    for (auto& hit : found) {
      refine(hit);
      if (hit.length < best.length) best = hit;
    }
    if (found.empty()) {
      out.status = ThicknessStatus::none;
      out.message = "no two faces stand against each other";
      return out;
    }
    out.status = ThicknessStatus::found;
    out.least = best.length;
    out.from = vec(best.line.Location());
    out.to = out.from + best.length * vec(best.line.Direction());
    out.face_from = best.from;
    out.face_to = best.to;
    return out;
  }

private:
  /// How far through metal from there.
  std::optional<Hit> look(std::size_t f, double u, double v) {
    const auto& face = faces_[f];
    if (!face.on(u, v)) return std::nullopt;
    const auto line = face.into(u, v);
    if (!line) return std::nullopt;
    rays_.PerformNearest(*line, too_near, size_);
    if (!rays_.IsDone() || rays_.NbPnt() == 0) return std::nullopt;
    int nearest = 1;
    for (int k = 2; k <= rays_.NbPnt(); ++k)
      if (rays_.WParameter(k) < rays_.WParameter(nearest)) nearest = k;
    Hit hit;
    hit.length = rays_.WParameter(nearest);
    hit.from = f;
    hit.u = u;
    hit.v = v;
    hit.line = *line;
    const auto other = std::find_if(solid_.brep->faces.begin(), solid_.brep->faces.end(),
                                    [&](const TopoDS_Face& g) { return g.IsSame(rays_.Face(nearest)); });
    if (other == solid_.brep->faces.end()) return std::nullopt;
    hit.to = static_cast<std::size_t>(other - solid_.brep->faces.begin());
    const auto& far = faces_[hit.to];
    const auto out = far.into(rays_.UParameter(nearest), rays_.VParameter(nearest));
    if (!out || -out->Direction().Dot(line->Direction()) < most_askew) return std::nullopt;
    return hit;
  }

  void sample(std::size_t f, std::vector<Hit>& found) {
    const auto& face = faces_[f];
    const auto steps = [&](double length) {
      return std::clamp(static_cast<int>(std::ceil(length / step_)), 3, 60);
    };
    // Lengths of the two ways across the face, about.
    const double um = (face.u0 + face.u1) / 2, vm = (face.v0 + face.v1) / 2;
    const auto length = [&](bool along_u) {
      double sum = 0;
      gp_Pnt last;
      for (int k = 0; k <= 8; ++k) {
        const double t = k / 8.0;
        const auto p = face.surface.Value(along_u ? face.u0 + t * (face.u1 - face.u0) : um,
                                          along_u ? vm : face.v0 + t * (face.v1 - face.v0));
        if (k > 0) sum += p.Distance(last);
        last = p;
      }
      return sum;
    };
    const int nu = steps(length(true)), nv = steps(length(false));
    Hit best;
    for (int i = 0; i < nu; ++i)
      for (int j = 0; j < nv; ++j) {
        const double u = face.u0 + (i + 0.5) / nu * (face.u1 - face.u0);
        const double v = face.v0 + (j + 0.5) / nv * (face.v1 - face.v0);
        const auto hit = look(f, u, v);
        if (hit && hit->length < best.length) best = *hit;
      }
    if (best.length < 1e300) {
      found.push_back(best);
    }
  }

  /// To where it is least nearby: steps along both ways, halved when neither helps.
  void refine(Hit& hit) {
    const auto& face = faces_[hit.from];
    double du = (face.u1 - face.u0) / 8, dv = (face.v1 - face.v0) / 8;
    for (int k = 0; k < 40; ++k) {
      bool better = false;
      for (const auto& [a, b] : {std::pair{1, 0}, {-1, 0}, {0, 1}, {0, -1}}) {
        const auto next = look(hit.from, hit.u + a * du, hit.v + b * dv);
        if (next && next->length < hit.length - 1e-12) {
          hit = *next;
          better = true;
        }
      }
      if (!better) {
        du /= 2;
        dv /= 2;
      }
    }
  }

  const Solid& solid_;
  const ThicknessOptions& options_;
  std::vector<FaceWork> faces_;
  IntCurvesFace_ShapeIntersector rays_;
  double size_ = 0, step_ = 0;
};

} // namespace

Thickness thinnest(const Solid& solid, const ThicknessOptions& options) {
  Thickness out;
  if (!solid.brep || solid.brep->shape.IsNull()) {
    out.status = ThicknessStatus::none;
    out.message = "there is no solid";
    return out;
  }
  try {
    return Search(solid, options).run();
  } catch (const Standard_Failure& failure) {
    out.status = ThicknessStatus::none;
    out.message = "it could not be worked out (" + words_of(failure) + ")";
    return out;
  }
}

} // namespace datrin::solid
