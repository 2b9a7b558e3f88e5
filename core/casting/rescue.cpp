#include "casting/rescue.h"

#include "geometry/between.h"
#include "geometry/surface.h"
#include "quantity/length_text.h"

#include <Eigen/Geometry>
#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <optional>

namespace datrin::casting {
namespace {

class Rescuer {
public:
  Rescuer(const SeatInput& input, const RescueOptions& options) : in_(input), options_(options) {
    touches_.assign(input.surfaces.size(), 0);
    for (const auto& point : input.points) ++touches_[static_cast<std::size_t>(point.surface)];
  }

  RescueResult run() {
    RescueResult result;
    const auto now = best(in_);
    if (!now.usable()) {
      result.status = now.status == SeatStatus::stopped ? RescueStatus::stopped : RescueStatus::refused;
      result.message = now.message;
      return result;
    }
    start_ = now.pose;
    result.short_by = options_.room - now.margins.least;
    if (result.short_by <= 0) {
      result.status = RescueStatus::not_needed;
      result.message = "it cleans up as drawn";
      return result;
    }
    const auto kinds = possible_changes();
    for (const auto& kind : kinds)
      if (!stopped()) try_single(kind, result.rescues);
    if (result.rescues.empty()) try_pairs(kinds, result.rescues);
    if (result.rescues.empty()) try_all(kinds, result.rescues);
    std::stable_sort(result.rescues.begin(), result.rescues.end(),
                     [](const Rescue& a, const Rescue& b) { return a.cost < b.cost; });
    result.status = stopped()                ? RescueStatus::stopped
                    : result.rescues.empty() ? RescueStatus::none
                                             : RescueStatus::found;
    if (result.status == RescueStatus::none)
      result.message = fmt::format("changes of up to {} each do not save it", mm(options_.most));
    return result;
  }

private:
  /// A length as the person reads it.
  std::string mm(double value) const {
    return length_text(value, options_.unit, {.decimals_mm = 2, .decimals_inch = 4, .show_unit = true});
  }
  const SeatSurface& surface(int i) const { return in_.surfaces[static_cast<std::size_t>(i)]; }
  bool enough(const SeatResult& seat) const { return seat.usable() && seat.margins.least >= options_.room; }
  bool stopped() const { return options_.should_stop && options_.should_stop(); }

  SeatResult best(const SeatInput& input) const {
    SeatOptions options;
    options.start = start_.value_or(options_.start);
    options.should_stop = options_.should_stop;
    return seat(input, options);
  }

  std::vector<RescueChange> possible_changes() const {
    std::vector<RescueChange> kinds;
    for (int i = 0; i < static_cast<int>(in_.surfaces.size()); ++i) {
      if (!surface(i).machined || touches_[static_cast<std::size_t>(i)] == 0) continue;
      const auto add = [&](RescueKind kind) { kinds.push_back({kind, i, 0, Vec3::Zero()}); };
      switch (surface(i).shape.kind) {
      case SurfaceKind::plane:
        add(RescueKind::leave_low);
        add(RescueKind::move_face);
        add(RescueKind::build_up);
        break;
      case SurfaceKind::bore:
      case SurfaceKind::taper_bore:
        add(RescueKind::shift_bore);
        add(RescueKind::sleeve);
        break;
      case SurfaceKind::boss:
      case SurfaceKind::taper_shank:
        add(RescueKind::leave_low);
        add(RescueKind::build_up);
        break;
      }
    }
    return kinds;
  }

