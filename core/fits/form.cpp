#include "fits/form.h"

#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace datrin::fits {

FormResult form(const FormInput& in) {
  FormResult out;
  if (in.readings.empty()) {
    out.message = "there is no reading yet";
    return out;
  }
  for (std::size_t k = 0; k < in.readings.size(); ++k)
    if (!(in.readings[k].diameter > 0) || !std::isfinite(in.readings[k].depth)) {
      out.message = fmt::format("reading {}: the diameter must be above 0", k + 1);
      return out;
    }
  const double n = static_cast<double>(in.readings.size());
  std::map<long, std::vector<double>> by_depth; // to a hundredth of a millimetre
  double depth_mean = 0;
  for (const auto& r : in.readings) {
    out.mean += r.diameter / n;
    depth_mean += r.depth / n;
    by_depth[std::lround(r.depth * 100)].push_back(r.diameter);
  }
  const auto smaller = [](const auto& a, const auto& b) { return a.diameter < b.diameter; };
  const auto [low, high] = std::minmax_element(in.readings.begin(), in.readings.end(), smaller);
  out.least = low->diameter;
  out.most = high->diameter;
  // Diameters alone say nothing of where their middles lie: the straight plug is taken as the smallest
  // diameter.
  out.worst = static_cast<int>((in.is_hole ? low : high) - in.readings.begin());
  out.matters = in.is_hole ? out.least : out.most;
  double xy = 0, xx = 0;
  for (const auto& r : in.readings) {
    xy += (r.depth - depth_mean) * (r.diameter - out.mean);
    xx += (r.depth - depth_mean) * (r.depth - depth_mean);
  }
  const auto mean_of = [](const std::vector<double>& v) {
    double sum = 0;
    for (const double d : v) sum += d;
    return sum / static_cast<double>(v.size());
  };
  for (const auto& [depth, diameters] : by_depth) {
    const auto [a, b] = std::minmax_element(diameters.begin(), diameters.end());
    out.ovality = std::max(out.ovality, *b - *a);
  }
  if (xx > 0) {
    out.taper = xy / xx;
    const double first = static_cast<double>(by_depth.begin()->first) / 100,
                 last = static_cast<double>(by_depth.rbegin()->first) / 100;
    out.taper_over_length = out.taper * (last - first);
    const double at_first = mean_of(by_depth.begin()->second), at_last = mean_of(by_depth.rbegin()->second);
    for (const auto& [depth, diameters] : by_depth) {
      const double along = (static_cast<double>(depth) / 100 - first) / (last - first);
      const double off = mean_of(diameters) - (at_first + along * (at_last - at_first));
      if (std::abs(off) > std::abs(out.bow)) out.bow = off;
    }
  }
  const auto um = [&](double mm) { return fine_text(mm, in.unit); };
  const auto length = [&](double mm, int decimals_mm, int decimals_inch) {
    return length_text(mm, in.unit,
                       {.decimals_mm = decimals_mm, .decimals_inch = decimals_inch, .show_unit = true});
  };
  std::vector<std::string> words;
  const double seen = std::max(in.uncertainty, 1e-9);
  if (std::abs(out.taper_over_length) > seen)
    words.push_back(fmt::format("{} of taper, {}", um(std::abs(out.taper_over_length)),
                                in.is_hole      ? out.taper > 0 ? "narrower at the mouth" : "narrower inside"
                                : out.taper > 0 ? "thicker away from the end"
                                                : "thicker at the end"));
  if (out.ovality > seen) words.push_back(fmt::format("{} out of round", um(out.ovality)));
  if (std::abs(out.bow) > seen)
    words.push_back(fmt::format("{} {} in the middle", um(std::abs(out.bow)),
                                in.is_hole    ? out.bow > 0 ? "wider" : "narrower"
                                : out.bow > 0 ? "thicker"
                                              : "thinner"));
  out.verdict = words.empty() ? "Straight and round, as far as this instrument shows." : "";
  for (const auto& w : words) out.verdict += (out.verdict.empty() ? "" : ", ") + w;
  if (!words.empty()) {
    const auto& r = in.readings[static_cast<std::size_t>(out.worst)];
    out.verdict += fmt::format(". What counts for its mate: {} at depth {}.", length(out.matters, 3, 4),
                               length(r.depth, 1, 2));
  }
  out.ok = true;
  return out;
}

} // namespace datrin::fits
