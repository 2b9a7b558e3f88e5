#include "route/recovery_edit.h"

#include "build/rows.h"
#include "build/words.h"
#include "route/propose.h"

#include <fmt/format.h>

#include <algorithm>

namespace datrin::route {

using namespace build;

Decision decision_of(const Slipped& slipped, std::string what) {
  return {slipped.part,    slipped.piece,  slipped.surfaces.empty() ? 0 : slipped.surfaces.front(),
          std::move(what), slipped.reason, slipped.at};
}

Edit take_recovery(const Build& build, const Slipped& slipped, const std::string& what,
                   const RecoveryWork& work) {
  Rows rows(build);
  rows.add(decision_of(slipped, what));
  Id setup = 0, before = 0;
  double order = 0;
  for (const auto& [id, o] : build.operations_of(slipped.part)) {
    const bool same = std::any_of(slipped.surfaces.begin(), slipped.surfaces.end(),
                                  [&, &o = o](Id s) { return contains(o.surfaces, s); }) ||
                      std::any_of(slipped.bodies.begin(), slipped.bodies.end(),
                                  [&, &o = o](Id b) { return contains(o.bodies, b); });
    if (same) setup = o.setup, before = id;
    order = std::max(order, o.order + 1);
  }
  for (const auto& [kind, words] : work) {
    Operation o;
    o.part = slipped.part;
    o.kind = kind;
    o.name = words;
    const bool aside =
        kind == OperationKind::press || kind == OperationKind::wait || kind == OperationKind::sent_out;
    o.setup = aside ? 0 : setup;
    o.surfaces = slipped.surfaces;
    o.bodies = slipped.bodies;
    o.minutes = usual_minutes(kind);
    o.note = fmt::format("no. {} only", build.find<Piece>(slipped.piece)->number);
    if (before != 0) o.after = {before};
    o.order = order++;
    before = rows.add(o);
  }
  return rows.edit(fmt::format("{}: {}", slipped.name, what));
}

double minutes_of(const RecoveryWork& work) {
  double sum = 0;
  for (const auto& [kind, unused] : work) sum += usual_minutes(kind);
  return sum;
}

std::string time_text(const RecoveryWork& work) {
  std::string sum;
  for (const auto& [kind, unused] : work)
    if (usual_minutes(kind) > 0)
      sum +=
          fmt::format("{}{} {:.0f}", sum.empty() ? "" : ", ",
                      words_of<OperationKind>().first[static_cast<std::size_t>(kind)], usual_minutes(kind));
  return sum.empty() ? std::string() : fmt::format(" {:.0f} min: {}, as is usual.", minutes_of(work), sum);
}

} // namespace datrin::route
