#include "route/suggest_setups.h"

#include "geometry/between.h"
#include "route/features.h"
#include "stock/part_stock.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::route {

using namespace build;

namespace {

/// Setups in which a machine can reach what they cut: from one way at a time.
class Suggest {
public:
  Suggest(const Build& build, Id part, const std::vector<Id>& datums)
      : build_(build), part_(part), datums_(datums) {
    for (auto& feature : features_to_make(build, part)) {
      const bool is_datum = std::any_of(feature.surfaces.begin(), feature.surfaces.end(),
                                        [&](Id id) { return contains(datums, id); });
      (is_datum ? held_ : to_cut_).push_back(std::move(feature));
    }
  }

  std::vector<Setup> setups() {
    const auto* stand = datums_.empty() ? nullptr : build_.find<PartSurface>(datums_.front());
    turned_ = stand != nullptr ? stand->round() : is_round_bar();
    Vec3 way = stand != nullptr ? Vec3(-stand->direction) : best_way();
    if (stand != nullptr && turned_) { // the tool comes from the end that is not against the jaws
      const auto* end = datums_.size() > 1 ? build_.find<PartSurface>(datums_[1]) : nullptr;
      way = end != nullptr ? Vec3(-end->direction) : stand->direction;
    }
    if (way.isZero()) return {};
    first_way_ = way;
    add(stand == nullptr ? (turned_ ? "in the chuck" : "as it came")
        : turned_        ? "in the chuck on " + stand->name
                         : "first datums",
        datums_, way);
    to_cut_.insert(to_cut_.end(), held_.begin(), held_.end());
    constexpr std::size_t most = 12; // more ways than a part has sides
    while (!to_cut_.empty() && out_.size() < most) {
      const auto next = best_way();
      if (next.isZero()) break;
      const auto on = locates(next);
      if (!add(name(next, on), on, next)) break;
    }
    give_sizes();
    return std::move(out_);
  }

private:
  static bool is_outside(const Feature& f) {
    return f.shape == FeatureShape::round || f.shape == FeatureShape::taper;
  }
  /// Of work in a chuck: behind a larger diameter, on the side of the jaws.
  bool hidden(const Feature& f, const Vec3& way) const {
    for (const auto& [id, s] : build_.surfaces_of(part_)) {
      if (!s.round() || is_hole(s.kind) || s.diameter <= f.across + 1e-6) continue;
      const Vec3 off = s.point - f.at;
      const bool same_axis = (off - off.dot(f.way) * f.way).norm() < 1e-3 + f.across / 2;
      if (same_axis && std::abs(s.direction.dot(f.way)) > 0.99 && off.dot(way) > 1e-6) return true;
    }
    return false;
  }
  bool is_round_bar() const {
    const auto form = stock::form_of(build_, part_);
    return form == StockForm::round || form == StockForm::hexagon || form == StockForm::tube;
  }
  static bool is_round_shape(const Feature& f) {
    return f.shape == FeatureShape::round || f.shape == FeatureShape::taper ||
           f.shape == FeatureShape::hole || f.shape == FeatureShape::taper_hole ||
           f.shape == FeatureShape::groove || f.shape == FeatureShape::keyway ||
           f.shape == FeatureShape::profile;
  }
  /// Whether a tool that comes against `way` (out of the part, towards the spindle) reaches it: a face
  /// looking that way, a round one along it; on a mill also a face beside it, by the side of the cutter.
  bool reached(const Feature& f, const Vec3& way) const {
    constexpr double along = 0.95, beside = 0.3; // cosines
    const double cosine = f.way.dot(way);
    if (turned_ && is_outside(f) && hidden(f, way)) return false;
    if (is_round_shape(f)) return cosine > along || (f.both_ways && cosine < -along);
    return cosine > along || (!turned_ && f.shape == FeatureShape::plane && std::abs(cosine) < beside);
  }

  bool add(std::string name, const std::vector<Id>& datums, const Vec3& way) {
    Setup setup;
    setup.part = part_;
    setup.name = std::move(name);
    setup.datums = datums;
    setup.order = static_cast<double>(out_.size());
    setup.way = way;
    if (turned_) setup.holding = Workholding::three_jaw;
    bool any = false;
    std::erase_if(to_cut_, [&](const Feature& f) {
      const bool datum =
          std::any_of(f.surfaces.begin(), f.surfaces.end(), [&](Id id) { return contains(datums, id); });
      if (datum || !reached(f, way)) return false;
      setup.cuts.insert(setup.cuts.end(), f.surfaces.begin(), f.surfaces.end());
      any = true;
      return true;
    });
    cut_.insert(cut_.end(), setup.cuts.begin(), setup.cuts.end());
    if (any || out_.empty()) out_.push_back(std::move(setup));
    return any;
  }

