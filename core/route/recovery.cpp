#include "route/recovery.h"

#include "batch/batch_edits.h"
#include "build/edit_casting.h"
#include "build/rows.h"
#include "quantity/length_text.h"
#include "route/recovery_edit.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace datrin::route {

using namespace build;

namespace {

class Recoveries {
public:
  Recoveries(const Build& build, Id piece, const allowance::SurfacePlan& plan,
             const allowance::MistakeResult& mistake, std::string at, const RecoveryOptions& options)
      : build_(build), piece_(piece), plan_(plan), mistake_(mistake), at_(std::move(at)), options_(options),
        part_(build.find<Piece>(piece)->part) {}

  std::vector<RecoveryWay> all() {
    other_face();
    mate();
    if (is_hole(plan_.drawn.kind))
      bush();
    else if (plan_.drawn.round())
      sleeve();
    else
      liner();
    build_up();
    leave();
    scrap();
    cheapest_first(out_);
    return std::move(out_);
  }

private:
  std::string text(double mm) const {
    return length_text(mm, build_.info().unit, {.decimals_mm = 2, .show_unit = true});
  }
  const std::string& name() const { return plan_.drawn.name; }

  Slipped slipped() const {
    return {part_, piece_, {plan_.surface},
            {},    name(), fmt::format("{} was cut {} too deep", name(), text(mistake_.over)),
            at_};
  }
  Edit taken(const std::string& what, const RecoveryWork& work) const {
    return take_recovery(build_, slipped(), what, work);
  }

  void other_face() {
    for (const auto& way : mistake_.ways) {
      if (way.how != "the other face") continue;
      RecoveryWay one{Recovery::other_face, way.works, way.room, 0, {}, way.text, {}};
      if (way.works) {
        Rows rows(build_);
        rows.apply(set_seat(build_, piece_, mistake_.pose, false, "Move the part"));
        rows.add(decision_of(slipped(), "the other face takes it"));
        one.edit = rows.edit(name() + ": the other face takes it");
      }
      out_.push_back(std::move(one));
    }
  }

  void mate() {
    RecoveryWay way{Recovery::mate, false, 0, 0, {}, {}, {}};
    std::string made;
    for (const auto& [id, joint] : build_.joints()) {
      for (const auto& [mine, other] :
           {std::pair{joint.hole, joint.shaft}, std::pair{joint.shaft, joint.hole}}) {
        const auto *d = build_.find<Dimension>(mine), *o = build_.find<Dimension>(other);
        if (!d || !o || (d->surface != plan_.surface && d->other != plan_.surface)) continue;
        const auto* part = build_.find<Part>(o->part);
        if (!part) continue;
        way.others.push_back(part->name + ", " + o->name);
        for (const auto& [mate_piece, unused] : build_.pieces_of(o->part))
          if (const auto read = build_.measurement_of(mate_piece, other); read && made.empty())
            made = part->name;
      }
    }
    const double by = plan_.drawn.round() ? 2 * mistake_.over : mistake_.over;
    if (way.others.empty()) {
      way.text = "Nothing is stated that fits it: no mate can be made to suit.";
    } else if (!made.empty()) {
      way.text = fmt::format("{} is made already: it cannot be made to suit.", made);
    } else {
      way.works = true;
      way.text = fmt::format("Make what fits it {} {} to suit.", text(by),
                             is_hole(plan_.drawn.kind) ? "larger" : "smaller, or thicker,");
      way.edit = taken(fmt::format("the mate is made {} to suit", text(by)), {});
    }
    out_.push_back(std::move(way));
  }

  double wall_of(double diameter) const { return std::max(options_.least_wall, 0.1 * diameter); }

