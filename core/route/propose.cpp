#include "route/propose.h"

#include "allowance/ladder.h"
#include "build/rows.h"
#include "build/words.h"
#include "casting/first_datum.h"
#include "quantity/length_text.h"
#include "route/datum_input.h"
#include "route/plan_route.h"
#include "route/suggest_setups.h"
#include "stock/part_stock.h"
#include "threads/threads.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <tuple>

namespace datrin::route {

using namespace build;

namespace {

constexpr double close = 0.05;    ///< mm between the limits of a hole: closer is reamed or bored, not drilled
constexpr double bored_from = 13; ///< mm: a close hole of that size and more is bored (common practice)
constexpr double slit_to = 0.8;   ///< mm: a slot as narrow is slit with a saw
constexpr double same_drill = 0.03; ///< mm: a drill of the shop serves for one so near

/// The tool of the shop that is the size, the nearest; 0: none.
Id tool_of(const Build& build, ToolKind kind, double size, double near) {
  Id best = 0;
  double nearest = near;
  for (const auto& [id, tool] : build.tools())
    if (tool.kind == kind && std::abs(tool.size - size) <= nearest) {
      nearest = std::abs(tool.size - size);
      best = id;
    }
  return best;
}

/// The feature is its body, with all its walls; a face of added metal is not.
bool is_its_body(const Feature& f) {
  const bool face =
      f.shape == FeatureShape::plane || f.shape == FeatureShape::round || f.shape == FeatureShape::taper;
  return f.body != 0 && (f.surfaces.empty() || !face);
}

class Making {
public:
  Making(const Build& build, Id part, const Feature& feature)
      : build_(build), part_(part), feature_(feature) {}

  std::vector<Operation> operations() {
    switch (feature_.shape) {
    case FeatureShape::plane:
      add(OperationKind::face);
      break;
    case FeatureShape::round:
    case FeatureShape::taper:
    case FeatureShape::groove:
      add(OperationKind::turn);
      break;
    case FeatureShape::profile:
      add(is_turned_body() ? OperationKind::turn : OperationKind::mill);
      break;
    case FeatureShape::hole:
      hole();
      break;
    case FeatureShape::taper_hole:
      if (feature_.from_solid) drills(feature_.across, allowance::HoleMade::bored);
      add(OperationKind::bore);
      break;
    case FeatureShape::slot:
      if (feature_.across > 0 && feature_.across <= slit_to)
        add(OperationKind::slit, feature_.across);
      else
        add(OperationKind::mill, feature_.across);
      break;
    case FeatureShape::pocket:
      add(OperationKind::mill);
      break;
    case FeatureShape::keyway:
      add(OperationKind::broach, feature_.across);
      break;
    case FeatureShape::edges:
      add(OperationKind::file);
      break;
    case FeatureShape::mark:
      add(OperationKind::mark);
      break;
    }
    last_step();
    return std::move(out_);
  }

private:
  Operation& add(OperationKind kind, double size = 0) {
    Operation o;
    o.part = part_;
    o.kind = kind;
    o.surfaces = feature_.surfaces;
    if (is_its_body(feature_)) o.bodies = {feature_.body};
    o.size = size;
    o.minutes = usual_minutes(kind) * (per_copy(kind) ? feature_.copies : 1);
    if (kind == OperationKind::drill) o.tool = tool_of(build_, ToolKind::drill, size, same_drill);
    if (kind == OperationKind::ream) o.tool = tool_of(build_, ToolKind::reamer, size, same_drill);
    out_.push_back(std::move(o));
    return out_.back();
  }
  static bool per_copy(OperationKind kind) {
    return kind == OperationKind::drill || kind == OperationKind::ream || kind == OperationKind::tap ||
           kind == OperationKind::mark || kind == OperationKind::bore || kind == OperationKind::slit;
  }
  bool is_turned_body() const {
    const auto* body = build_.find<Body>(feature_.body);
    return body != nullptr && (body->shape == BodyShape::round || body->shape == BodyShape::cone ||
                               body->shape == BodyShape::tube || body->shape == BodyShape::turned);
  }

  void drills(double size, allowance::HoleMade made) {
    allowance::LadderInput in;
    in.made = made;
    in.size = size;
    in.drills = build_.info().unit;
    const auto ladder = allowance::drill_ladder(in);
    for (const auto& step : ladder.drills) add(OperationKind::drill, step.size);
  }

