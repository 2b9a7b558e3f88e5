#pragma once
// The demo's crank web, to be bored on the mill: what the bench is gone through with.

#include "build/build.h"

#include <functional>

namespace datrin::demo {

/// After the solids are drawn: its stock, its setup, the operations in it. The mill has a simulated read-out.
void add_bench(const build::Build& build, const std::function<void(const build::Edit&)>& keep);

} // namespace datrin::demo
