#include "readings/measure.h"

#include "fits/form.h"
#include "fits/metal_of.h"
#include "fits/reading.h"
#include "fits/reading_text.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "readings/size_now.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::readings {

using namespace build;
using fits::ReadingKind;

namespace {

constexpr double least_of_nominal = 0.6, most_of_nominal = 1.5; ///< beyond: another unit, or another part

/// Turns one typed reading into a record.
class Reader {
public:
  Reader(const Build& build, const MeasureInput& in, const LengthOptions& options)
      : build_(build), in_(in), options_(options) {}

  Measured read() {
    d_ = build_.find<Dimension>(in_.made.dimension);
    if (d_ == nullptr || build_.find<Piece>(in_.made.piece) == nullptr)
      return refuse("there is no such dimension of a piece any more");
    if (d_->kind == DimensionKind::angle) return angle();
    side_ = side_of(build_, in_.made.dimension);
    read_ = fits::parse_reading(in_.text, options_, side_);
    if (!read_.ok) return refuse(read_.message);
    if (in_.place && read_.kind != ReadingKind::size)
      return refuse("at one place of several a plain size is read, like 24.013");
    begin_record();
    if (!size()) return std::move(out_);
    if (d_->nominal > 0 && (size_ > most_of_nominal * d_->nominal || size_ < least_of_nominal * d_->nominal))
      return refuse(fmt::format("{} is far from {}: is the unit right?", both(size_), both(d_->nominal)));
    in_.place ? keep_place() : keep_whole();
    out_.ok = true;
    return std::move(out_);
  }

private:
  bool fail(std::string why) {
    out_ = {};
    out_.message = std::move(why);
    return false;
  }
  Measured refuse(std::string why) {
    fail(std::move(why));
    return std::move(out_);
  }
  std::string both(double mm) const { return length_text_both(mm, options_.bare_unit.value_or(Unit::mm)); }

  Measured angle() {
    const auto angle = parse_angle(std::string(in_.text), in_.angles);
    if (!angle.ok) return refuse(angle.message);
    out_.measurement = {in_.made.piece, in_.made.dimension, angle.radian, 0, {}, in_.at};
    out_.ok = true;
    return std::move(out_);
  }

  void begin_record() {
    if (const auto old = build_.measurement_of(in_.made.piece, in_.made.dimension)) old_ = old->second;
    auto& m = out_.measurement;
    if (in_.place && old_ && old_->mate == 0) m = *old_;
    m.piece = in_.made.piece;
    m.dimension = in_.made.dimension;
    m.at = in_.at;
    m.mate = m.mate_piece = 0;
    m.bound = read_.bound;
    m.off_centre = read_.off_centre;
  }

  /// The size, its uncertainty and how it comes about.
  bool size() {
    auto& m = out_.measurement;
    uncertainty_ = read_.uncertainty.value_or(0);
    fits::ReadingInput shown;
    shown.shown = read_.shown;
    if (const auto* instrument = build_.find<Instrument>(in_.instrument);
        instrument != nullptr && read_.kind != ReadingKind::gauges) {
      m.instrument = instrument->name;
      if (!read_.uncertainty) uncertainty_ = instrument->uncertainty;
      const bool difference = read_.kind == ReadingKind::comparison || read_.kind == ReadingKind::dial;
      if (!difference) {
        shown.zero = instrument->zero;
        if (const auto* metal = fits::metal_of(build_, in_.made.dimension)) {
          shown.piece_expansion = metal->expansion;
          shown.piece_temperature = shown.instrument_temperature = instrument->temperature;
        }
      }
    }
    out_.sum = fits::corrected(shown);
    switch (read_.kind) {
    case ReadingKind::gauges:
      m.instrument = "gauges";
      break;
    case ReadingKind::over_pins:
      out_.sum.lines.push_back(
          {read_.pins < 0 ? "less half the pins" : "and half the pins", read_.pins, "typed"});
      uncertainty_ += read_.play;
      break;
    case ReadingKind::comparison:
      if (!by_mate()) return false;
      break;
    case ReadingKind::dial:
      if (!by_dial()) return false;
      break;
    default:
      break;
    }
    size_ = out_.sum.total();
    return true;
  }

  bool by_mate() {
    auto& m = out_.measurement;
    const auto mate = in_.mate.dimension != 0 ? size_now(build_, in_.mate) : SizeNow{};
    if (!mate.read() || mate.bound != Bound::exact)
      return fail("its mate is not read yet: there is nothing to compare with");
    m.mate = in_.mate.dimension;
    m.mate_piece = in_.mate.piece;
    m.difference = read_.shown;
    out_.sum.lines.insert(out_.sum.lines.begin(), {made_name(build_, in_.mate), mate.value, "reading"});
    out_.sum.lines[1].label = "shown against it";
    return true;
  }

