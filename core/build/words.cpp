#include "build/words.h"

#include <array>

namespace datrin::build {

namespace {

/// A list of words that is as long as its enumeration, whose last enumerator is `last`.
template <auto last, class... Word>
constexpr auto list(Word... words) {
  static_assert(sizeof...(words) == static_cast<std::size_t>(last) + 1, "a word is missing");
  return std::array<std::string_view, sizeof...(words)>{words...};
}

template <std::size_t N>
Words words(const std::array<std::string_view, N>& of) {
  return {of.data(), N};
}

constexpr auto units = list<Unit::inch>("mm", "in");
constexpr auto standings = list<TouchStanding::set_aside>("counted", "confirmed", "set aside");
constexpr auto frames = list<SettingFrame::heights>("survey", "own", "heights");
constexpr auto spots =
    list<SpotKind::mismatch>("draft", "flash", "pore", "chill", "defect", "repair", "parting line",
                             "short fill", "warp", "inclusion", "hard skin", "mismatch");
constexpr auto cures = list<SpotCure::leave>("to be decided", "dress off first", "cut round it", "fill it",
                                             "watch at the first cut", "reject the piece", "leave it");
constexpr auto dimensions =
    list<DimensionKind::length>("size", "distance", "edge radius", "corner radius", "angle", "length");
constexpr auto dimensions_shown = list<DimensionKind::length>(
    "diameter of", "distance between", "full round between", "corner radius", "angle between", "length");
constexpr auto classes = list<DimensionClass::looks>("critical", "fit", "free", "looks");
constexpr auto classes_shown = list<DimensionClass::looks>("critical", "fit", "free", "for looks");
constexpr auto sources = list<DimensionSource::assumed>("drawing", "mate", "chosen", "borrowed", "assumed");
constexpr auto sources_shown =
    list<DimensionSource::assumed>("drawing", "measured mate", "chosen", "borrowed", "assumed");
constexpr auto tools = list<ToolKind::holder>("cutter", "drill", "reamer", "ground bar", "gauge pin", "tap",
                                              "end mill", "turning tool", "boring bar", "slitting saw",
                                              "broach", "countersink", "counterbore", "parallel",
                                              "gauge block", "angle block", "collet", "steady", "holder");
constexpr auto machines =
    list<MachineKind::bench>("not stated", "lathe", "mill", "drilling machine", "grinder", "saw", "bench");
constexpr auto supplies = list<SupplyKind::to_buy>("fastener", "consumable", "to buy");
constexpr auto bounds = list<Bound::above>("exact", "below", "above");
constexpr auto steps = list<LastStep::trial>("none", "ream", "lap", "trial");
constexpr auto steps_shown = list<LastStep::trial>("nothing kept", "reamer", "lapping", "fit by trial");
constexpr auto stock_forms =
    list<StockForm::bought>("casting", "forging", "round bar", "square bar", "hexagon bar", "flat bar",
                            "plate", "sheet", "tube", "block", "bought finished");
constexpr auto body_shapes = list<BodyShape::turned>(
    "block", "round", "cone", "tube", "prism", "rib", "spokes", "hole", "slot", "pocket", "groove", "chamfer",
    "fillet", "imported", "scribed line", "centre pop", "turned");
constexpr auto body_faces = list<BodyFace::seat>("middle", "bottom", "top", "left", "right", "front", "back",
                                                 "side", "inside", "floor", "mouth", "seat");
constexpr auto body_roles =
    list<BodyRole::circle>("length", "width", "height", "diameter", "bore", "top diameter", "across flats",
                           "thickness", "corner radius", "depth", "point angle", "mouth diameter",
                           "mouth depth", "mouth angle", "taper", "inside diameter", "outside diameter",
                           "along", "across", "off", "turn", "tilt", "pitch", "pitch across", "circle");
constexpr auto body_lies = list<BodyLie::across>("up", "along", "across");
constexpr auto body_lies_shown = list<BodyLie::across>("stands on it", "lies along it", "lies across it");
constexpr auto places =
    list<PlaceFrom::high_to_edge>("middle", "low edge", "high edge", "low edge to edge", "high edge to edge");
constexpr auto mouths = list<HoleMouth::spot_faced>("plain", "counterbored", "countersunk", "spot-faced");
constexpr auto makings = list<HoleMaking::cored>("drilled", "reamed", "bored", "tapped", "cored");
constexpr auto patterns =
    list<BodyPattern::mirror>("single", "row", "grid", "bolt circle", "pair", "mirrored");
constexpr auto workholdings =
    list<Workholding::tape>("not stated", "vise", "vise with a soft rod", "three-jaw chuck", "four-jaw chuck",
                            "six-jaw chuck", "collet", "faceplate", "mandrel", "stub", "between centres",
                            "V-blocks", "angle plate", "clamped on the table", "fixture", "tape");
constexpr auto operations = list<OperationKind::sent_out>(
    "face", "turn", "mill", "slit", "drill", "bore", "ream", "tap", "broach", "file", "grind", "lap", "press",
    "fit by trial", "transfer from the mate", "mark", "deburr", "wait", "sent out");
constexpr auto locators = list<LocatorKind::stop>("pad", "pin", "nest", "V-block", "collet", "stop");
constexpr auto machine_axes = list<MachineAxis::z>("X", "Y", "Z");
constexpr auto crank_moves =
    list<CrankMove::press_anew>("nothing", "open", "close", "twist the right web", "press anew");
constexpr auto characteristics = list<Characteristic::parallel>("position", "coaxial", "square", "parallel");
constexpr auto felts =
    list<Felt::loose>("will not start", "jams part-way", "tight all the way", "hand push", "slides", "loose");
constexpr auto purposes = list<JointPurpose::thread>(
    "runs freely", "runs true", "slides", "locates", "slip for retaining compound", "light press", "press",
    "shrink", "spring-on taper", "rolling bearing in housing", "rolling bearing on shaft",
    "clearance for a bolt", "clearance for a shoulder", "key in keyway", "tongue in slot", "thread");

} // namespace

template <>
Words words_of<Unit>() {
  return words(units);
}
template <>
Words words_of<SurfaceKind>() {
  return surface_kind_words();
}
template <>
Words words_of<TouchStanding>() {
  return words(standings);
}
template <>
Words words_of<SettingFrame>() {
  return words(frames);
}
template <>
Words words_of<SpotKind>() {
  return words(spots);
}
template <>
Words words_of<DimensionKind>() {
  return words(dimensions);
}
template <>
Words words_of<DimensionClass>() {
  return words(classes);
}
template <>
Words words_of<DimensionSource>() {
  return words(sources);
}
template <>
Words words_of<ToolKind>() {
  return words(tools);
}
template <>
Words words_of<Bound>() {
  return words(bounds);
}
template <>
Words words_of<LastStep>() {
  return words(steps);
}
template <>
Words words_of<StockForm>() {
  return words(stock_forms);
}
template <>
Words words_of<BodyShape>() {
  return words(body_shapes);
}
template <>
Words words_of<BodyFace>() {
  return words(body_faces);
}
template <>
Words words_of<BodyRole>() {
  return words(body_roles);
}
template <>
Words words_of<BodyLie>() {
  return words(body_lies);
}
template <>
Words words_of<PlaceFrom>() {
  return words(places);
}
template <>
Words words_of<HoleMouth>() {
  return words(mouths);
}
template <>
Words words_of<HoleMaking>() {
  return words(makings);
}
template <>
Words words_of<BodyPattern>() {
  return words(patterns);
}
template <>
Words words_of<SpotCure>() {
  return words(cures);
}
template <>
Words words_of<MachineKind>() {
  return words(machines);
}
template <>
Words words_of<SupplyKind>() {
  return words(supplies);
}
template <>
Words words_of<Workholding>() {
  return words(workholdings);
}
template <>
Words words_of<OperationKind>() {
  return words(operations);
}
template <>
Words words_of<LocatorKind>() {
  return words(locators);
}
template <>
Words words_of<MachineAxis>() {
  return words(machine_axes);
}
template <>
Words words_of<CrankMove>() {
  return words(crank_moves);
}
template <>
Words words_of<Characteristic>() {
  return words(characteristics);
}
template <>
Words words_of<Felt>() {
  return words(felts);
}
template <>
Words words_of<JointPurpose>() {
  return words(purposes);
}

template <>
Words shown_words_of<SurfaceKind>() {
  return surface_kind_words();
}
template <>
Words shown_words_of<SpotKind>() {
  return words(spots);
}
template <>
Words shown_words_of<DimensionKind>() {
  return words(dimensions_shown);
}
template <>
Words shown_words_of<DimensionClass>() {
  return words(classes_shown);
}
template <>
Words shown_words_of<DimensionSource>() {
  return words(sources_shown);
}
template <>
Words shown_words_of<ToolKind>() {
  return words(tools);
}
template <>
Words shown_words_of<LastStep>() {
  return words(steps_shown);
}
template <>
Words shown_words_of<StockForm>() {
  return words(stock_forms);
}
template <>
Words shown_words_of<SpotCure>() {
  return words(cures);
}
template <>
Words shown_words_of<Felt>() {
  return words(felts);
}
template <>
Words shown_words_of<JointPurpose>() {
  return words(purposes);
}

} // namespace datrin::build
