#pragma once
// Screw threads as joints: what to drill, how much of a thread is left, how deep, how long engaged; and which
// thread an unknown one may be. Lengths in mm. data/threads.csv.

#include "quantity/drills.h"
#include "quantity/length.h"
#include "quantity/unit.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace datrin::threads {

/// Holes that let a screw through.
struct ClearanceHoles {
  double fine = 0, medium = 0, coarse = 0; ///< mm
  std::string source;                      ///< "ISO 273", or "the trade's rule"
};

struct Thread {
  std::string series; ///< "M", "M fine", "BA", "BSW", "BSF", "BSC", "ME", "UNC", "UNF", "UNEF", "G", "NPT"
  std::string name;   ///< "M6", "M8x1", "4BA", "5/16 BSF", "1/4x40 ME", "5/16-18 UNC", "G1/4"
  double major = 0, pitch = 0;
  double depth = 0.64952;   ///< of the thread on one side at 100 %, as a part of the pitch
  double profile = 0.61343; ///< height of the screw's own profile on one side, as a part of the pitch
  double angle = 60;        ///< degrees between the flanks
  double taper = 0;         ///< of a pipe thread: 1 in so many, on the diameter; 0: parallel
  std::string tap{};        ///< tapping drill by the standard or the usual list: "6.8", "#7", "27/64 in"
  double clear_fine = 0, clear_medium = 0, clear_coarse = 0; ///< mm; 0: the trade's rule

  double per_inch() const { return mm_per_inch / pitch; }
  /// Minor diameter of the screw.
  double core() const { return major - 2 * profile * pitch; }
  /// The outside that a hole is reckoned from: of a taper thread that at its small end (ASME B1.20.1).
  double outside_at_hole() const;
  /// Hole a tap leaves `percent` of thread in.
  double hole(double percent) const { return outside_at_hole() - percent / 100 * 2 * depth * pitch; }
  /// Per cent of full thread a hole of `hole` mm leaves: (outside − hole) / (2 · depth · pitch).
  double percent_of(double hole) const { return 100 * (outside_at_hole() - hole) / (2 * depth * pitch); }
  bool metric() const; ///< its drills are metric: M, BA, and those BS 1157 lists
};

const std::vector<Thread>& all();

struct Found {
  const Thread* thread = nullptr;
  std::string message; ///< when there is none: what is wrong, with the nearest names
};

/// Reads "M6", "m6 x 1", "4 BA", "5/16-18", "5/16-18 UNC tap", "1/4 x 40", "3/8 BSF", "#4-40", "G1/4", "1/8
/// BSP", "1/4 NPT". A size and a pitch that two series share (5/16-18 is BSW and UNC) gives UNC or UNF unless
/// the series is named.
Found find(std::string_view text);

/// A drill for a thread, and the thread it leaves.
struct TapDrill {
  std::string name; ///< "6.8 mm", "#7", "27/64 in"; empty: there is none
  double size = 0;  ///< mm
  double percent = 0;
};

/// The tapping drill of the standard, or of the usual list (data/threads.csv). The one answer wherever a
/// thread's drill is wanted and no percentage is.
TapDrill tapping_drill(const Thread& thread);

/// Clearance holes: ISO 273 for metric threads; for others, and with `by_trade`, the trade's rule, rounded
/// up to a drill of the drawer (common practice): fine 5 thou over, medium 4 % and 0.05 mm, coarse 8 % and
/// 0.1 mm. A usual drill that is listed stands for fine.
ClearanceHoles clearance_holes(const Thread& thread, bool by_trade = false);

/// Diameter of a thread's hole by the thread's name, mm: for LengthOptions::thread_hole. The tapping drill,
/// or the medium clearance hole.
std::optional<double> hole_of(std::string_view name, ThreadHole hole);

struct TapInput {
  Thread thread;
  double percent = 0;     ///< of full thread wanted; 0: as the standard or the usual list has it
  double full_thread = 0; ///< mm of full thread wanted deep; 0: a through hole
  double lead = 2;        ///< pitches of lead of the tap: bottoming 1.5, plug 4, taper 6 (common practice)
  double point_degrees = 118; ///< of the drill
  double engaged = 0;         ///< mm of screw in the hole; 0: not known
  Unit drawer = Unit::mm;     ///< from which a wanted percentage is met
  std::vector<Drill> owned{}; ///< what the shop really has
};

struct TapPlan {
  bool ok = false;
  std::string message;
  TapDrill standard; ///< by the standard or the usual list
  TapDrill drill;    ///< the one to use: for the percentage wanted, else the standard's
  TapDrill owned;    ///< of the shop's drills the nearest to it, where it leaves 55 to 90 %
  ClearanceHoles clearance;
  double drill_depth = 0;       ///< mm to the shoulder: full thread, the tap's lead, one pitch to spare
  double point = 0;             ///< mm more to the drill's point
  double engaged_diameters = 0; ///< engaged length over major diameter
  std::string verdict;          ///< whether that engagement is enough
};

TapPlan plan_tap(const TapInput& input);

/// The thread and its plan in sentences, lengths in `unit`, one a line.
std::vector<std::string> tap_words(const TapInput& input, const TapPlan& plan, Unit unit);

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