  bool by_dial() {
    const auto before = size_now(build_, in_.made);
    if (!before.read() || before.bound != Bound::exact)
      return fail("a dial says what came off since the last reading: there is none yet");
    const auto* surface = build_.find<PartSurface>(d_->surface);
    const bool round = d_->kind == DimensionKind::size && (surface == nullptr || surface->round());
    if (round && !read_.on_diameter)
      return fail("say what the dial counts: dial 0.35 a side, or dial 0.7 on diameter");
    if (side_ == Side::unknown) return fail("what comes off changes no size here: read the size itself");
    const double off = read_.shown * (round && !*read_.on_diameter ? 2 : 1);
    out_.sum.lines.front() = {"last reading", before.value, "reading"};
    out_.sum.lines.push_back({"came off since, by the dial", side_ == Side::hole ? off : -off, "typed"});
    uncertainty_ += before.uncertainty;
    return true;
  }

  void keep_whole() {
    auto& m = out_.measurement;
    m.value = size_;
    m.uncertainty = uncertainty_;
    if (read_.kind != ReadingKind::size || std::abs(size_ - read_.shown) > 1e-9)
      m.read = std::string(trimmed(in_.text));
  }

  void keep_place() {
    auto& m = out_.measurement;
    if (old_ && old_->mate == 0 && old_->places.empty() && old_->bound == Bound::exact)
      m.places.push_back({0, 0, old_->value}); // as taken before
    m.places.push_back({in_.place->depth, in_.place->direction, size_});
    m.uncertainty = std::max(m.uncertainty, uncertainty_);
    m.read.clear();
    fits::FormInput form;
    form.is_hole = side_ != Side::shaft; // of several readings of a hole the smallest counts
    for (const auto& p : m.places) form.readings.push_back({p.depth, p.direction, p.value});
    m.value = fits::form(form).matters;
  }

  const Build& build_;
  const MeasureInput& in_;
  const LengthOptions& options_;
  const Dimension* d_ = nullptr;
  Side side_ = Side::unknown;
  fits::ReadingText read_;
  std::optional<Measurement> old_;
  double size_ = 0, uncertainty_ = 0;
  Measured out_;
};

} // namespace

Measured measure(const Build& build, const MeasureInput& input, const LengthOptions& options) {
  return Reader(build, input, options).read();
}

Reckoning reading_sum(const Build& build, const Made& made) {
  const auto kept = build.measurement_of(made.piece, made.dimension);
  if (const auto now = size_now(build, made); now.read() && now.by_cut) {
    const auto* d = build.find<Dimension>(made.dimension);
    return {made_name(build, made),
            {{d->name + ", nominal", d->nominal, "drawing"},
             {"metal the last cut left of it", now.value - d->nominal, "cut logged"}}};
  }
  if (!kept) return {};
  const auto& m = kept->second;
  Reckoning plain;
  plain.title = made_name(build, made);
  plain.lines.push_back({m.instrument.empty() ? "read" : "read, " + m.instrument, m.value, "measured"});
  if (m.read.empty() || !m.places.empty()) return plain;
  MeasureInput in;
  in.made = made;
  in.mate = {m.mate, m.mate_piece};
  in.text = m.read;
  in.at = m.at;
  for (const auto& [id, instrument] : build.instruments())
    if (instrument.name == m.instrument) in.instrument = id;
  // A bare number was in the unit of then.
  for (const auto unit : {build.info().unit, build.info().unit == Unit::mm ? Unit::inch : Unit::mm}) {
    LengthOptions options;
    options.bare_unit = unit;
    auto again = measure(build, in, options);
    constexpr double same = 1e-6; // mm
    if (again.ok && !again.sum.lines.empty() && std::abs(again.measurement.value - m.value) < same) {
      again.sum.title = plain.title;
      return again.sum;
    }
  }
  return plain;
}

std::string reading_text(const Build& build, const Measurement& m) {
  const auto* d = build.find<Dimension>(m.dimension);
  if (d != nullptr && d->kind == DimensionKind::angle) return number_text(degrees(m.value), 2) + "\u00B0";
  auto text = length_text(m.value, build.info().unit, {.decimals_mm = 3, .show_unit = true});
  if (m.bound != Bound::exact) text = (m.bound == Bound::below ? "below " : "above ") + text;
  return m.read.empty() ? text : fmt::format("{} ({})", text, one_line(m.read));
}

Edit take_back_reading(const Build& build, const Made& made) {
  const auto old = build.measurement_of(made.piece, made.dimension);
  if (!old) return build::cannot("it was not read");
  return remove(build, old->first,
                fmt::format("Take back the reading of {}, {}", made_name(build, made),
                            reading_text(build, old->second)));
}

Edit keep_measurement(const Build& build, const Measurement& m) {
  const auto name = made_name(build, {m.dimension, m.piece});
  const auto old = build.measurement_of(m.piece, m.dimension);
  const auto now = reading_text(build, m);
  if (!old) return add(build, m, fmt::format("Measure {}: {}", name, now));
  return replace(
      build, old->first, m,
      m.places.size() > old->second.places.size()
          ? fmt::format("Read {} at another place: {}", name, now)
          : fmt::format("Measure {} again: {}, was {}", name, now, reading_text(build, old->second)));
}

} // namespace datrin::readings
