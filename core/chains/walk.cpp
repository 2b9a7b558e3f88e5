#include "chains/walk.h"

#include "geometry/between.h"

#include <fmt/format.h>

#include <cmath>
#include <deque>
#include <map>

namespace datrin::chains {

using namespace build;

namespace {

constexpr double least_cosine = 0.05; // a plane nearly along the way does not measure it

/// Where a surface stands along `u`: a plane where a line along u meets it, a round surface its axis.
double place(const PartSurface& s, const Vec3& u) {
  return s.point.dot(u);
}

struct Edge {
  Id to;
  Id dimension;
  double coefficient;
};

} // namespace

WalkResult walk(const Build& build, const WalkInput& in) {
  WalkResult out;
  const auto fail = [&](std::string why) {
    out.message = std::move(why);
    return out;
  };
  if (in.steps.empty()) return fail("choose the first feature of the chain");
  if (!(in.along.norm() > 1e-9)) return fail("say which way the gap is counted");
  Vec3 u = in.along.normalized();
  std::vector<ChainTerm> terms;
  const auto add = [&](Id dimension, double coefficient, const std::string& why) {
    for (auto& term : terms)
      if (term.dimension == dimension) {
        term.coefficient += coefficient;
        return;
      }
    terms.push_back({dimension, 0, coefficient, why});
  };
  for (std::size_t k = 0; k < in.steps.size(); ++k) {
    const auto& step = in.steps[k];
    const auto* part = build.find<Part>(step.part);
    const auto* from = build.find<PartSurface>(step.from);
    const auto* to = build.find<PartSurface>(step.to);
    if (part == nullptr || from == nullptr || to == nullptr || from->part != step.part ||
        to->part != step.part)
      return fail(fmt::format("stretch {}: choose a part and two of its surfaces", k + 1));
    if (k > 0 && in.steps[k - 1].part != step.part) { // carry the way over from the part before
      const auto* before = build.find<PartSurface>(in.steps[k - 1].to);
      if (!before->round() && !from->round()) {
        const double along = u.dot(before->direction);
        if (std::abs(along) < least_cosine)
          return fail(fmt::format("stretch {}: {} lies along the way, so nothing is carried over there",
                                  k + 1, before->name));
        u = along > 0 ? Vec3(-from->direction) : Vec3(from->direction); // face to face
      }
    }
    out.along.push_back(u);
    // Dimensions of the part as a net between its surfaces; the shortest way through it is taken.
    std::map<Id, std::vector<Edge>> net;
    const auto diameter_of = [&](Id surface) -> Id {
      for (const auto& [id, d] : build.dimensions_of(step.part))
        if (d.kind == DimensionKind::size && d.surface == surface) return id;
      return 0;
    };
    for (const auto& [id, d] : build.dimensions_of(step.part)) {
      if (d.kind != DimensionKind::distance) continue;
      const auto* a = build.find<PartSurface>(d.surface);
      const auto* b = build.find<PartSurface>(d.other);
      if (a == nullptr || b == nullptr) continue;
      const double per = along_per_distance(a->shape(), b->shape(), u);
      const double way = place(*b, u) - place(*a, u);
      if (per <= 0 || std::abs(way) < 1e-9) continue;
      const double sign = way > 0 ? 1 : -1;
      net[d.surface].push_back({d.other, id, sign * per});
      net[d.other].push_back({d.surface, id, -sign * per});
    }
    if (step.from_flank && from->round()) {
      const Id id = diameter_of(step.from);
      if (id == 0)
        return fail(fmt::format("{}: {} has no diameter on the drawing yet", part->name, from->name));
      add(id, -0.5 * step.from_side, "half the diameter");
    }
    if (step.from != step.to) {
      std::map<Id, std::pair<Id, Edge>> came; // surface → from which, by which edge
      std::deque<Id> queue{step.from};
      came[step.from] = {0, {0, 0, 0}};
      while (!queue.empty() && !came.contains(step.to)) {
        const Id at = queue.front();
        queue.pop_front();
        for (const auto& edge : net[at])
          if (!came.contains(edge.to)) {
            came[edge.to] = {at, edge};
            queue.push_back(edge.to);
          }
      }
      if (!came.contains(step.to))
        return fail(fmt::format("{}: no dimension leads from {} to {}; add the distance between them in the "
                                "Drawing step",
                                part->name, from->name, to->name));
      std::vector<Edge> back;
      for (Id at = step.to; at != step.from; at = came[at].first) back.push_back(came[at].second);
      for (auto edge = back.rbegin(); edge != back.rend(); ++edge)
        add(edge->dimension, edge->coefficient,
            std::abs(std::abs(edge->coefficient) - 1) > 1e-9 ? "at an angle to the way"
            : edge->coefficient > 0                          ? "along the way"
                                                             : "against the way");
    }
    if (step.to_flank && to->round()) {
      const Id id = diameter_of(step.to);
      if (id == 0)
        return fail(fmt::format("{}: {} has no diameter on the drawing yet", part->name, to->name));
      add(id, 0.5 * step.to_side, "half the diameter");
    }
  }
  for (const auto& term : terms) {
    if (std::abs(term.coefficient) < 1e-12) continue;
    out.terms.push_back(term);
    out.nominal += term.coefficient * build.find<Dimension>(term.dimension)->nominal;
  }
  if (out.terms.empty()) return fail("the walk came back to where it began: there is nothing between");
  out.ok = true;
  return out;
}

} // namespace datrin::chains
