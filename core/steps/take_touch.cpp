#include "steps/take_touch.h"

#include "build/rows.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "readings/size_now.h"
#include "route/card.h"
#include "steps/bench_place.h"
#include "steps/zeroing.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <limits>

namespace datrin::steps {

using namespace build;

namespace {

constexpr double agree = ZeroOptions{}.agree;

/// mm across by what was measured of it, where that was taken exactly; 0: not known.
double measured_across(const Build& build, const BenchInput& in, const AxisZero& on) {
  const auto* setup = build.find<Setup>(in.setup);
  for (const auto& [id, d] : build.dimensions_of(setup->part)) {
    const bool of_round = !on.opposite && d.kind == DimensionKind::size && d.surface == on.surface;
    const bool of_two = on.opposite && d.kind == DimensionKind::distance &&
                        ((d.surface == on.surface && d.other == on.opposite_surface) ||
                         (d.other == on.surface && d.surface == on.opposite_surface));
    if (!of_round && !of_two) continue;
    const auto now = readings::size_now(build, {id, in.piece});
    if (now.settled()) return now.value;
  }
  return 0;
}

/// "zero-x-touch-2-y": the second touch, its Y.
struct PointKey {
  std::size_t touch = 0; ///< from 1; 0: none of these
  std::size_t axis = 0;
};

PointKey point_of(const std::string& key) {
  const std::string_view mark = "-touch-";
  const auto at = key.find(mark);
  if (at == std::string::npos) return {};
  PointKey out;
  const char* from = key.data() + at + mark.size();
  std::from_chars(from, key.data() + key.size(), out.touch);
  out.axis = key.ends_with("-x") ? 0 : 1;
  return out;
}

/// Along which axis its datum is found; at a touch X and Y may both be read.
std::size_t axis_of_datum(const std::string& key) {
  return key.starts_with("zero-y") || key.starts_with("still-y") ? 1 : 0;
}

class Touching {
public:
  Touching(const Build& build, const BenchInput& in, const BenchStep& step, const std::string& at)
      : build_(build), in_(in), step_(step), at_(at), setup_(*build.find<Setup>(in.setup)),
        places_(build, setup_, in.plans), axis_(axis_of_datum(step.key)), on_(places_.zero(axis_)),
        count_(counting(build, in, axis_, on_.surface)), now_(zero_now(build, in, axis_, on_.surface)),
        unit_(route::machine_unit(build, setup_)) {}

  StepTaken take(std::optional<double> read) const {
    if (!on_.known() || on_.surface != step_.surface)
      return StepTaken::refused("its datum is not there any more");
    if (step_.key.starts_with("still-")) return still(read);
    if (point_of(step_.key).touch > 0) return point(read);
    if (!step_.number) return StepTaken::refused("its datum is not there any more");
    return own_axis(read);
  }

