#include "route/part_spread.h"

#include "build/edits.h"
#include "build/words.h"
#include "geometry/between.h"
#include "quantity/length_text.h"
#include "readings/size_now.h"
#include "route/fixture.h"
#include "route/locating.h"
#include "stock/part_stock.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace datrin::route {

using namespace build;

namespace {

constexpr double parallel = 0.999; ///< cosine

/// Something asked of the part: a distance with limits, or two rounds about one axis across it.
struct Asked {
  SpreadOf of = SpreadOf::distance;
  Id dimension = 0, tolerance = 0, from = 0, to = 0;
  double allowed = 0;
  double over = 0;
  std::size_t first = 0, count = 1; ///< requirements it is the worst of
};

class OfPart {
public:
  OfPart(const Build& build, Id part, const PartSpreadOptions& options, Id piece)
      : build_(build), part_(part), options_(options), piece_(piece) {}

  PartSpread run() {
    features();
    if (patches_.empty() || build_.setups_of(part_).empty()) return std::move(out_);
    setups(false, &out_);
    distances();
    tolerances();
    coaxial();
    square();
    const auto found = spread(in_);
    if (!found.usable()) {
      out_.remarks.push_back(found.message);
      return std::move(out_);
    }
    setups(true, nullptr);
    const auto stopped = spread(in_);
    for (const auto& one : asked_) answer(one, found, stopped);
    std::stable_sort(out_.dimensions.begin(), out_.dimensions.end(),
                     [](const DimensionSpread& a, const DimensionSpread& b) { return worst(a) > worst(b); });
    return std::move(out_);
  }

private:
  static double worst(const DimensionSpread& s) {
    if (s.measured) return -2;
    if (s.of != SpreadOf::distance && s.allowed <= 0)
      return -1 + s.sigma / (1 + s.sigma); // nothing is asked: after those with limits
    return s.allowed > 0 ? s.expected() / s.allowed : 1e300;
  }
  const Patch& patch(int k) const { return patches_[static_cast<std::size_t>(k)]; }

  void features() {
    const bool cast = stock::needs_touches(build_, part_);
    for (const auto& [id, patch] : stock::patches_of(build_, part_)) {
      const auto* s = build_.find<PartSurface>(id);
      if (!s) continue;
      index_[id] = static_cast<int>(patches_.size());
      patches_.push_back(patch);
      in_.features.push_back({s->name, s->round(), patch.shape.point, patch.shape.direction.normalized(),
                              cast ? options_.raw_cast : options_.raw_stock});
    }
    touched_off_ = static_cast<int>(in_.features.size());
    in_.features.push_back({"", false, Vec3::Zero(), Vec3::UnitZ(), 0});
  }

  void setups(bool all_with_stop, PartSpread* told) {
    in_.setups.clear();
    Locating locating(patches_, index_, options_, touched_off_);
    for (const auto& [id, setup] : build_.setups_of(part_)) {
      std::string missing;
      const auto* machine = build_.find<Machine>(setup.machine);
      const double seating = machine && machine->seating > 0 ? machine->seating : options_.seating;
      const double cutting = machine && machine->cutting > 0 ? machine->cutting : options_.cutting;
      SpreadSetup one{setup.name,
                      locating.of(setup.datums, setup.stop || all_with_stop || has_stop(id), seating,
                                  play_at_datums(build_, setup, id), missing),
                      {}};
      if (told && !missing.empty())
        told->remarks.push_back(fmt::format("{}: nothing locates it {}; taken as {}", setup.name, missing,
                                            setup.stop ? "put against the stop" : "touched off"));
      for (const auto* list : {&setup.marks, &setup.cuts})
        for (const Id cut : *list)
          if (const auto at = index_.find(cut); at != index_.end()) {
            one.cuts.push_back({at->second, cutting});
            cut_in_[cut] = in_.setups.size();
            cut_within_[cut] = cutting;
          }
      if (told) told->setups.push_back(id);
      in_.setups.push_back(std::move(one));
    }
  }

  void distances() {
    for (const auto& [id, d] : build_.dimensions_of(part_)) {
      const auto a = index_.find(d.surface), b = index_.find(d.other);
      if (d.kind != DimensionKind::distance || !d.has_limits() || a == index_.end() || b == index_.end())
        continue;
      const auto &from = patch(a->second), &to = patch(b->second);
      const auto apart = between(from.shape, to.shape);
      if (!apart) continue;
      asked_.push_back({SpreadOf::distance, id, 0, d.surface, d.other, (d.upper - d.lower) / 2, 0,
                        in_.requirements.size(), 1});
      require(d.surface, d.other, apart->direction, (from.shape.point + to.shape.point) / 2);
    }
  }

