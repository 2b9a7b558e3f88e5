#include "route/squaring.h"

#include "quantity/unit.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::route {

namespace {

int opposite(int face) {
  static constexpr int other[] = {0, 4, 3, 2, 1, 6, 5};
  return other[face];
}

class Squaring {
public:
  Squaring(const SquaringInput& input, const SquaringOptions& options) : in_(input), options_(options) {
    for (int face = 1; face <= block_faces; ++face) {
      true_[index(face)] = in_.good[index(face)];
    }
  }

  SquaringResult run() {
    for (const double size : in_.size)
      if (!(size > 0) || !std::isfinite(size)) {
        result_.status = SquaringStatus::refused;
        result_.message = "a block needs a length, width and height above 0";
        return result_;
      }
    // The best raw face goes to the fixed jaw for the first cut: one that is good, else the one that slopes
    // less.
    const bool third =
        (in_.good[index(3)] && !in_.good[index(2)]) ||
        (in_.good[index(3)] == in_.good[index(2)] && in_.slope[index(3)] < in_.slope[index(2)]);
    sides(1, third ? 3 : 2);
    sides(2, 1);
    sides(3, 1);
    sides(4, 2);
    end(5);
    end(6);
    result_.status = SquaringStatus::planned;
    if (result_.steps.empty()) result_.message = "every face is true already";
    return result_;
  }

private:
  static std::size_t index(int face) { return static_cast<std::size_t>(face - 1); }

  Seating seated(int down) const {
    if (down == 0) return Seating::packed;
    const bool level = true_[index(down)];
    return level || (!in_.casting && in_.slope[index(down)] < options_.hammer_slope) ? Seating::hammered
                                                                                     : Seating::packed;
  }

  bool there(int face) const { return face != 0 && !in_.missing[index(face)]; }
  bool is_true(int face) const { return there(face) && true_[index(face)]; }
  bool is_cut(int face) const { return there(face) && !true_[index(face)] && !in_.stays[index(face)]; }
  int if_there(int face) const { return there(face) ? face : 0; }
  /// What a person must mind in it.
  std::string care(const SquaringStep& step) const {
    std::string out;
    if (step.seating == Seating::hammered && in_.tapped[index(step.cut)])
      out += "; hammer on a pad, clear of the thread";
    if (step.fixed_jaw != 0 && !is_true(step.fixed_jaw) && in_.slope[index(step.fixed_jaw)] > 0)
      out +=
          fmt::format("; the side at the fixed jaw slopes by {:.1f}\u00B0: a strip of that taper behind it",
                      degrees(in_.slope[index(step.fixed_jaw)]));
    return out;
  }

  void sides(int face, int jaw) {
    if (!is_cut(face)) return;
    if (!there(jaw) || (!is_true(jaw) && is_true(opposite(jaw)))) jaw = opposite(jaw);
    SquaringStep step;
    step.cut = face;
    step.down = if_there(opposite(face));
    step.seating = seated(step.down);
    step.to_size = is_true(step.down);
    if (!there(jaw)) { // no side for the jaws
      step.why = "no flat side to hold it by: clamped";
      if (step.to_size) step.parallel_to = step.down, step.out_of_parallel = options_.seat;
      return take(std::move(step), face);
    }
    step.fixed_jaw = jaw;
    step.moving_jaw = if_there(opposite(jaw));
    step.rod = !(is_true(jaw) && is_true(opposite(jaw)));
    if (is_true(jaw)) {
      step.square_to = jaw;
      step.out_of_square = options_.jaw;
    }
    if (step.to_size) {
      step.parallel_to = step.down;
      // With a rod the fixed jaw decides: parallel as both faces are square to what lies there.
      step.out_of_parallel = step.rod ? std::hypot(options_.jaw, options_.jaw) : options_.seat;
    }
    step.why = !is_true(jaw) ? "the best raw face to the fixed jaw; the rod lets it lie flat there"
               : step.rod
                   ? fmt::format("{} is true: at the fixed jaw it makes {} square; the rod takes "
                                 "up what is raw",
                                 jaw, face)
                   : fmt::format("{} and {} are true: no rod, seated on {}", jaw, opposite(jaw), step.down);
    take(std::move(step), face);
  }

  void end(int face) {
    if (!is_cut(face)) return;
    SquaringStep step;
    step.cut = face;
    step.fixed_jaw = 1;
    step.moving_jaw = if_there(4);
    step.rod = !is_true(4);
    step.down = if_there(opposite(face));
    step.to_size = is_true(step.down);
    step.square_to = 1;
    step.out_of_square = options_.jaw;
    if (step.to_size) {
      step.seating = Seating::hammered;
      step.parallel_to = step.down;
      step.out_of_parallel = options_.seat;
      step.why = fmt::format("standing on {}, which is true", step.down);
    } else {
      step.seating = Seating::by_square;
      step.upright_by = is_true(2) ? 2 : 0;
      step.why = is_true(2) ? "set upright by a square against 2: a raw end is no seat"
                            : "set upright by a square on what is marked out: a raw end is no seat";
    }
    take(std::move(step), face);
  }

  void take(SquaringStep step, int face) {
    step.care = care(step);
    true_[index(face)] = true;
    const double longest = *std::max_element(in_.size.begin(), in_.size.end());
    const double lean = std::max({step.out_of_square, step.out_of_parallel,
                                  step.seating == Seating::by_square ? options_.by_square : 0.0});
    result_.worst = std::max(result_.worst, 3 * lean * longest);
    result_.steps.push_back(std::move(step));
  }

  SquaringInput in_;
  SquaringOptions options_;
  std::array<bool, block_faces> true_{};
  SquaringResult result_;
};

} // namespace

SquaringResult squaring(const SquaringInput& input, const SquaringOptions& options) {
  return Squaring(input, options).run();
}

std::string squaring_text(const SquaringStep& step) {
  const auto seating = step.seating == Seating::hammered ? fmt::format("hammered down on {}", step.down)
                       : step.seating == Seating::packed
                           ? fmt::format("packed level on {}, no hammer", step.down)
                           : fmt::format("{} down, upright by a square", step.down);
  if (step.fixed_jaw == 0)
    return fmt::format("cut {}{}: clamped, {}", step.cut, step.to_size ? " to size" : "", seating) +
           step.care;
  return fmt::format("cut {}{}: {} to the fixed jaw, {}, {}", step.cut, step.to_size ? " to size" : "",
                     step.fixed_jaw,
                     step.rod ? fmt::format("a soft rod at {}", step.moving_jaw)
                              : fmt::format("{} at the moving jaw without a rod", step.moving_jaw),
                     seating) +
         step.care;
}

} // namespace datrin::route
