#pragma once
// Truing a piece in the four-jaw at the machine: read at the four jaws, told which to move and how far, until
// it is good enough for the drawing and for the metal that is there. (steps uses truing here.)

#include "steps/step_maker.h"
#include "steps/take_step.h"

namespace datrin::steps {

class JawSteps : public StepMaker {
public:
  using StepMaker::StepMaker;

  /// One step in a four-jaw; none elsewhere. Its number is the whole runout that is good enough: of the
  /// coaxial tolerances that are cut here from what it runs by the narrowest; else what is usual of raw and
  /// of machined work (common practice); no more than the metal there is.
  void true_up(std::vector<BenchStep>& out) const;
};

/// "0.05+0.02-0.03+0": what the indicator reads at jaws 1 to 4, parted by their signs or by blanks. Taken
/// when it is good enough; else told which jaw to move, and how far.
StepTaken take_jaws(const build::Build& build, const BenchInput& input, const BenchStep& step,
                    const std::string& typed, const TakeOptions& options);

} // namespace datrin::steps
