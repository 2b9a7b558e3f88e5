#include "route/precedence.h"

#include "build/words.h"
#include "quantity/length_text.h"
#include "solid/body_edits.h"
#include "solid/place.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace datrin::route {

using namespace build;

namespace {

bool makes_holes(OperationKind kind) {
  return kind == OperationKind::drill || kind == OperationKind::tap || kind == OperationKind::ream ||
         kind == OperationKind::bore;
}

/// Kinds that may come after a part is slit: nothing is clamped hard any more.
bool may_follow_a_slit(OperationKind kind) {
  return kind >= OperationKind::lap || kind == OperationKind::file || kind == OperationKind::slit;
}

std::string done(OperationKind kind) {
  switch (kind) {
  case OperationKind::face:
    return "faced";
  case OperationKind::turn:
    return "turned";
  case OperationKind::mill:
    return "milled";
  case OperationKind::drill:
    return "drilled";
  case OperationKind::bore:
    return "bored";
  case OperationKind::ream:
    return "reamed";
  case OperationKind::tap:
    return "tapped";
  case OperationKind::lap:
    return "lapped";
  case OperationKind::trial:
    return "fitted";
  case OperationKind::transfer:
    return "spotted through";
  case OperationKind::mark:
    return "marked";
  case OperationKind::slit:
    return "slit";
  default:
    return std::string(words_of<OperationKind>().first[static_cast<std::size_t>(kind)]);
  }
}

/// Of one feature what comes first: spotted or marked, then as the kinds go up.
int rung(OperationKind kind) {
  if (kind == OperationKind::mark) return -2;
  if (kind == OperationKind::transfer) return -1;
  return static_cast<int>(kind);
}

class Rules {
public:
  Rules(const Build& build, Id part, const PrecedenceOptions& options)
      : build_(build), part_(part), options_(options) {
    for (const auto& [id, o] : build.operations_of(part)) operations_.emplace_back(id, &o);
    for (const auto& body : solid::place_bodies(build, part)) placed_[body.id] = body;
  }

  std::vector<Precedence> all() {
    // The strongest first: a pair is kept with the first reason found for it.
    said_by_people();
    for (const auto& [a_id, a] : operations_)
      for (const auto& [b_id, b] : operations_)
        if (a_id != b_id) ladder(a_id, *a, b_id, *b);
    references();
    for (const auto& [a_id, a] : operations_)
      for (const auto& [b_id, b] : operations_)
        if (a_id != b_id) by_the_solid(a_id, *a, b_id, *b);
    std::vector<Precedence> out;
    for (auto& [pair, one] : found_) out.push_back(std::move(one));
    return out;
  }

private:
  void add(Id before, Id after, Rule rule, std::string reason) {
    if (before == after) return;
    Precedence one{before, after, rule, std::move(reason), {}};
    if (rule != Rule::person)
      for (const auto& aside : build_.find<Operation>(after)->set_aside)
        if (aside.before == before) one.set_aside = aside.reason;
    found_.emplace(std::pair{before, after}, std::move(one));
  }
  std::string surface(Id id) const { return surface_name(build_, id); }

  void said_by_people() {
    for (const auto& [id, o] : operations_)
      for (const Id before : o->after)
        if (const auto* first = build_.find<Operation>(before); first && first->part == part_)
          add(before, id, Rule::person, "stated");
  }

  bool same_feature(const Operation& a, const Operation& b) const {
    for (const Id s : a.surfaces)
      if (contains(b.surfaces, s)) return true;
    for (const Id s : a.bodies)
      if (contains(b.bodies, s)) return true;
    return false;
  }
  /// Someone said what of the same feature it comes after: a ladder does not say otherwise.
  bool is_placed_by_hand(const Operation& o) const {
    return std::any_of(o.after.begin(), o.after.end(), [&](Id id) {
      const auto* before = build_.find<Operation>(id);
      return before && same_feature(*before, o);
    });
  }
  void ladder(Id a_id, const Operation& a, Id b_id, const Operation& b) {
    if (!same_feature(a, b) || is_placed_by_hand(a)) return;
    const bool lower = rung(a.kind) < rung(b.kind);
    const bool smaller = a.kind == b.kind && a.kind == OperationKind::drill && a.size > 0 && a.size < b.size;
    if (!lower && !smaller) return;
    if (smaller)
      add(a_id, b_id, Rule::ladder, "the smaller drill goes first");
    else
      add(a_id, b_id, Rule::ladder, fmt::format("it is {} before it is {}", done(a.kind), done(b.kind)));
  }

