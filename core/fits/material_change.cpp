#include "fits/material_change.h"

#include "conditions_csv.h"
#include "quantity/table.h"
#include "quantity/text.h"
#include "traits_csv.h"

#include <fmt/format.h>

#include <cmath>
#include <deque>
#include <map>

namespace datrin::fits {

namespace {

struct Conditions {
  std::map<std::string, std::vector<std::string>> of; ///< by the material's own name
  std::map<std::pair<std::string, std::string>, const Solid*> solid;
  std::deque<Solid> kept;
};

const Conditions& conditions() {
  static const auto all = [] {
    Conditions out;
    const auto table = read_table(data::conditions_csv);
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
      const auto& row = table.rows[r];
      const auto* solid = find_solid(row[0]).solid;
      if (!solid) continue;
      out.of[row[0]].push_back(row[1]);
      out.kept.push_back(*solid);
      out.kept.back().yield = table.number(r, table.column("yield")).value_or(solid->yield);
      out.solid[{row[0], row[1]}] = &out.kept.back();
    }
    return out;
  }();
  return all;
}

struct Traits {
  std::string edges, joins, cutting, air;
};

const Traits* traits_of(const std::string& metal) {
  static const auto all = [] {
    std::map<std::string, Traits> out;
    for (const auto& row : read_table(data::traits_csv).rows) out[row[0]] = {row[1], row[2], row[3], row[4]};
    return out;
  }();
  const auto found = all.find(metal);
  return found == all.end() ? nullptr : &found->second;
}

/// "half as strong", "2.4 times as strong"; empty when about the same.
std::string times(double ratio, const char* what) {
  constexpr double about = 0.1;
  if (std::abs(ratio - 1) < about) return {};
  return ratio > 1 ? fmt::format("{:.1f} times as {}", ratio, what)
                   : fmt::format("{:.0f} % as {}", 100 * ratio, what);
}

} // namespace

std::vector<std::string> conditions_of(std::string_view material) {
  const auto* solid = find_solid(material).solid;
  if (!solid) return {};
  const auto found = conditions().of.find(solid->name);
  return found == conditions().of.end() ? std::vector<std::string>() : found->second;
}

const Solid* find_in_condition(std::string_view material, std::string_view condition) {
  const auto* solid = find_solid(material).solid;
  if (!solid || condition.empty()) return solid;
  const auto found = conditions().solid.find({solid->name, std::string(condition)});
  return found == conditions().solid.end() ? solid : found->second;
}

std::vector<std::string> consequences(std::string_view from, std::string_view from_condition,
                                      std::string_view to, std::string_view to_condition) {
  const auto *a = find_in_condition(from, from_condition), *b = find_in_condition(to, to_condition);
  if (!a || !b) return {};
  std::vector<std::string> said;
  const auto say = [&](std::string words) {
    if (!words.empty()) said.push_back(std::move(words));
  };
  if (a->yield > 0) say(times(b->yield / a->yield, "strong before it yields"));
  if (a->density > 0) say(times(b->density / a->density, "heavy"));
  if (a->modulus > 0) say(times(b->modulus / a->modulus, "stiff"));
  if (std::abs(b->expansion - a->expansion) > 1e-6)
    say(fmt::format("grows {:.1f} µm per 100 mm and 10 °C, not {:.1f}", b->expansion * 1e6,
                    a->expansion * 1e6));
  const auto *was = traits_of(a->name), *is = traits_of(b->name);
  if (was && is) {
    if (was->edges != is->edges)
      say(is->edges == "no"         ? "its edges do not break out"
          : is->edges == "yes"      ? "breaks out where a cut leaves it: chamfer first"
          : is->edges == "a little" ? "its edges may break out"
                                    : "its edges chip");
    if (was->joins != is->joins) say(is->joins);
    if (was->cutting != is->cutting) say("cut with: " + is->cutting);
    if (was->air != is->air) say(is->air);
  }
  return said;
}

} // namespace datrin::fits
