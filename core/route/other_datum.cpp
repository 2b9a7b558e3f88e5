#include "route/other_datum.h"

#include "route/propose.h"
#include "stock/part_stock.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

namespace datrin::route {

using namespace build;

namespace {

constexpr double same_way = 0.99, upright_to = 0.1; // cosines
constexpr std::size_t most_datums = 3;

/// How far a figure is over what is allowed; without limits how large it is, far below any with them.
double need(const DimensionSpread& d) {
  if (d.measured) return 0;
  return d.allowed > 0 ? d.expected() / d.allowed : 0;
}

const DimensionSpread* same_figure(const PartSpread& spread, const DimensionSpread& d) {
  const auto found = std::find_if(spread.dimensions.begin(), spread.dimensions.end(), [&](const auto& one) {
    return one.of == d.of && one.dimension == d.dimension && one.tolerance == d.tolerance &&
           one.from == d.from && one.to == d.to;
  });
  return found == spread.dimensions.end() ? nullptr : &*found;
}

double worst(const PartSpread& spread) {
  double out = 0;
  for (const auto& d : spread.dimensions) out = std::max(out, need(d));
  return out;
}

Setup with_datum(const Setup& setup, std::size_t place, Id datum) {
  auto changed = setup;
  if (place < changed.datums.size())
    changed.datums[place] = datum;
  else
    changed.datums.push_back(datum);
  return changed;
}

OtherDatum told(const Build& build, Id setup_id, std::size_t place, Id datum, double sigma) {
  const auto& setup = *build.find<Setup>(setup_id);
  OtherDatum out;
  out.setup = setup_id;
  out.instead_of = place < setup.datums.size() ? setup.datums[place] : 0;
  out.datum = datum;
  out.sigma = sigma;
  const auto* s = build.find<PartSurface>(datum);
  const auto how = place > 0                    ? "put the part in \"{}\" against {}{}"
                   : s != nullptr && s->round() ? "hold the part in \"{}\" by {}{}"
                                                : "stand the part in \"{}\" on {}{}";
  out.text = fmt::format(fmt::runtime(how), setup.name, surface_name(build, datum),
                         out.instead_of == 0 ? std::string(" as well")
                                             : " instead of " + surface_name(build, out.instead_of));
  out.edit = replace(build, setup_id, with_datum(setup, place, datum), "Another datum of " + setup.name);
  return out;
}

} // namespace

std::vector<Id> datum_candidates(const Build& build, Id setup_id, std::size_t place) {
  const auto* setup = build.find<Setup>(setup_id);
  if (!setup || place > setup->datums.size() || place >= most_datums) return {};
  std::set<Id> cut;
  for (const auto& [id, s] : build.setups_of(setup->part)) {
    if (id == setup_id) break;
    cut.insert(s.cuts.begin(), s.cuts.end());
    cut.insert(s.marks.begin(), s.marks.end());
  }
  const auto* now = place < setup->datums.size() ? build.find<PartSurface>(setup->datums[place]) : nullptr;
  const bool raw_now = now != nullptr && !cut.contains(setup->datums[place]);
  const bool cast = stock::needs_touches(build, setup->part);
  std::vector<Id> out;
  for (const auto& [id, s] : build.surfaces_of(setup->part)) {
    if (contains(setup->datums, id) || contains(setup->cuts, id) || s.copy != 0) continue;
    const bool there = cut.contains(id) || (raw_now && !s.from_solid) || (!cast && !s.machined);
    if (!there) continue;
    const Vec3 way = s.direction.normalized();
    if (place == 0) {
      if (now == nullptr || now->round() != s.round()) continue;
      const double cosine = way.dot(now->direction.normalized());
      if (s.round() ? std::abs(cosine) < same_way : cosine < same_way) continue;
    } else {
      // Of a plane: not the way the part stands; of two that look along one line either says the same.
      const auto* first = build.find<PartSurface>(setup->datums.front());
      if (first == nullptr) continue;
      const double to_first = std::abs(way.dot(first->direction.normalized()));
      if (!first->round() && !s.round() && to_first > upright_to) continue;
      if (!first->round() && s.round() && to_first < same_way) continue; // a pin stands upright
      bool again = false;
      for (std::size_t k = 1; k < setup->datums.size(); ++k) {
        const auto* other = k == place ? nullptr : build.find<PartSurface>(setup->datums[k]);
        again = again || (other != nullptr && !other->round() && !s.round() &&
                          std::abs(other->direction.normalized().dot(way)) > same_way);
      }
      if (again) continue;
    }
    out.push_back(id);
  }
  return out;
}

std::optional<OtherDatum> other_datum(const Build& build, Id part, const DimensionSpread& of,
                                      const OtherDatumOptions& options) {
  if (of.measured || of.sigma <= 0) return std::nullopt;
  const double before = worst(part_spread(build, part));
  std::optional<OtherDatum> best;
  Build tried = build; // one copy for all of them: each is taken back
  for (const auto& [id, setup] : build.setups_of(part))
    for (std::size_t place = 0; place <= setup.datums.size() && place < most_datums; ++place)
      for (const Id candidate : datum_candidates(build, id, place)) {
        const auto edit = replace(build, id, with_datum(*build.find<Setup>(id), place, candidate), "");
        tried.apply(edit);
        const auto spread = part_spread(tried, part);
        tried.apply(reversed(edit));
        const auto* then = same_figure(spread, of);
        if (then == nullptr || then->sigma > options.worth * (best ? best->sigma : of.sigma)) continue;
        // What helps one must not spoil another more than the worst is spoilt now.
        if (worst(spread) > std::max(before, 1.0) + 1e-9) continue;
        best = told(build, id, place, candidate, then->sigma);
      }
  return best;
}

std::vector<std::string> better_datums(Build& build, Id part, int most) {
  std::vector<std::string> out;
  for (int k = 0; k < most; ++k) {
    const auto spread = part_spread(build, part);
    const DimensionSpread* of = nullptr;
    for (const auto& d : spread.dimensions)
      if (need(d) > 0 && (of == nullptr || need(d) > need(*of))) of = &d;
    if (of == nullptr) break;
    const auto other = other_datum(build, part, *of);
    if (!other || !build.apply(other->edit)) break;
    if (worst(part_spread(build, part)) > worst(spread) - 1e-9) {
      build.apply(reversed(other->edit));
      break;
    }
    out.push_back(other->text);
  }
  return out;
}

} // namespace datrin::route