  /// The least amount of a change with which the part cleans up, to the resolution; nothing when even the
  /// most is not enough. More of a change never makes it worse, so halving finds it.
  std::optional<std::pair<double, SeatResult>> least_amount(const std::vector<RescueChange>& fixed,
                                                            RescueChange change) const {
    const auto with = [&](double amount) {
      auto changes = fixed;
      changes.push_back(change);
      auto& last = changes.back();
      last.amount = amount;
      last.shift = last.shift.norm() > 0 ? Vec3(last.shift.normalized() * amount) : last.shift;
      return best(with_changes(in_, changes));
    };
    double high = most_of(change);
    SeatResult found = with(high);
    // A bore can go too far for its wall: then less of the way is tried.
    for (int part = 3; part > 0 && change.kind == RescueKind::shift_bore && !enough(found); --part) {
      high = most_of(change) * part / 4;
      found = with(high);
    }
    if (!enough(found)) return std::nullopt;
    double low = 0;
    while (high - low > options_.resolution && !stopped()) {
      const double middle = (low + high) / 2;
      auto tried = with(middle);
      if (enough(tried)) {
        high = middle;
        found = std::move(tried);
      } else {
        low = middle;
      }
    }
    return std::pair{high, std::move(found)};
  }

  /// Which way a bore has to go: where it would sit by itself once everything else is seated without it.
  std::optional<Vec3> shift_wanted(int bore) const {
    SeatInput others = in_, alone = in_;
    std::erase_if(others.walls, [&](const SeatWall& w) { return w.to == bore; });
    others.surfaces[static_cast<std::size_t>(bore)].machined = false;
    const auto rest = best(others);
    if (!rest.usable()) return std::nullopt;
    // Alone, with its walls, only moving: the part is the bore, so the casting moves the other way.
    for (int i = 0; i < static_cast<int>(alone.surfaces.size()); ++i)
      if (i != bore) alone.surfaces[static_cast<std::size_t>(i)].machined = false;
    std::erase_if(alone.walls, [&](const SeatWall& w) { return w.to != bore; });
    SeatOptions options;
    options.start = rest.pose;
    options.locked = {false, false, false, true, true, true};
    const auto own = seat(alone, options);
    if (!own.usable()) return std::nullopt;
    const Vec3 middle = rest.pose.inverse().apply(surface(bore).shape.point);
    Vec3 shift = surface(bore).shape.point - own.pose.apply(middle);
    const Vec3& axis = surface(bore).shape.direction;
    shift -= axis * axis.dot(shift);
    if (shift.norm() < 1e-3) return std::nullopt;
    return shift;
  }

  void try_single(RescueChange change, std::vector<Rescue>& found) const {
    if (change.kind == RescueKind::shift_bore) {
      const auto way = shift_wanted(change.surface);
      if (!way) return;
      change.shift = *way;
    }
    if (auto least = least_amount({}, change)) {
      change.amount = least->first;
      if (change.shift.norm() > 0) change.shift = change.shift.normalized() * change.amount;
      found.push_back(told({change}, std::move(least->second)));
    }
  }

  /// Two changes: as much of the first as the second leaves necessary. Building up twice is no rescue, and a
  /// face moved gives what a face left low gives, and more.
  void try_pairs(const std::vector<RescueChange>& kinds, std::vector<Rescue>& found) const {
    std::vector<RescueChange> usable;
    for (auto change : kinds) {
      if (change.kind == RescueKind::build_up) continue;
      if (change.kind == RescueKind::shift_bore) {
        const auto way = shift_wanted(change.surface);
        if (!way) continue;
        change.shift = *way;
      }
      usable.push_back(change);
    }
    for (std::size_t i = 0; i < usable.size(); ++i)
      for (std::size_t j = i + 1; j < usable.size() && !stopped(); ++j) {
        if (usable[i].surface == usable[j].surface) continue;
        auto first = usable[i], second = usable[j];
        const auto set = [](RescueChange& change, double amount) {
          change.amount = amount;
          if (change.shift.norm() > 0) change.shift = change.shift.normalized() * amount;
        };
        // The first at its most: the least of the second; then the least of the first with that.
        set(first, most_of(first));
        auto of_second = least_amount({first}, second);
        if (!of_second) continue;
        set(second, of_second->first);
        auto of_first = least_amount({second}, usable[i]);
        if (!of_first) continue;
        set(first, of_first->first);
        found.push_back(told({first, second}, std::move(of_first->second)));
      }
    std::stable_sort(found.begin(), found.end(),
                     [](const Rescue& a, const Rescue& b) { return a.cost < b.cost; });
    if (found.size() > 8) found.resize(8);
  }

