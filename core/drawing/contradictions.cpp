#include "drawing/contradictions.h"

#include "drawing/sum_text.h"
#include "geometry/between.h"
#include "quantity/length_text.h"

#include <fmt/format.h>

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>
#include <map>
#include <queue>

namespace datrin::drawing {

using namespace build;

namespace {

bool along(const Vec3& a, const Vec3& b) {
  return std::abs(a.dot(b)) > 1 - 1e-9;
}

constexpr double square_within =
    4.5e-5; ///< sine: what a drawing has as square or parallel is so to some ten seconds of arc

std::optional<Between> span(const PartSurface& from, const PartSurface& to) {
  return between(from.shape(), to.shape(), square_within);
}

class Finder {
public:
  Finder(const Build& build, Id part, const ContradictionOptions& options)
      : build_(build), options_(options), dimensions_(build.dimensions_of(part)),
        surfaces_(build.surfaces_of(part)) {}

  std::vector<Contradiction> run() {
    against_the_drawing();
    round_loops();
    sums();
    edge_radii();
    corners();
    angles();
    walls();
    std::stable_sort(found_.begin(), found_.end(),
                     [](const auto& a, const auto& b) { return a.severity < b.severity; });
    return std::move(found_);
  }

private:
  std::string figure(double mm) const {
    return length_text(mm, options_.unit, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
  }
  void tell(Severity severity, std::string text, std::vector<Id> dimensions, std::vector<Id> surfaces = {}) {
    found_.push_back({severity, std::move(text), std::move(dimensions), std::move(surfaces)});
  }
  std::string name_of(Id surface) const {
    const auto* s = build_.find<PartSurface>(surface);
    return s ? s->name : std::string("?");
  }

  void against_the_drawing() {
    for (const auto& [id, d] : dimensions_) {
      if (d.kind != DimensionKind::size && d.kind != DimensionKind::distance) continue;
      const auto drawn = drawn_value(build_, d);
      if (!drawn) {
        if (d.surface != 0)
          tell(
              Severity::look,
              fmt::format("{} has no distance to give: its surfaces are not square on to each other", d.name),
              {id}, {d.surface, d.other});
        continue;
      }
      if (std::abs(*drawn - d.nominal) > options_.tolerance)
        tell(Severity::wrong,
             fmt::format("{} is {}, but the surfaces are drawn {} {}", d.name, figure(d.nominal),
                         d.kind == DimensionKind::size ? "as" : "apart by", figure(*drawn)),
             {id}, {d.surface, d.other});
    }
  }

  /// Distances along one line that go round in a loop and do not close.
  void round_loops() {
    struct Edge {
      std::size_t dimension;
      Id from, to;
      double step; ///< of `to` beyond `from`
    };
    std::vector<std::pair<Vec3, std::vector<Edge>>> lines;
    for (std::size_t k = 0; k < dimensions_.size(); ++k) {
      const auto& d = dimensions_[k].second;
      if (d.kind != DimensionKind::distance) continue;
      const auto *a = build_.find<PartSurface>(d.surface), *b = build_.find<PartSurface>(d.other);
      if (a == nullptr || b == nullptr) continue;
      const auto s = span(*a, *b);
      if (!s) continue;
      auto line = std::find_if(lines.begin(), lines.end(),
                               [&](const auto& l) { return along(l.first, s->direction); });
      if (line == lines.end()) line = lines.insert(lines.end(), {s->direction, {}});
      line->second.push_back({k, d.surface, d.other, s->signed_distance < 0 ? -d.nominal : d.nominal});
    }
    for (const auto& [direction, edges] : lines) {
      std::map<Id, double> place;
      std::map<Id, std::pair<Id, std::size_t>> came; // from where, by which edge
      std::vector<char> used(edges.size(), 0);
      for (std::size_t first = 0; first < edges.size(); ++first) {
        if (place.contains(edges[first].from)) continue;
        place[edges[first].from] = 0;
        std::queue<Id> open;
        open.push(edges[first].from);
        while (!open.empty()) {
          const Id at = open.front();
          open.pop();
          for (std::size_t e = 0; e < edges.size(); ++e) {
            if (used[e] || (edges[e].from != at && edges[e].to != at)) continue;
            used[e] = 1;
            const Id next = edges[e].from == at ? edges[e].to : edges[e].from;
            const double there = place[at] + (edges[e].from == at ? edges[e].step : -edges[e].step);
            if (!place.contains(next)) {
              place[next] = there;
              came[next] = {at, e};
              open.push(next);
              continue;
            }
            const double miss = there - place[next];
            if (std::abs(miss) <= options_.tolerance) continue;
            std::vector<Id> round{dimensions_[edges[e].dimension].first};
            std::string names = dimensions_[edges[e].dimension].second.name;
            // The two ways from where they parted.
            const auto trail = [&](Id from) {
              std::vector<std::size_t> steps;
              for (auto c = came.find(from); c != came.end(); c = came.find(c->second.first))
                steps.push_back(c->second.second);
              return steps;
            };
            auto one = trail(at), two = trail(next);
            while (!one.empty() && !two.empty() && one.back() == two.back()) {
              one.pop_back();
              two.pop_back();
            }
            one.insert(one.end(), two.begin(), two.end());
            for (const auto step : one) {
              names += ", " + dimensions_[edges[step].dimension].second.name;
              round.push_back(dimensions_[edges[step].dimension].first);
            }
            tell(Severity::wrong,
                 fmt::format("{} go round in a loop and miss by {}", names, figure(std::abs(miss))), round);
          }
        }
      }
    }
  }

  void sums() {
    std::vector<std::string> names;
    for (const auto& [id, d] : dimensions_) names.push_back(d.name);
    LengthOptions reading;
    reading.bare_unit = options_.unit;
    for (std::size_t k = 0; k < dimensions_.size(); ++k) {
      const auto& [id, d] = dimensions_[k];
      if (d.sum.empty()) continue;
      const auto sum = parse_sum(d.sum, names, reading);
      if (!sum.ok) {
        tell(Severity::look, fmt::format("{}: the sum \"{}\" cannot be read: {}", d.name, d.sum, sum.message),
             {id});
        continue;
      }
      double total = 0;
      std::vector<Id> concerned{id};
      for (const auto& term : sum.terms) {
        total += term.count * (term.dimension < 0
                                   ? term.mm
                                   : dimensions_[static_cast<std::size_t>(term.dimension)].second.nominal);
        if (term.dimension >= 0)
          concerned.push_back(dimensions_[static_cast<std::size_t>(term.dimension)].first);
      }
      if (std::abs(total - d.nominal) > options_.tolerance)
        tell(Severity::wrong,
             fmt::format("{} is {}, but {} makes {}", d.name, figure(d.nominal), d.sum, figure(total)),
             concerned);
    }
  }

  void edge_radii() {
    for (const auto& [id, d] : dimensions_) {
      if (d.kind != DimensionKind::edge_radius) continue;
      const auto *a = build_.find<PartSurface>(d.surface), *b = build_.find<PartSurface>(d.other);
      const auto s = a && b ? span(*a, *b) : std::nullopt;
      if (!s) continue;
      const double half = std::abs(s->signed_distance) / 2;
      if (std::abs(half - d.nominal) > options_.tolerance)
        tell(Severity::wrong,
             fmt::format("{} is {}, but a full round between {} and {} is half their distance, {}", d.name,
                         figure(d.nominal), name_of(d.surface), name_of(d.other), figure(half)),
             {id}, {d.surface, d.other});
    }
  }

  void corners() {
    for (const auto& [id, d] : dimensions_)
      if (d.kind == DimensionKind::corner_radius && d.cutter > d.most() + options_.tolerance)
        tell(Severity::wrong,
             fmt::format("{} allows a corner of {}, the cutter leaves {}", d.name, figure(d.most()),
                         figure(d.cutter)),
             {id});
  }

  void angles() {
    for (const auto& [id, d] : dimensions_) {
      if (d.kind != DimensionKind::angle) continue;
      double meant = -1; // what the rest of the drawing says the angle is
      std::string by;
      if (d.run > 0 && d.rise > 0) {
        meant = std::atan2(d.rise, d.run);
        by = fmt::format("{} up over {}", figure(d.rise), figure(d.run));
      } else if (const auto drawn = drawn_value(build_, d)) {
        meant = *drawn;
        by = fmt::format("{} and {} as drawn", name_of(d.surface), name_of(d.other));
      }
      if (meant < 0) continue;
      const double off = std::abs(meant - d.nominal), off_complement = std::abs(meant - (pi / 2 - d.nominal));
      const double near = std::max(radians(0.5), std::max(std::abs(d.lower), std::abs(d.upper)));
      if (off <= near) continue;
      const auto degree = [](double a) { return number_text(degrees(a), 2) + "\u00B0"; };
      if (off_complement <= near) {
        const auto legs = angle_legs(d.nominal, d.run);
        std::string text = fmt::format("{} is {}, but {} makes {}: its complement was probably meant", d.name,
                                       degree(d.nominal), by, degree(meant));
        if (d.run > 0)
          text += fmt::format(" ({} over {} climbs {}, {} climbs {})", degree(legs.angle), figure(d.run),
                              figure(legs.leg), degree(legs.complement), figure(legs.other_leg));
        tell(Severity::wrong, text, {id}, {d.surface, d.other});
      } else {
        tell(Severity::wrong,
             fmt::format("{} is {}, but {} makes {}", d.name, degree(d.nominal), by, degree(meant)), {id},
             {d.surface, d.other});
      }
    }
  }

  /// Metal left between a bore and its neighbours.
  void walls() {
    for (const auto& [bore_id, bore] : surfaces_) {
      if (!is_hole(bore.kind) || bore.diameter <= 0) continue;
      for (const auto& [id, other] : surfaces_) {
        if (id == bore_id) continue;
        double wall = 0;
        if (!other.round()) {
          if (std::abs(other.direction.dot(bore.direction)) > 1e-6) continue;
          wall = (other.point - bore.point).dot(other.direction) - bore.diameter / 2;
          if (wall < -bore.diameter) continue; // another part of the casting
          if (!reaches_bore(other, bore)) continue;
        } else if (along(other.direction, bore.direction)) {
          const Vec3 off = other.point - bore.point;
          const Vec3 sideways = off - off.dot(bore.direction) * bore.direction;
          if (std::abs(off.dot(bore.direction)) > (bore.height + other.height) / 2 && bore.height > 0 &&
              other.height > 0)
            continue;
          if (is_outside(other.kind)) {
            if (sideways.norm() > other.diameter / 2) continue;
            wall = other.diameter / 2 - sideways.norm() - bore.diameter / 2;
          } else {
            if (bore_id > id) continue; // once a pair
            // Holes with one axis are a stepped hole, not a wall.
            if (sideways.norm() < 1e-9) continue;
            wall = sideways.norm() - bore.diameter / 2 - other.diameter / 2;
          }
        } else {
          continue;
        }
        if (wall <= options_.tolerance)
          tell(Severity::wrong,
               fmt::format("no metal is left between {} and {} ({})", bore.name, other.name, figure(wall)),
               {}, {bore_id, id});
        else if (wall < 0.1 * bore.diameter)
          tell(Severity::look,
               fmt::format("only {} is left between {} and {}, a tenth of the bore or less", figure(wall),
                           bore.name, other.name),
               {}, {bore_id, id});
      }
    }
  }

  /// Whether a plane's patch reaches to where the bore is.
  static bool reaches_bore(const PartSurface& plane, const PartSurface& bore) {
    const auto [u, v] = patch_directions(plane.direction);
    const Vec3 off = bore.point - plane.point;
    const double along_u = std::abs(off.dot(u)), along_v = std::abs(off.dot(v));
    const double reach_u = std::abs(bore.direction.dot(u)) * bore.height / 2,
                 reach_v = std::abs(bore.direction.dot(v)) * bore.height / 2;
    return (plane.width <= 0 || along_u < plane.width / 2 + reach_u) &&
           (plane.height <= 0 || along_v < plane.height / 2 + reach_v);
  }

  const Build& build_;
  ContradictionOptions options_;
  List<Dimension> dimensions_;
  List<PartSurface> surfaces_;
  std::vector<Contradiction> found_;
};

} // namespace

std::vector<Contradiction> contradictions(const Build& build, Id part, const ContradictionOptions& options) {
  return Finder(build, part, options).run();
}

AngleLegs angle_legs(double angle, double run) {
  const double complement = pi / 2 - angle;
  return {angle, complement, run * std::tan(angle), run * std::tan(complement)};
}

std::optional<double> drawn_value(const Build& build, const Dimension& d) {
  const auto *a = build.find<PartSurface>(d.surface), *b = build.find<PartSurface>(d.other);
  if (d.kind == DimensionKind::size) return a && a->round() ? std::optional(a->diameter) : std::nullopt;
  if (a == nullptr || b == nullptr) return std::nullopt;
  if (d.kind == DimensionKind::angle) {
    if (a->round() || b->round()) return std::nullopt;
    const double between = std::acos(std::clamp(a->direction.dot(b->direction), -1.0, 1.0));
    return between > pi / 2 ? pi - between : between; // the acute one, as drawings write it
  }
  const auto s = span(*a, *b);
  if (!s) return std::nullopt;
  return d.kind == DimensionKind::edge_radius ? std::abs(s->signed_distance) / 2
                                              : std::abs(s->signed_distance);
}

} // namespace datrin::drawing
