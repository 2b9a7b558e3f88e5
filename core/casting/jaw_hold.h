#pragma once
// How much of a drafted face a flat jaw really holds. A jaw stands square; a face drawn with draft leans away
// from it, and touches it along one edge. Packing that gives (card, copper, lead) lets it bear as far as the
// gap is no wider than it gives:
//
//   gap at a height h from the edge that touches = h · tan(draft);  borne = min(high, give / tan(draft))

namespace datrin::casting {

struct JawInput {
  double high = 0;  ///< mm of the face within the jaws, along the draw
  double draft = 0; ///< radians it leans
  double give = 0;  ///< mm the packing gives; 0: none, metal on metal
};

struct JawHold {
  double gap = 0;    ///< mm at the far end of the face
  double borne = 0;  ///< mm of the height the jaw bears on; all of it where there is no draft
  bool line = false; ///< it touches along one edge only: it may rock
};

/// Values below 0 are taken as 0; a draft of 90° or more bears nothing.
JawHold jaw_hold(const JawInput& input);

/// What card between jaw and casting gives, mm: common practice, one thickness of it.
inline constexpr double card_gives = 0.25;

} // namespace datrin::casting
