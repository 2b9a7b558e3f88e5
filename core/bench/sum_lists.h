#pragma once
// The sums by subject; put together in sums.cpp. They use allowance/ and drawing/: a sum only puts what those
// work out into fields and words.

#include "bench/sums.h"

namespace datrin::bench {

void add_stock_sums(std::vector<Sum>& list);    ///< bar, plate, blanks, nesting, fasteners
void add_casting_sums(std::vector<Sum>& list);  ///< draft, metal a side, bore maps, restating a dimension
void add_setup_sums(std::vector<Sum>& list);    ///< centring, tramming, packing, eccentrics
void add_cutting_sums(std::vector<Sum>& list);  ///< passes, drills, threads, speeds
void add_taper_sums(std::vector<Sum>& list);    ///< tapers, bolt circles
void add_truing_sums(std::vector<Sum>& list);   ///< centring, wobble, throws, balance; uses truing/
void add_dividing_sums(std::vector<Sum>& list); ///< indexing, gears, wheels; uses dividing/
void add_path_sums(std::vector<Sum>& list);     ///< where cutters and holes go; uses cutting/
void add_machine_sums(std::vector<Sum>& list);  ///< zero, moves, cutter beside a line
void add_angle_sums(std::vector<Sum>& list);    ///< tapers and dovetails by balls and pins, blocks, tailstock
void add_trade_words(std::vector<Sum>& list);   ///< what else people call them; data/sum_words.csv

/// An answer that says what is wrong with a field.
inline SumAnswer wrong(std::string message) {
  return {false, std::move(message), {}, {}};
}
inline SumAnswer right(std::vector<SumLine> lines, std::string words = {}) {
  return {true, {}, std::move(lines), std::move(words)};
}

} // namespace datrin::bench
