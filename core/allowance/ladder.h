#pragma once
// Drills to a hole that is reamed, bored or drilled to size: which, in what order, and what is left
// for the next.

#include "quantity/unit.h"

#include <string>
#include <vector>

namespace datrin::allowance {

enum class HoleMade { drilled, reamed, bored };

struct LadderInput {
  HoleMade made = HoleMade::reamed;
  double size = 0;        ///< mm: finished diameter (of a hole to be tapped: its tapping drill, threads/)
  double cored = 0;       ///< mm: diameter of a hole that is there already; 0: solid metal
  double core_off = 0;    ///< mm: how far the middle of that hole stands off the finished one's
  Unit drills = Unit::mm; ///< which drawer: metric by tenths, or fractions, numbers and letters;
                          ///< and the unit of the words
};

struct LadderOptions {
  double first_without_pilot = 8; ///< mm: up to here one drill goes straight in
  double pilot = 0.55;            ///< a pilot is this much of the drill after it: a little over its web
  double boring = 0.5;            ///< mm a side left for boring
  double follows = 0.2;           ///< mm: a core further off leads a drill astray (common practice)
};

struct LadderStep {
  std::string name; ///< "6.8 mm", "17/64 in", "F"
  double size = 0;  ///< mm
  double takes = 0; ///< mm a side off what was there before
};

enum class LadderStatus { not_run, made, refused };

struct LadderResult {
  LadderStatus status = LadderStatus::not_run;
  std::string message;
  std::vector<LadderStep> drills;
  double left = 0;                      ///< mm on the diameter for reamer or boring tool
  double least_left = 0, most_left = 0; ///< mm: what a reamer wants
  std::string verdict;

  bool usable() const { return status == LadderStatus::made; }
};

LadderResult drill_ladder(const LadderInput& input, const LadderOptions& options = {});

/// What a reamer of `size` mm wants left on the diameter, mm: least, usual, most.
/// data/reaming_allowances.csv.
struct ReamingAllowance {
  double least = 0, usual = 0, most = 0;
};
ReamingAllowance reaming_allowance(double size);

} // namespace datrin::allowance
