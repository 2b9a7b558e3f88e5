// Bodies fused and cut in order.

#include "solid/brep.h"
#include "solid/profile.h"

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
#include <map>
#include <set>

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
    for (std::size_t k = 0; k < bodies_.size();) {
      const auto& body = bodies_[k];
      if (!body.wrong.empty()) {
        leave_out(body, body.wrong);
        ++k;
      } else if (is_mark(body.form.shape)) {
        mark(body);
        ++k;
      } else if (works_edges(body.form.shape)) {
        try_it(body, [&] { edges(body); });
        ++k;
      } else {
        // What is added, or taken away, one after another is taken together: one operation instead of many.
        std::vector<const PlacedBody*> group;
        for (; k < bodies_.size() && group.size() < most_together && goes_with(bodies_[k], body); ++k)
          if (bodies_[k].wrong.empty())
            group.push_back(&bodies_[k]);
          else
            leave_out(bodies_[k], bodies_[k].wrong);
        if (!together(group))
          for (const auto* one : group) try_it(*one, [&] { add_or_cut(*one); });
        for (const auto* one : group) {
          if (one->copies.size() > 1) overlap(*one);
          thread(*one);
        }
      }
    }
    return shape_.IsNull() ? shape_ : unified(shape_);
  }

  /// What the faces of the solid say of the bodies: which meets no metal, which stands apart, which cuts it
  /// in two.
  void look_back(const std::vector<int>& solid_of_face) {
    std::map<build::Id, std::set<int>> on;
    std::map<int, double> area;
    for (std::size_t k = 0; k < solid_.faces.size(); ++k) {
      const auto& face = solid_.faces[k];
      area[solid_of_face[k]] += face.area;
      if (face.body != 0) on[face.body].insert(solid_of_face[k]);
    }
    int main = 0;
    for (const auto& [solid, of] : area)
      if (of > area[main]) main = solid;
    for (const auto& body : bodies_) {
      if (!made_.contains(body.id)) continue;
      const auto& at = on[body.id];
      if (body.form.cut && at.empty() && !meets_metal(body))
        remark(body, "it meets no metal: look where it is put, and whether it goes the right way");
      if (area.size() < 2 || at.empty()) continue;
      if (!body.form.cut && !at.contains(main)) remark(body, "it does not touch the rest of the part");
      if (body.form.cut && at.size() > 1) remark(body, "it cuts the part in two");
    }
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

  void thread(const PlacedBody& body) {
    if (body.form.thread_line <= 0) return;
    for (const auto& face : faces_of(body)) {
      if (face.face != BodyFace::side) continue;
      const Vec3 half = face.shape.direction * face.width / 2;
      solid_.threads.push_back({body.id, face.shape.point - half, face.shape.point + half,
                                body.form.thread_line, body.form.cut, body.form.through});
    }
  }

  static constexpr std::size_t most_together = 200;

  /// Whether it is added or taken away like `first`, and works on no edge.
  static bool goes_with(const PlacedBody& body, const PlacedBody& first) {
    return !works_edges(body.form.shape) && !is_mark(body.form.shape) && body.form.cut == first.form.cut;
  }

  template <class Work>
  void try_it(const PlacedBody& body, Work&& work) {
    try {
      work();
    } catch (const Standard_Failure& failure) {
      leave_out(body, "it could not be worked out (" + words_of(failure) + ")");
    }
  }

  static void put_copies(const PlacedBody& body, TopTools_ListOfShape& list) {
    const TopoDS_Shape own = shape_of(body.form);
    for (const auto& pose : body.copies)
      list.Append(BRepBuilderAPI_Transform(own, transformation(pose)).Shape());
  }

  /// All of them in one operation; false, and nothing changed, where that does not come out well.
  bool together(const std::vector<const PlacedBody*>& group) {
    if (group.empty()) return true;
    const bool cut = group.front()->form.cut;
    if (cut && shape_.IsNull()) return false;
    try {
      TopTools_ListOfShape tools, arguments;
      for (const auto* body : group) put_copies(*body, tools);
      if (tools.IsEmpty()) return true;
      if (shape_.IsNull()) {
        arguments.Append(tools.First());
        tools.RemoveFirst();
      } else {
        arguments.Append(shape_);
      }
      const auto result = tools.IsEmpty() ? arguments.First()
                          : cut           ? combined<BRepAlgoAPI_Cut>(arguments, tools)
                                          : combined<BRepAlgoAPI_Fuse>(arguments, tools);
      if (solids_in(result) == 0) return false;
      shape_ = result;
      for (const auto* body : group) made_.insert(body->id);
      return true;
    } catch (const Standard_Failure&) {
      return false;
    }
  }

  void add_or_cut(const PlacedBody& body) {
    TopTools_ListOfShape tools, arguments;
    put_copies(body, tools);
    if (tools.IsEmpty()) return;
    if (shape_.IsNull()) {
      if (body.form.cut) {
        leave_out(body, "there is no metal yet to take it from: put it further down the list");
        return;
      }
      arguments.Append(tools.First());
      tools.RemoveFirst();
    } else {
      arguments.Append(shape_);
    }
    const auto result = tools.IsEmpty() ? arguments.First()
                        : body.form.cut ? combined<BRepAlgoAPI_Cut>(arguments, tools)
                                        : combined<BRepAlgoAPI_Fuse>(arguments, tools);
    if (solids_in(result) == 0) {
      leave_out(body, "it would take away all there is");
      return;
    }
    shape_ = result;
    made_.insert(body.id);
  }

  /// Asked only of what left no face behind: it may have cut what another cut as well.
  bool meets_metal(const PlacedBody& body) const {
    TopTools_ListOfShape tools, added;
    put_copies(body, tools);
    for (const auto& other : bodies_)
      if (!other.form.cut && made_.contains(other.id)) put_copies(other, added);
    try {
      for (const auto& tool : tools)
        for (const auto& metal : added)
          if (BRepExtrema_DistShapeShape(tool, metal).Value() < 1e-7) return true;
      return false;
    } catch (const Standard_Failure&) {
      return true; // not known: nothing is said
    }
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
        if (placed.face != body.face.face || placed.profile_place != body.face.profile_place) continue;
        for (TopExp_Explorer e(shape_, TopAbs_FACE); e.More(); e.Next())
          if (goes_on(face_of(TopoDS::Face(e.Current())), placed))
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
  /// The face of the solid and that of the body are of one plane, cylinder or cone.
  static bool goes_on(const SolidFace& face, const PlacedFace& placed) {
    return face.known() && same_surface(face.shape, placed.shape);
  }
  /// The middle of the face is on the body's face.
  static bool lies_within(const SolidFace& face, const PlacedFace& placed) {
    constexpr double near = 1e-5;
    if (face.shape.round()) return overlaps(face, placed);
    const Vec3 off = face.shape.point - placed.frame.translation;
    return std::abs(off.dot(placed.frame.rotation.col(0))) <= placed.width / 2 + near &&
           std::abs(off.dot(placed.frame.rotation.col(1))) <= placed.height / 2 + near;
  }
  /// The two have some of it in common: round ones along their axis, planes by the boxes around them.
  static bool overlaps(const SolidFace& face, const PlacedFace& placed) {
    const Vec3 off = face.shape.point - placed.shape.point;
    if (face.shape.round())
      return std::abs(off.dot(placed.shape.direction)) < (face.height + placed.width) / 2;
    const double reach = std::hypot(face.width, face.height) / 2;
    return std::abs(off.dot(placed.frame.rotation.col(0))) < placed.width / 2 + reach &&
           std::abs(off.dot(placed.frame.rotation.col(1))) < placed.height / 2 + reach;
  }

  bool left_out() const { return left_out_; }

private:
  const std::vector<PlacedBody>& bodies_;
  Solid& solid_;
  TopoDS_Shape shape_;
  std::set<build::Id> made_;
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
  std::vector<int> solid_of_face; // which of the separate pieces it bounds
  try {
    // What takes longest, and may be given up: taken once, and kept for when it is put in its place.
    for (const auto& body : bodies)
      if (body.form.shape == BodyShape::imported && body.form.step && options.stop && !options.stop()) try {
          imported(*body.form.step, options.stop);
        } catch (const Standard_Failure&) { // said of the body when its turn comes
        }
    if (options.stop && options.stop()) throw Standard_Failure("stopped");
    const auto shape = maker.run();
    if (shape.IsNull()) {
      solid.status = SolidStatus::empty;
      solid.message = solid.problems.empty() ? "there is no metal yet" : solid.problems.front().words;
      return solid;
    }
    read_off(solid, shape, options);
    int index = 0;
    TopTools_IndexedMapOfShape order;
    for (const auto& face : solid.brep->faces) order.Add(face);
    solid_of_face.assign(solid.faces.size(), 0);
    for (TopExp_Explorer e(shape, TopAbs_SOLID); e.More(); e.Next(), ++index)
      for (TopExp_Explorer f(e.Current(), TopAbs_FACE); f.More(); f.Next())
        if (const int k = order.FindIndex(f.Current());
            k > 0 && static_cast<std::size_t>(k) <= solid_of_face.size())
          solid_of_face[static_cast<std::size_t>(k - 1)] = index;
  } catch (const Standard_Failure& failure) {
    solid.status = SolidStatus::failed;
    solid.message = "the solid could not be worked out (" + words_of(failure) + ")";
    return solid;
  }
  // Which body each face is of: first where it lies within the body's face, then, for what faces of several
  // bodies have become one, where it lies in the same plane or round.
  for (const bool within : {true, false})
    for (auto& face : solid.faces)
      for (const auto& body : bodies) {
        if (face.body != 0) break;
        for (const auto& placed : faces_of(body))
          if (!is_open(body.form, placed.face) && Maker::goes_on(face, placed) &&
              (within ? Maker::lies_within(face, placed) : Maker::overlaps(face, placed))) {
            face.body = body.id;
            face.be(placed.face_of());
            break;
          }
      }
  // An arc of what is turned is of it, though no face a seat knows.
  for (auto& face : solid.faces)
    for (const auto& body : bodies) {
      if (face.body != 0 || body.form.shape != BodyShape::turned) continue;
      for (std::size_t copy = 0; copy < body.copies.size(); ++copy)
        if (const int place = place_on_profile(body.form, body.copies[copy].inverse().apply(face.on), 1e-5)) {
          face.body = body.id;
          face.be({BodyFace::side, place, static_cast<int>(copy)});
        }
    }
  maker.look_back(solid_of_face);
  solid.status = maker.left_out() ? SolidStatus::partly : SolidStatus::made;
  if (!solid.problems.empty()) solid.message = solid.problems.front().words;
  return solid;
}

} // namespace datrin::solid
