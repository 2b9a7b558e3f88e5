#pragma once
// The parts of the demo engine that mate, their joints and chains, and which of them are made already.

#include "build/build.h"

#include <functional>

namespace datrin::demo {

/// Adds them through `keep`, which applies each edit to `build`.
void add_mating(const build::Build& build, const std::function<void(const build::Edit&)>& keep);

} // namespace datrin::demo
