#pragma once
// Whether a size that was read fits its limits: yes, no, or not to be decided by what was read (ISO 14253-1:
// what lies in the band of the uncertainty about a limit proves neither). Asked here by every page.

#include "readings/size_now.h"

namespace datrin::readings {

enum class Fits { yes, no, undecided };

/// Between which sizes it certainly is; mm, of an angle radians. Of one gauge open to one side: ±infinity.
struct Band {
  double low = 0, high = 0;
};
Band band_of(const SizeNow& size);

/// Without limits: yes.
Fits fits_limits(const build::Dimension& dimension, const SizeNow& size);

/// Whether gauges told it: then nobody knows the size itself, only on which side of them it is.
bool is_of_gauges(const SizeNow& size);

} // namespace datrin::readings
