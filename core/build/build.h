#pragma once
// A build in memory: its records by id, the edits that change them, and the lists views ask for. Lists come
// from an index (build/index.h), not from a walk over every record; copying a build copies no record.

#include "build/index.h"
#include "build/record.h"

#include <map>
#include <optional>
#include <string>
#include <unordered_map>
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
  std::string wrong{}; ///< why it cannot be made; empty: it can, or (without changes) nothing differs
  bool empty() const { return changes.empty(); }
};

/// An edit that cannot be made, and why, in the middle of a sentence: always said to the person.
inline Edit cannot(std::string why) {
  return {{}, {}, std::move(why)};
}
/// Of what somebody removed, or took back, in the meantime.
inline Edit is_gone() {
  return cannot("what it is about is no longer there: it was removed, or taken back");
}

/// A record found, with its id; nothing where there is none.
template <class T>
using Found = std::optional<std::pair<Id, T>>;

class Build {
public:
  static constexpr Id info_id = 1;
  static constexpr std::size_t most_records = 200'000; ///< a build of more is refused at every door

  Build() { load(info_id, Info{}); }

  const std::map<Id, Record>& records() const { return records_; }
  Id next_id() const { return next_id_; }
  const Info& info() const { return *find<Info>(info_id); }

  /// The record `id` when it is there and of type T; else null. Good until the record is changed or removed.
  template <RecordType T>
  const T* find(Id id) const {
    const auto found = by_id_.find(id);
    return found == by_id_.end() ? nullptr : found->second.template as<T>();
  }

  /// All records of type T: by their place in lists, then by id; those that belong to another record by id.
  template <RecordType T>
  List<T> all() const {
    return List<T>(index_.entries(kind_of<T>, 0));
  }

  /// Those of type T that need record `owner` (build/descriptions.h says which that is: the touches of a
  /// piece, those on a surface), in the same order. None for owner 0.
  template <RecordType T>
  List<T> of(Id owner) const {
    return owner == 0 ? List<T>() : List<T>(index_.entries(kind_of<T>, owner));
  }

  List<Part> parts() const { return all<Part>(); }
  List<PartSurface> surfaces_of(Id part) const { return of<PartSurface>(part); }
  List<Wall> walls_of(Id part) const { return of<Wall>(part); }
  List<Piece> pieces_of(Id part) const { return of<Piece>(part); }
  List<Touch> touches_of(Id piece) const { return of<Touch>(piece); }
  List<Setting> settings_of(Id piece) const { return of<Setting>(piece); }
  List<Mark> marks_of(Id piece) const { return of<Mark>(piece); }
  List<SizeReading> sizes_of(Id piece) const { return of<SizeReading>(piece); }
  List<Spot> spots_of(Id piece) const { return of<Spot>(piece); }
  List<Scan> scans_of(Id piece) const { return of<Scan>(piece); }
  List<Decision> decisions_of(Id part) const { return of<Decision>(part); }
  List<Dimension> dimensions_of(Id part) const { return of<Dimension>(part); }
  List<Body> bodies_of(Id part) const { return of<Body>(part); }
  List<Offcut> offcuts() const { return all<Offcut>(); }
  List<Machine> machines() const { return all<Machine>(); }
  List<Tool> tools() const { return all<Tool>(); }
  List<Supply> supplies() const { return all<Supply>(); }
  List<Instrument> instruments() const { return all<Instrument>(); }
  List<Setup> setups_of(Id part) const { return of<Setup>(part); }
  List<Operation> operations_of(Id part) const { return of<Operation>(part); }
  List<Locator> locators_of(Id fixture) const { return of<Locator>(fixture); }
  List<Proof> proofs_of(Id fixture) const { return of<Proof>(fixture); }
  List<GeometricTolerance> tolerances_of(Id part) const { return of<GeometricTolerance>(part); }
  List<CrankRound> crank_rounds_of(Id piece) const { return of<CrankRound>(piece); }
  List<Joint> joints() const { return all<Joint>(); }
  List<Chain> chains() const { return all<Chain>(); }
  List<Trial> trials_of(Id joint) const { return of<Trial>(joint); }
  Found<Seat> seat_of(Id piece) const { return first(of<Seat>(piece)); }
  Found<Marking> marking_of(Id piece) const { return first(of<Marking>(piece)); }
  Found<Judgement> judgement_of(Id piece) const { return first(of<Judgement>(piece)); }
  Found<Stock> stock_of(Id part) const { return first(of<Stock>(part)); }
  Found<Foundry> foundry_of(Id part) const { return first(of<Foundry>(part)); }
  Found<Allowance> allowance_of(Id piece, Id surface) const;
  std::vector<std::pair<Id, Cut>> cuts_of(Id piece, Id surface) const; ///< oldest first
  Found<Release> release_of(Id piece, Id setup) const;
  Found<OperationDone> done_of(Id piece, Id operation) const;
  Found<BenchPlace> bench_place_of(Id piece, Id setup) const;
  std::vector<std::pair<Id, BenchZero>> bench_zeros_of(Id piece, Id setup) const; ///< oldest first
  Found<Measurement> measurement_of(Id piece, Id dimension) const;                ///< the last

  /// Applies the rows as they stand. False, and nothing changed, when a row's `before` is not what is here.
  bool apply(const Edit& edit);

  /// Puts a record in without asking what was there: for loading.
  void load(Id id, Record record);

  /// From now on no id below `id` is given out: ids of removed records are not used again.
  void reserve(Id id) { next_id_ = std::max(next_id_, id); }

  /// Ids of the records, of any kind, that need `id`.
  std::vector<Id> needing(Id id) const;

private:
  template <class T>
  static Found<T> first(const List<T>& list) {
    if (list.empty()) return std::nullopt;
    return std::pair<Id, T>(list.front().first, list.front().second);
  }

  std::map<Id, Record> records_;
  std::unordered_map<Id, Record> by_id_; ///< the same: a large build is asked by id all the time
  Index index_;
  Id next_id_ = 2;
};

/// The edit that takes `edit` back. Keeps the label.
Edit reversed(const Edit& edit);

} // namespace datrin::build
