#pragma once
// How the metal over one surface is spent: skin, roughing, semi-finish, finish, and what is left for ream,
// lap or a fit by trial; the passes down to size, and what the dial reads after each.
//
// All depths are a side, counted from the finished surface: `most` is the metal at the highest place, `least`
// at the lowest. Taken from the bottom up: last allowance, finishing cut, semi-finishing cut; the rest is
// roughed in passes no deeper than `rough`. The first cut gets under the skin at the highest place; no cut is
// thinner than the tool can take. Schools: either the first roughing pass takes what whole passes leave over,
// or all are made alike.

#include "quantity/unit.h"

#include <string>
#include <vector>

namespace datrin::allowance {

enum class PassKind { rough, semi, finish, last };
const char* pass_name(PassKind kind); ///< "rough", "semi-finish", "finish", "to size"

struct PassInput {
  double most = 0, least = 0; ///< mm of metal a side at the highest place, and at the lowest of the raw face
  double skin = 0;            ///< mm: under the raw surface
  double rough = 1.5;         ///< mm: most a roughing pass takes
  double semi = 0, finish = 0.3, last = 0; ///< mm
  double least_cut = 0;                    ///< mm: thinner than this the tool rubs
  bool even = false;
  Unit unit = Unit::mm; ///< of the texts
  double taken = 0;     ///< mm cut off the highest place already: the raw face was that much higher
};

struct Pass {
  PassKind kind = PassKind::rough;
  double depth = 0;       ///< mm a side
  double left = 0;        ///< mm of metal a side after it
  bool all_clean = false; ///< no raw surface is left after it, at the lowest place either
};

enum class PassStatus { not_run, planned, refused };

struct PassPlan {
  PassStatus status = PassStatus::not_run;
  std::string message;
  std::vector<Pass> passes;
  double total = 0;      ///< mm: all that comes off by cutting, at the highest place
  bool cleans_up = true; ///< the lowest place has metal enough for its skin, at size
  double short_by = 0;   ///< mm: what is missing there
  std::vector<std::string>
      remarks; ///< what had to give way: a finish under the least cut, a first pass deepened

  bool usable() const { return status == PassStatus::planned; }
};

/// Refused, with the reason, where it would come to more than 1,000 roughing passes.
PassPlan plan_passes(const PassInput& input);

/// A machine's dial.
struct Dial {
  bool reads_diameter = false; ///< it moves by twice what comes off the side
  Unit unit = Unit::mm;
  double resolution = 0.01; ///< mm
};

/// What a dial of this unit is usually divided in: 0.01 mm, 0.001 in (common practice); mm.
double usual_graduation(Unit unit);

/// What the dial reads when `depth` mm a side have come off since it stood at zero, in the dial's unit,
/// rounded to its graduations.
double dial_figure(double depth, const Dial& dial);

/// The same as it stands on the dial: with as many decimals as its graduation has, 2 at least in mm, 3 in
/// inches.
std::string dial_text(double depth, const Dial& dial);

/// The passes as they were announced, "0.0975 + 0.150 + 0.150 + 0.040", against what there is.
struct Announced {
  bool ok = false;
  std::string message;        ///< what could not be read
  std::vector<double> passes; ///< mm a side
  double total = 0;           ///< mm
  double off = 0;             ///< mm: total less what there is; 0 when they agree
  std::string verdict;
};
Announced check_announced(const std::string& text, double there_is, Unit bare, bool on_diameter,
                          double agree_within = 0.0005);

/// Fitting by trial: how much over (or under, for a bore) the size to try at, in order. Common practice: 5
/// thou over, then 1 thou steps, the last 2 thou by feel.
std::vector<double> trial_steps(double allowance);

} // namespace datrin::allowance
