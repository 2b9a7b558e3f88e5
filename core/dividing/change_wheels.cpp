#include "dividing/change_wheels.h"

#include <algorithm>
#include <cmath>

namespace datrin::dividing {

namespace {

class Search {
public:
  explicit Search(const ChangeWheelsInput& in) : in_(in), wheels_(in.wheels), used_(in.wheels.size(), false) {
    std::sort(wheels_.begin(), wheels_.end());
  }

  ChangeWheels run() {
    constexpr double same = 1e-9; // of the ratio: wheels have no more than some hundred teeth
    for (pairs_ = 1; pairs_ <= in_.most_pairs && 2 * pairs_ <= wheels_.size(); ++pairs_) {
      drivers_.clear();
      drivens_.clear();
      descend(1, 0, 0);
      if (found_ && best_off_ < same) break;
    }
    best_.status = found_ ? ChangeWheelsStatus::found : ChangeWheelsStatus::refused;
    best_.exact = found_ && best_off_ < same;
    if (!found_) best_.message = "wheels: at least two are wanted";
    return best_;
  }

private:
  /// Drivers and drivens each in ascending order: pairs in another order are the same train.
  void descend(double ratio, std::size_t driver_from, std::size_t driven_from) {
    if (drivers_.size() == pairs_) {
      const double off = std::abs(std::log(ratio / in_.ratio));
      const int least = std::min(*std::min_element(drivers_.begin(), drivers_.end()),
                                 *std::min_element(drivens_.begin(), drivens_.end()));
      constexpr double better = 1e-12;
      if (found_ && (off > best_off_ + better || (off > best_off_ - better && least <= best_least_))) return;
      found_ = true;
      best_off_ = off;
      best_least_ = least;
      best_.drivers = drivers_;
      best_.drivens = drivens_;
      best_.ratio = ratio;
      return;
    }
    for (std::size_t i = driver_from; i < wheels_.size(); ++i) {
      if (used_[i] || (i > driver_from && wheels_[i] == wheels_[i - 1] && !used_[i - 1])) continue;
      used_[i] = true;
      drivers_.push_back(wheels_[i]);
      for (std::size_t j = driven_from; j < wheels_.size(); ++j) {
        if (used_[j] || (j > driven_from && wheels_[j] == wheels_[j - 1] && !used_[j - 1])) continue;
        used_[j] = true;
        drivens_.push_back(wheels_[j]);
        descend(ratio * wheels_[i] / wheels_[j], i + 1, j + 1);
        drivens_.pop_back();
        used_[j] = false;
      }
      drivers_.pop_back();
      used_[i] = false;
    }
  }

  const ChangeWheelsInput& in_;
  std::vector<int> wheels_;
  std::vector<bool> used_;
  std::size_t pairs_ = 1;
  std::vector<int> drivers_, drivens_;
  ChangeWheels best_;
  bool found_ = false;
  double best_off_ = 0;
  int best_least_ = 0;
};

} // namespace

ChangeWheels change_wheels(const ChangeWheelsInput& in) {
  ChangeWheels out;
  out.status = ChangeWheelsStatus::refused;
  constexpr std::size_t most = 30;
  if (!(in.ratio > 0) || !std::isfinite(in.ratio)) {
    out.message = "pitch and leadscrew must be above 0";
    return out;
  }
  if (in.wheels.size() > most) {
    out.message = "wheels: at most 30";
    return out;
  }
  for (const int teeth : in.wheels)
    if (teeth < 8 || teeth > 400) {
      out.message = "wheels: teeth from 8 to 400";
      return out;
    }
  return Search(in).run();
}

} // namespace datrin::dividing