  /// Everything at its most, then each in turn as little as the others leave necessary, the dearest first: a
  /// set of which none can be left out.
  void try_all(const std::vector<RescueChange>& kinds, std::vector<Rescue>& found) const {
    std::vector<RescueChange> set;
    for (auto change : kinds) {
      if (change.kind == RescueKind::build_up || change.kind == RescueKind::leave_low) continue;
      if (change.kind == RescueKind::shift_bore) continue; // its way hangs on the others: a sleeve serves
      change.amount = most_of(change);
      set.push_back(change);
    }
    auto found_seat = best(with_changes(in_, set));
    if (!enough(found_seat)) return;
    std::sort(set.begin(), set.end(),
              [](const RescueChange& a, const RescueChange& b) { return cost(a) > cost(b); });
    for (std::size_t i = 0; i < set.size() && !stopped();) {
      auto others = set;
      others.erase(others.begin() + static_cast<std::ptrdiff_t>(i));
      auto without = best(with_changes(in_, others));
      if (enough(without)) {
        found_seat = std::move(without);
        set = std::move(others);
        continue;
      }
      if (auto least = least_amount(others, set[i])) {
        set[i].amount = least->first;
        found_seat = std::move(least->second);
      }
      ++i;
    }
    found.push_back(told(set, std::move(found_seat)));
  }

  /// Left low further than it needs, a face would be hollow below the drawing, not merely unclean.
  double most_of(const RescueChange& change) const {
    if (change.kind == RescueKind::shift_bore) return std::min(options_.most, change.shift.norm());
    return change.kind == RescueKind::leave_low ? std::min(options_.most, surface(change.surface).required)
                                                : options_.most;
  }

  Rescue told(std::vector<RescueChange> changes, SeatResult seat_found) const {
    Rescue rescue;
    rescue.pose = seat_found.pose;
    rescue.margins = std::move(seat_found.margins);
    std::vector<std::string> what, elsewhere;
    for (const auto& change : changes) {
      rescue.cost += cost(change);
      what.push_back(words(change));
      if (auto touched = touches_elsewhere(change); !touched.empty()) elsewhere.push_back(std::move(touched));
    }
    for (const auto& group : rescue.margins.groups)
      if (group.wall >= 0 && group.touches > 0)
        elsewhere.push_back(
            fmt::format("the wall at {} keeps {}", surface(group.surface).id, mm(group.stock_least)));
    rescue.what = fmt::format("{}", fmt::join(what, ", and "));
    rescue.elsewhere = fmt::format("{}", fmt::join(elsewhere, "; "));
    rescue.changes = std::move(changes);
    return rescue;
  }

  /// What a millimetre of each change is worth against the others: leaving a face low costs looks only,
  /// moving a dimension touches a mate, a sleeve and built-up metal are work as well.
  static double cost(const RescueChange& change) {
    switch (change.kind) {
    case RescueKind::leave_low:
      return change.amount;
    case RescueKind::move_face:
      return 1.2 * change.amount;
    case RescueKind::shift_bore:
      return 1.3 * change.amount;
    case RescueKind::sleeve:
      return 1.5 * change.amount + 0.5;
    case RescueKind::build_up:
      return 1.5 * change.amount + 1.0;
    }
    return change.amount;
  }

