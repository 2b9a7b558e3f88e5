#pragma once
// The joints and chains of a build as make-to targets: one number for each dimension of each piece.
// (chains uses threads and fits here, for the holes over screws; readings for what is made; build holds the
// records.)
//
// A dimension that was read and has metal on still counts as to be made. So does one within its limits that
// is too tight for a mate that is made, while cutting on would cure it: of two the one read last. A dimension
// without limits is free: it takes what its conditions want.

#include "build/made.h"
#include "chains/chain.h"
#include "chains/joint_pairs.h"
#include "chains/targets.h"
#include "chains/targets_parts.h"
#include "readings/size_now.h"

#include <optional>
#include <string>
#include <unordered_map>
#include <vector>

namespace datrin::chains {

using build::Id;

using build::Made;
using build::made_name;
using build::MadeHash;

/// The ± its maker can hold: what was stated; else an eighth of the limits' width, at least 0.005 mm.
double capability_of(const build::Dimension& dimension);

/// What a condition of the targets came from.
struct ConditionSource {
  Id joint = 0, chain = 0;
  Id hole_piece = 0, shaft_piece = 0; ///< of a joint
};

enum class MadeSoFar { nothing, some, all };

struct BuildTargets {
  TargetsInput input;
  std::vector<Made> made;               ///< per dimension of the input
  std::vector<readings::SizeNow> sizes; ///< as each is now
  std::vector<ConditionSource> sources; ///< per condition
  std::vector<std::string> left_out;    ///< joints and chains that say nothing yet, and why
  TargetsResult result;
  bool function_first = false; ///< the drawing had to give way: worked out with the conditions first

  int index_of(const Made& made) const; ///< −1: takes part in nothing
  const Target* target(const Made& made) const;
  /// What of `made` was read and stands; metal still on, or nothing read: none.
  const readings::SizeNow* size(const Made& made) const;
  /// The conditions of a joint (one a pair), or the one of a chain, in their order.
  const std::vector<int>& conditions_of(Id joint_or_chain) const;
  /// Of the conditions of a joint (all its pairs), the one with the least room; −1: none.
  int tightest_of_joint(Id joint) const;
  int condition_of_chain(Id chain) const;
  /// How much of what its conditions stand on is made.
  MadeSoFar made_so_far(Id joint_or_chain) const;

private:
  friend BuildTargets build_targets(const build::Build& build, TargetsMemory* memory);
  std::unordered_map<Made, int, MadeHash> index_;
  std::unordered_map<Id, std::vector<int>> conditions_; ///< by the joint or chain they came from
};

/// Everything, in parts that no condition joins: each with conditions and drawing limits together; where that
/// cannot hold, with the conditions first, raised to room 1 before the drawing has its say, so that the
/// drawing is departed from as little as that takes. With a `memory`, parts that are as they were when it was
/// last given are taken from it.
BuildTargets build_targets(const build::Build& build, TargetsMemory* memory = nullptr);

/// The target of `dimension` (of the input, to be made) if the drawing left it free: the middle its mates
/// want.
std::optional<Target> wanted_by_mates(const BuildTargets& targets, int dimension);

/// How far, mm, the limit that `target` departs from must give way for it to lie where its mates want it,
/// with no less room to that limit than they leave. Above 0 the upper limit, below 0 the lower.
double widening(const BuildTargets& targets, const Target& target);

/// What the newest reading moved: targets as they were without it, and as they are.
struct Moved {
  Made made;
  double was = 0, now = 0;
};
struct LastReading {
  Made made;                ///< that was read; dimension 0: nothing was read yet
  std::vector<Moved> moved; ///< by more than 0.0005 mm, largest first
  const Moved* of(const Made& made) const;
};
LastReading last_reading(const BuildTargets& targets);

/// A chain of the build with what is measured put in.
ChainInput chain_input(const build::Build& build, const build::Chain& chain);

} // namespace datrin::chains
