#pragma once
// Parts named where grams are asked for: "Piston + Piston rod" as the sum of what they weigh.

#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace datrin::bench {

/// `text` with every name of `names` that stands in it (whole words, whatever the case, a longer name before
/// a shorter) replaced by what `grams` says of it; one it says nothing of stays. Nothing named: the text as
/// it is.
std::string with_masses(const std::string& text, const std::vector<std::string>& names,
                        const std::function<std::optional<double>(std::size_t)>& grams);

} // namespace datrin::bench
