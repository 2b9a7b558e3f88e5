#include "batch/batch_edits.h"

#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace datrin::batch {

using namespace build;

KeptReadings keep_readings(const Build& build, const std::vector<TypedReading>& typed,
                           const ReadingsContext& context) {
  KeptReadings out;
  Build scratch = build;           // each reading is told of those before it
  std::map<Id, std::size_t> place; // of each record in the edit
  const auto take = [&](Edit edit) {
    if (edit.empty() || !scratch.apply(edit)) return;
    ++out.kept;
    if (out.edit.label.empty()) out.edit.label = edit.label;
    for (auto& change : edit.changes) {
      const auto [at, fresh] = place.emplace(change.id, out.edit.changes.size());
      if (fresh)
        out.edit.changes.push_back(std::move(change));
      else
        out.edit.changes[at->second].after = std::move(change.after);
    }
  };
  for (std::size_t k = 0; k < typed.size(); ++k) {
    const auto text = trimmed(typed[k].text);
    if (text.empty()) {
      take(readings::take_back_reading(scratch, typed[k].made));
      continue;
    }
    readings::MeasureInput in;
    in.made = typed[k].made;
    in.text = text;
    in.instrument = context.instrument;
    in.at = context.at;
    in.angles = context.angles;
    const auto read = readings::measure(scratch, in, context.lengths);
    if (read.ok)
      take(readings::keep_measurement(scratch, read.measurement));
    else
      out.refused.push_back({k, read.message});
  }
  // What came and went within it changes nothing.
  std::erase_if(out.edit.changes, [](const Change& c) { return c.before == c.after; });
  if (out.kept > 1) out.edit.label = fmt::format("{} readings", out.kept);
  return out;
}

Edit reject(const Build& build, Id piece, const std::string& reason) {
  const auto* now = build.find<Piece>(piece);
  if (now == nullptr) return is_gone();
  auto changed = *now;
  changed.rejected = std::string(trimmed(reason));
  const auto* part = build.find<Part>(now->part);
  const auto name = fmt::format("{} no. {}", part ? part->name : "piece", now->number);
  return replace(build, piece, changed,
                 changed.rejected.empty() ? fmt::format("Take {} back", name)
                                          : fmt::format("Reject {}: {}", name, changed.rejected));
}

} // namespace datrin::batch
