#include "build/edit_route.h"

#include "build/rows.h"
#include "build/words.h"

#include <fmt/format.h>

namespace datrin::build {

namespace {

std::string label_of(const Operation& o) {
  return o.name.empty() ? std::string(words_of<OperationKind>().first[static_cast<std::size_t>(o.kind)])
                        : o.name;
}

void toggle(std::vector<Id>& list, Id id) {
  if (std::erase(list, id) == 0) list.push_back(id);
}

} // namespace

Added add_operation(const Build& build, Id part, OperationKind kind, Id after) {
  if (build.find<Part>(part) == nullptr) return {0, {}, "there is no part to make"};
  const auto all = build.operations_of(part);
  Operation o;
  o.part = part;
  o.kind = kind;
  o.order = next_order(all);
  Rows rows(build);
  if (const auto* before = build.find<Operation>(after)) {
    o.setup = before->setup;
    if (kind == OperationKind::wait || kind == OperationKind::sent_out) o.setup = 0, o.after = {after};
    bool past = false;
    double order = 0;
    for (const auto& [id, other] : all) {
      auto moved = other;
      moved.order = order++;
      rows.set(id, moved);
      past = past || id == after;
      if (id == after) o.order = order++;
    }
  }
  const auto label = "Add " + label_of(o);
  const Id id = rows.add(o);
  return {id, rows.edit(label), {}};
}

Edit toggle_wait(const Build& build, Id operation, Id before) {
  const auto* o = build.find<Operation>(operation);
  if (o == nullptr) return is_gone();
  if (operation == before) return cannot("an operation does not wait for itself");
  auto changed = *o;
  toggle(changed.after, before);
  return replace(build, operation, changed, "What " + label_of(*o) + " waits for");
}

Edit toggle_need(const Build& build, Id operation, Id part) {
  const auto* o = build.find<Operation>(operation);
  if (o == nullptr || build.find<Part>(part) == nullptr) return is_gone();
  if (o->part == part) return cannot("an operation does not need its own part");
  auto changed = *o;
  toggle(changed.needs, part);
  return replace(build, operation, changed, "What " + label_of(*o) + " needs");
}

Added add_locator(const Build& build, Id fixture, Id surface, LocatorKind kind) {
  const auto* f = build.find<Part>(fixture);
  const auto* s = build.find<PartSurface>(surface);
  if (f == nullptr) return {0, {}, "choose the fixture first: a part of the build"};
  if (s == nullptr) return {0, {}, "say which surface of the part it takes"};
  if (s->part == fixture) return {0, {}, "a fixture takes hold of another part, not of itself"};
  Locator l;
  l.fixture = fixture;
  l.surface = surface;
  l.kind = kind;
  l.order = next_order(build.locators_of(fixture));
  return added(build, l, fmt::format("{} takes {}", f->name, s->name));
}

Added add_proof(const Build& build, const Proof& proof) {
  const auto* f = build.find<Part>(proof.fixture);
  if (f == nullptr) return {0, {}, "choose the fixture first: a part of the build"};
  return added(build, proof, "Trial of " + f->name);
}

Added add_tolerance(const Build& build, const GeometricTolerance& tolerance) {
  const auto* s = build.find<PartSurface>(tolerance.surface);
  if (s == nullptr) return {0, {}, "say which surface it is of"};
  if (tolerance.datums.empty()) return {0, {}, "say what it is taken from"};
  for (const Id datum : tolerance.datums)
    if (datum == tolerance.surface) return {0, {}, "a surface is not taken from itself"};
  if (!(tolerance.within > 0)) return {0, {}, "say how wide the zone is: above 0"};
  auto made = tolerance;
  made.part = s->part;
  made.order = next_order(build.tolerances_of(s->part));
  return added(build, made,
               fmt::format("{} of {}", words_of<Characteristic>().first[static_cast<std::size_t>(made.what)],
                           s->name));
}

Edit set_change_minutes(const Build& build, double setup, double tool) {
  auto info = build.info();
  info.setup_minutes = setup;
  info.tool_minutes = tool;
  return replace(build, Build::info_id, info, "Minutes of a setup and a tool change");
}

Edit set_done(const Build& build, Id piece, Id operation, bool done, const std::string& at) {
  const auto* o = build.find<Operation>(operation);
  const auto old = build.done_of(piece, operation);
  if (o == nullptr) return is_gone();
  if (old.has_value() == done) return {};
  if (!done) return remove(build, old->first, label_of(*o) + " not done");
  return add(build, OperationDone{piece, operation, at, {}}, label_of(*o) + " done");
}

} // namespace datrin::build
