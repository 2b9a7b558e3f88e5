#include "route/stiffness.h"

#include "fits/solids.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace datrin::route {

namespace {

double round_inertia(double diameter) {
  return std::numbers::pi * std::pow(diameter, 4) / 64;
}

} // namespace

double bar_gives(double force, double length, double diameter, double modulus) {
  return diameter > 0 && modulus > 0 ? force * std::pow(length, 3) / (3 * modulus * round_inertia(diameter))
                                     : 0;
}

double wall_gives(double force, double high, double wide, double thick, double modulus, double poisson) {
  const double strip = std::min(wide > 0 ? wide : high, high);
  if (strip <= 0 || thick <= 0 || modulus <= 0) return 0;
  const double inertia = strip * std::pow(thick, 3) / 12;
  return force * std::pow(high, 3) * (1 - poisson * poisson) / (3 * modulus * inertia);
}

double shaft_gives(double force, double length, double diameter, double modulus) {
  return diameter > 0 && modulus > 0
             ? 7 * force * std::pow(length, 3) / (768 * modulus * round_inertia(diameter))
             : 0;
}

double cutting_force(const std::string& material, double depth, double feed) {
  const auto* solid = fits::find_solid(material).solid;
  if (solid == nullptr) solid = fits::find_solid("steel").solid;
  return solid->cutting * depth * feed;
}

double drilling_torque(const std::string& material, double across, double bore, double feed) {
  const double chip = cutting_force(material, 1, feed); // N for each mm of the lip
  return chip * (across * across - bore * bore) / 8;
}

} // namespace datrin::route
