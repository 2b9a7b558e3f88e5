#include "build/records.h"

#include <algorithm>

namespace datrin::build {

double Judgement::favour_of(Id surface) const {
  for (const auto& favour : favours)
    if (favour.surface == surface) return favour.by;
  return 0;
}

void Judgement::set_favour(Id surface, double by) {
  std::erase_if(favours, [&](const Favour& f) { return f.surface == surface; });
  if (by == 0) return;
  favours.push_back({surface, by});
  std::sort(favours.begin(), favours.end(),
            [](const Favour& a, const Favour& b) { return a.surface < b.surface; });
}

const BodySize* Body::size(BodyRole role, int profile_place) const {
  for (const auto& size : sizes)
    if (size.role == role && size.profile_place == profile_place) return &size;
  return nullptr;
}

void Body::set_size(const BodySize& size) {
  for (auto& old : sizes)
    if (old.role == size.role && old.profile_place == size.profile_place) {
      old = size;
      return;
    }
  sizes.push_back(size);
}

} // namespace datrin::build
