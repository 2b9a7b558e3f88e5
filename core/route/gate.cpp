#include "route/gate.h"

#include "casting/spots.h"
#include "geometry/between.h"
#include "quantity/length_text.h"
#include "readings/size_now.h"
#include "route/features.h"
#include "route/propose.h"
#include "stock/part_stock.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace datrin::route {

using namespace build;

namespace {

std::string name_of(const Build& build, Id surface) {
  const auto* s = build.find<PartSurface>(surface);
  return s ? s->name : std::string("?");
}

/// What must be there before a setup is unclamped, kind by kind.
class Gate {
public:
  Gate(const Build& build, Id piece, Id setup, const std::vector<allowance::SurfacePlan>& plans)
      : build_(build), piece_(piece), setup_id_(setup), setup_(*build.find<Setup>(setup)), plans_(plans) {}

  std::vector<GateItem> items() {
    for (const auto id : setup_.cuts) items_.push_back(feature(id));
    add_operations();
    for (const auto id : setup_.sizes) add_size(id);
    add_spots();
    add_references();
    return std::move(items_);
  }

private:
  std::string text(double mm, int decimals = 2) const {
    return length_text(mm, build_.info().unit, {.decimals_mm = decimals, .show_unit = true});
  }
  const allowance::SurfacePlan* plan_of(Id surface) const {
    const auto plan =
        std::find_if(plans_.begin(), plans_.end(), [&](const auto& p) { return p.surface == surface; });
    return plan == plans_.end() ? nullptr : &*plan;
  }
  bool done(Id surface) const {
    if (const auto* plan = plan_of(surface)) return plan->state == allowance::SurfaceState::finished;
    // It stays as cast: a reference cut or scribed on it was logged.
    return !build_.cuts_of(piece_, surface).empty();
  }

  GateItem feature(Id id) const {
    const auto* plan = plan_of(id);
    const auto name = name_of(build_, id);
    GateItem item{GateKind::feature, done(id), {}, id, 0};
    if (plan == nullptr)
      item.text = fmt::format("{} is not to be machined by the drawing", name);
    else if (item.done)
      item.text = fmt::format("{} finished", name);
    else if (plan->state == allowance::SurfaceState::spoilt)
      item.text =
          fmt::format("{} is cut too deep by {}: decide what becomes of it first", name, text(-plan->now));
    else
      item.text =
          fmt::format("{} is {}: {} still to come off", name, allowance::state_name(*plan), text(plan->now));
    return item;
  }

  /// Whether a cut that is logged says that it was done: not of a thread, nor of the mouth of a hole.
  bool tells_of(const Operation& o) const {
    const bool cuts_size = o.kind == OperationKind::face || o.kind == OperationKind::turn ||
                           o.kind == OperationKind::mill || o.kind == OperationKind::drill ||
                           o.kind == OperationKind::bore || o.kind == OperationKind::ream ||
                           o.kind == OperationKind::grind || o.kind == OperationKind::lap;
    return cuts_size && !works_mouth(build_, o);
  }

  /// What is done here that no cut of a surface tells of: holes of a pattern, slots, burrs.
  void add_operations() {
    for (const auto& [id, o] : build_.operations_of(setup_.part)) {
      if (o.setup != setup_id_) continue;
      const bool told = tells_of(o) && std::any_of(o.surfaces.begin(), o.surfaces.end(), [&](Id s) {
                          return contains(setup_.cuts, s) || contains(setup_.marks, s);
                        });
      if (told) continue;
      GateItem item{GateKind::operation, build_.done_of(piece_, id).has_value(), {}, 0, 0};
      item.operation = id;
      item.text = fmt::format("{}: {}", operation_text(build_, o), item.done ? "done" : "not done");
      if (!o.deferred.empty()) item.text += fmt::format("; still to be decided: {}", o.deferred);
      items_.push_back(std::move(item));
    }
  }