  std::string words(const RescueChange& change) const {
    const auto& name = surface(change.surface).id;
    switch (change.kind) {
    case RescueKind::leave_low:
      return fmt::format("leave {} low by {}", name, mm(change.amount));
    case RescueKind::move_face:
      return fmt::format("move {} {} into the metal", name, mm(change.amount));
    case RescueKind::shift_bore: {
      std::vector<std::string> parts;
      for (int k = 0; k < 3; ++k)
        if (std::abs(change.shift[k]) >= 0.005)
          parts.push_back(fmt::format("{} {}", "xyz"[k],
                                      length_text(change.shift[k], options_.unit, {.show_plus = true})));
      return fmt::format("shift {} by {} ({})", name, mm(change.amount), fmt::join(parts, ", "));
    }
    case RescueKind::sleeve:
      return fmt::format("open {} to {} and sleeve it back to {}", name,
                         mm(surface(change.surface).shape.diameter + 2 * change.amount),
                         mm(surface(change.surface).shape.diameter));
    case RescueKind::build_up:
      return fmt::format("build {} up by {}", name, mm(change.amount));
    }
    return name;
  }

  /// Distances to parallel surfaces that change with a face or a bore.
  std::string touches_elsewhere(const RescueChange& change) const {
    const auto& s = surface(change.surface);
    std::vector<std::string> list;
    if (change.kind == RescueKind::leave_low)
      list.push_back(fmt::format("{} keeps {} of the {} it needs: skin may show there", s.id,
                                 mm(std::max(0.0, s.required - change.amount)), mm(s.required)));
    if (change.kind == RescueKind::build_up)
      list.push_back("weld or fill before machining; the heat may move the rest");
    if (change.kind == RescueKind::sleeve)
      list.push_back(fmt::format("the sleeve is {} thick", mm(change.amount)));
    if (change.kind == RescueKind::move_face || change.kind == RescueKind::shift_bore) {
      const auto moved = with_changes(in_, {change});
      for (int i = 0; i < static_cast<int>(in_.surfaces.size()); ++i) {
        if (i == change.surface || !surface(i).machined) continue;
        const auto was = between(s.shape, surface(i).shape);
        const auto now =
            between(moved.surfaces[static_cast<std::size_t>(change.surface)].shape, surface(i).shape);
        const double before = was ? std::abs(was->signed_distance) : 0,
                     after = now ? std::abs(now->signed_distance) : 0;
        if ((was || now) && std::abs(before - after) > 0.004)
          list.push_back(
              fmt::format("{} to {} becomes {}, was {}", s.id, surface(i).id, mm(after), mm(before)));
      }
    }
    return fmt::format("{}", fmt::join(list, "; "));
  }

  const SeatInput& in_;
  const RescueOptions& options_;
  std::vector<int> touches_;
  std::optional<Pose> start_;
};

} // namespace

SeatInput with_changes(SeatInput input, const std::vector<RescueChange>& changes) {
  for (const auto& change : changes) {
    auto& surface = input.surfaces[static_cast<std::size_t>(change.surface)];
    switch (change.kind) {
    case RescueKind::leave_low:
      surface.required -= change.amount;
      break;
    case RescueKind::move_face:
      surface.shape.point -= surface.shape.direction * change.amount;
      break;
    case RescueKind::shift_bore:
      surface.shape.point += change.shift;
      break;
    case RescueKind::sleeve:
      surface.shape.diameter += 2 * change.amount;
      break;
    case RescueKind::build_up:
      surface.required -= change.amount; // as if each touch stood that much higher
      break;
    }
    if (change.kind == RescueKind::sleeve) // the sleeve is wall again, as far as strength goes
      for (auto& wall : input.walls)
        if (wall.to == change.surface) wall.least -= change.amount;
  }
  return input;
}

RescueResult find_rescues(const SeatInput& input, const RescueOptions& options) {
  if (auto wrong = validate(input); !wrong.empty()) {
    RescueResult result;
    result.status = RescueStatus::refused;
    result.message = std::move(wrong);
    return result;
  }
  return Rescuer(input, options).run();
}

} // namespace datrin::casting
