#include "chains/walk.h"

#include "geometry/between.h"

#include <fmt/format.h>

#include <cmath>
#include <deque>
#include <map>
#include <optional>

namespace datrin::chains {

using namespace build;

namespace {

constexpr double least_cosine = 0.05; // a plane nearly along the way does not measure it

/// Where a surface stands along `u`: a plane where a line along u meets it, a round surface its axis.
double place(const PartSurface& s, const Vec3& u) {
  return s.point.dot(u);
}

/// A dimension that leads on to another surface.
struct Edge {
  Id to = 0;
  Id dimension = 0;
  double coefficient = 0;
};

/// Dimensions of a part as a net between its surfaces, by what each measures along `u`.
using Net = std::map<Id, std::vector<Edge>>;

Net net_of(const Build& build, Id part, const Vec3& u) {
  Net net;
  for (const auto& [id, d] : build.dimensions_of(part)) {
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
  return net;
}

/// The shortest way through the net; nothing when none leads there.
std::optional<std::vector<Edge>> way_through(const Net& net, Id from, Id to) {
  std::map<Id, std::pair<Id, Edge>> came; // surface → from which, by which edge
  std::deque<Id> queue{from};
  came[from] = {};
  while (!queue.empty() && !came.contains(to)) {
    const Id at = queue.front();
    queue.pop_front();
    if (const auto edges = net.find(at); edges != net.end())
      for (const auto& edge : edges->second)
        if (came.emplace(edge.to, std::pair(at, edge)).second) queue.push_back(edge.to);
  }
  if (!came.contains(to)) return std::nullopt;
  std::vector<Edge> way;
  for (Id at = to; at != from; at = came[at].first) way.insert(way.begin(), came[at].second);
  return way;
}

/// What is walked, dimension by dimension.
class Terms {
public:
  void add(Id dimension, double coefficient, const std::string& why) {
    for (auto& term : terms_)
      if (term.dimension == dimension) {
        term.coefficient += coefficient;
        return;
      }
    terms_.push_back({dimension, 0, coefficient, why});
  }
  void add(const Edge& edge) {
    add(edge.dimension, edge.coefficient,
        std::abs(std::abs(edge.coefficient) - 1) > 1e-9 ? "at an angle to the way"
        : edge.coefficient > 0                          ? "along the way"
                                                        : "against the way");
  }
  /// What is left when there and back has cancelled.
  std::vector<ChainTerm> left() const {
    std::vector<ChainTerm> out;
    for (const auto& term : terms_)
      if (std::abs(term.coefficient) >= 1e-12) out.push_back(term);
    return out;
  }

private:
  std::vector<ChainTerm> terms_;
};

/// Half the diameter at one end of a stretch; empty, or what is missing on the drawing.
std::string add_flank(const Build& build, const Part& part, const WalkEnd& end, double sign, Terms& terms) {
  const auto& surface = *build.find<PartSurface>(end.surface);
  if (end.flank == Flank::none || !surface.round()) return {};
  for (const auto& [id, d] : build.dimensions_of(surface.part))
    if (d.kind == DimensionKind::size && d.surface == end.surface) {
      terms.add(id, (end.flank == Flank::far ? 0.5 : -0.5) * sign, "half the diameter");
      return {};
    }
  return fmt::format("{}: {} has no diameter on the drawing yet", part.name, surface.name);
}

/// The way as the part after sees it where two parts touch; nothing where the planes carry nothing over.
std::optional<Vec3> carried_over(const Vec3& u, const PartSurface& before, const PartSurface& after) {
  if (before.round() || after.round()) return u;
  const double along = u.dot(before.direction);
  if (std::abs(along) < least_cosine) return std::nullopt;
  return along > 0 ? Vec3(-after.direction) : Vec3(after.direction); // face to face
}

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
  Terms terms;
  for (std::size_t k = 0; k < in.steps.size(); ++k) {
    const auto& step = in.steps[k];
    const auto* part = build.find<Part>(step.part);
    const auto* from = build.find<PartSurface>(step.from.surface);
    const auto* to = build.find<PartSurface>(step.to.surface);
    if (part == nullptr || from == nullptr || to == nullptr || from->part != step.part ||
        to->part != step.part)
      return fail(fmt::format("stretch {}: choose a part and two of its surfaces", k + 1));
    if (k > 0 && in.steps[k - 1].part != step.part) {
      const auto* before = build.find<PartSurface>(in.steps[k - 1].to.surface);
      const auto on = carried_over(u, *before, *from);
      if (!on)
        return fail(fmt::format("stretch {}: {} lies along the way, so nothing is carried over there", k + 1,
                                before->name));
      u = *on;
    }
    out.along.push_back(u);
    if (auto missing = add_flank(build, *part, step.from, -1, terms); !missing.empty()) return fail(missing);
    const auto way = way_through(net_of(build, step.part, u), step.from.surface, step.to.surface);
    if (!way)
      return fail(fmt::format("{}: no dimension leads from {} to {}; add the distance between them in the "
                              "Drawing step",
                              part->name, from->name, to->name));
    for (const auto& edge : *way) terms.add(edge);
    if (auto missing = add_flank(build, *part, step.to, 1, terms); !missing.empty()) return fail(missing);
  }
  out.terms = terms.left();
  for (const auto& term : out.terms)
    out.nominal += term.coefficient * build.find<Dimension>(term.dimension)->nominal;
  if (out.terms.empty()) return fail("the walk came back to where it began: there is nothing between");
  out.ok = true;
  return out;
}

} // namespace datrin::chains
