#pragma once
// What is read at a touch, kept; another way of touching; a touch made again.

#include "steps/zeros.h"

#include <optional>
#include <string>

namespace datrin::steps {

/// What was read at a touch; nothing: the read-out was set to what the step says.
StepTaken take_touch(const build::Build& build, const BenchInput& input, const BenchStep& step,
                     std::optional<double> read, const std::string& at);

/// The other way its datum may be found (`step.another_way`): with X and Y read at each touch, and back; the
/// middle by one side and the size.
StepTaken another_way(const build::Build& build, const BenchInput& input, const BenchStep& step,
                      const std::string& at);

/// The touch of that step is to be made again, what came before it stands. Empty when it was not made.
build::Edit touch_again(const build::Build& build, const BenchInput& input, const BenchStep& step,
                        const std::string& at);

} // namespace datrin::steps