  void hole() {
    const auto* body = build_.find<Body>(feature_.body);
    const auto making = body != nullptr && body->shape == BodyShape::hole ? body->making : HoleMaking::bored;
    const double size = feature_.across;
    if (!feature_.from_solid || making == HoleMaking::cored) {
      add(OperationKind::bore);
      return;
    }
    const bool fine = making == HoleMaking::drilled && closest_limits() < close;
    if (making == HoleMaking::reamed || (fine && size < bored_from)) {
      drills(size, allowance::HoleMade::reamed);
      add(OperationKind::ream, size);
    } else if (making == HoleMaking::bored || fine) {
      drills(size, allowance::HoleMade::bored);
      add(OperationKind::bore);
    } else {
      drills(size, allowance::HoleMade::drilled);
      if (making == HoleMaking::tapped) {
        const auto found = threads::find(body->thread);
        add(OperationKind::tap, found.thread ? found.thread->major : 0);
      }
    }
    if (body == nullptr || body->shape != BodyShape::hole) return;
    if (body->mouth == HoleMouth::counterbored || body->mouth == HoleMouth::spot_faced)
      named(add(OperationKind::mill), "counterbore ");
    if (body->mouth == HoleMouth::countersunk) named(add(OperationKind::drill), "countersink ");
  }
  void named(Operation& o, const char* what) const { o.name = what + feature_.name; }

  double closest_limits() const {
    double least = 1e300;
    for (const auto& [id, d] : build_.dimensions_of(part_))
      if (d.kind == DimensionKind::size && contains(feature_.surfaces, d.surface) && d.has_limits())
        least = std::min(least, d.upper - d.lower);
    return least;
  }

  /// What the allowance keeps for the end.
  void last_step() {
    for (const Id surface : feature_.surfaces)
      for (const auto& [piece, unused] : build_.pieces_of(part_)) {
        const auto allowance = build_.allowance_of(piece, surface);
        if (!allowance) continue;
        const auto step = allowance->second.last_step;
        const auto kind = step == LastStep::ream  ? OperationKind::ream
                          : step == LastStep::lap ? OperationKind::lap
                                                  : OperationKind::trial;
        if (step == LastStep::none ||
            std::any_of(out_.begin(), out_.end(), [&](const auto& o) { return o.kind == kind; }))
          continue;
        add(kind, kind == OperationKind::ream ? feature_.across : 0);
        return;
      }
  }

