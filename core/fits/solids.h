#pragma once
// Solids as fits need them: expansion, contraction in the cold, stiffness, strength, density.
// data/solids.csv.

#include <string>
#include <string_view>
#include <vector>

namespace datrin::fits {

struct Solid {
  std::string name;
  double expansion = 0;   ///< 1/K, 20 to 100 °C
  double contraction = 0; ///< 1/K, mean from 20 °C down (DIN 7190-1)
  double modulus = 0;     ///< N/mm²
  double poisson = 0.3;
  double yield = 0;            ///< N/mm²
  double most_temperature = 0; ///< °C its strength can be counted on to
  double friction = 0.12;      ///< dry, in a press fit against steel
  double density = 0;          ///< g/cm³
  double cutting = 0;          ///< N to shear 1 mm² of chip, thin chips, a sharp tool (common practice)

  /// Part of its length at 20 °C by which it is longer at `celsius`.
  double strain_at(double celsius) const { return (celsius < 20 ? contraction : expansion) * (celsius - 20); }
};

const std::vector<Solid>& solids();

struct FoundSolid {
  const Solid* solid = nullptr;
  std::string message;   ///< when there is none: which there are
  std::string nearest{}; ///< when there is none: the name most like it, where one is
};

/// Every name of every solid, as a drawing may use it.
std::vector<std::string> solid_names();

/// What a name of a material leaves unsaid, for where it is typed: `"mild stel" is no material of the table:
/// heat, press and weight say nothing of it.`; empty when it is one, or none was typed.
std::string unknown_material(std::string_view name);

/// By its name or one a drawing uses for it ("cast iron" is grey iron), either case.
FoundSolid find_solid(std::string_view name);

} // namespace datrin::fits
