#pragma once
// The history of a pressed crank being trued: read on both sides, one thing done to it, read again. How it
// answers is learnt from what each blow did. Kept with the piece.

#include "build/edits.h"
#include "quantity/length.h"
#include "quantity/reckoning.h"
#include "truing/crank.h"

#include <string>
#include <vector>

namespace datrin::truing {

/// One reading of it, and what was done then.
struct CrankRow {
  build::Id round = 0;
  double left = 0, right = 0; ///< mm the indicator shows over a turn: twice the first harmonic
  double form = 0;            ///< largest departure of a reading from that: of the journals themselves
  CrankMove move = CrankMove::none;
  double wanted = 0; ///< mm it should have done
  double did = 0;    ///< mm it did, by the next reading; 0: not read yet
  bool answered = false;
  std::string at;
};

struct CrankLog {
  std::vector<CrankRow> rows;
  CrankInput input; ///< by the last reading
  std::vector<CrankBlow> history;
  CrankAdvice advice; ///< what to do next; not ok where nothing was read
  /// mm to ask of it, at the wedge where that is known, by how it answered so far; 0: nothing.
  double asked() const;
  bool any() const { return !rows.empty(); }
};

CrankLog crank_log(const build::Build& build, build::Id piece);

struct CrankTyped {
  std::string left, right; ///< "0:0.02 90:0.05 …", or readings alone, evenly round from the pin
  bool bore = false;
  double shaft = 0, rim = 0, limit = 0.02; ///< mm
};

struct CrankEdit {
  build::Edit edit;
  std::string wrong; ///< empty: it is kept
  bool ok() const { return wrong.empty(); }
};

/// What was read, without units in `unit`.
CrankEdit read_crank(const build::Build& build, build::Id piece, const CrankTyped& typed, Unit unit,
                     const std::string& at);

/// What was done after the last reading: as advised, or otherwise.
CrankEdit strike_crank(const build::Build& build, build::Id piece, CrankMove move, double wanted,
                       const std::string& note);

/// The last reading is put right: it is typed anew. Empty where there is none.
build::Edit take_back_reading(const build::Build& build, build::Id piece);

/// How what is asked of it next comes about, its answer in `unit` and the other. No lines: nothing is asked.
Reckoning advice_sum(const CrankLog& log, Unit unit);

/// "opened", "closed", "right web twisted".
std::string move_text(CrankMove move);

} // namespace datrin::truing
