#include "chains/next_number.h"

#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <unordered_set>

namespace datrin::chains {

using namespace build;

std::vector<NextNumber> order_of_making(const Build& build, const BuildTargets& targets) {
  std::vector<NextNumber> list;
  if (!targets.result.usable()) return list;
  // For every number: the unmade and the made mates of its conditions.
  std::vector<std::vector<int>> unmade(targets.made.size()), done(targets.made.size());
  for (const auto& c : targets.input.conditions)
    for (const auto& a : c.terms)
      for (const auto& b : c.terms) {
        if (a.dimension == b.dimension) continue;
        const bool measured =
            targets.input.dimensions[static_cast<std::size_t>(b.dimension)].measured.has_value();
        (measured ? done : unmade)[static_cast<std::size_t>(a.dimension)].push_back(b.dimension);
      }
  for (auto* lists : {&unmade, &done}) // each mate once, however many conditions join the two
    for (auto& mates : *lists) {
      std::sort(mates.begin(), mates.end());
      mates.erase(std::unique(mates.begin(), mates.end()), mates.end());
    }
  std::unordered_set<Id> holes;
  for (const auto& [id, joint] : build.joints()) holes.insert(joint.hole);
  struct Standing {
    std::size_t target = 0;
    bool follows = false, hole = false; ///< an unmade mate can still follow it
    double hardness = 0, room = 0;
  };
  std::vector<Standing> places;
  for (std::size_t k = 0; k < targets.result.targets.size(); ++k) {
    const auto& t = targets.result.targets[k];
    const auto at = static_cast<std::size_t>(t.dimension);
    const auto* d = build.find<Dimension>(targets.made[at].dimension);
    places.push_back({k, !unmade[at].empty(), holes.contains(targets.made[at].dimension),
                      d == nullptr ? 0 : capability_of(*d), t.room});
  }
  std::stable_sort(places.begin(), places.end(), [](const Standing& a, const Standing& b) {
    if (a.follows != b.follows) return a.follows; // what something can still be fitted to comes first
    if (std::abs(a.hardness - b.hardness) > 1e-9) return a.hardness > b.hardness;
    if (a.hole != b.hole) return a.hole;
    return a.room < b.room;
  });
  for (const auto& place : places) {
    const auto& t = targets.result.targets[place.target];
    const auto at = static_cast<std::size_t>(t.dimension);
    NextNumber n;
    n.made = targets.made[at];
    n.make = t.make;
    n.hold = t.hold;
    n.room = t.room;
    n.waits_for = static_cast<int>(unmade[at].size());
    n.mate_made = !done[at].empty();
    for (const auto* mates : {&unmade[at], &done[at]})
      for (const int mate : *mates) n.mates.push_back(targets.made[static_cast<std::size_t>(mate)]);
    const auto hold = length_text(place.hardness, build.info().unit,
                                  {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
    n.why = n.waits_for == 0 ? std::string("what it fits is made: cut it to suit")
                             : fmt::format("\u00B1{} can be held there; {} that fit{} it can still follow",
                                           hold, n.waits_for, n.waits_for == 1 ? "s" : "");
    list.push_back(std::move(n));
  }
  return list;
}

std::vector<NextNumber> next_to_cut(std::vector<NextNumber> order) {
  std::stable_partition(order.begin(), order.end(), [](const NextNumber& n) { return n.can_be_cut(); });
  return order;
}

} // namespace datrin::chains