  void references() {
    // A face that only a later setup cuts is used as it is before: then it must not be cut first.
    std::map<Id, int> place;
    for (const auto& [id, setup] : build_.setups_of(part_)) place.emplace(id, static_cast<int>(place.size()));
    for (const auto& [setup_id, setup] : build_.setups_of(part_))
      for (const Id datum : setup.datums)
        for (const auto& [a_id, a] : operations_) {
          if (a->setup == setup_id || !contains(a->surfaces, datum)) continue;
          const bool raw = a->setup != 0 && place[a->setup] > place[setup_id];
          for (const auto& [b_id, b] : operations_) {
            if (b->setup != setup_id) continue;
            if (raw)
              add(b_id, a_id, Rule::reference,
                  fmt::format("\"{}\" stands on {} as it came", setup.name, surface(datum)));
            else
              add(a_id, b_id, Rule::reference,
                  fmt::format("\"{}\" locates from {}", setup.name, surface(datum)));
          }
        }
  }

  /// The hole a operation works on, as it lies; null: none of a body.
  const solid::PlacedBody* hole_of(const Operation& o) const {
    const auto placed = [&](Id id) -> const solid::PlacedBody* {
      const auto at = placed_.find(id);
      return at != placed_.end() && at->second.form.shape == BodyShape::hole && !at->second.copies.empty()
                 ? &at->second
                 : nullptr;
    };
    for (const Id id : o.bodies)
      if (const auto* hole = placed(id)) return hole;
    for (const Id id : o.surfaces)
      if (const auto* s = build_.find<PartSurface>(id))
        if (const auto* hole = placed(s->body)) return hole;
    return nullptr;
  }

  void by_the_solid(Id a_id, const Operation& a, Id b_id, const Operation& b) {
    if (a.kind == OperationKind::face && makes_holes(b.kind)) faced(a_id, a, b_id, b);
    if (a.kind == OperationKind::face && b.kind == OperationKind::turn) end_first(a_id, a, b_id, b);
    if (makes_holes(a.kind) && b.kind == OperationKind::turn) wall(a_id, a, b_id, b);
    if (makes_holes(a.kind) && makes_holes(b.kind)) meets(a_id, a, b_id, b);
    if (a.kind == OperationKind::turn && b.kind == OperationKind::face && a.setup == b.setup)
      if (const auto* setup = build_.find<Setup>(a.setup); setup && setup->holding == Workholding::centres)
        add(a_id, b_id, Rule::centre, "the live centre is wanted until the end is faced");
    if (b.kind == OperationKind::deburr && a.kind < OperationKind::lap && a.setup == b.setup &&
        b.setup != 0 && b.surfaces.empty() && b.bodies.empty())
      add(a_id, b_id, Rule::burrs, "burrs come off when all is cut");
    if (b.kind == OperationKind::slit && !may_follow_a_slit(a.kind) && !same_feature(a, b))
      add(a_id, b_id, Rule::slit_last, "once it is slit it springs: slit last");
  }

  /// The face a hole starts in, when that is cut in the same setup or another.
  void faced(Id a_id, const Operation& a, Id b_id, const Operation& b) {
    const auto* hole = hole_of(b);
    const auto* body = hole ? build_.find<Body>(hole->id) : nullptr;
    if (!body) return;
    for (const Id id : a.surfaces) {
      const auto* s = build_.find<PartSurface>(id);
      const bool starts = body->surface == id ||
                          (s && s->body != 0 && s->body == body->on && s->face_of() == body->stands_on());
      if (starts && a.setup == b.setup)
        add(a_id, b_id, Rule::faced, fmt::format("a drill starts true on a faced {}", surface(id)));
    }
  }

