#pragma once
// The smallest bar, plate or tube that is sold and holds a part: with skin, facing, something to hold it by
// and the parting cut. Lengths mm.

#include "quantity/reckoning.h"
#include "stock/stock_body.h"

#include <optional>
#include <string>
#include <vector>

namespace datrin::stock {

struct ChooseInput {
  std::vector<Patch> patches; ///< of the part, with extents
  Unit unit = Unit::mm;       ///< whose sizes are looked through, and of the words
};

struct ChooseOptions {
  double skin = 0.5;            ///< a side: under the skin of bar and plate, and what is off true
  std::optional<double> facing; ///< an end; left out: 1 mm, of what is sold in inches 1/32 in
  double parting = 3;           ///< width of the parting cut, or of the saw's
  double chucking = 0;   ///< kept to hold it by; a bar-like one: 0 where it is sawn off and held by itself
  std::size_t most = 12; ///< choices kept
};

struct StockChoice {
  Stock stock;       ///< centred, along the part's way it fits best
  std::string text;  ///< "25 mm round bar, 66 mm"
  double takes = 0;  ///< mm of bar with parting and chucking
  Reckoning sum;     ///< of that
  double volume = 0; ///< mm³ of what is taken
  double least = 0;  ///< mm: thinnest metal a side that comes off
  double most = 0;   ///< and the thickest
};

enum class ChooseStatus { not_run, found, refused };

struct ChooseResult {
  ChooseStatus status = ChooseStatus::not_run;
  std::string message;
  std::vector<StockChoice> choices; ///< least metal first, the smallest of every form
  bool usable() const { return status == ChooseStatus::found; }
};

/// Of every form the smallest size sold that has `skin` over all the part along its length; a tube only where
/// a hole runs through it about the axis. The part is tried with each of its three directions along the bar.
ChooseResult choose_stock(const ChooseInput& input, const ChooseOptions& options = {});

/// Largest square, hexagon (across the flats) and rectangle of a given proportion (width over thickness) that
/// a round of `diameter` holds: d/√2, d·√3/2, and w = d·r/√(1 + r²).
double largest_square(double diameter);
double largest_hexagon(double diameter);
double largest_width(double diameter, double proportion);

} // namespace datrin::stock
