#pragma once
// Whether a record keeps the rules its description states. The one door: what is read from a file, imported,
// or about to be written by an edit is asked the same.

#include "build/build.h"
#include "build/description.h"

#include <optional>
#include <string>

namespace datrin::build {

/// What is wrong first: `field` is a JSON pointer into the body ("/terms/2/coefficient"), `rule` what it must
/// be.
std::optional<Wrong> first_wrong(const Record& record);
std::optional<Wrong> first_wrong(const Description& description, const void* record);

/// What in `edit` would make `build` break a rule, for people: "bore: diameter must be at most 10 km"; a
/// record left without one it needs. Empty when nothing does. Whoever keeps a build asks this first, so that
/// nothing is written that would be refused when it is read.
std::string edit_wrong(const Build& build, const Edit& edit);

} // namespace datrin::build
