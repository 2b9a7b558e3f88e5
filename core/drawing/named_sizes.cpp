#include "drawing/named_sizes.h"

#include "quantity/text.h"

#include <string>

namespace datrin::drawing {

namespace {

bool goes_on(char c) {
  return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' ||
         (static_cast<unsigned char>(c) & 0x80) != 0;
}

} // namespace

std::optional<NamedSize> size_named(const build::Build& build, build::Id part, std::string_view text) {
  const auto small = lower_case(text);
  std::optional<NamedSize> best;
  const auto consider = [&](const std::string& name, double mm) {
    const auto wanted = lower_case(name);
    if (wanted.empty() || !small.starts_with(wanted) || (best && best->bytes >= wanted.size())) return;
    if (wanted.size() < small.size() && goes_on(small[wanted.size()])) return;
    best = {wanted.size(), mm};
  };
  for (const auto& [id, d] : build.all<build::Dimension>()) {
    if (d.kind == build::DimensionKind::angle || !(d.nominal > 0)) continue;
    if (d.part == part) consider(d.name, d.nominal);
    if (const auto* owner = build.find<build::Part>(d.part)) consider(owner->name + ", " + d.name, d.nominal);
  }
  for (const auto& [id, s] : build.surfaces_of(part))
    if (s.round() && s.diameter > 0) consider(s.name, s.diameter);
  return best;
}

} // namespace datrin::drawing
