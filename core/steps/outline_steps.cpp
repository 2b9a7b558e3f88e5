#include "cutting/corner_steps.h"
#include "cutting/cutter_path.h"
#include "route/propose.h"
#include "solid/body_form.h"
#include "solid/place.h"
#include "steps/place_steps.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::steps {

using namespace build;

namespace {

constexpr double no_move = 1e-4;         // mm
constexpr double straight_enough = 0.02; // mm: along an axis within what two touches may differ by
constexpr double along_tool = 0.99;      // cosine

} // namespace

BenchStep PlaceSteps::outline_depth(const ToolPlace& place, const Operation& o, const Height& height,
                                    double deep, bool through) const {
  auto step = plain(fmt::format("deep-{}-{}", place.operation, place.key), StepKind::deep, place.name);
  step.operation = place.operation;
  step.lit = place.lit;
  step.done = step.done || place.done;
  step.at = place.at;
  step.axis = "Z";
  step.words =
      fmt::format("{}: down in cuts the cutter bears, until Z reads", route::operation_text(build_, o));
  step.ask = "What does it read?";
  step.sum = {"depth", {{place.name, deep, "drawing"}}, {}};
  below_where_it_was_set(step, place, height);
  metal_in_the_way(step, height.face);
  if (through) step.sum.lines.push_back({"through, and clear", options_.clear, "chosen"});
  as_height(step.sum, height, place.operation);
  step.number = step.sum.total();
  step.also = joined(turn_at(o, cutter_across(o)), by_the_screw(*step.number));
  step.from = height.at;
  step.at = place.at - deep * place.out;
  return step;
}

/// A way in the drawing frame as the machine goes it: X, Y.
Vec2 PlaceSteps::in_machine(const Vec3& way) const {
  const Vec3 straight = route::machine_axes(held_) * way;
  const double c = std::cos(turn_), s = std::sin(turn_);
  return {c * straight.x() - s * straight.y(), s * straight.x() + c * straight.y()};
}

/// By how much a way of that length lies off the nearest axis, radians; 0: along it, as near as matters.
double PlaceSteps::off_axes(const Vec3& way) const {
  const Vec2 goes = in_machine(way);
  const double at = std::remainder(std::atan2(goes.y(), goes.x()), pi / 2);
  return goes.norm() * std::abs(std::sin(at)) <= straight_enough ? 0 : at;
}

void PlaceSteps::marks(Id id, const route::Feature& f, bool done, std::vector<BenchStep>& work) const {
  const auto placed = solid::place_bodies(build_, setup_.part);
  const auto body =
      std::find_if(placed.begin(), placed.end(), [&](const auto& one) { return one.id == f.body; });
  if (body == placed.end()) return;
  const bool line = body->form.shape == BodyShape::scribed;
  for (std::size_t n = 0; n < body->copies.size(); ++n) {
    const auto& pose = body->copies[n];
    ToolPlace place;
    place.operation = id;
    place.key = fmt::format("{}", n + 1);
    place.name = numbered(f.name, n, body->copies.size());
    place.at = pose.apply(Vec3::Zero());
    place.out = pose.rotation * Vec3::UnitZ();
    place.done = done;
    const Vec2 along = in_machine(pose.rotation * Vec3::UnitX());
    for (std::size_t axis = 0; axis < 2; ++axis)
      if (!line ||
          std::abs(along[static_cast<Eigen::Index>(axis)]) < along_tool) // along itself a line has no place
        work.push_back(go(place, axis, line ? "Scribe where" : "Pop where"));
  }
}

BenchStep PlaceSteps::told(const ToolPlace& place, const std::string& key, std::string words) const {
  auto step = plain(fmt::format("{}-{}-{}", key, place.operation, place.key), StepKind::note, place.name);
  step.operation = place.operation;
  step.lit = place.lit;
  step.done = step.done || place.done;
  step.words = std::move(words);
  return step;
}

/// To `place`, along what changes since `before`: what leads away from the metal first, where that is told.
void PlaceSteps::mill_to(const ToolPlace& place, const Vec3& before, const std::string& moving,
                         const Vec3* away_from, std::vector<BenchStep>& work) const {
  const Vec2 way = in_machine(place.at - before);
  std::array<std::size_t, 2> order{0, 1};
  if (away_from) {
    const Vec2 out = in_machine(before - *away_from);
    if (way.y() * out.y() > way.x() * out.x()) std::swap(order[0], order[1]);
  }
  for (const std::size_t axis : order) {
    if (std::abs(way[static_cast<Eigen::Index>(axis)]) < (turn_ == 0 ? no_move : straight_enough)) continue;
    auto step = go(place, axis, moving);
    step.lit = place.lit;
    work.push_back(std::move(step));
  }
}

