#include "app/joints/joint_picture.h"

#include "build/words.h"
#include "fits/heat.h"
#include "fits/purpose.h"
#include "quantity/limits.h"
#include "sheets/figures.h"
#include "threads/threads.h"

#include <cmath>

namespace datrin::app {

using sheets::fine_figure;
using sheets::qt;

JointState joint_state(const build::Build& build, const chains::BuildTargets& targets, build::Id id,
                       int condition) {
  JointState s;
  const auto* joint = build.find<build::Joint>(id);
  if (joint == nullptr) return s;
  s.id = id;
  s.joint = *joint;
  const auto n = static_cast<int>(targets.sources.size());
  s.condition =
      condition >= 0 && condition < n && targets.sources[static_cast<std::size_t>(condition)].joint == id
          ? condition
          : targets.tightest_of_joint(id);
  if (s.condition < 0) {
    s.hole = {joint->hole, 0};
    s.shaft = {joint->shaft, 0};
    return s;
  }
  const auto& source = targets.sources[static_cast<std::size_t>(s.condition)];
  s.hole = {joint->hole, source.hole_piece};
  s.shaft = {joint->shaft, source.shaft_piece};
  s.hole_name = name_words(chains::made_name(build, s.hole));
  if (joint->shaft == 0) {
    if (const auto found = threads::find(joint->thread); found.thread != nullptr)
      s.major = found.thread->major;
    s.shaft_name =
        qt(joint->thread) + (joint->purpose == build::JointPurpose::thread ? ", outside" : ", screw");
  } else {
    s.shaft_name = name_words(chains::made_name(build, s.shaft));
  }
  return s;
}

namespace {

double grows(const fits::Solid* solid, double diameter, double temperature) {
  return solid == nullptr ? 0 : diameter * solid->expansion * (temperature - fits::reference_temperature);
}

ZoneSide side_of(const build::Build& build, const chains::BuildTargets& targets, const chains::Made& made,
                 double nominal, double temperature) {
  ZoneSide side;
  const auto* d = build.find<build::Dimension>(made.dimension);
  const int at = targets.index_of(made);
  if (d == nullptr || at < 0) return side;
  const auto& input = targets.input.dimensions[static_cast<std::size_t>(at)];
  side.there = true;
  side.name = name_words(input.id);
  side.limits = !d->tolerance.empty() ? qt(d->tolerance)
                : !d->has_limits()    ? QString("free: no limits")
                                      : QString("%1 / %2").arg(fine_figure(d->upper, build.info().unit, true),
                                                               fine_figure(d->lower, build.info().unit, true));
  side.drawn = {d->least() - nominal, d->most() - nominal};
  if (input.measured) {
    side.measured = *input.measured - nominal;
    side.uncertainty = input.uncertainty;
  } else if (const auto* target = targets.result.target(at)) {
    side.make = target->make - nominal;
    side.hold = target->hold;
    side.departs = target->departs;
  }
  side.grows = grows(metal_of(build, made.dimension), d->nominal, temperature);
  return side;
}

} // namespace

Reckoning clearance_sum(const build::Build& build, const chains::BuildTargets& targets, const JointState& s,
                        double temperature) {
  Reckoning sum;
  if (!s.usable() || !targets.result.usable()) return sum;
  sum = chains::condition_sum(targets.input, targets.result, s.condition);
  if (s.major > 0) sum.lines.push_back({s.joint.thread, -s.major, "thread"});
  sum.title = "clearance at 20 \u00B0C";
  const auto* hole = build.find<build::Dimension>(s.joint.hole);
  if (hole == nullptr || s.joint.shaft == 0 || std::abs(temperature - 20) < 0.5) return sum;
  const auto hot = fits::clearance_hot({hole->nominal, sum.total(), hole_metal(build, s.joint),
                                        shaft_metal(build, s.joint), temperature, temperature});
  if (!hot.ok) return sum;
  sum.title = hot.why.title;
  sum.lines.insert(sum.lines.end(), hot.why.lines.begin() + 1, hot.why.lines.end());
  return sum;
}

ZonePicture zone_picture(const build::Build& build, const chains::BuildTargets& targets, const JointState& s,
                         double temperature) {
  ZonePicture picture;
  const auto* hole = build.find<build::Dimension>(s.joint.hole);
  if (!s.usable() || hole == nullptr) return picture;
  picture.known = true;
  picture.nominal = hole->nominal;
  picture.title = QString("%1: %2%3")
                      .arg(name_words(s.joint.name), qt(build::shown_word(s.joint.purpose)),
                           s.joint.basis.empty() ? QString() : ", " + qt(s.joint.basis));
  picture.least = s.joint.least;
  picture.most = s.joint.most;
  picture.temperature = temperature;
  picture.why = clearance_sum(build, targets, s, temperature);
  picture.hole = side_of(build, targets, s.hole, picture.nominal, temperature);
  if (s.joint.shaft != 0) {
    picture.shaft = side_of(build, targets, s.shaft, picture.nominal, temperature);
    picture.temperature_known =
        hole_metal(build, s.joint) != nullptr && shaft_metal(build, s.joint) != nullptr;
  } else {
    picture.shaft.there = true;
    picture.shaft.name = s.shaft_name;
    picture.shaft.limits = qt(s.joint.thread);
    picture.shaft.drawn = {s.major - picture.nominal, s.major - picture.nominal};
  }
  return picture;
}

ClearancePicture clearance_picture(const build::Build& build, const chains::BuildTargets& targets,
                                   const JointState& s, double temperature) {
  ClearancePicture picture;
  if (!s.usable() || !targets.result.usable()) return picture;
  const auto& room = targets.result.conditions[static_cast<std::size_t>(s.condition)];
  picture.known = true;
  picture.expected = room.expected - s.major;
  double variance = 0;
  for (const auto& term : targets.input.conditions[static_cast<std::size_t>(s.condition)].terms) {
    const auto& d = targets.input.dimensions[static_cast<std::size_t>(term.dimension)];
    const double sigma = term.coefficient * (d.measured ? d.uncertainty / 2 : d.capability / 3);
    variance += sigma * sigma;
  }
  picture.sigma = std::sqrt(variance);
  const auto& condition = targets.input.conditions[static_cast<std::size_t>(s.condition)];
  if (condition.spread > 0) { // a comparison: surer than two sizes
    picture.sigma = condition.spread / 2;
    picture.lines << "Read by comparison with its mate: the two instruments' own errors are not in it.";
  }
  picture.least = s.joint.least;
  picture.most = s.joint.most;
  const auto* hole = build.find<build::Dimension>(s.joint.hole);
  const auto* hole_solid = hole_metal(build, s.joint);
  const auto* shaft_solid = shaft_metal(build, s.joint);
  if (hole != nullptr && hole_solid != nullptr && shaft_solid != nullptr)
    picture.hot_by =
        grows(hole_solid, hole->nominal, temperature) - grows(shaft_solid, hole->nominal, temperature);
  const auto unit = build.info().unit;
  if (hole != nullptr) {
    fits::ProposeInput in{s.joint.purpose, hole->nominal, s.joint.thread, {}, unit, 0};
    QStringList ways;
    for (const auto& p : fits::propose(in).proposals)
      ways << QString("%1: %2 to %3").arg(qt(p.basis), fine_figure(p.least, unit), fine_figure(p.most, unit));
    if (!ways.isEmpty()) picture.lines << ways.join(" \u00B7 ") + " " + sheets::fine_unit(unit);
  }
  return picture;
}

} // namespace datrin::app
