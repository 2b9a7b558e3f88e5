#include "route/locating.h"

#include "geometry/between.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>

namespace datrin::route {

using namespace build;

namespace {

constexpr double located_within = 0.4; ///< of a face's extents: locators stand so far out from its middle
constexpr double narrow = 10;          ///< mm: a face whose extents are not known is taken to be so large
constexpr double far_off = 50;         ///< mm: where a turn is felt that nothing locates

double half(double extent) {
  return located_within * (extent > 0 ? extent : narrow);
}

} // namespace

Locating::Locating(const std::vector<Patch>& patches, const std::map<Id, int>& index,
                   const PartSpreadOptions& options, int touched_off)
    : patches_(patches), index_(index), options_(options), touched_off_(touched_off) {
  for (const auto& patch : patches) centre_ += patch.shape.point / static_cast<double>(patches.size());
}

std::vector<SpreadLocator> Locating::of(const std::vector<Id>& datums, bool stop, double seating,
                                        const std::map<Id, double>& plays, std::string& missing) {
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
    const auto play = plays.find(datum);
    seating_ = play == plays.end() ? seating : std::hypot(seating, play->second);
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

void Locating::add(int feature, const Vec3& at, const Vec3& direction, double sigma) {
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

void Locating::on_plane(int feature, const Patch& patch, int wanted, const Vec3& first) {
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
void Locating::on_round(int feature, const Patch& patch) {
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

void Locating::fill(bool gripped, std::string& missing) {
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

} // namespace datrin::route
