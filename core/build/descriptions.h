#pragma once
// The descriptions of the records by subject, and the few words they are written in. Each function puts those
// of its subject in their places in `all`.

#include "build/description.h"

#include <vector>

namespace datrin::build {

std::vector<Description> describe_all();

void describe_drawing(std::vector<Description>& all); ///< the build, parts, surfaces, dimensions, decisions
void describe_casting(std::vector<Description>& all); ///< surveys, scans, seats, how a part is cast
void describe_making(std::vector<Description>& all);  ///< the shop, allowances, cuts, setups, readings
void describe_mating(std::vector<Description>& all);  ///< joints and chains

namespace describing {

inline constexpr double most_minutes = 1e6; ///< two years of days and nights

inline Field mm(const Field& f) {
  return f.in(Measures::length);
}
inline Field mm_not_negative(const Field& f) {
  return mm(f).ruled(Rule::not_negative);
}
inline Field mm_positive(const Field& f) {
  return mm(f).ruled(Rule::positive);
}

template <class T>
Field of_part() {
  return field<&T::part>("part").template needs<Part>();
}
template <class T>
Field of_piece() {
  return field<&T::piece>("piece").template needs<Piece>();
}
template <class T>
Field place() {
  return field<&T::order>("order").place();
}

template <class T>
void put(std::vector<Description>& all, const char* name, const char* meaning, std::vector<Field> fields,
         Wrong (*together)(const void*) = nullptr) {
  all[static_cast<std::size_t>(kind_of<T>)] = describe<T>(name, meaning, std::move(fields), together);
}

/// Of a record with `least` and `most`.
template <class T>
Wrong least_below_most(const void* record) {
  const auto& r = *static_cast<const T*>(record);
  return r.least > r.most ? Wrong{"least", "must not be above most"} : Wrong{};
}

} // namespace describing

} // namespace datrin::build
