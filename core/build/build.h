#pragma once
// A build in memory: its records by id, the edits that change them, and the lists views ask for.

#include "build/records.h"

#include <algorithm>
#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace datrin::build {

/// One record before and after. Neither: no change; only `after`: made; only `before`: removed.
struct Change {
  Id id = 0;
  std::optional<Record> before, after;
  bool operator==(const Change&) const = default;
};

/// What a person did, named as the undo menu names it. The same rows are the undo step, the transaction and
/// the line in the log.
struct Edit {
  std::string label; ///< "Move bore", "Import 72 touches"
  std::vector<Change> changes;
  bool empty() const { return changes.empty(); }
};

class Build {
public:
  static constexpr Id info_id = 1;

  Build() { records_[info_id] = Info{}; }

  const std::map<Id, Record>& records() const { return records_; }
  Id next_id() const { return next_id_; }
  const Info& info() const { return std::get<Info>(records_.at(info_id)); }

  /// The record `id` when it is there and of type T; else null.
  template <class T>
  const T* find(Id id) const {
    const auto found = records_.find(id);
    return found == records_.end() ? nullptr : std::get_if<T>(&found->second);
  }

  /// All records of type T that `keep` accepts, by their place in lists, then by id.
  template <class T, class Keep>
  std::vector<std::pair<Id, T>> list(Keep keep) const {
    std::vector<std::pair<Id, T>> found;
    for (const auto& [id, record] : records_)
      if (const T* value = std::get_if<T>(&record); value && keep(*value)) found.emplace_back(id, *value);
    sort_by_order(found);
    return found;
  }

  std::vector<std::pair<Id, Part>> parts() const;
  std::vector<std::pair<Id, PartSurface>> surfaces_of(Id part) const;
  std::vector<std::pair<Id, Wall>> walls_of(Id part) const;
  std::vector<std::pair<Id, Piece>> pieces_of(Id part) const;
  std::vector<std::pair<Id, Touch>> touches_of(Id piece) const;
  std::optional<std::pair<Id, Seat>> seat_of(Id piece) const;
  std::optional<std::pair<Id, Marking>> marking_of(Id piece) const;
  std::vector<std::pair<Id, Setting>> settings_of(Id piece) const;
  std::vector<std::pair<Id, Mark>> marks_of(Id piece) const;
  std::vector<std::pair<Id, SizeReading>> sizes_of(Id piece) const;
  std::vector<std::pair<Id, Spot>> spots_of(Id piece) const;
  std::vector<std::pair<Id, Scan>> scans_of(Id piece) const;
  std::optional<std::pair<Id, Judgement>> judgement_of(Id piece) const;
  std::vector<std::pair<Id, Decision>> decisions_of(Id part) const;
  std::vector<std::pair<Id, Dimension>> dimensions_of(Id part) const;
  std::optional<std::pair<Id, Foundry>> foundry_of(Id part) const;
  std::vector<std::pair<Id, Machine>> machines() const;
  std::vector<std::pair<Id, Tool>> tools() const;
  std::optional<std::pair<Id, Allowance>> allowance_of(Id piece, Id surface) const;
  std::vector<std::pair<Id, Cut>> cuts_of(Id piece, Id surface) const; ///< oldest first
  std::vector<std::pair<Id, Setup>> setups_of(Id part) const;
  std::optional<std::pair<Id, Release>> release_of(Id piece, Id setup) const;
  std::optional<std::pair<Id, Measurement>> measurement_of(Id piece, Id dimension) const; ///< the last

  std::vector<std::pair<Id, Instrument>> instruments() const;
  std::vector<std::pair<Id, Joint>> joints() const;
  std::vector<std::pair<Id, Chain>> chains() const;

  /// Applies the rows as they stand. False, and nothing changed, when a row's `before` is not what is here.
  bool apply(const Edit& edit);

  /// All records of type T that belong to `piece`.
  template <class T>
  std::vector<std::pair<Id, T>> of_piece(Id piece) const {
    return list<T>([=](const T& t) { return t.piece == piece; });
  }

  /// Puts a record in without asking what was there: for loading.
  void load(Id id, Record record);

  /// From now on no id below `id` is given out: ids of removed records are not used again.
  void reserve(Id id) { next_id_ = std::max(next_id_, id); }

private:
  template <class T>
  static void sort_by_order(std::vector<std::pair<Id, T>>& list);

  std::map<Id, Record> records_;
  Id next_id_ = 2;
};

/// The edit that takes `edit` back. Keeps the label.
Edit reversed(const Edit& edit);

template <class T>
void Build::sort_by_order(std::vector<std::pair<Id, T>>& list) {
  if constexpr (requires(const T& t) { t.order; })
    std::stable_sort(list.begin(), list.end(),
                     [](const auto& a, const auto& b) { return a.second.order < b.second.order; });
}

} // namespace datrin::build
