#pragma once
// What cannot be held together, one conflict at a time, and what ends each.
//
// A conflict is a smallest set of limits that no numbers satisfy: without any one of them the others could be
// held. It is found from the multipliers of "make the least of all margins, in mm, as large as it can be": by
// Farkas' lemma they prove the set, and of a basic answer it is a smallest one (Gleeson and Ryan 1990). With
// multipliers λ summing to 1 and a least margin t < 0, limit i moved outwards by −t / λ_i, alone, ends it:
// not by less. Lengths mm.

#include "chains/targets.h"
#include "quantity/unit.h"

#include <string>
#include <vector>

namespace datrin::chains {

/// One limit of a conflict, and how far it alone must move outwards to end it.
struct ConflictWay {
  int condition = -1, dimension = -1; ///< of which of the two it is a limit
  bool upper = false;
  double by = 0; ///< mm
};

struct Conflict {
  std::vector<ConflictWay> ways; ///< the least change first
  bool concerns_condition(int condition) const;
  bool concerns_dimension(int dimension) const;
};

/// The conflicts of `input`, of which `result` is the answer; none where all of it is held. Where there are
/// several in numbers that are joined, each is named as if the least change had ended those before it. Limits
/// of dimensions that have none of their own never count.
std::vector<Conflict> conflicts(const TargetsInput& input, const TargetsResult& result);

/// "the most of crank in its box must grow by 0.0186 mm"
std::string way_words(const TargetsInput& input, const ConflictWay& way, Unit unit);
/// How its least change comes about: the limits that fight, each as often as it weighs, and what is measured
/// between them. The numbers still to be made fall out. Of a conflict named after others, what their
/// least changes leave has a line of its own.
Reckoning conflict_sum(const TargetsInput& input, const Conflict& conflict);
/// All its ways, parted by "or", for a sentence.
std::string conflict_words(const TargetsInput& input, const Conflict& conflict, Unit unit);

} // namespace datrin::chains
