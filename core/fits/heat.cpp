#include "fits/heat.h"

#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::fits {

namespace {

constexpr double coldest_of_all = -196, dry_ice = -78;

std::string degrees_text(double celsius) {
  return number_text(celsius, 0) + "\u202F\u00B0C";
}

} // namespace

std::string temperature_wrong(const Solid& solid, double celsius) {
  if (!std::isfinite(celsius)) return "the temperature must be a number";
  if (celsius < coldest_of_all)
    return fmt::format("{} is colder than liquid nitrogen, {}", degrees_text(celsius),
                       degrees_text(coldest_of_all));
  if (celsius > solid.most_temperature)
    return fmt::format("{} is past what {} is to be counted on, {}", degrees_text(celsius), solid.name,
                       degrees_text(solid.most_temperature));
  return {};
}

HeatResult clearance_hot(const HeatInput& in) {
  HeatResult out;
  if (!(in.diameter > 0) || !std::isfinite(in.clearance)) {
    out.message = "the diameter must be above 0";
    return out;
  }
  if (in.hole == nullptr || in.shaft == nullptr) {
    out.message = "the metals of hole and shaft must be known";
    return out;
  }
  for (const auto& [solid, t] : {std::pair{in.hole, in.hole_temperature}, {in.shaft, in.shaft_temperature}})
    if (out.message = temperature_wrong(*solid, t); !out.message.empty()) return out;
  const double hole = in.diameter * in.hole->strain_at(in.hole_temperature);
  const double shaft = in.diameter * in.shaft->strain_at(in.shaft_temperature);
  out.why.title = "clearance at working heat";
  out.why.lines = {{"clearance at 20 \u00B0C", in.clearance, "sizes"},
                   {fmt::format("hole grows, {} at {}", in.hole->name, degrees_text(in.hole_temperature)),
                    hole, "d \u00B7 \u03B1 \u00B7 \u0394t"},
                   {fmt::format("shaft grows, {} at {}", in.shaft->name, degrees_text(in.shaft_temperature)),
                    -shaft, "d \u00B7 \u03B1 \u00B7 \u0394t"}};
  out.clearance = out.why.total();
  out.ok = true;
  return out;
}

AssemblyResult assembly(const AssemblyInput& in) {
  AssemblyResult out;
  if (!(in.diameter > 0) || !(in.interference > 0) || !(in.play >= 0)) {
    out.message = "there must be a diameter and an interference above 0";
    return out;
  }
  if (in.hole == nullptr || in.shaft == nullptr) {
    out.message = "the metals of hole and shaft must be known";
    return out;
  }
  const double play = in.play > 0 ? in.play : 0.001 * in.diameter;
  const double needed = (in.interference + play) / in.diameter;
  out.warm_to = reference_temperature + needed / in.hole->expansion;
  out.chill_to = reference_temperature - needed / in.shaft->contraction;
  const double by_cold = -in.shaft->strain_at(in.coldest);
  out.warm_with_cold = reference_temperature + std::max(0.0, needed - by_cold) / in.hole->expansion;
  out.warm_allowed = out.warm_to <= in.hole->most_temperature;
  out.chill_possible = out.chill_to >= dry_ice;
  out.verdict = out.warm_allowed ? fmt::format("Warm the {} to {}", in.hole->name, degrees_text(out.warm_to))
                                 : fmt::format("Warming alone would need {}, more than {} stands",
                                               degrees_text(out.warm_to), in.hole->name);
  out.verdict += out.chill_possible
                     ? fmt::format("; or chill the {} to {}", in.shaft->name, degrees_text(out.chill_to))
                     : std::string("; chilling alone does not reach");
  if (out.warm_with_cold <= in.hole->most_temperature && in.coldest < reference_temperature)
    out.verdict += fmt::format("; or {} and the shaft from {}", degrees_text(out.warm_with_cold),
                               degrees_text(in.coldest));
  out.verdict += ". How long one has is not promised: try it dry, with a stop set.";
  out.ok = true;
  return out;
}

} // namespace datrin::fits