/// Round the upright corners of a block by places: no move leads into the corner, each goes away from its
/// middle first.
void PlaceSteps::corners(const ToolPlace& on, const Pose& pose, const cutting::CutterPathInput& block,
                         double top, Vec3 before, std::vector<BenchStep>& work) const {
  cutting::CornerInput in;
  in.radius = block.corner;
  in.cutter = block.cutter;
  in.proud = options_.proud;
  const auto quarter = cutting::corner_steps(in);
  if (!quarter.usable()) return;
  auto note =
      told(on, "corners",
           fmt::format("Its corners of {} by {} places each: {} stands proud between two, filed off after. "
                       "Enter goes to them one by one",
                       text(in.radius), quarter.middles.size(), text(quarter.proud)));
  note.another_way = "rounded otherwise: filed between buttons, on the rotary table";
  const bool otherwise = passed("not-" + note.key);
  work.push_back(std::move(note));
  if (otherwise) return;
  const double x = block.length / 2, y = block.width / 2;
  // Left and near, right and near, right and far, left and far: against the feed.
  for (std::size_t corner = 0; corner < 4; ++corner) {
    const double turned = pi + pi / 2 * static_cast<double>(corner);
    const Vec2 at(corner == 1 || corner == 2 ? x : -x, corner >= 2 ? y : -y);
    const double c = std::cos(turned), s = std::sin(turned);
    const auto to_part = [&](const Vec2& p) {
      return pose.apply(Vec3(at.x() + c * p.x() - s * p.y(), at.y() + s * p.x() + c * p.y(), top));
    };
    const Vec3 middle = to_part({-in.radius, -in.radius});
    for (std::size_t k = 0; k < quarter.middles.size(); ++k) {
      ToolPlace place = on;
      place.name =
          fmt::format("{}, corner {}, place {} of {}", on.name, corner + 1, k + 1, quarter.middles.size());
      place.key = fmt::format("{}.c{}.{}", on.key, corner + 1, k + 1);
      place.at = to_part(quarter.middles[k]);
      mill_to(place, before, "Mill along", k > 0 ? &middle : nullptr, work);
      before = place.at;
    }
  }
}

void PlaceSteps::outline(Id id, const Operation& o, const route::Feature& f, bool done,
                         std::vector<BenchStep>& work) {
  const auto placed = solid::place_bodies(build_, setup_.part);
  const auto body =
      std::find_if(placed.begin(), placed.end(), [&](const auto& one) { return one.id == f.body; });
  if (body == placed.end()) return;
  const auto& form = body->form;
  cutting::CutterPathInput in;
  const bool boss = f.shape == route::FeatureShape::profile; // milled all round, down to what it stands on
  in.of = boss                                   ? cutting::CutOf::boss
          : f.shape == route::FeatureShape::slot ? cutting::CutOf::slot
                                                 : cutting::CutOf::pocket;
  in.length = form[BodyRole::length];
  in.width = form[BodyRole::width];
  in.corner = in.of != cutting::CutOf::slot ? form[BodyRole::corner] : 0;
  in.cutter = cutter_across(o);
  cutting::CutterPathOptions how;
  how.unit = unit_;
  const auto path = cutting::cutter_path(in, how);
  const double top = boss ? form[BodyRole::height] : 0, deep = boss ? form[BodyRole::height] : f.deep;
  for (std::size_t n = 0; n < body->copies.size(); ++n) {
    const auto& pose = body->copies[n];
    const Vec3 out = pose.rotation * Vec3::UnitZ();
    if (out.dot(held_.way) < along_tool) continue;
    ToolPlace place;
    place.operation = id;
    place.key = fmt::format("{}", n + 1);
    place.name = numbered(f.name, n, body->copies.size());
    place.out = out;
    place.done = done;
    place.lit = f.surfaces;
    place.at = pose.apply(Vec3(0, 0, top));
    if (!path.usable()) {
      work.push_back(told(place, "cutter",
                          in.cutter <= 0 ? "Say under Operations which cutter: the numbers follow from it"
                                         : "No path for this cutter: " + path.message));
      continue;
    }
    if (const double off = off_axes(std::max(in.length, in.width) * (pose.rotation * Vec3::UnitX()));
        off != 0) {
      work.push_back(
          told(place, "cutter",
               fmt::format("It lies {:.2f}\u00B0 off the machine's axes: along them it would come out in "
                           "stairs. Turn the part by that first, {}, and find the zero again",
                           std::abs(off) * 180 / pi, off > 0 ? "clockwise" : "counter-clockwise")));
      continue;
    }
    // Set on the metal that goes, or stays, in its middle: at its corner the tool may stand beside it.
    const ToolPlace middle = place;
    Vec3 before = Vec3::Zero();
    auto places = path.clearing;
    places.insert(places.end(), path.middles.begin(), path.middles.end());
    for (std::size_t k = 0; k < places.size(); ++k) {
      place.at = pose.apply(Vec3(places[k].x(), places[k].y(), top));
      place.key = places.size() > 1 ? fmt::format("{}.{}", n + 1, k + 1) : fmt::format("{}", n + 1);
      if (!path.clearing.empty())
        place.name = fmt::format("{}, {}", middle.name, k < path.clearing.size() ? "its middle" : "round it");
      if (k > 0) {
        mill_to(place, before, "Mill along", nullptr, work);
      } else {
        for (std::size_t axis = 0; axis < 2; ++axis) {
          auto step = go(place, axis);
          if (axis == 0) step.also = joined(step.also, path.left_over);
          step.lit = place.lit;
          work.push_back(std::move(step));
        }
        const auto& height = height_of(middle, o, work);
        work.push_back(outline_depth(place, o, height, deep, form.through));
      }
      before = place.at;
    }
    if (boss && in.corner > 0) corners(middle, pose, in, top, before, work);
  }
}

} // namespace datrin::steps