  const Build& build_;
  Id part_;
  const Feature& feature_;
  std::vector<Operation> out_;
};

bool reached_from(const Feature& f, const Vec3& way) {
  constexpr double along = 0.95; // cosine
  const double cosine = f.way.dot(way);
  return cosine > along || (f.both_ways && cosine < -along);
}

} // namespace

Edit toggle_feature(const Build& build, Id operation, const Feature& feature) {
  const auto* o = build.find<Operation>(operation);
  if (!o) return build::is_gone();
  auto changed = *o;
  const bool was = makes(changed, feature);
  std::erase_if(changed.surfaces, [&](Id id) { return contains(feature.surfaces, id); });
  std::erase(changed.bodies, feature.body);
  if (!was) {
    changed.surfaces.insert(changed.surfaces.end(), feature.surfaces.begin(), feature.surfaces.end());
    if (is_its_body(feature)) changed.bodies.push_back(feature.body);
  }
  return replace(build, operation, changed, "What " + operation_text(build, *o) + " makes");
}

double usual_minutes(OperationKind kind) {
  switch (kind) {
  case OperationKind::face:
    return 8;
  case OperationKind::turn:
    return 10;
  case OperationKind::mill:
    return 12;
  case OperationKind::slit:
  case OperationKind::file:
    return 10;
  case OperationKind::drill:
    return 3;
  case OperationKind::bore:
  case OperationKind::grind:
  case OperationKind::lap:
    return 15;
  case OperationKind::ream:
    return 2;
  case OperationKind::tap:
    return 4;
  case OperationKind::broach:
  case OperationKind::trial:
    return 20;
  case OperationKind::press:
  case OperationKind::transfer:
  case OperationKind::mark:
  case OperationKind::deburr:
    return 5;
  case OperationKind::wait:
  case OperationKind::sent_out:
    break;
  }
  return 0;
}

std::vector<Operation> operations_for(const Build& build, Id part, const Feature& feature) {
  return Making(build, part, feature).operations();
}

std::vector<Feature> unmade(const Build& build, Id part) {
  auto features = features_to_make(build, part);
  const auto operations = build.operations_of(part);
  std::erase_if(features, [&](const Feature& f) {
    return std::any_of(operations.begin(), operations.end(),
                       [&](const auto& entry) { return makes(entry.second, f); });
  });
  return features;
}

Vec3 way_of_setup(const Build& build, const Setup& setup) {
  if (!setup.way.isZero()) return setup.way.normalized();
  const auto* stand = setup.datums.empty() ? nullptr : build.find<PartSurface>(setup.datums.front());
  if (stand != nullptr && !stand->round()) return -stand->direction.normalized();
  if (stand != nullptr) {
    const auto* end = setup.datums.size() > 1 ? build.find<PartSurface>(setup.datums[1]) : nullptr;
    if (end != nullptr && !end->round()) return -end->direction.normalized();
    return stand->direction.normalized();
  }
  // By what it cuts: a face looks the way the tool comes from.
  for (const Id id : setup.cuts)
    if (const auto* s = build.find<PartSurface>(id)) return s->direction.normalized();
  return Vec3::Zero();
}

Id setup_reaching(const Build& build, Id part, const Feature& feature) {
  const auto setups = build.setups_of(part);
  for (const auto& [id, setup] : setups)
    for (const Id surface : feature.surfaces)
      if (contains(setup.cuts, surface)) return id;
  for (const auto& [id, setup] : setups)
    for (const Id surface : feature.surfaces)
      if (contains(setup.marks, surface)) return id;
  for (const auto& [id, setup] : setups) {
    const Vec3 way = way_of_setup(build, setup);
    if (!way.isZero() && reached_from(feature, way)) return id;
  }
  return 0;
}

Edit propose_deburring(const Build& build, Id part) {
  Rows rows(build);
  double order = next_order(build.operations_of(part));
  // A burr moves what is touched off it next by 0.5 mm and more, and what it is stood on (common practice).
  for (const auto& [id, setup] : rows.build().setups_of(part)) {
    const auto here = rows.build().operations_of(part);
    const auto in_it = [&](OperationKind kind, bool wanted) {
      return std::any_of(here.begin(), here.end(), [&, in = id](const auto& entry) {
        return entry.second.setup == in && (entry.second.kind == kind) == wanted;
      });
    };
    if (!in_it(OperationKind::deburr, false) || in_it(OperationKind::deburr, true)) continue;
    Operation o;
    o.part = part;
    o.kind = OperationKind::deburr;
    o.setup = id;
    o.minutes = usual_minutes(o.kind);
    o.order = order++;
    rows.add(o);
  }
  return rows.edit("Take the burrs off");
}

Edit propose_operations(const Build& build, Id part) {
  if (!build.find<Part>(part)) return build::is_gone();
  Rows rows(build);
  if (build.setups_of(part).empty())
    for (auto& setup : suggest_setups(build, part, usual_first_datums(build, part))) rows.add(setup);
  double order = next_order(build.operations_of(part));
  bool any = false;
  for (const auto& feature : unmade(build, part)) {
    const Id setup = setup_reaching(rows.build(), part, feature);
    for (auto& o : operations_for(rows.build(), part, feature)) {
      const bool bench =
          o.kind == OperationKind::file || o.kind == OperationKind::lap || o.kind == OperationKind::trial;
      o.setup = bench ? 0 : setup;
      o.order = order++;
      rows.add(o);
      any = true;
    }
  }
  if (!any) return build::cannot("the part has no faces and holes to make yet: draw it first");
  rows.apply(propose_deburring(rows.build(), part));
  rows.apply(take_best_order(rows.build(), part, {}));
  return rows.edit("Propose operations");
}

std::string operation_text(const Build& build, const Operation& operation) {
  if (!operation.name.empty()) return operation.name;
  std::string text(words_of<OperationKind>().first[static_cast<std::size_t>(operation.kind)]);
  const bool sized = operation.kind == OperationKind::drill || operation.kind == OperationKind::ream ||
                     operation.kind == OperationKind::tap || operation.kind == OperationKind::slit;
  if (sized && operation.size > 0)
    text += " " + length_text(operation.size, build.info().unit, {.decimals_mm = 2, .show_unit = true});
  if (operation.kind == OperationKind::deburr && operation.surfaces.empty() && operation.bodies.empty())
    return "take the burrs off";
  std::string what;
  const auto name = [&](const std::string& n) { what += (what.empty() ? " " : ", ") + n; };
  constexpr std::size_t most = 3;
  // Copies of a pattern are told by the first and how many there are: "bolt holes (4)".
  std::vector<std::pair<std::string, int>> told;
  std::map<std::tuple<Id, BodyFace, int>, std::size_t> first;
  for (const Id id : operation.surfaces) {
    const auto* s = build.find<PartSurface>(id);
    if (!s) continue;
    const std::tuple of{s->body, s->face, s->profile_place};
    const auto known = s->body != 0 ? first.find(of) : first.end();
    if (known != first.end()) {
      ++told[known->second].second;
      continue;
    }
    if (s->body != 0) first[of] = told.size();
    told.emplace_back(s->name, 1);
  }
  for (std::size_t k = 0; k < told.size() && k < most; ++k)
    name(told[k].second > 1 ? fmt::format("{} ({})", told[k].first, told[k].second) : told[k].first);
  if (told.size() > most) what += fmt::format(" and {} more", told.size() - most);
  if (operation.surfaces.empty())
    for (const Id id : operation.bodies)
      if (const auto* body = build.find<Body>(id)) name(body->name);
  // "bore bore": what is called as what is done to it.
  if (what == " " + text) return text + " it";
  return text + what;
}

} // namespace datrin::route
