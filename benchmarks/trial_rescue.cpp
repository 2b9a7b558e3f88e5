// Simulated tight castings: how many clean up by each hand rule, by the seat, by seat and rescue.
//   build/release/bin/trial-rescue [CASTINGS]

#include "casting/judgement.h"
#include "casting/rescue.h"
#include "sim/pedestal.h"

#include <fmt/format.h>

#include <cstdlib>
#include <map>
#include <string>

using namespace datrin;

int main(int argc, char** argv) {
  const int castings = argc > 1 ? std::max(1, std::atoi(argv[1])) : 500;
  std::map<std::string, int> clean;
  int any_rule = 0, by_seat = 0, by_single = 0, by_rescue = 0;
  for (int k = 0; k < castings; ++k) {
    sim::PedestalOptions options;
    options.seed = static_cast<std::uint64_t>(k) + 9000;
    options.tightness = 0.45 + 0.2 * (k % 3);
    const auto pedestal = sim::random_pedestal(options);
    const auto best = casting::seat(pedestal.input);
    bool any = false;
    for (const auto& hand : casting::hand_seats(pedestal.input, best.pose)) {
      const bool ok = hand.possible && hand.margins.least >= 0;
      clean[hand.name] += ok ? 1 : 0;
      any = any || ok;
    }
    any_rule += any ? 1 : 0;
    if (best.cleans_up()) {
      ++by_seat;
      continue;
    }
    casting::RescueOptions limits;
    limits.start = best.pose;
    limits.most = 1.0;
    const auto rescue = casting::find_rescues(pedestal.input, limits);
    if (rescue.status != casting::RescueStatus::found) continue;
    ++by_rescue;
    by_single += rescue.rescues.front().changes.size() == 1 ? 1 : 0;
  }
  const auto percent = [&](int n) { return 100.0 * n / castings; };
  fmt::print("{} tight castings\n", castings);
  for (const auto& [name, n] : clean) fmt::print("{:<42} {:>5.1f} %\n", name, percent(n));
  fmt::print("{:<42} {:>5.1f} %\n", "the best of the three", percent(any_rule));
  fmt::print("{:<42} {:>5.1f} %\n", "the seat", percent(by_seat));
  fmt::print("{:<42} {:>5.1f} %\n", "the seat, or one change of at most 1 mm", percent(by_seat + by_single));
  fmt::print("{:<42} {:>5.1f} %\n", "the seat, or changes of at most 1 mm each",
             percent(by_seat + by_rescue));
}
