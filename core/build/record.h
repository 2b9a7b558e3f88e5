#pragma once
// A record of any kind as one value. It never changes once made: an edit replaces it, so that copies (before
// and after, undo, a view's list) share it.

#include "build/records.h"

#include <memory>
#include <string_view>
#include <tuple>
#include <type_traits>

namespace datrin::build {

struct Description; // build/description.h

/// Every kind of record there is, each described once in build/descriptions.cpp. A new kind is added at the
/// end.
using RecordTypes =
    std::tuple<Info, Part, PartSurface, Wall, Piece, Touch, Seat, Marking, Setting, Mark, SizeReading, Spot,
               Scan, Judgement, Decision, Dimension, Measurement, Foundry, Machine, Tool, Allowance, Cut,
               Setup, Release, Instrument, Joint, Chain, Trial, Stock, Body, Offcut, Operation, OperationDone,
               Supply, Locator, Proof, GeometricTolerance, BenchPlace, BenchZero, CrankRound>;

inline constexpr int kind_count = std::tuple_size_v<RecordTypes>;

namespace detail {
template <class T, int K = 0>
constexpr int kind_index() {
  if constexpr (K >= kind_count)
    return -1;
  else if constexpr (std::is_same_v<T, std::tuple_element_t<K, RecordTypes>>)
    return K;
  else
    return kind_index<T, K + 1>();
}
} // namespace detail

/// Number of the kind of T within RecordTypes; −1: T is no record.
template <class T>
inline constexpr int kind_of = detail::kind_index<T>();

template <class T>
concept RecordType = kind_of<std::remove_cvref_t<T>>
>= 0;

const Description& description(int kind);

class Record {
public:
  template <RecordType T>
  // A record is as good as its value wherever one is wanted; no record is a Record, so that nothing is
  // hidden.
  Record(T&& value) // NOLINT(bugprone-forwarding-reference-overload)
      : kind_(kind_of<std::remove_cvref_t<T>>),
        value_(std::make_shared<const std::remove_cvref_t<T>>(std::forward<T>(value))) {}

  /// What `value`, of kind `kind`, points to: for readers that make records by their description.
  Record(int kind, std::shared_ptr<const void> value) : kind_(kind), value_(std::move(value)) {}

  int kind() const { return kind_; }
  const Description& description() const { return build::description(kind_); }
  const std::shared_ptr<const void>& value() const { return value_; }

  /// The record when it is a T; else null. Stays good as long as some copy of this record is kept.
  template <RecordType T>
  const T* as() const {
    return kind_ == kind_of<T> ? static_cast<const T*>(value_.get()) : nullptr;
  }

  /// The same kind, with the same value.
  bool operator==(const Record& other) const;

private:
  int kind_ = 0;
  std::shared_ptr<const void> value_;
};

} // namespace datrin::build
