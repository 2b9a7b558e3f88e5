// How often "95 % sure" is right: castings whose whole surface is known, touched in a few places; the margin
// called sure against the true least. Also how long it takes for 500 touches, and for asking where to touch
// next.
//   build/release/bin/trial-certainty [castings]

#include "casting/next_touch.h"
#include "sim/rough_field.h"

#include <fmt/format.h>

#include <chrono>
#include <cstdlib>

using namespace datrin;

int main(int argc, char** argv) {
  const int castings = argc > 1 ? std::atoi(argv[1]) : 500;
  fmt::print("{:>8} {:>9} {:>11} {:>24}\n", "touches", "castings", "sure right", "of those called so: clean");
  for (const int touches : {7, 10, 16}) {
    int right = 0, called = 0, clean = 0;
    double below = 0;
    for (int k = 0; k < castings; ++k) {
      const auto casting =
          sim::field_casting({.touches = touches, .seed = 1000 + static_cast<std::uint64_t>(k)});
      const auto found =
          casting::certainty(casting.input, {}, casting.reach, {.seed = static_cast<std::uint64_t>(k)});
      right += casting.least >= found.sure;
      below += casting.least - found.sure;
      if (found.standing == casting::Standing::sure) {
        ++called;
        clean += casting.least >= 0;
      }
    }
    fmt::print("{:>8} {:>9} {:>9.1f} % {:>10} of {:>4} ({:.1f} %)   room kept back {:.2f} mm\n", touches,
               castings, 100.0 * right / castings, clean, called, called ? 100.0 * clean / called : 0.0,
               below / castings);
  }
  const auto large = sim::field_casting({.faces = 6, .touches = 84, .seed = 5});
  const auto seconds = [](auto&& work) {
    const auto start = std::chrono::steady_clock::now();
    work();
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
  };
  casting::CertaintyResult found;
  const double t1 =
      seconds([&] { found = casting::certainty(large.input, {}, large.reach, {.keep_draws = true}); });
  const double t2 =
      seconds([&] { (void)casting::next_touches(casting::margins_at(large.input, {}), found); });
  fmt::print("504 touches on six faces: {:.0f} ms, where to touch next {:.0f} ms\n", 1000 * t1, 1000 * t2);
}
