#include "chains/joint_pairs.h"

#include <algorithm>

namespace datrin::chains {

using namespace build;

std::vector<PiecePair> joint_pairs(const Build& build, const Joint& joint) {
  if (!joint.pairs.empty()) return joint.pairs;
  const auto* hole = build.find<Dimension>(joint.hole);
  const auto* shaft = build.find<Dimension>(joint.shaft);
  std::vector<PiecePair> pairs;
  if (hole == nullptr) return pairs;
  const auto good_pieces = [&build](Id part) { // a rejected one mates nothing
    std::vector<Id> pieces;
    for (const auto& [id, piece] : build.pieces_of(part))
      if (piece.rejected.empty()) pieces.push_back(id);
    return pieces;
  };
  const auto holes = good_pieces(hole->part);
  if (shaft == nullptr) {
    for (const Id id : holes) pairs.emplace_back(id, 0);
    return pairs;
  }
  const auto shafts = good_pieces(shaft->part);
  if (holes.empty() || shafts.empty()) return pairs;
  const auto n = std::max(holes.size(), shafts.size());
  for (std::size_t k = 0; k < n; ++k) pairs.emplace_back(holes[k % holes.size()], shafts[k % shafts.size()]);
  return pairs;
}

namespace {

std::string wrong_pair(const Build& build, const Joint& joint, const PiecePair& pair) {
  const auto of = [&](Id dimension, Id piece) {
    const auto* d = build.find<Dimension>(dimension);
    const auto* p = build.find<Piece>(piece);
    return d != nullptr && p != nullptr && p->part == d->part;
  };
  if (!of(joint.hole, pair.first)) return "choose a piece of the part with the hole";
  if (joint.shaft != 0 && !of(joint.shaft, pair.second)) return "choose a piece of the part with the shaft";
  return {};
}

} // namespace

Paired pair_them(const Build& build, const Joint& joint, const PiecePair& pair) {
  Paired out{joint, wrong_pair(build, joint, pair)};
  if (!out.ok()) return out;
  auto pairs = joint_pairs(build, joint);
  const auto several = [&](Id piece) {
    const auto* p = build.find<Piece>(piece);
    return p != nullptr && build.pieces_of(p->part).size() > 1;
  };
  // A piece of which there is one only may meet several.
  const bool holes = several(pair.first), shafts = several(pair.second);
  PiecePair left{0, 0};
  std::erase_if(pairs, [&](const PiecePair& old) {
    const bool hole = holes && old.first == pair.first, shaft = shafts && old.second == pair.second;
    if (hole && !shaft) left.second = old.second;
    if (shaft && !hole) left.first = old.first;
    return hole || shaft || old == pair;
  });
  pairs.push_back(pair);
  if (holes && shafts && left.first != 0 && left.second != 0) pairs.push_back(left);
  const auto number = [&](Id piece) {
    const auto* p = build.find<Piece>(piece);
    return p != nullptr ? p->number : 0;
  };
  std::stable_sort(pairs.begin(), pairs.end(), [&](const PiecePair& a, const PiecePair& b) {
    return std::pair(number(a.first), number(a.second)) < std::pair(number(b.first), number(b.second));
  });
  out.joint.pairs = std::move(pairs);
  return out;
}

Paired pair_only(const Build& build, const Joint& joint, const PiecePair& pair) {
  Paired out{joint, wrong_pair(build, joint, pair)};
  if (out.ok()) out.joint.pairs = {pair};
  return out;
}

} // namespace datrin::chains
