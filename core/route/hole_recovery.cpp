#include "route/hole_recovery.h"

#include "fits/solids.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "route/recovery_edit.h"
#include "stock/part_stock.h"
#include "threads/threads.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::route {

using namespace build;

namespace {

constexpr double same_line = 0.99; // cosine

Vec3 beside(const Vec3& off, const Vec3& way) {
  return off - off.dot(way) * way;
}

class OfHole {
public:
  OfHole(const Build& build, const Feature& hole, const HoleSlipInput& in, const RecoveryOptions& options)
      : build_(build), hole_(hole), in_(in), options_(options), piece_(*build.find<Piece>(in.piece)) {
    const auto* body = build.find<Body>(hole.body);
    if (body && !body->thread.empty()) thread_ = threads::find(body->thread).thread;
    if (in.slip == HoleSlip::tap_broken && thread_ == nullptr)
      reason_ = fmt::format("a tap broke in {}", hole.name);
    else
      reason_ = in.slip == HoleSlip::tap_broken
                    ? fmt::format("the {} tap broke in {}", thread_->name, hole.name)
                    : fmt::format("{} lies {} out of its place", hole.name, text(in.off));
  }

  std::vector<RecoveryWay> all() {
    if (in_.slip == HoleSlip::tap_broken) {
      drive_out();
      dissolve();
      erode();
    } else {
      leave();
      mate();
      open_out();
    }
    next_thread();
    if (in_.slip == HoleSlip::out_of_place) plug();
    turned();
    left_out();
    scrap();
    cheapest_first(out_);
    return std::move(out_);
  }

private:
  std::string text(double mm, int decimals = 2) const {
    return length_text(mm, build_.info().unit, {.decimals_mm = decimals, .show_unit = true});
  }
  Edit taken(const std::string& what, const RecoveryWork& work) const {
    return take_recovery(build_,
                         {piece_.part, in_.piece, hole_.surfaces,
                          hole_.body != 0 ? std::vector<Id>{hole_.body} : std::vector<Id>{}, hole_.name,
                          reason_, in_.at},
                         what, work);
  }
  /// A way whose room is the metal round a hole of `across`; it works where enough is left.
  RecoveryWay cut(Recovery how, double across, const std::string& what, const RecoveryWork& work,
                  const std::string& words) const {
    RecoveryWay way{how, true, 0, minutes_of(work), {}, {}, {}};
    const auto left = metal_round(build_, piece_.part, hole_, across);
    way.room = left.value_or(0);
    if (left && *left < options_.left_wall) {
      way.works = false;
      way.text = fmt::format("{} wants {} across: only {} of metal would stay round it.", sentence_case(what),
                             text(across), text(std::max(0.0, *left)));
      return way;
    }
    way.text = words;
    if (left) way.text += fmt::format(" {} of metal stay round it.", text(*left));
    way.text += time_text(work);
    way.edit = taken(what, work);
    return way;
  }
  static std::string sentence_case(std::string s) {
    if (!s.empty()) s[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(s[0])));
    return s;
  }

  /// Joints of the hole's dimensions: what goes in it, by how much it may lie off, whether the mate is made.
  struct Mates {
    std::vector<std::string> names;
    double play = 0;
    std::string made;
  };
  Mates mates() const {
    Mates out;
    for (const auto& [id, joint] : build_.joints()) {
      const auto *h = build_.find<Dimension>(joint.hole), *s = build_.find<Dimension>(joint.shaft);
      const bool mine = h && contains(hole_.surfaces, h->surface);
      const bool other = s && contains(hole_.surfaces, s->surface);
      if (!mine && !other) continue;
      if (joint.purpose == JointPurpose::bolt_clearance) out.play = std::max(out.play, joint.least);
      const auto* mate = mine ? s : h;
      const auto* part = mate ? build_.find<Part>(mate->part) : nullptr;
      if (!part || mate->part == piece_.part) continue;
      out.names.push_back(part->name + ", " + mate->name);
      for (const auto& [piece, unused] : build_.pieces_of(mate->part))
        if (build_.measurement_of(piece, mine ? joint.shaft : joint.hole)) out.made = part->name;
    }
    return out;
  }

