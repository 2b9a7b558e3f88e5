#pragma once
// The zero of a setup: how the read-out of its machine counts along an axis, the steps that find a datum on
// it, and what is typed at them. Kept with what was read and how sure it is; one that is lost is found anew,
// the old one kept.

#include "steps/places.h"
#include "steps/take_step.h"

#include <cstddef>
#include <optional>
#include <vector>

namespace datrin::steps {

inline constexpr std::array axis_names{"X", "Y", "Z"};

/// How the figures of a read-out go along an axis of the machine.
struct Counting {
  double sense = 1; ///< −1: it counts the other way
  double shows = 0; ///< mm it shows at the datum; 0 until that is found
  double uncertainty = 0;
  bool found = false;
};

/// The zero that holds, of a datum along an axis: the last that is not lost. Of Z with the tool of
/// `operation`.
std::optional<std::pair<build::Id, build::BenchZero>> zero_now(const build::Build& build,
                                                               const BenchInput& input, std::size_t axis,
                                                               build::Id datum, build::Id operation = 0);

Counting counting(const build::Build& build, const BenchInput& input, std::size_t axis, build::Id datum,
                  build::Id operation = 0);

/// The edge finder said here; else the one said last anywhere in the build; else `usual`.
double finder_across(const build::Build& build, const BenchInput& input, double usual);

/// Touch it, touch it again; or its one side and its other.
std::vector<BenchStep> zero_steps(const build::Build& build, const BenchInput& input, const Places& places,
                                  std::size_t axis, double finder);

/// What was read at a touch; nothing: the read-out was set to what the step says.
StepTaken take_touch(const build::Build& build, const BenchInput& input, const BenchStep& step,
                     std::optional<double> read, const std::string& at);

/// Z shows `shows` where the tool of the step's operation touches what lies on the step's face (`step.number`
/// high): kept for what is counted from that face.
build::Edit height_found(const build::Build& build, const BenchInput& input, const BenchStep& step,
                         double shows, const std::string& at);

/// The touch of that step is to be made again, what came before it stands. Empty when it was not made.
build::Edit touch_again(const build::Build& build, const BenchInput& input, const BenchStep& step,
                        const std::string& at);

/// The zero the step counts from is to be found again. Empty when it counts from none.
build::Edit lose_zero(const build::Build& build, const BenchInput& input, const BenchStep& step,
                      const std::string& at);

} // namespace datrin::steps