  void require(Id from, Id to, const Vec3& along, const Vec3& at, std::optional<Vec3> lean_from = {}) {
    in_.requirements.push_back({"", index_[from], index_[to], along, at, lean_from});
    between_.emplace_back(from, to);
  }
  /// A stop of the fixture the part is held in there.
  bool has_stop(Id setup) const {
    for (const Id fixture : fixtures_of(build_, setup))
      for (const auto& [id, locator] : build_.locators_of(fixture))
        if (locator.kind == LocatorKind::stop) return true;
    return false;
  }
  bool is_asked(SpreadOf of, Id a, Id b) const {
    return std::any_of(asked_.begin(), asked_.end(), [&](const Asked& one) {
      return one.of == of && ((one.from == a && one.to == b) || (one.from == b && one.to == a));
    });
  }

  void tolerances() {
    for (const auto& [id, t] : build_.tolerances_of(part_)) {
      if (!index_.contains(t.surface) || t.within <= 0) continue;
      const auto first = in_.requirements.size();
      double over = 0; // mm: of a lean
      const auto& s = patch(index_[t.surface]).shape;
      for (const Id datum : t.datums) {
        if (!index_.contains(datum) || datum == t.surface) continue;
        const auto& d = patch(index_[datum]).shape;
        switch (t.what) {
        case Characteristic::position:
          if (!d.round() && s.round()) {
            const Vec3 way = d.direction - d.direction.dot(s.direction) * s.direction;
            if (way.norm() > 0.9) require(datum, t.surface, way.normalized(), s.point);
          } else if (!d.round()) {
            if (std::abs(d.direction.dot(s.direction)) > parallel)
              require(datum, t.surface, s.direction, s.point);
          } else {
            both_ways(datum, t.surface, s);
          }
          break;
        case Characteristic::coaxial:
          if (d.round() && s.round() && first == in_.requirements.size()) both_ways(datum, t.surface, s);
          break;
        case Characteristic::square:
        case Characteristic::parallel:
          if (first == in_.requirements.size()) over = lean(t, datum);
          break;
        }
      }
      const auto count = in_.requirements.size() - first;
      if (count == 0) {
        out_.remarks.push_back(fmt::format("{}: none of its datums says where it lies", tolerance_text(t)));
        continue;
      }
      static constexpr SpreadOf of[] = {SpreadOf::position, SpreadOf::coaxial, SpreadOf::square,
                                        SpreadOf::parallel};
      const bool leans = t.what == Characteristic::square || t.what == Characteristic::parallel;
      asked_.push_back({of[static_cast<int>(t.what)], 0, id, between_[first].first, t.surface,
                        leans ? t.within : t.within / 2, over, first, count});
    }
  }
  std::string tolerance_text(const GeometricTolerance& t) const {
    return fmt::format("{} {}", words_of<Characteristic>().first[static_cast<std::size_t>(t.what)],
                       surface_name(build_, t.surface));
  }
  void both_ways(Id from, Id to, const Surface& s) {
    const Vec3 u = across(s.direction.normalized()), v = s.direction.normalized().cross(u);
    for (const Vec3& way : {u, v}) require(from, to, way, s.point);
  }
  /// How the face leans against a plane, over its extent, which it gives, mm: of a parallel one over the
  /// longer of its sides. 0: it is neither square nor parallel to it.
  double lean(const GeometricTolerance& t, Id datum) {
    const auto &face = patch(index_[t.surface]), &base = patch(index_[datum]);
    if (face.shape.round() || base.shape.round()) return 0;
    const auto [u, v] = patch_directions(face.shape.direction);
    Vec3 over = face.width >= face.height ? u : v;
    double extent = std::max(face.width, face.height);
    const double cosine = std::abs(face.shape.direction.dot(base.shape.direction));
    if (t.what == Characteristic::square) {
      if (cosine > 1e-3) return 0;
      over = base.shape.direction.normalized();
      extent = std::abs(u.dot(over)) * face.width + std::abs(v.dot(over)) * face.height;
    } else if (cosine < parallel) {
      return 0;
    }
    if (extent <= 0) return 0;
    require(datum, t.surface, face.shape.direction.normalized(), face.shape.point + extent / 2 * over,
            face.shape.point - extent / 2 * over);
    return extent;
  }

