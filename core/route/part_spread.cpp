#include "route/part_spread.h"

#include "geometry/between.h"
#include "quantity/length_text.h"
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
  std::vector<SpreadLocator> of(const std::vector<Id>& datums, std::string& missing) {
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
      add(feature, at - half(patch.width) * u - half(patch.height) * v, out, options_.seating);
      add(feature, at + half(patch.width) * u - half(patch.height) * v, out, options_.seating);
      add(feature, at + half(patch.height) * v, out, options_.seating);
    } else if (wanted == 2) {
      Vec3 along = first.cross(out);
      along = along.norm() > 1e-6 ? Vec3(along.normalized()) : u;
      const double reach = half(std::abs(along.dot(u)) > 0.7 ? patch.width : patch.height);
      add(feature, at - reach * along, out, options_.seating);
      add(feature, at + reach * along, out, options_.seating);
    } else {
      add(feature, at, out, options_.seating);
    }
  }
  /// Gripped, or on a plug: across its axis at both ends; where a face holds it already, one of them is
  /// enough.
  void on_round(int feature, const Patch& patch) {
    const Vec3 axis = patch.shape.direction, u = across(axis), v = axis.cross(u);
    for (const double end : {-half(patch.height), half(patch.height)})
      for (const Vec3& way : {u, v}) add(feature, patch.shape.point + end * axis, way, options_.seating);
    if (!list_.empty() &&
        list_.front().feature != feature) { // turned about the first: by how far it stands off
      const Vec3 off = patch.shape.point - centre_;
      const Vec3 side = axis.cross(off - off.dot(axis) * axis);
      if (side.norm() > 1e-6) add(feature, patch.shape.point, side.normalized(), options_.seating);
    }
    axis_ = axis;
  }

  void fill(bool gripped, std::string& missing) {
    std::string ways;
    const auto free = [&](const std::string& word, const Vec3& at, const Vec3& way, bool harmless) {
      const auto before = list_.size();
      add(touched_off_, at, way, harmless ? 0 : options_.touching_off);
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
  Vec3 centre_ = Vec3::Zero(), axis_ = Vec3::UnitZ();
  std::vector<SpreadLocator> list_;
  std::vector<Eigen::Matrix<double, 1, 6>> rows_;
};

} // namespace

PartSpread part_spread(const Build& build, Id part, const PartSpreadOptions& options) {
  PartSpread out;
  SpreadInput in;
  std::map<Id, int> index;
  std::vector<Patch> patches;
  const bool cast = stock::needs_touches(build, part);
  for (const auto& [id, patch] : stock::patches_of(build, part)) {
    const auto* s = build.find<PartSurface>(id);
    if (!s) continue;
    index[id] = static_cast<int>(patches.size());
    patches.push_back(patch);
    in.features.push_back({s->name, s->round(), patch.shape.point, patch.shape.direction.normalized(),
                           cast ? options.raw_cast : options.raw_stock});
  }
  if (patches.empty() || build.setups_of(part).empty()) return out;
  const int touched_off = static_cast<int>(in.features.size());
  in.features.push_back({"", false, Vec3::Zero(), Vec3::UnitZ(), 0});
  Locating locating(patches, index, options, touched_off);
  std::map<Id, std::size_t> cut_in;
  for (const auto& [id, setup] : build.setups_of(part)) {
    std::string missing;
    SpreadSetup one{setup.name, locating.of(setup.datums, missing), {}};
    if (!missing.empty())
      out.remarks.push_back(
          fmt::format("{}: nothing locates it {}; taken as touched off", setup.name, missing));
    for (const auto* list : {&setup.marks, &setup.cuts})
      for (const Id cut : *list)
        if (const auto at = index.find(cut); at != index.end()) {
          one.cuts.push_back({at->second, options.cutting});
          cut_in[cut] = out.setups.size();
        }
    out.setups.push_back(id);
    in.setups.push_back(std::move(one));
  }
  std::vector<std::pair<Id, Dimension>> asked;
  for (const auto& [id, d] : build.dimensions_of(part)) {
    const auto a = index.find(d.surface), b = index.find(d.other);
    if (d.kind != DimensionKind::distance || !d.has_limits() || a == index.end() || b == index.end())
      continue;
    const auto &from = patches[static_cast<std::size_t>(a->second)],
               &to = patches[static_cast<std::size_t>(b->second)];
    const auto apart = between(from.shape, to.shape);
    if (!apart) continue;
    in.requirements.push_back(
        {d.name, a->second, b->second, apart->direction, (from.shape.point + to.shape.point) / 2});
    asked.emplace_back(id, d);
  }
  const auto found = spread(in);
  if (!found.usable()) {
    out.remarks.push_back(found.message);
    return out;
  }
  for (std::size_t k = 0; k < asked.size(); ++k) {
    const auto& [id, d] = asked[k];
    const auto& r = found.requirements[k];
    DimensionSpread one{id, r.sigma, (d.upper - d.lower) / 2, r.shares, r.raw, 0};
    if (cut_in.contains(d.surface) && cut_in.contains(d.other)) {
      double own = 0; // only the shifts of the two cuts, along the distance
      for (const Id s : {d.surface, d.other}) {
        const auto& shape = patches[static_cast<std::size_t>(index[s])].shape;
        const double along = std::abs(shape.direction.dot(in.requirements[k].along));
        own += options.cutting * options.cutting * (shape.round() ? 1 - along * along : along * along);
      }
      one.together = std::sqrt(own);
    }
    out.dimensions.push_back(std::move(one));
  }
  std::stable_sort(out.dimensions.begin(), out.dimensions.end(),
                   [](const DimensionSpread& a, const DimensionSpread& b) {
                     const auto worst = [](const DimensionSpread& s) {
                       return s.allowed > 0 ? s.expected() / s.allowed : 1e300;
                     };
                     return worst(a) > worst(b);
                   });
  return out;
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
