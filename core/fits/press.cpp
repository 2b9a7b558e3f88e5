#include "fits/press.h"

#include "quantity/length_text.h"
#include "quantity/unit.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::fits {

PressResult press(const PressInput& in) {
  PressResult out;
  const auto refuse = [&](std::string why) {
    out.status = PressStatus::refused;
    out.message = std::move(why);
    return out;
  };
  for (const double value : {in.diameter, in.hub_outside, in.shaft_bore, in.length, in.interference,
                             in.hub_roughness, in.shaft_roughness, in.friction})
    if (!std::isfinite(value) || value < 0) return refuse("no length, roughness or friction may be negative");
  if (!(in.diameter > 0)) return refuse("the diameter of the joint must be above 0");
  if (!(in.hub_outside > in.diameter)) return refuse("the outside of the hub must be larger than the joint");
  if (!(in.shaft_bore < in.diameter)) return refuse("the bore of the shaft must be smaller than the joint");
  if (in.hub == nullptr || in.shaft == nullptr) return refuse("the metals of hub and shaft must be known");

  const double d = in.diameter, q = d / in.hub_outside, b = in.shaft_bore / d;
  const double hub_factor = (1 + q * q) / (1 - q * q), shaft_factor = (1 + b * b) / (1 - b * b);
  const double give = d * ((hub_factor + in.hub->poisson) / in.hub->modulus +
                           (shaft_factor - in.shaft->poisson) / in.shaft->modulus); // mm per N/mm²
  out.loss = 0.8 * (in.hub_roughness + in.shaft_roughness);
  out.interference = std::max(0.0, in.interference - out.loss);
  out.pressure = out.interference / give;
  out.hub_hoop = out.pressure * hub_factor;
  out.shaft_hoop = -out.pressure * shaft_factor;
  const double root3 = std::sqrt(3.0);
  const double hub_limit = (1 - q * q) / root3; // of yield
  const double shaft_limit = in.shaft_bore > 0 ? (1 - b * b) / root3 : 2 / root3;
  out.hub_equivalent = out.pressure / hub_limit;
  out.shaft_equivalent = out.pressure / shaft_limit;
  out.most_pressure = std::min(hub_limit * in.hub->yield, shaft_limit * in.shaft->yield);
  out.most_interference = out.most_pressure * give + out.loss;
  out.friction = in.friction > 0 ? in.friction : std::min(in.hub->friction, in.shaft->friction);
  out.push_force = pi * d * in.length * out.pressure * out.friction;
  out.torque = out.push_force * d / 2;
  // Displacements at the free faces: 2 p d² D / (E (D² − d²)), and 2 p d² b / (E (d² − b²)) inwards.
  out.hub_grows = 2 * out.pressure * q * q * in.hub_outside / (in.hub->modulus * (1 - q * q));
  if (in.shaft_bore > 0)
    out.bore_shrinks = 2 * out.pressure * in.shaft_bore / (in.shaft->modulus * (1 - b * b));
  out.status = PressStatus::computed;
  if (out.interference <= 0)
    out.verdict = in.interference > 0 ? "The roughness takes all of it: nothing holds."
                                      : "There is no interference: nothing holds.";
  else if (out.yields())
    out.verdict = fmt::format("The {} yields: its limit is reached at {}.",
                              hub_limit * in.hub->yield < shaft_limit * in.shaft->yield ? "hub" : "shaft",
                              fine_text(out.most_interference, in.unit));
  else
    out.verdict = fmt::format("Elastic: {} % of what the weaker of the two stands.",
                              number_text(100 * out.pressure / out.most_pressure, 0));
  return out;
}

} // namespace datrin::fits