  void leave() {
    RecoveryWay way{Recovery::leave, true, 0, 0, {}, {}, {}};
    double allowed = mates().play / 2;
    auto by = allowed > 0 ? std::string("the clearance of its bolt") : std::string();
    for (const auto& [id, t] : build_.tolerances_of(piece_.part))
      if (t.what == Characteristic::position && contains(hole_.surfaces, t.surface) && t.within / 2 > allowed)
        allowed = t.within / 2, by = "its position tolerance";
    way.room = allowed - in_.off;
    way.text = way.room >= 0
                   ? fmt::format("Leave it: {} takes up {}, it is {} off.", by, text(allowed), text(in_.off))
                   : fmt::format("Leave it {} out of its place{}: the reason is kept.", text(in_.off),
                                 allowed > 0 ? fmt::format(", where {} takes up only {}", by, text(allowed))
                                             : std::string(", where nothing depends on it"));
    way.edit = taken("left where it is", {});
    out_.push_back(std::move(way));
  }

  void mate() {
    RecoveryWay way{Recovery::mate, true, 0, 0, {}, {}, {}};
    const auto with = mates();
    way.others = with.names;
    if (!with.made.empty()) {
      way.works = false;
      way.text = fmt::format("{} is made already: it cannot be spotted through this one.", with.made);
    } else {
      const RecoveryWork work{{OperationKind::transfer, fmt::format("spot the mate through {}", hole_.name)}};
      way.minutes = minutes_of(work);
      way.text = "Spot what goes on it through this piece, and mark the two as a pair." + time_text(work);
      way.edit = taken("the mate is spotted through it", work);
    }
    out_.push_back(std::move(way));
  }

  void open_out() {
    if (thread_) return; // a thread has no play to give
    const double across = hole_.across + 2 * in_.off;
    const RecoveryWork work{
        {OperationKind::bore, fmt::format("open {} out to {} in its right place", hole_.name, text(across))}};
    auto way =
        cut(Recovery::open_out, across, "open it out", work,
            fmt::format("Open it out to {}, over both places: its screw wants a washer, its pin a bush.",
                        text(across)));
    way.others = mates().names;
    out_.push_back(std::move(way));
  }

  /// Its thread is cut already.
  bool is_tapped() const {
    for (const auto& [id, o] : build_.operations_of(piece_.part))
      if (o.kind == OperationKind::tap && makes(o, hole_) && build_.done_of(in_.piece, id)) return true;
    return false;
  }

  void next_thread() {
    if (!thread_) return;
    const bool to_the_thread = in_.slip == HoleSlip::tap_broken || is_tapped();
    const double least = (to_the_thread ? thread_->major : hole_.across) + 2 * in_.off;
    const threads::Thread* next = nullptr;
    double drill = 0;
    for (const auto& t : threads::all()) {
      if (t.series != thread_->series || t.major <= thread_->major) continue;
      const double size = threads::tapping_drill(t).size;
      if (size >= least - 1e-9 && (!next || t.major < next->major)) next = &t, drill = size;
    }
    if (!next) return;
    const RecoveryWork work{
        {OperationKind::drill, fmt::format("drill {} {} in its right place", hole_.name, text(drill))},
        {OperationKind::tap, fmt::format("tap it {}", next->name)}};
    const auto out =
        in_.slip == HoleSlip::tap_broken
            ? std::string(" What is left of the tap must be broken up first, with a carbide drill.")
            : std::string();
    auto way =
        cut(Recovery::next_thread, next->major, fmt::format("tap it {}", next->name), work,
            fmt::format("Drill it {} where it should be and tap it {}: its drill takes the old hole away.{}",
                        text(drill), next->name, out));
    way.others = mates().names;
    out_.push_back(std::move(way));
  }