  /// The thinnest metal between the hole and the outside of a round about it; nothing where there is none.
  std::optional<double> metal_round_hole(double bored) const {
    std::optional<double> least;
    for (const auto& [id, s] : build_.surfaces_of(part_)) {
      if (s.kind != SurfaceKind::boss) continue;
      const Vec3 off = plan_.drawn.point - s.point;
      if (std::abs(s.direction.dot(plan_.drawn.direction)) < 0.99) continue;
      const double apart = (off - off.dot(s.direction) * s.direction).norm();
      const double left = s.diameter / 2 - apart - bored / 2;
      if (apart < s.diameter / 2 && (!least || left < *least)) least = left;
    }
    return least;
  }

  void bush() {
    const double d = plan_.drawn.diameter, wall = wall_of(d);
    const double bored = std::ceil(2 * (d + 2 * mistake_.over + 2 * wall)) / 2; // to the next half millimetre
    const RecoveryWork work{
        {OperationKind::bore, fmt::format("bore {} out to {} for a bush", name(), text(bored))},
        {OperationKind::turn,
         fmt::format("turn a bush {} outside, bore left {} under", text(bored), text(0.5))},
        {OperationKind::press, fmt::format("press the bush into {}", name())},
        {OperationKind::bore, fmt::format("bore the bush to {}", text(d))}};
    RecoveryWay way{Recovery::bush, true, 0, minutes_of(work), {}, {}, {}};
    const auto left = metal_round_hole(bored);
    way.room = left.value_or(0);
    if (left && *left < options_.left_wall) {
      way.works = false;
      way.text = fmt::format("A bush {} thick wants {}: only {} would stay round it.", text(wall),
                             text(bored), text(std::max(0.0, *left)));
    } else {
      way.text = fmt::format("Bore it to {}, press in a bush {} thick, bore that to size{}.", text(bored),
                             text((bored - d) / 2),
                             left ? fmt::format("; {} stay round it", text(*left)) : std::string());
      way.text += time_text(work);
      way.edit = taken("bushed", work);
    }
    out_.push_back(std::move(way));
  }

  void sleeve() {
    const double d = plan_.drawn.diameter, wall = wall_of(d);
    const double turned = std::floor(2 * (d - 2 * wall)) / 2;
    const RecoveryWork work{
        {OperationKind::turn, fmt::format("turn {} down to {} for a sleeve", name(), text(turned))},
        {OperationKind::turn, fmt::format("turn a sleeve, bore {}", text(turned))},
        {OperationKind::press, fmt::format("press the sleeve onto {}", name())},
        {OperationKind::turn, fmt::format("turn the sleeve to {}", text(d))}};
    RecoveryWay way{Recovery::sleeve, turned > 0.5 * d, turned, minutes_of(work), {}, {}, {}};
    if (way.works) {
      way.text = fmt::format("Turn it down to {}, press on a sleeve {} thick, turn that to size.",
                             text(turned), text((d - turned) / 2));
      way.text += time_text(work);
      way.edit = taken("sleeved", work);
    } else {
      way.text = fmt::format("Turned down for a sleeve only {} would be left.", text(std::max(0.0, turned)));
    }
    out_.push_back(std::move(way));
  }

  void liner() {
    const double thick = mistake_.over;
    const RecoveryWork work{
        {OperationKind::file, fmt::format("fit a liner {} thick to {}", text(thick), name())}};
    RecoveryWay way{Recovery::liner, true, thick, minutes_of(work), {}, {}, {}};
    constexpr double shim = 0.05; // mm: thinner is no shim one can buy
    way.works = thick >= shim;
    way.text = way.works ? fmt::format("Put a liner {} thick between it and what it bears on.", text(thick))
                         : fmt::format("{} is too thin for a shim.", text(thick));
    if (way.works) way.edit = taken(fmt::format("a liner {} thick", text(thick)), work);
    out_.push_back(std::move(way));
  }

  OperationKind cutting_again() const {
    return is_hole(plan_.drawn.kind) ? OperationKind::bore
           : plan_.drawn.round()     ? OperationKind::turn
                                     : OperationKind::face;
  }

