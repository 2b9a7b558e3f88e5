#include "route/fixture.h"

#include "build/edits.h"
#include "build/words.h"
#include "quantity/length_text.h"
#include "readings/size_now.h"
#include "route/features.h"
#include "route/propose.h"
#include "route/stiffness.h"
#include "solid/body_form.h"
#include "stock/part_stock.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::route {

using namespace build;

namespace {

bool has_size(LocatorKind kind) {
  return kind == LocatorKind::pin || kind == LocatorKind::nest || kind == LocatorKind::collet;
}

/// What is measured where a locator takes hold.
struct Taken {
  Id dimension = 0;
  std::string name;
  double least = 0, most = 0;
};

Taken taken_at(const Build& build, Id surface) {
  const auto* s = build.find<PartSurface>(surface);
  if (!s) return {};
  Taken out{0, s->name, s->diameter, s->diameter};
  for (const auto& [id, d] : build.dimensions_of(s->part)) {
    const bool is_size = d.kind == DimensionKind::size && d.surface == surface;
    // Across a plane: to the face that looks the other way.
    const Id far = d.surface == surface ? d.other : d.other == surface ? d.surface : 0;
    const auto* other = build.find<PartSurface>(far);
    const bool across = d.kind == DimensionKind::distance && !s->round() && other != nullptr &&
                        !other->round() && s->direction.dot(other->direction) < -0.99;
    if (is_size || across) return {id, d.name, d.least(), d.most()};
  }
  return out;
}

class Check {
public:
  Check(const Build& build, Id fixture, const FixtureOptions& options)
      : build_(build), fixture_(fixture), options_(options) {}

  FixtureCheck run() {
    for (const auto& [id, part] : build_.parts())
      for (const auto& [operation_id, o] : build_.operations_of(id))
        if (contains(o.needs, fixture_)) {
          out_.operations.push_back(operation_id);
          out_.part = id;
        }
    for (const auto& [id, locator] : build_.locators_of(fixture_)) {
      if (out_.part == 0)
        if (const auto* s = build_.find<PartSurface>(locator.surface)) out_.part = s->part;
      out_.locators.push_back(look_at(id, locator));
    }
    for (const Id id : out_.operations) torque(id);
    for (const auto& [id, proof] : build_.proofs_of(fixture_)) out_.tried = proof.good;
    remarks();
    return std::move(out_);
  }

private:
  std::string text(double mm, int decimals = 3) const {
    return length_text(mm, build_.info().unit, {.decimals_mm = decimals, .show_unit = true});
  }
  std::string between(double least, double most) const {
    return std::abs(most - least) < 1e-9 ? text(least) : fmt::format("{} to {}", text(least), text(most));
  }
  static double play(const Locator& locator, double size) {
    switch (locator.kind) {
    case LocatorKind::pin:
      return size - locator.size;
    case LocatorKind::nest:
      return locator.size - size;
    case LocatorKind::collet: // what is left to the nearer end of its range
      return std::min(locator.size - size, size - (locator.size - locator.closes));
    default:
      return 0;
    }
  }

  /// A pin goes into a hole; what closes round the part does not.
  std::string wrong_shape(const Locator& locator) const {
    const auto* s = build_.find<PartSurface>(locator.surface);
    if (!s) return {};
    const bool hole = is_hole(s->kind);
    if (locator.kind == LocatorKind::pin && !hole) return "a pin goes into a hole, and that is none";
    if (locator.kind == LocatorKind::nest && hole) return "a nest lies round it, and that is a hole";
    if (locator.kind == LocatorKind::collet && (hole || !s->round()))
      return "a collet closes on a round outside";
    return {};
  }

