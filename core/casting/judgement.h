#pragma once
// What a person wants of a seat beside the most room everywhere, the seats that hand rules give, and what
// holds a seat in plain words.

#include "casting/seat.h"

#include <string>
#include <vector>

namespace datrin::casting {

struct SeatWishes {
  std::array<bool, 6> locked{}; ///< as SeatOptions::locked
  int central_bore = -1; ///< index of a bore that is to be central in the rough boss around it; −1: none
};

/// The best seat among those that keep the wishes. A central bore is placed on the middle of the touches of
/// the boss around it (same axis, as in the drawing) and then not moved across its axis any more.
SeatResult wished_seat(const SeatInput& input, const SeatWishes& wishes, const SeatOptions& options = {});

/// The boss or other bore around a bore on the same axis; −1 when the drawing has none.
int around(const SeatInput& input, int bore);

/// A seat as a hand rule gives it.
struct HandSeat {
  std::string name; ///< "from the core"
  std::string how;  ///< "the cored hole is taken as it is; the rest follows"
  bool possible = false;
  Pose pose;
  SeatMargins margins;
};

/// Marking out from the core, from the boss, from the outside faces (common practice): the touches of those
/// surfaces alone turn the part and place it by least squares; along an axis on which they say nothing what
/// is over is evened out, better than by hand.
std::vector<HandSeat> hand_seats(const SeatInput& input, const Pose& start,
                                 const std::function<bool()>& should_stop = {});

/// What holds a seat, as forces in balance: which touches keep it from going
/// which way: "end B 21 and 28 hold it from going right; bore 57 and 59 from going left"
std::vector<std::string> explain_balance(const SeatInput& input, const SeatResult& seat);

/// What easing each surface by `eased` mm gains in the least room, by its shadow price, most first; surfaces
/// that gain nothing are left out.
struct Easing {
  int surface = -1;
  int wall_to = -1; ///< a wall over this surface; −1: the surface's own stock
  double gain = 0;  ///< mm
};
std::vector<Easing> easings(const SeatResult& seat, double eased);

} // namespace datrin::casting
