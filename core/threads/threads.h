#pragma once
// Screw threads as joints: what to drill, how much of a thread is left, how deep, how long engaged; and which
// thread an unknown one may be. Lengths in mm.

#include "quantity/unit.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace datrin::threads {

struct Thread {
  std::string series; ///< "M", "M fine", "BA", "BSW", "BSF", "ME", "UNC", "UNF"
  std::string name;   ///< "M6", "M8x1", "4BA", "5/16 BSF", "1/4x40 ME", "5/16-18 UNC"
  double major = 0, pitch = 0;
  double depth = 0.64952; ///< of the thread on one side at 100 %, as a part of the pitch

  double per_inch() const { return mm_per_inch / pitch; }
  /// Hole a tap leaves `percent` of thread in.
  double hole(double percent) const { return major - percent / 100 * 2 * depth * pitch; }
};

const std::vector<Thread>& all(); ///< data/threads.csv

struct Found {
  const Thread* thread = nullptr;
  std::string message; ///< when there is none: what is wrong, with the nearest names
};

/// Reads "M6", "m6 x 1", "4 BA", "5/16-18", "5/16-18 UNC tap", "1/4 x 40", "3/8 BSF", "#4-40". A size and a
/// pitch that two series share (5/16-18 is BSW and UNC) gives UNC unless the series is named.
Found find(std::string_view text);

/// Per cent of full thread a hole of `hole` mm leaves: (major − hole) / (2 · depth · pitch).
double percent(double major, double pitch, double hole, double depth = 0.64952);

/// Diameter of the tapping drill of a thread by its name, mm: for LengthOptions::tap_drill. At 77 % of
/// thread, in a metric drawer for metric and BA threads, else an inch one.
std::optional<double> tap_drill(std::string_view name);

struct TapInput {
  Thread thread;
  double percent = 75;    ///< of full thread wanted
  double full_thread = 0; ///< mm of full thread wanted deep; 0: a through hole
  double lead = 2;        ///< pitches of lead of the tap: bottoming 1.5, plug 4, taper 6 (common practice)
  double point_degrees = 118; ///< of the drill
  double engaged = 0;         ///< mm of screw in the hole; 0: not known
  Unit drawer = Unit::mm;
};

struct TapPlan {
  bool ok = false;
  std::string message;
  std::string drill; ///< the drill of the drawer whose thread is nearest to what is wanted
  double drill_size = 0, percent = 0;
  std::string clearance_drill; ///< the first at least 0.05 mm + 4 % over the major diameter
  double clearance_size = 0;
  double drill_depth = 0;       ///< mm to the shoulder: full thread, the tap's lead, one pitch to spare
  double point = 0;             ///< mm more to the drill's point
  double engaged_diameters = 0; ///< engaged length over major diameter
  std::string verdict;          ///< whether that engagement is enough
};

TapPlan plan_tap(const TapInput& input);

/// A thread an unknown one may be.
struct Likeness {
  const Thread* thread = nullptr;
  double major_off = 0; ///< mm: measured − the thread's own
  double pitch_off = 0;
  double score =
      0; ///< larger is worse: offs over what a worn outside (−0.15 mm to +0.02) and a gauge can show
};

struct IdentifyInput {
  double outside = 0, pitch = 0; ///< mm, as measured
  double uncertainty = 0.03;     ///< mm of the outside, 95 %
  double pitch_uncertainty = 0.02;
};

struct Identified {
  bool ok = false;
  std::string message;
  std::vector<Likeness> ranked; ///< best first, at most eight
  std::string verdict;          ///< the best, and the look-alikes that could be taken for it
};

/// Screws measure at or under their nominal outside; holes are not meant.
Identified identify(const IdentifyInput& input);

} // namespace datrin::threads
