// Bodies fused and cut in order.

#include "solid/brep.h"

#include <BRepAlgoAPI_Cut.hxx>
#include <BRepAlgoAPI_Fuse.hxx>
#include <BRepBuilderAPI_Transform.hxx>
#include <BRepExtrema_DistShapeShape.hxx>
#include <BRepFilletAPI_MakeChamfer.hxx>
#include <BRepFilletAPI_MakeFillet.hxx>
#include <BRepGProp.hxx>
#include <BRep_Tool.hxx>
#include <GProp_GProps.hxx>
#include <Message.hxx>
#include <Message_Messenger.hxx>
#include <Message_Printer.hxx>
#include <ShapeUpgrade_UnifySameDomain.hxx>
#include <TopExp_Explorer.hxx>
#include <TopTools_IndexedMapOfShape.hxx>
#include <TopTools_ListOfShape.hxx>
#include <TopoDS.hxx>

#include <fmt/format.h>

#include <cmath>
#include <functional>

namespace datrin::solid {

namespace {

double volume(const TopoDS_Shape& shape) {
  GProp_GProps props;
  BRepGProp::VolumeProperties(shape, props);
  return props.Mass();
}

int solids_in(const TopoDS_Shape& shape) {
  int count = 0;
  for (TopExp_Explorer e(shape, TopAbs_SOLID); e.More(); e.Next()) ++count;
  return count;
}

TopoDS_Shape unified(const TopoDS_Shape& shape) {
  ShapeUpgrade_UnifySameDomain unify(shape, Standard_True, Standard_True, Standard_False);
  unify.Build();
  return unify.Shape();
}

class Maker {
public:
  Maker(const std::vector<PlacedBody>& bodies, Solid& solid) : bodies_(bodies), solid_(solid) {}

  TopoDS_Shape run() {
    for (const auto& body : bodies_) {
      if (!body.wrong.empty()) {
        leave_out(body, body.wrong);
        continue;
      }
      try {
        if (is_mark(body.form.shape)) {
          mark(body);
          continue;
        }
        if (works_edges(body.form.shape))
          edges(body);
        else
          add_or_cut(body);
      } catch (const Standard_Failure& failure) {
        leave_out(body, "it could not be worked out (" + words_of(failure) + ")");
      }
    }
    if (shape_.IsNull()) return shape_;
    shape_ = unified(shape_);
    // What was apart when it was added may have been joined since.
    if (solids_in(shape_) > 1)
      for (const auto& [body, what] : apart_) remark(*body, what);
    return shape_;
  }

private:
  void leave_out(const PlacedBody& body, const std::string& why) {
    solid_.problems.push_back({body.id, fmt::format("{}: {}", body.name, why)});
    left_out_ = true;
  }
  void remark(const PlacedBody& body, const std::string& what) {
    solid_.problems.push_back({body.id, fmt::format("{}: {}", body.name, what)});
  }

  void mark(const PlacedBody& body) {
    const Vec3 half(half_across(body.form).x(), 0, 0);
    for (const auto& pose : body.copies)
      solid_.marks.push_back({body.id, pose.apply(-half), pose.apply(half), pose.turn(Vec3::UnitZ())});
  }

  void add_or_cut(const PlacedBody& body) {
    const TopoDS_Shape own = shape_of(body.form);
    TopTools_ListOfShape tools, arguments;
    for (const auto& pose : body.copies)
      tools.Append(BRepBuilderAPI_Transform(own, transformation(pose)).Shape());
    if (tools.IsEmpty()) return;
    if (shape_.IsNull()) {
      if (body.form.cut) {
        leave_out(body, "there is no metal yet to take it from: put it further down the list");
        return;
      }
      shape_ = tools.First();
      tools.RemoveFirst();
      if (tools.IsEmpty()) return;
    }
    arguments.Append(shape_);
    const int before = solids_in(shape_);
    const double was = volume(shape_);
    if (body.form.cut) {
      const auto result = combined<BRepAlgoAPI_Cut>(arguments, tools);
      const double now = volume(result);
      if (solids_in(result) == 0 || now <= was * 1e-9) {
        leave_out(body, "it would take away all there is");
        return;
      }
      if (was - now <= 1e-9 * was) {
        remark(body, "it meets no metal: look where it is put, and whether it goes the right way");
        return;
      }
      if (solids_in(result) > before) apart_.emplace_back(&body, "it cuts the part in two");
      shape_ = result;
    } else {
      const auto result = combined<BRepAlgoAPI_Fuse>(arguments, tools);
      if (solids_in(result) > before) apart_.emplace_back(&body, "it does not touch the rest of the part");
      shape_ = result;
    }
    if (body.copies.size() > 1) overlap(body);
  }

  /// A pattern whose copies run into each other.
  void overlap(const PlacedBody& body) {
    const Vec2 half = half_across(body.form);
    const auto [low, high] = z_span(body.form);
    // Only neighbours whose boxes come near are looked at, by the middles of what they are about.
    const Vec3 middle(0, 0, (low + high) / 2);
    const double near = 2 * std::min(half.x(), half.y());
    for (std::size_t a = 0; a < body.copies.size(); ++a)
      for (std::size_t b = 0; b < a; ++b) {
        if ((body.copies[a].apply(middle) - body.copies[b].apply(middle)).norm() >= near - 1e-9) continue;
        remark(body, "its copies run into each other");
        return;
      }
  }

