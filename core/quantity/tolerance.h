#pragma once
// Tolerance systems: ISO 286 limits of a single feature, ISO 2768 general tolerances.

#include <optional>
#include <string>
#include <string_view>

namespace datrin {

/// Deviations from the nominal, mm (angles: radians).
struct Deviations {
  double lower = 0, upper = 0;
};

inline constexpr int it_01 = -1; ///< the grade finer than IT0

/// IT grade (it_01, 0, 1 to 18) of a nominal up to 500 mm, in mm; nothing outside the table. ISO 286-1.
std::optional<double> it_grade(double nominal, int grade);

/// "H7", "g6", "JS8", "zc11": the deviations of a hole (capital letter) or shaft, letters a to zc, grades 01
/// to 18 (K, M, N to IT8 and P to ZC to IT7 by the rule with Δ). Nothing when the class or the size is not in
/// the tables, with what is wrong, and which classes there are, in `message`. ISO 286-1.
std::optional<Deviations> iso_286(double nominal, std::string_view tolerance_class,
                                  std::string* message = nullptr);

/// The classes of ISO 2768-1.
enum class GeneralOf { linear, edge, angle };

/// The ± of a general tolerance class 'f', 'm', 'c' or 'v': mm for a length or an edge of `nominal` mm;
/// radians for an angle whose shorter leg is `nominal` mm. Nothing where the standard states none.
std::optional<double> general_tolerance(GeneralOf of, double nominal, char tolerance_class);

} // namespace datrin