  /// Rounds about one axis that different setups cut; each with the first of its axis only.
  void coaxial() {
    std::vector<Id> firsts;
    for (const auto& [id, s] : build_.surfaces_of(part_)) {
      if (!s.round() || s.copy != 0 || !cut_in_.contains(id) || !index_.contains(id)) continue;
      const auto same_axis = [&, &s = s](Id other) {
        const auto& o = *build_.find<PartSurface>(other);
        const Vec3 off = s.point - o.point;
        return std::abs(s.direction.dot(o.direction)) > parallel &&
               (off - off.dot(o.direction) * o.direction).norm() < 1e-6;
      };
      const auto first = std::find_if(firsts.begin(), firsts.end(), same_axis);
      if (first == firsts.end()) {
        firsts.push_back(id);
        continue;
      }
      if (cut_in_[*first] == cut_in_[id] || is_asked(SpreadOf::coaxial, *first, id)) continue;
      asked_.push_back({SpreadOf::coaxial, 0, 0, *first, id, 0, 0, in_.requirements.size(), 2});
      both_ways(*first, id, s.shape());
    }
  }

  /// Faces square to a plane some setup is located from first, cut in another setup than that: each once.
  void square() {
    constexpr double upright = 1e-6; // cosine
    for (const auto& [id, s] : build_.surfaces_of(part_)) {
      if (s.round() || s.copy != 0 || !cut_in_.contains(id) || !index_.contains(id)) continue;
      for (const auto& [setup_id, setup] : build_.setups_of(part_)) {
        const Id base = setup.datums.empty() ? 0 : setup.datums.front();
        const auto* b = build_.find<PartSurface>(base);
        if (!b || b->round() || !cut_in_.contains(base) || !index_.contains(base) ||
            cut_in_[base] == cut_in_[id] || is_asked(SpreadOf::square, base, id) ||
            std::abs(b->direction.dot(s.direction)) > upright)
          continue;
        const auto& face = patch(index_[id]);
        const auto [u, v] = patch_directions(face.shape.direction);
        const Vec3 up = b->direction.normalized();
        const double extent = std::abs(u.dot(up)) * face.width + std::abs(v.dot(up)) * face.height;
        if (extent <= 0) continue;
        asked_.push_back({SpreadOf::square, 0, 0, base, id, 0, extent, in_.requirements.size(), 1});
        require(base, id, s.direction.normalized(), s.point + extent / 2 * up, s.point - extent / 2 * up);
        break;
      }
    }
  }

  void answer(const Asked& one, const SpreadResult& found, const SpreadResult& stopped) {
    std::size_t worst_of = one.first;
    for (std::size_t k = one.first; k < one.first + one.count; ++k)
      if (found.requirements[k].sigma > found.requirements[worst_of].sigma) worst_of = k;
    const auto& r = found.requirements[worst_of];
    DimensionSpread d;
    d.of = one.of;
    d.dimension = one.dimension;
    d.tolerance = one.tolerance;
    d.over = one.over;
    d.from = one.from;
    d.to = one.to;
    d.sigma = r.sigma;
    d.allowed = one.allowed;
    d.shares = r.shares;
    d.raw = r.raw;
    if (stopped.usable()) d.with_stop = stopped.requirements[worst_of].sigma;
    const auto [from, to] = between_[worst_of];
    if (!in_.requirements[worst_of].lean_from && cut_in_.contains(from) && cut_in_.contains(to)) {
      double own = 0; // only the shifts of the two cuts, along the distance
      for (const Id s : {from, to}) {
        const auto& shape = patch(index_[s]).shape;
        const double along = std::abs(shape.direction.dot(in_.requirements[worst_of].along));
        own += cut_within_[s] * cut_within_[s] * (shape.round() ? 1 - along * along : along * along);
      }
      d.together = std::sqrt(own);
    }
    if (piece_ != 0 && one.dimension != 0)
      if (const auto now = readings::size_now(build_, {one.dimension, piece_}); now.settled())
        d.measured = now.value;
    out_.dimensions.push_back(std::move(d));
  }