  void add_size(Id id) {
    const auto* d = build_.find<Dimension>(id);
    if (d == nullptr) return;
    const auto now = readings::size_now(build_, {id, piece_});
    GateItem item{GateKind::size, now.settled() && d->allows(now.value), {}, d->surface, id};
    const bool angle = d->kind == DimensionKind::angle;
    const auto figure = [&](double v) { return angle ? number_text(degrees(v), 2) + "\u00B0" : text(v, 3); };
    const auto bound = now.bound == Bound::below ? "below " : now.bound == Bound::above ? "above " : "";
    if (!now.read())
      item.text = fmt::format("{} is not measured", d->name);
    else if (item.done)
      item.text = fmt::format("{} measured, {}", d->name, figure(now.value));
    else if (now.standing == readings::Standing::metal_on)
      item.text =
          fmt::format("{} measures {}{}: {}", d->name, bound, figure(now.value), still_to_come(id, *d, now));
    else
      item.text = fmt::format("{} measures {}{}, outside {} to {}", d->name, bound, figure(now.value),
                              figure(d->least()), figure(d->most()));
    items_.push_back(std::move(item));
  }

  /// "0.06 mm still to come off on the diameter", by the nearer limit, or the nominal where there are none.
  std::string still_to_come(Id id, const Dimension& d, const readings::SizeNow& now) const {
    const auto side = side_of(build_, id);
    const double first = !d.has_limits() ? d.nominal : side == Side::hole ? d.least() : d.most();
    const auto left = readings::left_to(side, now.value, first);
    if (!left || *left <= 0 || now.bound != Bound::exact) return "more is to come off";
    return fmt::format("{} still to come off{}", text(*left, 3),
                       d.kind == DimensionKind::size ? " on the diameter" : "");
  }

  /// What was seen on a face that this setup stands on, holds or cuts; on none in particular: on all.
  void add_spots() {
    for (const auto& [id, spot] : build_.spots_of(piece_)) {
      const bool here =
          spot.surface == 0 || contains(setup_.datums, spot.surface) || contains(setup_.cuts, spot.surface);
      if (!here || spot.cure == SpotCure::leave) continue;
      GateItem item{GateKind::spot, !casting::is_open(spot), casting::spot_text(build_, spot), spot.surface,
                    0};
      item.spot = id;
      items_.push_back(std::move(item));
    }
  }

  /// References for what comes later: every datum of the later setups must come from this one or an earlier,
  /// unless a setup in between still cuts it.
  void add_references() {
    bool past = false;
    const Setup* next = nullptr;
    bool next_without = false;
    for (const auto& [id, s] : build_.setups_of(setup_.part)) {
      if (past) {
        int machined = 0;
        for (const auto datum : s.datums) {
          machined += cut_.contains(datum);
          add_reference(datum, s);
        }
        if (next == nullptr) {
          next = build_.find<Setup>(id);
          next_without = machined == 0;
        }
      }
      cut_.insert(s.cuts.begin(), s.cuts.end());
      if (!past) cut_.insert(s.marks.begin(), s.marks.end());
      used_.insert(s.datums.begin(), s.datums.end());
      past = past || id == setup_id_;
    }
    if (next_without)
      items_.push_back({GateKind::reference, false,
                        fmt::format("Nothing machined so far locates the part in \"{}\": cut a reference "
                                    "before it is unclamped, or its place is lost",
                                    next->name),
                        0, 0});
  }

