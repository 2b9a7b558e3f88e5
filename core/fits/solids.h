#pragma once
// Metals in the solid, as fits need them: expansion, stiffness, strength. data/solids.csv.

#include <string>
#include <string_view>
#include <vector>

namespace datrin::fits {

struct Solid {
  std::string name;
  double expansion = 0; ///< 1/K, 20 to 100 °C
  double modulus = 0;   ///< N/mm²
  double poisson = 0.3;
  double yield = 0;            ///< N/mm²
  double most_temperature = 0; ///< °C its strength can be counted on to
  double friction = 0.12;      ///< dry, in a press fit against steel
};

const std::vector<Solid>& solids();

struct FoundSolid {
  const Solid* solid = nullptr;
  std::string message; ///< when there is none: which there are
};

/// By its name or one a drawing uses for it ("cast iron" is grey iron), either case.
FoundSolid find_solid(std::string_view name);

} // namespace datrin::fits
