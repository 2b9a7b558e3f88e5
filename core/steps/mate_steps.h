#pragma once
// Steps of a piece with its mate: spotted through it, and tried in it, with what was felt and what told of
// it. (steps uses readings and fits here: a trial at the machine is the same record as one on the page of the
// joint.)

#include "route/features.h"
#include "steps/step_maker.h"
#include "steps/take_step.h"

namespace datrin::steps {

class MateSteps : public StepMaker {
public:
  using StepMaker::StepMaker;

  /// What spots the mate's hole: as wide as that is now.
  void transfer(build::Id id, const build::Operation& operation, const route::Feature& feature, bool done,
                std::vector<BenchStep>& work) const;
  /// One a joint of what the operation makes; none where it is in no joint.
  void trials(build::Id id, const build::Operation& operation, bool done, std::vector<BenchStep>& work) const;
};

/// "2+12.5+1": how it felt by its number, how deep it went where it jams, what told of it by its number;
/// parted by + or blanks.
StepTaken take_trial(const build::Build& build, const BenchInput& input, const BenchStep& step,
                     const std::string& typed, const TakeOptions& options);

} // namespace datrin::steps
