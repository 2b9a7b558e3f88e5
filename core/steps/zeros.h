#pragma once
// The zeros of a setup as they are kept: how the read-out of its machine counts along an axis from a datum,
// what was read at its touches, that one is lost.

#include "steps/places.h"
#include "steps/take_step.h"

#include <cstddef>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace datrin::steps {

inline constexpr std::array axis_names{"X", "Y", "Z"};

/// How the figures of a read-out go along an axis of the machine.
struct Counting {
  double sense = 1; ///< −1: it counts the other way
  double shows = 0; ///< mm it shows at the datum; 0 until that is found
  double uncertainty = 0;
  double turn = 0; ///< radians the part lies turned, counter-clockwise as the tool sees it
  bool found = false;
};

/// The zero that holds, of a datum along an axis: the last that is not lost. Of Z with the tool of
/// `operation`.
std::optional<std::pair<build::Id, build::BenchZero>> zero_now(const build::Build& build,
                                                               const BenchInput& input, std::size_t axis,
                                                               build::Id datum, build::Id operation = 0);

Counting counting(const build::Build& build, const BenchInput& input, std::size_t axis, build::Id datum,
                  build::Id operation = 0);

/// −1 where the machine counts the other way along an axis; else 1.
double axis_sense(const build::Build& build, const BenchInput& input, std::size_t axis);

/// Of the read-out of the setup's machine: mm.
double last_figure(const build::Build& build, const BenchInput& input);

/// The edge finder said here; else the one said last anywhere in the build; else `usual`.
double finder_across(const build::Build& build, const BenchInput& input, double usual);

/// 0 X, 1 Y, 2 Z.
std::size_t axis_of(const BenchStep& step);

/// What was read at the touches of a zero.
std::vector<double> touches_in(const std::string& text);
void add_touch(std::string& touches, double mm);

/// The same where X and Y were read at each: where the spindle stood, by the figures of the read-out. One
/// more X than Y may be there yet.
struct TouchedPoints {
  std::vector<double> x, y;
  bool whole(std::size_t count) const { return x.size() >= count && y.size() >= count; }
};
TouchedPoints points_in(const build::BenchZero& zero);

/// Z shows `shows` where the tool of the step's operation touches what lies on the step's face (`step.number`
/// high): kept for what is counted from that face.
build::Edit height_found(const build::Build& build, const BenchInput& input, const BenchStep& step,
                         double shows, const std::string& at);

/// The zero the step counts from is to be found again. Empty when it counts from none.
build::Edit lose_zero(const build::Build& build, const BenchInput& input, const BenchStep& step,
                      const std::string& at);

} // namespace datrin::steps
