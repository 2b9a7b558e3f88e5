#include "build/edit_making.h"

#include "quantity/length_text.h"

#include <fmt/format.h>

namespace datrin::build {

namespace {

template <class T>
Added add_to_shop(const Build& build, T thing, const char* kind) {
  if (thing.name.empty()) return {0, {}, fmt::format("Name the {}.", kind)};
  thing.order = next_order(build.all<T>());
  const auto label = fmt::format("Add {} {}", kind, thing.name);
  return added(build, std::move(thing), label);
}

} // namespace

Edit set_allowance(const Build& build, const Allowance& allowance, const std::string& what) {
  return keep_one(build, build.allowance_of(allowance.piece, allowance.surface), allowance,
                  fmt::format("{} for {}", what, surface_name(build, allowance.surface)));
}

Edit log_cut(const Build& build, const Cut& cut) {
  return add(build, cut,
             fmt::format("Cut {} to {} left", surface_name(build, cut.surface),
                         length_text(cut.left, build.info().unit)));
}

Edit take_back_cut(const Build& build, Id piece, Id surface) {
  const auto cuts = build.cuts_of(piece, surface);
  if (cuts.empty()) return cannot("no cut of it is logged");
  return remove(build, cuts.back().first,
                fmt::format("Take back the last cut of {}", surface_name(build, surface)));
}

Edit log_reference(const Build& build, Id piece, Id surface, const Vec3& place, std::string at) {
  Cut cut;
  cut.piece = piece;
  cut.surface = surface;
  cut.note = "reference";
  cut.at = std::move(at);
  cut.place = place;
  return add(build, cut, "Reference on " + surface_name(build, surface));
}

Added add_setup(const Build& build, Id part) {
  if (build.find<Part>(part) == nullptr) return {0, {}, "there is no part to set up"};
  const auto all = build.setups_of(part);
  Setup setup;
  setup.part = part;
  setup.name = "setup " + std::to_string(all.size() + 1);
  setup.order = next_order(all);
  return added(build, setup, "Add a setup");
}

Edit move_setup(const Build& build, Id id, int by) {
  const auto* setup = build.find<Setup>(id);
  if (setup == nullptr) return is_gone();
  const auto all = build.setups_of(setup->part);
  const auto here = std::find_if(all.begin(), all.end(), [&](const auto& s) { return s.first == id; });
  const auto other = (here - all.begin()) + by;
  if (by == 0 || other < 0 || other >= static_cast<std::ptrdiff_t>(all.size())) return {};
  const auto [other_id, there] = all[static_cast<std::size_t>(other)];
  auto one = *setup, two = there;
  std::swap(one.order, two.order);
  if (one.order == two.order) one.order += by;
  return {"Change the order of the setups", {{id, *setup, one}, {other_id, there, two}}};
}

Edit next_role(const Build& build, Id setup, Id id) {
  const auto* now = build.find<Setup>(setup);
  if (now == nullptr) return is_gone();
  auto changed = *now;
  if (build.find<Dimension>(id) != nullptr) {
    if (std::erase(changed.sizes, id) == 0) changed.sizes.push_back(id);
    return change(build, setup, changed, "Sizes");
  }
  const auto* surface = build.find<PartSurface>(id);
  if (surface == nullptr) return is_gone();
  auto& worked_on = surface->machined ? changed.cuts : changed.marks;
  const bool was_datum = std::erase(changed.datums, id) > 0;
  if (!was_datum && std::erase(changed.cuts, id) > 0)
    changed.marks.push_back(id);
  else if (!was_datum && contains(changed.marks, id))
    std::erase(changed.marks, id);
  else if (!was_datum && changed.datums.size() < 3)
    changed.datums.push_back(id);
  else
    worked_on.push_back(id);
  return change(build, setup, changed, "Surfaces");
}

Edit unclamp(const Build& build, Id piece, Id setup, std::string missing, std::string at, std::string left) {
  const auto* s = build.find<Setup>(setup);
  if (s == nullptr) return is_gone();
  return add(build, Release{piece, setup, std::move(at), std::move(missing), std::move(left)},
             fmt::format("Unclamp from \"{}\"", s->name));
}

Edit clamp_again(const Build& build, Id piece, Id setup) {
  const auto old = build.release_of(piece, setup);
  const auto* s = build.find<Setup>(setup);
  if (s == nullptr) return is_gone();
  if (!old) return cannot("it was not unclamped");
  return remove(build, old->first, fmt::format("Clamp again in \"{}\"", s->name));
}

Added add_machine(const Build& build, Machine machine) {
  return add_to_shop(build, std::move(machine), "machine");
}

Added add_tool(const Build& build, Tool tool) {
  return add_to_shop(build, std::move(tool), "tool");
}

Added add_instrument(const Build& build, Instrument instrument) {
  return add_to_shop(build, std::move(instrument), "instrument");
}

} // namespace datrin::build
