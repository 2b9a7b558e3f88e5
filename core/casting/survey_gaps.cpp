#include "casting/survey_gaps.h"

#include <fmt/format.h>

namespace datrin::casting {

std::vector<SurveyGap> survey_gaps(const SeatInput& input) {
  std::vector<int> touches(input.surfaces.size(), 0);
  for (const auto& point : input.points) ++touches[static_cast<std::size_t>(point.surface)];
  std::vector<char> walled(input.surfaces.size(), 0);
  for (const auto& wall : input.walls) walled[static_cast<std::size_t>(wall.from)] = 1;
  std::vector<SurveyGap> gaps;
  for (std::size_t i = 0; i < input.surfaces.size(); ++i) {
    const auto& surface = input.surfaces[i];
    if ((!surface.machined && !walled[i]) || surface.from_solid) continue;
    const auto advice = touch_advice(surface.shape.kind);
    if (touches[i] >= advice.usual) continue;
    gaps.push_back({static_cast<int>(i), touches[i], advice.usual,
                    fmt::format("{}: touch {} ({} so far)", surface.id, advice.spread, touches[i])});
  }
  return gaps;
}

} // namespace datrin::casting
