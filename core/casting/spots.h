#pragma once
// What is seen on a rough piece, and what is to be done about it.

#include "build/edits.h"

#include <string>

namespace datrin::casting {

using build::Spot;
using build::SpotCure;
using build::SpotKind;

/// What is usually done about it (common practice): flash and a parting line are dressed off before the piece
/// is stood or held there; pores, inclusions, chill, hard skin and repairs are watched for at the first cut;
/// a short fill is filled; draft and mismatch are left to the seat; the rest is for the person to decide.
SpotCure usual_cure(SpotKind kind);

/// Whether something of it is still to be done, by hand, before a face there is relied on or cut.
bool is_open(const Spot& spot);

/// "flash on foot, 1.20 mm: dress off first".
std::string spot_text(const build::Build& build, const Spot& spot);

/// Another cure; done or not done. Empty when nothing differs.
build::Edit decide_spot(const build::Build& build, build::Id spot, SpotCure cure);
build::Edit mark_spot_done(const build::Build& build, build::Id spot, bool done);

} // namespace datrin::casting