  /// The way from which most of what is left is reached; faces that look it count before those beside it.
  Vec3 best_way() const {
    Vec3 best = Vec3::Zero();
    double most = 0;
    for (const auto& wanted : to_cut_) {
      for (const double sign : {1.0, -1.0}) {
        if (sign < 0 && !wanted.both_ways) continue;
        const Vec3 way = sign * wanted.way;
        double count = 0;
        for (const auto& f : to_cut_)
          if (reached(f, way)) count += is_round_shape(f) || f.way.dot(way) > 0.9 ? 1 : 0.5;
        if (count > most + 1e-9) {
          most = count;
          best = way;
        }
      }
    }
    return best;
  }

  /// What was cut, up to three that locate: the largest face away from the tool, a bore along it, what is
  /// left.
  std::vector<Id> locates(const Vec3& way) const {
    const auto score = [&](Id id) {
      const auto& s = *build_.find<PartSurface>(id);
      const double cosine = s.direction.dot(way);
      if (s.round()) return std::abs(cosine) > 0.95 ? 0.5 : 0.1;
      const double size = std::atan(seen_area(s.patch()) / 1000) / 10; // of two the larger
      return (cosine < -0.95 ? 2.0 : std::abs(cosine) < 0.3 ? 0.3 : -10.0) + size;
    };
    auto from = cut_;
    std::erase_if(from, [&](Id id) { return score(id) < 0; });
    std::stable_sort(from.begin(), from.end(), [&](Id a, Id b) { return score(a) > score(b); });
    std::vector<Id> out;
    for (const auto id : from) {
      const auto& s = *build_.find<PartSurface>(id);
      const bool again = std::any_of(out.begin(), out.end(), [&](Id other) {
        const auto& o = *build_.find<PartSurface>(other);
        return !s.round() && !o.round() && std::abs(s.direction.dot(o.direction)) > 0.9; // says the same
      });
      if (!again && out.size() < 3) out.push_back(id);
    }
    return out;
  }

  std::string name(const Vec3& way, const std::vector<Id>& on) const {
    const auto* base = on.empty() ? nullptr : build_.find<PartSurface>(on.front());
    if (way.dot(first_way_) < -0.95) return turned_ ? "turned round" : "turned over";
    if (base == nullptr) return "another way up";
    return fmt::format("{} {}",
                       base->round()                      ? "held by"
                       : base->direction.dot(way) < -0.95 ? "on"
                                                          : "against",
                       base->name);
  }

  /// Sizes that matter are read where their surface is cut; what none cuts, at the end.
  void give_sizes() {
    for (const auto& [id, d] : build_.dimensions_of(part_)) {
      if (d.importance != DimensionClass::critical && d.importance != DimensionClass::fit) continue;
      auto at = std::find_if(out_.rbegin(), out_.rend(), [&, &d = d](const auto& s) {
        return contains(s.cuts, d.surface) || (d.other != 0 && contains(s.cuts, d.other));
      });
      (at == out_.rend() ? out_.back() : *at).sizes.push_back(id);
    }
  }

  const Build& build_;
  Id part_;
  const std::vector<Id>& datums_;
  bool turned_ = false;
  Vec3 first_way_ = Vec3::UnitZ();
  std::vector<Feature> to_cut_, held_; ///< held: datums of the first setup, cut later
  std::vector<Id> cut_;
  std::vector<Setup> out_;
};

} // namespace

std::vector<Setup> suggest_setups(const Build& build, Id part, const std::vector<Id>& datums) {
  return Suggest(build, part, datums).setups();
}

Edit take_datums(const Build& build, Id part, const std::vector<Id>& datums) {
  const auto setups = build.setups_of(part);
  if (!setups.empty()) {
    auto changed = setups.front().second;
    changed.datums = datums;
    return replace(build, setups.front().first, changed, "Take first datums");
  }
  std::vector<Record> records;
  for (auto& setup : suggest_setups(build, part, datums)) records.emplace_back(std::move(setup));
  return add_all(build, std::move(records), "Take first datums, with setups");
}

} // namespace datrin::route