  const Build& build_;
  Id part_;
  PartSpreadOptions options_;
  Id piece_;
  SpreadInput in_;
  std::map<Id, int> index_;
  std::vector<Patch> patches_;
  std::map<Id, std::size_t> cut_in_;
  std::map<Id, double> cut_within_; ///< mm: of its cut
  int touched_off_ = 0;
  std::vector<Asked> asked_;
  std::vector<std::pair<Id, Id>> between_; ///< of each requirement: from which surface to which
  PartSpread out_;
};

} // namespace

PartSpread part_spread(const Build& build, Id part, const PartSpreadOptions& options, Id piece) {
  return OfPart(build, part, options, piece).run();
}

std::string spread_name(const Build& build, const DimensionSpread& dimension) {
  if (const auto* d = build.find<Dimension>(dimension.dimension)) return d->name;
  if (dimension.of == SpreadOf::position)
    return fmt::format("place of {} from {}", surface_name(build, dimension.to),
                       surface_name(build, dimension.from));
  if (dimension.of == SpreadOf::square || dimension.of == SpreadOf::parallel)
    return fmt::format("{} {} to {}, over {}", surface_name(build, dimension.to),
                       dimension.of == SpreadOf::square ? "square" : "parallel",
                       surface_name(build, dimension.from),
                       length_text(dimension.over, build.info().unit, {.decimals_mm = 0, .show_unit = true}));
  return fmt::format("{} to {}, about one axis", surface_name(build, dimension.from),
                     surface_name(build, dimension.to));
}

namespace {

/// What a setup stands on: "foot, side".
std::string stands_on(const Build& build, const Setup& setup) {
  std::string on;
  for (const Id datum : setup.datums)
    if (const auto* s = build.find<PartSurface>(datum)) on += (on.empty() ? "" : ", ") + s->name;
  return on;
}

} // namespace

Reckoning spread_sum(const Build& build, const PartSpread& spread, const DimensionSpread& dimension,
                     const PartSpreadOptions& options) {
  const auto unit = build.info().unit;
  const auto text = [unit](double mm) {
    return length_text_both(mm, unit, {.decimals_mm = 4, .decimals_inch = 5});
  };
  Reckoning sum{"three standard deviations", {}, {}};
  const auto add = [&](std::string label, double share, std::string source) {
    constexpr double told = 1e-9; // less is nothing but rounding
    if (share > told)
      sum.lines.push_back({std::move(label), 0, std::move(source), text(dimension.sigma * std::sqrt(share))});
  };
  for (std::size_t k = 0; k < dimension.shares.size(); ++k) {
    const auto* setup = build.find<Setup>(spread.setups[k]);
    if (!setup) continue;
    const auto on = stands_on(build, *setup);
    add(fmt::format("locating in \"{}\"{}", setup->name, on.empty() ? "" : " on " + on),
        dimension.shares[k].locating,
        fmt::format("{} at a locator, raw faces besides", text(options.seating)));
    add(fmt::format("cuts of \"{}\"", setup->name), dimension.shares[k].cutting,
        fmt::format("{} a cut", text(options.cutting)));
  }
  add("faces that stay raw", dimension.raw, "as cast, or as bar comes");
  sum.answer = fmt::format("3 \u00D7 root of the sum of squares = {}", text(dimension.expected()));
  return sum;
}

std::string spread_from(const Build& build, const PartSpread& spread, const DimensionSpread& dimension) {
  double most = dimension.raw;
  int at = -1;
  bool cutting = false;
  for (std::size_t k = 0; k < dimension.shares.size(); ++k)
    for (const bool cut : {false, true}) {
      const double share = cut ? dimension.shares[k].cutting : dimension.shares[k].locating;
      if (share <= most) continue;
      most = share;
      at = static_cast<int>(k);
      cutting = cut;
    }
  constexpr double per_cent = 100;
  if (most <= 0) return {};
  if (at < 0) return fmt::format("{:.0f} % from a face that stays raw", per_cent * most);
  const auto* setup = build.find<Setup>(spread.setups[static_cast<std::size_t>(at)]);
  if (!setup) return {};
  if (cutting) return fmt::format("{:.0f} % from the cuts of \"{}\"", per_cent * most, setup->name);
  const auto on = stands_on(build, *setup);
  return fmt::format("{:.0f} % from locating in \"{}\"{}", per_cent * most, setup->name,
                     on.empty() ? "" : " on " + on);
}

} // namespace datrin::route
