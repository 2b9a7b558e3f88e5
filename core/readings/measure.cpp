#include "chains/measure.h"

#include "build/edits.h"
#include "fits/form.h"
#include "fits/reading.h"
#include "fits/solids.h"
#include "quantity/length_text.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::chains {

using namespace build;

namespace {

constexpr double least_of_nominal = 0.6, most_of_nominal = 1.5; ///< beyond: another unit, or another part

} // namespace

const fits::Solid* metal_of(const Build& build, Id dimension) {
  const auto* d = build.find<Dimension>(dimension);
  const auto* part = d ? build.find<Part>(d->part) : nullptr;
  return part ? fits::find_solid(part->material).solid : nullptr;
}

Measured measure(const Build& build, const MeasureInput& in, const LengthOptions& options) {
  Measured out;
  const auto refuse = [&](std::string why) {
    out.message = std::move(why);
    return out;
  };
  const auto* d = build.find<Dimension>(in.made.dimension);
  if (d == nullptr || build.find<Piece>(in.made.piece) == nullptr)
    return refuse("there is no such dimension of a piece any more");
  if (d->kind == DimensionKind::angle) {
    const auto angle = parse_angle(std::string(in.text), in.angles);
    if (!angle.ok) return refuse(angle.message);
    out.measurement = {in.made.piece, in.made.dimension, angle.radian, 0, {}, in.at};
    out.ok = true;
    return out;
  }
  const auto read = fits::parse_reading(in.text, options);
  if (!read.ok) return refuse(read.message);
  if (in.place && read.kind != fits::ReadingKind::size)
    return refuse("at one place of several a plain size is read, like 24.013");
  auto& m = out.measurement;
  const auto old = reading(build, in.made);
  if (in.place && old && old->mate == 0) m = *old;
  m.piece = in.made.piece;
  m.dimension = in.made.dimension;
  m.at = in.at;
  m.mate = m.mate_piece = 0;
  const auto* instrument = build.find<Instrument>(in.instrument);
  fits::ReadingInput shown;
  shown.shown = read.shown;
  double uncertainty = read.uncertainty.value_or(0);
  if (instrument != nullptr && read.kind != fits::ReadingKind::pins) {
    m.instrument = instrument->name;
    if (!read.uncertainty) uncertainty = instrument->uncertainty;
    if (read.kind == fits::ReadingKind::size) {
      shown.zero = instrument->zero;
      if (const auto* metal = metal_of(build, in.made.dimension)) {
        shown.piece_expansion = metal->expansion;
        shown.piece_temperature = shown.instrument_temperature = instrument->temperature;
      }
    }
  }
  double size = fits::corrected(shown).total();
  if (read.kind == fits::ReadingKind::pins) m.instrument = "gauge pins";
  if (read.kind == fits::ReadingKind::comparison) {
    const auto mate = in.mate.dimension != 0 ? reading(build, in.mate) : std::nullopt;
    if (!mate) return refuse("its mate is not read yet: there is nothing to compare with");
    m.mate = in.mate.dimension;
    m.mate_piece = in.mate.piece;
    m.difference = read.shown;
    size = mate->value + read.shown;
  }
  if (d->nominal > 0 && (size > most_of_nominal * d->nominal || size < least_of_nominal * d->nominal))
    return refuse(fmt::format("{} is far from {}: is the unit right?",
                              length_text_both(size, options.bare_unit.value_or(Unit::mm)),
                              length_text_both(d->nominal, options.bare_unit.value_or(Unit::mm))));
  if (!in.place) {
    m.value = size;
    m.uncertainty = uncertainty;
    if (read.kind != fits::ReadingKind::size || std::abs(size - read.shown) > 1e-9)
      m.read = std::string(trimmed(in.text));
    out.ok = true;
    return out;
  }
  if (old && old->mate == 0 && old->places.empty()) m.places.push_back({0, 0, old->value}); // as taken before
  m.places.push_back({in.place->depth, in.place->direction, size});
  m.uncertainty = std::max(m.uncertainty, uncertainty);
  m.read.clear();
  fits::FormInput form;
  form.is_hole = in.is_hole;
  for (const auto& p : m.places) form.readings.push_back({p.depth, p.direction, p.value});
  m.value = fits::form(form).matters;
  out.ok = true;
  return out;
}

Edit take_back_reading(const Build& build, const Made& made) {
  const auto old = build.measurement_of(made.piece, made.dimension);
  if (!old) return {};
  return remove(build, old->first, "Take back the reading of " + made_name(build, made));
}

Edit keep_measurement(const Build& build, const Measurement& m) {
  const auto name = made_name(build, {m.dimension, m.piece});
  const auto old = build.measurement_of(m.piece, m.dimension);
  if (!old) return add(build, m, "Measure " + name);
  return replace(build, old->first, m,
                 m.places.size() > old->second.places.size() ? "Read " + name + " at another place"
                                                             : "Measure " + name + " again");
}

} // namespace datrin::chains
