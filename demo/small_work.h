#pragma once
// Two parts that were never cast, invented: a locomotive's axlebox from square bar, and a clock's arbor from
// silver steel.

#include "demo/mill_engine.h"

namespace datrin::demo {

/// A build of both, in millimetres, with what was read so far.
DemoBuild small_work();

} // namespace datrin::demo
