#include "readings/fits_limits.h"

#include "quantity/text.h"

#include <algorithm>
#include <limits>

namespace datrin::readings {

namespace {

constexpr double same_size = 1e-9;

} // namespace

Band band_of(const SizeNow& size) {
  constexpr double open = std::numeric_limits<double>::infinity();
  if (size.bound == Bound::below) return {-open, size.value};
  if (size.bound == Bound::above) return {size.value, open};
  return {size.value - size.uncertainty, size.value + size.uncertainty};
}

Fits fits_limits(const build::Dimension& d, const SizeNow& size) {
  if (!d.has_limits()) return Fits::yes;
  const auto band = band_of(size);
  if (band.low >= d.least() - same_size && band.high <= d.most() + same_size) return Fits::yes;
  // A plug as large as the largest that goes leaves a hole that is larger: no less than the plug is enough.
  const bool gauge = size.bound != Bound::exact;
  const double past = gauge ? -same_size : same_size;
  return band.low > d.most() + past || band.high < d.least() - past ? Fits::no : Fits::undecided;
}

bool is_of_gauges(const SizeNow& size) {
  if (size.bound != Bound::exact) return true;
  if (!size.measurement) return false;
  const auto read = lower_case(size.measurement->read);
  const auto words = words_of(read);
  return std::any_of(words.begin(), words.end(), [](auto word) {
    return word == "go" || word == "goes" || word == "no-go" || word == "nogo";
  });
}

} // namespace datrin::readings
