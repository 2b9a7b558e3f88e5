#include "fits/metal_of.h"

namespace datrin::fits {

const Solid* metal_of(const build::Build& build, build::Id dimension) {
  const auto* d = build.find<build::Dimension>(dimension);
  const auto* part = d ? build.find<build::Part>(d->part) : nullptr;
  return part ? find_solid(part->material).solid : nullptr;
}

} // namespace datrin::fits
