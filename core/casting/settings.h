#pragma once
// The settings of a piece's survey, joined by the reference marks read in them.
//
// The survey frame is that of the touches without a setting of their own; where every setting has a frame of
// its own, the first one's. Another is joined as soon as three of its marks are known in the survey frame,
// and then makes its other marks known: settings may be joined in a chain.

#include "build/build.h"
#include "geometry/registration.h"

#include <map>
#include <string>
#include <vector>

namespace datrin::casting {

struct SettingState {
  build::Id id = 0; ///< 0: named by touches only, and in the survey frame
  std::string name;
  build::SettingFrame frame = build::SettingFrame::survey;
  bool base = false;               ///< its frame is the survey frame
  bool joined = false;             ///< its readings can be used
  RegistrationResult registration; ///< own frame → survey frame
  HeightRegistration heights;      ///< of a setting that gives heights only
  std::vector<std::string> marks;  ///< the marks it was joined by, as in the residuals
  int touches = 0;
  std::string message; ///< how well it is joined, or what is missing

  /// Where a reading of this setting lies in the survey frame. Not for heights.
  Pose pose() const { return base ? Pose{} : registration.pose; }
  bool doubtful() const {
    return registration.status == RegistrationStatus::doubtful ||
           heights.status == RegistrationStatus::doubtful;
  }
};

struct Settings {
  std::vector<SettingState> list;    ///< in the order they were made; those only named come first
  std::map<std::string, Vec3> marks; ///< survey frame, of all settings that are joined
  const SettingState* find(const std::string& name) const;
};

/// Whether touches of that setting are heights above the plate alone.
bool gives_heights(const build::Build& build, build::Id piece, const std::string& setting);

/// Works out how the settings of `piece` join.
Settings join_settings(const build::Build& build, build::Id piece, const RegistrationOptions& options = {});

} // namespace datrin::casting