  void plug() {
    const double wall = 1, across = std::ceil(2 * (hole_.across + 2 * in_.off + 2 * wall)) / 2;
    const RecoveryWork work{
        {OperationKind::bore, fmt::format("open {} to {} for a plug", hole_.name, text(across))},
        {OperationKind::press, fmt::format("fit a plug of the same metal into {}", hole_.name)},
        {OperationKind::file, "dress the plug flush"},
        {OperationKind::drill, fmt::format("drill {} again", hole_.name)}};
    out_.push_back(
        cut(Recovery::plug, across, "plug it and drill it again", work,
            fmt::format("Plug it {} across with the same metal, pressed or screwed in with retaining "
                        "compound, dress it flush, drill it where it should be.",
                        text(across))));
  }

  /// From an old hole to the next of a new set turned by half a pitch: round a circle 2 R sin(half the
  /// angle), along a line half the pitch.
  double half_a_pitch_on(const std::vector<Vec3>& at, double pitch) const {
    Vec3 middle = Vec3::Zero();
    for (const auto& one : at) middle += one / static_cast<double>(at.size());
    double radius = 0, apart = 0;
    for (const auto& one : at) radius = std::max(radius, beside(one - middle, hole_.way).norm());
    for (const auto& one : at) apart = std::max(apart, radius - beside(one - middle, hole_.way).norm());
    constexpr double same = 0.01, least_on_a_circle = 3;
    if (static_cast<double>(at.size()) < least_on_a_circle || apart > same || radius <= 0) return pitch / 2;
    const double angle = 2 * std::asin(std::min(1.0, pitch / (2 * radius)));
    return 2 * radius * std::sin(angle / 4);
  }

  void turned() {
    const auto at = mouths_of(build_, piece_.part, hole_);
    if (at.size() < 2) return;
    double pitch = 1e300;
    for (std::size_t a = 0; a < at.size(); ++a)
      for (std::size_t b = a + 1; b < at.size(); ++b)
        pitch = std::min(pitch, beside(at[a] - at[b], hole_.way).norm());
    RecoveryWay way{Recovery::turned, true, 0, 0, mates().names, {}, {}};
    way.room = half_a_pitch_on(at, pitch) - hole_.across - in_.off;
    RecoveryWork work;
    for (std::size_t k = 0; k < at.size(); ++k) work.emplace_back(OperationKind::drill, "");
    way.minutes = minutes_of(work);
    if (way.room < hole_.across) { // a diameter of metal between two holes (common practice)
      way.works = false;
      way.text = fmt::format("A new set half a pitch on would leave {} between old holes and new.",
                             text(std::max(0.0, way.room)));
    } else {
      way.text =
          fmt::format("Drill the whole set anew half a pitch on, in the mate as well; {} stay between old "
                      "holes and new. {:.0f} min, as is usual.",
                      text(way.room), way.minutes);
      way.edit = taken("a new set half a pitch on",
                       {{OperationKind::drill, fmt::format("drill {} anew, half a pitch on", hole_.name)}});
    }
    out_.push_back(std::move(way));
  }

  void left_out() {
    const auto count = mouths_of(build_, piece_.part, hole_).size();
    constexpr std::size_t enough = 4;
    if (count < 2) return;
    RecoveryWay way{Recovery::left_out, count >= enough, 0, 0, {}, {}, {}};
    way.text = way.works
                   ? fmt::format("Leave that one out: {} of {} hold it. Not under pressure, nor where it "
                                 "seals.",
                                 count - 1, count)
                   : fmt::format("Of {} holes none can be spared.", count);
    if (way.works) way.edit = taken("one hole is left out", {});
    out_.push_back(std::move(way));
  }

  void drive_out() {
    const RecoveryWork work{{OperationKind::file, fmt::format("get the tap out of {}", hole_.name)}};
    RecoveryWay way{Recovery::drive_out, true, 0, minutes_of(work), {}, {}, {}};
    way.text =
        "Turn it back with wires in its flutes or a fine punch, oil first, no force forwards: it is hard "
        "and splinters, wear eye protection." +
        time_text(work);
    way.edit = taken("the tap is got out", work);
    out_.push_back(std::move(way));
  }

