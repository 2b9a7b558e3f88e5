#pragma once
// Pieces sawn from bars: offcuts at hand first, then the fewest new bars, and the longest offcut left over.
// Lengths mm.

#include <string>
#include <vector>

namespace datrin::stock {

struct CutListInput {
  std::vector<double> pieces;  ///< each once
  std::vector<double> offcuts; ///< at hand, each once
  double bar = 0;              ///< length of a new bar; 0: there are only the offcuts
  double kerf = 2;             ///< the saw's cut: one after every piece but one that ends the bar
};

struct CutListOptions {
  long most_steps = 50'000; ///< of the search; after them the best found stands
};

struct SawnBar {
  double length = 0;
  bool offcut = false;     ///< of those at hand
  std::vector<int> pieces; ///< by their place in the input, longest first
  double left = 0;         ///< after all cuts
};

enum class CutListStatus { not_run, found, refused };

struct CutListResult {
  CutListStatus status = CutListStatus::not_run;
  std::string message;
  std::vector<SawnBar> bars; ///< those cut from
  int new_bars = 0;
  int least_bars = 0;      ///< no cutting needs fewer new ones
  bool proved = false;     ///< nothing needs fewer new bars, nor leaves a longer offcut of that many
  double longest_left = 0; ///< of the offcuts of new bars
  double lost = 0;         ///< mm in saw cuts
  bool usable() const { return status == CutListStatus::found; }
};

/// Branch and bound, the longest piece first; bars alike are tried once. Where it stops early the first that
/// was found (longest first into the fullest it goes in) or better stands, and `proved` is false.
CutListResult cut_list(const CutListInput& input, const CutListOptions& options = {});

} // namespace datrin::stock
