#include "build/references.h"

#include <fmt/format.h>

#include <algorithm>

namespace datrin::build {

std::vector<Id> needs(const Record& record) {
  std::vector<Id> ids;
  std::visit(
      [&](const auto& r) {
        using T = std::decay_t<decltype(r)>;
        if constexpr (requires { r.part; }) ids.push_back(r.part);
        if constexpr (requires { r.piece; }) ids.push_back(r.piece);
        if constexpr (std::is_same_v<T, Touch> || std::is_same_v<T, SizeReading> ||
                      std::is_same_v<T, Dimension> || std::is_same_v<T, Allowance> || std::is_same_v<T, Cut>)
          ids.push_back(r.surface);
        if constexpr (std::is_same_v<T, SizeReading> || std::is_same_v<T, Dimension>) ids.push_back(r.other);
        if constexpr (std::is_same_v<T, Measurement>) ids.push_back(r.dimension);
        if constexpr (std::is_same_v<T, Joint>) ids.insert(ids.end(), {r.hole, r.shaft});
        if constexpr (std::is_same_v<T, Release>) ids.push_back(r.setup);
        if constexpr (std::is_same_v<T, Wall>) ids.insert(ids.end(), {r.from, r.to});
      },
      record);
  std::erase(ids, 0);
  return ids;
}

bool forget(Record& record, const std::vector<Id>& gone) {
  bool changed = false;
  const auto drop = [&](Id& id) {
    if (id == 0 || std::find(gone.begin(), gone.end(), id) == gone.end()) return;
    id = 0;
    changed = true;
  };
  if (auto* marking = std::get_if<Marking>(&record)) {
    drop(marking->reference);
    for (auto& jack : marking->jacks) drop(jack);
  }
  if (auto* spot = std::get_if<Spot>(&record)) drop(spot->surface);
  if (auto* decision = std::get_if<Decision>(&record)) drop(decision->surface);
  if (auto* judgement = std::get_if<Judgement>(&record)) {
    drop(judgement->central_bore);
    for (const auto id : gone) changed = judgement->favour.erase(id) > 0 || changed;
  }
  if (auto* allowance = std::get_if<Allowance>(&record)) {
    drop(allowance->machine);
    drop(allowance->tool);
  }
  if (auto* measurement = std::get_if<Measurement>(&record)) {
    drop(measurement->mate); // the size it gave stays
    drop(measurement->mate_piece);
  }
  const auto among = [&](Id id) { return id != 0 && std::find(gone.begin(), gone.end(), id) != gone.end(); };
  if (auto* joint = std::get_if<Joint>(&record))
    changed = std::erase_if(joint->pairs,
                            [&](const auto& pair) { return among(pair.first) || among(pair.second); }) > 0 ||
              changed;
  if (auto* chain = std::get_if<Chain>(&record)) {
    changed =
        std::erase_if(chain->terms, [&](const auto& term) { return among(term.dimension); }) > 0 || changed;
    for (auto& term : chain->terms) drop(term.piece);
  }
  if (auto* setup = std::get_if<Setup>(&record))
    for (auto* list : {&setup->datums, &setup->cuts, &setup->sizes, &setup->marks})
      for (const auto id : gone) changed = std::erase(*list, id) > 0 || changed;
  return changed;
}

std::string first_dangling(const Build& build) {
  for (const auto& [id, record] : build.records())
    for (const auto needed : needs(record))
      if (!build.records().contains(needed))
        return fmt::format("record {} needs record {}, which is not there", id, needed);
  return {};
}

} // namespace datrin::build
