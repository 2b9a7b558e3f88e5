#pragma once
// What is typed at the bench, kept: a cut, a size, the edge finder, or that a step is behind. Going back, and
// leaving. What cannot be is refused, and nothing is guessed.

#include "build/edits.h"
#include "quantity/angle.h"
#include "quantity/length.h"
#include "steps/bench_steps.h"

#include <string>
#include <vector>

namespace datrin::steps {

struct StepTaken {
  build::Edit edit;
  std::string wrong; ///< why it is not taken; empty: it is
  std::string told;  ///< what it says to it: "0.32 mm still to come off a side"
  bool ok() const { return wrong.empty(); }
  static StepTaken refused(std::string why) { return {{}, std::move(why), {}}; }
};

/// How what is typed is read: lengths without a unit in that of the machine.
struct TakeOptions {
  LengthOptions lengths;
  AngleOptions angles;
  std::string at;              ///< when, UTC, ISO 8601
  std::optional<double> shows; ///< mm: a read-out that reads by itself, of the step's axis
};

/// `typed` for a step of `bench_steps`. Of a plane either what is left or what it is across is read, and
/// where it could be both it is refused. At a zero the finder may be said: the step stays, with its new
/// number.
StepTaken take_step(const build::Build& build, const BenchInput& input, const BenchStep& step,
                    const std::string& typed, const TakeOptions& options);

/// Step `to` is open again: what says it is done is taken away, readings and cuts stay in the record.
build::Edit step_back(const build::Build& build, const BenchInput& input, const std::vector<BenchStep>& steps,
                      int to, const std::string& at);

/// What dials and read-out showed when it was left; empty when that is kept already.
build::Edit leave_bench(const build::Build& build, const BenchInput& input, const std::string& step,
                        const std::string& dials, const std::string& at);

} // namespace datrin::steps
