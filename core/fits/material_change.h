#pragma once
// One material in another condition, and what it means to take another material than the drawing's.

#include "fits/solids.h"

#include <string>
#include <string_view>
#include <vector>

namespace datrin::fits {

/// The conditions tabled for a material, by any of its names (data/conditions.csv); none: it has only the
/// one.
std::vector<std::string> conditions_of(std::string_view material);

/// The material in that condition; as it usually comes where the condition is empty or not tabled. Null when
/// the material is not one of the table. The pointer stays good.
const Solid* find_in_condition(std::string_view material, std::string_view condition);

/// What changes when `to` is taken in place of `from`, in words, most telling first: strength, weight,
/// expansion, stiffness, edges that break out, joining, what to cut it with, what air does. Empty where
/// either is unknown, or nothing changes.
std::vector<std::string> consequences(std::string_view from, std::string_view from_condition,
                                      std::string_view to, std::string_view to_condition);

} // namespace datrin::fits
