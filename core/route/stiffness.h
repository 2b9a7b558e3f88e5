#pragma once
// How far tools, work and walls give way under a cut. Straight beams by Euler and Bernoulli, built in at one
// end, loaded at the other: δ = F L³ / (3 E I) (any handbook of mechanics; W. C. Young and R. G. Budynas,
// Roark's Formulas for Stress and Strain, tables of straight beams and of plates; from memory). Forces in N,
// lengths mm, moduli N/mm².

#include <string>

namespace datrin::route {

/// Of a round bar of `diameter` that stands out by `length`, mm.
double bar_gives(double force, double length, double diameter, double modulus);

/// Of a wall `thick`, `high` over what it is built into, loaded at its edge. A strip as wide as it is high
/// takes the load, no wider than the wall; stiffer by 1 − ν² than a beam: wide walls cannot narrow.
double wall_gives(double force, double high, double wide, double thick, double modulus, double poisson = 0.3);

/// Of a shaft held in a chuck and by a centre, loaded in its middle: δ = 7 F L³ / (768 E I).
double shaft_gives(double force, double length, double diameter, double modulus);

/// The force of a cut: what it takes to shear 1 mm² of the metal, N/mm², times the chip (common practice,
/// turning with a sharp tool, thin chips; unknown metals as steel).
double cutting_force(const std::string& material, double depth, double feed);

/// Moment that turns the work under a drill, counterbore or reamer of `across` mm in a hole of `bore` (0:
/// from solid), N·mm: the force on each mm of its two lips, at its radius, M = k f (D² − d²) / 8, `feed` mm a
/// turn (any handbook of machining, from memory).
double drilling_torque(const std::string& material, double across, double bore, double feed);

} // namespace datrin::route
