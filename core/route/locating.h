#pragma once
// Six locators from the datums of a setup: three on its first plane, two on the second, one on the third;
// across its axis at both ends of what is round. What no datum locates is found by touching off, or put
// against a stop.

#include "route/part_spread.h"

#include <Eigen/Core>

#include <map>
#include <string>
#include <vector>

namespace datrin::route {

class Locating {
public:
  /// `index`: surfaces of the part to features of the spread; `touched_off`: the feature that stands for the
  /// edges found by hand.
  Locating(const std::vector<Patch>& patches, const std::map<build::Id, int>& index,
           const PartSpreadOptions& options, int touched_off);

  /// `plays`: what a fixture adds at a datum, mm (route/fixture.h). What they do not locate is said in
  /// `missing`: "along x, about z".
  std::vector<SpreadLocator> of(const std::vector<build::Id>& datums, bool stop, double seating,
                                const std::map<build::Id, double>& plays, std::string& missing);

private:
  void add(int feature, const Vec3& at, const Vec3& direction, double sigma);
  void on_plane(int feature, const Patch& patch, int wanted, const Vec3& first);
  void on_round(int feature, const Patch& patch);
  void fill(bool gripped, std::string& missing);

  const std::vector<Patch>& patches_;
  const std::map<build::Id, int>& index_;
  const PartSpreadOptions& options_;
  int touched_off_;
  double free_ = 0, seating_ = 0; ///< mm: where nothing locates; at a locator
  Vec3 centre_ = Vec3::Zero(), axis_ = Vec3::UnitZ();
  std::vector<SpreadLocator> list_;
  std::vector<Eigen::Matrix<double, 1, 6>> rows_;
};

} // namespace datrin::route
