#pragma once
// Whether a record keeps the rules its description states. The one door: what is read from a file, imported,
// or about to be written by an edit is asked the same.

#include "build/description.h"

#include <optional>

namespace datrin::build {

/// What is wrong first: `field` is a JSON pointer into the body ("/terms/2/coefficient"), `rule` what it must
/// be.
std::optional<Wrong> first_wrong(const Record& record);
std::optional<Wrong> first_wrong(const Description& description, const void* record);

} // namespace datrin::build
