#pragma once
// The log of trial fits: a try of two pieces of a joint kept, with what they read then, and what it says now.
// (readings uses fits here, which judges a trial.) Lengths mm.

#include "build/edits.h"
#include "fits/trial.h"

#include <string>

namespace datrin::readings {

/// The record of a try, made now: what hole and shaft read is looked up.
build::Trial try_now(const build::Build& build, const build::Trial& tried, const std::string& at);

/// The edit that keeps it: "Try Main bearing B: jams at 12.0 mm".
build::Edit keep_trial(const build::Build& build, const build::Trial& trial);

/// The edit that takes it out of the log of trials.
build::Edit take_back_trial(const build::Build& build, build::Id trial);

/// "jams at 12.0 mm".
std::string trial_text(const build::Build& build, const build::Trial& trial);

struct TrialView {
  bool cut_hole = true; ///< what the metal comes off
  double wanted = 0;    ///< clearance aimed at
};

/// Everything read along both pieces, as a trial is judged by.
fits::TrialInput trial_input(const build::Build& build, const build::Trial& trial, const TrialView& view);

/// What was read anew since it was tried: "The hole reads 22.975 mm now, it was 22.968 mm."; empty: nothing.
std::string read_since(const build::Build& build, const build::Trial& trial);

} // namespace datrin::readings
