#pragma once
// A targets problem at random: sizes with limits and capabilities, three in ten measured, joined by
// conditions of two to four terms that their nominals fulfil.

#include "chains/targets.h"

namespace datrin::sim {

chains::TargetsInput random_targets(unsigned seed, int dimensions, int conditions);

} // namespace datrin::sim