  void add_reference(Id datum, const Setup& later) {
    const bool here = contains(setup_.cuts, datum) || contains(setup_.marks, datum);
    if (!here && cut_.contains(datum)) return;
    if (!asked_.insert(datum).second) return;
    const auto name = name_of(build_, datum);
    if (here) {
      const bool ready = done(datum);
      items_.push_back({GateKind::reference, ready,
                        fmt::format("{} {}, wanted by \"{}\"", name,
                                    ready ? "is there" : "must be cut or scribed", later.name),
                        datum, 0});
      return;
    }
    const auto* surface = build_.find<PartSurface>(datum);
    const bool raw = surface != nullptr && !surface->machined;
    // A raw face used for the first time, or one of bar or block, which is as good the second time.
    if (raw && (!used_.contains(datum) || !stock::needs_touches(build_, setup_.part))) return;
    items_.push_back(
        {GateKind::reference, false,
         raw ? fmt::format("\"{}\" would stand on {} as cast a second time: carry it over to a "
                           "machined reference now",
                           later.name, name)
             : fmt::format("\"{}\" locates from {}, which nothing up to here has cut", later.name, name),
         datum, 0});
  }

  const Build& build_;
  Id piece_, setup_id_;
  const Setup& setup_;
  const std::vector<allowance::SurfacePlan>& plans_;
  std::set<Id> cut_, used_, asked_; ///< by the setups gone through so far
  std::vector<GateItem> items_;
};

} // namespace

GateResult unclamp_gate(const Build& build, Id piece, Id setup,
                        const std::vector<allowance::SurfacePlan>& plans) {
  GateResult out;
  if (build.find<Setup>(setup) == nullptr) return out;
  out.items = Gate(build, piece, setup, plans).items();
  out.open = static_cast<int>(
      std::count_if(out.items.begin(), out.items.end(), [](const auto& i) { return !i.done; }));
  out.verdict = out.items.empty() ? "Nothing is asked of this setup yet: say what it cuts and measures."
                : out.open == 0   ? "Everything is there: it may be unclamped."
                : out.open == 1   ? "Do not unclamp yet: one thing is missing."
                                  : fmt::format("Do not unclamp yet: {} things are missing.", out.open);
  return out;
}

std::vector<RouteRemark> route_remarks(const Build& build, Id part) {
  std::vector<RouteRemark> out;
  const auto setups = build.setups_of(part);
  const bool cast = stock::needs_touches(build, part);
  std::set<Id> cut, used_raw, ever_cut;
  for (const auto& [id, s] : setups) ever_cut.insert(s.cuts.begin(), s.cuts.end());
  bool first = true;
  for (const auto& [id, s] : setups) {
    int machined = 0;
    for (const auto datum : s.datums) {
      const auto* surface = build.find<PartSurface>(datum);
      if (surface == nullptr) continue;
      if (cut.contains(datum)) {
        ++machined;
        continue;
      }
      if (contains(s.cuts, datum))
        out.push_back(
            {true, id, fmt::format("\"{}\" cuts {}, which it is located from", s.name, surface->name)});
      if (!first && surface->machined && ever_cut.contains(datum))
        out.push_back({true, id,
                       fmt::format("\"{}\" locates from {}, which is still {} then", s.name, surface->name,
                                   cast ? "as cast" : "as it came")});
      if (!used_raw.insert(datum).second && cast)
        out.push_back({true, id,
                       fmt::format("\"{}\" uses {} as cast a second time: a raw face repeats only to its "
                                   "roughness; use it once, then what was machined from it",
                                   s.name, surface->name)});
    }
    if (s.datums.empty())
      out.push_back({false, id, fmt::format("\"{}\" says nothing of what locates the part", s.name)});
    if (!first && machined == 0 && !s.datums.empty())
      out.push_back({true, id, fmt::format("nothing machined locates the part in \"{}\"", s.name)});
    cut.insert(s.cuts.begin(), s.cuts.end());
    cut.insert(s.marks.begin(), s.marks.end());
    first = false;
  }
  if (!setups.empty())
    for (const auto& [id, s] : build.surfaces_of(part))
      if (s.machined && !ever_cut.contains(id))
        out.push_back({false, 0, fmt::format("no setup cuts {}", s.name)});
  return out;
}

std::string still_missing(const GateResult& gate) {
  std::string words;
  for (const auto& item : gate.items)
    if (!item.done) words += (words.empty() ? "" : "; ") + item.text;
  return words;
}

} // namespace datrin::route
