#include "route/stiffness.h"

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
  struct Row {
    const char* word;
    double shear; // N/mm² of chip
  };
  static constexpr Row rows[] = {{"stainless", 2600}, {"silver", 2400}, {"tool", 2600},     {"steel", 2100},
                                 {"iron", 1300},      {"brass", 900},   {"gunmetal", 1000}, {"bronze", 1100},
                                 {"copper", 1300},    {"alumin", 800}};
  double shear = 2100;
  for (const auto& row : rows)
    if (material.find(row.word) != std::string::npos) {
      shear = row.shear;
      break;
    }
  return shear * depth * feed;
}

} // namespace datrin::route