  template <class Algorithm>
  static TopoDS_Shape combined(const TopTools_ListOfShape& arguments, const TopTools_ListOfShape& tools) {
    Algorithm algorithm;
    algorithm.SetArguments(arguments);
    algorithm.SetTools(tools);
    algorithm.SetRunParallel(Standard_False);
    algorithm.SetNonDestructive(Standard_True); // what was imported is kept and taken again
    algorithm.Build();
    if (!algorithm.IsDone() || algorithm.HasErrors()) throw Standard_Failure("the two do not combine");
    return algorithm.Shape();
  }

  /// Edges of the faces of the solid that are a face of that body.
  void edges(const PlacedBody& body) {
    if (shape_.IsNull()) {
      leave_out(body, "there is no metal yet");
      return;
    }
    shape_ = unified(shape_);
    TopTools_IndexedMapOfShape found;
    for (const auto& other : bodies_) {
      if (other.id != body.on) continue;
      for (const auto& placed : faces_of(other)) {
        if (placed.face != body.face) continue;
        for (TopExp_Explorer e(shape_, TopAbs_FACE); e.More(); e.Next())
          if (same_surface(face_of(TopoDS::Face(e.Current())), placed))
            for (TopExp_Explorer edge(e.Current(), TopAbs_EDGE); edge.More(); edge.Next())
              if (!BRep_Tool::Degenerated(TopoDS::Edge(edge.Current())) &&
                  !BRep_Tool::IsClosed(TopoDS::Edge(edge.Current()), TopoDS::Face(e.Current())))
                found.Add(edge.Current());
      }
    }
    if (found.IsEmpty()) {
      leave_out(body, "nothing is left of the face whose edges it is for");
      return;
    }
    const double size = body.form[BodyRole::height];
    const auto with = [&](auto& maker) {
      for (int k = 1; k <= found.Extent(); ++k) maker.Add(size, TopoDS::Edge(found(k)));
      maker.Build();
      return maker.IsDone() && volume(maker.Shape()) > 0 ? TopoDS_Shape(maker.Shape()) : TopoDS_Shape();
    };
    TopoDS_Shape result;
    try {
      if (body.form.shape == BodyShape::chamfer) {
        BRepFilletAPI_MakeChamfer maker(shape_);
        result = with(maker);
      } else {
        BRepFilletAPI_MakeFillet maker(shape_);
        result = with(maker);
      }
    } catch (const Standard_Failure&) {
    }
    if (result.IsNull())
      leave_out(body, "the edges have no room for it: make it smaller");
    else
      shape_ = result;
  }

public:
  static bool same_surface(const SolidFace& face, const PlacedFace& placed) {
    constexpr double near = 1e-5;
    const auto& a = face.shape;
    const auto& b = placed.shape;
    if (!face.known() || a.kind != b.kind) return false;
    const double along = a.direction.dot(b.direction);
    if (!a.round()) return along > 1 - near * near && std::abs((a.point - b.point).dot(b.direction)) < near;
    if (std::abs(along) < 1 - near * near) return false;
    const Vec3 off = a.point - b.point;
    if ((off - off.dot(b.direction) * b.direction).norm() > near) return false;
    if (is_cone(a.kind) && (along < 0 || std::abs(a.half_angle - b.half_angle) > near)) return false;
    return std::abs(a.diameter / 2 - radius_at(b, off.dot(b.direction))) < near;
  }

  bool left_out() const { return left_out_; }

private:
  const std::vector<PlacedBody>& bodies_;
  Solid& solid_;
  TopoDS_Shape shape_;
  std::vector<std::pair<const PlacedBody*, const char*>> apart_;
  bool left_out_ = false;
};

} // namespace

void quiet() {
  static const bool once = [] {
    Message::DefaultMessenger()->RemovePrinters(STANDARD_TYPE(Message_Printer));
    return true;
  }();
  (void)once;
}

std::string words_of(const Standard_Failure& failure) {
  const char* words = failure.GetMessageString();
  return words != nullptr && *words != 0 ? words : failure.DynamicType()->Name();
}

Solid make_solid(const std::vector<PlacedBody>& bodies, const SolidOptions& options) {
  quiet();
  Solid solid;
  Maker maker(bodies, solid);
  try {
    const auto shape = maker.run();
    if (shape.IsNull()) {
      solid.status = SolidStatus::empty;
      solid.message = solid.problems.empty() ? "there is no metal yet" : solid.problems.front().words;
      return solid;
    }
    read_off(solid, shape, options);
  } catch (const Standard_Failure& failure) {
    solid.status = SolidStatus::failed;
    solid.message = "the solid could not be worked out (" + words_of(failure) + ")";
    return solid;
  }
  for (auto& face : solid.faces)
    for (const auto& body : bodies) {
      if (face.body != 0) break;
      for (const auto& placed : faces_of(body))
        if (!is_open(body.form, placed.face) && Maker::same_surface(face, placed)) {
          face.body = body.id;
          face.face = placed.face;
          face.copy = placed.copy;
          break;
        }
    }
  solid.status = maker.left_out() ? SolidStatus::partly : SolidStatus::made;
  if (!solid.problems.empty()) solid.message = solid.problems.front().words;
  return solid;
}

} // namespace datrin::solid
