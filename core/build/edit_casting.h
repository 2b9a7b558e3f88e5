#pragma once
// The edits of a casting: its survey (touches, settings, marks, sizes read across, spots, scans), its seat,
// and how it is marked out. Lengths mm.

#include "build/edits.h"

#include <optional>
#include <string>
#include <vector>

namespace datrin::build {

/// Books a touch, after those there are.
Added book_touch(const Build& build, Touch touch);

/// Changes a touch; named by its place in the survey, "Change touch 3".
Edit change_touch(const Build& build, Id touch, const Touch& changed);

Edit remove_touches(const Build& build, const std::vector<Id>& touches);

/// Takes what was set aside into account again.
Edit count_again(const Build& build, Id piece);

/// A survey of `piece` as it was read elsewhere: touches and reference marks after those there are. Marks say
/// that the casting was moved between settings: each setting it names then has a frame of its own, the first
/// of a piece that had nothing yet that of the survey.
Edit take_survey(const Build& build, Id piece, std::vector<Touch> touches, std::vector<Mark> marks);

/// Which frame the readings of the setting called `name` are in.
Edit frame_setting(const Build& build, Id piece, const std::string& name, SettingFrame frame);

/// Books a reading of a reference mark. It needs a name, and is read once in a setting.
Added book_mark(const Build& build, Mark mark);

/// Books a size read across: between two planes, or the diameter of a round surface.
Added book_size(const Build& build, SizeReading size);

/// Notes something seen on the casting.
Added note_spot(const Build& build, Spot spot);

/// Takes a scan of a piece. With no seat there yet, `seat` (survey frame → drawing frame) is one to begin
/// with.
Edit take_scan(const Build& build, Scan scan, const Pose& seat);

/// Sets the seat of a piece.
Edit set_seat(const Build& build, Id piece, const Pose& pose, bool best, std::string label);

/// Sets what is wanted of the seat of a piece.
Edit set_judgement(const Build& build, const Judgement& judgement, std::string label);

/// Sets how a piece is marked out.
Edit set_marking(const Build& build, const Marking& marking, std::string label);

} // namespace datrin::build
