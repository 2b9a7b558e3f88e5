#pragma once
// Sizes by the names the drawing gives them, for sums: "bore/2 + 3 mm".

#include "build/build.h"
#include "quantity/length.h"

#include <optional>
#include <string_view>

namespace datrin::drawing {

/// The drawn size whose name `text` begins with, the longest, in capitals or not: a dimension of `part`
/// ("bore"), the diameter of a round surface of it, or a dimension of any part behind that part's name
/// ("Connecting rod, big end bore"). The name must end where a word ends. Angles are no lengths.
std::optional<NamedSize> size_named(const build::Build& build, build::Id part, std::string_view text);

} // namespace datrin::drawing
