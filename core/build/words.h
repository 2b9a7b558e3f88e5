#pragma once
// The words of the records' enumerations: as they stand in the file, and as they are shown. The one list of
// each; choices on screen are filled from it.

#include "build/records.h"

#include <cstddef>
#include <string_view>
#include <utility>

namespace datrin::build {

using Words = std::pair<const std::string_view*, std::size_t>; ///< in the order of the enumeration

/// As they stand in the file.
template <class E>
Words words_of();

/// As they are shown: the same, where the file's word says it well enough.
template <class E>
Words shown_words_of();

// Each has its own list, in words.cpp.
template <>
Words words_of<Unit>();
template <>
Words words_of<SurfaceKind>();
template <>
Words words_of<TouchStanding>();
template <>
Words words_of<SettingFrame>();
template <>
Words words_of<SpotKind>();
template <>
Words words_of<DimensionKind>();
template <>
Words words_of<DimensionClass>();
template <>
Words words_of<DimensionSource>();
template <>
Words words_of<ToolKind>();
template <>
Words words_of<Bound>();
template <>
Words words_of<LastStep>();
template <>
Words words_of<StockForm>();
template <>
Words words_of<BodyShape>();
template <>
Words words_of<BodyFace>();
template <>
Words words_of<BodyRole>();
template <>
Words words_of<BodyLie>();
template <>
Words words_of<PlaceFrom>();
template <>
Words words_of<HoleMouth>();
template <>
Words words_of<HoleMaking>();
template <>
Words words_of<BodyPattern>();
template <>
Words words_of<SpotCure>();
template <>
Words words_of<MachineKind>();
template <>
Words words_of<SupplyKind>();
template <>
Words words_of<Workholding>();
template <>
Words words_of<OperationKind>();
template <>
Words words_of<LocatorKind>();
template <>
Words words_of<MachineAxis>();
template <>
Words words_of<CrankMove>();
template <>
Words words_of<Characteristic>();
template <>
Words words_of<Felt>();
template <>
Words words_of<JointPurpose>();
template <>
Words shown_words_of<SurfaceKind>();
template <>
Words shown_words_of<SpotKind>();
template <>
Words shown_words_of<DimensionKind>();
template <>
Words shown_words_of<DimensionClass>();
template <>
Words shown_words_of<DimensionSource>();
template <>
Words shown_words_of<ToolKind>();
template <>
Words shown_words_of<LastStep>();
template <>
Words shown_words_of<StockForm>();
template <>
Words shown_words_of<SpotCure>();
template <>
Words shown_words_of<Felt>();
template <>
Words shown_words_of<JointPurpose>();

template <class E>
std::string_view shown_word(E value) {
  return shown_words_of<E>().first[static_cast<std::size_t>(value)];
}

} // namespace datrin::build
