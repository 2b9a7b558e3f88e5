#pragma once
// Where a person stands with a piece in a setup: the one record of it, made when there is none yet.

#include "build/rows.h"
#include "steps/bench_steps.h"

#include <string>

namespace datrin::steps {

build::BenchPlace place_or_new(const build::Build& build, const BenchInput& input);
void keep_place(build::Rows& rows, const BenchInput& input, const build::BenchPlace& place);

/// The step is behind.
void pass(build::Rows& rows, const BenchInput& input, const BenchStep& step, const std::string& at);

} // namespace datrin::steps
