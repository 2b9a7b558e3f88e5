#include "readings/pair_pieces.h"

#include "readings/size_now.h"

#include <algorithm>

namespace datrin::readings {

using namespace build;
using fits::PairingGoal;
using fits::PairingInput;
using fits::Spare;

PairedPieces pair_pieces(const Build& build, const Joint& joint, PairingGoal goal) {
  PairedPieces out;
  out.joint = joint;
  const auto* hole = build.find<Dimension>(joint.hole);
  const auto* shaft = build.find<Dimension>(joint.shaft);
  if (hole == nullptr || shaft == nullptr) {
    out.wrong = "the joint needs a hole and a shaft";
    return out;
  }
  struct Pieces {
    std::vector<Id> read, not_read;
    std::vector<double> sizes;
  };
  const auto pieces_of = [&](const Dimension& d, Id dimension) {
    Pieces pieces;
    for (const auto& [id, piece] : build.pieces_of(d.part)) {
      const auto now = size_now(build, {dimension, id});
      // A size that was measured counts though a hair of metal is on; one that only a roughing cut left does
      // not.
      const bool counts = now.settled() || (now.read() && !now.by_cut && now.bound == Bound::exact);
      (counts ? pieces.read : pieces.not_read).push_back(id);
      if (counts) pieces.sizes.push_back(now.value);
    }
    return pieces;
  };
  const auto holes = pieces_of(*hole, joint.hole), shafts = pieces_of(*shaft, joint.shaft);
  PairingInput in{holes.sizes, shafts.sizes, (joint.least + joint.most) / 2, joint.least, joint.most};
  const auto result = fits::pair_up(in, goal);
  if (!result.ok) {
    out.wrong = result.message;
    return out;
  }
  out.worst = result.worst;
  out.joint.pairs.clear();
  for (const auto& pair : result.pairs)
    out.joint.pairs.emplace_back(holes.read[static_cast<std::size_t>(pair.hole)],
                                 shafts.read[static_cast<std::size_t>(pair.shaft)]);
  const auto leave = [&](const Pieces& pieces, const std::vector<Spare>& spare, bool is_hole) {
    std::vector<Id> left;
    for (const auto& one : spare) {
      left.push_back(pieces.read[static_cast<std::size_t>(one.piece)]);
      out.left.push_back({build.find<Piece>(left.back())->number, is_hole, one.mate});
    }
    left.insert(left.end(), pieces.not_read.begin(), pieces.not_read.end());
    return left;
  };
  const auto left_holes = leave(holes, result.spare_holes, true),
             left_shafts = leave(shafts, result.spare_shafts, false);
  for (std::size_t k = 0; k < std::min(left_holes.size(), left_shafts.size()); ++k)
    out.joint.pairs.emplace_back(left_holes[k], left_shafts[k]);
  return out;
}

} // namespace datrin::readings
