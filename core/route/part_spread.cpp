#include "route/part_spread.h"

#include "build/edits.h"
#include "geometry/between.h"
#include "quantity/length_text.h"
#include "readings/size_now.h"
#include "stock/part_stock.h"

#include <Eigen/Dense>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace datrin::route {

using namespace build;

namespace {

constexpr double within = 0.4;     ///< of a face's extents: locators stand so far out from its middle
constexpr double narrow = 10;      ///< mm: a face whose extents are not known is taken to be so large
constexpr double far_off = 50;     ///< mm: where a turn is felt that nothing locates
constexpr double parallel = 0.999; ///< cosine

class Locating {
public:
  Locating(const std::vector<Patch>& patches, const std::map<Id, int>& index,
           const PartSpreadOptions& options, int touched_off)
      : patches_(patches), index_(index), options_(options), touched_off_(touched_off) {
    for (const auto& patch : patches) centre_ += patch.shape.point / static_cast<double>(patches.size());
  }

  /// Six locators for those datums; what they do not locate is said in `missing`.
  std::vector<SpreadLocator> of(const std::vector<Id>& datums, bool stop, double seating,
                                std::string& missing) {
    seating_ = seating;
    free_ = stop ? options_.stop : options_.touching_off;
    list_.clear();
    rows_.clear();
    int wanted = 3;
    Vec3 first = Vec3::Zero();
    bool gripped = false;
    for (const Id datum : datums) {
      const auto found = index_.find(datum);
      if (found == index_.end() || list_.size() >= 6) continue;
      const auto& patch = patches_[static_cast<std::size_t>(found->second)];
      if (patch.shape.round()) {
        gripped = gripped || list_.empty();
        on_round(found->second, patch);
      } else {
        on_plane(found->second, patch, wanted, first);
        if (first.norm() == 0) first = patch.shape.direction;
      }
      wanted = std::max(1, wanted - 1);
    }
    fill(gripped, missing);
    return list_;
  }

private:
  void add(int feature, const Vec3& at, const Vec3& direction, double sigma) {
    if (list_.size() >= 6) return;
    Eigen::Matrix<double, Eigen::Dynamic, 6> rows(static_cast<Eigen::Index>(rows_.size()) + 1, 6);
    for (std::size_t k = 0; k < rows_.size(); ++k) rows.row(static_cast<Eigen::Index>(k)) = rows_[k];
    Eigen::Matrix<double, 1, 6> row;
    row << direction.transpose(), ((at - centre_) / far_off).cross(direction).transpose();
    rows.row(rows.rows() - 1) = row;
    Eigen::FullPivLU<Eigen::MatrixXd> lu(rows);
    constexpr double enough = 1e-3; // of the largest pivot: less is no hold
    lu.setThreshold(enough);
    if (lu.rank() < rows.rows()) return; // it is held that way already
    rows_.push_back(row);
    list_.push_back({feature, at, direction, sigma});
  }
  static double half(double extent) { return within * (extent > 0 ? extent : narrow); }

  void on_plane(int feature, const Patch& patch, int wanted, const Vec3& first) {
    const auto [u, v] = patch_directions(patch.shape.direction);
    const Vec3 &at = patch.shape.point, out = patch.shape.direction;
    if (wanted >= 3) {
      add(feature, at - half(patch.width) * u - half(patch.height) * v, out, seating_);
      add(feature, at + half(patch.width) * u - half(patch.height) * v, out, seating_);
      add(feature, at + half(patch.height) * v, out, seating_);
    } else if (wanted == 2) {
      Vec3 along = first.cross(out);
      along = along.norm() > 1e-6 ? Vec3(along.normalized()) : u;
      const double reach = half(std::abs(along.dot(u)) > 0.7 ? patch.width : patch.height);
      add(feature, at - reach * along, out, seating_);
      add(feature, at + reach * along, out, seating_);
    } else {
      add(feature, at, out, seating_);
    }
  }
  /// Gripped, or on a plug: across its axis at both ends; where a face holds it already, one of them is
  /// enough.
  void on_round(int feature, const Patch& patch) {
    const Vec3 axis = patch.shape.direction, u = across(axis), v = axis.cross(u);
    for (const double end : {-half(patch.height), half(patch.height)})
      for (const Vec3& way : {u, v}) add(feature, patch.shape.point + end * axis, way, seating_);
    if (!list_.empty() &&
        list_.front().feature != feature) { // turned about the first: by how far it stands off
      const Vec3 off = patch.shape.point - centre_;
      const Vec3 side = axis.cross(off - off.dot(axis) * axis);
      if (side.norm() > 1e-6) add(feature, patch.shape.point, side.normalized(), seating_);
    }
    axis_ = axis;
  }