  LocatorCheck look_at(Id id, const Locator& locator) {
    LocatorCheck c;
    c.locator = id;
    const auto taken = taken_at(build_, locator.surface);
    c.takes = taken.name;
    c.least = taken.least;
    c.most = taken.most;
    const auto word = std::string(words_of<LocatorKind>().first[static_cast<std::size_t>(locator.kind)]);
    if (locator.kind == LocatorKind::stop) {
      c.text = locator.arm > 0
                   ? fmt::format("stop at {}, {} from what it turns about", c.takes, text(locator.arm, 1))
                   : fmt::format("stop at {}: say how far it is from what the part turns about", c.takes);
      return c;
    }
    if (!has_size(locator.kind)) {
      c.text = fmt::format("{} at {}", word, c.takes);
      if (locator.kind == LocatorKind::v_block && c.most - c.least > 1e-9)
        c.text += fmt::format(": its axis rises by {} from the thinnest piece to the thickest",
                              text((c.most - c.least) / std::sqrt(2.0)));
      return c;
    }
    if (const auto why = wrong_shape(locator); !why.empty()) {
      c.goes = false;
      c.leaves = why;
      c.text = fmt::format("{} at {}: {}", word, c.takes, why);
      return c;
    }
    if (locator.size <= 0 || c.most <= 0) {
      c.text = locator.size <= 0 ? fmt::format("{} at {}: say what it measures", word, c.takes)
                                 : fmt::format("{} at {}: that has no size in the drawing", word, c.takes);
      return c;
    }
    const double at_least = play(locator, c.least), at_most = play(locator, c.most);
    c.least_play = std::min(at_least, at_most);
    c.most_play = std::max(at_least, at_most);
    c.goes = c.least_play >= -1e-9;
    if (locator.kind == LocatorKind::collet) {
      c.leaves = c.goes ? "within its range" : "outside it by " + text(-c.least_play);
      c.text = fmt::format("collet {}, closes to {}, on {} {}: {}", text(locator.size),
                           text(locator.size - locator.closes), c.takes, between(c.least, c.most), c.leaves);
    } else {
      c.leaves = c.goes ? "play " + between(c.least_play, c.most_play)
                        : fmt::format("the tightest does not go, by {}", text(-c.least_play));
      c.text = fmt::format("{} {} {} {} {}: {}", word, text(locator.size),
                           locator.kind == LocatorKind::pin ? "in" : "over", c.takes,
                           between(c.least, c.most), c.leaves);
    }
    const auto* surface = build_.find<PartSurface>(locator.surface);
    const bool raw = surface && !surface->machined && stock::needs_touches(build_, surface->part);
    constexpr double spread_low = 0.2, spread_high = 0.3; // mm: castings of one pattern (common practice)
    if (raw)
      c.text += fmt::format("; as cast, pieces differ by {} to {}: read each", text(spread_low, 1),
                            text(spread_high, 1));
    for (const auto& [piece, record] : build_.pieces_of(part_of(locator.surface))) {
      const auto take = [&, id = piece, number = record.number](double size) {
        const double left = play(locator, size);
        c.pieces.push_back({id, number, size, left, left >= -1e-9});
      };
      if (raw) { // read across the rough piece
        for (const auto& [reading, r] : build_.sizes_of(piece))
          if (r.surface == locator.surface && r.other == 0) take(r.size);
      } else if (taken.dimension != 0) {
        const auto now = readings::size_now(build_, {taken.dimension, piece});
        if (now.read() && now.bound == Bound::exact) take(now.value);
      }
    }
    return c;
  }

  Id part_of(Id surface) const {
    const auto* s = build_.find<PartSurface>(surface);
    return s ? s->part : 0;
  }

  /// What keeps the part from turning about its first round locator: a stop at its arm, or the next locator
  /// with an axis of its own; the farthest.
  double arm(const Vec3& way) const {
    const PartSurface* about = nullptr;
    double far = 0;
    for (const auto& [id, locator] : build_.locators_of(fixture_)) {
      const auto* s = build_.find<PartSurface>(locator.surface);
      if (locator.kind == LocatorKind::stop) {
        far = std::max(far, locator.arm);
      } else if (s && s->round() && locator.kind != LocatorKind::pad) {
        if (!about) {
          about = s;
          continue;
        }
        const Vec3 off = s->point - about->point;
        far = std::max(far, (off - off.dot(way) * way).norm());
      }
    }
    return far;
  }

