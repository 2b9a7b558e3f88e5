#pragma once
// Make-to targets: with what is measured fixed, the number for every dimension still to be made that leaves
// the most room in all conditions and drawing limits together. Lengths mm.
//
//   condition   g = Σ coefficient · dimension,  least ≤ g ≤ most
//   spread      Σ |coefficient| · (capability, or uncertainty when measured); 0.001 where that is 0
//   room        of a limit: how far the expected value lies inside it, over the spread
//
// Room 1: held even when everything made goes to the end of its capability. All rooms are levelled by
// margin/lexicographic.h; what is then still free stays nearest its nominal.

#include "margin/lexicographic.h"
#include "quantity/reckoning.h"

#include <optional>
#include <string>
#include <vector>

namespace datrin::chains {

struct TargetDimension {
  std::string id;
  double nominal = 0, lower = 0, upper = 0; ///< limits of the drawing, not deviations
  double capability = 0;                    ///< ±, above 0, when not measured
  std::optional<double> measured;
  double uncertainty = 0;
  bool limited = true; ///< lower and upper are the drawing's; else only how far anybody would let it go

  double spread() const { return measured ? uncertainty : capability; }
};

struct TargetTerm {
  int dimension = 0;
  double coefficient = 1;
};

struct TargetCondition {
  std::string id;
  std::vector<TargetTerm> terms;
  double least = -margin::infinite, most = margin::infinite;
  double spread = 0; ///< mm, when it is known better than by its terms (a comparison); 0: by its terms
};

struct TargetsInput {
  std::vector<TargetDimension> dimensions;
  std::vector<TargetCondition> conditions;
};

struct TargetsOptions {
  bool function_first = false;      ///< the conditions are levelled before the drawing's limits count at all
  double enough = margin::infinite; ///< with function_first: conditions are raised to this room before the
                                    ///< drawing has its say, and have what is left afterwards
};

enum class TargetsStatus { not_run, computed, refused, failed };

struct Target {
  int dimension = 0;
  double make = 0;
  double hold = 0; ///< ± = capability × the least room among the limits it takes part in; where the drawing
                   ///< gave way (function_first), among those of its conditions
  double room = 0; ///< that least room
  double departs = 0; ///< mm beyond the drawing's limit: above 0 over the upper, below 0 under the lower
};

struct ConditionRoom {
  double expected = 0, spread = 0, room = 0;
  double room_least = 0, room_most = 0; ///< to either limit; infinite where there is none
  bool limiting = false;                ///< on the least room of all
};

struct HeldBy {
  std::string limit; ///< "big end:min", "crank.pin.diameter:lower"
  int condition = -1, dimension = -1;
  bool upper = false;
  double share = 0; ///< of the least room, per spread eased there; the shares sum to 1
};

struct TargetsResult {
  TargetsStatus status = TargetsStatus::not_run;
  std::string message;
  double least_room = margin::infinite; ///< over every limit; infinite when there is none
  bool feasible = false;                ///< least_room ≥ 0
  std::vector<Target> targets;          ///< of the dimensions not measured, in their order
  std::vector<ConditionRoom> conditions;
  std::vector<HeldBy> held_by; ///< what holds the least room where it is, largest share first
  bool proved = false;         ///< the shadow prices balance: no other numbers have a larger least room
  int programmes = 0;

  bool usable() const { return status == TargetsStatus::computed; }
  const Target* target(int dimension) const;
};

inline constexpr double limiting_band = 1e-6; ///< of room: as near to the least of all limits

TargetsResult targets(const TargetsInput& input, const TargetsOptions& options = {});

/// How the target of `dimension` comes about: from the condition with the least room it takes part in, solved
/// for it.
Reckoning target_sum(const TargetsInput& input, const TargetsResult& result, int dimension);

/// How the expected value of `condition` adds up: each term with what was measured, is to be made, or is
/// drawn.
Reckoning condition_sum(const TargetsInput& input, const TargetsResult& result, int condition);

} // namespace datrin::chains
