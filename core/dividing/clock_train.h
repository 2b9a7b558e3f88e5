#pragma once
// The wheels of a clock from what turns once an hour to the escape wheel: counts whose product makes the
// beats wanted, exactly or the nearest; with pinions one has, and wheels one can cut.

#include <string>
#include <vector>

namespace datrin::dividing {

struct ClockTrainInput {
  double beats_an_hour = 0;    ///< ticks, two a turn of the escape wheel's tooth
  double hours_a_turn = 1;     ///< of the first wheel: 1 of a centre wheel
  int escape = 30;             ///< teeth of the escape wheel
  std::vector<int> pinions{8}; ///< leaves there are cutters for
  int stages = 2;              ///< wheel and pinion pairs, 1 to 3 (six wheels with the pinions)
  int least_wheel = 40, most_wheel = 120;
};

struct TrainStage {
  int wheel = 0, pinion = 0;
};

enum class ClockTrainStatus { not_run, found, refused };

struct ClockTrain {
  ClockTrainStatus status = ClockTrainStatus::not_run;
  std::string message;
  std::vector<TrainStage> stages;
  double beats_an_hour = 0; ///< what it makes
  bool exact = false;
  double seconds_a_day = 0; ///< it gains (loses: below 0) with that
  bool usable() const { return status == ClockTrainStatus::found; }
};

/// Of what is as near, ratios most alike from stage to stage, then fewest teeth.
ClockTrain clock_train(const ClockTrainInput& input);

/// How far apart the arbors of a wheel and its pinion stand, mm: half of (teeth + leaves) times the module.
double depthing(const TrainStage& stage, double module);

} // namespace datrin::dividing