  /// What turns it most of all the operation makes.
  void torque(Id id) {
    const auto& o = *build_.find<Operation>(id);
    const auto* part = build_.find<Part>(o.part);
    const bool mouth = works_mouth(build_, o);
    if (o.kind != OperationKind::drill && !mouth) return;
    TorqueCheck most;
    most.operation = id;
    for (const auto& feature : features_to_make(build_, o.part)) {
      if (!makes(o, feature) || feature.across <= 0) continue;
      double across = o.size > 0 ? o.size : feature.across;
      if (const auto* body = build_.find<Body>(feature.body); mouth && body)
        across = std::max(across, solid::form_of(*body)[BodyRole::mouth_diameter]);
      const double moment = drilling_torque(part ? part->material : std::string(), across,
                                            mouth ? std::min(feature.across, across) : 0, options_.feed);
      if (moment <= most.moment) continue;
      most.moment = moment;
      most.arm = arm(feature.way);
    }
    if (most.moment <= 0) return;
    most.held = most.arm > 0;
    most.force = most.moment / (most.held ? most.arm : options_.wants_arm);
    const auto turns =
        fmt::format("{} turns it with {:.0f} N\u00B7mm", operation_text(build_, o), most.moment);
    most.text = most.held
                    ? fmt::format("{}: {:.0f} N at the stop, {} out", turns, most.force, text(most.arm, 1))
                    : fmt::format("{}, and nothing holds against that: a stop {} out would take {:.0f} N",
                                  turns, text(options_.wants_arm, 0), most.force);
    if (most.force > options_.by_hand) most.text += "; not by hand: clamp it";
    out_.torques.push_back(std::move(most));
  }

  void remarks() {
    if (out_.operations.empty()) out_.remarks.emplace_back("no operation needs it yet");
    if (out_.locators.empty()) {
      out_.remarks.emplace_back("nothing says where it takes hold of the part");
    } else {
      for (const Id id : out_.operations) {
        const auto* o = build_.find<Operation>(id);
        const auto* setup = o ? build_.find<Setup>(o->setup) : nullptr;
        if (!setup) continue;
        for (const Id datum : setup->datums) {
          const auto all = build_.locators_of(fixture_);
          const bool there = std::any_of(all.begin(), all.end(),
                                         [&](const auto& one) { return one.second.surface == datum; });
          const auto words = fmt::format("\"{}\" locates from {}, and no locator takes that", setup->name,
                                         surface_name(build_, datum));
          if (!there && std::find(out_.remarks.begin(), out_.remarks.end(), words) == out_.remarks.end())
            out_.remarks.push_back(words);
        }
      }
    }
    if (!out_.tried)
      out_.remarks.emplace_back("not tried yet: put a reject or a bit of scrap in before a good piece");
  }

  const Build& build_;
  Id fixture_;
  FixtureOptions options_;
  FixtureCheck out_;
};

} // namespace

FixtureCheck fixture_check(const Build& build, Id fixture, const FixtureOptions& options) {
  if (!build.find<Part>(fixture)) return {};
  return Check(build, fixture, options).run();
}

std::vector<Id> shop_made(const Build& build) {
  std::vector<Id> out;
  const auto needed = build.all<Operation>();
  for (const auto& [id, part] : build.parts()) {
    const bool any = std::any_of(needed.begin(), needed.end(), [&, part_id = id](const auto& o) {
      return contains(o.second.needs, part_id);
    });
    if (any || !build.locators_of(id).empty()) out.push_back(id);
  }
  return out;
}

std::vector<Id> fixtures_of(const Build& build, Id setup) {
  std::vector<Id> out;
  const auto* s = build.find<Setup>(setup);
  if (!s) return out;
  for (const auto& [id, o] : build.operations_of(s->part))
    if (o.setup == setup)
      for (const Id needed : o.needs)
        if (!contains(out, needed)) out.push_back(needed);
  return out;
}

std::map<Id, double> play_at_datums(const Build& build, const Setup& setup, Id setup_id) {
  std::map<Id, double> out;
  for (const Id fixture : fixtures_of(build, setup_id))
    for (const auto& [id, locator] : build.locators_of(fixture)) {
      if (!contains(setup.datums, locator.surface)) continue;
      const auto taken = taken_at(build, locator.surface);
      const double middle = (taken.least + taken.most) / 2, spans = 2 * std::sqrt(3.0);
      double play = 0;
      if (locator.kind == LocatorKind::pin && locator.size > 0) play = middle - locator.size;
      if (locator.kind == LocatorKind::nest && locator.size > 0) play = locator.size - middle;
      if (locator.kind == LocatorKind::v_block) play = (taken.most - taken.least) / std::sqrt(2.0);
      if (play > 0) out[locator.surface] = play / spans;
    }
  return out;
}

} // namespace datrin::route
