#pragma once
// Two that mate, tried in each other: from how far it went and how it felt, and what was read along hole and
// shaft, where metal must come off, and how much. Lengths mm; depths of a hole from its mouth, of a shaft
// from the end that goes in first; what comes off is said on the diameter.

#include "build/records.h"
#include "fits/form.h"
#include "quantity/reckoning.h"

#include <string>
#include <vector>

namespace datrin::fits {

struct TrialInput {
  std::vector<FormReading> hole, shaft; ///< read so far; one alone: taken to be the same all along
  bool cut_hole = true;                 ///< what the metal comes off: the hole, else the shaft
  build::Felt felt = build::Felt::jams;
  double depth = 0;           ///< how far it went in, where it jams
  double length = 0;          ///< how far it is to go; 0: not stated, as deep as was read
  double wanted = 0;          ///< clearance aimed at
  double least = 0, most = 0; ///< clearance allowed; below 0: interference
  double uncertainty = 0;     ///< of the clearance by the readings, 95 %
  Unit unit = Unit::mm;       ///< of the words
};

enum class TrialStatus {
  not_run,
  bad_input,   ///< see the message
  read_first,  ///< hole or shaft was not read: nothing can be said of where
  relieve,     ///< metal comes off, see `off`
  finished,    ///< it goes as it was meant
  too_loose,   ///< more clearance than allowed: nothing comes off any more
  not_the_size ///< what was felt is not what the readings say: something else holds
};

struct TrialResult {
  TrialStatus status = TrialStatus::not_run;
  std::string message;     ///< what is wrong, and where
  std::string words;       ///< what was found and what to do, in sentences
  double length = 0;       ///< how far it is to go
  double reach = 0;        ///< how far it went
  double gap = 0;          ///< least clearance by the readings as far as it went in; below 0: too tight
  double gap_at = 0;       ///< depth in the hole where that is
  double off = 0;          ///< most that must come off, on the diameter
  double off_at = 0;       ///< and where: depth in the hole, or from the end of the shaft
  double from = 0, to = 0; ///< the stretch in which metal must come off
  bool all_along = false;  ///< that is all of it
  bool by_hand = false;    ///< little enough for a lap or a polish
  Reckoning sum;           ///< of `off`
  bool usable() const { return status != TrialStatus::not_run && status != TrialStatus::bad_input; }
};

/// Between readings sizes run straight; of several at one depth the one that matters to the mate counts. When
/// the shaft has its end at depth d, what stands at depth x of the hole is d − x from its end: it goes as far
/// as hole(x) − shaft(d − x) stays above 0. To go `length` deep with the clearance wanted, the hole must at
/// every x be larger by that than all of the shaft that comes past there.
TrialResult judge_trial(const TrialInput& input);

/// What a lap or a polish takes off a diameter at a go: half a thou; in two goes a thou, more is cut (common
/// practice).
inline constexpr double at_a_go = mm_per_thou / 2;

/// Sizes along a hole or shaft.
struct Along {
  std::vector<double> depth, size; ///< depths rising
  double at(double x) const;       ///< straight between, level beyond
};
Along along(const std::vector<FormReading>& readings, bool is_hole);

} // namespace datrin::fits