  StepTaken another_way() const {
    if (!on_.known() || step_.another_way.empty())
      return StepTaken::refused("there is no other way here: type what it reads");
    if (step_.key.ends_with("-other")) return by_its_size();
    if (const auto of = point_of(step_.key); of.touch > 1) return as_it_is();
    return other_touches();
  }

private:
  std::string text(double mm) const {
    return length_text(mm, unit_, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
  }
  double figure() const { return last_figure(build_, in_); }

  BenchZero fresh(std::size_t axis, Id datum) const {
    BenchZero zero;
    zero.piece = in_.piece;
    zero.setup = in_.setup;
    zero.axis = static_cast<MachineAxis>(axis);
    zero.datum = datum;
    zero.finder = step_.finder;
    zero.at = at_;
    return zero;
  }
  /// Touched another way than the one that holds: that one is given up.
  bool begun_anew() const { return now_ && now_->second.both_axes && point_of(step_.key).touch == 0; }
  BenchZero zero_at_hand() const {
    auto zero = now_ && !begun_anew() ? now_->second : fresh(axis_, on_.surface);
    zero.finder = step_.finder;
    zero.at = at_;
    zero.checked.clear();
    return zero;
  }
  void keep(Rows& rows, const BenchZero& zero) const {
    if (now_ && !begun_anew()) return rows.set(now_->first, zero);
    if (now_) {
      auto lost = now_->second;
      lost.lost = true;
      rows.set(now_->first, lost);
    }
    rows.add(zero);
  }
  Edit edit(Rows& rows) const { return rows.edit(fmt::format("Touch {}, {}", on_.name(), step_.axis)); }

  Zero reckoned(const BenchZero& zero) const {
    ZeroInput of;
    of.touches = touches_in(zero.touches);
    of.other = touches_in(zero.other_touches);
    of.both_sides = on_.has_middle();
    of.inside = on_.inside();
    of.size = measured_across(build_, in_, on_);
    of.towards = -count_.sense * on_.sense; // against the way the face looks
    of.finder = zero.finder;
    of.resolution = figure();
    return find_zero(of);
  }

  /// Touched along its own axis.
  StepTaken own_axis(std::optional<double> read) const {
    StepTaken out;
    auto zero = zero_at_hand();
    const bool other = step_.key.ends_with("-other");
    if (read && step_.key.ends_with("-again") && std::abs(*read) > agree) {
      const double last = *step_.number;
      for (const double as : {*read * mm_per_inch, *read / mm_per_inch})
        if (std::abs(as - last) < 2 * agree && std::abs(*read - last) > agree)
          return StepTaken::refused(
              fmt::format("it looks as if the read-out shows the other unit: it read {} before", text(last)));
    }
    const bool one_place = on_.made_here && !other;
    add_touch(other ? zero.other_touches : zero.touches, read.value_or(*step_.number));
    Zero found;
    if (one_place || (other && !read)) { // set, or halved there
      found.status = ZeroStatus::found;
      found.shows = one_place ? read.value_or(*step_.number) : 0;
      found.uncertainty = other ? agree : figure(); // of halving nothing is told
      if (other) zero.other_touches.clear();
    } else {
      found = reckoned(zero);
    }
    if (found.status == ZeroStatus::refused) return StepTaken::refused(found.message);
    zero.found = found.found();
    zero.shows = found.found() ? found.shows : 0;
    zero.uncertainty = found.found() ? found.uncertainty : 0;
    if (found.status == ZeroStatus::apart)
      out.told = fmt::format("the last two are {} apart: touch it once more", text(found.apart));
    if (zero.found) out.told = told(zero) + not_its_size(found.across);
    Rows rows(build_);
    keep(rows, zero);
    out.edit = edit(rows);
    return out;
  }

  std::string told(const BenchZero& zero) const {
    return fmt::format("{} reads {} at {}, \u00B1{}", axis_names[axis_], text(zero.shows), on_.place(),
                       text(zero.uncertainty));
  }
  std::string not_its_size(double across) const {
    constexpr double off = 0.3; // mm
    if (across <= 0 || std::abs(across - on_.across) <= off) return {};
    return fmt::format(". By the touches it is {} across, by the drawing {}: touched beside its middle, or "
                       "another finder?",
                       text(across), text(on_.across));
  }

  /// X or Y of one touch; with the last of them the zero is there.
  StepTaken point(std::optional<double> read) const {
    const auto of = point_of(step_.key);
    Rows rows(build_);
    if (!read && step_.may_be_empty) {
      pass(rows, in_, step_, at_);
      StepTaken out;
      out.edit = rows.edit("No more touches of " + on_.name());
      return out;
    }
    if (!read) return StepTaken::refused("type what it reads, then Enter");
    auto zero = zero_at_hand();
    zero.both_axes = true;
    auto& list = of.axis == axis_ ? zero.touches : zero.across;
    if (touches_in(list).size() >= of.touch) { // it did not agree: the old is kept
      auto old = zero;
      old.lost = true;
      rows.add(old);
      list = list.substr(0, list.rfind(' '));
    }
    add_touch(list, *read);
    StepTaken out;
    if (const auto why = on_.has_middle() ? round_about(rows, zero, out) : askew(rows, zero, out);
        !why.empty())
      return StepTaken::refused(why);
    keep(rows, zero);
    out.edit = edit(rows);
    return out;
  }

  /// Where the spindle stood, in the plane of the machine.
  std::vector<Vec2> places_touched(const BenchZero& zero) const {
    const double sx = axis_sense(build_, in_, 0), sy = axis_sense(build_, in_, 1);
    const auto read = points_in(zero);
    std::vector<Vec2> at;
    for (std::size_t k = 0; k < std::min(read.x.size(), read.y.size()); ++k)
      at.emplace_back(sx * read.x[k], sy * read.y[k]);
    return at;
  }
  void found_at(BenchZero& zero, const Vec2& where, double uncertainty, double turn) const {
    const auto k = static_cast<std::size_t>(zero.axis);
    zero.found = true;
    zero.shows = axis_sense(build_, in_, k) * where[static_cast<Eigen::Index>(k)];
    zero.uncertainty = uncertainty;
    zero.turn = turn;
  }
  std::string told_both(const BenchZero& x, const BenchZero& y, const std::string& where) const {
    return fmt::format("X reads {}, Y {} at {}, \u00B1{}", text(x.shows), text(y.shows), where,
                       text(std::max(x.uncertainty, y.uncertainty)));
  }

  std::string round_about(Rows& rows, BenchZero& zero, StepTaken& out) const {
    RoundInput in;
    in.touches = places_touched(zero);
    in.inside = on_.inside();
    in.size = measured_across(build_, in_, on_);
    in.finder = zero.finder;
    in.resolution = figure();
    constexpr std::size_t least = 3;
    const auto read = points_in(zero);
    if (in.touches.size() < least || read.x.size() != read.y.size()) return {};
    const auto found = find_middle(in);
    if (found.status == ZeroStatus::refused) return found.message;
    if (found.status == ZeroStatus::apart)
      return fmt::format("the touches lie {} off one circle: a burr, a chip? Clean it, and go back "
                         "(\u2212 Enter) to what is to be touched anew",
                         text(found.off));
    found_at(zero, found.shows, found.uncertainty, 0);
    auto other = zero;
    other.axis = static_cast<MachineAxis>(1 - axis_);
    std::swap(other.touches, other.across);
    found_at(other, found.shows, found.uncertainty, 0);
    out.told = axis_ == 0 ? told_both(zero, other, on_.place()) : told(zero);
    out.told += not_its_size(found.across);
    if (axis_ == 0 && places_.zero(1).surface == on_.surface) keep_other(rows, other);
    return {};
  }

  void keep_other(Rows& rows, const BenchZero& other) const {
    const auto axis = static_cast<std::size_t>(other.axis);
    if (const auto old = zero_now(build_, in_, axis, other.datum))
      rows.set(old->first, other);
    else
      rows.add(other);
  }

  /// Both faces touched twice: where they meet, `zero` being the one at hand.
  std::optional<Corner> corner_by(const BenchZero& zero, const ZeroOptions& options) const {
    const auto other = zero_now(build_, in_, 1 - axis_, places_.zero(1 - axis_).surface);
    constexpr std::size_t two = 2;
    if (!other || !points_in(other->second).whole(two) || !points_in(zero).whole(two)) return std::nullopt;
    auto mine = places_touched(zero), others = places_touched(other->second);
    if (axis_ == 1) std::swap(mine, others);
    AskewInput in;
    in.on_x = {mine[0], mine[1]};
    in.on_y = {others[0], others[1]};
    in.sense_x = places_.zero(0).sense;
    in.sense_y = places_.zero(1).sense;
    in.finder_x = (axis_ == 0 ? zero : other->second).finder;
    in.finder_y = (axis_ == 1 ? zero : other->second).finder;
    in.resolution = figure();
    return find_corner(in, options);
  }

  std::string askew(Rows& rows, BenchZero& zero, StepTaken& out) const {
    const auto found = corner_by(zero, {});
    if (!found) return {};
    if (found->status == ZeroStatus::refused) return found->message;
    if (found->found())
      both_found(rows, zero, *found, out);
    else
      out.told = fmt::format("the two faces are {} off a right angle by these touches", text(found->apart));
    return {};
  }

  void both_found(Rows& rows, BenchZero& zero, const Corner& found, StepTaken& out) const {
    auto [id, other] = *zero_now(build_, in_, 1 - axis_, places_.zero(1 - axis_).surface);
    found_at(zero, found.shows, found.uncertainty, found.turn);
    found_at(other, found.shows, found.uncertainty, found.turn);
    rows.set(id, other);
    constexpr double far = 100; // mm
    const auto corner =
        fmt::format("the corner of {} and {}", places_.zero(0).name(), places_.zero(1).name());
    const bool is_x = axis_ == 0;
    out.told = fmt::format("{}. It lies turned by {}; {} from the corner that is \u00B1{} more",
                           told_both(is_x ? zero : other, is_x ? other : zero, corner),
                           angle_words(found.turn), text(far), text(far * found.turn_within));
  }

  static std::string angle_words(double turn) {
    return fmt::format("{:.2f}\u00B0 {}", std::abs(turn) * 180 / pi,
                       turn < 0 ? "clockwise" : "counter-clockwise");
  }

  StepTaken still(std::optional<double> read) const {
    if (!now_ || !step_.number) return StepTaken::refused("there is no zero to check");
    const double off = read.value_or(*step_.number) - *step_.number;
    if (std::abs(off) > std::max(agree, 2 * figure()))
      return StepTaken::refused(fmt::format(
          "{} off: the zero is lost, or the read-out shows another unit, or counts from somewhere "
          "else. It should read {}. Put that right and touch it again, or / finds the zero anew",
          text(std::abs(off)), text(*step_.number)));
    auto zero = now_->second;
    zero.checked = at_;
    Rows rows(build_);
    rows.set(now_->first, zero);
    StepTaken out;
    out.edit = rows.edit(fmt::format("The zero holds, {}", step_.axis));
    out.told = off == 0 ? std::string("the zero holds") : "the zero holds, within " + text(std::abs(off));
    return out;
  }

  /// One side, and half of what it is across.
  StepTaken by_its_size() const {
    auto zero = zero_at_hand();
    const auto read = touches_in(zero.touches);
    if (read.empty()) return StepTaken::refused("its first side is not touched yet");
    const double measured = measured_across(build_, in_, on_);
    const double across = measured > 0 ? measured : on_.across;
    const double half = (across + (on_.inside() ? -1 : 1) * zero.finder) / 2;
    if (half <= 0) return StepTaken::refused("the finder is wider than what it is in");
    zero.other_touches.clear();
    zero.found = true;
    zero.shows = read.back() + count_.sense * half;
    zero.uncertainty = measured > 0 ? figure() : agree;
    Rows rows(build_);
    keep(rows, zero);
    StepTaken out;
    out.told = fmt::format("{}, by {} across as {}", told(zero), text(across),
                           measured > 0 ? "measured" : "drawn: measure it to be sure");
    out.edit = rows.edit("Middle by one side and the size, " + step_.axis);
    return out;
  }

  StepTaken as_it_is() const {
    ZeroOptions any;
    any.agree = std::numeric_limits<double>::infinity();
    auto zero = zero_at_hand();
    const auto found = corner_by(zero, any);
    if (!found) return StepTaken::refused("two touches of each face are wanted");
    if (!found->found()) return StepTaken::refused(found->message);
    Rows rows(build_);
    StepTaken out;
    both_found(rows, zero, *found, out);
    keep(rows, zero);
    out.edit = rows.edit("Corner as it is, not square");
    return out;
  }

  /// X and Y at each touch, or an axis at a time again: what was read stays in the record.
  StepTaken other_touches() const {
    const bool to_both = point_of(step_.key).touch == 0;
    const bool corner = !on_.has_middle(); // X and Y go together
    const std::size_t owner = corner ? 0 : axis_;
    Rows rows(build_);
    for (const auto& [id, z] : build_.bench_zeros_of(in_.piece, in_.setup)) {
      const bool of_it = static_cast<std::size_t>(z.axis) == axis_ || (corner && z.axis != MachineAxis::z);
      if (z.lost || !of_it) continue;
      auto lost = z;
      lost.lost = true;
      lost.at = at_;
      rows.set(id, lost);
    }
    if (to_both) {
      auto zero = fresh(owner, places_.zero(owner).surface);
      zero.both_axes = true;
      rows.add(zero);
    }
    StepTaken out;
    out.edit = rows.edit(to_both ? "Touch it with both axes read" : "Touch it an axis at a time");
    return out;
  }

  const Build& build_;
  const BenchInput& in_;
  const BenchStep& step_;
  const std::string& at_;
  const Setup& setup_;
  Places places_;
  std::size_t axis_; ///< whose touch it is
  AxisZero on_;
  Counting count_;
  std::optional<std::pair<Id, BenchZero>> now_;
  Unit unit_;
};

} // namespace

StepTaken take_touch(const Build& build, const BenchInput& input, const BenchStep& step,
                     std::optional<double> read, const std::string& at) {
  return Touching(build, input, step, at).take(read);
}

StepTaken another_way(const Build& build, const BenchInput& input, const BenchStep& step,
                      const std::string& at) {
  return Touching(build, input, step, at).another_way();
}

Edit touch_again(const Build& build, const BenchInput& input, const BenchStep& step, const std::string& at) {
  if (step.key.starts_with("still-")) return {};
  const auto of = point_of(step.key);
  const std::size_t axis = axis_of_datum(step.key);
  const bool second = step.key.ends_with("-again") || step.key.ends_with("-other") || of.touch > 0;
  const auto now = step.axis == "Z" ? std::nullopt : zero_now(build, input, axis, step.surface);
  if (!second || !now) return lose_zero(build, input, step, at);
  Rows rows(build);
  auto lost = now->second, kept = now->second;
  lost.lost = true;
  kept.found = false;
  kept.shows = kept.uncertainty = kept.turn = 0;
  kept.other_touches.clear();
  const auto first_of = [](const std::string& touches, std::size_t count) {
    const auto read = touches_in(touches);
    std::string text;
    for (std::size_t k = 0; k < std::min(count, read.size()); ++k) add_touch(text, read[k]);
    return text;
  };
  if (of.touch > 0) {
    auto &x = axis == 0 ? kept.touches : kept.across, &y = axis == 0 ? kept.across : kept.touches;
    x = first_of(x, of.axis == 0 ? of.touch - 1 : of.touch);
    y = first_of(y, of.touch - 1);
  } else {
    kept.touches = first_of(kept.touches, 1);
  }
  kept.at = lost.at = at;
  rows.set(now->first, lost);
  rows.add(kept);
  return rows.edit("Touch again, " + step.axis);
}

} // namespace datrin::steps