  void fill(bool gripped, std::string& missing) {
    std::string ways;
    const auto free = [&](const std::string& word, const Vec3& at, const Vec3& way, bool harmless) {
      const auto before = list_.size();
      add(touched_off_, at, way, harmless ? 0 : free_);
      if (list_.size() > before && !harmless) ways += (ways.empty() ? "" : ", ") + word;
    };
    if (gripped) { // how it is turned about its axis is nobody's business
      const Vec3 side = across(axis_);
      free("", centre_ + far_off * side, axis_.cross(side), true);
    }
    static constexpr const char* axes[] = {"x", "y", "z"};
    for (int k = 0; k < 3; ++k) free(std::string("along ") + axes[k], centre_, Vec3::Unit(k), false);
    for (int k = 0; k < 3; ++k)
      free(std::string("about ") + axes[k], centre_ + far_off * Vec3::Unit((k + 1) % 3),
           Vec3::Unit((k + 2) % 3), false);
    missing = ways;
  }

  const std::vector<Patch>& patches_;
  const std::map<Id, int>& index_;
  const PartSpreadOptions& options_;
  int touched_off_;
  double free_ = 0, seating_ = 0; ///< mm: where nothing locates; at a locator
  Vec3 centre_ = Vec3::Zero(), axis_ = Vec3::UnitZ();
  std::vector<SpreadLocator> list_;
  std::vector<Eigen::Matrix<double, 1, 6>> rows_;
};

} // namespace

namespace {

/// Something asked of the part: a distance with limits, or two rounds about one axis across it.
struct Asked {
  SpreadOf of = SpreadOf::distance;
  Id dimension = 0, from = 0, to = 0;
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
    if (s.of != SpreadOf::distance)
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
      SpreadSetup one{
          setup.name, locating.of(setup.datums, setup.stop || all_with_stop, seating, missing), {}};
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
      asked_.push_back({SpreadOf::distance, id, d.surface, d.other, (d.upper - d.lower) / 2, 0,
                        in_.requirements.size(), 1});
      in_.requirements.push_back(
          {d.name, a->second, b->second, apart->direction, (from.shape.point + to.shape.point) / 2});
    }
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
      if (cut_in_[*first] == cut_in_[id]) continue;
      const Vec3 u = across(s.direction.normalized()), v = s.direction.normalized().cross(u);
      asked_.push_back({SpreadOf::coaxial, 0, *first, id, 0, 0, in_.requirements.size(), 2});
      for (const Vec3& way : {u, v})
        in_.requirements.push_back({s.name, index_[*first], index_[id], way, s.point});
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
            cut_in_[base] == cut_in_[id] || std::abs(b->direction.dot(s.direction)) > upright)
          continue;
        const auto& face = patch(index_[id]);
        const auto [u, v] = patch_directions(face.shape.direction);
        const Vec3 up = b->direction.normalized();
        const double extent = std::abs(u.dot(up)) * face.width + std::abs(v.dot(up)) * face.height;
        if (extent <= 0) continue;
        asked_.push_back({SpreadOf::square, 0, base, id, 0, extent, in_.requirements.size(), 1});
        in_.requirements.push_back({s.name, index_[base], index_[id], s.direction.normalized(),
                                    s.point + extent / 2 * up, s.point - extent / 2 * up});
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
    d.over = one.over;
    d.from = one.from;
    d.to = one.to;
    d.sigma = r.sigma;
    d.allowed = one.allowed;
    d.shares = r.shares;
    d.raw = r.raw;
    if (stopped.usable()) d.with_stop = stopped.requirements[worst_of].sigma;
    if (one.of != SpreadOf::square && cut_in_.contains(one.from) && cut_in_.contains(one.to)) {
      double own = 0; // only the shifts of the two cuts, along the distance
      for (const Id s : {one.from, one.to}) {
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
  PartSpread out_;
};

} // namespace

PartSpread part_spread(const Build& build, Id part, const PartSpreadOptions& options, Id piece) {
  return OfPart(build, part, options, piece).run();
}

std::string spread_name(const Build& build, const DimensionSpread& dimension) {
  if (const auto* d = build.find<Dimension>(dimension.dimension)) return d->name;
  if (dimension.of == SpreadOf::square)
    return fmt::format("{} square to {}, over {}", surface_name(build, dimension.to),
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
