#pragma once
// How the demo's parts are made: their dimensions with limits, the foundry, the shop, setups, and what was
// cut so far.

#include "build/build.h"

#include <functional>

namespace datrin::demo {

/// Adds all that to the demo build; `keep` carries out an edit and remembers it.
void add_making(const build::Build& build, const std::function<void(const build::Edit&)>& keep);

} // namespace datrin::demo
