#include "app/drawing/part_mass.h"

#include "bench/named_masses.h"
#include "fits/material_change.h"

namespace datrin::app {

namespace {

constexpr double mm3_in_cm3 = 1000;

std::optional<double> grams_of(Document& document, build::Id id, const build::Part& part) {
  const auto* metal = fits::find_in_condition(part.material, part.condition);
  if (metal == nullptr) return std::nullopt;
  document.solids().wait_for(document.build(), id);
  const auto solid = document.solids().of(document.build(), id, true);
  if (!solid || !solid->picture) return std::nullopt;
  return solid->picture->solid.volume / mm3_in_cm3 * metal->density;
}

} // namespace

std::string masses_named(Document& document, const std::string& text) {
  std::vector<std::string> names;
  std::vector<build::Id> ids;
  for (const auto& [id, part] : document.build().parts()) {
    names.push_back(part.name);
    ids.push_back(id);
  }
  return bench::with_masses(text, names, [&](std::size_t k) {
    return grams_of(document, ids[k], *document.build().find<build::Part>(ids[k]));
  });
}

} // namespace datrin::app
