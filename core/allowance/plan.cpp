#include "allowance/plan.h"

#include "allowance/ladder.h"
#include "build/usual.h"
#include "casting/expect.h"
#include "casting/foundry_tables.h"
#include "geometry/between.h"
#include "quantity/length_text.h"
#include "stock/part_stock.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <tuple>

namespace datrin::allowance {

using namespace build;

namespace {

/// Metal left on the face at the other end of a distance, as it was cut last; of a piece that is not cast an
/// uncut one has what its stock left on it, once this one is cut. Nothing where that is not known.
std::optional<double> left_opposite(const Build& build, Id piece, const Pose& pose, Id other, bool cut_here) {
  const auto* face = build.find<PartSurface>(other);
  if (face == nullptr || face->round()) return std::nullopt;
  const auto cuts = build.cuts_of(piece, other);
  if (!cuts.empty()) return readings::left_by(*face, cuts.back().second, pose);
  if (!face->machined) return 0.0;
  const auto raw = cut_here ? stock::raw_metal(build, piece, other) : std::nullopt;
  return raw ? std::optional(raw->most) : std::nullopt;
}

/// A distance of the drawing that a plane is at one end of.
struct Across {
  Id dimension = 0, other = 0;
  bool gap = false; ///< metal left makes it smaller
};

std::vector<Across> distances_of(const Build& build, const SurfacePlan& plan) {
  std::vector<Across> found;
  if (plan.drawn.round()) return found;
  for (const auto& [id, d] : build.dimensions_of(plan.drawn.part)) {
    if (d.kind != DimensionKind::distance || (d.surface != plan.surface && d.other != plan.surface)) continue;
    const Id other = d.surface == plan.surface ? d.other : d.surface;
    const auto* face = build.find<PartSurface>(other);
    if (face != nullptr)
      found.push_back({id, other, (plan.drawn.point - face->point).dot(plan.drawn.direction) < 0});
  }
  return found;
}

/// Metal left that is within the limits of the dimensions on a surface: of a round one those of its own size;
/// of a plane those of its distances. Metal left on a plane lengthens the distance to what lies behind it,
/// and shortens the distance to what it faces across a gap.
void limits_of(const Build& build, SurfacePlan& plan) {
  std::optional<std::pair<double, double>> limits;
  const auto also = [&](double low, double high) {
    if (!limits) limits = {low, high};
    // Two that leave nothing in common contradict each other, which the drawing step says: the first stands.
    else if (std::max(limits->first, low) <= std::min(limits->second, high))
      limits = {std::max(limits->first, low), std::min(limits->second, high)};
  };
  for (const auto& [id, d] : build.dimensions_of(plan.drawn.part)) {
    if (!d.has_limits() || !plan.drawn.round() || d.kind != DimensionKind::size || d.surface != plan.surface)
      continue;
    const auto shape = plan.drawn.shape();
    const double a = stock_of_size(shape, shape.diameter + d.lower).value_or(0),
                 b = stock_of_size(shape, shape.diameter + d.upper).value_or(0);
    also(std::min(a, b), std::max(a, b));
  }
  for (const auto& across : distances_of(build, plan)) {
    const auto& d = *build.find<Dimension>(across.dimension);
    if (!d.has_limits()) continue;
    across.gap ? also(-d.upper, -d.lower) : also(d.lower, d.upper);
  }
  plan.limited = limits.has_value();
  if (limits) std::tie(plan.low, plan.high) = *limits;
}

/// What its own dimension was read as since the last cut, as metal left a side; nothing when it was not.
std::optional<double> left_by_its_reading(const Build& build, const Pose& pose, SurfacePlan& plan) {
  const auto piece = plan.allowance.piece;
  const auto newest = [&](Id dimension) {
    auto now = readings::size_now(build, {dimension, piece});
    const bool counts = now.read() && !now.by_cut && now.bound == Bound::exact &&
                        (plan.cuts.empty() || now.at >= plan.cuts.back().second.at);
    return counts ? std::optional(std::move(now)) : std::nullopt;
  };
  if (plan.drawn.round()) {
    for (const auto& [id, d] : build.dimensions_of(plan.drawn.part))
      if (d.kind == DimensionKind::size && d.surface == plan.surface)
        if (auto now = newest(id)) {
          const auto left = stock_of_size(plan.drawn.shape(), now->value);
          if (left) plan.read = std::move(*now);
          return left;
        }
    return std::nullopt;
  }
  for (const auto& across : distances_of(build, plan)) {
    const auto there = left_opposite(build, piece, pose, across.other, !plan.cuts.empty());
    auto now = there ? newest(across.dimension) : std::nullopt;
    if (!now) continue;
    const double over = now->value - build.find<Dimension>(across.dimension)->nominal;
    plan.read = std::move(*now);
    return (across.gap ? -over : over) - *there;
  }
  return std::nullopt;
}

/// What is left of it, whether that is finished, and the passes from there.
void stand_where_it_is(const Build& build, const Pose& pose, PassInput in, bool metal_on, SurfacePlan& plan) {
  if (!plan.cuts.empty()) plan.now = plan.cuts.back().second.left;
  const auto read = left_by_its_reading(build, pose, plan);
  if (read) plan.now = *read;
  if (read || !plan.cuts.empty()) {
    const double finish = plan.allowance.last > 0 ? std::min(plan.allowance.finish, plan.allowance.last)
                                                  : plan.allowance.finish;
    const double high = plan.limited ? plan.high : plan.aim + finish / 2;
    plan.state = plan.limited && plan.now < plan.low - 1e-9 ? SurfaceState::spoilt
                 : metal_on || plan.now > high + 1e-9       ? SurfaceState::roughed
                                                            : SurfaceState::finished;
    in.most = std::max(plan.now - plan.aim, 0.0);
    in.taken = std::max(0.0, plan.most - plan.aim - in.most);
  }
  if (plan.state == SurfaceState::finished || plan.state == SurfaceState::spoilt)
    plan.rest.status = PassStatus::planned;
  else
    plan.rest = plan_passes(in);
  for (auto* passes : {&plan.plan, &plan.rest}) // they count from where it is finished
    for (auto& pass : passes->passes) pass.left += plan.aim;
}

/// mm a side that the last drill of a hole from solid leaves for the reamer or the boring tool.
double left_by_drill(const PartSurface& hole, const Allowance& allowance, Unit unit) {
  LadderInput in;
  in.made = allowance.last_step == LastStep::ream ? HoleMade::reamed : HoleMade::bored;
  in.size = hole.diameter;
  in.drills = unit;
  const auto ladder = drill_ladder(in);
  return ladder.usable() ? ladder.left / 2 : hole.diameter / 2; // no drill of the drawer: all of it
}

struct Metal {
  double most = -1e300, least = 1e300, sum = 0;
  std::vector<double> stocks;
};

Metal metal_over(const casting::PieceInput& input, const Pose& pose, Id surface) {
  Metal metal;
  const int s = input.surface_index(surface);
  if (s < 0) return metal;
  for (const auto& p : input.seat.points) {
    if (p.surface != s) continue;
    const double stock = stock_at(input.seat.surfaces[static_cast<std::size_t>(s)].shape, pose.apply(p.xyz));
    metal.most = std::max(metal.most, stock);
    metal.least = std::min(metal.least, stock);
    metal.sum += stock;
    metal.stocks.push_back(stock);
  }
  return metal;
}

} // namespace

const char* state_name(const SurfacePlan& plan) {
  switch (plan.state) {
  case SurfaceState::as_cast:
    return plan.from_solid ? "in the solid" : plan.of_casting ? "as cast" : "as it came";
  case SurfaceState::roughed:
    return "roughed";
  case SurfaceState::finished:
    return "finished";
  case SurfaceState::spoilt:
    return "cut too deep";
  }
  return "";
}

bool SurfacePlan::to_size(double left) const {
  constexpr double figure = 1e-9;
  if (limited) return left >= low - figure && left <= high + figure;
  if (within > 0) return std::abs(left - aim) <= within + figure;
  return left <= aim + allowance.finish / 2 + figure;
}

std::optional<double> SurfacePlan::size_with(double left) const {
  return size_with_stock(drawn.shape(), left);
}

Dial SurfacePlan::dial_here() const {
  Dial here = dial;
  here.reads_diameter = dial.reads_diameter && drawn.round();
  return here;
}

Allowance usual_allowance(const Build& build, Id piece, Id surface) {
  Allowance usual;
  usual.piece = piece;
  usual.surface = surface;
  usual.rough = usual_rough(build.info().unit);
  usual.finish = usual_finish(build.info().unit);
  const auto* p = build.find<Piece>(piece);
  const auto foundry = casting::foundry_or_usual(build, p ? p->part : 0);
  if (!stock::needs_touches(build, p ? p->part : 0) || stock::made_from_solid(build, surface))
    usual.skin = 0; // no sand in it
  else if (const auto metal = casting::metal_named(foundry.metal))
    usual.skin = metal->skin;
  // What the drawing asks for at least is skin and least cut together.
  if (const auto* s = build.find<PartSurface>(surface); s && s->required > 0)
    usual.skin = std::min(usual.skin, s->required);
  if (const auto machines = build.machines(); !machines.empty()) usual.machine = machines.front().first;
  return usual;
}

std::vector<SurfacePlan> surface_plans(const Build& build, Id piece, const casting::PieceInput& input,
                                       const Pose& pose, const std::vector<Aim>& aims) {
  std::vector<SurfacePlan> plans;
  const auto* of = build.find<Piece>(piece);
  if (of == nullptr) return plans;
  if (stock::form_of(build, of->part) == StockForm::bought) return plans; // nothing of it is cut
  const bool cast = stock::needs_touches(build, of->part);
  const auto expected =
      cast ? casting::expect_casting(build, of->part, casting::foundry_or_usual(build, of->part))
           : casting::Expectation{};
  for (const auto& [id, s] : build.surfaces_of(of->part)) {
    if (!s.machined) continue;
    SurfacePlan plan;
    plan.surface = id;
    plan.drawn = s;
    const auto kept = build.allowance_of(piece, id);
    plan.allowance = kept ? kept->second : usual_allowance(build, piece, id);
    if (const auto* machine = build.find<Machine>(plan.allowance.machine))
      plan.dial = {machine->reads_diameter, machine->unit, machine->resolution};
    else
      plan.dial = {false, build.info().unit, usual_graduation(build.info().unit)};
    if (const auto* tool = build.find<Tool>(plan.allowance.tool)) plan.least_cut = tool->least_cut;
    plan.of_casting = cast;
    plan.from_solid = stock::made_from_solid(build, id);
    auto metal = cast && !plan.from_solid ? metal_over(input, pose, id) : Metal{};
    const auto raw = stock::raw_metal(build, piece, id);
    if (plan.from_solid) {
      if (is_hole(s.kind)) {
        plan.source = StockSource::solid;
        metal.most = metal.least = plan.mean = left_by_drill(s, plan.allowance, build.info().unit);
      }
    } else if (!cast && !raw && stock::is_shoulder(build, id)) {
      plan.source = StockSource::solid; // left by the roughing of what stands on it
      metal.most = metal.least = plan.mean = plan.allowance.finish;
    } else if (raw) {
      plan.source = raw->read ? StockSource::read : StockSource::sizes;
      plan.raw_sum = raw->sum;
      metal.most = raw->most;
      metal.least = raw->least;
      plan.mean = (raw->most + raw->least) / 2;
    } else if (!metal.stocks.empty()) {
      plan.source = StockSource::touches;
      plan.mean = metal.sum / static_cast<double>(metal.stocks.size());
      std::sort(metal.stocks.begin(), metal.stocks.end());
      // Enough to draw it by; the lowest and the highest always among them.
      constexpr std::size_t shown = 48;
      const auto n = metal.stocks.size();
      for (std::size_t k = 0; k < std::min(n, shown); ++k)
        plan.stocks.push_back(metal.stocks[n <= shown ? k : k * (n - 1) / (shown - 1)]);
    } else if (const auto* size = expected.of(id)) {
      plan.source = StockSource::expected;
      metal.most = size->stock_most;
      metal.least = size->stock_least;
      plan.mean = size->stock;
    }
    if (plan.source == StockSource::none)
      if (const auto left = left_by_its_reading(build, pose, plan)) {
        plan.source = StockSource::read;
        metal.most = metal.least = plan.mean = *left;
      }
    if (plan.source == StockSource::none && !cast)
      if (const auto cuts = build.cuts_of(piece, id); !cuts.empty()) { // cut, so it was there
        plan.source = StockSource::read;
        metal.most = metal.least = plan.mean = std::max(0.0, cuts.front().second.left);
      }
    if (plan.source != StockSource::none) {
      plan.most = metal.most;
      plan.least = metal.least;
      if (plan.allowance.batch)
        for (const auto& [other, p] : build.pieces_of(of->part)) {
          if (other == piece) continue;
          const auto theirs = casting::piece_input(build, other);
          const auto also = metal_over(theirs, casting::seat_or_start(build, other, theirs), id);
          if (!also.stocks.empty()) plan.most = std::max(plan.most, also.most);
        }
      limits_of(build, plan);
      const auto aim =
          std::find_if(aims.begin(), aims.end(), [id = id](const Aim& a) { return a.surface == id; });
      plan.aim = aim != aims.end() ? aim->left : plan.limited ? (plan.low + plan.high) / 2 : 0;
      const PassInput in{plan.most - plan.aim, plan.least - plan.aim, plan.allowance.skin,
                         plan.allowance.rough, plan.allowance.semi,   plan.allowance.finish,
                         plan.allowance.last,  plan.least_cut,        plan.allowance.even,
                         build.info().unit};
      plan.within = aim != aims.end() ? aim->within : 0;
      plan.plan = plan_passes(in);
      plan.now = plan.most;
      plan.cuts = build.cuts_of(piece, id);
      for (auto& [cut_id, cut] : plan.cuts) cut.left = readings::left_by(s, cut, pose);
      stand_where_it_is(build, pose, in, aim != aims.end() && aim->metal_on, plan);
    }
    plans.push_back(std::move(plan));
  }
  return plans;
}

Cut cut_of(const SurfacePlan& plan, const Pose& pose, double left) {
  Cut cut;
  cut.piece = plan.allowance.piece;
  cut.surface = plan.surface;
  cut.planned = plan.rest.passes.empty() ? 0 : plan.rest.passes.front().left;
  cut.left = left;
  cut.order = plan.cuts.empty() ? 0 : plan.cuts.back().second.order + 1;
  cut.place = pose.inverse().apply(plan.drawn.point + left * plan.drawn.direction);
  return cut;
}

namespace {

std::optional<double> left_of(const Build& build, const SurfacePlan& plan, ReadingOf of, double mm,
                              std::string* why) {
  const auto fail = [&](const char* text) -> std::optional<double> {
    if (why != nullptr) *why = text;
    return std::nullopt;
  };
  switch (of) {
  case ReadingOf::left:
    return mm;
  case ReadingOf::size:
    if (!plan.drawn.round()) return fail("a plane has no diameter");
    if (mm <= 0) return fail("a diameter must be above 0");
    return stock_of_size(plan.drawn.shape(), mm);
  case ReadingOf::distance: {
    if (plan.drawn.round()) return fail("a round surface is read by its diameter");
    const auto* other = build.find<PartSurface>(casting::opposite_plane(build, plan.surface));
    if (other == nullptr) return fail("no plane of the drawing stands opposite this one");
    double there = 0; // metal over the other face
    const auto seat = build.seat_of(plan.allowance.piece);
    if (const auto cuts = build.cuts_of(plan.allowance.piece, casting::opposite_plane(build, plan.surface));
        !cuts.empty())
      there = readings::left_by(*other, cuts.back().second, seat ? seat->second.pose : Pose{});
    else if (other->machined) {
      const auto raw =
          stock::raw_metal(build, plan.allowance.piece, casting::opposite_plane(build, plan.surface));
      if (!raw) return fail("the face opposite is not cut yet: read what is still to come off");
      there = raw->most;
    }
    return mm - std::abs((plan.drawn.point - other->point).dot(plan.drawn.direction)) - there;
  }
  case ReadingOf::dial: {
    const auto dial = plan.dial_here();
    return plan.most - mm / (dial.reads_diameter ? 2 : 1);
  }
  }
  return std::nullopt;
}

} // namespace

std::optional<double> left_by_reading(const Build& build, const SurfacePlan& plan, ReadingOf of, double mm,
                                      std::string* why) {
  const auto left = left_of(build, plan, of, mm, why);
  if (!left || *left <= plan.most + most_over_raw) return left;
  if (why != nullptr)
    *why = fmt::format("that would leave {}, more than there was: look which reading it is",
                       length_text(*left, build.info().unit, {.show_unit = true}));
  return std::nullopt;
}

double usual_last(LastStep step, const PartSurface& surface) {
  switch (step) {
  case LastStep::none:
    return 0;
  case LastStep::ream:
    return surface.round() ? reaming_allowance(surface.diameter).usual / 2 : 0;
  case LastStep::lap:
    return 0.005;
  case LastStep::trial:
    return 2.5 * mm_per_thou;
  }
  return 0;
}

int surface_to_cut(const std::vector<SurfacePlan>& plans) {
  const auto open = std::find_if(plans.begin(), plans.end(),
                                 [](const auto& p) { return p.state != SurfaceState::finished; });
  if (plans.empty()) return -1;
  return open == plans.end() ? 0 : static_cast<int>(open - plans.begin());
}

Reckoning level_sum(const SurfacePlan& plan, int row) {
  Reckoning sum;
  if (plan.source == StockSource::none) return sum;
  sum.lines.push_back({"metal at the highest place", plan.most,
                       plan.source == StockSource::touches ? "touches, seat"
                       : plan.source == StockSource::read  ? "read"
                       : plan.source == StockSource::sizes ? "stock"
                       : plan.source == StockSource::solid ? "the last drill"
                                                           : "casting grade"});
  if (!plan.raw_sum.lines.empty()) sum.lines = plan.raw_sum.lines; // how that came about
  int k = 0;
  double before = plan.most;
  for (const auto& [id, cut] : plan.cuts) {
    if (k > row) break;
    sum.lines.push_back({fmt::format("cut {}", ++k), cut.left - before, "read"});
    before = cut.left;
  }
  for (const auto& pass : plan.rest.passes) {
    if (k > row) break;
    sum.lines.push_back({fmt::format("{} {}", pass_name(pass.kind), ++k), pass.left - before, "plan"});
    before = pass.left;
  }
  sum.title = fmt::format("Left a side after {}", k);
  return sum;
}

MistakeResult absorb_mistake(const Build& build, const casting::PieceInput& input, const Pose& pose,
                             const std::vector<SurfacePlan>& plans, const SurfacePlan& plan, double left) {
  MistakeResult out;
  const auto mm_text = [&build](double mm) {
    return length_text(mm, build.info().unit, {.show_unit = true});
  };
  if (!plan.limited) {
    out.verdict = fmt::format("{} has no limits: give it some, and it is said whether {} is too deep.",
                              plan.drawn.name, mm_text(std::abs(left)));
    return out;
  }
  if (left >= plan.low - 1e-9) {
    out.verdict = left <= plan.high + 1e-9 ? "Within limits."
                                           : fmt::format("{} is left to come off.", mm_text(left - plan.aim));
    return out;
  }
  out.over = plan.low - left;
  // Another face can take it: the part is moved into the metal after the cut, while nothing finished stands
  // in the way.
  if (!plan.drawn.round()) {
    Absorbed way{"the other face", false, 0, {}};
    const Vec3 move = left * plan.drawn.direction; // the drawing's face goes to where the cut is
    Pose moved_pose = pose;
    moved_pose.translation -= move;
    std::string blocked;
    for (const auto& other : plans) {
      if (other.surface == plan.surface ||
          (other.state != SurfaceState::finished && other.state != SurfaceState::spoilt) || !other.limited)
        continue;
      const double by = other.drawn.round()
                            ? (move - move.dot(other.drawn.direction) * other.drawn.direction).norm()
                            : std::abs(move.dot(other.drawn.direction));
      if (by > std::max(std::abs(other.low), std::abs(other.high))) blocked = other.drawn.name;
    }
    const auto margins = casting::margins_at(input.seat, moved_pose);
    double least = casting::no_margin;
    std::string thin;
    for (const auto& group : margins.groups) {
      const auto id = input.surface_ids[static_cast<std::size_t>(group.surface)];
      const auto p = std::find_if(plans.begin(), plans.end(), [&](const auto& x) { return x.surface == id; });
      if (group.wall < 0 && p != plans.end() && p->state != SurfaceState::as_cast) continue; // cut already
      if (group.margin < least) {
        least = group.margin;
        thin = input.seat.surfaces[static_cast<std::size_t>(group.surface)].id;
      }
    }
    way.room = least;
    way.works = blocked.empty() && least >= 0 && least < casting::no_margin;
    if (!blocked.empty())
      way.text = fmt::format("The part cannot be moved after the cut: {} is finished and would be off by {}.",
                             blocked, mm_text(std::abs(left)));
    else if (way.works)
      way.text = fmt::format(
          "Move the part {} after the cut: everything still to be cut cleans up, {} has least, {}.",
          mm_text(std::abs(left)), thin, mm_text(least));
    else
      way.text = fmt::format("Moved after the cut, {} would be short by {}.",
                             thin.empty() ? "the rest" : thin, mm_text(std::max(0.0, -least)));
    if (way.works) {
      out.other_face = true;
      out.pose = moved_pose;
    }
    out.ways.push_back(way);
  }
  // A wall that stands over this surface has lost as much.
  for (const auto& group : casting::margins_at(input.seat, pose).groups) {
    if (group.wall < 0) continue;
    const auto& wall = input.seat.walls[static_cast<std::size_t>(group.wall)];
    if (input.surface_ids[static_cast<std::size_t>(wall.to)] != plan.surface) continue;
    Absorbed way{"the wall", false, group.margin + left, {}};
    const auto& name = input.seat.surfaces[static_cast<std::size_t>(wall.from)].id;
    way.text = way.room >= 0
                   ? fmt::format("The wall under {} still keeps {} over its least.", name, mm_text(way.room))
                   : fmt::format("The wall under {} falls {} short of its least: this ends the piece unless "
                                 "the wall may be thinner.",
                                 name, mm_text(-way.room));
    if (way.room < 0) out.ends = true;
    out.ways.push_back(way);
  }
  for (const auto& [id, d] : build.dimensions_of(plan.drawn.part)) {
    if (d.kind != DimensionKind::size || d.surface != plan.surface || d.importance != DimensionClass::fit)
      continue;
    const double size = plan.size_with(left).value_or(0);
    out.ways.push_back(
        {"the mate", !out.ends, 0,
         fmt::format("Where the mate is not made yet, make it {} {} on the diameter, to suit {}.",
                     mm_text(2 * std::abs(left)), is_hole(plan.drawn.kind) ? "larger" : "smaller",
                     mm_text(size))});
  }
  out.ways.push_back({"restoring it", false, 0,
                      is_hole(plan.drawn.kind)
                          ? "Bore for a bush and bore that to size, where there is wall enough."
                          : "Build the place up and cut it again, where strength does not hang on it."});
  const bool works = std::any_of(out.ways.begin(), out.ways.end(), [](const auto& w) { return w.works; });
  if (works) {
    out.ends = false;
    out.verdict = fmt::format("{} too deep; it can be absorbed.", mm_text(out.over));
  } else {
    out.ends = true;
    out.verdict = fmt::format(
        "{} too deep; nothing still to be cut absorbs it. It ends the piece, unless it is restored.",
        mm_text(out.over));
  }
  return out;
}

} // namespace datrin::allowance
