#pragma once
// What is tabled about castings: metals, processes and their grades, ISO 8062-3 tolerances and allowances.

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace datrin::casting {

struct Metal {
  std::string name, group;
  double shrink_least = 0, shrink_usual = 0, shrink_most = 0; ///< of the length: 0.01 = 1 %
  double skin = 0;                                            ///< mm
  double draft = 0;                                           ///< radians
};
const std::vector<Metal>& metals();                      ///< data/metals.csv
std::optional<Metal> metal_named(std::string_view name); ///< also what is meant: "cast iron" is grey iron

struct CastingGrade {
  std::string process, group;
  int tolerance = 0;     ///< DCTG
  std::string allowance; ///< RMAG
};
const std::vector<CastingGrade>& casting_grades(); ///< data/casting_grades.csv
std::optional<CastingGrade> usual_grade(std::string_view process, std::string_view group);

/// What a casting tolerance is of: a wall has one grade coarser than the rest of the casting.
enum class CastOf { size, wall };

/// Whole width of the casting tolerance for a raw dimension of a casting of grade 1 to 15, mm; grade 16 is
/// for walls of a casting of grade 15 only. ISO 8062-3.
std::optional<double> casting_tolerance(double raw, int grade, CastOf of = CastOf::size);

/// Required machining allowance of grade "A" to "K" (no I), a side, for a casting whose largest dimension is
/// `largest`, mm. ISO 8062-3.
std::optional<double> machining_allowance(double largest, std::string_view grade);

} // namespace datrin::casting