  void dissolve() {
    const auto* part = build_.find<Part>(piece_.part);
    const auto* solid = part ? fits::find_solid(part->material).solid : nullptr;
    static constexpr const char* stand_it[] = {"gunmetal", "phosphor bronze",   "brass",
                                               "copper",   "wrought aluminium", "cast aluminium"};
    const bool stands = solid && std::any_of(std::begin(stand_it), std::end(stand_it),
                                             [&](const char* name) { return solid->name == name; });
    const RecoveryWork work{{OperationKind::wait, fmt::format("dissolve the tap in {}", hole_.name)}};
    RecoveryWay way{Recovery::dissolve, stands, 0, minutes_of(work), {}, {}, {}};
    way.text =
        stands
            ? "A carbon or high-speed steel tap goes in hot saturated alum in a day or two, and this metal "
              "stands it. Hot and corrosive: cover, air, gloves and eye protection; by the maker's sheet."
        : solid ? fmt::format("Alum would eat {} with the tap.", solid->name)
                : std::string("It is not known whether this metal stands alum.");
    if (stands) way.edit = taken("the tap is dissolved", work);
    out_.push_back(std::move(way));
  }

  void erode() {
    const RecoveryWork work{{OperationKind::sent_out, fmt::format("spark the tap out of {}", hole_.name)}};
    RecoveryWay way{Recovery::erode, true, 0, minutes_of(work), {}, {}, {}};
    way.text = "Send it out to be spark eroded: the thread stays. The time it is away is not counted.";
    way.edit = taken("the tap is sparked out", work);
    out_.push_back(std::move(way));
  }

  void scrap() { out_.push_back(scrap_way(build_, in_.piece, reason_)); }

  const Build& build_;
  const Feature& hole_;
  const HoleSlipInput& in_;
  RecoveryOptions options_;
  const Piece& piece_;
  const threads::Thread* thread_ = nullptr;
  std::string reason_;
  std::vector<RecoveryWay> out_;
};

} // namespace

std::optional<double> metal_round(const Build& build, Id part, const Feature& hole, double across) {
  std::optional<double> least;
  const auto nearer = [&](double left) {
    if (!least || left < *least) least = left;
  };
  for (const Vec3& at : mouths_of(build, part, hole)) {
    for (const auto& f : features_to_make(build, part)) {
      const bool is_hole_too = f.shape == FeatureShape::hole || f.shape == FeatureShape::taper_hole;
      const bool same =
          (f.body != 0 && f.body == hole.body) || (!f.surfaces.empty() && f.surfaces == hole.surfaces);
      if (!is_hole_too || same || std::abs(f.way.dot(hole.way)) < same_line) continue;
      for (const Vec3& other : mouths_of(build, part, f))
        nearer(beside(other - at, hole.way).norm() - f.across / 2 - across / 2);
    }
    for (const auto& [id, s] : build.surfaces_of(part)) {
      if (s.kind != SurfaceKind::boss || std::abs(s.direction.dot(hole.way)) < same_line) continue;
      const double apart = beside(at - s.point, hole.way).norm();
      if (apart < s.diameter / 2) nearer(s.diameter / 2 - apart - across / 2);
    }
    // The outside of the part, from the planes along the hole.
    for (const auto& [id, patch] : stock::patches_of(build, part)) {
      if (patch.shape.round() || std::abs(patch.shape.direction.dot(hole.way)) > 0.1) continue;
      const double in = (patch.shape.point - at).dot(patch.shape.direction);
      if (in > 0) nearer(in - across / 2);
    }
  }
  return least;
}

std::vector<RecoveryWay> hole_recoveries(const Build& build, const Feature& hole, const HoleSlipInput& slip,
                                         const RecoveryOptions& options) {
  const bool is_round_hole = hole.shape == FeatureShape::hole || hole.shape == FeatureShape::taper_hole;
  if (!is_round_hole || !build.find<Piece>(slip.piece)) return {};
  if (slip.slip == HoleSlip::out_of_place && !(slip.off > 0)) return {};
  return OfHole(build, hole, slip, options).all();
}

} // namespace datrin::route
