#include "steps/places.h"

#include "geometry/between.h"
#include "route/card.h"
#include "route/propose.h"
#include "stock/part_stock.h"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace datrin::steps {

using namespace build;

namespace {

constexpr double along_an_axis = 0.99; // cosine
constexpr double in_one_plane = 1e-6;  // mm

} // namespace

bool AxisZero::inside() const {
  if (opposite != nullptr) return sense > 0;
  return on != nullptr && (on->kind == SurfaceKind::bore || on->kind == SurfaceKind::taper_bore);
}

std::string AxisZero::name() const {
  if (on == nullptr) return {};
  return opposite != nullptr ? on->name + " and " + opposite->name : on->name;
}

std::string AxisZero::place() const {
  return (has_middle() ? "the middle of " : "") + name();
}

Vec3 AxisZero::point() const {
  if (on == nullptr) return Vec3::Zero();
  return opposite != nullptr ? Vec3((on->point + opposite->point) / 2) : on->point;
}

Places::Places(const Build& build, const Setup& setup, const std::vector<allowance::SurfacePlan>& plans)
    : build_(build), setup_(setup),
      plans_(plans), held_{route::way_of_setup(build, setup), route::is_turned(build, setup)},
      axes_(route::machine_axes(held_)), cast_(stock::needs_touches(build, setup.part)) {
  for (const Id id : setup.datums) {
    const auto* s = build.find<PartSurface>(id);
    if (!s || s->round() || contains(setup.cuts, id)) continue;
    const Vec3 out = axes_ * s->direction.normalized();
    for (std::size_t k = 0; k < datums_.size(); ++k)
      if (std::abs(out[static_cast<Eigen::Index>(k)]) > along_an_axis) locates(k, id);
  }
  find_middle();
}

/// The first plane along an axis is its datum; one that looks the other way makes it the middle between them.
void Places::locates(std::size_t axis, Id id) {
  if (datums_[axis] == 0) {
    datums_[axis] = id;
    return;
  }
  const auto &one = *build_.find<PartSurface>(datums_[axis]), &other = *build_.find<PartSurface>(id);
  if (opposite_[axis] != 0 || one.direction.dot(other.direction) > 0) return;
  opposite_[axis] = id;
  if ((axes_ * (other.point - one.point))[static_cast<Eigen::Index>(axis)] < 0)
    std::swap(datums_[axis], opposite_[axis]);
}

const allowance::SurfacePlan* Places::plan_of(Id surface) const {
  const auto found =
      std::find_if(plans_.begin(), plans_.end(), [&](const auto& p) { return p.surface == surface; });
  return found == plans_.end() ? nullptr : &*found;
}

/// Of a casting what no tool has been over; of bar and plate a face with metal over it nobody knows of, and a
/// round that is not there yet: only the outside of a round bar or tube is before it is cut.
bool Places::is_rough(Id surface) const {
  const auto* plan = plan_of(surface);
  if (!plan) return cast_;
  if (plan->state != allowance::SurfaceState::as_cast) return false;
  if (!plan->drawn.round()) return cast_ || plan->source == allowance::StockSource::none;
  const auto form = stock::form_of(build_, setup_.part);
  const bool round_bar = form == StockForm::round || form == StockForm::tube;
  return !round_bar || plan->from_solid;
}

/// A face at its size is what the drawing counts from, wherever within its limits it came to lie.
double Places::to_come(Id surface) const {
  const auto* plan = plan_of(surface);
  const bool open = plan && (plan->state == allowance::SurfaceState::as_cast ||
                             plan->state == allowance::SurfaceState::roughed);
  return open ? std::max(0.0, plan->now - plan->aim) : 0;
}

/// Where no plane locates it, places count from the middle of what is round about the tool: a datum before
/// another, one whose place is known before one that is not, a large one before a small one.
void Places::find_middle() {
  std::tuple<bool, bool, double> best;
  for (const auto& [id, s] : build_.surfaces_of(setup_.part)) {
    if (!s.round() || s.copy != 0 || std::abs(s.direction.normalized().dot(held_.way)) < along_an_axis)
      continue;
    const std::tuple one{contains(setup_.datums, id), !is_rough(id) || contains(setup_.cuts, id), s.diameter};
    if (middle_ != 0 && one <= best) continue;
    best = one;
    middle_ = id;
  }
}

AxisZero Places::zero(std::size_t axis) const {
  AxisZero plane, middle;
  if (const auto* s = build_.find<PartSurface>(datums_[axis])) {
    const double out = (axes_ * s->direction.normalized())[static_cast<Eigen::Index>(axis)];
    plane.surface = datums_[axis];
    plane.on = s;
    plane.sense = out > 0 ? 1 : -1;
    plane.rough = is_rough(datums_[axis]);
    if (const auto* other = build_.find<PartSurface>(opposite_[axis])) {
      const double on_this = to_come(plane.surface), on_other = to_come(opposite_[axis]);
      plane.opposite_surface = opposite_[axis];
      plane.opposite = other;
      plane.rough = plane.rough || is_rough(opposite_[axis]);
      // Metal on the outside of a block makes it wider, on the walls of a slot narrower.
      plane.across = (axes_ * (other->point - s->point))[static_cast<Eigen::Index>(axis)] -
                     plane.sense * (on_this + on_other);
      plane.beside = plane.sense * (on_this - on_other) / 2;
    }
  }
  if (const auto* s = build_.find<PartSurface>(middle_)) {
    const bool here = contains(setup_.cuts, middle_);
    middle.surface = middle_;
    middle.on = s;
    middle.across = s->diameter;
    middle.rough = is_rough(middle_) && !here;
    middle.made_here = here;
  }
  return plane.known() || !middle.known() ? (plane.on ? plane : middle) : middle;
}

Reckoning Places::along(std::size_t axis, const Vec3& at) const {
  const auto from = zero(axis);
  if (!from.known()) return {};
  double drawn = (axes_ * (at - from.point()))[static_cast<Eigen::Index>(axis)];
  if (std::abs(drawn) < 1e-9) drawn = 0;
  Reckoning sum{{}, {{"from " + from.place(), drawn, "drawing"}}, {}};
  if (from.has_middle()) {
    if (from.beside != 0)
      sum.lines.push_back({"more still to come off one side than off the other", -from.beside, "allowance"});
    return sum;
  }
  // The face stands further out by what is still to come off it: everything behind it is that much further.
  if (const double metal = to_come(from.surface); metal > 0)
    sum.lines.push_back({"still to come off " + from.on->name, -from.sense * metal, "allowance"});
  return sum;
}

MetalOver Places::over(const Vec3& at, const Vec3& out) const {
  MetalOver found;
  double nearest = 0;
  for (const auto& [id, s] : build_.surfaces_of(setup_.part)) {
    const Vec3 faces = s.direction.normalized();
    if (s.round() || faces.dot(out) < along_an_axis || std::abs(faces.dot(at - s.point)) > in_one_plane)
      continue;
    const double off = (at - s.point).norm(); // of faces in one plane the one it lies in
    if (found.face != 0 && off >= nearest) continue;
    nearest = off;
    found = {id, to_come(id), is_rough(id)};
  }
  return found;
}

std::optional<double> Places::off_axis(const Vec3& at) const {
  const auto* s = build_.find<PartSurface>(middle_);
  if (!s) return std::nullopt;
  return (at - s->point).cross(s->direction.normalized()).norm();
}

} // namespace datrin::steps
