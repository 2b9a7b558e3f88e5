#pragma once
// What a joint is for, in the trade's words, and what serves it: classes, the shop's rule, ways to hold it.
// data/joint_purposes.csv. Lengths mm; a clearance below 0 is interference.

#include "build/records.h"
#include "fits/fit.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace datrin::fits {

using build::JointPurpose;

/// Purposes that are one hole over a thread or its screw, without a shaft of the build.
bool is_over_a_thread(JointPurpose purpose);
/// Whether `joint` is one: by its purpose, or a shoulder that is a screw's.
bool is_over_a_thread(const build::Joint& joint);

/// Purposes meant to hold by interference.
bool is_pressed(JointPurpose purpose);

/// One proposal of limits.
struct Proposal {
  std::string name;        ///< "ISO 286 H7/f7, hole basis", "ANSI B4.1 RC4", "shop's rule"
  std::string basis;       ///< what a joint keeps: "ISO 286 H7/f7"
  bool has_limits = false; ///< hole and shaft have limits of their own; a rule states the clearance only
  Deviations hole, shaft;
  std::string hole_class, shaft_class; ///< "H7", "f7"; empty: they have no name of their own
  double least = 0, most = 0;          ///< clearance
  std::string reach;                   ///< which tools of the shop reach it, or what to buy
  bool owned = false;
};

struct ProposeInput {
  JointPurpose purpose = JointPurpose::runs_freely;
  double nominal = 0;
  std::string thread; ///< of a thread, a bolt or a shoulder
  std::vector<build::Tool> shop;
  Unit unit = Unit::mm;
  double bearing_size = 0; ///< of a rolling bearing: its nominal bore or outside; 0: the nominal
};

struct ProposeResult {
  bool ok = false;
  std::string message;
  std::vector<Proposal>
      proposals; ///< ISO hole basis, ISO shaft basis, B4.1, the shop's rule: those there are
};

ProposeResult propose(const ProposeInput& input);

/// Gives `joint` the first proposal's limits for its purpose at `nominal`; or, with `same_basis`, those of
/// the proposal it had, at this size. Typed limits (no basis) then stay. False, with why in `message`, when
/// nothing can be proposed.
bool take_limits(build::Joint& joint, double nominal, bool same_basis, std::string* message = nullptr);

/// A way of holding two parts together, and why not, when it is ruled out.
struct Method {
  std::string name;
  std::string why_not; ///< empty: it may be used
  std::string note;    ///< what to mind
};

struct MethodInput {
  bool comes_apart = false;      ///< must come apart again
  bool through = false;          ///< something passes through the bore
  bool looks = false;            ///< the face beside it is looked at
  double temperature = 20;       ///< °C at work
  Unit unit = Unit::mm;          ///< of the words
  std::optional<double> least{}; ///< mm of clearance there is to be at least; below 0: interference
};

std::vector<Method> methods(const MethodInput& input);

} // namespace datrin::fits