  /// The end towards the tool, in a chuck: lengths count from it.
  void end_first(Id a_id, const Operation& a, Id b_id, const Operation& b) {
    const auto* setup = build_.find<Setup>(a.setup);
    if (!setup || a.setup != b.setup || setup->holding == Workholding::centres || setup->way.isZero()) return;
    for (const Id id : a.surfaces) {
      const auto* end = build_.find<PartSurface>(id);
      if (!end || end->direction.dot(setup->way) < 0.99) continue;
      const bool outermost = std::none_of(operations_.begin(), operations_.end(), [&](const auto& entry) {
        return std::any_of(entry.second->surfaces.begin(), entry.second->surfaces.end(), [&](Id other) {
          const auto* s = build_.find<PartSurface>(other);
          return s && !s->round() && s->direction.dot(setup->way) > 0.99 &&
                 (s->point - end->point).dot(setup->way) > 1e-6;
        });
      });
      if (outermost)
        add(a_id, b_id, Rule::faced, fmt::format("lengths count from {}, faced first", surface(id)));
    }
  }

  /// A hole in a boss, when little metal stays round it once the boss is turned.
  void wall(Id a_id, const Operation& a, Id b_id, const Operation& b) {
    const auto* hole = hole_of(a);
    if (!hole) return;
    const double d = hole->form[BodyRole::diameter];
    for (const Id id : b.surfaces) {
      const auto* boss = build_.find<PartSurface>(id);
      if (!boss || boss->kind != SurfaceKind::boss) continue;
      for (const auto& pose : hole->copies) {
        const Vec3 axis = pose.turn(Vec3::UnitZ());
        if (std::abs(axis.dot(boss->direction)) < 0.99) continue; // square to it: no wall beside it
        const Vec3 off = pose.translation - boss->point;
        const double apart = (off - off.dot(boss->direction) * boss->direction).norm();
        const double left = boss->diameter / 2 - apart - d / 2;
        if (left <= 0 || left >= options_.wall_of_hole * d) continue;
        add(a_id, b_id, Rule::wall,
            fmt::format("only {} stays round {} when {} is turned: {} while there is metal",
                        length_text(left, build_.info().unit, {.decimals_mm = 1, .show_unit = true}),
                        hole->name, boss->name, done(a.kind)));
        return;
      }
    }
  }

  static double distance(const Vec3& a, const Vec3& a_way, const Vec3& b, const Vec3& b_way) {
    const Vec3 n = a_way.cross(b_way);
    if (n.norm() < 1e-6) return ((b - a) - (b - a).dot(a_way) * a_way).norm();
    return std::abs((b - a).dot(n.normalized()));
  }
  void meets(Id a_id, const Operation& a, Id b_id, const Operation& b) {
    const auto *blind = hole_of(a), *through = hole_of(b);
    if (!blind || !through || blind->id == through->id || blind->form.through || !through->form.through)
      return;
    for (const auto& p : blind->copies)
      for (const auto& q : through->copies) {
        const Vec3 way = p.turn(Vec3::UnitZ()), other = q.turn(Vec3::UnitZ());
        if (std::abs(way.dot(other)) > 0.99) continue; // side by side
        const double reach = (blind->form[BodyRole::diameter] + through->form[BodyRole::diameter]) / 2;
        if (distance(p.translation, way, q.translation, other) >= reach) continue;
        // Where the blind one comes nearest the other's axis must be within its depth.
        const Vec3 n = other.cross(way.cross(other));
        const double at = -(q.translation - p.translation).dot(n) / way.dot(n); // down into the metal
        if (at < -reach || at > blind->form[BodyRole::depth] + reach) continue;
        add(a_id, b_id, Rule::meets,
            fmt::format("{} runs into {}: the blind one first, or chips of the other fall into it",
                        blind->name, through->name));
        return;
      }
  }

  const Build& build_;
  Id part_;
  PrecedenceOptions options_;
  std::vector<std::pair<Id, const Operation*>> operations_;
  std::map<Id, solid::PlacedBody> placed_;
  std::map<std::pair<Id, Id>, Precedence> found_;
};

} // namespace

std::vector<Precedence> precedences(const Build& build, Id part, const PrecedenceOptions& options) {
  return Rules(build, part, options).all();
}

} // namespace datrin::route
