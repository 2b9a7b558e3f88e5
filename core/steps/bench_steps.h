#pragma once
// A setup of a piece as one thing to do after another: what to look out for, how it is held, where the zero
// is, where to go, how far to cut, what to read, what to leave for later. Each with one number at most, in
// the axes of the machine, and how it adds up. Numbers mm; which unit and which way the machine shows them is
// its own.

#include "allowance/plan.h"
#include "build/build.h"
#include "casting/survey.h"
#include "quantity/reckoning.h"
#include "route/machine_axes.h"

#include <optional>
#include <string>
#include <vector>

namespace datrin::steps {

enum class StepKind {
  look_out, ///< cautions, once a setup
  hold,     ///< put it in, against its datums
  true_up,  ///< in the four-jaw
  zero,     ///< touch a datum, set the read-out
  go,       ///< to a place
  deep,     ///< drill, bore, mill so deep
  cut,      ///< a pass over a surface: what is left is read
  tick,     ///< an operation is done
  note,     ///< something to know, or to do, within one
  feel,     ///< tried in its mate: how it goes
  check,    ///< measured beside what it should be, kept in the log alone
  read,     ///< a size to be measured before it is unclamped
  leave,    ///< a reference for later setups
  unclamp
};

struct BenchStep {
  std::string key; ///< what it is known by, as long as the plan is the same
  StepKind kind = StepKind::tick;
  build::Id operation = 0, surface = 0, dimension = 0, joint = 0, mate_piece = 0;
  std::string title;            ///< "bolt holes, 2 of 4"
  std::string words;            ///< "Move until X reads"
  std::string axis;             ///< "X"; empty: none
  std::optional<double> number; ///< mm, as the read-out of the machine shows it (of an angle radians)
  std::string also;             ///< beside the number: turns of a dial, play of the screw
  bool is_angle = false;
  double planned_left = 0;  ///< mm of metal a side: of a cut, what it is to leave
  Reckoning sum;            ///< how it adds up
  std::string ask;          ///< what is to be read back; empty: Enter is enough
  std::string another_way;  ///< what + alone does: "it lies askew"; empty: nothing
  bool may_be_empty = true; ///< Enter without a reading goes on
  bool done = false;
  std::vector<build::Id> lit;   ///< surfaces it is about
  std::optional<Vec3> at, from; ///< places in the drawing frame: where it goes, what it counts from
  std::string datum;            ///< what the zero is on: "end A"
  Vec3 looks = Vec3::Zero();    ///< of a touch: out of the metal at `at`, drawing frame; zero: none
  double finder = 0;            ///< mm: what touches it there
};

struct BenchInput {
  build::Id piece = 0, setup = 0;
  const casting::PieceInput* cast = nullptr; ///< of the piece
  Pose pose;                                 ///< its seat
  std::vector<allowance::SurfacePlan> plans;
};

struct BenchOptions {
  double finder = 6;    ///< mm across the edge finder, until another is said at the bench (common practice)
  double point = 0.300; ///< of a drill's diameter its point goes on
  double lead = 0.25;   ///< of a reamer's diameter it does not yet cut to size
  double clear = 1;     ///< mm further, through
  double proud = 0.25;  ///< mm that may stay between two places round a corner, filed off (common practice)
  std::string now;      ///< UTC, ISO 8601; empty: no zero is ever old
  double old_zero = 10; ///< hours: one found or checked so long ago is touched again before it is trusted
};

/// In the order of work; those done are among them. Empty where the setup or the piece is not there.
std::vector<BenchStep> bench_steps(const build::Build& build, const BenchInput& input,
                                   const BenchOptions& options = {});

/// The first that is not done; −1: all are.
int step_to_do(const std::vector<BenchStep>& steps);

} // namespace datrin::steps
