// How many slips put into simulated surveys are found, explained, and how often a good touch is called one.
//   build/release/bin/trial-mistakes [SURVEYS]

#include "sim/slips.h"

#include <fmt/format.h>

#include <cstdlib>
#include <string>

using namespace datrin;
using casting::MistakeKind;

int main(int argc, char** argv) {
  const int surveys = argc > 1 ? std::max(1, std::atoi(argv[1])) : 300;
  const std::pair<MistakeKind, const char*> kinds[] = {
      {MistakeKind::dial_turn, "one turn of a 1 mm dial"}, {MistakeKind::sign, "sign"},
      {MistakeKind::inch_for_mm, "inch typed for mm"},     {MistakeKind::mm_for_inch, "mm typed for inch"},
      {MistakeKind::radius, "radius the wrong way"},       {MistakeKind::wrong_surface, "wrong surface"}};
  fmt::print("{} surveys of 84 touches each, one slip in each\n", surveys);
  for (const double roughness : {0.10, 0.15, 0.20}) {
    fmt::print("\nroughness {:.2f} mm          found   explained   good touches flagged\n", roughness);
    int good = 0, flagged = 0;
    for (int k = 0; k < surveys; ++k) {
      sim::PedestalOptions options;
      options.seed = static_cast<std::uint64_t>(k) + 5000;
      options.roughness = roughness;
      const auto input = sim::booked(sim::random_pedestal(options));
      good += static_cast<int>(input.touches.size());
      flagged += static_cast<int>(casting::find_mistakes(input).mistakes.size());
    }
    fmt::print("{:<26} {:>6}   {:>9}   {:>6.2f} %\n", "no slip at all", "-", "-", 100.0 * flagged / good);
    for (const auto& [kind, name] : kinds) {
      int put = 0, found = 0, explained = 0;
      good = flagged = 0;
      for (int k = 0; k < surveys; ++k) {
        sim::PedestalOptions options;
        options.seed = static_cast<std::uint64_t>(k) + 1000;
        options.roughness = roughness;
        auto input = sim::booked(sim::random_pedestal(options));
        const auto slip = sim::put_in_slip(input, kind, static_cast<std::uint64_t>(k));
        if (slip.touch < 0) continue;
        ++put;
        good += static_cast<int>(input.touches.size()) - 1;
        for (const auto& mistake : casting::find_mistakes(input).mistakes) {
          if (mistake.touch == slip.touch) {
            ++found;
            explained += mistake.kind == kind ? 1 : 0;
          } else {
            ++flagged;
          }
        }
      }
      fmt::print("{:<26} {:>5.1f} %   {:>7.1f} %   {:>6.2f} %\n", name, 100.0 * found / put,
                 100.0 * explained / put, 100.0 * flagged / good);
    }
  }
}
