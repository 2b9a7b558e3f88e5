#pragma once
// The parts of the mill engine as solids: bodies that take over the surfaces and dimensions stated before.

#include "build/edits.h"

#include <functional>

namespace datrin::demo {

void add_solids(const build::Build& build, const std::function<void(const build::Edit&)>& keep);

} // namespace datrin::demo