  void build_up() {
    const auto* part = build_.find<Part>(part_);
    const auto& metal = part->material;
    const bool iron = metal.find("iron") != std::string::npos;
    const RecoveryWork work{{OperationKind::sent_out, fmt::format("build {} up", name())},
                            {cutting_again(), fmt::format("cut {} to size again", name())}};
    RecoveryWay way{Recovery::build_up, !iron, mistake_.over, minutes_of(work), {}, {}, {}};
    way.text = iron
                   ? "Welded, iron cracks and goes hard beside the weld: braze it, or leave it."
                   : "Weld, braze or spray metal on, and cut it again: it warps, and faces near it are to be "
                     "read anew. The time it is away is not counted.";
    if (way.works) {
      way.text += time_text(work);
      way.edit = taken("built up", work);
    }
    out_.push_back(std::move(way));
  }

  void leave() {
    RecoveryWay way{Recovery::leave, true, -mistake_.over, 0, {}, {}, {}};
    way.text = fmt::format("Leave it {} outside its limits, where nothing depends on it: the reason is kept.",
                           text(mistake_.over));
    way.edit = taken("left as it is", {});
    out_.push_back(std::move(way));
  }

  void scrap() {
    out_.push_back(scrap_way(build_, piece_, fmt::format("{} cut {} too deep", name(), text(mistake_.over))));
  }

  const Build& build_;
  Id piece_;
  const allowance::SurfacePlan& plan_;
  const allowance::MistakeResult& mistake_;
  std::string at_;
  RecoveryOptions options_;
  Id part_;
  std::vector<RecoveryWay> out_;
};

} // namespace

std::vector<RecoveryWay> recoveries(const Build& build, Id piece, const casting::PieceInput& input,
                                    const Pose& pose, const std::vector<allowance::SurfacePlan>& plans,
                                    Id surface, const std::string& at, const RecoveryOptions& options) {
  const auto plan =
      std::find_if(plans.begin(), plans.end(), [&](const auto& p) { return p.surface == surface; });
  if (plan == plans.end() || !build.find<Piece>(piece)) return {};
  const auto mistake = allowance::absorb_mistake(build, input, pose, plans, *plan, plan->now);
  if (mistake.over <= 0) return {};
  return Recoveries(build, piece, *plan, mistake, at, options).all();
}

void cheapest_first(std::vector<RecoveryWay>& ways) {
  const auto place = [](const RecoveryWay& w) { return w.way == Recovery::scrap ? 2 : w.works ? 0 : 1; };
  std::stable_sort(ways.begin(), ways.end(), [&](const RecoveryWay& a, const RecoveryWay& b) {
    return place(a) != place(b) ? place(a) < place(b) : a.minutes < b.minutes;
  });
}

RecoveryWay scrap_way(const Build& build, Id piece, const std::string& reason) {
  double lost = 0;
  for (const auto& [id, o] : build.operations_of(build.find<Piece>(piece)->part)) {
    const bool cut = std::any_of(o.surfaces.begin(), o.surfaces.end(),
                                 [&](Id s) { return !build.cuts_of(piece, s).empty(); });
    if (cut || build.done_of(piece, id)) lost += o.minutes;
  }
  RecoveryWay way{Recovery::scrap, true, 0, lost, {}, {}, {}};
  way.text = lost > 0 ? fmt::format("Make another: {:.0f} min of work are lost.", lost) : "Make another.";
  way.edit = batch::reject(build, piece, reason);
  return way;
}

const char* recovery_name(Recovery way) {
  static constexpr std::array names{
      "move the part",  "mate to suit",  "bush",         "sleeve",          "liner",
      "build up",       "leave",         "scrap",        "open it out",     "next thread",
      "plug and drill", "another place", "leave it out", "get the tap out", "dissolve the tap",
      "spark it out"};
  return names[static_cast<std::size_t>(way)];
}

} // namespace datrin::route
