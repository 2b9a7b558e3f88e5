#include "dividing/clock_train.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace datrin::dividing {

namespace {

class Trains {
public:
  explicit Trains(const ClockTrainInput& in)
      : in_(in), wanted_(in.beats_an_hour * in.hours_a_turn / (2.0 * in.escape)) {}

  ClockTrain run() {
    stages_.resize(static_cast<std::size_t>(in_.stages));
    descend(0, 1);
    return out_;
  }

private:
  /// Stages in order of their ratio: the same counts in another order are the same train.
  void descend(std::size_t at, double made) {
    const bool last = at + 1 == stages_.size();
    for (const int pinion : in_.pinions) {
      int from = in_.least_wheel, to = in_.most_wheel;
      if (last) { // only the counts beside the exact one can be the nearest
        const double exact = wanted_ / made * pinion;
        from = std::max(from, static_cast<int>(std::floor(exact)));
        to = std::min(to, static_cast<int>(std::ceil(exact)));
      }
      for (int wheel = from; wheel <= to; ++wheel) {
        const double ratio = static_cast<double>(wheel) / pinion;
        if (at > 0 && ratio > static_cast<double>(stages_[at - 1].wheel) / stages_[at - 1].pinion + 1e-12)
          continue;
        stages_[at] = {wheel, pinion};
        if (last)
          take(made * ratio);
        else
          descend(at + 1, made * ratio);
      }
    }
  }

  void take(double made) {
    // Hundreds of thousands come here: what is further off than the best is left before anything is reckoned.
    const double off = std::max(made, wanted_) / std::min(made, wanted_) - 1;
    constexpr double same = 1e-12;
    const bool found = out_.usable();
    if (found && off > off_ + same) return;
    double alike = 0;
    int teeth = 0;
    const double mean = std::pow(made, 1.0 / in_.stages);
    for (const auto& s : stages_) {
      alike = std::max(alike, std::abs(std::log(static_cast<double>(s.wheel) / s.pinion / mean)));
      teeth += s.wheel + s.pinion;
    }
    if (found && off > off_ - same) {
      if (alike > alike_ + same) return;
      if (alike > alike_ - same && teeth >= teeth_) return;
    }
    off_ = off;
    alike_ = alike;
    teeth_ = teeth;
    out_.status = ClockTrainStatus::found;
    out_.stages = stages_;
    out_.exact = off < 1e-11;
    out_.beats_an_hour = 2 * in_.escape * made / in_.hours_a_turn;
    constexpr double seconds = 86400;
    out_.seconds_a_day = out_.exact ? 0 : seconds * (in_.beats_an_hour / out_.beats_an_hour - 1);
  }

  const ClockTrainInput& in_;
  double wanted_; ///< turns of the escape wheel for one of the first
  std::vector<TrainStage> stages_;
  ClockTrain out_;
  double off_ = std::numeric_limits<double>::max(), alike_ = 0;
  int teeth_ = 0;
};

} // namespace

ClockTrain clock_train(const ClockTrainInput& in) {
  ClockTrain out;
  out.status = ClockTrainStatus::refused;
  const auto refuse = [&](const char* why) {
    out.message = why;
    return out;
  };
  if (!(in.beats_an_hour > 0) || !(in.hours_a_turn > 0)) return refuse("beats and hours must be above 0");
  if (in.escape < 3 || in.escape > 200) return refuse("escape wheel: 3 to 200 teeth");
  if (in.stages < 1 || in.stages > 3) return refuse("pairs: from 1 to 3");
  if (in.pinions.empty() || in.pinions.size() > 12) return refuse("pinions: from one to twelve counts");
  for (const int leaves : in.pinions)
    if (leaves < 5 || leaves > 40) return refuse("pinions: 5 to 40 leaves");
  if (in.least_wheel < 10 || in.most_wheel > 300 || in.least_wheel > in.most_wheel)
    return refuse("wheels: from 10 to 300 teeth, the least not above the most");
  auto found = Trains(in).run();
  if (!found.usable()) return refuse("no counts within those wheels come near: more pairs, other pinions");
  return found;
}

double depthing(const TrainStage& stage, double module) {
  return module * (stage.wheel + stage.pinion) / 2;
}

} // namespace datrin::dividing
